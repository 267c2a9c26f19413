import { cellsOf, type Separator } from './cells';
import { type Columns, columnsOf } from './centroidColumns';
import { type Placed, type PlacedPart, type PlaceRemark, type Side, turned } from './placed';
import { bare, wordsOf } from './text';
import { INCH, MIL, type Printed, readDegrees, readLength, statedUnit } from './units';

interface Heading {
  readonly columns: Columns;
  readonly separator: Separator;
  readonly cells: number;
}

/** A row with a ref, a place and a side; the unit of the place may still be open. */
interface Row {
  readonly line: number;
  readonly ref: string;
  readonly x: Printed;
  readonly y: Printed;
  readonly rotation: number;
  readonly side: Side | null;
  readonly columns: Columns;
}

const COMMENT = /^\s*(?:#|\/\/|\*|%|!)/;
const COMMENT_MARKS = /^[\s#/*%!]+/;
/** Lines of separators, and rulers. */
const NOTHING = /^(?:[\s,;]*|[\s\-=_+|*~]*)$/;
const sides = (top: string, bottom: string): ReadonlyMap<string, Side> =>
  new Map([...top.split(' ').map((w) => [w, 'top'] as const), ...bottom.split(' ').map((w) => [w, 'bottom'] as const)]);
const SIDES = sides(
  't top toplayer topside f front fcu frontside component componentside primary',
  'b bot bottom bottomlayer bottomside bcu back backside solder solderside secondary',
);
const MIRROR = sides('no n false 0', 'yes y true 1 m');

/** Greatest extent of a board that is printed in inches, and least of one in mils: what boards plausibly measure. */
const FEWEST_MILS = 500;
const MOST_INCHES = 5;

/**
 * A pick-and-place list: one part a row under a heading with a ref, an x and a y.
 * @returns null without such a heading
 */
export function readCentroid(lines: readonly string[]): Placed | null {
  const first = lines.findIndex((l) => headingOf(COMMENT.test(l) ? l.replace(COMMENT_MARKS, '') : l) !== null);
  if (first < 0) return null;
  const prose = lines.filter((l, i) => i !== first && (i < first || COMMENT.test(l)));
  const findings: PlaceRemark[] = [];
  const rows: Row[] = [];
  let heading = headingOf(COMMENT.test(lines[first]!) ? lines[first]!.replace(COMMENT_MARKS, '') : lines[first]!)!;
  let inValues: number | null = null;
  for (let i = first + 1; i < lines.length; i++) {
    const line = lines[i]!;
    if (NOTHING.test(line) || COMMENT.test(line)) continue;
    const cells = rowCells(line, heading);
    // Rows are many and headings few: only a line without numbers is looked at as one.
    const again = cells && readLength(cells[heading.columns.x] ?? '') ? null : headingOf(line);
    if (again) {
      heading = again;
      continue;
    }
    const row = cells && rowOf(cells, heading, i + 1);
    if (cells) inValues ??= firstUnit(cells, heading.columns);
    if (row) rows.push(row);
    else findings.push({ code: 'bad-row', line: i + 1, text: `Line ${i + 1} is no part that can be read: “${line.trim().slice(0, 60)}”. It is left out.` });
  }
  const stated = prose.reduce<ReturnType<typeof statedUnit>>((found, line) => found ?? statedUnit(line), null);
  const guess = rows.filter((r) => needsGuess(r.x, r.columns, stated, inValues) || needsGuess(r.y, r.columns, stated, inValues));
  const guessed = guess.length > 0 ? guessUnit(rows, stated, inValues) : null;
  if (guessed !== null)
    findings.push({ code: 'unit-guessed', text: `The file names no unit; ${NAMES[guessed] ?? 'mm'} was taken because the board then has a plausible size.` });
  const unit = (p: Printed, own: number | null, other: number | null) => p.unit ?? own ?? other ?? stated ?? inValues ?? guessed ?? 1;
  const side = prose.reduce<ReturnType<typeof statedSide>>((found, line) => found ?? statedSide(line), null) ?? 'top';
  const parts: PlacedPart[] = [];
  const seen = new Set<string>();
  for (const r of rows) {
    const key = r.ref.toLowerCase();
    if (seen.has(key)) {
      findings.push({ code: 'duplicate-ref', line: r.line, text: `${r.ref} is on line ${r.line} again; its first row counts.` });
      continue;
    }
    seen.add(key);
    const { xUnit, yUnit } = r.columns;
    parts.push({
      ref: r.ref,
      x: r.x.value * unit(r.x, xUnit, yUnit),
      y: r.y.value * unit(r.y, yUnit, xUnit),
      rotation: turned(r.rotation),
      side: r.side ?? side,
    });
  }
  return { format: 'centroid', ...unmirrored(parts, prose, findings) };
}

const NAMES: Readonly<Record<number, string>> = { [MIL]: 'mil', [INCH]: 'inch' };

function headingOf(line: string): Heading | null {
  if (line.length > 10_000) return null;
  const separators: readonly Separator[] = line.includes('\t') ? ['\t'] : line.includes(';') ? [';'] : line.includes(',') ? [','] : ['wide', 'blank'];
  for (const separator of separators) {
    const cells = cellsOf(line, separator);
    const columns = cells && columnsOf(cells);
    if (columns) return { columns, separator, cells: cells.length };
  }
  return null;
}

function rowCells(line: string, { separator, cells: wanted }: Heading): string[] | null {
  if (separator !== 'wide' && separator !== 'blank') return cellsOf(line, separator);
  const wide = cellsOf(line, 'wide');
  return wide?.length === wanted ? wide : cellsOf(line, 'blank');
}

function rowOf(cells: readonly string[], { columns, cells: wanted }: Heading, line: number): Row | null {
  if (cells.filter((c) => c !== '').length > wanted) return null;
  const at = (column: number | null) => (column === null ? '' : (cells[column] ?? ''));
  const ref = at(columns.ref);
  const [x, y] = [readLength(at(columns.x)), readLength(at(columns.y))];
  const rotation = at(columns.rotation) === '' ? 0 : readDegrees(at(columns.rotation));
  const word = at(columns.side);
  const side = word === '' ? null : ((columns.mirror ? MIRROR : SIDES).get(bare(word)) ?? 'unknown');
  if (ref === '' || !x || !y || rotation === null || side === 'unknown') return null;
  return { line, ref, x, y, rotation, side, columns };
}

const firstUnit = (cells: readonly string[], { x, y }: Columns): number | null => {
  for (const column of [x, y].sort((a, b) => a - b)) {
    const unit = readLength(cells[column] ?? '')?.unit;
    if (unit !== null && unit !== undefined) return unit;
  }
  return null;
};

const needsGuess = (p: Printed, { xUnit, yUnit }: Columns, stated: number | null, inValues: number | null) =>
  p.unit === null && (xUnit ?? yUnit ?? stated ?? inValues) === null;

function guessUnit(rows: readonly Row[], stated: number | null, inValues: number | null): number {
  const extent = (of: (r: Row) => Printed) => {
    const open = rows.filter((r) => needsGuess(of(r), r.columns, stated, inValues)).map((r) => of(r).value);
    return open.reduce((m, v) => Math.max(m, v), -Infinity) - open.reduce((m, v) => Math.min(m, v), Infinity);
  };
  const size = Math.max(
    extent((r) => r.x),
    extent((r) => r.y),
  );
  return size >= FEWEST_MILS ? MIL : size > 0 && size < MOST_INCHES ? INCH : 1;
}

/** `Side: bottom` on a line of its own. */
function statedSide(line: string): Side | null {
  const found = /^(?:side|layer)\s*[:=]\s*(\S.*)$/i.exec(line.replace(COMMENT_MARKS, '').trim());
  return found ? (SIDES.get(bare(found[1]!)) ?? null) : null;
}

/** Files that look at the bottom from below say so; x of what lies there is turned round again. */
function unmirrored(parts: readonly PlacedPart[], prose: readonly string[], findings: readonly PlaceRemark[]): Pick<Placed, 'parts' | 'findings'> {
  const says = prose.some((line) => {
    const words = new Set(wordsOf(line));
    const any = (...list: readonly string[]) => list.some((w) => words.has(w));
    return any('bottom', 'back') && any('mirrored', 'negated', 'flipped') && !any('not', 'no');
  });
  if (!says || !parts.some((p) => p.side === 'bottom')) return { parts, findings };
  return {
    parts: parts.map((p) => (p.side === 'bottom' ? { ...p, x: 0 - p.x } : p)),
    findings: [...findings, { code: 'mirrored', text: 'The file says that the bottom side is mirrored: x of its parts was mirrored.' }],
  };
}

/**
 * Parts as a centroid file that `readCentroid` reads back to a thousandth of a millimetre.
 * @throws Error for a ref that a line of text cannot hold, or a place that is no number
 */
export function writeCentroid(parts: readonly PlacedPart[]): string {
  const row = (p: PlacedPart) => [quoted(p.ref), plain(p.x), plain(p.y), p.rotation === null ? '' : plain(p.rotation), p.side].join(',');
  return [['Ref', 'X (mm)', 'Y (mm)', 'Rotation', 'Side'].join(','), ...parts.map(row)].map((l) => `${l}\n`).join('');
}

function quoted(ref: string): string {
  if (ref.trim() === '' || /[\r\n\0]/.test(ref)) throw new Error(`the ref ${JSON.stringify(ref.slice(0, 30))} cannot be written on one line`);
  return COMMENT.test(ref) || /[",\s\ufeff]/.test(ref) ? `"${ref.replaceAll('"', '""')}"` : ref;
}

function plain(value: number): string {
  const text = value.toFixed(6);
  if (!Number.isFinite(value) || text.includes('e')) throw new Error(`${value} is no place on a board`);
  const short = text.includes('.') ? text.replace(/0+$/, '').replace(/\.$/, '') : text;
  return short === '-0' ? '0' : short;
}
