/** How the cells of a row are parted; `alone`: one column. */
export type Separator = '\t' | ';' | ',' | ' ' | 'alone';
export type Cells = readonly string[];

const NUMBER = /^[+-]?(?:\d+(?:[.,]\d*)?|[.,]\d+)(?:e[+-]?\d+)?$/i;
const CLOCK = /^(?:(\d{4})[-/](\d{1,2})[-/](\d{1,2})[ T])?(\d{1,2}):(\d{2})(?::(\d{2}(?:[.,]\d+)?))?Z?$/;

const bare = (cell: string) =>
  cell
    .trim()
    .replace(/^(["'])(.*)\1$/, '$2')
    .trim();

export const isNumber = (cell: string): boolean => NUMBER.test(bare(cell));

/** The number of a cell, with a decimal point or comma; null where it is none. */
export function numberOf(cell: string): number | null {
  // Nearly all of a million cells are plain numbers.
  const plain = Number(cell);
  if (!Number.isNaN(plain) && Number.isFinite(plain) && cell.trim() !== '') return plain;
  const text = bare(cell);
  return NUMBER.test(text) ? Number(text.replace(',', '.')) : null;
}

/** The moment of a cell in its own unit: a number, a clock or a date with a clock (then seconds); null where it is none. */
export function timeOf(cell: string): number | null {
  const number = numberOf(cell);
  if (number !== null) return number;
  const found = CLOCK.exec(bare(cell));
  if (!found) return null;
  const [, year, month, day, hour, minute, second] = found;
  const days = year === undefined ? 0 : Date.UTC(Number(year), Number(month) - 1, Number(day)) / 1000;
  return days + 3600 * Number(hour) + 60 * Number(minute) + Number((second ?? '0').replace(',', '.'));
}

/** Cells of a line; empty ones behind the last that holds anything are dropped. */
export function cellsOf(line: string, separator: Separator): Cells {
  if (separator === 'alone') return [line.replace(/[,;\s]+$/, '')];
  const cells = separator === ' ' ? line.split(/[ \t]+/) : line.split(separator);
  while (cells.length > 1 && cells.at(-1)!.trim() === '') cells.pop();
  return cells;
}

/** How a line is a row of numbers, and how many cells it has; null where it is none. `rated`: a sample rate is known. */
export function separatorOf(line: string, rated: boolean): { readonly separator: Separator; readonly cells: number } | null {
  // With a known rate two whole numbers at a comma are one decimal number.
  const alone = isNumber(line.replace(/[,;\s]+$/, ''));
  if (alone && (rated || !/^[+-]?\d+,[+-]?\d+$/.test(line))) return { separator: 'alone', cells: 1 };
  for (const separator of ['\t', ';', ',', ' '] as const) {
    const cells = cellsOf(line, separator);
    // Beside the moment some channels may be empty in the first row.
    if (cells.length > 1 && timeOf(cells[0]!) !== null && cells.slice(1).some(isNumber) && cells.slice(1).every((c) => isNumber(c) || c.trim() === ''))
      return { separator, cells: cells.length };
  }
  return alone ? { separator: 'alone', cells: 1 } : null;
}
