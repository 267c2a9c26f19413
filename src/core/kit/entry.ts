import { type Fault } from '../fault/fault';
import { type LooseKind } from '../parcel';
import { type Ref } from './sheet';

/** A change of the board itself. */
export type Modification =
  | {
      readonly what: 'part-added';
      readonly name: string;
      readonly kind: 'R' | 'C' | 'L' | 'D';
      readonly value: number | null;
      readonly nets: readonly [string, string];
    }
  | { readonly what: 'track-cut'; readonly ref: Ref; readonly pin: string }
  | { readonly what: 'value-replaced'; readonly ref: Ref; readonly value: number }
  | { readonly what: 'link'; readonly nets: readonly [string, string] }
  | { readonly what: 'strap'; readonly option: string; readonly choice: string };

/** What a meter showed. */
export type ReadingValue = number | 'over';

/** A piece of the loose pile: what is printed on it and what the meter showed, in any order of the bag. */
export interface LooseEntryBody {
  readonly kind: 'loose';
  readonly part: LooseKind;
  /** Null when it was only looked at. */
  readonly reading: ReadingValue | null;
  readonly marking: string | readonly string[] | null;
  readonly polarity: 'NPN' | 'PNP' | null;
  readonly meter: string;
}

/** The short test of the meter itself: probes together, apart, and a known part. Ohms. */
export interface MeterCheckBody {
  readonly kind: 'meter-checked';
  readonly meter: string;
  readonly together: ReadingValue;
  readonly apart: ReadingValue;
  readonly known: { readonly nominal: number; readonly percent: number; readonly reading: ReadingValue } | null;
}

/** One part read with two instruments, or with one whose truth is known. SI. */
export interface ComparedBody {
  readonly kind: 'compared';
  readonly mode: 'ohms' | 'capacitance' | 'inductance' | 'diode' | 'hfe' | 'dcv';
  readonly instrument: string;
  readonly reading: number;
  /** Another meter's reading, or a part of known value. */
  readonly against: { readonly meter: string; readonly reading: number } | { readonly value: number; readonly percent: number };
}

/** Something from one's own drawer, held against a need. SI. */
export interface Owned {
  readonly volts?: number | undefined;
  readonly amperes?: number | undefined;
  readonly ohms?: number | undefined;
  readonly watts?: number | undefined;
  readonly polarity?: 'centre-plus' | 'centre-minus' | undefined;
  readonly plug?: string | undefined;
}

/** What an entry says. Readings are SI; `meter` is the id of the profile they were taken with. */
export type EntryBody =
  | { readonly kind: 'counted'; readonly line: string; readonly quantity: number }
  | {
      readonly kind: 'measured';
      readonly line: string;
      readonly piece: number;
      readonly ref?: Ref | undefined;
      readonly mode: 'ohms' | 'capacitance' | 'inductance' | 'diode' | 'hfe';
      readonly reading: ReadingValue;
      readonly meter: string;
    }
  | { readonly kind: 'marked'; readonly line: string; readonly piece: number; readonly text: string }
  | LooseEntryBody
  | { readonly kind: 'sorted'; readonly pieces: readonly { readonly loose: string; readonly line: string | null }[] }
  | MeterCheckBody
  | ComparedBody
  | { readonly kind: 'owned'; readonly need: string; readonly owned: Owned }
  | { readonly kind: 'skipped'; readonly target: string; readonly reason?: string | undefined }
  | { readonly kind: 'fitted'; readonly refs: readonly Ref[] }
  | { readonly kind: 'removed'; readonly refs: readonly Ref[] }
  | { readonly kind: 'set'; readonly ref: Ref; readonly value: number }
  | { readonly kind: 'read'; readonly stage: string; readonly check: string; readonly reading: ReadingValue; readonly meter: string }
  | { readonly kind: 'probed'; readonly stage: string; readonly testPoint: string; readonly reading: ReadingValue; readonly meter: string }
  | {
      readonly kind: 'observed';
      readonly stage: string;
      readonly check: string;
      readonly channel?: string | undefined;
      readonly asExpected: boolean;
      readonly note?: string | undefined;
    }
  | { readonly kind: 'found'; readonly fault: Fault; readonly probability: number }
  | { readonly kind: 'repaired'; readonly refs: readonly Ref[]; readonly note: string }
  | { readonly kind: 'modified'; readonly change: Modification }
  | { readonly kind: 'noted'; readonly text: string }
  | { readonly kind: 'waiting'; readonly reason: string; readonly until?: string | undefined }
  | { readonly kind: 'resumed'; readonly waited: string }
  | { readonly kind: 'withdrawn'; readonly entry: string };

/** One line of the log. Never changed once written; `withdrawn` takes an earlier one back. */
export type Entry = EntryBody & {
  readonly id: string;
  /** ISO 8601 instant, given by the caller. */
  readonly at: string;
};

export type EntryKind = EntryBody['kind'];
export type EntryOf<K extends EntryKind> = Extract<Entry, { kind: K }>;
