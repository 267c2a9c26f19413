import type { Pattern } from '../solve/pattern';

/** Positions of the four entries of a conductance between two unknowns: aa, ab, ba, bb. */
export function pairSlots(pattern: Pattern, a: number, b: number): [number, number, number, number] {
  return [pattern.slot(a, a), pattern.slot(a, b), pattern.slot(b, a), pattern.slot(b, b)];
}

/** Positions of the full block among some unknowns, row by row. */
export function blockSlots(pattern: Pattern, unknowns: readonly number[]): number[] {
  return unknowns.flatMap((row) => unknowns.map((column) => pattern.slot(row, column)));
}
