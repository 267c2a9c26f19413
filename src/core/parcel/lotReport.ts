import { type MeterRange, uncertaintyIn } from '../meter';

/** What a lot turned out to be: as claimed, off by a common amount, or wider than claimed. */
export type LotFinding = 'as-claimed' | 'biased' | 'wider';

/** Three or more pieces of one line judged together. Shares are relative to the nominal value. */
export interface LotReport {
  readonly finding: LotFinding;
  readonly probability: number;
  readonly pieces: number;
  readonly bias: number;
  readonly spread: number;
  /** Greatest common error that the meter allows, share of nominal. */
  readonly meter: number;
}

const FEWEST = 3;
/** Good pieces spread over their tolerance with this share of it as standard deviation (common practice). */
const GOOD_SHARE = 1 / 2.5;
/** How often lots are what they claim, off, or wide (choice of this product). */
const PRIOR: Readonly<Record<LotFinding, number>> = { 'as-claimed': 0.85, biased: 0.1, wider: 0.05 };
/** A cheap lot lies off by up to about this many tolerances, or spreads over this many. */
const CHEAP = 3;
const GRID = 41;

/**
 * Compares the marginal likelihoods of the three kinds of lot. The meter's error is common to all pieces, so it
 * moves the whole lot and cannot widen it.
 */
export function lotReport(nominal: number, tolerance: readonly [number, number], readings: readonly number[], range: MeterRange): LotReport | null {
  if (readings.length < FEWEST || nominal <= 0) return null;
  const shares = readings.map((y) => (y - nominal) / nominal);
  const bias = shares.reduce((a, b) => a + b, 0) / shares.length;
  const spread = Math.sqrt(shares.reduce((s, x) => s + (x - bias) ** 2, 0) / (shares.length - 1));
  const meter = uncertaintyIn(range, nominal * (1 + bias)).halfWidth / nominal;
  const step = range.resolution / nominal / Math.sqrt(12);
  const half = (tolerance[1] - tolerance[0]) / 2;
  const middle = (tolerance[1] + tolerance[0]) / 2;
  const good = half * GOOD_SHARE;
  const evidence: Record<LotFinding, number> = {
    'as-claimed': marginal(shares, middle, meter, Math.hypot(good, step)),
    biased: marginal(shares, middle, Math.hypot(meter, CHEAP * half), Math.hypot(good / 2, step)),
    wider: marginal(shares, middle, meter, Math.hypot(CHEAP * good, step)),
  };
  const weighted = (Object.keys(PRIOR) as LotFinding[]).map((k) => ({ k, log: Math.log(PRIOR[k]) + evidence[k] }));
  const top = Math.max(...weighted.map((w) => w.log));
  const total = weighted.reduce((s, w) => s + Math.exp(w.log - top), 0);
  const best = weighted.find((w) => w.log === top)!;
  return { finding: best.k, probability: 1 / total, pieces: shares.length, bias, spread, meter };
}

/** log of ∫ Π N(x | m + b, sd) over a common offset b, uniform within ± the offset's half-width, by the midpoint rule. */
function marginal(xs: readonly number[], m: number, halfWidth: number, sd: number): number {
  const logs = Array.from({ length: GRID }, (_, i) => {
    const b = halfWidth * ((2 * (i + 0.5)) / GRID - 1);
    return xs.reduce((s, x) => s - 0.5 * ((x - m - b) / sd) ** 2 - Math.log(sd), 0);
  });
  const top = Math.max(...logs);
  return top + Math.log(logs.reduce((s, l) => s + Math.exp(l - top), 0) / GRID);
}
