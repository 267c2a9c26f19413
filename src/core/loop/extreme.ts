/** Where a reading stands that is turned to the least or the most that it can be. */
export interface ExtremeStanding {
  /** The best so far; null before the first reading. */
  readonly best: number | null;
  /** The last reading is the best there is: the control went past it and came back. */
  readonly there: boolean;
  /** The last turn made it worse. */
  readonly passed: boolean;
}

/** Readings this close to the best, as a part of what was swept, are there (choice of this product). */
const CLOSE = 0.05;

/**
 * Least or most by readings one after another: reached when a later reading was worse, so that the extreme was passed, and the
 * last one is back at the best.
 */
export function extremeOf(readings: readonly number[], aim: 'least' | 'most'): ExtremeStanding {
  const better = (a: number, b: number) => (aim === 'least' ? a < b : a > b);
  const best = readings.reduce<number | null>((found, r) => (found === null || better(r, found) ? r : found), null);
  const last = readings.at(-1);
  if (best === null || last === undefined) return { best: null, there: false, passed: false };
  const swept = Math.max(...readings) - Math.min(...readings);
  const at = readings.indexOf(best);
  const close = (r: number) => Math.abs(r - best) <= CLOSE * swept;
  const worseSince = readings.slice(at + 1).some((r) => !close(r));
  const before = readings.at(-2);
  return { best, there: swept > 0 && worseSince && close(last), passed: before !== undefined && better(before, last) };
}
