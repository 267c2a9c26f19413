import type { Verdict } from '@/core/verdict';

/** What the drawing shows and does beside the volts, at the bench. */
export interface LiveSchematic {
  /** By net, in small letters: the window of its check, how its reading was judged, and what pressing it does. */
  readonly nets: ReadonlyMap<string, LiveNet>;
  /** Parts that are not on the board at this stage. */
  readonly absent: ReadonlySet<string>;
  /** Parts under suspicion. */
  readonly suspected: ReadonlySet<string>;
  /** Where the probes belong now. */
  readonly red: string | null;
  readonly black: string | null;
  /** What pressing a part does; null where nothing. */
  readonly pressPart: ((ref: string) => void) | null;
}
export interface LiveNet {
  readonly title: string;
  readonly window: string | null;
  readonly verdict: Verdict;
  readonly press: () => void;
}

export const NOT_LIVE: LiveSchematic = { nets: new Map(), absent: new Set(), suspected: new Set(), red: null, black: null, pressPart: null };
