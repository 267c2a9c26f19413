import type { KitState, MeasureCheck, Stage } from '../kit';
import { freshTaken } from './progress';

/** One check read several times. */
export interface Series {
  readonly count: number;
  readonly low: number;
  readonly high: number;
  /** In units of the reading a minute, by least squares over the times of the entries; null within half a minute. */
  readonly drift: number | null;
}

const MINUTE = 60_000;
/** Over less than this a slope says nothing, minutes. */
const SHORTEST = 0.5;

/** Readings of a check on the board as it is; null before the second. Over-range counts for nothing. */
export function seriesOf(kit: KitState, stage: Stage, check: MeasureCheck): Series | null {
  const read = freshTaken(kit, stage, check.id).flatMap(({ entry }) =>
    entry.kind === 'read' && entry.reading !== 'over' ? [{ t: Date.parse(entry.at) / MINUTE, v: entry.reading }] : [],
  );
  if (read.length < 2) return null;
  const values = read.map((r) => r.v);
  const times = read.map((r) => r.t);
  return {
    count: read.length,
    low: Math.min(...values),
    high: Math.max(...values),
    drift: Math.max(...times) - Math.min(...times) < SHORTEST ? null : slope(times, values),
  };
}

function slope(x: readonly number[], y: readonly number[]): number {
  const mean = (a: readonly number[]) => a.reduce((s, v) => s + v, 0) / a.length;
  const [mx, my] = [mean(x), mean(y)];
  const across = x.reduce((s, v) => s + (v - mx) ** 2, 0);
  return x.reduce((s, v, i) => s + (v - mx) * (y[i]! - my), 0) / across;
}
