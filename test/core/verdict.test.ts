import fc from 'fast-check';
import { decadeRanges, HANDHELD, TYPICAL_METERS, uncertaintyOf } from '@/core/meter';
import { normalCdf } from '@/core/statistics/normal';
import { conformity, judgePart } from '@/core/verdict';

describe('standard normal distribution (tables in any statistics book)', () => {
  test.each([
    [0, 0.5],
    [1, 0.841344746],
    [1.959964, 0.975],
    [-2.575829, 0.005],
    [4, 0.999968329],
  ])('Φ(%d)', (z, p) => {
    expect(normalCdf(z)).toBeCloseTo(p, 6);
  });
});

describe('uncertainty of a reading (JCGM 100: rectangular error a/√3, display step q/√12)', () => {
  test('4000 counts, ±(0.5 % + 2): 1.234 V is read on the 4 V range', () => {
    const u = uncertaintyOf(HANDHELD, 'dcv', 1.234)!;
    expect(u.range.upTo).toBe(4);
    expect(u.halfWidth).toBeCloseTo(0.00617 + 0.002, 9);
    expect(u.standard).toBeCloseTo(Math.hypot(0.00817 / Math.sqrt(3), 0.001 / Math.sqrt(12)), 9);
  });
  test('ranges rise by ten; a value beyond all is read in the last; a missing mode has no uncertainty', () => {
    expect(decadeRanges(0.4, 400, 0.5, 2, 4000).map((r) => r.upTo)).toEqual([0.4, 4, 40, 400]);
    expect(uncertaintyOf(HANDHELD, 'dcv', 900)!.range.upTo).toBe(400);
    expect(
      uncertaintyOf(
        TYPICAL_METERS.find((m) => m.id === 'pocket')!,
        'capacitance',
        1e-7,
      ),
    ).toBeNull();
  });
});

describe('conformity (JCGM 106)', () => {
  test('a 1 % 10 k resistor that reads 9657 Ω is out of 9.9 to 10.1 k (common practice, no source)', () => {
    const range = { upTo: 4e4, percent: 0.5, counts: 2, resolution: 10 };
    const v = judgePart({ nominal: 1e4, tolerance: [-0.01, 0.01], reading: 9657, range, offset: 0.2 }, 'guarded');
    expect(v.verdict).toBe('out');
    expect([v.low, v.high]).toEqual([9900, 10100]);
    expect(v.probability).toBeLessThan(0.01);
  });

  test('at a limit the probability is one half', () => {
    expect(conformity(105, 0.1, 95, 105, 'simple').probability).toBeCloseTo(0.5, 6);
  });

  test('laws: guarded never says in where simple says out; probability falls with distance from the middle', () => {
    const near = fc.double({ min: 80, max: 120, noNaN: true });
    fc.assert(
      fc.property(near, near, fc.double({ min: 0.01, max: 5, noNaN: true }), (a, b, u) => {
        const simple = conformity(a, u, 95, 105, 'simple').verdict;
        const guarded = conformity(a, u, 95, 105, 'guarded').verdict;
        if (simple === 'out') expect(guarded).not.toBe('in');
        if (guarded === 'out') expect(simple).toBe('out');
        const [inner, outer] = Math.abs(a - 100) < Math.abs(b - 100) ? [a, b] : [b, a];
        expect(conformity(inner, u, 95, 105, 'simple').probability).toBeGreaterThanOrEqual(conformity(outer, u, 95, 105, 'simple').probability - 1e-6);
      }),
    );
  });
});
