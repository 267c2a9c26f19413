/** What a marking says. Value in the SI unit; null where nothing is printed. */
export interface Reading {
  readonly value: number | string;
  readonly tolerancePercent: readonly [number, number] | null;
  readonly tempco: number | null;
  readonly ratedVoltage: number | null;
}

export type MarkingUnit = 'ohm' | 'F' | 'H' | 'week';

/** One reading stands out, several share the best rank, or the marking cannot be read. */
export type Decoded =
  | { readonly state: 'clear'; readonly unit: MarkingUnit; readonly reading: Reading; readonly others: readonly Reading[] }
  | { readonly state: 'ambiguous'; readonly unit: MarkingUnit; readonly readings: readonly Reading[] }
  | { readonly state: 'invalid' };

export const INVALID: Decoded = { state: 'invalid' };

export interface Ranked extends Reading {
  /** Compared from left to right; smaller is better. */
  readonly rank: readonly number[];
}

export function plainReading(value: number | string, extra: Partial<Reading> = {}): Reading {
  return { value, tolerancePercent: null, tempco: null, ratedVoltage: null, ...extra };
}

/** Equal rank for all. */
export const unranked = (readings: readonly Reading[]): Ranked[] => readings.map((r) => ({ ...r, rank: [] }));

/** Picks the reading of best rank; readings that say the same count once. */
export function decide(unit: MarkingUnit, readings: readonly Ranked[]): Decoded {
  const distinct = readings.filter((r, i) => readings.findIndex((o) => sameReading(o, r)) === i).sort((a, b) => compare(a.rank, b.rank));
  const best = distinct[0];
  if (!best) return INVALID;
  const plain = distinct.map(({ value, tolerancePercent, tempco, ratedVoltage }): Reading => ({ value, tolerancePercent, tempco, ratedVoltage }));
  if (distinct[1] && compare(best.rank, distinct[1].rank) === 0) return { state: 'ambiguous', unit, readings: plain };
  return { state: 'clear', unit, reading: plain[0]!, others: plain.slice(1) };
}

const sameReading = (a: Reading, b: Reading) => a.value === b.value && String(a.tolerancePercent) === String(b.tolerancePercent) && a.tempco === b.tempco;

function compare(a: readonly number[], b: readonly number[]): number {
  for (let i = 0; i < a.length; i++) if (a[i] !== b[i]) return a[i]! - b[i]!;
  return 0;
}

/** Figures and a power of ten, exact in decimal: (47, 3) → 47000. */
export const scaled = (figures: string | number, exponent: number) => Number(`${figures}e${exponent}`);
