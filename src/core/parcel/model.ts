import type { MeterRange } from '../meter';

export type LooseKind = 'R' | 'C' | 'L' | 'D' | 'LED' | 'Q';
export type LooseQuantity = 'resistance' | 'capacitance' | 'inductance' | 'vf' | 'hfe';

/** One piece from the bag: what the meter showed, and what is printed on it. */
export interface LoosePiece {
  readonly id: string;
  readonly kind: LooseKind;
  readonly quantity: LooseQuantity;
  /** Null when over range. */
  readonly value: number | null;
  readonly polarity: string | null;
  /** Colours of the bands in either direction, or the text; null when nothing can be read. */
  readonly marking: string | readonly string[] | null;
}

/** One line that the pieces may belong to. Limits in percent. */
export interface ParcelLine {
  /** From 1, in the order of the list. */
  readonly number: number;
  readonly kind: LooseKind;
  /** SI value; null for types. */
  readonly value: number | null;
  /** Type number or colour; null for values. */
  readonly type: string | null;
  readonly tolerance: readonly [number, number] | null;
  readonly quantity: number;
  /** What a type reads like (forward volts or hFE) where the line itself says so. */
  readonly limits?: readonly [number, number] | undefined;
  readonly polarity?: 'NPN' | 'PNP' | undefined;
}

export interface ParcelMeter {
  readonly leadResistance: number;
  readonly accuracy: Readonly<Partial<Record<LooseQuantity, readonly MeterRange[]>>>;
}

export interface Lot {
  readonly line: number;
  /** Percent, as listed. */
  readonly claimed: number;
  /** Percent class that the pieces really keep. */
  readonly actual: number;
}

export interface Sorted {
  /** Line of every piece; null for a stranger. */
  readonly assignment: Readonly<Record<string, number | null>>;
  readonly missing: Readonly<Record<string, number>>;
  readonly surplus: Readonly<Record<string, number>>;
  readonly strangers: readonly string[];
  readonly lots: readonly Lot[];
  readonly dead: readonly string[];
}

/** A place that is not beyond doubt: how probable it is, and where the piece would go instead (null: to the strangers). */
export interface Sureness {
  readonly piece: string;
  readonly probability: number;
  readonly instead: number | null;
}
