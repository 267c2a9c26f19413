import { at, fitLine } from './line';
import type { Recording } from './recording';

export interface WaveformFigures {
  /** Hz and share of time above the half level; null where no period was found. */
  readonly frequency: number | null;
  readonly duty: number | null;
  readonly average: number;
  readonly rms: number;
  readonly min: number;
  readonly max: number;
  readonly amplitude: number;
}

const MOST_WILD = 4;
const FEWEST_PERIODS = 3;
/** Swing below which there is no signal, V, and scatter of periods above which there is no period (own figures). */
const SMALLEST_SWING = 0.01;
const MOST_SCATTER = 0.25;
/** Least distance from the half level that counts as having crossed it, part of the swing; noise makes it wider. */
const HYSTERESIS = 0.1;
const WIDEST_HYSTERESIS = 0.35;

/**
 * Figures of a recorded signal: whole periods between crossings of the half level, found with hysteresis; a straight drift is
 * taken out for them; single wild samples are left out; noise is averaged away over the periods.
 */
export function waveformOf(raw: Recording): WaveformFigures {
  const { t, v } = withoutWild(raw);
  const noise = noiseOf(v);
  const periods = periodsOf(t, v, noise);
  if (!periods) {
    const [min, max] = extremes(v);
    return { frequency: null, duty: null, ...means(t, v, t[0]!, t.at(-1)!), min, max, amplitude: (max - min) / 2 };
  }
  const { period, start, count, drift } = periods;
  const flat = without(t, v, drift);
  const smooth = folded(t, flat, period, start, noise);
  const [low, high] = extremes(smooth);
  const duty = shareAbove(t, smooth, period, start, (low + high) / 2);
  const [min, max] = extremes(smooth.map((x, i) => x + at(drift, t[i]!)));
  return { frequency: 1 / period, duty, ...means(t, v, start, start + count * period), min, max, amplitude: (high - low) / 2 };
}

const extremes = (v: Float64Array): [number, number] => [v.reduce((m, x) => Math.min(m, x), Infinity), v.reduce((m, x) => Math.max(m, x), -Infinity)];

function median(values: readonly number[]): number {
  const sorted = [...values].sort((a, b) => a - b);
  const middle = sorted.length >> 1;
  return sorted.length % 2 ? sorted[middle]! : (sorted[middle - 1]! + sorted[middle]!) / 2;
}

/** Standard deviation of a normal distribution from the median of absolute values. */
const FROM_MEDIAN = 1 / 0.6745;

/** Noise of a slowly changing signal, from second differences: their variance is six times that of a sample (textbook). */
function noiseOf(v: Float64Array): number {
  const second = Array.from({ length: v.length - 2 }, (_, i) => Math.abs(v[i]! - 2 * v[i + 1]! + v[i + 2]!));
  return (median(second) * FROM_MEDIAN) / Math.sqrt(6);
}

/** Without up to four samples that stand alone, far outside of what lies around them; more of them are a signal. */
function withoutWild({ t, v }: Recording): Recording {
  const sorted = Float64Array.from(v).sort();
  const range = sorted[Math.floor(0.98 * (v.length - 1))]! - sorted[Math.floor(0.02 * (v.length - 1))]!;
  const limit = Math.max(6 * noiseOf(v), 0.2 * range, 1e-12);
  const out = Array.from(v, (_, i) => protrusion(v, i));
  const order = Array.from(out.keys()).sort((a, b) => out[b]! - out[a]!);
  // Tips of a signal protrude alike: what is wild does so twice as far as the next.
  const count =
    Array.from({ length: MOST_WILD }, (_, k) => k + 1)
      .filter((k) => out[order[k - 1]!]! > Math.max(limit, 2 * (out[order[k]!] ?? 0)))
      .at(-1) ?? 0;
  const wild = new Set(order.slice(0, count));
  const keep = (_: number, i: number) => !wild.has(i);
  return { t: t.filter(keep), v: v.filter(keep) };
}

/** How far a sample lies outside of the two before and the two behind it. */
function protrusion(v: Float64Array, i: number): number {
  const around = [-2, -1, 1, 2].flatMap((k) => v[i + k] ?? []);
  return Math.max(0, v[i]! - Math.max(...around), Math.min(...around) - v[i]!);
}

interface Periods {
  readonly period: number;
  /** First rise through the half level. */
  readonly start: number;
  readonly count: number;
  readonly drift: ReturnType<typeof fitLine>;
}

function periodsOf(t: Float64Array, v: Float64Array, noise: number): Periods | null {
  const first = firstSlopes(t, v)
    .flatMap((slope) => tried(t, v, noise, slope, null) ?? [])
    .sort((a, b) => a.scatter - b.scatter)[0];
  if (!first) return null;
  let best = first;
  for (let round = 0; round < 3; round++) {
    const { period, start, count, drift } = best;
    // The mean of each whole period shows what drifts.
    const centres = Array.from({ length: count }, (_, k) => [k * period, means(t, v, start + k * period, start + (k + 1) * period).average] as const);
    const levels = extremes(folded(t, without(t, v, drift), period, start, noise));
    const next = tried(t, v, noise, fitLine(centres).slope, levels);
    if (!next) break;
    best = next;
  }
  return best;
}

/** Slopes to begin with: of all samples, of the upper and lower edge over three thirds, and none; few periods mislead each of them. */
function firstSlopes(t: Float64Array, v: Float64Array): number[] {
  const third = Math.floor(v.length / 3);
  const [lowBefore, highBefore] = extremes(v.subarray(0, third));
  const [lowBehind, highBehind] = extremes(v.subarray(v.length - third));
  const edges = (lowBehind - lowBefore + highBehind - highBefore) / 2 / (t[v.length - third]! - t[0]!);
  return [fitLine(Array.from(t, (x, i) => [x, v[i]!] as const)).slope, edges, 0];
}

const without = (t: Float64Array, v: Float64Array, drift: Periods['drift']) => v.map((x, i) => x - at(drift, t[i]!));

function tried(t: Float64Array, v: Float64Array, noise: number, slope: number, levels: [number, number] | null): (Periods & { scatter: number }) | null {
  const drift = { slope, offset: 0 - slope * t[0]! };
  const flat = without(t, v, drift);
  const [low, high] = levels ?? roughLevels(flat, noise);
  if (high - low < SMALLEST_SWING) return null;
  const found = regular(crossings(t, flat, low, high, noise));
  return found && { ...found, drift };
}

/** Extremes less what noise adds to the most extreme of many samples. */
function roughLevels(v: Float64Array, noise: number): [number, number] {
  const [low, high] = extremes(v);
  const added = Math.min(noise * Math.sqrt(2 * Math.log(v.length)), (high - low) / 3);
  return [low + added, high - added];
}

/** Rises through the half level: a straight line through the samples between leaving one side and reaching the other. */
function crossings(t: Float64Array, v: Float64Array, low: number, high: number, noise: number): number[] {
  const middle = (low + high) / 2;
  const swing = high - low;
  const band = swing * Math.min(WIDEST_HYSTERESIS, Math.max(HYSTERESIS, (3 * noise) / swing));
  const rises: number[] = [];
  let above = v[0]! > middle;
  let left = 0;
  for (let i = 0; i < v.length; i++) {
    const side = v[i]! > middle + band ? true : v[i]! < middle - band ? false : null;
    if (side === null) continue;
    if (side && !above) rises.push(crossing(t, v, left, i, middle));
    above = side;
    left = i;
  }
  return rises;
}

function crossing(t: Float64Array, v: Float64Array, from: number, to: number, level: number): number {
  if (to - from >= 4) {
    const line = fitLine(Array.from({ length: to - from + 1 }, (_, k) => [t[from + k]!, v[from + k]!] as const));
    const moment = (level - line.offset) / line.slope;
    if (moment >= t[from]! && moment <= t[to]!) return moment;
  }
  const moments: number[] = [];
  for (let i = from; i < to; i++) {
    const [a, b] = [v[i]! - level, v[i + 1]! - level];
    if (a * b < 0 || a === 0) moments.push(a === b ? t[i]! : t[i]! + ((t[i + 1]! - t[i]!) * a) / (a - b));
  }
  return moments.reduce((s, x) => s + x, 0) / moments.length;
}

/** Period and first rise; null with fewer than three whole periods or where they scatter too far. */
function regular(rises: readonly number[]): (Omit<Periods, 'drift'> & { scatter: number }) | null {
  const count = rises.length - 1;
  if (count < FEWEST_PERIODS) return null;
  const lengths = rises.slice(1).map((r, i) => r - rises[i]!);
  const mean = (rises.at(-1)! - rises[0]!) / count;
  const scatter = Math.sqrt(lengths.reduce((s, x) => s + (x - mean) ** 2, 0) / count) / mean;
  if (scatter > MOST_SCATTER) return null;
  // All rises together say more of period and start than the first and the last alone.
  const line = fitLine(rises.map((r, i) => [i, r] as const));
  return { period: line.slope, start: line.offset, count, scatter };
}

/**
 * Each sample smoothed with those of the nearest phase in other periods, as many as the noise asks for. Of the samples before,
 * around and behind it those are taken that lie best on a straight line, so that edges and tips stay sharp.
 */
function folded(t: Float64Array, v: Float64Array, period: number, start: number, noise: number): Float64Array {
  const phase = phasesOf(t, period, start);
  const order = Array.from(phase.keys()).sort((a, b) => phase[a]! - phase[b]!);
  const [low, high] = extremes(v);
  const swing = Math.max(high - low - 4 * noise, 1e-12);
  const wanted = ((MOST_EXTREME * noise) / (0.4 * noise + 0.008 * swing)) ** 2;
  const size = Math.floor(Math.min(wanted, 0.05 * v.length));
  if (size < 3) return v;
  const n = order.length;
  const x = new Float64Array(n + 2 * SIDE * size);
  const y = new Float64Array(x.length);
  x.forEach((_, k) => {
    const from = (((k - SIDE * size) % n) + n) % n;
    x[k] = phase[order[from]!]! + Math.floor((k - SIDE * size) / n);
    y[k] = v[order[from]!]!;
  });
  const lines = new SlidingLines(x, y, size);
  const out = Float64Array.from(v);
  order.forEach((i, k) => {
    const here = k + SIDE * size;
    out[i] = lines.best(here, x[here]!);
  });
  return out;
}

/** Share of a period that the smoothed signal lies above a level. */
function shareAbove(t: Float64Array, smooth: Float64Array, period: number, start: number, level: number): number {
  const phase = phasesOf(t, period, start);
  const order = Array.from(phase.keys()).sort((a, b) => phase[a]! - phase[b]!);
  return order.reduce((share, i, k) => {
    const last = k === order.length - 1;
    const next = order[last ? 0 : k + 1]!;
    const width = phase[next]! - phase[i]! + (last ? 1 : 0);
    const [a, b] = [smooth[i]! - level, smooth[next]! - level];
    const above = a > 0 && b > 0 ? 1 : a <= 0 && b <= 0 ? 0 : Math.max(a, b) / Math.abs(a - b);
    return share + above * width;
  }, 0);
}

/** Part of its period at which each sample lies, 0..1. */
const phasesOf = (t: Float64Array, period: number, start: number) => Float64Array.from(t, (x) => (x - start) / period - Math.floor((x - start) / period));

/** How far the most extreme of some fifty smoothed values lies out, in standard deviations. */
const MOST_EXTREME = 3;

/** How much longer windows beside a sample are than the one around it. */
const SIDE = 2;
/** Part of the variance that a window beside a sample must keep below to be taken instead of the one around it. */
const CLEARLY = 0.4;

/** Straight lines through each window of so many samples, by running sums. */
class SlidingLines {
  private readonly sums: readonly Float64Array[];
  private readonly origin: number;

  constructor(
    x: Float64Array,
    y: Float64Array,
    private readonly size: number,
  ) {
    this.origin = x[0]!;
    const sums = Array.from({ length: 5 }, () => new Float64Array(x.length + 1));
    for (let k = 0; k < x.length; k++) {
      const u = x[k]! - this.origin;
      [u, y[k]!, u * u, u * y[k]!, y[k]! * y[k]!].forEach((term, j) => {
        sums[j]![k + 1] = sums[j]![k]! + term;
      });
    }
    this.sums = sums;
  }

  /**
   * Value at `x` of the line through the samples around sample `k`; where those before or behind it lie on theirs clearly better
   * (an edge runs through the middle) of that one, which is longer, since the end of a line is less sure than its middle.
   */
  best(k: number, x: number): number {
    const { size } = this;
    const around = this.line(k - (size >> 1), size, x);
    const before = this.line(k - SIDE * size + 1, SIDE * size, x);
    const behind = this.line(k, SIDE * size, x);
    const side = before.variance < behind.variance ? before : behind;
    return side.variance < CLEARLY * around.variance ? side.value : around.value;
  }

  private line(from: number, n: number, x: number): { value: number; variance: number } {
    const [sx, sy, sxx, sxy, syy] = this.sums.map((s) => s[from + n]! - s[from]!) as [number, number, number, number, number];
    const vxx = sxx - (sx * sx) / n;
    const vxy = sxy - (sx * sy) / n;
    const slope = vxx > 0 ? vxy / vxx : 0;
    return { value: sy / n + slope * (x - this.origin - sx / n), variance: (syy - (sy * sy) / n - slope * vxy) / (n - 2) };
  }
}

/** Index of the first moment behind this one: periods are many, samples more. */
function firstAfter(t: Float64Array, moment: number): number {
  let [low, high] = [0, t.length];
  while (low < high) {
    const middle = (low + high) >> 1;
    if (t[middle]! > moment) high = middle;
    else low = middle + 1;
  }
  return low;
}

/** Average and RMS of a whole recording. */
export const levelsOf = ({ t, v }: Recording): Pick<WaveformFigures, 'average' | 'rms'> => means(t, v, t[0]!, t.at(-1)!);

/** Mean and root of the mean square between two moments, straight lines between samples. */
function means(t: Float64Array, v: Float64Array, from: number, to: number): { average: number; rms: number } {
  let [area, square, time] = [0, 0, 0];
  for (let i = Math.max(1, firstAfter(t, from)); i < t.length && t[i - 1]! < to; i++) {
    const [a, b] = [Math.max(from, t[i - 1]!), Math.min(to, t[i]!)];
    if (!(b > a)) continue;
    const slope = (v[i]! - v[i - 1]!) / (t[i]! - t[i - 1]!);
    const [va, vb] = [v[i - 1]! + slope * (a - t[i - 1]!), v[i - 1]! + slope * (b - t[i - 1]!)];
    area += ((va + vb) / 2) * (b - a);
    square += ((va * va + va * vb + vb * vb) / 3) * (b - a);
    time += b - a;
  }
  return { average: area / time, rms: Math.sqrt(square / time) };
}
