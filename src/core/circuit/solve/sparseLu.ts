/**
 * Sparse LU with a fixed elimination order: `order` searches pivots once (Markowitz count with a threshold,
 * Markowitz 1957), `factor` then repeats the same eliminations on new values as a flat list of array positions.
 * Newton iterations of one circuit, and faults that keep its pattern, share one order.
 */

/** A pivot must reach this share of the largest entry of its column, so that no multiplier exceeds its inverse. */
const PIVOT_THRESHOLD = 1e-2;
/** A repeated factorisation whose multipliers grow beyond this has lost its order: search pivots again. */
const MULTIPLIER_LIMIT = 1e9;
/** Orders kept per pattern: faults push a board into a handful of regimes that want different pivots. */
const MOST_ORDERS = 6;
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
        if (!(multiplier < MULTIPLIER_LIMIT && multiplier > -MULTIPLIER_LIMIT)) return false;
        for (let u = u0; u < u1; u++) {
          const t = target[next++]!;
          v[t] = v[t]! - multiplier * v[upperSlot[u]!]!;
        }
      }
    }
    return true;
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

/** Entry of an active row: its value during the search and its position in the value array. */
interface Cell {
  value: number;
  readonly slot: number;
}

class PivotSearch {
  stuckAt: { row: number; column: number } | null = null;
  private readonly row: Map<number, Cell>[];
  private readonly column: Set<number>[];
  private slots: number;
  private readonly activeRows: Set<number>;

  constructor(
    private readonly size: number,
    rows: Int32Array,
    columns: Int32Array,
    entries: Float64Array,
  ) {
    this.row = Array.from({ length: size }, () => new Map<number, Cell>());
    this.column = Array.from({ length: size }, () => new Set<number>());
    this.slots = rows.length;
    this.activeRows = new Set(Array.from({ length: size }, (_, i) => i));
    for (let s = 0; s < rows.length; s++) {
      if (rows[s]! >= size || columns[s]! >= size) continue;
      this.row[rows[s]!]!.set(columns[s]!, { value: entries[s]!, slot: s });
      this.column[columns[s]!]!.add(rows[s]!);
    }
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
      const pivot = this.choose();
      if (!pivot) return null;
      const [r, c] = pivot;
      const pivotCells = this.row[r]!;
      const diagonal = pivotCells.get(c)!;
      pivotRow[k] = r;
      pivotColumn[k] = c;
      pivotSlot[k] = diagonal.slot;
      pivotCells.delete(c);
      for (const [column, cell] of pivotCells) {
        upperColumn.push(column);
        upperSlot.push(cell.slot);
        this.column[column]!.delete(r);
      }
      this.activeRows.delete(r);
      this.column[c]!.delete(r);
      for (const i of this.column[c]!) {
        const cells = this.row[i]!;
        const below = cells.get(c)!;
        cells.delete(c);
        lowerRow.push(i);
        lowerSlot.push(below.slot);
        const multiplier = below.value / diagonal.value;
        for (const [column, cell] of pivotCells) target.push(this.reduce(i, column, multiplier * cell.value));
      }
      lowerStart[k + 1] = lowerRow.length;
      upperStart[k + 1] = upperColumn.length;
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
    const known = this.row[row]!.get(column);
    if (known) {
      known.value -= by;
      return known.slot;
    }
    const cell = { value: -by, slot: this.slots++ };
    this.row[row]!.set(column, cell);
    this.column[column]!.add(row);
    return cell.slot;
  }

  /** The entry of least Markowitz count (r−1)(c−1) among those large enough in their column. */
  private choose(): [number, number] | null {
    let best: [number, number] | null = null;
    let bestCount = Infinity;
    let bestSize = 0;
    for (const r of this.activeRows) {
      const cells = this.row[r]!;
      for (const [c, cell] of cells) {
        const count = (cells.size - 1) * (this.column[c]!.size - 1);
        const size = Math.abs(cell.value);
        if (count > bestCount || (count === bestCount && size <= bestSize) || !(size > SMALLEST_PIVOT)) continue;
        if (size < PIVOT_THRESHOLD * this.largestInColumn(c)) continue;
        best = [r, c];
        bestCount = count;
        bestSize = size;
      }
      if (bestCount === 0 && this.size > 200) break;
    }
    if (!best) this.stuckAt = this.emptiest();
    return best;
  }

  private largestInColumn(column: number): number {
    let largest = 0;
    for (const r of this.column[column]!) largest = Math.max(largest, Math.abs(this.row[r]!.get(column)!.value));
    return largest;
  }

  private emptiest(): { row: number; column: number } {
    const [row = 0] = this.activeRows;
    const column = this.column.findIndex((rows) => rows.size > 0);
    return { row, column: Math.max(0, column) };
  }
}
