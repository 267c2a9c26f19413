import type { MeterMode } from '../vocabulary';
import type { Shown } from './scpi';

interface Heard {
  readonly at: number;
  readonly value: Shown;
}

/** What a stream of readings has shown since the probes were put to a point. */
export interface Hold {
  readonly recent: readonly Heard[];
  /** The reading that was taken last, until the probes were lifted from it. */
  readonly taken: Shown | null;
}

export const EMPTY_HOLD: Hold = { recent: [], taken: null };

/** Held still for so long, with so many readings, milliseconds (own choice: long enough to settle, short enough for a tired arm). */
export const STEADY_MS = 1000;
const FEWEST = 4;
/** Still means within so many steps of the display, or this share of the reading. */
const STEPS = 3;
const SHARE = 3e-3;
/** Lifted means this many times farther away than still. */
const LIFTED = 5;

/** Readings that probes show which touch nothing: these are never taken by themselves. */
const APART: Readonly<Partial<Record<MeterMode, number>>> = { dcv: 0.02, acv: 0.02, vmin: 0.02, vmax: 0.02, capacitance: 2e-11, frequency: 0 };

/** Whether the probes touch something, as far as a reading tells: over-range and next to nothing do not. */
export const touches = (mode: MeterMode, value: Shown): boolean => value !== 'over' && Math.abs(value) > (APART[mode] ?? -1);

export interface HoldAnswer {
  readonly hold: Hold;
  /** The reading to take now; null while there is none. */
  readonly take: number | null;
  /** How far the second of stillness has gone, 0..1. */
  readonly steady: number;
}

/**
 * One more reading of the stream. A reading is taken once the probes have been still on it for a second; the next one not before
 * they were lifted. `step`: one count of the display in this range.
 */
export function hear(hold: Hold, at: number, value: Shown, mode: MeterMode, step: number): HoldAnswer {
  const still = (a: Shown, b: Shown) => typeof a === 'number' && typeof b === 'number' && Math.abs(a - b) <= tolerance(b, step);
  const far = (a: Shown, b: Shown) => a === 'over' || b === 'over' || Math.abs(a - b) > LIFTED * tolerance(b, step);
  const taken = hold.taken !== null && far(value, hold.taken) ? null : hold.taken;
  const breaks = hold.recent.findLastIndex((r) => !still(r.value, value));
  const recent = [...hold.recent.slice(breaks + 1), { at, value }];
  const since = recent[0]!.at;
  if (taken !== null || !touches(mode, value)) return { hold: { recent: taken === null ? [] : recent, taken }, take: null, steady: 0 };
  const steady = Math.min(1, (at - since) / STEADY_MS);
  if (steady < 1 || recent.length < FEWEST || typeof value !== 'number') return { hold: { recent, taken }, take: null, steady };
  return { hold: { recent: [], taken: value }, take: value, steady: 1 };
}

const tolerance = (value: Shown, step: number): number => Math.max(STEPS * step, SHARE * (typeof value === 'number' ? Math.abs(value) : 0));
