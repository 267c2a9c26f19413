import type { EntryBody, Ref } from '../kit';

/** One thing that is not as it should be before a stage is powered. */
export interface OpenPoint {
  readonly kind: 'bad-piece' | 'other-place' | 'empty' | 'hardware' | 'left-out' | 'temporary' | 'socket' | 'look' | 'control';
  readonly refs: readonly Ref[];
  /** What is the matter, in few words: it stands in the probe bar and in the logbook too. */
  readonly text: string;
  /** What it may do, and what to do about it. */
  readonly advice: string;
  /** What is written when it was seen to; null where it is done elsewhere. */
  readonly done: { readonly label: string; readonly entries: readonly EntryBody[] } | null;
}
