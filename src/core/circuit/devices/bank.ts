import { type Pattern } from '../solve/pattern';

/**
 * All devices of one kind in one circuit, their parameters in typed arrays so that Newton allocates nothing.
 * Unknowns are indices into `x`; the index `ground` holds 0 V.
 */
export interface DeviceBank {
  /** Forgets the last operating point; the next load starts at a voltage where the device conducts a little. */
  coldStart: () => void;
  /** Takes the present solution as the last operating point. */
  warmStart: (x: Float64Array) => void;
  /**
   * Adds currents to the residual `f` and conductances to the matrix `a`; true when a voltage had to be limited.
   * `bold`: junctions may come down in one step from milliamperes to nothing (`limitJunction`).
   */
  load: (x: Float64Array, a: Float64Array, f: Float64Array, bold: boolean) => boolean;
}

/** Positions of the four entries of a conductance between two unknowns: aa, ab, ba, bb. */
export function pairSlots(pattern: Pattern, a: number, b: number): [number, number, number, number] {
  return [pattern.slot(a, a), pattern.slot(a, b), pattern.slot(b, a), pattern.slot(b, b)];
}

/** Positions of the full block among some unknowns, row by row. */
export function blockSlots(pattern: Pattern, unknowns: readonly number[]): number[] {
  return unknowns.flatMap((row) => unknowns.map((column) => pattern.slot(row, column)));
}
