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

/** Specimens that behave alike, and the share of all that they are. */
export interface Cluster {
  readonly sample: Sample;
  readonly share: number;
}

/**
 * A board near the edge of switching does in a few specimens what the others do not. One mean and one covariance over all of them
 * would fit neither and make everything seem possible: those few are taken apart.
 */
export function clustersOf(sample: Sample): Cluster[] {
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
