import {
  add,
  entries,
  f,
  inverse,
  lowerRow,
  lowerSlot,
  lowerStart,
  matrix,
  number,
  pivotColumn,
  pivotRow,
  pivotSlot,
  place,
  put,
  size,
  slots,
  steps,
  target,
  upperColumn,
  upperSlot,
  upperStart,
  values,
} from './memory';

/** A factorisation whose multipliers grow beyond this has lost its order: pivots must be searched again. */
const MULTIPLIER_LIMIT: f64 = 1e9;
const SMALLEST_PIVOT: f64 = 1e-200;

/** Repeats the eliminations of the order on the matrix at hand. False when the order does not suit it. */
export function factor(): bool {
  memory.copy(values, matrix, (<usize>entries) << 3);
  memory.fill(values + ((<usize>entries) << 3), 0, (<usize>(slots - entries)) << 3);
  let next = target;
  for (let k = 0; k < size; k++) {
    const pivot = number(values, place(pivotSlot, k));
    if (!(abs(pivot) > SMALLEST_PIVOT)) return false;
    const share = 1.0 / pivot;
    put(inverse, k, share);
    const u0 = place(upperStart, k);
    const u1 = place(upperStart, k + 1);
    for (let l = place(lowerStart, k), l1 = place(lowerStart, k + 1); l < l1; l++) {
      const slot = place(lowerSlot, l);
      const multiplier = number(values, slot) * share;
      put(values, slot, multiplier);
      if (multiplier == 0) {
        next += (<usize>(u1 - u0)) << 2;
        continue;
      }
      if (!(abs(multiplier) < MULTIPLIER_LIMIT) && outgrows(pivot, u0, u1)) return false;
      for (let u = u0; u < u1; u++) {
        add(values, load<i32>(next), -multiplier * number(values, place(upperSlot, u)));
        next += 4;
      }
    }
  }
  return true;
}

/** Whether a pivot that is small in its column is small in its row too: only then do the entries below it grow. */
function outgrows(pivot: f64, u0: i32, u1: i32): bool {
  const limit = MULTIPLIER_LIMIT * abs(pivot);
  for (let u = u0; u < u1; u++) if (!(abs(number(values, place(upperSlot, u))) < limit)) return true;
  return false;
}

/** Solves A b' = b in place. */
export function solve(b: usize): void {
  forward(b);
  backward(b, -1, -1);
}

/** Forward substitution of `b` into `steps`. */
function forward(b: usize): void {
  for (let k = 0; k < size; k++) {
    const value = number(b, place(pivotRow, k));
    put(steps, k, value);
    if (value == 0) continue;
    for (let l = place(lowerStart, k), l1 = place(lowerStart, k + 1); l < l1; l++) add(b, place(lowerRow, l), -number(values, place(lowerSlot, l)) * value);
  }
}

/** Back substitution of `steps` into `b`, until two unknowns are found (with −1 for both: until all are). */
function backward(b: usize, one: i32, other: i32): void {
  let missing = one == other ? 1 : 2;
  for (let k = size - 1; k >= 0 && missing > 0; k--) {
    let value = number(steps, k);
    for (let u = place(upperStart, k), u1 = place(upperStart, k + 1); u < u1; u++)
      value -= number(values, place(upperSlot, u)) * number(b, place(upperColumn, u));
    const column = place(pivotColumn, k);
    put(b, column, value * number(inverse, k));
    if (column == one || column == other) missing--;
  }
}

/** Resistance that a probe pair sees in the linearised circuit, ohms (Thevenin): volts between the points for 1 A driven through them. */
export function resistance(red: i32, black: i32): f64 {
  memory.fill(f, 0, (<usize>(size + 1)) << 3);
  add(f, red, 1);
  add(f, black, -1);
  put(f, size, 0);
  // Ground is no unknown: the other point alone is asked for.
  forward(f);
  backward(f, red == size ? black : red, black == size ? red : black);
  return (red == size ? 0 : number(f, red)) - (black == size ? 0 : number(f, black));
}

/** Solves Aᵀ c' = c in place, for adjoint sensitivities. */
export function solveTransposed(c: usize): void {
  for (let k = 0; k < size; k++) {
    const value = number(c, place(pivotColumn, k)) * number(inverse, k);
    put(steps, k, value);
    for (let u = place(upperStart, k), u1 = place(upperStart, k + 1); u < u1; u++) add(c, place(upperColumn, u), -number(values, place(upperSlot, u)) * value);
  }
  for (let k = size - 1; k >= 0; k--) {
    let value = number(steps, k);
    for (let l = place(lowerStart, k), l1 = place(lowerStart, k + 1); l < l1; l++) value -= number(values, place(lowerSlot, l)) * number(c, place(lowerRow, l));
    put(c, place(pivotRow, k), value);
  }
}
