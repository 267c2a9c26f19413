import { type Entry, type EntryBody } from './entry';
import { type MeterProfile } from '../meter';
import { type Sheet } from './sheet';

export const KIT_FORMAT = 'zesty-bench-kit';
export const KIT_VERSION = 3;

/** One project on the bench: what should be, and everything that happened. Immutable. */
export interface KitDocument {
  readonly format: typeof KIT_FORMAT;
  readonly version: typeof KIT_VERSION;
  readonly id: string;
  readonly created: string;
  readonly sheet: Sheet;
  readonly log: readonly Entry[];
  readonly settings: KitSettings;
}

export interface KitSettings {
  /** Id of the meter profile in use. */
  readonly meter: string;
  readonly school: 'simple' | 'guarded';
  /** Which pieces are worth measuring. */
  readonly measure: MeasuringSchool;
  /** One's own meters, beside the typical ones. */
  readonly meters: readonly MeterProfile[];
  /** Seed of the simulated board that the stand-in meter measures; null without one. */
  readonly standIn: StandIn | null;
}

/** What matters most first, everything in list order, only what cannot be read, or one of each packet. */
export type MeasuringSchool = 'matters' | 'all' | 'unreadable' | 'one-per-packet';

/** The hidden truth behind the simulated meter of a practice kit. */
export interface StandIn {
  readonly seed: number;
  /** Fault on the simulated board, base64 of its JSON so that a glance at the file gives nothing away. */
  readonly fault: string;
  /** Pieces in the simulated bag that differ from their line: line id → value. */
  readonly pieces: Readonly<Record<string, readonly number[]>>;
}

/** Who and when ride beside the change, given by the caller: the core has no clock. */
export interface Stamp {
  readonly id: string;
  readonly at: string;
}

export function newKit(sheet: Sheet, stamp: Stamp, settings: Partial<KitSettings> = {}): KitDocument {
  return {
    format: KIT_FORMAT,
    version: KIT_VERSION,
    id: stamp.id,
    created: stamp.at,
    sheet,
    log: [],
    settings: { meter: 'handheld', school: 'simple', measure: 'matters', meters: [], standIn: null, ...settings },
  };
}

/** The document with one entry more. */
export function append(doc: KitDocument, body: EntryBody, stamp: Stamp): KitDocument {
  return { ...doc, log: [...doc.log, { ...body, ...stamp }] };
}

/** The document with a changed sheet; its revision grows. */
export function withSheet(doc: KitDocument, change: Partial<Omit<Sheet, 'revision'>>): KitDocument {
  return { ...doc, sheet: { ...doc.sheet, ...change, revision: doc.sheet.revision + 1 } };
}

/** Entries that count: neither withdrawn nor withdrawals. A withdrawal that was itself withdrawn does nothing. */
export function standing(log: readonly Entry[]): Entry[] {
  const gone = new Set<string>();
  for (let i = log.length - 1; i >= 0; i--) {
    const entry = log[i]!;
    if (entry.kind === 'withdrawn' && !gone.has(entry.id)) gone.add(entry.entry);
  }
  return log.filter((e) => e.kind !== 'withdrawn' && !gone.has(e.id));
}

/** The entry that "undo" takes back: the last one that still counts. */
export function lastStanding(log: readonly Entry[]): Entry | null {
  const all = standing(log);
  return all[all.length - 1] ?? null;
}
