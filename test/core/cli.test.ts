/** The verbs of the command line, called as the scorers call them: one request object in, one answer object out. */
import { decode } from '../../scripts/zesty/decode';
import { diagnose } from '../../scripts/zesty/diagnose';
import { receive } from '../../scripts/zesty/receive';
import { solve } from '../../scripts/zesty/solve';
import { verdict } from '../../scripts/zesty/verdict';

const bands = (text: string, extra: object = {}) => decode({ type: 'resistor-bands', input: text.split(' '), ...extra });
const code = (type: string, input: string, extra: object = {}) => decode({ type, input, ...extra });

describe('decode: bands (IEC 60062, from memory)', () => {
  test.each([
    ['brown black red gold', 1000, [-5, 5]],
    ['yellow violet orange gold', 47_000, [-5, 5]],
    ['red red brown silver', 220, [-10, 10]],
    ['brown black black red brown', 10_000, [-1, 1]],
    ['orange orange black brown brown', 3300, [-1, 1]],
    ['green blue gold gold', 5.6, [-5, 5]],
  ])('%s', (text, value, tolerancePercent) => {
    expect(bands(text, { direction: 'fixed' })).toMatchObject({ value, tolerancePercent, unit: 'ohm' });
  });
  test('three bands mean ±20 %, a single black one a link, a sixth its drift', () => {
    expect(bands('brown black red', { direction: 'fixed' })).toMatchObject({ value: 1000, tolerancePercent: [-20, 20] });
    expect(bands('black')).toMatchObject({ value: 0, tolerancePercent: null });
    expect(bands('brown black black red brown red', { direction: 'fixed' })).toMatchObject({ value: 10_000, tempco: 50 });
  });
  test.each(['black red red gold', 'gold gold gold gold', 'brown black', 'pink red red gold', 'brown black red white black red red'])(
    'no reading: %s',
    (text) => {
      expect(bands(text, { direction: 'fixed' })).toEqual({ invalid: true });
    },
  );
  test('both ends legal and equally usual: ambiguous, all readings listed', () => {
    const answer = bands('red red red red') as { ambiguous: boolean; value: number | null };
    expect(answer).toMatchObject({ value: 2200, ambiguous: false });
    const either = decode({ type: 'resistor-bands', input: [['brown', 'red'], 'black', 'orange', 'gold'], direction: 'fixed' }) as {
      ambiguous: boolean;
      alternatives: object[];
    };
    expect(either).toMatchObject({ ambiguous: true, value: null });
    expect(either.alternatives).toHaveLength(2);
    expect(decode({ type: 'resistor-bands', input: [['brown', 'red'], 'black', 'orange', 'gold'], direction: 'fixed', partsList: [20_000] })).toMatchObject({
      value: 20_000,
    });
  });
});

describe('decode: codes', () => {
  test.each([
    ['resistor-code', '4k7', {}, { value: 4700 }],
    ['resistor-code', 'R47', {}, { value: 0.47 }],
    ['resistor-code', '2M2J', {}, { value: 2.2e6, tolerancePercent: [-5, 5] }],
    ['resistor-code', '75KM', {}, { value: 75_000, tolerancePercent: [-20, 20] }],
    ['resistor-code', '5W4R7J', {}, { value: 4.7, tolerancePercent: [-5, 5] }],
    ['smd-resistor', '103', {}, { value: 10_000, tolerancePercent: [-5, 5] }],
    ['smd-resistor', '4702', {}, { value: 47_000, tolerancePercent: [-1, 1] }],
    ['smd-resistor', '000', {}, { value: 0, tolerancePercent: null }],
    ['smd-resistor', '01A', {}, { value: 100, tolerancePercent: [-1, 1] }],
    ['smd-resistor', '1?3', { partsList: ['103', '223'] }, { value: 10_000 }],
    ['capacitor-code', '104', {}, { value: 1e-7 }],
    ['capacitor-code', '104K', {}, { value: 1e-7, tolerancePercent: [-10, 10] }],
    ['capacitor-code', '2A103J', {}, { value: 1e-8, ratedVoltage: 100 }],
    ['capacitor-code', '10K', {}, { value: 1e-11, tolerancePercent: [-10, 10] }],
    ['capacitor-code', '229', {}, { value: 2.2e-12 }],
    ['capacitor-code', '4n7', {}, { value: 4.7e-9 }],
    ['capacitor-code', '0.1', {}, { value: 1e-7 }],
    ['capacitor-code', '101J NP0', {}, { value: 1e-10, tempco: 0 }],
    ['inductor-code', '101K', {}, { value: 1e-4, tolerancePercent: [-10, 10] }],
    ['inductor-code', '4R7M', {}, { value: 4.7e-6 }],
    ['smd-capacitor', 'S3', { package: 'ceramic-chip' }, { value: 4.7e-9 }],
    ['smd-capacitor', '106C', { package: 'tantalum' }, { value: 1e-5, ratedVoltage: 16 }],
    ['smd-capacitor', '100 16V', { package: 'aluminium-can' }, { value: 1e-4, ratedVoltage: 16 }],
    ['date-code', '9233', { order: 'YYWW', referenceDate: '2026-11-25' }, { value: '1992-W33', unit: 'week' }],
    ['letter-value', '4,7 kΩ', { kind: 'R' }, { value: 4700 }],
    ['letter-value', '100 µF/25V', { kind: 'C' }, { value: 1e-4, ratedVoltage: 25 }],
    ['letter-value', '2.2MFD', { kind: 'C' }, { value: 2.2e-6 }],
    ['letter-value', '47 кОм', { kind: 'R' }, { value: 47_000 }],
    ['letter-value', '100мкФ 25 В', { kind: 'C' }, { value: 1e-4, ratedVoltage: 25 }],
    ['letter-value', '10mΩ', { kind: 'R' }, { value: 0.01 }],
    ['letter-value', '4M7', { kind: 'R' }, { value: 4.7e6 }],
  ] as const)('%s %s', (type, input, extra, expected) => {
    const answer = code(type, input, extra) as { value: number | string };
    const { value, ...rest } = expected as { value: number | string };
    expect(answer).toMatchObject(rest);
    if (typeof value === 'number') expect(Math.abs(Number(answer.value) - value)).toBeLessThanOrEqual(1e-6 * value);
    else expect(answer.value).toBe(value);
  });
  test.each([
    ['letter-value', '4k7k', { kind: 'R' }],
    ['resistor-code', '1R2R3', {}],
    ['smd-resistor', '00B', {}],
    ['smd-resistor', '9?9', { partsList: ['103'] }],
    ['capacitor-code', 'J104', {}],
    ['date-code', '1160', { order: 'YYWW', referenceDate: '2026-11-25' }],
  ])('no reading: %s %s', (type, input, extra) => {
    expect(code(type, input, extra)).toEqual({ invalid: true });
  });
  test('470 is 47 pF by the code and 470 pF where plain picofarads are printed; a comma may be a thousands mark; mF is meant either way', () => {
    expect(code('capacitor-code', '470')).toMatchObject({ ambiguous: true });
    expect(code('letter-value', '1,000 pF', { kind: 'C' })).toMatchObject({ ambiguous: true });
    expect(code('letter-value', '10mF', { kind: 'C' })).toMatchObject({ ambiguous: true });
  });
  test('a type that is not known is an error that names it', () => {
    expect(() => code('runes', 'x')).toThrow(/"runes" is not known/);
    expect(() => decode({ type: 'resistor-bands', input: 'brown' })).toThrow(/must be a list/);
  });
});

describe('receive', () => {
  const bom = 'refs,kind,value,tolerance,qty\nR1-R2,R,10k,1%,2\nC1,C,104,10%,1\nLED1,LED,red,,1\n';
  const meter = {
    leadResistance: 0.2,
    accuracy: {
      resistance: [{ upTo: 4e7, percent: 0.5, counts: 3, resolution: 10 }],
      capacitance: [{ upTo: 1e-3, percent: 3, counts: 5, resolution: 1e-11 }],
      vf: [{ upTo: 3, percent: 1, counts: 2, resolution: 0.001 }],
    },
  };
  const r = (id: string, value: number | null, marking?: string[]) => ({
    id,
    kind: 'R',
    reading: { quantity: 'resistance', value, overload: value === null },
    ...(marking ? { marking } : {}),
    countable: true,
  });
  test('assigns, counts what is missing and what is over, names strangers', () => {
    const loose = [
      r('a', 10_010),
      r('b', 9_990),
      r('c', 4_700),
      { id: 'd', kind: 'C', reading: { quantity: 'capacitance', value: 9.8e-8 }, marking: '104K' },
      { id: 'e', kind: 'LED', reading: { quantity: 'vf', value: 1.84 }, marking: 'red' },
      { id: 'f', kind: 'LED', reading: { quantity: 'vf', value: 1.86 }, marking: 'red' },
    ];
    expect(receive({ bom, meter, loose })).toMatchObject({
      assignment: { a: 1, b: 1, c: null, d: 2, e: 3, f: 3 },
      missing: {},
      surplus: { 3: 1 },
      strangers: ['c'],
      lots: [],
    });
  });
  test('a lot that is not the quality claimed, with the class that it keeps', () => {
    const answer = receive({ bom, meter, loose: [r('a', 10_390), r('b', 10_370)] }) as { lots: object[] };
    expect(answer.lots).toEqual([{ line: 1, claimed: 1, actual: 5 }]);
  });
  test('the reading beats a misread band; the marking decides for a dead piece', () => {
    expect(receive({ bom, meter, loose: [r('a', 10_000, ['brown', 'black', 'black', 'orange', 'brown'])] })).toMatchObject({ assignment: { a: 1 } });
    expect(receive({ bom, meter, loose: [r('a', null, ['brown', 'black', 'black', 'red', 'brown'])] })).toMatchObject({ assignment: { a: 1 }, dead: ['a'] });
  });
  test('a list that cannot be read is an error that names its line', () => {
    expect(() => receive({ bom: 'refs,kind,value,tolerance,qty\nR1,R,tenk,,1', meter, loose: [] })).toThrow(/line 1.*"tenk"/);
    expect(() => receive({ bom: 'refs,kind,value,tolerance,qty\nR1,Z,10k,,1', meter, loose: [] })).toThrow(/line 1.*"Z"/);
    expect(() => receive({ bom: 'refs,kind,value,tolerance,qty\nR1,R,10k,,many', meter, loose: [] })).toThrow(/"many" is no quantity/);
  });
});

describe('verdict (JCGM 106)', () => {
  const meter = { percent: 0.8, counts: 3, resolution: 10 };
  const ask = (reading: number, rule = 'guarded') =>
    verdict({ nominal: 10_000, tolerance: [-1, 1], reading, meter, leadResistance: 0.2, rule }) as { verdict: string; probabilityInTolerance: number };
  test('simple compares, guarded allows for the meter', () => {
    expect(ask(10_050, 'simple').verdict).toBe('in');
    expect(ask(10_150, 'simple').verdict).toBe('out');
    expect(ask(10_150).verdict).toBe('doubtful');
    expect(ask(10_400).verdict).toBe('out');
  });
  test('probability by the definition: Φ((TU − y)/u) − Φ((TL − y)/u)', () => {
    const a = 0.008 * 10_000 + 30;
    const u = Math.hypot(a / Math.sqrt(3), 10 / Math.sqrt(12));
    // 100 ohm either way of the nominal, in standard uncertainties; the normal distribution's table value at z = 1.5676.
    expect((100 + 0.2) / u).toBeCloseTo(1.5676, 1);
    expect(ask(10_000.2).probabilityInTolerance).toBeCloseTo(0.883, 1);
  });
  test('a request without its fields is an error that names the field', () => {
    expect(() => verdict({ nominal: 1, tolerance: [0, 0], reading: 1, meter: {}, rule: 'simple' })).toThrow(/"percent"/);
    expect(() => verdict({ nominal: 1, tolerance: [0, 0], reading: 1, meter, rule: 'strict' })).toThrow(/"rule"/);
    expect(() => verdict({ nominal: 1, tolerance: ['a', 0], reading: 1, meter, rule: 'simple' })).toThrow(/"tolerance"/);
  });
});

describe('solve', () => {
  const deck = 't\nV1 a 0 5\nR1 a b 1k\nR2 b 0 1k\nC1 b 0 1u\n.end';
  test('operating point, with values set and parts removed', () => {
    expect((solve({ deck }) as { nodes: Record<string, number> }).nodes['b']).toBeCloseTo(2.5, 6);
    expect((solve({ deck, set: { R2: 3000 } }) as { nodes: Record<string, number> }).nodes['b']).toBeCloseTo(3.75, 6);
    expect((solve({ deck, set: { V1: 9 }, remove: ['R2'] }) as { nodes: Record<string, number> }).nodes['b']).toBeCloseTo(9, 6);
  });
  test('ohms and diode test with the supply off or unplugged', () => {
    const ohms = (supplies: string) => (solve({ deck, analysis: { type: 'ohms', red: 'b', black: '0', supplies } }) as { ohms: number }).ohms;
    expect(ohms('unplugged')).toBeCloseTo(1000, 1);
    expect(ohms('off')).toBeCloseTo(500, 1);
    expect(solve({ deck, remove: ['R1', 'R2'], analysis: { type: 'ohms', red: 'b', black: '0' } })).toEqual({ ohms: 'over' });
    const diode = 't\nV1 a 0 5\nR1 a b 1k\nD1 b 0 DX\n.model DX D(IS=1e-9)';
    // Diode equation at 1 mA: VT ln(1e-3/1e-9), VT = 25.865 mV at 27 °C.
    expect((solve({ deck: diode, analysis: { type: 'diode', red: 'b', black: '0' } }) as { volts: number }).volts).toBeCloseTo(0.025865 * Math.log(1e6), 3);
    expect(solve({ deck: diode, analysis: { type: 'diode', red: '0', black: 'b' } })).toEqual({ volts: 'over' });
  });
  test('transient statistics of the nodes that are asked for', () => {
    const pulse = 't\nV1 a 0 PULSE(0 5 0 1u 1u 5m 10m)\nR1 a b 1k\nC1 b 0 1u';
    const { nodes } = solve({ deck: pulse, analysis: { type: 'tran', stop: 0.1, settle: 0.05, nodes: ['a'] } }) as {
      nodes: Record<string, { average: number; frequency: number; duty: number }>;
    };
    expect(Object.keys(nodes)).toEqual(['a']);
    expect(nodes['a']!.average).toBeCloseTo(2.5, 2);
    expect(nodes['a']!.frequency).toBeCloseTo(100, 3);
    expect(nodes['a']!.duty).toBeCloseTo(0.5, 3);
  });
  test.each([
    [{}, /"deck" must be a text/],
    [{ deck: '' }, /no part was found/],
    [{ deck: 't\nR1 a 0 tenk' }, /line 2, column 8: R1: "tenk"/],
    [{ deck: 't\nZ1 a 0 5\nR1 a 0 1' }, /"Z1" begins with Z/],
    [{ deck: 't\nQ1 a b 0 NO\nV1 a 0 5' }, /no .model is called "NO"/],
    [{ deck: 't\nX1 a 0 NO\nV1 a 0 5' }, /no .subckt is called "NO"/],
    [{ deck: 't\n.subckt A x\nX1 x A\n.ends\nX1 a A\nV1 a 0 5' }, /contains itself/],
    [{ deck: 't\nV1 a 0 5\nV2 a 0 6' }, /V2 closes a loop of voltage sources/],
    [{ deck, set: { R9: 1 } }, /no part is called R9/],
    [{ deck, set: { R1: 'x' } }, /"R1" must be a number/],
    [{ deck, remove: ['R9'] }, /no part is called R9/],
    [{ deck, remove: 'R1' }, /"remove" must be a list/],
    [{ deck, analysis: { type: 'noise' } }, /"noise" is not known/],
    [{ deck, analysis: { type: 'ohms', red: 'q', black: '0' } }, /red: no node is called q/],
    [{ deck, analysis: { type: 'ohms', red: 'a', black: '0', supplies: 'maybe' } }, /"supplies" must be/],
    [{ deck, analysis: { type: 'tran', stop: -1, settle: 0 } }, /"stop" must be greater/],
    [{ deck, analysis: { type: 'tran', stop: 1, settle: 0, nodes: ['q'] } }, /nodes: no node is called q/],
  ])('broken request %j', (request, message) => {
    expect(() => solve(request)).toThrow(message);
  });
});

describe('diagnose', () => {
  const request = {
    deck: 'divider\nV1 in 0 12\nR1 in a 10k\nR2 a b 10k\nR3 b 0 10k\n.end',
    bom: 'ref,kind,value,tolerance,note\nV1,supply,12,2%,\nR1,resistor,10k,1%,\nR2,resistor,10k,1%,\nR3,resistor,10k,1%,\n',
    testPoints: [
      { name: 'TP1', node: 'a' },
      { name: 'TP2', node: 'b' },
    ],
    neighbours: [],
    meter: { inputResistance: 1e7, percent: 0.5, counts: 2, displayCounts: 4000 },
  };
  const ask = (readings: object[]) =>
    diagnose({ ...request, readings }) as {
      suspects: { kind: string; parts: string[]; probability: number }[];
      next: { at: string } | null;
      unexplained: number;
    };
  test('an open R3 leaves both points at the supply', () => {
    const { suspects } = ask([
      { at: 'V1', mode: 'dca', value: 0.0000012 },
      { at: 'TP1', mode: 'dcv', value: 12.0 },
      { at: 'TP2', mode: 'dcv', value: 11.99 },
    ]);
    expect(suspects[0]).toMatchObject({ kind: 'open', parts: ['R3'] });
    expect(suspects[0]!.probability).toBeGreaterThan(0.8);
  });
  test('thirds of the supply are healthy', () => {
    const { suspects } = ask([
      { at: 'V1', mode: 'dca', value: 0.0004 },
      { at: 'TP1', mode: 'dcv', value: 8.0 },
      { at: 'TP2', mode: 'dcv', value: 4.0 },
    ]);
    expect(suspects[0]!.kind).toBe('healthy');
  });
  test('from the current alone it asks for a point; with everything read for nothing more', () => {
    expect(['TP1', 'TP2']).toContain(ask([{ at: 'V1', mode: 'dca', value: 0.0006 }]).next?.at);
    expect(
      ask([
        { at: 'V1', mode: 'dca', value: 0.0006 },
        { at: 'TP1', mode: 'dcv', value: 6 },
        { at: 'TP2', mode: 'dcv', value: 6 },
      ]).next,
    ).toBeNull();
  });
  test('probabilities add up to one', () => {
    const { suspects, unexplained } = ask([{ at: 'TP1', mode: 'dcv', value: 6 }]);
    expect(suspects.reduce((s, x) => s + x.probability, unexplained)).toBeCloseTo(1, 6);
  });
});
