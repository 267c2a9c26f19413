import { SHUNT } from '../shared';
import {
  add,
  anchor,
  conductances,
  diagonal,
  ends,
  entries,
  f,
  linear,
  matrix,
  nodes,
  number,
  place,
  put,
  right,
  siemens,
  size,
  stampAt,
  stamps,
  stampValue,
  x,
} from './memory';

/**
 * The matrix of the linear parts, and the currents that leave every net through them at `x`.
 * `sources` scales all independent sources; `shunt` is a further conductance from every net to ground or, `anchored`, to its anchor.
 */
export function loadLinear(sources: f64, shunt: f64, anchored: bool): void {
  memory.copy(matrix, linear, (<usize>entries) << 3);
  for (let i = 0; i < nodes; i++) put(f, i, (SHUNT + shunt) * number(x, i) - sources * number(right, i));
  for (let i = nodes; i <= size; i++) put(f, i, -sources * number(right, i));
  if (shunt > 0) for (let i = 0; i < nodes; i++) add(matrix, place(diagonal, i), shunt);
  if (anchored) for (let i = 0; i < nodes; i++) add(f, i, -shunt * number(anchor, i));
  // Part by part, not row by row: g (va − vb) keeps its accuracy on nets that float together.
  for (let k = 0; k < conductances; k++) {
    const g = number(siemens, k);
    if (g == 0) continue;
    const a = place(ends, 2 * k);
    const b = place(ends, 2 * k + 1);
    const current = g * (number(x, a) - number(x, b));
    add(f, a, current);
    add(f, b, -current);
  }
  for (let k = 0; k < stamps; k++) add(f, place(stampAt, 2 * k), number(stampValue, k) * number(x, place(stampAt, 2 * k + 1)));
}
