/** Types as people write them, their usual readings, and what a piece that reads otherwise may be. */
import fc from 'fast-check';
import { expectationOf, type Line } from '@/core/kit';
import { outAdvice } from '@/core/loop';
import { readPileEntry } from '@/core/loop/pileEntry';
import { ledForward, matchTypes, typeReadings } from '@/core/vocabulary';
import { demo } from '../support/kits';

describe('types', () => {
  test.each([
    ['bc547', 'BC547'],
    ['C547B', 'BC547B'],
    ['BC 547 B', 'BC547B'],
    ['transistor BC547B NPN x2', 'BC547B'],
    ['XY-BC557C', 'BC557C'],
    ['BC337-40', 'BC337-40'],
    ['1N4148', '1N4148'],
    ['in4148 diode', '1N4148'],
    ['2N3904', '2N3904'],
    ['S8050 D', 'S8050D'],
    ['C1815 GR', '2SC1815GR'],
    // Three letters of a maker in front; a Schottky diode is called SS14, never SS8050.
    ['SS8050', 'S8050'],
    ['C9013', 'S9013'],
    ['SS34', 'SS34'],
    ['BD139-16', 'BD139-16'],
    ['TIP41C', 'TIP41'],
    ['D882', '2SD882'],
  ])('%s is a %s', (written, type) => {
    expect(typeReadings(written)?.type).toBe(type);
  });

  test.each(['100 nF', 'C101', 'R547', '10k 1%', 'B10K', '4k7', 'LM358N', '7805', 'BC5471'])('%s is none of them', (written) => {
    expect(typeReadings(written)).toBeNull();
  });

  test('a list without a grade takes every grade, a print without one says nothing against the grade of the list', () => {
    expect(matchTypes('bc547c', 'BC547')).toBe('same');
    expect(matchTypes('BC547', 'transistor BC547B NPN')).toBe('same');
    expect(matchTypes('c547c', 'BC547B')).toBe('grade');
    expect(matchTypes('BC557B', 'BC547B')).toBe('other');
    expect(matchTypes('LM358N', 'LM358')).toBe('same');
    expect(matchTypes('XX358', '358')).toBe('same');
    expect(matchTypes('1N4148', 'BC547')).toBe('other');
  });

  test('law: however spaces, case and maker’s letters are written, the type is the same', () => {
    const families = fc.constantFrom('BC547B', 'BC557C', '1N4148', '2N3904', 'BC337-25', '1N5819');
    const spaced = (type: string, gaps: boolean[], lower: boolean) => {
      const parts = /^([A-Z]+|\d[A-Z])-?(\d{3,4})-?(.*)$/.exec(type)!.slice(1);
      const text = parts.map((p, i) => (i > 0 && gaps[i] && p !== '' ? ` ${p}` : i === 2 && /^\d/.test(p) ? `-${p}` : p)).join('');
      return lower ? text.toLowerCase() : text;
    };
    fc.assert(
      fc.property(families, fc.array(fc.boolean(), { minLength: 3, maxLength: 3 }), fc.boolean(), (type, gaps, lower) => {
        expect(typeReadings(spaced(type, gaps, lower))?.type).toBe(type);
        expect(matchTypes(spaced(type, gaps, lower), type)).toBe('same');
      }),
    );
  });
});

describe('what a good piece reads', () => {
  const line = (fields: Partial<Line>): Line => ({ id: 'x', kind: 'npn', refs: ['Q1'], label: '', value: null, quantity: 1, ...fields }) as Line;
  const limits = (l: Line) => {
    const x = expectationOf(l)!;
    return [x.nominal * (1 + x.tolerance[0]), x.nominal * (1 + x.tolerance[1])].map((v) => Number(v.toPrecision(3)));
  };

  // Grades A 110–220, B 200–450, C 420–800, and 30 % for the socket of a meter: common practice, no source.
  test('gain by grade', () => {
    expect(limits(line({ label: 'BC547A' }))).toEqual([77, 286]);
    expect(limits(line({ label: 'BC547B' }))).toEqual([140, 585]);
    expect(limits(line({ label: 'BC547C' }))).toEqual([294, 1040]);
  });

  // Schottky and silicon junctions at about 1 mA: common practice, no source.
  test('a Schottky diode is not judged as silicon', () => {
    expect(limits(line({ kind: 'diode', label: '1N5819' }))).toEqual([0.1, 0.4]);
    expect(limits(line({ kind: 'diode', label: '1N4148' }))).toEqual([0.53, 0.78]);
  });

  // Old green 1.9 to 2.3 V and pure green 2.8 to 3.4 V at 5 to 10 mA, 0.1 to 0.3 V less on a diode test: common practice.
  test.each([
    ['green', 1.95, true],
    ['green', 2.9, true],
    ['pure green', 2.0, false],
    ['yellow-green', 2.9, false],
    ['red', 2.9, false],
    ['warm white', 2.7, true],
    ['green 5 mm', 2.0, true],
    ['emerald green', 2.0, false],
    ['Yellow green', 2.1, true],
    ['infra-red', 1.2, true],
  ])('%s at %d V: %s', (colour, volts, good) => {
    const [low, high] = ledForward(colour)!.limits;
    expect(volts >= low && volts <= high).toBe(good);
  });
});

test.each(['red/green', 'rainbow', '', 'RGB'])('%j is no one colour', (colour) => {
  expect(ledForward(colour)).toBeNull();
});

describe('one loose piece as it is typed', () => {
  const body = (text: string, kind: 'R' | 'C' | 'L' | 'D' | 'LED' | 'Q' = 'R') => {
    const read = readPileEntry(text, kind);
    return read.ok ? [read.body.part, read.body.reading, read.body.marking, read.body.polarity] : read.message;
  };

  test.each([
    ['NPN 240', ['Q', 240, null, 'NPN']],
    ['BJT-NPN hFE=240 Vbe=680mV', ['Q', 240, null, 'NPN']],
    ['C 98.7nF ESR 0.8', ['C', 98.7e-9, null, null]],
    ['D 585mV', ['D', 0.585, null, null]],
    ['Diode Vf=585mV', ['D', 0.585, null, null]],
    ['bc547b damaged', ['Q', 'over', 'bc547b', null]],
    ['C9013 185', ['Q', 185, 'C9013', null]],
    ['zener 5v1 0.72', ['D', 0.72, 'zener 5v1', null]],
    ['33k 32.9 k', ['R', 32900, '33k', null]],
    ['SS8050 npn 230', ['Q', 230, 'SS8050', 'NPN']],
  ])('a tester’s line: %s', (text, expected) => {
    expect(body(text)).toEqual(expected);
  });

  test.each(['R', 'C', 'L', 'D', 'LED', 'Q'] as const)('behind a piece of kind %s a type says what it is', (kind) => {
    expect(body('1n4148 0.585', kind)).toEqual(['D', 0.585, '1n4148', null]);
    expect(body('bc547b npn 280', kind)).toEqual(['Q', 280, 'bc547b', 'NPN']);
    expect(body('1n4148', kind)).toEqual(['D', null, '1n4148', null]);
  });

  test('a figure without a unit that fits two kinds is asked', () => {
    expect(body('0.585', 'C')).toMatch(/^0\.585 of what\?/);
    expect(body('0.585', 'R')).toMatch(/^0\.585 of what\?/);
    expect(body('585', 'D')).toEqual(['D', 0.585, null, null]);
    expect(body('2 diodes', 'Q')).toMatch(/^Two diodes:/);
  });
});

describe('a piece that reads otherwise', () => {
  const kit = demo();
  const line = (fields: Partial<Line>): Line => ({ id: 'x', kind: 'npn', refs: ['Q1'], label: '', value: null, quantity: 1, ...fields }) as Line;

  test.each([
    [{ kind: 'diode', label: '1N4148' }, 1.9, /LED/],
    [{ kind: 'diode', label: '1N4148' }, 0.22, /Schottky/],
    [{ kind: 'led', label: 'red', colour: 'red' }, 2.8, /reads like pure green or blue or white/],
    [{ kind: 'led', label: 'red', colour: 'red' }, 0.6, /plain diode/],
    [{ kind: 'pnp', label: 'BC557B' }, 3, /NPN socket/],
    [{ kind: 'npn', label: 'BC547C' }, 150, /grade A/],
    [{ kind: 'npn', label: 'BC547B' }, 20_000, /Darlington/],
  ] as const)('%j at %d', (fields, value, advice) => {
    expect(outAdvice(kit, line(fields as Partial<Line>), value)).toMatch(advice);
  });

  test('without a circuit nobody says what it does; another body is no place for it', () => {
    const network = line({ id: 'n', kind: 'network', label: '4k7', value: 4700, refs: ['RN1'] });
    const bare = { ...kit, sheet: { ...kit.sheet, circuit: null, lines: [network] } };
    expect(outAdvice(bare, line({ kind: 'resistor', label: '10k', value: 10_000 }), 4710)).toMatch(/depends on its place/);
  });
});
