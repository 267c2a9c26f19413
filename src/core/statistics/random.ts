import { uniformFloat64 } from 'pure-rand/distribution/uniformFloat64';
import { mersenne } from 'pure-rand/generator/mersenne';

/** A repeatable stream of numbers in [0, 1): the Mersenne Twister (Matsumoto, Nishimura 1998), which keeps nearby seeds apart. */
export function randomStream(seed: number): () => number {
  const generator = mersenne(seed);
  return () => uniformFloat64(generator);
}
