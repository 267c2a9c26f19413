/**
 * Sparse LU with a fixed elimination order: `order` searches pivots once (Markowitz count with a threshold,
 * Markowitz 1957), `factor` then repeats the same eliminations on new values as a flat list of array positions.
 * Newton iterations of one circuit, and faults that keep its pattern, share one order.
 */

/** A pivot must reach this share of the largest entry of its column, so that no multiplier exceeds its inverse. */
const PIVOT_THRESHOLD = 1e-2;
/** The same for a diagonal entry, which stays usable when currents elsewhere change; Newton's method forgives the digits. */
const DIAGONAL_THRESHOLD = 1e-6;
/** A repeated factorisation whose multipliers grow beyond this has lost its order: search pivots again. */
const MULTIPLIER_LIMIT = 1e9;
/** Orders kept per pattern: faults push a board into a handful of regimes that want different pivots. */
const MOST_ORDERS = 12;
const SMALLEST_PIVOT = 1e-200;

/** The elimination order of one pattern. Positions index the value array (pattern entries first, then fill-ins). */
export interface EliminationOrder {
  readonly slots: number;
  readonly pivotRow: Int32Array;
  readonly pivotColumn: Int32Array;
  readonly pivotSlot: Int32Array;
  /** Per step k the multipliers below the pivot: rows and positions from lowerStart[k] to lowerStart[k+1]. */
  readonly lowerStart: Int32Array;
  readonly lowerRow: Int32Array;
  readonly lowerSlot: Int32Array;
  /** Per step k the entries right of the pivot. */
  readonly upperStart: Int32Array;
  readonly upperColumn: Int32Array;
  readonly upperSlot: Int32Array;
  /** For each (multiplier, upper entry) pair in elimination order: position of the entry that is reduced. */
  readonly target: Int32Array;
}

/** Orders by pattern, shared between systems: most faults keep the pattern of the healthy circuit. */
export type OrderCache = Map<string, EliminationOrder[]>;

export class SparseLu {
  readonly size: number;
  private readonly rows: Int32Array;
  private readonly columns: Int32Array;
  private plan: EliminationOrder | null = null;
  private values = new Float64Array(0);
  private readonly scratch: Float64Array;
  /** Row and column at which the last `order` found no usable pivot. */
  singularAt: { row: number; column: number } | null = null;
  /** Orders found so far for this pattern, by this system or another of the same layout. */
  private shared: EliminationOrder[] = [];

  constructor(size: number, rows: Int32Array, columns: Int32Array, orders: OrderCache | null = null) {
    this.size = size;
    this.rows = rows;
    this.columns = columns;
    this.scratch = new Float64Array(size);
    if (orders) {
      const key = `${size}:${rows.join()}:${columns.join()}`;
      this.shared = orders.get(key) ?? [];
      orders.set(key, this.shared);
    }
    const [known] = this.shared;
    if (known) this.adopt(known);
  }

  private adopt(plan: EliminationOrder): void {
    this.plan = plan;
    if (this.values.length !== plan.slots) this.values = new Float64Array(plan.slots);
  }

  /**
   * Factors the matrix with these entries (one value per pattern position).
   * Returns false when it is singular; `singularAt` then says where.
   */
  factor(entries: Float64Array): boolean {
    if (this.plan && this.refactor(entries, this.plan)) return true;
    for (const other of this.shared) {
      if (other === this.plan) continue;
      this.adopt(other);
      if (this.refactor(entries, other)) return true;
    }
    const plan = this.search(entries);
    if (!plan) return false;
    this.adopt(plan);
    this.shared.unshift(plan);
    if (this.shared.length > MOST_ORDERS) this.shared.pop();
    return this.refactor(entries, plan);
  }

  private refactor(entries: Float64Array, plan: EliminationOrder): boolean {
    const v = this.values;
    v.set(entries);
    v.fill(0, entries.length);
    const { pivotSlot, lowerStart, lowerSlot, upperStart, upperSlot, target } = plan;
    let next = 0;
    for (let k = 0; k < this.size; k++) {
      const pivot = v[pivotSlot[k]!]!;
      if (!(Math.abs(pivot) > SMALLEST_PIVOT)) return false;
      const inverse = 1 / pivot;
      const u0 = upperStart[k]!;
      const u1 = upperStart[k + 1]!;
      for (let l = lowerStart[k]!, l1 = lowerStart[k + 1]!; l < l1; l++) {
        const slot = lowerSlot[l]!;
        const multiplier = v[slot]! * inverse;
        v[slot] = multiplier;
        if (multiplier === 0) {
          next += u1 - u0;
          continue;
        }
        if (!(multiplier < MULTIPLIER_LIMIT && multiplier > -MULTIPLIER_LIMIT) && this.outgrows(pivot, upperSlot, u0, u1)) return false;
        for (let u = u0; u < u1; u++) {
          const t = target[next++]!;
          v[t] = v[t]! - multiplier * v[upperSlot[u]!]!;
        }
      }
    }
    return true;
  }

  /** Whether a pivot that is small in its column is small in its row too: only then do the entries below it grow. */
  private outgrows(pivot: number, upperSlot: Int32Array, u0: number, u1: number): boolean {
    const limit = MULTIPLIER_LIMIT * Math.abs(pivot);
    for (let u = u0; u < u1; u++) if (!(Math.abs(this.values[upperSlot[u]!]!) < limit)) return true;
    return false;
  }

  /** Solves A x = b in place: `b` becomes x. */
  solve(b: Float64Array): void {
    const { pivotRow, pivotColumn, pivotSlot, lowerStart, lowerRow, lowerSlot, upperStart, upperColumn, upperSlot } = this.plan!;
    const v = this.values;
    const y = this.scratch;
    for (let k = 0; k < this.size; k++) {
      const value = b[pivotRow[k]!]!;
      y[k] = value;
      if (value === 0) continue;
      for (let l = lowerStart[k]!, l1 = lowerStart[k + 1]!; l < l1; l++) {
        const row = lowerRow[l]!;
        b[row] = b[row]! - v[lowerSlot[l]!]! * value;
      }
    }
    for (let k = this.size - 1; k >= 0; k--) {
      let value = y[k]!;
      for (let u = upperStart[k]!, u1 = upperStart[k + 1]!; u < u1; u++) value -= v[upperSlot[u]!]! * b[upperColumn[u]!]!;
      b[pivotColumn[k]!] = value / v[pivotSlot[k]!]!;
    }
  }

  /** Solves Aᵀ z = c in place, for adjoint sensitivities. */
  solveTransposed(c: Float64Array): void {
    const { pivotRow, pivotColumn, pivotSlot, lowerStart, lowerRow, lowerSlot, upperStart, upperColumn, upperSlot } = this.plan!;
    const v = this.values;
    const w = this.scratch;
    for (let k = 0; k < this.size; k++) {
      const value = c[pivotColumn[k]!]! / v[pivotSlot[k]!]!;
      w[k] = value;
      for (let u = upperStart[k]!, u1 = upperStart[k + 1]!; u < u1; u++) {
        const column = upperColumn[u]!;
        c[column] = c[column]! - v[upperSlot[u]!]! * value;
      }
    }
    for (let k = this.size - 1; k >= 0; k--) {
      let value = w[k]!;
      for (let l = lowerStart[k]!, l1 = lowerStart[k + 1]!; l < l1; l++) value -= v[lowerSlot[l]!]! * c[lowerRow[l]!]!;
      c[pivotRow[k]!] = value;
    }
  }

  /** Eliminates once on sparse rows, choosing the pivot of least fill at each step, and records what it did. */
  private search(entries: Float64Array): EliminationOrder | null {
    const work = new PivotSearch(this.size, this.rows, this.columns, entries);
    const plan = work.run();
    this.singularAt = plan ? null : work.stuckAt;
    return plan;
  }
}

/** An active row during the search: short enough that looking through it beats any index. */
interface ActiveRow {
  readonly columns: number[];
  readonly values: number[];
  /** Positions of the entries in the value array. */
  readonly slots: number[];
}

/** Takes entry `at` out of an unordered list. */
function drop(list: number[], at: number): void {
  const last = list.pop()!;
  if (at < list.length) list[at] = last;
}

class PivotSearch {
  stuckAt: { row: number; column: number } | null = null;
  private readonly row: ActiveRow[];
  /** Rows with an entry in each column. */
  private readonly column: number[][];
  private readonly activeRows: number[];
  private slots: number;

  constructor(
    private readonly size: number,
    rows: Int32Array,
    columns: Int32Array,
    entries: Float64Array,
  ) {
    this.row = Array.from({ length: size }, () => ({ columns: [], values: [], slots: [] }));
    this.column = Array.from({ length: size }, () => []);
    this.slots = rows.length;
    this.activeRows = Array.from({ length: size }, (_, i) => i);
    for (let s = 0; s < rows.length; s++) if (rows[s]! < size && columns[s]! < size) this.append(rows[s]!, columns[s]!, entries[s]!, s);
  }

  private append(row: number, column: number, value: number, slot: number): void {
    const cells = this.row[row]!;
    cells.columns.push(column);
    cells.values.push(value);
    cells.slots.push(slot);
    this.column[column]!.push(row);
  }

  /** Takes the entry of a row in one column out of the row, and returns its value and slot. */
  private take(row: number, column: number): { value: number; slot: number } {
    const { columns, values, slots } = this.row[row]!;
    const at = columns.indexOf(column);
    const taken = { value: values[at]!, slot: slots[at]! };
    drop(columns, at);
    drop(values, at);
    drop(slots, at);
    return taken;
  }

  run(): EliminationOrder | null {
    const { size } = this;
    const pivotRow = new Int32Array(size);
    const pivotColumn = new Int32Array(size);
    const pivotSlot = new Int32Array(size);
    const lowerStart = new Int32Array(size + 1);
    const upperStart = new Int32Array(size + 1);
    const lowerRow: number[] = [];
    const lowerSlot: number[] = [];
    const upperColumn: number[] = [];
    const upperSlot: number[] = [];
    const target: number[] = [];
    for (let k = 0; k < size; k++) {
      const at = this.choose();
      if (at < 0) return null;
      const r = this.activeRows[at]!;
      const c = this.chosenColumn;
      const pivot = this.take(r, c);
      const rest = this.row[r]!;
      pivotRow[k] = r;
      pivotColumn[k] = c;
      pivotSlot[k] = pivot.slot;
      for (const column of rest.columns) {
        const members = this.column[column]!;
        drop(members, members.indexOf(r));
      }
      upperColumn.push(...rest.columns);
      upperSlot.push(...rest.slots);
      drop(this.activeRows, at);
      for (const i of this.column[c]!) {
        if (i === r) continue;
        const below = this.take(i, c);
        lowerRow.push(i);
        lowerSlot.push(below.slot);
        const multiplier = below.value / pivot.value;
        for (let u = 0; u < rest.columns.length; u++) target.push(this.reduce(i, rest.columns[u]!, multiplier * rest.values[u]!));
      }
      lowerStart[k + 1] = lowerRow.length;
      upperStart[k + 1] = upperColumn.length;
      this.column[c]!.length = 0;
    }
    return {
      slots: this.slots,
      pivotRow,
      pivotColumn,
      pivotSlot,
      lowerStart,
      lowerRow: Int32Array.from(lowerRow),
      lowerSlot: Int32Array.from(lowerSlot),
      upperStart,
      upperColumn: Int32Array.from(upperColumn),
      upperSlot: Int32Array.from(upperSlot),
      target: Int32Array.from(target),
    };
  }

  private reduce(row: number, column: number, by: number): number {
    const { columns, values, slots } = this.row[row]!;
    const at = columns.indexOf(column);
    if (at >= 0) {
      values[at]! -= by;
      return slots[at]!;
    }
    const slot = this.slots++;
    this.append(row, column, -by, slot);
    return slot;
  }

  private chosenColumn = 0;

  /**
   * Place in `activeRows` of the entry of least Markowitz count (r−1)(c−1) among those large enough in their column, and
   * of the largest where counts are equal; −1 when there is none. Sets `chosenColumn`. A row whose diagonal will do offers
   * no other entry: at a net it holds all conductances, and stays large when the transistors there switch off.
   */
  private choose(): number {
    let best = -1;
    let bestCount = Infinity;
    let bestSize = 0;
    for (let at = 0; at < this.activeRows.length && bestCount > 0; at++) {
      const row = this.activeRows[at]!;
      const { columns, values } = this.row[row]!;
      const diagonal = columns.indexOf(row);
      const ownOnly = diagonal >= 0 && this.isLarge(Math.abs(values[diagonal]!), row, DIAGONAL_THRESHOLD);
      for (let e = ownOnly ? diagonal : 0; e < (ownOnly ? diagonal + 1 : columns.length); e++) {
        const column = columns[e]!;
        const count = (columns.length - 1) * (this.column[column]!.length - 1);
        const size = Math.abs(values[e]!);
        if (count > bestCount || (count === bestCount && size <= bestSize)) continue;
        if (!ownOnly && !this.isLarge(size, column, PIVOT_THRESHOLD)) continue;
        best = at;
        this.chosenColumn = column;
        bestCount = count;
        bestSize = size;
      }
    }
    if (best < 0)
      this.stuckAt = {
        row: this.activeRows[0] ?? 0,
        column: Math.max(
          0,
          this.column.findIndex((rows) => rows.length > 0),
        ),
      };
    return best;
  }

  private isLarge(size: number, column: number, threshold: number): boolean {
    return size > SMALLEST_PIVOT && size >= threshold * this.largestInColumn(column);
  }

  private largestInColumn(column: number): number {
    let largest = 0;
    for (const r of this.column[column]!) {
      const { columns, values } = this.row[r]!;
      largest = Math.max(largest, Math.abs(values[columns.indexOf(column)]!));
    }
    return largest;
  }
}
