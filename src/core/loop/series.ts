import type { Taken } from '../kit';
import { rangeFor } from '../meter';
import type { MeterMode } from '../vocabulary';

/** One check read several times. */
export interface Series {
  readonly count: number;
  readonly low: number;
  readonly high: number;
  /** What the newest readings do; null where they lie within half a minute. */
  readonly drift: Drift | null;
}

export interface Drift {
  /** In units of the reading, by least squares over the times of the entries. */
  readonly perMinute: number;
  /** Three readings or more say so, by more than the meter's steps and their own scatter: one that was taken badly is no drift. */
  readonly told: boolean;
}

const MINUTE = 60_000;
/** Over less than this a slope says nothing, minutes. */
const SHORTEST = 0.5;
/** So many of the newest readings say what it does now: what has settled no longer drifts. */
const NEWEST = 3;
/** A slope beyond so many of its standard errors is one. */
const SIGNIFICANT = 5;

interface Point {
  readonly t: number;
  readonly v: number;
}

/** Readings of one check on the board as it is, oldest first; null before the second. Over-range counts for nothing. */
export function seriesOf(taken: readonly Taken[], mode: MeterMode): Series | null {
  const read = taken.flatMap(({ entry, met }) =>
    entry.kind === 'read' && entry.reading !== 'over' ? [{ t: Date.parse(entry.at) / MINUTE, v: entry.reading, meter: met.meter }] : [],
  );
  const last = read[read.length - 1];
  if (!last || read.length < 2) return null;
  const values = read.map((r) => r.v);
  const range = rangeFor(last.meter, mode, last.v);
  // Two readings of one value differ by the counts of each.
  const steps = range ? 2 * range.counts * range.resolution : 0;
  return { count: read.length, low: Math.min(...values), high: Math.max(...values), drift: driftOf(newest(read), steps) };
}

/** The newest readings that reach over long enough. */
function newest(read: readonly Point[]): readonly Point[] {
  const last = read[read.length - 1]!;
  const from = read.findLastIndex((r, i) => read.length - i >= NEWEST && last.t - r.t >= SHORTEST);
  return read.slice(Math.max(0, from));
}

function driftOf(read: readonly Point[], steps: number): Drift | null {
  const mean = (of: (p: Point) => number) => read.reduce((s, p) => s + of(p), 0) / read.length;
  const [t, v] = [mean((p) => p.t), mean((p) => p.v)];
  const reach = Math.max(...read.map((p) => p.t)) - Math.min(...read.map((p) => p.t));
  if (reach < SHORTEST) return null;
  const across = read.reduce((s, p) => s + (p.t - t) ** 2, 0);
  const perMinute = read.reduce((s, p) => s + (p.t - t) * (p.v - v), 0) / across;
  const missed = read.reduce((s, p) => s + (p.v - v - perMinute * (p.t - t)) ** 2, 0);
  const error = Math.sqrt(missed / (read.length - 2) / across);
  return { perMinute, told: read.length >= NEWEST && Math.abs(perMinute) * reach > steps && Math.abs(perMinute) > SIGNIFICANT * error };
}
