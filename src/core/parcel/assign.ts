/** Columns of all rows, and the dual prices that prove it the best: cost ≥ rowPrice + columnPrice, equal where assigned. */
export interface Assignment {
  readonly columnOf: Int32Array;
  readonly rowPrice: Float64Array;
  readonly columnPrice: Float64Array;
}

/**
 * Assignment of least total cost: every row to its own column (Hungarian method in the shortest-augmenting-path form of
 * Jonker & Volgenant 1987). `cost` is row-major, rows ≤ columns, all finite.
 */
export function assign(cost: Float64Array, rows: number, columns: number): Assignment {
  if (rows > columns) throw new RangeError(`assign: ${rows} rows do not fit ${columns} columns`);
  const u = new Float64Array(rows + 1);
  const v = new Float64Array(columns + 1);
  const rowOf = new Int32Array(columns + 1);
  const way = new Int32Array(columns + 1);
  const distance = new Float64Array(columns + 1);
  const used = new Uint8Array(columns + 1);
  for (let row = 1; row <= rows; row++) {
    rowOf[0] = row;
    let column = 0;
    distance.fill(Infinity);
    used.fill(0);
    do {
      used[column] = 1;
      const r = rowOf[column]!;
      let delta = Infinity;
      let next = 0;
      for (let j = 1; j <= columns; j++) {
        if (used[j]) continue;
        const reduced = cost[(r - 1) * columns + j - 1]! - u[r]! - v[j]!;
        if (reduced < distance[j]!) {
          distance[j] = reduced;
          way[j] = column;
        }
        if (distance[j]! < delta) {
          delta = distance[j]!;
          next = j;
        }
      }
      for (let j = 0; j <= columns; j++) {
        if (used[j]) {
          u[rowOf[j]!]! += delta;
          v[j]! -= delta;
        } else distance[j]! -= delta;
      }
      column = next;
    } while (rowOf[column] !== 0);
    while (column !== 0) {
      const before = way[column]!;
      rowOf[column] = rowOf[before]!;
      column = before;
    }
  }
  const columnOf = new Int32Array(rows);
  for (let j = 1; j <= columns; j++) if (rowOf[j]! > 0) columnOf[rowOf[j]! - 1] = j - 1;
  return { columnOf, rowPrice: u.subarray(1), columnPrice: v.subarray(1) };
}

/**
 * What the best assignment would cost more if `row` had to leave its column and could not take any of the `banned` ones:
 * the shortest augmenting path in reduced costs. Infinity when there is no other; `instead` is the column it would take.
 */
export function regret(
  cost: Float64Array,
  rows: number,
  columns: number,
  { columnOf, rowPrice, columnPrice }: Assignment,
  row: number,
  banned: (column: number) => boolean,
): { cost: number; instead: number } {
  const rowOf = new Int32Array(columns).fill(FREE);
  for (let i = 0; i < rows; i++) rowOf[columnOf[i]!] = i;
  const left = columnOf[row]!;
  const distance = new Float64Array(columns).fill(Infinity);
  const first = new Int32Array(columns).fill(-1);
  const done = new Uint8Array(columns);
  // A free column counts as taken by an idle row that is content with any other column at no cost.
  const reduced = (i: number, j: number) => (i === FREE ? 0 : cost[i * columns + j]! - rowPrice[i]!) - columnPrice[j]!;
  const relax = (i: number, from: number, via: number) => {
    for (let j = 0; j < columns; j++) {
      if (done[j] || (i === row && banned(j))) continue;
      const d = from + reduced(i, j);
      if (d < distance[j]!) {
        distance[j] = d;
        first[j] = via < 0 ? j : via;
      }
    }
  };
  relax(row, 0, -1);
  for (;;) {
    let next = -1;
    for (let j = 0; j < columns; j++) if (!done[j] && (next < 0 || distance[j]! < distance[next]!)) next = j;
    if (next < 0 || !Number.isFinite(distance[next]!)) return { cost: Infinity, instead: -1 };
    if (next === left) return { cost: distance[left]!, instead: first[left]! };
    done[next] = 1;
    relax(rowOf[next]!, distance[next]!, first[next]!);
  }
}

const FREE = -1;
