import { type ChannelUnit, readRecording, type Recording } from './recording';
import { envelope, shortened } from './reduce';
import { levelsOf, type WaveformFigures, waveformOf } from './waveform';

/** What is told of a recording, however long it is. */
export interface Recorded {
  readonly channels: readonly string[];
  readonly unit: ChannelUnit;
  readonly samples: number;
  readonly leftOut: number;
  readonly figures: WaveformFigures;
  /** The curve as a screen can show it: of each stretch its least and its most. */
  readonly curve: Recording;
}

/** Points of a curve on a screen. */
const DRAWN = 4000;
/** Reading the rows takes about so much of the time. */
const READING = 0.7;

/**
 * One channel of a recording, its figures and its curve.
 * @throws Error that names the line and what is wrong
 */
export function recorded(csv: string, channel: number, progress: (done: number) => void = () => undefined): Recorded {
  const { channels, unit, leftOut, t, v } = readRecording(csv, channel, (done) => {
    progress(READING * done);
  });
  progress(READING);
  const whole = { t, v };
  const short = shortened(whole);
  // What rests or drifts has the average of all of it, not of a part.
  const figures = { ...waveformOf(short), ...(short === whole ? {} : levelsOf(whole)) };
  return { channels, unit, leftOut, samples: t.length, figures, curve: envelope(whole, DRAWN) };
}
