/** What a meter, or a patient eye, makes of a running signal. Volts, hertz, share. */
export interface TraceStatistics {
  readonly average: number;
  readonly rms: number;
  readonly min: number;
  readonly max: number;
  /** Null when the swing is too small or fewer than three periods fit. */
  readonly frequency: number | null;
  readonly duty: number | null;
}

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
  if (!(span > 0)) return { average: volts[0] ?? 0, rms: Math.abs(volts[0] ?? 0), min, max, frequency: null, duty: null };
  return { average: area / span, rms: Math.sqrt(squares / span), min, max, ...periodsOf(times, volts, min, max) };
}

/**
 * The part of a course from its first to its last rise through the middle, ends interpolated: whole periods, whose average
 * does not depend on where the recording was cut. All of it when it does not rise twice.
 */
export function wholePeriods(times: Float64Array, volts: Float64Array): { times: Float64Array; volts: Float64Array } {
  const [low, high] = extremes(volts);
  const level = (low + high) / 2;
  const rises: { before: number; time: number }[] = [];
  for (let i = 1; i < volts.length; i++) {
    const [a, b] = [volts[i - 1]!, volts[i]!];
    if (a < level && b >= level) rises.push({ before: i - 1, time: times[i - 1]! + ((level - a) / (b - a)) * (times[i]! - times[i - 1]!) });
  }
  const [first, last] = [rises[0], rises[rises.length - 1]];
  if (!first || !last || first === last) return { times, volts };
  const between = (all: Float64Array) => all.subarray(first.before + 1, last.before + 1);
  return { times: Float64Array.from([first.time, ...between(times), last.time]), volts: Float64Array.from([level, ...between(volts), level]) };
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
