import { type MeterProfile, rangeFor } from '../meter';
import { type Sample, scaleSlope, type StageObservable } from '../specimen';

/** Smallest spread on the comparison scale: no prediction is sharper than this. */
export const FLOOR = 2e-3;

/** A reading's error on the comparison scale: its own part, and the part that all readings of one range share. */
export interface Noise {
  readonly own: number;
  readonly gain: number;
  /** Equal for readings with one gain error: one meter, one mode, one range. */
  readonly range: string;
}

/** What lasts microseconds at a flank is caught by one instrument and missed by another: the least and the most are no surer than this, volts (own figure). */
const PEAK_VOLTS = 0.08;

/**
 * The percent part of a meter's accuracy is a gain error: one number for all readings of one range. Counts and rounding come
 * anew with every reading. Both taken rectangular (JCGM 100), carried over to the comparison scale.
 */
export function readingNoise(meter: MeterProfile, mode: StageObservable['mode'], value: number): Noise {
  const range = rangeFor(meter, mode, value);
  if (!range) return { own: FLOOR, gain: 0, range: '' };
  const slope = scaleSlope(mode, value);
  const counts = Math.hypot((range.counts * range.resolution) / Math.sqrt(3), range.resolution / Math.sqrt(12));
  const caught = mode === 'vmin' || mode === 'vmax' ? PEAK_VOLTS * slope : 0;
  return { own: Math.hypot(counts * slope, caught), gain: (range.percent / 100 / Math.sqrt(3)) * value * slope, range: `${meter.id}/${mode}/${range.upTo}` };
}

export const varianceOf = (n: Noise) => n.own * n.own + n.gain * n.gain;

/** Covariance of the readings' errors, row-major. */
export function errorCovariance(noise: readonly Noise[]): Float64Array {
  const n = noise.length;
  const m = new Float64Array(n * n);
  for (let i = 0; i < n; i++) {
    for (let j = 0; j < i; j++) {
      const common = noise[i]!.range !== '' && noise[i]!.range === noise[j]!.range ? noise[i]!.gain * noise[j]!.gain : 0;
      m[i * n + j] = common;
      m[j * n + i] = common;
    }
    m[i * n + i] = varianceOf(noise[i]!) + FLOOR * FLOOR;
  }
  return m;
}

export function columnMoments(sample: Sample, column: number): { mean: number; variance: number } {
  let sum = 0;
  let squares = 0;
  for (let r = 0; r < sample.rows; r++) {
    const v = sample.values[r * sample.width + column]!;
    sum += v;
    squares += v * v;
  }
  const mean = sum / sample.rows;
  return { mean, variance: Math.max(0, squares / sample.rows - mean * mean) };
}
