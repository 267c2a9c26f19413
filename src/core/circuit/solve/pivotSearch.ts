/** A pivot must reach this share of the largest entry of its column, so that no multiplier exceeds its inverse. */
const PIVOT_THRESHOLD = 1e-2;
/** The same for a diagonal entry, which stays usable when currents elsewhere change; Newton's method forgives the digits. */
const DIAGONAL_THRESHOLD = 1e-6;
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

/**
 * Searches pivots once, on sparse rows: at each step the usable entry of least fill (Markowitz 1957), and records what
 * eliminating with it does.
 */
export class PivotSearch {
  stuckAt: { row: number; column: number } | null = null;
  private readonly row: ActiveRow[];
  /** Rows with an entry in each column. */
  private readonly column: number[][];
  private readonly activeRows: number[];
  private slots: number;
  /** Largest entry of each column among the active rows; −1 where it must be looked up again. */
  private readonly largest: Float64Array;

  constructor(
    private readonly size: number,
    rows: Int32Array,
    columns: Int32Array,
    entries: Float64Array,
  ) {
    this.row = Array.from({ length: size }, () => ({ columns: [], values: [], slots: [] }));
    this.column = Array.from({ length: size }, () => []);
    this.slots = rows.length;
    this.largest = new Float64Array(size).fill(-1);
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
        this.largest[column] = -1;
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
    this.largest[column] = -1;
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
    if (this.largest[column]! >= 0) return this.largest[column]!;
    let largest = 0;
    for (const r of this.column[column]!) {
      const { columns, values } = this.row[r]!;
      largest = Math.max(largest, Math.abs(values[columns.indexOf(column)]!));
    }
    this.largest[column] = largest;
    return largest;
  }
}
