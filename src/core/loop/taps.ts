/** Taps of one run, milliseconds of any clock, oldest first. */
export type Taps = readonly number[];

/** After so long without a tap a new run begins, milliseconds; sooner where the taps came faster. */
const LONGEST_PAUSE = 10_000;
/** So many usual intervals are a pause. */
const INTERVALS = 4;
/** Two taps tell one interval, and a hand is late by a tenth of a second: from here on a rate is told. */
const FEWEST = 4;

/** The run with one more tap; a new one after a pause. */
export function tapped(taps: Taps, now: number): Taps {
  const last = taps[taps.length - 1];
  if (last === undefined) return [now];
  const usual = taps.length < FEWEST ? LONGEST_PAUSE : (INTERVALS * (last - taps[0]!)) / (taps.length - 1);
  return now - last > Math.min(LONGEST_PAUSE, Math.max(1000, usual)) ? [now] : [...taps, now];
}

/** Taps a second: the slope of their number over time by least squares, so that one late tap tells little; null while they are too few. */
export function rateOf(taps: Taps): number | null {
  const n = taps.length;
  if (n < FEWEST) return null;
  const t = taps.reduce((s, x) => s + x, 0) / n;
  const across = taps.reduce((s, x) => s + (x - t) ** 2, 0);
  if (across === 0) return null;
  const along = taps.reduce((s, x, i) => s + (x - t) * (i - (n - 1) / 2), 0);
  // The interval is the slope of time over number; its inverse is the rate.
  const interval = along / ((n * (n * n - 1)) / 12);
  return 1000 / interval;
}
