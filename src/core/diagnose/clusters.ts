import type { Sample } from '../specimen';

/** So many robust standard deviations from the middle a specimen does something else than its fellows (choice of this product). */
const APART = 10;
/** Less than this on the comparison scale is no other behaviour. */
const LEAST_APART = 0.1;
/** Of a normal distribution the median absolute deviation is this share of the standard deviation's inverse (textbook). */
const MAD_TO_SIGMA = 1.4826;
/** More than this share of the specimens is not the exception. */
const MOST_APART = 0.25;
/** Fewer rows tell nothing of their spread. */
const FEWEST = 8;
/** A gap of this share of a column's range, and of this much on the comparison scale, parts two ways of behaving (choice of this product). */
const WIDE_GAP = 0.3;
const LEAST_GAP = 0.3;

/** Specimens that behave alike, and the share of all that they are; the largest share first. */
export interface Cluster {
  readonly sample: Sample;
  readonly share: number;
}

/**
 * A board near the edge of switching does in some specimens what the others do not. One mean and one covariance over all of them
 * would fit neither and make everything seem possible: they are taken apart, by a wide gap, or as the few that lie far off.
 */
export function clustersOf(sample: Sample): Cluster[] {
  const parted = atWidestGap(sample);
  if (!parted) return withoutFew(sample);
  return parted
    .flatMap((rows) => clustersOf(only(sample, rows).sample).map((c): Cluster => ({ sample: c.sample, share: (c.share * rows.length) / sample.rows })))
    .sort((a, b) => b.share - a.share);
}

/** Rows on either side of a gap that takes much of the range of some column, as where a part conducts or not; null where there is none. */
function atWidestGap({ rows, width, values }: Sample): [number[], number[]] | null {
  let best = { share: WIDE_GAP, order: [] as number[], at: 0 };
  for (let column = 0; column < width; column++) {
    const of = (r: number) => values[r * width + column]!;
    const order = Array.from({ length: rows }, (_, r) => r).sort((a, b) => of(a) - of(b));
    const range = of(order.at(-1)!) - of(order[0]!);
    for (let at = FEWEST; at <= rows - FEWEST; at++) {
      const gap = of(order[at]!) - of(order[at - 1]!);
      if (gap >= LEAST_GAP && gap / range > best.share) best = { share: gap / range, order, at };
    }
  }
  return best.at === 0 ? null : [best.order.slice(0, best.at), best.order.slice(best.at)];
}

/** The sample without those few specimens that do otherwise; they are a cluster of their own where there are enough. */
function withoutFew(sample: Sample): Cluster[] {
  const whole = [{ sample, share: 1 }];
  if (sample.rows < 2 * FEWEST) return whole;
  const apart = new Set<number>();
  for (let column = 0; column < sample.width; column++) {
    const values = Float64Array.from({ length: sample.rows }, (_, r) => sample.values[r * sample.width + column]!);
    const middle = median(values);
    const reach = Math.max(LEAST_APART, APART * MAD_TO_SIGMA * median(values.map((v) => Math.abs(v - middle))));
    values.forEach((v, r) => {
      if (Math.abs(v - middle) > reach) apart.add(r);
    });
  }
  if (apart.size === 0 || apart.size > MOST_APART * sample.rows) return whole;
  const rows = Array.from({ length: sample.rows }, (_, r) => r);
  const others = rows.filter((r) => apart.has(r));
  return [
    only(
      sample,
      rows.filter((r) => !apart.has(r)),
    ),
    ...(others.length >= FEWEST ? [only(sample, others)] : []),
  ];
}

function median(values: Float64Array): number {
  const sorted = values.slice().sort();
  const half = sorted.length >> 1;
  return sorted.length % 2 === 1 ? sorted[half]! : (sorted[half - 1]! + sorted[half]!) / 2;
}

function only({ width, values, rows: all }: Sample, rows: readonly number[]): Cluster {
  const kept = new Float64Array(rows.length * width);
  rows.forEach((r, i) => {
    kept.set(values.subarray(r * width, (r + 1) * width), i * width);
  });
  return { sample: { rows: rows.length, width, values: kept }, share: rows.length / all };
}
