/** Where parts and pads stand: millimetres, y up, in the origin of their file. */
export type Side = 'top' | 'bottom';

export interface PlacedPart {
  readonly ref: string;
  readonly x: number;
  readonly y: number;
  /** Degrees, counter-clockwise, 0 ≤ r < 360; null where the file does not say. */
  readonly rotation: number | null;
  readonly side: Side;
}

export interface PlacedPad {
  readonly ref: string;
  /** Name of the pin; empty where the file has none. */
  readonly pin: string;
  /** Null: connected to nothing. */
  readonly net: string | null;
  readonly x: number;
  readonly y: number;
  readonly side: Side | 'both';
}

export type PlaceCode = 'unit-guessed' | 'bad-row' | 'duplicate-ref' | 'unknown-ref' | 'missing-ref' | 'mirrored' | 'no-end';

export interface PlaceRemark {
  readonly code: PlaceCode;
  readonly text: string;
  /** Line of the file, from 1. */
  readonly line?: number;
}

export interface Placed {
  readonly format: 'centroid' | 'ipc-d-356';
  readonly parts: readonly PlacedPart[];
  /** Only where the file has pads. */
  readonly pads?: readonly PlacedPad[];
  readonly findings: readonly PlaceRemark[];
}

/** Brought to 0 ≤ r < 360. */
export const turned = (degrees: number): number => {
  const r = degrees % 360;
  return r < 0 ? r + 360 : r + 0;
};
