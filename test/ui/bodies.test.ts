/** Bodies: how a part is built, from its package, its type and its kind. */
import fc from 'fast-check';
import { chipResistorCode, decodeChipResistor } from '@/core/marking';
import { LINE_KINDS, packageOf, pinCount, SHAPES } from '@/core/vocabulary';
import { SAMPLES, sampleLine } from '@/ui/drawn/PartsSheet';

const of = (kind: (typeof LINE_KINDS)[number], label: string, more: object = {}) => packageOf({ kind, label, ...more });

describe('bodies by package', () => {
  test('the sheet for looking at shows every body that there is', () => {
    const shown = new Set(SAMPLES.map((s) => packageOf(sampleLine(s)).shape));
    expect(SHAPES.filter((s) => !shown.has(s))).toEqual([]);
  });

  test.each(LINE_KINDS)('every kind has a body of some size: %s', (kind) => {
    const body = of(kind, 'something');
    expect(body.width).toBeGreaterThan(0);
    expect(body.height).toBeGreaterThan(0);
    expect(new Set(body.pads.map((p) => p.pin)).size).toBe(body.pads.length);
  });

  // JEDEC MS-001: 0.1 inch between neighbours, 0.3 inch between rows up to 20 pins, pin 1 left of the notch, anticlockwise.
  test.each([8, 14, 16, 18])('a DIP of %i pins has them where the standard has them', (pins) => {
    const { pads, shape } = of('ic', `chip DIP-${pins}`);
    expect(shape).toBe('dip');
    expect(pads).toHaveLength(pins);
    const at = (pin: number) => pads.find((p) => p.pin === pin)!;
    expect(at(2).x - at(1).x).toBeCloseTo(2.54);
    expect(at(1).y - at(pins).y).toBeCloseTo(7.62);
    expect(at(pins).x).toBeCloseTo(at(1).x);
    expect(at(pins / 2).x).toBeCloseTo(at(pins / 2 + 1).x);
  });

  // EIA size codes in hundredths of an inch, rounded as the data sheets do.
  test.each([
    ['0603', 1.6, 0.8],
    ['0805', 2, 1.25],
    ['1206', 3.2, 1.6],
  ])('a chip of size %s', (size, width, height) => {
    expect(of('resistor', '10 k', { package: size })).toMatchObject({ shape: 'chip', width, height });
  });

  test.each([
    ['npn', 'BC547', {}, 'to92'],
    ['npn', 'TIP31C', {}, 'to220'],
    ['npn', 'S9013', { package: 'SOT-23' }, 'sot23'],
    ['regulator', '7805', {}, 'to220'],
    ['regulator', '78L05', {}, 'to92'],
    ['regulator', 'adjustable 317', { package: 'TO-220' }, 'to220'],
    ['ic', 'power amplifier chip SIL-9', {}, 'sil'],
    ['opamp', 'LM324', {}, 'dip'],
    ['led', 'LED 0805 green', {}, 'led-chip'],
    ['diode', '1N5408', {}, 'axial-plastic'],
    ['switch', 'slide switch', {}, 'slide'],
    ['other', 'buzzer 5 V', {}, 'buzzer'],
  ] as const)('%s %s is no 8-pin chip', (kind, label, more, shape) => {
    expect(of(kind, label, more).shape).toBe(shape);
  });

  test('a body that nothing tells says so', () => {
    expect(of('ic', 'mystery').known).toBe(false);
    expect(of('other', 'thing').known).toBe(false);
    expect(of('ic', 'chip, 14 pins').known).toBe(true);
  });

  test.each([
    ['DIP-8', 8],
    ['SOIC16', 16],
    ['socket, 14 pins', 14],
    ['screw block, 3 poles', 3],
    ['脚 8脚', 8],
    ['4.7 k', null],
  ])('pins of “%s”: %s', (words, pins) => {
    expect(pinCount(words)).toBe(pins);
  });
});

// IEC 60062: what is printed is what is read back, by the decoder that other tests hold against the standard.
test('a printed chip code reads back as its value', () => {
  fc.assert(
    fc.property(fc.integer({ min: 10, max: 99 }), fc.integer({ min: 0, max: 5 }), (digits, exponent) => {
      const ohms = digits * 10 ** exponent;
      const read = decodeChipResistor(chipResistorCode(ohms, 5)!);
      const meant = read.state === 'clear' ? [read.reading, ...read.others] : read.state === 'ambiguous' ? read.readings : [];
      expect(meant.some((r) => typeof r.value === 'number' && Math.abs(r.value - ohms) <= 1e-9 * ohms)).toBe(true);
    }),
  );
  expect(chipResistorCode(4.7, 5)).toBe('4R7');
  expect(chipResistorCode(0.47, 5)).toBe('R47');
  expect(chipResistorCode(47_000, 1)).toBe('4702');
  expect(chipResistorCode(0, 5)).toBe('0');
});
