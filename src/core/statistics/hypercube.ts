import { randomStream } from './random';

/**
 * `count` points in the unit cube of `dimensions`, one in each of `count` equal strata of every dimension (Latin hypercube,
 * McKay, Beckman, Conover 1979): few points cover each range evenly. Repeatable by its seed.
 */
export function hypercube(dimensions: number, count: number, seed: number): Float64Array[] {
  const random = randomStream(seed);
  const points = Array.from({ length: count }, () => new Float64Array(dimensions));
  for (let d = 0; d < dimensions; d++) {
    const strata = Array.from({ length: count }, (_, i) => i);
    for (let i = count - 1; i > 0; i--) {
      const j = Math.floor(random() * (i + 1));
      [strata[i], strata[j]] = [strata[j]!, strata[i]!];
    }
    points.forEach((point, i) => {
      point[d] = (strata[i]! + random()) / count;
    });
  }
  return points;
}
