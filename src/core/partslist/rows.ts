import Papa from 'papaparse';
import type { TableRow } from './columns';

const MOST_CHARACTERS = 2_000_000;

const whole = (text: string): TableRow[] => text.split(/\r\n|\r|\n/).map((line, i) => ({ line: i + 1, cells: [line] }));

/** Commas in brackets, between refs, and in figures among words: `(C3,4,5)`, `S8050 Q1,Q2,Q3`, `C2 0,1 µF`. They part no columns. Bounded, as lists may be hostile. */
const INNER_COMMA = /\([^()]*\)|(?<=\p{L}{1,4}\d{1,5})\s*,\s*(?=\p{L}{1,4}\d{1,5}(?![\p{L}\d]))|(?<=\s\d{1,9}),(?=\d)/gu;

/**
 * Cuts a pasted list into rows. A table keeps its cells; lines of running text stay whole, whatever commas they hold.
 */
export function toRows(text: string): TableRow[] {
  const source = text.slice(0, MOST_CHARACTERS);
  if (source.trim() === '') return [];
  const parsed = Papa.parse<string[]>(source.trimEnd(), { skipEmptyLines: false, delimitersToGuess: ['\t', ';', ',', '|'] });
  const rows = parsed.data.map((cells, i) => ({ line: i + 1, cells }));
  const filled = rows.filter((r) => r.cells.some((c) => c.trim() !== ''));
  const widths = filled.map((r) => r.cells.length);
  const usual = widths.sort((a, b) => a - b)[widths.length >> 1] ?? 1;
  const steady = filled.filter((r) => r.cells.length === usual).length >= 0.7 * filled.length;
  // Commas stand in running text too: only several columns, or a heading row of short words, make a table of them.
  const comma = parsed.meta.delimiter === ',';
  const heading = filled[0]?.cells.every((c) => c.trim().length <= 24 && !/\d/.test(c)) ?? false;
  const columned = () => source.split(/[\r\n]+/).filter((line) => line.replace(INNER_COMMA, '').includes(',')).length >= filled.length / 2;
  return usual > 1 && steady && (!comma || heading || (usual >= 3 && columned())) ? rows : whole(source);
}

/** Rows as CSV. Cells that a spreadsheet would take for a formula are neutralised. */
export const toCsv = (rows: readonly (readonly (string | number)[])[]) => Papa.unparse(rows as (string | number)[][], { escapeFormulae: true });
