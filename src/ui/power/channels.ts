/** Channels as rows and columns. */
export interface Matrix {
  readonly rows: readonly string[];
  readonly columns: readonly string[];
}

/** Channels that are every row with every column, as `A left` and `A right` are; null where they are a plain list. */
export function matrixOf(channels: readonly string[]): Matrix | null {
  const split = channels.map((c) => {
    const cut = c.lastIndexOf(' ');
    return cut < 0 ? null : ([c.slice(0, cut), c.slice(cut + 1)] as const);
  });
  if (!split.every((s) => s !== null)) return null;
  const rows = [...new Set(split.map(([row]) => row))];
  const columns = [...new Set(split.map(([, column]) => column))];
  const all = new Set(channels);
  const whole = rows.every((row) => columns.every((column) => all.has(`${row} ${column}`)));
  return rows.length > 1 && columns.length > 1 && whole && all.size === rows.length * columns.length ? { rows, columns } : null;
}
