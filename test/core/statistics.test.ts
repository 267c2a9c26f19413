/** Distributions against tables and laws. */
import fc from 'fast-check';
import { conditionalLast, fitSample } from '@/core/statistics/multivariate';
import { normalCdf } from '@/core/statistics/normal';
import { randomStream } from '@/core/statistics/random';

describe('normal distribution (table values, any statistics book)', () => {
  test.each([
    [0, 0.5],
    [1, 0.841345],
    [1.96, 0.975002],
    [2, 0.97725],
    [-1, 0.158655],
    [3, 0.99865],
    [-3, 0.00135],
  ])('Φ(%d)', (z, p) => {
    expect(normalCdf(z)).toBeCloseTo(p, 5);
  });
  test('law: Φ(−z) = 1 − Φ(z), and it only grows', () => {
    fc.assert(
      fc.property(fc.double({ min: -6, max: 6, noNaN: true }), (z) => {
        expect(normalCdf(-z)).toBeCloseTo(1 - normalCdf(z), 6);
        expect(normalCdf(z + 0.01)).toBeGreaterThanOrEqual(normalCdf(z));
      }),
    );
  });
});

test('a stream of numbers is the same for the same seed, in 0..1, with mean 1/2 and variance 1/12', () => {
  const [a, b] = [randomStream(7), randomStream(7)];
  const numbers = Array.from({ length: 20_000 }, () => a());
  expect(numbers.slice(0, 50)).toEqual(Array.from({ length: 50 }, () => b()));
  expect(numbers.every((x) => x >= 0 && x < 1)).toBe(true);
  const mean = numbers.reduce((s, x) => s + x, 0) / numbers.length;
  expect(mean).toBeCloseTo(0.5, 2);
  expect(numbers.reduce((s, x) => s + (x - mean) ** 2, 0) / numbers.length).toBeCloseTo(1 / 12, 2);
});

describe('fits', () => {
  const sample = (rows: number, draw: (r: () => number) => readonly number[]) => {
    const random = randomStream(3);
    return Float64Array.from(Array.from({ length: rows }, () => draw(random)).flat());
  };
  test('mean and variance of a sample, with measurement error added', () => {
    const values = sample(5000, (r) => [r(), 10 * r()]);
    const fit = fitSample(values, 5000, 2, [0, 1], Float64Array.of(0, 0, 0, 1));
    expect(fit.mean[0]).toBeCloseTo(0.5, 1);
    expect(fit.covariance[0]).toBeCloseTo(1 / 12, 2);
    expect(fit.covariance[3]).toBeCloseTo(100 / 12 + 1, 0);
  });
  test('what is known of one reading narrows what is expected of another that moves with it', () => {
    const values = sample(4000, (r) => {
      const common = r();
      return [common, 2 * common + 0.05 * r()];
    });
    const fit = fitSample(values, 4000, 2, [0, 1], new Float64Array(4));
    const alone = conditionalLast(fitSample(values, 4000, 2, [1], new Float64Array(1)), new Float64Array(0));
    const given = conditionalLast(fit, Float64Array.from([0.9]));
    expect(given.sd).toBeLessThan(alone.sd / 2);
    expect(given.mean).toBeCloseTo(1.8, 0);
  });
  test('law: a reading that says nothing of the other leaves its mean', () => {
    const values = sample(6000, (r) => [r(), r()]);
    const fit = fitSample(values, 6000, 2, [0, 1], new Float64Array(4));
    for (const y of [0.1, 0.5, 0.9]) expect(conditionalLast(fit, Float64Array.from([y])).mean).toBeCloseTo(0.5, 1);
  });
});
