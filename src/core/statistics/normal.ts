import cdf from '@stdlib/stats-base-dists-normal-cdf';

/** Standard normal distribution function Φ; its tails are good to double precision, relative. */
export const normalCdf = (z: number): number => cdf(z, 0, 1);
