import { varianceOf, type Noise } from './noise';
import type { Sample } from '../specimen';

/** What a suspect shows in one column of its samples: 5th, 50th and 95th percentile. */
export interface Percentiles {
  readonly low: number;
  readonly middle: number;
  readonly high: number;
}

/** Null where the samples hold no specimen. */
export function percentilesOf(samples: readonly Sample[], index: number): Percentiles | null {
  const column = Float64Array.from(samples.flatMap(({ rows, width, values }) => Array.from({ length: rows }, (_, r) => values[r * width + index]!))).sort();
  if (column.length === 0) return null;
  const at = (q: number) => column[Math.round(q * (column.length - 1))]!;
  return { low: at(0.05), middle: at(0.5), high: at(0.95) };
}

/** What a suspect shows, with half the width of the meter's error there. */
export interface Shown extends Percentiles {
  readonly slack: number;
}

export const withMeter = (p: Percentiles, noise: Noise): Shown => ({ ...p, slack: Math.sqrt(3 * varianceOf(noise)) });

/** Whether two suspects read alike: what each shows lies in the other, or nearer than the meter tells apart, at every one of these points. */
export const readAlike = (a: readonly (Shown | null)[], b: readonly (Shown | null)[], points: readonly number[]): boolean =>
  points.every((i) => {
    const [p, q] = [a[i], b[i]];
    if (!p || !q) return true;
    const slack = Math.max(p.slack, q.slack);
    return liesIn(p, q, slack) && liesIn(q, p, slack);
  });

const liesIn = (p: Percentiles, q: Percentiles, slack: number): boolean => p.middle >= q.low - slack && p.middle <= q.high + slack;
