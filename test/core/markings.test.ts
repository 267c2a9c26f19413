import fc from 'fast-check';
import { readMarking } from '@/core/loop/readMarking';
import type { Line } from '@/core/kit';
import {
  decodeCapacitorCode,
  decodeChipCapacitor,
  decodeChipResistor,
  decodeDateCode,
  decodeInductorCode,
  decodeResistorBands,
  decodeResistorCode,
  decodeToleranceLetter,
} from '@/core/marking';
import { bandsOf, capacitorCode } from '@/core/marking/printBands';
import { isPreferred, SERIES } from '@/core/preferred/series';

describe('preferred numbers (IEC 60063, from memory)', () => {
  test('E96 begins 100 102 105 107 and E192 keeps 920', () => {
    expect(SERIES.E96.slice(0, 4)).toEqual([100, 102, 105, 107]);
    expect(SERIES.E192).toContain(920);
    expect(SERIES.E192).not.toContain(919);
  });
  test.each([
    [4700, 'E24', true],
    [4990, 'E96', true],
    [4990, 'E24', false],
    [0.47, 'E12', true],
  ] as const)('%d in %s: %s', (value, series, is) => {
    expect(isPreferred(value, [series])).toBe(is);
  });
});

const preferred = (series: readonly number[], from: number, to: number) =>
  fc.record({ m: fc.constantFrom(...series), e: fc.integer({ min: from, max: to }) }).map(({ m, e }) => Number(`${m}e${e}`));

describe('laws: what is printed reads back as what it was', () => {
  test('four and five bands (IEC 60062)', () => {
    fc.assert(
      fc.property(preferred(SERIES.E24, -2, 4), fc.constantFrom(5, 10, 1, 2), (ohms, percent) => {
        const bands = bandsOf(ohms, percent);
        if (!bands || bands.length < 4) return;
        const read = decodeResistorBands(bands, { direction: 'fixed' });
        expect(read.state).toBe('clear');
        if (read.state === 'clear') expect(read.reading).toMatchObject({ value: ohms, tolerancePercent: [-percent, percent] });
      }),
    );
  });
  test('three-figure capacitor codes (IEC 60062)', () => {
    fc.assert(
      fc.property(preferred(SERIES.E24, -12, -7), (farads) => {
        const code = capacitorCode(farads);
        if (code === null) return;
        const read = decodeCapacitorCode(`${code}K`);
        if (read.state !== 'clear') throw new Error(`${code} is not clear`);
        expect(Number(read.reading.value) / farads).toBeCloseTo(1, 9);
      }),
    );
  });
  test('either end of a body reads as the same set of values', () => {
    fc.assert(
      fc.property(preferred(SERIES.E24, -1, 4), (ohms) => {
        const bands = bandsOf(ohms, 5)!;
        const values = (b: typeof bands) => {
          const d = decodeResistorBands(b);
          return (d.state === 'clear' ? [d.reading, ...d.others] : d.state === 'ambiguous' ? d.readings : []).map((r) => r.value).sort();
        };
        expect(values([...bands].reverse())).toEqual(values(bands));
      }),
    );
  });
});

describe('codes (IEC 60062, EIA-198, EIA-476; from memory)', () => {
  const clear = (d: ReturnType<typeof decodeResistorCode>) => (d.state === 'clear' ? d.reading : d.state);
  test('resistors and chips', () => {
    expect(clear(decodeResistorCode('4K7J'))).toMatchObject({ value: 4700, tolerancePercent: [-5, 5] });
    expect(clear(decodeResistorCode('R47'))).toMatchObject({ value: 0.47 });
    expect(decodeResistorCode('1R2R3').state).toBe('invalid');
    expect(clear(decodeChipResistor('01C', []))).toMatchObject({ value: 10_000, tolerancePercent: [-1, 1] });
    expect(clear(decodeChipResistor('4702', []))).toMatchObject({ value: 47_000 });
  });
  test('capacitors', () => {
    expect(clear(decodeCapacitorCode('2A104K'))).toMatchObject({ value: 1e-7, ratedVoltage: 100, tolerancePercent: [-10, 10] });
    expect(decodeCapacitorCode('470').state).toBe('ambiguous');
    expect(clear(decodeCapacitorCode('10?', ['104', '223']))).toMatchObject({ value: 1e-7 });
    expect(clear(decodeChipCapacitor('A5', 'ceramic-chip'))).toMatchObject({ value: 1e-7 });
    expect(decodeToleranceLetter('C', 'C', 4e-12)).toMatchObject({ tolerancePercent: [-6.25, 6.25] });
  });
  test('coils and dates: there is no week 60', () => {
    expect(clear(decodeInductorCode('101K'))).toMatchObject({ value: 1e-4 });
    expect(clear(decodeDateCode('9233', 'YYWW', '2026-11-25'))).toMatchObject({ value: '1992-W33' });
    expect(decodeDateCode('1160', 'YYWW', '2026-11-25').state).toBe('invalid');
  });
});

describe('the marking reader', () => {
  const lines: Line[] = [
    { id: 'a', kind: 'resistor', label: '10 k', value: 1e4, tolerance: [-0.05, 0.05], quantity: 1, refs: ['R1'] },
    { id: 'b', kind: 'capacitor', label: '100 nF', value: 1e-7, tolerance: null, quantity: 1, refs: ['C1'] },
  ];
  test('a band that may be brown or red is settled by the list', () => {
    const { choices, message } = readMarking('bands', 'bn/rd bk og gd', lines, '2026-11-25');
    expect(choices[0]!.line!.id).toBe('a');
    expect(message).toMatch(/only one is on this kit’s list/);
  });
  test('an unreadable figure is settled by the list', () => {
    expect(readMarking('capacitor', '10?', lines, '2026-11-25').choices[0]).toMatchObject({ value: 1e-7, line: { id: 'b' } });
  });
  test('says which word is no colour, and what to do when nothing fits', () => {
    expect(readMarking('bands', 'bn pink', lines, '2026-11-25').message).toMatch(/"pink" is no colour/);
    expect(readMarking('bands', 'gd gd gd gd', lines, '2026-11-25').message).toMatch(/No legal reading/);
    expect(readMarking('date', '2419', lines, '2026-11-25').choices[0]!.text).toBe('year 2024, week 19');
  });
});
