import Papa from 'papaparse';
import { type Column, headingColumn, headingColumns } from '../columns';
import { isRefList } from './refs';
import { plain, width } from './text';

/** What a column holds; `number`: running numbers. */
export type Role = Column | 'number';
/** How a sheet is set: cells of a table, columns of fixed pitch, or running text. */
export type Way = 'table' | 'columns' | 'text';

export interface Row {
  readonly source: number;
  readonly cells: readonly string[];
  /** Column of fixed pitch where each cell begins. */
  readonly starts?: readonly number[];
  readonly indented: boolean;
}

const MOSTLY = 0.6;
export const share = <T>(all: readonly T[], fits: (x: T) => boolean) => (all.length === 0 ? 0 : all.filter(fits).length / all.length);
export const filled = (row: Row) => row.cells.filter((c) => c.trim() !== '');

/** No line of a list is longer; what is beyond it is not read, and such a line is asked about. */
export const LONGEST = 3000;

/** Cuts a sheet into rows and cells, whatever its layout. */
export function rowsOf(source: string | readonly (readonly string[])[]): { rows: Row[]; way: Way } {
  if (typeof source !== 'string') {
    const rows = source.map((cells, i) => ({ source: i + 1, cells: cells.map((c) => plain(c.slice(0, LONGEST)).trim()), indented: false }));
    return {
      rows,
      way:
        share(
          rows.filter((r) => filled(r).length > 0),
          (r) => filled(r).length > 1,
        ) >= 0.4
          ? 'table'
          : 'text',
    };
  }
  const lines = source.split(/\r\n|\r|\n/).map((line, i) => {
    const raw = line.slice(0, LONGEST);
    return { source: i + 1, raw, text: plain(raw).trimEnd() };
  });
  const full = lines.filter((l) => l.text.trim() !== '');
  const delimiter = ['\t', ';', ',', '|'].find((d) =>
    isTable(
      full.map((l) => l.text),
      d,
    ),
  );
  if (delimiter !== undefined)
    return {
      way: 'table',
      rows: lines.map((l) => ({ source: l.source, cells: cut(l.text, delimiter).map((c) => c.trim()), indented: false })),
    };
  const pitched = full.filter((l) => l.text.trim().split(/\s{2,}/).length >= 3);
  if (full.length > 0 && pitched.length / full.length >= MOSTLY) return { way: 'columns', rows: lines.map((l) => pitchedRow(l.source, l.raw)) };
  return { way: 'text', rows: lines.map((l) => ({ source: l.source, cells: [l.text.trim()], indented: /^\s/.test(l.text) })) };
}

export const printedOf = (source: string | readonly (readonly string[])[]) =>
  new Map(
    (typeof source === 'string' ? source.split(/\r\n|\r|\n/) : source.map((cells) => cells.join(' '))).flatMap((text, i): [number, string][] =>
      plain(text).trim() === '' ? [] : [[i + 1, text.trim().slice(0, LONGEST)]],
    ),
  );

const cut = (line: string, delimiter: string): string[] => Papa.parse<string[]>(line, { delimiter }).data[0] ?? [''];

/** Cells parted by one mark, the same number in most lines. Commas stand in running text too: they want a heading or three columns. */
function isTable(lines: readonly string[], delimiter: string): boolean {
  const counts = lines.filter((l) => l.includes(delimiter)).map((l) => cut(l, delimiter).length);
  if (counts.length < MOSTLY * lines.length) return false;
  const usual = [...counts].sort((a, b) => a - b)[counts.length >> 1]!;
  const steady = share(counts, (n) => n === usual);
  if (delimiter === '\t') return usual >= 2;
  if (delimiter === ';') return steady >= 0.8;
  const heading = lines.slice(0, SEARCHED).some((l) => cut(l, delimiter).filter((c) => headingColumn(c) !== null).length >= 2);
  if (!heading && (counts.length < LEAST_ROWS || share(lines, (l) => l.replace(INNER_COMMA, '').split(',').length >= usual) < MOSTLY)) return false;
  return (
    steady >= 0.8 &&
    usual >= 3 &&
    (heading ||
      share(
        lines.filter((l) => l.includes(delimiter)),
        (l) => isRefList(cut(l, delimiter).find((c) => isRefList(c)) ?? ''),
      ) >= MOSTLY)
  );
}
export const SEARCHED = 12;
const LEAST_ROWS = 3;
/** Commas in brackets, between positions and in figures part no cells: `(C3,4,5)`, `Q1,Q2`, `0,1 µF`. */
const INNER_COMMA = /\([^()]*\)|(?<=\p{L}{1,5}\d{1,4})\s*,\s*(?=\p{L}{1,5}\d{1,4}(?![\p{L}\d]))|(?<=\d),(?=\d)/gu;

/** Places are counted on the text as printed: its full-width letters take two columns. */
function pitchedRow(source: number, raw: string): Row {
  const cells: string[] = [];
  const starts: number[] = [];
  const text = raw.replaceAll('\u00a0', ' ');
  for (const found of text.matchAll(/\S+(?:\s\S+)*/g)) {
    cells.push(plain(found[0]));
    starts.push(width(text.slice(0, found.index)));
  }
  return { source, cells, starts, indented: /^\s/.test(text) };
}

export const isHeading = (row: Row): boolean => {
  const cells = filled(row);
  const named = cells.filter((c) => headingColumn(c) !== null).length;
  return named >= 2 && named >= cells.length / 2 && cells.every((c) => !/\d{2}/.test(c));
};
export const sameCells = (row: Row, heading: Row | undefined) =>
  heading !== undefined && filled(row).join('¦').replace(/\s/g, '') === filled(heading).join('¦').replace(/\s/g, '');

/** Cells of fixed pitch put under the heading's columns; as they are where the sheet does not keep to them. */
export function alignedRows(rows: readonly Row[], heading: Row): Row[] {
  const starts = heading.starts!;
  const inside = rows.filter((r) => r !== heading && r.cells.length > 1);
  const kept = share(
    inside.flatMap((r) => [...r.starts!]),
    (s) => starts.includes(s),
  );
  if (kept < 0.8) return [...rows];
  return rows.map((r) => {
    if (r === heading || (filled(r).length === 1 && r.starts![0] === 0)) return r;
    const cells = starts.map(() => '');
    r.cells.forEach((cell, i) => {
      const at = Math.max(
        0,
        starts.findLastIndex((s) => s <= r.starts![i]!),
      );
      cells[at] = cells[at] ? `${cells[at]} ${cell}` : cell;
    });
    return { ...r, cells };
  });
}

/** What each column holds: its heading says so, unless its cells say otherwise. `bag`: the cells keep to no columns. */
export function rolesOf(rows: readonly Row[], heading: Row | undefined, chosen: readonly (Column | null)[] | null): { roles: (Role | null)[]; bag: boolean } {
  const count = Math.max(...rows.map((r) => r.cells.length), heading?.cells.length ?? 0);
  const parts = rows.filter((r) => filled(r).length >= 2);
  const column = (i: number) => parts.map((r) => r.cells[i] ?? '').filter((c) => c !== '');
  const roles: (Role | null)[] = Array.from({ length: count }, () => null);
  const uneven = !heading && rows.some((r) => r.starts) && share(parts, (r) => r.cells.length === count) < 1;
  if (uneven) return { roles, bag: true };
  if (chosen?.some((c) => c !== null)) {
    for (let i = 0; i < count; i++) roles[i] = chosen[i] ?? null;
    return { roles, bag: false };
  }
  const named = headingColumns(Array.from({ length: count }, (_, i) => heading?.cells[i] ?? ''));
  for (let i = 0; i < count; i++) {
    const cells = column(i);
    const whole = share(cells, (c) => /^\d{1,4}$/.test(c));
    if (cells.length > 0 && whole >= MOSTLY && runs(cells)) roles[i] = 'number';
    else if (cells.length > 0 && share(cells, isRefList) >= 0.5 && !roles.includes('refs')) roles[i] = 'refs';
  }
  for (let i = 0; i < count; i++) {
    const name = named[i];
    if (roles[i] !== null || !name || roles.includes(name)) continue;
    if (name === 'quantity' && share(column(i), (c) => /\d/.test(c) && c.length < 12) < 0.5 && share(column(i), (c) => COUNT_CELL.test(c)) < 0.5) continue;
    if (name === 'refs' && share(column(i), isRefList) < 0.3) continue;
    roles[i] = name;
  }
  if (!roles.includes('quantity')) {
    const candidates = roles.flatMap((r, i) => (r === null && column(i).length > 0 && share(column(i), (c) => COUNT_CELL.test(c)) >= 0.7 ? [i] : []));
    const refs = roles.indexOf('refs');
    const agrees = (i: number) => share(parts, (r) => refs >= 0 && Number.parseInt(r.cells[i] ?? '', 10) === countRefs(r.cells[refs] ?? ''));
    const best = candidates.sort((a, b) => agrees(b) - agrees(a))[0];
    if (best !== undefined) roles[best] = 'quantity';
  }
  return { roles, bag: false };
}

const COUNT_CELL = /^(?:[x×*]\s*)?\d{1,4}\s*(?:x|×|pcs?\.?|st(?:k|ück)?\.?|szt\.?|шт\.?|个|個|只|本|uds?\.?|un\.?)?$|^[-–—]$/iu;
const countRefs = (cell: string) => cell.split(/[,;/\s]+/).filter(Boolean).length;

/** Numbers that grow by one from row to row, with a gap now and then. */
export function runs(cells: readonly string[]): boolean {
  const numbers = cells.filter((c) => /^\d{1,4}$/.test(c)).map(Number);
  if (numbers.length < 3) return numbers.length === 2 && numbers[0] === 1 && numbers[1] === 2;
  const steps = numbers.slice(1).map((n, i) => n - numbers[i]!);
  return share(steps, (s) => s === 1) >= 0.7 && steps.every((s) => s > 0);
}
