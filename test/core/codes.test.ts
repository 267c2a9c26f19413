/** What is printed on parts, code by code (IEC 60062, IEC 60063, EIA-96, EIA-198, ISO 8601; tables from memory). */
import fc from 'fast-check';
import {
  decodeCapacitorCode,
  decodeChipCapacitor,
  decodeChipResistor,
  type Decoded,
  decodeDateCode,
  decodeInductorBands,
  decodeInductorCode,
  decodeLetterValue,
  decodeResistorBands,
  decodeResistorCode,
  decodeToleranceLetter,
} from '@/core/marking';
import { COLOURS } from '@/core/marking/colours';
import { bandsOf, capacitorCode } from '@/core/marking/printBands';
import { isPreferred, SERIES, seriesForTolerance } from '@/core/preferred/series';

const first = (d: Decoded) => {
  if (d.state === 'invalid') throw new Error('invalid');
  return d.state === 'clear' ? d.reading : d.readings[0]!;
};
const values = (d: Decoded): (number | string)[] =>
  d.state === 'invalid' ? [] : d.state === 'clear' ? [d.reading.value, ...d.others.map((o) => o.value)] : d.readings.map((r) => r.value);

describe('preferred numbers', () => {
  test.each([
    ['E6', [100, 150, 220, 330, 470, 680]],
    ['E12', [100, 120, 150, 180, 220, 270, 330, 390, 470, 560, 680, 820]],
    ['E24', [100, 110, 120, 130, 150, 160, 180, 200, 220, 240, 270, 300, 330, 360, 390, 430, 470, 510, 560, 620, 680, 750, 820, 910]],
  ] as const)('%s', (name, members) => {
    expect(SERIES[name]).toEqual(members);
  });
  test('each series holds the next coarser one of its family', () => {
    for (const v of SERIES.E6) expect(SERIES.E12).toContain(v);
    for (const v of SERIES.E12) expect(SERIES.E24).toContain(v);
    for (const v of SERIES.E48) expect(SERIES.E96).toContain(v);
    for (const v of SERIES.E96) expect(SERIES.E192).toContain(v);
  });
  test('the counts are those of their names', () => {
    expect([SERIES.E48, SERIES.E96, SERIES.E192].map((s) => new Set(s).size)).toEqual([48, 96, 192]);
  });
  test('law: neighbours of a series differ by its ratio, 10^(1/n), to the rounding', () => {
    const e96 = SERIES.E96;
    for (let i = 1; i < e96.length; i++) expect(Math.abs(e96[i]! / e96[i - 1]! / 10 ** (1 / 96) - 1)).toBeLessThan(0.011);
  });
  test('law: a preferred value is preferred in every decade', () => {
    fc.assert(
      fc.property(fc.constantFrom(...SERIES.E24), fc.integer({ min: -14, max: 8 }), (m, decade) => {
        expect(isPreferred(m * 10 ** decade, ['E24'])).toBe(true);
      }),
    );
    expect(isPreferred(4800, ['E24', 'E96'])).toBe(false);
    expect(isPreferred(4870, ['E96'])).toBe(true);
  });
  test.each([
    [20, 'E6'],
    [10, 'E12'],
    [5, 'E24'],
    [1, 'E96'],
    [0.5, 'E192'],
  ] as const)('parts of ±%d %% are made in %s', (percent, series) => {
    expect(seriesForTolerance(percent)).toContain(series);
  });
});

describe('resistor bands', () => {
  test.each<[string, number, number]>([
    ['brown black black gold', 10, 5],
    ['brown black gold gold', 1, 5],
    ['red violet silver gold', 0.27, 5],
    ['orange orange brown gold', 330, 5],
    ['yellow violet red gold', 4700, 5],
    ['brown black orange silver', 10_000, 10],
    ['green blue yellow gold', 560_000, 5],
    ['brown black blue gold', 10e6, 5],
    ['brown black black brown brown', 1000, 1],
    ['yellow violet black red brown', 47_000, 1],
    ['red red black black brown', 220, 1],
    ['blue grey black brown red', 6800, 2],
    ['green brown black silver brown', 5.1, 1],
    ['orange white red black violet', 392, 0.1],
  ])('%s', (bands, ohms, percent) => {
    const d = decodeResistorBands(bands.split(' '), { direction: 'fixed' });
    expect(first(d)).toMatchObject({ value: ohms, tolerancePercent: [-percent, percent] });
  });
  test('six bands give the drift', () => {
    expect(first(decodeResistorBands('brown black black brown brown red'.split(' '), { direction: 'fixed' }))).toMatchObject({ value: 1000, tempco: 50 });
    expect(first(decodeResistorBands('red red black black brown brown'.split(' '), { direction: 'fixed' })).tempco).toBe(100);
  });
  test('law: every stocked E24 value at 5 % and E96 value at 1 % reads back from its bands', () => {
    const decades = fc.integer({ min: -1, max: 4 });
    fc.assert(
      fc.property(fc.constantFrom(...SERIES.E24), decades, (m, d) => {
        const ohms = Number(`${m}e${d}`);
        expect(values(decodeResistorBands(bandsOf(ohms, 5)!, { direction: 'fixed' }))).toContain(ohms);
      }),
    );
    fc.assert(
      fc.property(fc.constantFrom(...SERIES.E96), decades, (m, d) => {
        const ohms = Number(`${m}e${d}`);
        expect(values(decodeResistorBands(bandsOf(ohms, 1)!, { direction: 'fixed' }))).toContain(ohms);
      }),
    );
  });
  test('law: a band that may be either of two colours allows both readings, and the list of the kit settles it', () => {
    fc.assert(
      fc.property(fc.constantFrom(...SERIES.E24), fc.integer({ min: 0, max: 3 }), fc.nat(2), fc.constantFrom(...COLOURS.slice(0, 10)), (m, d, at, other) => {
        const ohms = Number(`${m}e${d}`);
        const bands = bandsOf(ohms, 5)!;
        const doubtful = bands.map((b, i) => (i === at ? [b, other] : b));
        expect(values(decodeResistorBands(doubtful, { direction: 'fixed' }))).toContain(ohms);
        expect(values(decodeResistorBands(doubtful, { direction: 'fixed', partsList: [ohms] }))).toEqual([ohms]);
      }),
    );
  });
  test('printing: more figures than bands can show are refused, nothing is one black band', () => {
    expect(bandsOf(0, 5)).toEqual(['black']);
    expect(bandsOf(-1, 5)).toBeNull();
    expect(bandsOf(12_345, 1)).toBeNull();
    expect(bandsOf(4990, 5)).toHaveLength(5);
  });
});

describe('letters and figures', () => {
  test.each<[string, number, number | null]>([
    ['4K7', 4700, null],
    ['4K7J', 4700, 5],
    ['R47', 0.47, null],
    ['0R1F', 0.1, 1],
    ['10R', 10, null],
    ['1M0K', 1e6, 10],
    ['2M2', 2.2e6, null],
    ['5W 0R22J', 0.22, 5],
    ['1/4W 100KF', 1e5, 1],
  ])('resistor %s', (text, ohms, percent) => {
    expect(first(decodeResistorCode(text))).toMatchObject({ value: ohms, tolerancePercent: percent === null ? null : [-percent, percent] });
  });
  test.each<[string, number, number]>([
    ['103', 10_000, 5],
    ['472', 4700, 5],
    ['000', 0, 5],
    ['1R0', 1, 5],
    ['R10', 0.1, 5],
    ['4702', 47_000, 1],
    ['1001', 1000, 1],
    ['49R9', 49.9, 1],
    ['01A', 100, 1],
    ['01C', 10_000, 1],
    ['68B', 4990, 1],
    ['96D', 976_000, 1],
    ['30X', 20, 1],
  ])('chip %s', (text, ohms, percent) => {
    const r = first(decodeChipResistor(text));
    expect(r.value).toBeCloseTo(ohms, 6);
    if (ohms > 0) expect(r.tolerancePercent).toEqual([-percent, percent]);
  });
  test('law: every E96 code of two figures and a letter is its value times its power of ten', () => {
    const POWER: Readonly<Record<string, number>> = { Z: 1e-3, Y: 1e-2, X: 1e-1, A: 1, B: 10, C: 100, D: 1e3, E: 1e4, F: 1e5 };
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 96 }), fc.constantFrom(...Object.keys(POWER)), (n, letter) => {
        const r = first(decodeChipResistor(`${String(n).padStart(2, '0')}${letter}`));
        expect(Number(r.value) / (SERIES.E96[n - 1]! * POWER[letter]!)).toBeCloseTo(1, 9);
      }),
    );
  });
  test.each<[string, number, readonly [number, number] | null, number | null]>([
    ['104', 1e-7, null, null],
    ['104K', 1e-7, [-10, 10], null],
    ['222J', 2.2e-9, [-5, 5], null],
    ['473Z', 4.7e-8, [-20, 80], null],
    ['22', 2.2e-11, null, null],
    ['4n7', 4.7e-9, null, null],
    ['.1', 1e-7, null, null],
    ['100n', 1e-7, null, null],
    ['2A104J', 1e-7, [-5, 5], 100],
    ['1H223K', 2.2e-8, [-10, 10], 50],
    ['339', 3.3e-12, null, null],
    ['104M 50V', 1e-7, [-20, 20], 50],
  ])('capacitor %s', (text, farads, percent, voltage) => {
    const r = first(decodeCapacitorCode(text));
    expect(Number(r.value) / farads).toBeCloseTo(1, 9);
    expect(r.tolerancePercent).toEqual(percent);
    expect(r.ratedVoltage).toBe(voltage);
  });
  test('below 10 pF the letters B, C and D are picofarads', () => {
    expect(first(decodeCapacitorCode('4p7C')).tolerancePercent![1]).toBeCloseTo((100 * 0.25) / 4.7, 6);
    expect(decodeToleranceLetter('C', 'C', 100e-12)).toEqual({ tolerancePercent: [-0.25, 0.25] });
  });
  test('law: a code printed from a value reads back as the value', () => {
    fc.assert(
      fc.property(fc.constantFrom(...SERIES.E12), fc.integer({ min: -13, max: -8 }), (m, d) => {
        const farads = Number(`${m}e${d}`);
        const code = capacitorCode(farads);
        fc.pre(code !== null);
        expect(values(decodeCapacitorCode(code, [code])).some((v) => Math.abs(Number(v) / farads - 1) < 1e-9)).toBe(true);
      }),
    );
  });
  test.each([
    ['ceramic-chip', 'A3', 1e-9, null],
    ['ceramic-chip', 'S4', 4.7e-8, null],
    ['ceramic-chip', 'J9', 2.2e-13, null],
    ['tantalum', '106C', 1e-5, 16],
    ['tantalum', 'A226', 2.2e-5, 10],
    ['aluminium-can', '100 16V', 1e-4, 16],
  ] as const)('surface mount, %s: %s', (kind, text, farads, voltage) => {
    const r = first(decodeChipCapacitor(text, kind));
    expect(Number(r.value) / farads).toBeCloseTo(1, 9);
    expect(r.ratedVoltage).toBe(voltage);
  });
  test.each([
    ['101', 1e-4],
    ['4R7', 4.7e-6],
    ['R10', 1e-7],
    ['22N', 2.2e-8],
    ['330K', 3.3e-5],
  ])('coil %s', (text, henries) => {
    expect(Number(first(decodeInductorCode(text)).value) / henries).toBeCloseTo(1, 9);
  });
  test('coil by bands: in microhenries', () => {
    expect(Number(first(decodeInductorBands(['red', 'red', 'brown', 'gold'])).value)).toBeCloseTo(2.2e-4, 12);
    expect(decodeInductorBands(['red', 'red', 'brown']).state).toBe('invalid');
  });
  test.each<[string, 'R' | 'C' | 'L', number]>([
    ['4k7', 'R', 4700],
    ['4,7 kΩ', 'R', 4700],
    ['100 Ом', 'R', 100],
    ['10 кОм 5%', 'R', 10_000],
    ['1M 1/4W', 'R', 1e6],
    ['0.1uF', 'C', 1e-7],
    ['22 пФ', 'C', 2.2e-11],
    ['100мкФ 25В', 'C', 1e-4],
    ['10 µH', 'L', 1e-5],
    ['4R7', 'L', 4.7e-6],
  ])('written out: %s', (text, kind, value) => {
    expect(Number(first(decodeLetterValue(text, kind)).value) / value).toBeCloseTo(1, 9);
  });
  test.each(['B', 'C', 'D', 'F', 'G', 'J', 'K', 'M'].map((l, i) => [l, [0.1, 0.25, 0.5, 1, 2, 5, 10, 20][i]!] as const))(
    'letter %s is ±%d %%',
    (letter, percent) => {
      expect(decodeToleranceLetter(letter, 'R', 1000)).toEqual({ tolerancePercent: [-percent, percent] });
    },
  );
  test.each(['', 'Y', '7'])('%j is no tolerance letter', (letter) => {
    expect(decodeToleranceLetter(letter, 'R', 1000)).toEqual({ state: 'invalid' });
  });
});

describe('unreadable figures', () => {
  test('only codes of the list count; more than one stays open', () => {
    expect(values(decodeCapacitorCode('10?', ['104', '222']))).toEqual([1e-7]);
    expect(decodeCapacitorCode('10?', ['104', '103']).state).toBe('ambiguous');
    expect(decodeCapacitorCode('10?', ['222']).state).toBe('invalid');
    expect(values(decodeChipResistor('47?', ['472', '103']))).toEqual([4700]);
  });
});

describe('date codes', () => {
  test.each([
    ['2318', 'YYWW', '2026-03-01', ['2023-W18']],
    ['318', 'YWW', '2026-03-01', ['2023-W18', '2013-W18', '2003-W18']],
    ['2653', 'YYWW', '2027-03-01', ['2026-W53']],
    ['2553', 'YYWW', '2027-03-01', []],
    ['2630', 'YYWW', '2026-03-01', []],
    ['9912', 'YYWW', '2026-03-01', ['1999-W12']],
  ] as const)('%s as %s, read on %s', (text, order, today, weeks) => {
    expect(values(decodeDateCode(text, order, today))).toEqual(weeks);
  });
  test('law: no reading lies in the future, and every week is one to fifty-three', () => {
    fc.assert(
      fc.property(fc.integer({ min: 0, max: 9999 }), (n) => {
        for (const v of values(decodeDateCode(String(n).padStart(4, '0'), 'YYWW', '2026-06-15'))) {
          const [year, week] = String(v).split('-W').map(Number) as [number, number];
          expect(year * 100 + week).toBeLessThanOrEqual(2026 * 100 + 25);
          expect(week).toBeGreaterThanOrEqual(1);
          expect(week).toBeLessThanOrEqual(53);
        }
      }),
    );
  });
});

describe('law: whatever is printed, the answer is a reading or "invalid", never an error', () => {
  const text = fc.string({ maxLength: 12 });
  test('codes', () => {
    fc.assert(
      fc.property(text, (t) => {
        for (const d of [
          decodeCapacitorCode(t),
          decodeChipResistor(t),
          decodeResistorCode(t),
          decodeInductorCode(t),
          decodeDateCode(t, 'YYWW', '2026-01-01'),
          decodeLetterValue(t, 'R'),
        ])
          for (const v of values(d)) if (typeof v === 'number') expect(Number.isFinite(v)).toBe(true);
      }),
      { numRuns: 500 },
    );
  });
  test('bands', () => {
    fc.assert(
      fc.property(fc.array(fc.constantFrom(...COLOURS, 'pink'), { maxLength: 8 }), (bands) => {
        for (const v of values(decodeResistorBands(bands))) expect(Number(v)).toBeGreaterThanOrEqual(0);
      }),
      { numRuns: 500 },
    );
  });
});
