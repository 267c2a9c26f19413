import { fallsThroughZeroAt, leastAt } from './search';

export interface Lamp {
  readonly volts: number;
  readonly watts: number;
  /** Resistance cold to hot, 0..1. */
  readonly coldRatio?: number;
}

export type LampLoad = { readonly kind: 'ohms'; readonly ohms: number } | { readonly kind: 'short' } | { readonly kind: 'watts'; readonly watts: number };

export interface LampState {
  readonly amps: number;
  readonly lampVolts: number;
  readonly loadVolts: number;
  readonly glow: 'dark' | 'dim' | 'half' | 'full';
}

/** Cold filament to hot (common practice, no source). */
const COLD_RATIO = 0.1;
/** Lamp current goes with V^0.55 (re-rating formula, common practice), so resistance with V^0.45. */
const EXPONENT = 0.45;

/**
 * A lamp in series with a source and a load.
 * @param source rms volts and series ohms
 * @returns null where a load of constant power gets more than the lamp can pass
 */
export function lampInSeries(lamp: Lamp, source: { readonly volts: number; readonly ohms: number }, load: LampLoad): LampState | null {
  const hot = lamp.volts ** 2 / lamp.watts;
  const coldest = (lamp.coldRatio ?? COLD_RATIO) * hot;
  const amps = (v: number) => v / Math.max(coldest, hot * (v / lamp.volts) ** EXPONENT);
  const left = (v: number) => source.volts - v - amps(v) * source.ohms;
  const state = (v: number): LampState => ({
    amps: amps(v),
    lampVolts: v,
    loadVolts: load.kind === 'short' ? 0 : Math.max(0, left(v)),
    glow: glowOf(v / lamp.volts),
  });
  if (load.kind !== 'watts') {
    const ohms = load.kind === 'short' ? 0 : load.ohms;
    return state(fallsThroughZeroAt((v) => left(v) - amps(v) * ohms, 0, source.volts));
  }
  // Of two solutions the board runs at the one that leaves it more volts: the lower lamp voltage, before the greatest power.
  const power = (v: number) => left(v) * amps(v);
  const best = leastAt((v) => -power(v), 0, source.volts);
  return power(best) < load.watts ? null : state(fallsThroughZeroAt((v) => load.watts - power(v), 0, best));
}

/** Part of its rated voltage that the lamp sees (own steps). */
function glowOf(part: number): LampState['glow'] {
  if (part < 0.1) return 'dark';
  if (part < 0.4) return 'dim';
  return part < 0.8 ? 'half' : 'full';
}
