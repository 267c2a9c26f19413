import { type MeterProfile, uncertaintyOf } from '../meter';
import type { Place, Shown } from './read';

/** Where healthy boards read, as a check keeps it: null is open to that side, and above it over-range passes too. */
export interface Window {
  readonly low: number | null;
  readonly high: number | null;
}

/** Windows go beyond the outermost made-up board by this share of what the boards span; ohms and diode tests, whose ways lie inside chips, further. */
const BEYOND = 0.18;
const MOVING_BEYOND = 0.36;
/** Amperes from which on an LED or relay is seen to work, with doubt on either side (common practice, no source). */
const LIT = 3e-4;
const SURELY_LIT = 5e-4;
const SURELY_DARK = 5e-5;
const OHMS_BEYOND = 1.2;
const THROUGH_CHIP = 5;
const DIODE_BEYOND = 0.04;
/** Ohms that differ by more between boards have a lower end only. */
const MOST_RATIO = 12;

/** What a window has to allow for beside the spread of the boards: paths through a chip on the net, a current in pulses. */
export interface Surroundings {
  readonly chip: boolean;
  /** A chip drives its supply current in pulses. */
  readonly pulsed: boolean;
  /** Volts that a chip which only a deck describes may be off by. */
  readonly unsure: number;
  /** Few boards were run in time. */
  readonly moving: boolean;
}

/**
 * The window of one place from what healthy boards show there; null where it would tell nothing: boards that differ too much, or
 * too few that could be solved.
 */
export function windowOf(
  place: Place,
  shown: readonly Shown[],
  meters: readonly MeterProfile[],
  { chip, pulsed, unsure, moving }: Surroundings,
): Window | null {
  const known = shown.filter((s) => s !== null);
  if (known.length < 0.8 * shown.length || known.length === 0) return null;
  const numbers = known.filter((s) => s !== 'over');
  const over = numbers.length < known.length;
  if (numbers.length === 0) return place.mode === 'ohms' || place.mode === 'diode' ? overOnly(place, meters) : null;
  const [least, most] = [Math.min(...numbers), Math.max(...numbers)];
  const error = (value: number) => Math.max(0, ...meters.map((m) => uncertaintyOf(m, place.mode === 'sign' ? 'dca' : place.mode, value)?.halfWidth ?? 0));
  switch (place.mode) {
    case 'ohms': {
      // What is left of megohms is leakage, which no two parts share.
      const by = chip || (least > LEAKAGE && (over || most > 3 * least)) ? THROUGH_CHIP : OHMS_BEYOND;
      const low = least / by - error(least);
      const open = over || chip || most / Math.max(least, 1e-3) > MOST_RATIO;
      return low <= LEAST_OHMS && open ? null : { low: Math.max(0, low), high: open ? null : most * by + error(most) + LEADS };
    }
    case 'diode': {
      const open = over || chip;
      // Whatever junction there is inside a chip, it takes half a volt.
      const low = (chip ? Math.min(least - 0.1, 0.42) : least - DIODE_BEYOND) - error(least);
      return low <= 0.02 && open ? null : { low: Math.max(0, low), high: open ? null : most + DIODE_BEYOND + error(most) };
    }
    case 'sign':
      // Lit or dark on every board, or nobody is asked.
      return least >= SURELY_LIT ? { low: LIT, high: null } : most <= SURELY_DARK ? { low: null, high: LIT } : null;
    default: {
      // Near nothing what is left over a closed switch differs by more than any share of it.
      const pad = Math.max((moving ? MOVING_BEYOND : BEYOND) * (most - least), VOLTS.has(place.mode) ? LEAST_PAD + unsure : 0);
      // A current that comes in pulses is averaged by each display in its own way.
      const low = pulsed && place.mode === 'dca' ? PULSED * least : least - pad - error(least);
      return { low: place.mode === 'acv' ? Math.max(0, low) : low, high: most + pad + error(most) };
    }
  }
}
const VOLTS: ReadonlySet<Place['mode']> = new Set<Place['mode']>(['dcv', 'vmin', 'vmax']);
const LEAST_PAD = 0.03;
const PULSED = 0.33;
/** Below this a lower end tells no short from a wire. */
const LEAST_OHMS = 2;
const LEADS = 0.6;
const LEAKAGE = 2e5;

/** Over-range on every board: anything well below the end of the smallest top range is out. */
const overOnly = (place: Place, meters: readonly MeterProfile[]): Window =>
  place.mode === 'diode' ? { low: 1.9, high: null } : { low: 0.5 * Math.min(...meters.map((m) => m.ranges.ohms?.at(-1)?.upTo ?? 2e6), 2e6), high: null };

/** Whether a display lies beyond a window by more than the meter's doubt. */
export function isOut(place: Place, shown: Shown, window: Window, meters: readonly MeterProfile[]): boolean {
  if (shown === null) return false;
  if (shown === 'over') return window.high !== null;
  const error = Math.max(0, ...meters.map((m) => uncertaintyOf(m, place.mode === 'sign' ? 'dca' : place.mode, shown)?.halfWidth ?? 0));
  return (window.low !== null && shown < window.low - error) || (window.high !== null && shown > window.high + error);
}
