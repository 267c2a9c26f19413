import { normalCdf } from '../statistics';

/** `none`: nothing to compare with, or nothing read yet. */
export type Verdict = 'in' | 'doubtful' | 'out' | 'none';
/** The worst verdict of some, `none` when nothing was judged. */
export function worst(verdicts: readonly Verdict[]): Verdict {
  for (const v of ['out', 'doubtful', 'in'] as const) if (verdicts.includes(v)) return v;
  return 'none';
}

/** simple: compare the number with the limits. guarded: allow for the meter. */
export type School = 'simple' | 'guarded';

/** Guard band in standard uncertainties (JCGM 106: guard band U = 2 u on either side). */
const GUARD = 2;

export interface Conformity {
  readonly verdict: Exclude<Verdict, 'none'>;
  /** Probability that the true value lies between the limits. */
  readonly probability: number;
}

/**
 * Conformity of a value `y` with standard uncertainty `u` to the limits `low`..`high` (all in one unit).
 * Probability: JCGM 106 with a flat prior and the normal approximation.
 */
export function conformity(y: number, u: number, low: number, high: number, school: School): Conformity {
  const probability = u > 0 ? Math.max(0, normalCdf((high - y) / u) - normalCdf((low - y) / u)) : y >= low && y <= high ? 1 : 0;
  return { verdict: school === 'simple' ? simple(y, low, high) : guarded(y, u, low, high), probability };
}

const simple = (y: number, low: number, high: number) => (y >= low && y <= high ? 'in' : 'out');

function guarded(y: number, u: number, low: number, high: number): Conformity['verdict'] {
  const guard = GUARD * u;
  if (y >= low + guard && y <= high - guard) return 'in';
  return y < low - guard || y > high + guard ? 'out' : 'doubtful';
}
