import { namePatterns, type Pattern, type Sorted, sortParcel, type Sureness, sureness } from '../parcel';
import type { Pile } from './pile';

/** Where everything of the pile goes, how sure that is, and what happened to the bag. */
export interface SortedPile {
  readonly sorted: Sorted;
  readonly doubts: readonly Sureness[];
  readonly patterns: readonly Pattern[];
}

export function sortPile({ pieces, lines, meter }: Pile): SortedPile {
  const sorted = sortParcel(pieces, lines, meter);
  return { sorted, doubts: sureness(pieces, lines, meter, sorted), patterns: namePatterns(pieces, lines, sorted) };
}
