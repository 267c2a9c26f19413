import type { MeterMode } from '../vocabulary';
import type { Of } from '../vocabulary/schema';
import type { MeterShape, RangeShape } from './schema';

export type MeterProfile = Of<typeof MeterShape>;
export type MeterRange = Of<typeof RangeShape>;

/** Half-width of the meter's error and standard uncertainty of one reading, in the unit of the reading. */
export interface Uncertainty {
  /** Greatest error that the meter's data sheet allows. */
  readonly halfWidth: number;
  /** Standard uncertainty (JCGM 100: rectangular error of half-width a gives a/√3; one display step gives step/√12). */
  readonly standard: number;
  readonly range: MeterRange;
}

/** A thermometer or thermocouple of the usual kind, in °C (common practice, no source). */
const THERMOMETER: readonly MeterRange[] = [{ upTo: 400, percent: 1, counts: 2, resolution: 1 }];

/** Ranges that a mode is read in: the least and the most of a signal are caught on DC volts, warmth by a thermometer beside the meter. */
function rangesOf(profile: MeterProfile, mode: MeterMode): readonly MeterRange[] | undefined {
  if (mode === 'temp') return THERMOMETER;
  return profile.ranges[mode === 'vmin' || mode === 'vmax' ? 'dcv' : mode];
}

/** The range that an autoranging meter shows this reading in; the largest one when it is beyond all. */
export function rangeFor(profile: MeterProfile, mode: MeterMode, reading: number): MeterRange | null {
  const ranges = rangesOf(profile, mode);
  if (!ranges || ranges.length === 0) return null;
  return ranges.find((r) => Math.abs(reading) <= r.upTo) ?? ranges[ranges.length - 1]!;
}

/** Uncertainty of a reading; null when the meter lacks this mode. */
export function uncertaintyOf(profile: MeterProfile, mode: MeterMode, reading: number): Uncertainty | null {
  const range = rangeFor(profile, mode, reading);
  return range ? uncertaintyIn(range, reading) : null;
}

export function uncertaintyIn(range: MeterRange, reading: number): Uncertainty {
  const halfWidth = (range.percent / 100) * Math.abs(reading) + range.counts * range.resolution;
  return { halfWidth, standard: Math.hypot(halfWidth / Math.sqrt(3), range.resolution / Math.sqrt(12)), range };
}

/** Ranges of an autoranging display with this many counts: `first`, ten times `first`, … up to `last`. */
export function decadeRanges(first: number, last: number, percent: number, counts: number, displayCounts: number): MeterRange[] {
  const ranges: MeterRange[] = [];
  for (let upTo = first; upTo <= last * 1.0001; upTo = Number((upTo * 10).toPrecision(12)))
    ranges.push({ upTo, percent, counts, resolution: upTo / displayCounts });
  return ranges;
}
