import type { MeterProfile } from '../meter';
import type { BoardState } from './board';
import type { Rooms } from './rooms';
import type { ChangedBody, Entry, EntryOf, UnknownEntry } from './schema/entries';
import type { RoomName } from './schema/names';
import type { KitSettings, Ref, Sheet } from './sheet';

/** The circumstances of a reading: the board that it met, the meter that took it, its place in the log. */
export interface Met {
  readonly board: BoardState;
  readonly meter: MeterProfile;
  readonly at: number;
}

/** A reading on the board, with its circumstances. */
export interface Taken<E extends Entry = EntryOf<'read' | 'probed' | 'observed'>> {
  readonly entry: E;
  readonly met: Met;
}

/** One measured piece of a line: the last reading that stands. */
export interface MeasuredPiece {
  readonly entry: EntryOf<'measured'>;
  readonly meter: MeterProfile;
  readonly at: number;
}

/** What was counted, measured and read of one line. */
export interface Tally {
  /** Pieces there are; null before anybody counted. */
  readonly total: number | null;
  /** Pieces that came out of the loose pile since the last count, in their order. */
  readonly fromPile: readonly string[];
  readonly pieces: ReadonlyMap<number, MeasuredPiece>;
  /** Further figures by piece and figure. */
  readonly figures: ReadonlyMap<number, ReadonlyMap<string, EntryOf<'figured'>>>;
  /** The last marking read on each piece. */
  readonly markings: ReadonlyMap<number, string>;
  /** Loose pieces by the number that they have among the line's pieces. */
  readonly loose: ReadonlyMap<string, number>;
}

export interface LoosePiece {
  readonly entry: EntryOf<'loose'>;
  readonly meter: MeterProfile;
  /** Line it was sorted to, null for a stranger; undefined while it lies in the pile. */
  readonly line: string | null | undefined;
}

/** One record changed in two places at once. */
export interface Conflict {
  readonly room: RoomName;
  readonly record: string;
  /** The changes that did not know of each other, oldest first. */
  readonly entries: readonly string[];
}

/** A look, and its place in the log. */
export interface Inspected {
  readonly entry: EntryOf<'inspected'>;
  readonly at: number;
}

export interface Gate {
  readonly entry: EntryOf<'gated'>;
  readonly at: number;
}

/** What was seen at the last try of a function. */
export interface Tried {
  readonly entry: EntryOf<'tried'>;
  readonly at: number;
}

export interface RuledOut {
  readonly entry: EntryOf<'ruled-out'>;
  readonly at: number;
}

export interface Prepared {
  readonly entry: EntryOf<'prepared'>;
  readonly at: number;
}

/** Two pads under the tester, and the board that they were on. */
export interface Traced {
  readonly entry: EntryOf<'traced'>;
  readonly board: BoardState;
  readonly at: number;
}

/** The last change of the board that makes what was read before it history. */
export interface BoardChange {
  readonly at: number;
  /** Stage that was worked on before it: its readings showed the fault and are void. */
  readonly stage: string | null;
}

/** Everything that follows from a log. Immutable; equal parts keep their identity from state to state. */
export interface KitState {
  readonly id: string;
  readonly created: string;
  /** All entries in order of (at, id), those of unknown kinds too. */
  readonly log: readonly (Entry | UnknownEntry)[];
  /** Ids of entries that were taken back. */
  readonly gone: ReadonlySet<string>;
  /** What withdrawals name: an entry that arrives later than its withdrawal is gone at once. */
  readonly targets: ReadonlySet<string>;
  readonly rooms: Rooms;
  readonly sheet: Sheet;
  readonly settings: KitSettings;
  readonly conflicts: readonly Conflict[];
  /** Last standing change of every record (`room/record`). */
  readonly changedBy: ReadonlyMap<string, string>;
  /** What the log as it was written, withdrawals aside, left in every record: for finding conflicts. */
  readonly written: ReadonlyMap<string, ChangedBody['after']>;
  readonly tallies: ReadonlyMap<string, Tally>;
  readonly skipped: ReadonlySet<string>;
  readonly loose: ReadonlyMap<string, LoosePiece>;
  /** Readings and observations by observable (`stage/check`, `stage/@test point`), oldest first. */
  readonly readings: ReadonlyMap<string, readonly Taken[]>;
  /** Stage of the last reading or observation. */
  readonly lastStage: string | null;
  readonly board: BoardState;
  /** Options as they were chosen first: what was always so. */
  readonly choices: ReadonlyMap<string, string>;
  readonly change: BoardChange | null;
  /** Ohms of the leads by meter, as its last check found them. */
  readonly leads: ReadonlyMap<string, number>;
  readonly owned: ReadonlyMap<string, readonly EntryOf<'owned'>[]>;
  readonly compared: readonly EntryOf<'compared'>[];
  readonly checkedMeters: ReadonlyMap<string, EntryOf<'meter-checked'>>;
  readonly repaired: ReadonlySet<Ref>;
  /** The last look at each thing that is looked at, with its place in the log. */
  readonly inspected: ReadonlyMap<string, Inspected>;
  /** The last try of each function, by its act. */
  readonly tried: ReadonlyMap<string, Tried>;
  /** What a known-good board read, by observable. */
  readonly reference: ReadonlyMap<string, EntryOf<'referenced'>>;
  readonly traced: readonly Traced[];
  /** The last word on going on behind each stage, or on doing it again. */
  readonly gates: ReadonlyMap<string, Gate>;
  /** The last time a stage was made ready. */
  readonly prepared: ReadonlyMap<string, Prepared>;
  /** Suspects that were ruled out by a look. */
  readonly ruledOut: readonly RuledOut[];
  /** What the board as a whole was seen to do, or not to do. */
  readonly symptoms: ReadonlyMap<string, boolean>;
  /** What was found on doubtful parts, by line and sign. */
  readonly examined: ReadonlyMap<string, ReadonlyMap<string, EntryOf<'examined'>>>;
  /** When the kit was called finished last. */
  readonly finished: { readonly entry: EntryOf<'finished'>; readonly at: number } | null;
  readonly waiting: readonly EntryOf<'waiting'>[];
}
