/** What a meter, or a patient eye, makes of a running signal. Volts, hertz, share. */
export interface TraceStatistics {
  readonly average: number;
  readonly rms: number;
  /** RMS of what alternates about the average, as a true-RMS meter on AC volts shows it. */
  readonly ac: number;
  /** Mean size of what alternates about the average: an average-responding meter shows it times `FORM_FACTOR`. */
  readonly acMean: number;
  readonly min: number;
  readonly max: number;
  /** Null when the swing is too small or fewer than three periods fit. */
  readonly frequency: number | null;
  readonly duty: number | null;
}

/** RMS over mean of a rectified sine wave: average-responding meters are marked with it, so that they read sines rightly. */
export const FORM_FACTOR = Math.PI / (2 * Math.SQRT2);

/** Below this swing nothing counts as running, volts. */
export const SMALLEST_SWING = 0.01;
const FEWEST_PERIODS = 3;

/** Time-weighted statistics of an unevenly sampled course, straight lines between its samples. */
export function statisticsOf(times: Float64Array, volts: Float64Array): TraceStatistics {
  let area = 0;
  let squares = 0;
  let min = Infinity;
  let max = -Infinity;
  for (let i = 0; i < volts.length; i++) {
    const v = volts[i]!;
    min = Math.min(min, v);
    max = Math.max(max, v);
    if (i === 0) continue;
    const before = volts[i - 1]!;
    const dt = times[i]! - times[i - 1]!;
    area += (dt * (v + before)) / 2;
    squares += (dt * (v * v + v * before + before * before)) / 3;
  }
  const span = times[times.length - 1]! - times[0]!;
  if (!(span > 0)) return { average: volts[0] ?? 0, rms: Math.abs(volts[0] ?? 0), ac: 0, acMean: 0, min, max, frequency: null, duty: null };
  const average = area / span;
  const ac = Math.sqrt(Math.max(0, squares / span - average * average));
  return { average, rms: Math.sqrt(squares / span), ac, acMean: meanSize(times, volts, average) / span, min, max, ...periodsOf(times, volts, min, max) };
}

/** Area between a course and a level, both sides counted positively. */
function meanSize(times: Float64Array, volts: Float64Array, level: number): number {
  let area = 0;
  for (let i = 1; i < volts.length; i++) {
    const [a, b] = [volts[i - 1]! - level, volts[i]! - level];
    const dt = times[i]! - times[i - 1]!;
    // A straight line that crosses the level makes two triangles.
    area += a * b >= 0 ? (dt * Math.abs(a + b)) / 2 : (dt * (a * a + b * b)) / (2 * Math.abs(b - a));
  }
  return area;
}

/** Moments at which a course rises through the middle of its extremes, interpolated. */
export function risesOf(times: Float64Array, volts: Float64Array): number[] {
  const [low, high] = extremes(volts);
  const level = (low + high) / 2;
  const rises: number[] = [];
  if (high - low < SMALLEST_SWING) return rises;
  for (let i = 1; i < volts.length; i++) {
    const [a, b] = [volts[i - 1]!, volts[i]!];
    if (a < level && b >= level) rises.push(times[i - 1]! + ((level - a) / (b - a)) * (times[i]! - times[i - 1]!));
  }
  return rises;
}

/** The part of a course between two moments, its ends interpolated. */
export function between(times: Float64Array, volts: Float64Array, from: number, to: number): { times: Float64Array; volts: Float64Array } {
  const a = times.findIndex((t) => t > from);
  const end = times.findIndex((t) => t >= to);
  const b = end < 0 ? times.length - 1 : end;
  if (a <= 0 || b <= a) return { times, volts };
  const at = (i: number, t: number) => volts[i - 1]! + ((t - times[i - 1]!) / (times[i]! - times[i - 1]!)) * (volts[i]! - volts[i - 1]!);
  return {
    times: Float64Array.from([from, ...times.subarray(a, b), to]),
    volts: Float64Array.from([at(a, from), ...volts.subarray(a, b), at(b, to)]),
  };
}

function extremes(volts: Float64Array): [number, number] {
  let [low, high] = [Infinity, -Infinity];
  for (const v of volts) {
    low = Math.min(low, v);
    high = Math.max(high, v);
  }
  return [low, high];
}

/** Frequency and duty from crossings of the level half way between the extremes, over whole periods. */
function periodsOf(times: Float64Array, volts: Float64Array, min: number, max: number): { frequency: number | null; duty: number | null } {
  const none = { frequency: null, duty: null };
  if (max - min < SMALLEST_SWING) return none;
  const level = (min + max) / 2;
  const rising: number[] = [];
  let high = 0;
  let highAtLast = 0;
  let up = NaN;
  for (let i = 1; i < volts.length; i++) {
    const [a, b] = [volts[i - 1]!, volts[i]!];
    const crosses = a < level !== b < level;
    if (!crosses) continue;
    const t = times[i - 1]! + ((level - a) / (b - a)) * (times[i]! - times[i - 1]!);
    if (b > a) {
      rising.push(t);
      highAtLast = high;
      up = t;
    } else if (!Number.isNaN(up)) high += t - up;
  }
  const periods = rising.length - 1;
  if (periods < FEWEST_PERIODS) return none;
  const span = rising[periods]! - rising[0]!;
  return { frequency: periods / span, duty: highAtLast / span };
}
