import { uniformFloat64 } from 'pure-rand/distribution/uniformFloat64';
import { mersenne } from 'pure-rand/generator/mersenne';

/** A repeatable stream of numbers in [0, 1). Neighbouring seeds give streams that have nothing in common (Mersenne Twister). */
export function randomStream(seed: number): () => number {
  const generator = mersenne(seed | 0);
  return () => uniformFloat64(generator);
}
