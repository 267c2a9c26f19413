import type { Circuit } from '../circuit';
import type { Line } from '../kit';
import { meterById, type MeterProfile } from '../meter';

/** A supply that the builder has: its ends, and what it is. `volts` of a winding is the RMS value printed on the transformer. */
export interface Feed {
  readonly net: string;
  readonly back: string;
  readonly kind: 'dc' | 'usb' | 'battery' | 'winding';
  readonly volts: number;
  /** Amperes that its current limit is set to. */
  readonly limit?: number | undefined;
}

/** A switch or sensor: ohms in each of its states, the usual one first. */
export interface Condition {
  readonly ref: string;
  readonly text: string;
  readonly states: Readonly<Record<string, number>>;
}

export const METER_KINDS = ['pocket', 'handheld', 'bench', 'unknown'] as const;
export type MeterKind = (typeof METER_KINDS)[number];

/** What a ladder is proposed from: what is on the board, what feeds it, what reads it. */
export interface Bench {
  readonly lines: readonly Line[];
  readonly circuit: Circuit;
  readonly deck: string;
  readonly feeds: readonly Feed[];
  /** Nets that can be reached with a probe; null: all. */
  readonly probes: readonly string[] | null;
  readonly meter: MeterKind;
  /** Modes that the meter has; null where nobody knows the meter. */
  readonly modes: readonly string[] | null;
  readonly conditions: readonly Condition[];
  /** Chips that sit in sockets. */
  readonly sockets: readonly string[];
}

/** A meter as a board's owner may hold it: what its class has, and a test voltage and current of its own on ohms. */
export interface RealMeter {
  readonly profile: MeterProfile;
  /** Volts at full scale of an ohms range, and open. */
  readonly fullScale: number;
  readonly open: number;
  /** Top of each ohms range, ohms, ascending. */
  readonly ranges: readonly number[];
  /** Volts beyond which its diode test shows over-range: its compliance, or the end of its range. */
  readonly diodeLimit: number;
  /** Its load on DC volts as a share of what its class has. */
  readonly load: number;
}

const CLASSES: Readonly<
  Record<Exclude<MeterKind, 'unknown'>, { readonly id: string; readonly first: number; readonly tops: readonly number[]; readonly diode: number }>
> = {
  pocket: { id: 'pocket', first: 200, tops: [2e6, 2e7], diode: 2 },
  handheld: { id: 'handheld', first: 400, tops: [4e7], diode: 2.4 },
  bench: { id: 'bench', first: 200, tops: [2e7, 1e8], diode: 3 },
};

/** One meter of the kind that the builder has; with an unknown one any of the three (ranges: common practice, no source). */
export function realMeter(kind: MeterKind, u: (name: string) => number): RealMeter {
  const known = kind === 'unknown' ? (['pocket', 'handheld', 'bench'] as const)[Math.min(2, Math.floor(u('meter') * 3))]! : kind;
  const { id, first, tops, diode } = CLASSES[known];
  const top = tops[Math.min(tops.length - 1, Math.floor(u('top') * tops.length))]!;
  const ranges: number[] = [];
  for (let r = first; r <= top * 1.01; r *= 10) ranges.push(r);
  const fullScale = 0.12 * (1.2 / 0.12) ** u('fullScale');
  return { profile: meterById(id), fullScale, open: Math.max(0.3, fullScale * (1.05 + 1.5 * u('open'))), ranges, diodeLimit: diode, load: u('load') };
}

/** Meter kinds that a window must hold for. */
export const classesOf = (kind: MeterKind): MeterProfile[] => (kind === 'unknown' ? ['pocket', 'handheld', 'bench'] : [kind]).map(meterById);
