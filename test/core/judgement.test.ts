/** Readings against limits: JCGM 100 and 106 by their definitions, the judgements held against brute force. */
import fc from 'fast-check';
import { KIND_FACTS } from '@/core/vocabulary';
import { systematicErrors } from '@/core/loop/systematic';
import { deriveTray, expectationOf, type Line, type LineKind } from '@/core/kit';
import type { EntryBody, KitState } from '@/core/kit';
import { agreement, HANDHELD, TYPICAL_METERS, uncertaintyIn, verifyInstrument } from '@/core/meter';
import { fitSample, PointDensity } from '@/core/statistics/multivariate';
import { normalCdf } from '@/core/statistics/normal';
import { randomStream } from '@/core/statistics/random';
import { conformity, judgePart } from '@/core/verdict';
import { fromScale, OVER, scaleSlope, toScale } from '@/core/specimen/scale';
import { DEMOS } from '@/stand-in';
import { append, at } from '../support/kits';

describe('probability of conformity, by counting', () => {
  test.each([
    [100, 1, 95, 105],
    [104, 1, 95, 105],
    [105, 2, 95, 105],
    [107, 1.5, 95, 105],
    [95.5, 0.2, 95, 105],
  ])('a reading of %f ± %f between %f and %f', (y, u, low, high) => {
    const random = randomStream(7);
    let inside = 0;
    const n = 40_000;
    for (let i = 0; i < n; i++) {
      // Sum of twelve uniforms less six: a normal deviate by the central limit theorem.
      let z = -6;
      for (let k = 0; k < 12; k++) z += random();
      const x = y + u * z;
      if (x >= low && x <= high) inside++;
    }
    expect(Math.abs(conformity(y, u, low, high, 'simple').probability - inside / n)).toBeLessThan(0.01);
  });
  test('guard bands of 2 u on either side (JCGM 106, 8.3)', () => {
    const at = (y: number) => conformity(y, 1, 90, 110, 'guarded').verdict;
    expect([87.9, 88.1, 91.9, 92.1, 107.9, 108.1, 111.9, 112.1].map(at)).toEqual(['out', 'doubtful', 'doubtful', 'in', 'in', 'doubtful', 'doubtful', 'out']);
  });
  test('a perfect meter knows: 0 or 1', () => {
    expect(conformity(105, 0, 95, 105, 'simple').probability).toBe(1);
    expect(conformity(105.1, 0, 95, 105, 'simple').probability).toBe(0);
  });
  test('law: shifting and stretching everything alike changes nothing', () => {
    const v = fc.double({ min: -50, max: 50, noNaN: true });
    fc.assert(
      fc.property(
        v,
        fc.double({ min: 0.1, max: 5, noNaN: true }),
        v,
        fc.double({ min: 1, max: 20, noNaN: true }),
        fc.double({ min: 0.5, max: 3, noNaN: true }),
        v,
        (y, u, low, width, k, shift) => {
          const a = conformity(y, u, low, low + width, 'guarded');
          const b = conformity(k * y + shift, k * u, k * low + shift, k * (low + width) + shift, 'guarded');
          expect(b.probability).toBeCloseTo(a.probability, 6);
        },
      ),
    );
  });
});

describe('uncertainty', () => {
  test('law: it grows with the reading within a range, and never vanishes', () => {
    const range = { upTo: 4, percent: 0.5, counts: 2, resolution: 0.001 };
    fc.assert(
      fc.property(fc.double({ min: 0, max: 4, noNaN: true }), fc.double({ min: 0, max: 4, noNaN: true }), (a, b) => {
        const [small, large] = [Math.min(a, b), Math.max(a, b)];
        expect(uncertaintyIn(range, large).standard).toBeGreaterThanOrEqual(uncertaintyIn(range, small).standard);
        expect(uncertaintyIn(range, small).standard).toBeGreaterThan(0);
        expect(uncertaintyIn(range, -large).standard).toBe(uncertaintyIn(range, large).standard);
      }),
    );
  });
  test('the shipped meters: ranges rise, resolutions follow, figures are those of a meter', () => {
    for (const meter of TYPICAL_METERS)
      for (const ranges of Object.values(meter.ranges).filter((r) => r !== undefined)) {
        expect(ranges.length).toBeGreaterThan(0);
        ranges.forEach((r, i) => {
          if (i > 0) expect(r.upTo).toBeGreaterThan(ranges[i - 1]!.upTo);
          expect(r.resolution).toBeLessThan(r.upTo / 100);
          expect(r.percent).toBeGreaterThan(0);
          expect(r.percent).toBeLessThan(25);
        });
        expect(meter.inputResistance).toBeGreaterThanOrEqual(1e5);
      }
  });
  test('lead resistance is taken off before judging: 1 Ω through leads of 0.2 Ω', () => {
    const range = { upTo: 400, percent: 0.8, counts: 3, resolution: 0.1 };
    const v = judgePart({ nominal: 1, tolerance: [-0.05, 0.05], reading: 1.2, range, offset: 0.2 }, 'simple');
    expect(v).toMatchObject({ verdict: 'in' });
    expect(v.corrected).toBeCloseTo(1, 9);
    expect(v.deviation).toBeCloseTo(0, 9);
  });
  test('asymmetric limits: an electrolytic of −20/+80 %', () => {
    const range = { upTo: 4e-4, percent: 4, counts: 5, resolution: 1e-7 };
    const at = (reading: number) => judgePart({ nominal: 1e-4, tolerance: [-0.2, 0.8], reading, range, offset: 0 }, 'simple').verdict;
    expect([0.7e-4, 0.85e-4, 1.7e-4, 1.9e-4].map(at)).toEqual(['out', 'in', 'in', 'out']);
  });
});

describe('two instruments', () => {
  test('law: agreement is symmetric, and an instrument agrees with itself', () => {
    const v = fc.double({ min: -100, max: 100, noNaN: true });
    const u = fc.double({ min: 0.01, max: 5, noNaN: true });
    fc.assert(
      fc.property(v, u, v, u, (a, ua, b, ub) => {
        const one = agreement({ value: a, standard: ua }, { value: b, standard: ub });
        const other = agreement({ value: b, standard: ub }, { value: a, standard: ua });
        expect(one.agrees).toBe(other.agrees);
        expect(one.ratio).toBeCloseTo(-other.ratio, 9);
        expect(agreement({ value: a, standard: ua }, { value: a, standard: ub }).agrees).toBe(true);
      }),
    );
  });
  test('law: an instrument of known offset and gain is found out (least squares on exact points)', () => {
    fc.assert(
      fc.property(fc.double({ min: -5, max: 5, noNaN: true }), fc.double({ min: -0.1, max: 0.1, noNaN: true }), (offset, gain) => {
        const points = [10, 47, 100, 330].map((known) => ({ known, reading: known * (1 + gain) + offset }));
        const fit = verifyInstrument(points)!;
        expect(fit.offset).toBeCloseTo(offset, 6);
        expect(fit.gain).toBeCloseTo(gain, 8);
      }),
    );
  });
  test('one point, or all the same, tells nothing', () => {
    expect(verifyInstrument([{ known: 1, reading: 1 }])).toBeNull();
    expect(verifyInstrument([1, 1, 1].map((known) => ({ known, reading: 2 })))).toBeNull();
  });
});

describe('the scale on which readings are compared', () => {
  test('law: there and back again; it only rises; its slope is its derivative', () => {
    fc.assert(
      fc.property(fc.constantFrom('dcv', 'dca', 'ohms', 'diode', 'frequency' as const), fc.double({ min: -1e4, max: 1e4, noNaN: true }), (mode, v) => {
        expect(fromScale(mode, toScale(mode, v))).toBeCloseTo(v, 5);
        const h = 1e-4 * (1 + Math.abs(v));
        expect(toScale(mode, v + h)).toBeGreaterThan(toScale(mode, v));
        const slope = (toScale(mode, v + h) - toScale(mode, v - h)) / (2 * h);
        expect(Math.abs(slope / scaleSlope(mode, v) - 1)).toBeLessThan(1e-2);
      }),
    );
  });
  test('over-range lies beyond all that a meter shows', () => {
    for (const [mode, ranges] of Object.entries(HANDHELD.ranges))
      if (ranges && mode in OVER && mode !== 'dcv' && mode !== 'frequency')
        expect(OVER[mode as keyof typeof OVER]).toBeGreaterThanOrEqual(ranges[ranges.length - 1]!.upTo * 0.5);
  });
});

describe('fits of samples', () => {
  const sample = (rows: number, seed = 3) => {
    const random = randomStream(seed);
    const values = new Float64Array(rows * 3);
    for (let r = 0; r < rows; r++) {
      const [a, b] = [random() - 0.5, random() - 0.5];
      values.set([1 + a, 2 + a + 0.1 * b, 5 + 2 * b], 3 * r);
    }
    return values;
  };
  const none = new Float64Array(9);
  test('mean and variance of uniforms: 1/12', () => {
    const fit = fitSample(sample(20_000), 20_000, 3, [0, 1, 2], none);
    expect(fit.mean[0]).toBeCloseTo(1, 1);
    expect(fit.covariance[0]).toBeCloseTo(1 / 12, 2);
    expect(fit.covariance[8]).toBeCloseTo(4 / 12, 2);
  });
  test('law: picking in another order is the same fit in another order', () => {
    const s = sample(50);
    const [a, b] = [fitSample(s, 50, 3, [0, 1, 2], none), fitSample(s, 50, 3, [2, 0, 1], none)];
    expect(b.mean[0]).toBeCloseTo(a.mean[2]!, 12);
    expect(b.covariance[1]).toBeCloseTo(a.covariance[6]!, 12);
  });
  test('law: the density is greatest at the mean and falls on the way out', () => {
    const fit = fitSample(sample(200), 200, 3, [0, 1, 2], Float64Array.of(1e-3, 0, 0, 0, 1e-3, 0, 0, 0, 1e-3));
    fc.assert(
      fc.property(
        fc.double({ min: -1, max: 1, noNaN: true }),
        fc.double({ min: -1, max: 1, noNaN: true }),
        fc.double({ min: -1, max: 1, noNaN: true }),
        (x, y, z) => {
          const at = (k: number) => PointDensity.of(fit, Float64Array.of(fit.mean[0]! + k * x, fit.mean[1]! + k * y, fit.mean[2]! + k * z))!.log;
          expect(at(0)).toBeGreaterThanOrEqual(at(0.5));
          expect(at(0.5)).toBeGreaterThanOrEqual(at(1));
        },
      ),
    );
  });
  test('law: a density is that of the others times that of one given them, whichever it is (chain rule)', () => {
    const fit = fitSample(sample(60), 60, 3, [0, 1, 2], Float64Array.of(1e-3, 0, 0, 0, 1e-3, 0, 0, 0, 1e-3));
    const value = fc.double({ min: -3, max: 3, noNaN: true });
    fc.assert(
      fc.property(value, value, value, fc.nat(2), (x, y, z, i) => {
        const at = Float64Array.of(x, y, z);
        const whole = PointDensity.of(fit, at)!;
        expect(whole.logWithout(i) + whole.logGiven(i, at[i]!)).toBeCloseTo(whole.log, 6);
        const kept = [0, 1, 2].filter((k) => k !== i);
        const rest = fitSample(sample(60), 60, 3, kept, Float64Array.of(1e-3, 0, 0, 1e-3));
        expect(
          PointDensity.of(
            rest,
            Float64Array.from(kept, (k) => at[k]!),
          )!.log,
        ).toBeCloseTo(whole.logWithout(i), 6);
      }),
    );
  });
  test('one wild reading out of five: the others alone are far more likely than all of them', () => {
    const fit = { n: 5, mean: new Float64Array(5), covariance: Float64Array.from({ length: 25 }, (_, i) => (i % 6 === 0 ? 1 : 0)) };
    const whole = PointDensity.of(fit, Float64Array.of(0.1, -0.2, 40, 0.3, 0))!;
    const without = [0, 1, 2, 3, 4].map((i) => whole.logWithout(i));
    expect(without.indexOf(Math.max(...without))).toBe(2);
    expect(without[2]!).toBeGreaterThan(whole.log + 20);
  });
  test('what lies at any distance alike: its density times the surface there is the even one (area of a sphere)', () => {
    const fit = { n: 3, mean: new Float64Array(3), covariance: Float64Array.of(1, 0, 0, 0, 1, 0, 0, 0, 1) };
    const r = 5;
    // Volume between squared distances q and q + dq: 2 π √q dq in three dimensions.
    const density = Math.exp(PointDensity.of(fit, Float64Array.of(r, 0, 0))!.logAfar(3e6));
    expect(density * 2 * Math.PI * r).toBeCloseTo(1 / (r * r * Math.log(1e6)), 9);
  });
  test('Φ: derivative is the bell curve', () => {
    for (const z of [-2, -0.5, 0, 1, 2.5]) {
      const slope = (normalCdf(z + 0.01) - normalCdf(z - 0.01)) / 0.02;
      expect(slope).toBeCloseTo(Math.exp((-z * z) / 2) / Math.sqrt(2 * Math.PI), 3);
    }
  });
});

describe('what may be wrong with a reading', () => {
  const line = (kind: LineKind, value: number): Line => ({ id: 'x', kind, label: 'x', value, tolerance: [-0.05, 0.05], quantity: 1, refs: ['X1'] });
  const errors = (kind: LineKind, value: number, reading: number | null = null) => {
    const l = line(kind, value);
    return systematicErrors(kind, expectationOf(l)!, HANDHELD, reading).join(' | ');
  };
  test.each<[string, string, RegExp | null]>([
    ['low ohms: the leads', errors('resistor', 1), /leads add/],
    ['middling ohms: nothing', errors('resistor', 10_000, 10_010), null],
    ['megohms: fingers', errors('resistor', 1e6), /fingers/],
    ['too low: still in circuit?', errors('resistor', 10_000, 6_000), /parallel path always reads low/],
    ['picofarads: the meter’s zero', errors('capacitor', 2.2e-11), /REL/],
    ['an electrolytic: discharge, polarity', errors('electrolytic', 1e-4), /Discharge it first/],
    ['half the value: wait', errors('electrolytic', 1e-4, 3e-5), /Still rising/],
  ])('%s', (_, text, words) => {
    if (words) expect(text).toMatch(words);
    else expect(text).toBe('');
  });
});

describe('every kind of line', () => {
  test.each(Object.keys(KIND_FACTS) as LineKind[])('%s: what is measured has a unit, limits that hold its value, and words', (kind) => {
    const facts = KIND_FACTS[kind];
    expect(facts.word.length).toBeGreaterThan(2);
    expect(facts.tolerance[0]).toBeLessThanOrEqual(0);
    expect(facts.tolerance[1]).toBeGreaterThanOrEqual(0);
    const expected = expectationOf({ id: 'x', kind, label: 'x', value: 100, tolerance: null, quantity: 1, refs: [] });
    if (expected) {
      expect(expected.nominal).toBeGreaterThan(0);
      expect(expected.tolerance[0]).toBeLessThanOrEqual(0);
      expect(expected.from.length).toBeGreaterThan(3);
    }
  });
});

describe('laws of the log', () => {
  const fresh = () => DEMOS[0]!.kit(at(0));
  const body: fc.Arbitrary<EntryBody> = fc.oneof(
    fc.record({ kind: fc.constant('counted' as const), line: fc.constantFrom('r-4k7', 'r-10k', 'c-100n'), quantity: fc.integer({ min: 0, max: 9 }) }),
    fc.record({
      kind: fc.constant('measured' as const),
      line: fc.constantFrom('r-4k7', 'r-10k'),
      piece: fc.integer({ min: 0, max: 4 }),
      mode: fc.constant('ohms' as const),
      reading: fc.oneof(fc.double({ min: 1, max: 1e6, noNaN: true }), fc.constant('over' as const)),
      meter: fc.constant('handheld'),
    }),
    fc.record({ kind: fc.constant('removed' as const), refs: fc.constant(['R12']) }),
    fc.record({ kind: fc.constant('fitted' as const), refs: fc.constant(['R12']) }),
    fc.record({ kind: fc.constant('set' as const), ref: fc.constant('VR1'), value: fc.integer({ min: 0, max: 10_000 }) }),
  );
  const log = (kit: KitState, bodies: readonly EntryBody[]) => bodies.reduce((k, b) => append(k, b, at(k.log.length + 1)), kit);
  test('the last word on a line counts, whatever was said before', () => {
    fc.assert(
      fc.property(fc.array(body, { maxLength: 12 }), fc.integer({ min: 0, max: 9 }), (bodies, quantity) => {
        const kit = log(fresh(), [...bodies, { kind: 'counted', line: 'r-4k7', quantity }]);
        expect(deriveTray(kit).find((c) => c.line.id === 'r-4k7')!.counted).toBe(quantity);
      }),
      { numRuns: 50 },
    );
  });
  test('a tray never has more verdicts than readings, and nothing on it is no number', () => {
    fc.assert(
      fc.property(fc.array(body, { maxLength: 15 }), (bodies) => {
        const tray = deriveTray(log(fresh(), bodies));
        expect(JSON.stringify(tray)).not.toMatch(/NaN|Infinity/);
        for (const c of tray) for (const p of c.pieces) expect(p.verdict === 'none').toBe(p.entry === null);
      }),
      { numRuns: 50 },
    );
  });
  test('what was withdrawn leaves the board as if it had never been said', () => {
    fc.assert(
      fc.property(fc.array(body, { maxLength: 8 }), body, (bodies, extra) => {
        const before = log(fresh(), bodies);
        const after = log(before, [extra, { kind: 'withdrawn', entry: `e${before.log.length + 1}` }]);
        expect(after.board).toEqual(before.board);
        expect(deriveTray(after).map((c) => c.verdict)).toEqual(deriveTray(before).map((c) => c.verdict));
      }),
      { numRuns: 50 },
    );
  });
});
