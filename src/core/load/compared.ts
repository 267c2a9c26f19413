import { print, type Unit } from '../quantity';
import type { Recording } from './recording';
import { type WaveformFigures, waveformOf } from './waveform';

/**
 * What a recording was taken with: an oscilloscope on DC, one on AC or a sound card (no steady part), or a meter that shows the
 * average a few times a second.
 */
export type Instrument = 'dc' | 'ac' | 'meter';

/** A meter shows three readings a second: what is faster it shows by its average (common practice, no source). */
const SHOWN_PER_SECOND = 3;
/** Two readings a period are needed to see that something moves (sampling theorem). */
const SEEN_BELOW = SHOWN_PER_SECOND / 2;

/** A course as an instrument would show it. */
export function asSeenBy(instrument: Instrument, course: Recording): Recording {
  if (instrument === 'dc') return course;
  const { average, frequency } = waveformOf(course);
  if (instrument === 'ac') return { t: course.t, v: course.v.map((v) => v - average) };
  return frequency !== null && frequency > SEEN_BELOW ? { t: course.t, v: course.v.map(() => average) } : course;
}

/** What an instrument cannot show of a course, in words; null where it shows all of it. */
export function notSeen(instrument: Instrument, figures: WaveformFigures): string | null {
  const { frequency, average } = figures;
  if (instrument === 'ac') return `Without its steady part: ${print(average, 'V', 3)} are taken away. The level against ground cannot be told from it.`;
  if (instrument === 'meter' && frequency !== null && frequency > SEEN_BELOW)
    return `${print(frequency, 'Hz', 3)} are too fast for a meter: it shows a steady average, ${print(average, 'V', 3)}.`;
  return null;
}

/** A course moved in time so that its first rise through the half level falls on that of the recording. */
export function movedOnto(recording: Recording, course: Recording): Recording {
  const [there, here] = [firstRise(recording), firstRise(course)];
  if (there === null || here === null) return course;
  return { t: course.t.map((t) => t - here + there), v: course.v };
}

function firstRise({ t, v }: Recording): number | null {
  const [low, high] = [Math.min(...v), Math.max(...v)];
  const half = (low + high) / 2;
  const hysteresis = (high - low) / 4;
  let below = false;
  for (let i = 1; i < v.length; i++) {
    if (v[i]! < half - hysteresis) below = true;
    if (below && v[i - 1]! < half && v[i]! >= half) return t[i - 1]! + ((half - v[i - 1]!) / (v[i]! - v[i - 1]!)) * (t[i]! - t[i - 1]!);
  }
  return null;
}

/** One figure of a waveform, recorded and predicted. */
export interface ComparedFigure {
  readonly name: string;
  readonly recorded: string;
  readonly predicted: string;
  /** Part by which the recorded one is off; null where one of them is nothing. */
  readonly off: number | null;
}

/** Figures side by side; where the instrument shows no steady part, average and RMS say nothing and are left out. */
export function compareFigures(recorded: WaveformFigures, predicted: WaveformFigures, instrument: Instrument): ComparedFigure[] {
  const figure = (name: string, of: (w: WaveformFigures) => number | null, unit: Unit | null, scale = 1): ComparedFigure => {
    const [r, p] = [of(recorded), of(predicted)];
    const words = (x: number | null) => (x === null ? 'none found' : unit === null ? `${(scale * x).toFixed(1)} %` : print(x, unit, 3));
    return { name, recorded: words(r), predicted: words(p), off: r === null || p === null || Math.abs(p) < 1e-9 ? null : r / p - 1 };
  };
  return [
    figure('Frequency', (w) => w.frequency, 'Hz'),
    figure('Duty', (w) => w.duty, null, 100),
    ...(instrument === 'ac' ? [] : [figure('Average', (w) => w.average, 'V'), figure('RMS', (w) => w.rms, 'V')]),
    figure('Amplitude', (w) => w.amplitude, 'V'),
  ];
}

/** Two moments and levels read at the cursors of a screen, one period apart. */
export interface Cursors {
  readonly from: { readonly t: number; readonly v: number };
  readonly to: { readonly t: number; readonly v: number };
}

/** Frequency and swing from two cursors a whole period and the whole swing apart. @throws Error where they stand at one moment */
export function ofCursors({ from, to }: Cursors): { frequency: number; swing: number } {
  const period = Math.abs(to.t - from.t);
  if (period === 0) throw new Error('Both cursors are at the same moment: set them one period apart.');
  return { frequency: 1 / period, swing: Math.abs(to.v - from.v) };
}
