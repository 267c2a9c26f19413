import type { LineKind } from '../../vocabulary';

/** What a line of a sheet can be: the kinds of part, and what a kit needs or ships besides. */
export type SheetKind = LineKind | 'supply';

/** Ratings as printed, in base units. */
export interface SheetRating {
  readonly V?: number;
  readonly W?: number;
  readonly A?: number;
}

/** One line with a part, as the sheet has it: nothing that is not on the paper. */
export interface SheetLine {
  readonly kind: SheetKind;
  /** Base unit; null for what is known by its type or has no value. */
  readonly value: number | null;
  readonly unit: 'ohm' | 'F' | 'H' | 'Hz' | 'V' | 'm' | null;
  /** Percent, low and high; null when none is printed. */
  readonly tolerance: readonly [number, number] | null;
  readonly rating: SheetRating | null;
  readonly type: string | null;
  readonly package: string | null;
  readonly color: string | null;
  readonly pins: number | null;
  readonly quantity: number;
  readonly refs: readonly string[];
  readonly supplied: boolean;
  readonly notFitted: boolean;
  readonly note: string | null;
  /** What the part is called, as printed, without count and positions. */
  readonly label: string;
  /** All that is printed about it. */
  readonly printed: string;
  /** Source lines, from 1; the first is where the part begins. */
  readonly sources: readonly number[];
  /** How sure the whole line is, 0 to 1. */
  readonly sure: number;
}

/** Why a source line holds no part. */
export type Ignored = 'no part' | 'title' | 'column heading' | 'section' | 'board' | 'footnote' | 'page' | 'sum' | 'advice' | 'rule';

/** What the paper does not settle. */
export type Doubt =
  | { readonly what: 'unreadable'; readonly text: string }
  | { readonly what: 'no-value'; readonly text: string }
  | { readonly what: 'smudge'; readonly text: string }
  | { readonly what: 'count'; readonly pieces: number; readonly positions: number }
  | { readonly what: 'repeated'; readonly ref: string; readonly before: number }
  | { readonly what: 'says-nothing'; readonly text: string }
  | { readonly what: 'contradiction'; readonly values: readonly [string, string] };

export interface Question {
  readonly source: number;
  readonly refs: readonly string[];
  readonly doubt: Doubt;
}

/** What the builder says against the reading of one entry. */
export type Correction = Partial<Pick<SheetLine, 'kind' | 'value' | 'unit' | 'refs' | 'quantity' | 'rating' | 'type' | 'color' | 'tolerance' | 'label'>> & {
  /** It is right as it was read; or there is no part in it. */
  readonly settled?: 'as-read' | 'no-part';
};

/** One part of the sheet, or one source line without a part, in the sheet's order. */
export interface Entry {
  /** Source line and place in it: `12`, `12.1`. */
  readonly key: string;
  readonly sources: readonly number[];
  readonly source: string;
  readonly is: { readonly line: SheetLine } | { readonly ignored: Ignored } | { readonly nothing: true };
  readonly doubts: readonly Doubt[];
  readonly corrected: boolean;
}

/** A whole sheet: every source line that is not empty ends in one of the three lists. */
export interface SheetReading {
  readonly title: string | null;
  readonly lines: readonly SheetLine[];
  readonly ignored: readonly { readonly source: number; readonly why: Ignored; readonly text: string }[];
  readonly questions: readonly Question[];
}
