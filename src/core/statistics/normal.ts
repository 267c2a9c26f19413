import erfc from '@stdlib/math-base-special-erfc';

/** Standard normal distribution function Φ(z) = ½ erfc(−z/√2) (textbook); its tails are good to double precision, relative. */
export const normalCdf = (z: number): number => 0.5 * erfc(-z / Math.SQRT2);
