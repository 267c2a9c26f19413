import Papa from 'papaparse';
import { type Column, headingColumn, headingColumns } from '../columns';
import { kindByWords } from './kinds';
import { boardHeading, footnoteOf, noticeOf, saysAdvice, saysList, saysNotFitted, saysNotSupplied, saysSection } from './notices';
import type { Ignored, SheetKind } from './reading';
import { isRefList, takeRefs } from './refs';
import { CELL, plain, width } from './text';

export type Role = Column | 'number';

/** What is printed about one part, gathered from its source lines. */
export interface Item {
  readonly sources: readonly number[];
  readonly cells: readonly { readonly role: Role | null; readonly text: string }[];
  readonly board: string | null;
  /** What the section's heading names; null without one. */
  readonly section: SheetKind | null;
  readonly supplied: boolean;
}

export interface Laid {
  readonly title: string | null;
  readonly items: readonly Item[];
  readonly ignored: readonly { readonly source: number; readonly why: Ignored; readonly text: string }[];
  /** Source lines that say nothing that could be a part. */
  readonly blank: readonly { readonly source: number; readonly text: string }[];
  /** What the footnotes' marks mean. */
  readonly footnotes: ReadonlyMap<string, { readonly supplied: boolean; readonly fitted: boolean }>;
  /** Every source line that is not empty. */
  readonly source: readonly { readonly source: number; readonly text: string }[];
  /** How the sheet is set: cells of a table, columns of fixed pitch, or running text. */
  readonly way: 'table' | 'columns' | 'text';
  readonly roles: readonly (Role | null)[];
  readonly heading: number;
}

interface Row {
  readonly source: number;
  readonly cells: readonly string[];
  /** Column of fixed pitch where each cell begins. */
  readonly starts?: readonly number[];
  readonly indented: boolean;
}

const MOSTLY = 0.6;
const share = <T>(all: readonly T[], fits: (x: T) => boolean) => (all.length === 0 ? 0 : all.filter(fits).length / all.length);
const filled = (row: Row) => row.cells.filter((c) => c.trim() !== '');

/** Cuts a sheet into rows and cells, whatever its layout. */
export function rowsOf(source: string | readonly (readonly string[])[]): { rows: Row[]; way: Laid['way'] } {
  if (typeof source !== 'string') {
    const rows = source.map((cells, i) => ({ source: i + 1, cells: cells.map((c) => plain(c).trim()), indented: false }));
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
  const lines = source.split(/\r\n|\r|\n/).map((raw, i) => ({ source: i + 1, raw, text: plain(raw).replace(/\s+$/, '') }));
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

const printedOf = (source: string | readonly (readonly string[])[]) =>
  (typeof source === 'string' ? source.split(/\r\n|\r|\n/) : source.map((cells) => cells.join(' '))).flatMap((text, i) =>
    plain(text).trim() === '' ? [] : [{ source: i + 1, text: plain(text).trim() }],
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
const SEARCHED = 12;

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

/** Lays a sheet out: which lines hold parts, and what each of their cells is. */
export function layOut(source: string | readonly (readonly string[])[], chosen: readonly (Column | null)[] | null = null): Laid {
  const { rows, way } = rowsOf(source);
  const full = rows.filter((r) => filled(r).length > 0);
  const heading = way === 'text' ? undefined : full.slice(0, SEARCHED).find(isHeading);
  const aligned = heading?.starts ? alignedRows(full, heading) : full;
  const body = aligned.filter((r) => !sameCells(r, heading));
  const { roles, bag } = way === 'text' ? { roles: [], bag: true } : rolesOf(body, heading, chosen);
  const sheet = new Sheet(way, way === 'text' ? [] : roles);
  const classes = way === 'text' ? new Prefixes(full) : null;
  for (const row of aligned) {
    if (heading && sameCells(row, heading)) sheet.ignore(row, 'column heading');
    else if (classes) sheet.text(row, classes);
    else sheet.row(row, bag ? null : roles, heading !== undefined && row.source < heading.source);
  }
  return { ...sheet.laid(), source: printedOf(source), way, roles, heading: heading?.source ?? -1 };
}

const isHeading = (row: Row): boolean => {
  const cells = filled(row);
  const named = cells.filter((c) => headingColumn(c) !== null).length;
  return named >= 2 && named >= cells.length / 2 && cells.every((c) => !/\d{2}/.test(c));
};
const sameCells = (row: Row, heading: Row | undefined) =>
  heading !== undefined && filled(row).join('¦').replace(/\s/g, '') === filled(heading).join('¦').replace(/\s/g, '');

/** Cells of fixed pitch put under the heading's columns; as they are where the sheet does not keep to them. */
function alignedRows(rows: readonly Row[], heading: Row): Row[] {
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
function rolesOf(rows: readonly Row[], heading: Row | undefined, chosen: readonly (Column | null)[] | null): { roles: (Role | null)[]; bag: boolean } {
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
    if (name === 'quantity' && share(column(i), (c) => COUNT_CELL.test(c)) < 0.5) continue;
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
function runs(cells: readonly string[]): boolean {
  const numbers = cells.filter((c) => /^\d{1,4}$/.test(c)).map(Number);
  if (numbers.length < 3) return numbers.length === 2 && numbers[0] === 1 && numbers[1] === 2;
  const steps = numbers.slice(1).map((n, i) => n - numbers[i]!);
  return share(steps, (s) => s === 1) >= 0.7 && steps.every((s) => s > 0);
}

type PrefixClass = 'dot' | 'bracket' | 'two' | 'one' | 'count' | 'times' | 'star' | 'dash' | 'refs' | 'other';

/** How lines of running text begin, and which of their leading numbers only count the lines. */
class Prefixes {
  readonly usual: PrefixClass;
  /** The first number of a line is a running number. */
  readonly running: boolean;
  readonly counted: boolean;

  constructor(rows: readonly Row[]) {
    const lines = rows.filter((r) => !r.indented).map((r) => r.cells[0]!);
    const tally = new Map<PrefixClass, number>();
    for (const l of lines) tally.set(prefixOf(l), (tally.get(prefixOf(l)) ?? 0) + 1);
    if (tally.has('one') && tally.has('two')) {
      tally.set('two', tally.get('two')! + tally.get('one')!);
    }
    this.usual = [...tally].sort((a, b) => b[1] - a[1])[0]?.[0] ?? 'other';
    const numbered = lines.filter((l) => ['one', 'two'].includes(prefixOf(l)));
    this.running = numbered.length >= 2 && runs(numbered.map((l) => /^\d+/.exec(l)![0])) && !agreesWithRefs(numbered);
    this.counted =
      share(
        lines.filter((l) => isRefList(l.split(/\s/)[0]!)),
        (l) => TRAILING_COUNT.test(l),
      ) > 0.7;
  }

  /** Whether a line that does not begin as the others do carries the one above on. */
  carriesOn(row: Row, above: string): boolean {
    const text = row.cells[0]!;
    if ((above.match(/\(/g)?.length ?? 0) > (above.match(/\)/g)?.length ?? 0) && /\)/.test(text)) return true;
    if (/^(?:pezzi|pezz[io]|pcs|pieces|stück|stk\.?|шт\.?|szt\.?|peças|piezas|pièces|off)$/iu.test(text)) return true;
    if (row.indented) return true;
    if (/[,/(]$/.test(above) && !/^[-*\d]+[.)x]/.test(text)) return true;
    const mine = prefixOf(text);
    if (mine === this.usual || /^\d/.test(text)) return false;
    // With positions of its own behind a line that has its own, it begins a part.
    if (hasRefs(text) && hasRefs(above)) return false;
    if (!['refs', 'other'].includes(this.usual)) return mine === 'other' && !kindAlone(text, this.usual);
    return this.usual === 'refs' && this.counted && mine === 'other' && !TRAILING_COUNT.test(above) && TRAILING_COUNT.test(text);
  }
}

/** `Gehäuse`: a part without count among counted ones begins with its own name and holds nothing else. */
const hasRefs = (text: string) => takeRefs(text, () => false).refs.length > 0;
const kindAlone = (text: string, usual: PrefixClass) => usual === 'dash' && kindByWords(text) !== null;
const TRAILING_COUNT =
  /\d+\s*(?:pz\.?|pezzi|pcs?\.?|pieces|st(?:k|ück)?\.?|szt\.?|шт\.?|un\.?|uds?\.?|peças|個|本|个|只|off|x)\s*(?:\([^)]*\))?\s*\**$|[x×*]\s*\d+\s*(?:\([^)]*\))?$/iu;
const agreesWithRefs = (lines: readonly string[]) => {
  const told = lines.flatMap((l) => {
    const first = Number(/^\d+/.exec(l)![0]);
    const refs = l
      .split(/\s+/)
      .filter((w) => /^[A-Z]{1,4}\d{1,3}(?:,[A-Z]{1,4}\d{1,3})*$/.test(w))
      .flatMap((w) => w.split(','));
    return refs.length > 0 ? [first === refs.length] : [];
  });
  return told.length >= 3 && share(told, Boolean) >= 0.8;
};

const UNIT_NEXT = /^\d+(?:[.,]\d+)?\s*(?:m|cm|mm|V|W|A|mA|k|K|M|R|Ω|ohm|pin|p|P)(?![\p{L}])/u;
function prefixOf(line: string): PrefixClass {
  if (/^\d{1,3}\.\s*(?=[^\d\s])/.test(line)) return 'dot';
  if (/^\(?\d{1,3}\)/.test(line)) return 'bracket';
  if (/^[-–—•·]\s/.test(line)) return 'dash';
  if (/^\*\d/.test(line)) return 'star';
  if (/^[x×]\s?\d/.test(line)) return 'times';
  if (UNIT_NEXT.test(line)) return 'other';
  if (/^\d{1,3}\s?(?:[x×]|st(?:k|ück|\.)|pcs?\b|szt|шт|uds?\b|un\b|pz|pièces?|个|個|只|本)/iu.test(line)) return 'count';
  if (/^\d{1,3}\s+\d{1,4}\s+(?=\D)/.test(line)) return 'two';
  if (/^\d{1,4}\s+(?=\S)/.test(line)) return 'one';
  const first = /^[^\s:]+(?::|(?=\s|$))/.exec(line)?.[0].replace(/:$/, '') ?? '';
  return isRefList(first.replace(/,$/, '')) ? 'refs' : 'other';
}

/** Gathers the items in their order, with the sections and boards that they stand under. */
class Sheet {
  private title: string | null = null;
  private readonly items: {
    sources: number[];
    cells: { role: Role | null; text: string }[];
    board: string | null;
    section: SheetKind | null;
    supplied: boolean;
  }[] = [];
  private readonly ignored: { source: number; why: Ignored; text: string }[] = [];
  private readonly blank: { source: number; text: string }[] = [];
  private readonly footnotes = new Map<string, { supplied: boolean; fitted: boolean }>();
  private board: string | null = null;
  private section: SheetKind | null = null;
  private supplied = true;
  /** The name cell above, for cells that were merged downwards. */
  private above = '';

  constructor(
    private readonly way: Laid['way'],
    private readonly roles: readonly (Role | null)[],
  ) {}

  ignore(row: Row, why: Ignored): void {
    this.ignored.push({ source: row.source, why, text: filled(row).join(' ') });
  }

  /** A line that holds one text alone: a title, a section, a remark; false when it may be a part. */
  private notice(row: Row, text: string, early: boolean): boolean {
    const why = noticeOf(text);
    if (why) {
      this.ignore(row, why);
      return true;
    }
    const footnote = footnoteOf(text);
    if (footnote && (saysNotSupplied(footnote.says) || saysNotFitted(footnote.says) || saysAdvice(footnote.says))) {
      this.footnotes.set(footnote.mark, { supplied: !saysNotSupplied(footnote.says), fitted: !saysNotFitted(footnote.says) });
      this.ignore(row, 'footnote');
      return true;
    }
    const board = boardHeading(text);
    if (board !== null && this.way !== 'table') {
      this.board = board;
      this.supplied = true;
      this.section = null;
      this.ignore(row, 'board');
      return true;
    }
    const bare = text.replace(/\s*[:：]\s*$|\s+[-–—]+\s*$/, '');
    const marked = bare !== text;
    if (saysNotSupplied(text) && !/\d/.test(text) && (marked || kindByWords(text.replace(/kit|set/gi, '')) === null)) {
      this.supplied = false;
      this.section = null;
      this.ignore(row, 'section');
      return true;
    }
    if ((marked || this.isSection(bare)) && !/\d/.test(bare) && bare.length < 40 && !saysList(bare)) {
      this.section = sectionKind(bare);
      this.supplied = true;
      this.ignore(row, 'section');
      return true;
    }
    const first = this.items.length === 0 && this.title === null;
    if (first && saysList(text) && prefixOf(text) === 'other') {
      this.title = text;
      this.ignore(row, 'title');
      return true;
    }
    if (saysAdvice(text) && !/[=:]\s*\d|\d\s*(?:Ω|ohm|uF|µF|nF|pF)/i.test(text) && text.length > 8) {
      this.ignore(row, 'advice');
      return true;
    }
    if (saysList(text) && !/\d/.test(text) && this.title !== null && text.length < 60 && kindByWords(text.replace(this.title, '')) === null) {
      this.ignore(row, 'page');
      return true;
    }
    if (early && first && prefixOf(text) === 'other' && !/\d[kKRMΩµunp]|(?<![\p{L}\d])[A-Z]{1,5}\d{1,3}(?![\p{L}\d])/u.test(text)) {
      this.title = text;
      this.ignore(row, 'title');
      return true;
    }
    return false;
  }

  /** `电阻类`, `Halbleiter`: a heading without its colon. */
  private isSection(text: string): boolean {
    const bare = text.replace(/^[=[#*\-–—<\s]+|[=\]#*\-–—>\s]+$/g, '');
    return /[类類]$/.test(bare) || (saysSection(bare) && SECTION_ALONE.test(bare));
  }

  row(row: Row, roles: readonly (Role | null)[] | null, early: boolean): void {
    const cells = filled(row);
    if (cells.length === 1 || SUM_ROW.test(cells[0]!)) {
      const text = cells.length === 1 ? cells[0]! : cells.join(' ');
      if (this.notice(row, text, early || this.items.length === 0)) return;
      if (/^[?.…\s]+$/.test(text)) return void this.blank.push({ source: row.source, text });
      if (row.indented && roles && this.carryOn(row, roles)) return;
      if (cells.length === 1 && saysNotSupplied(text) && kindByWords(text) === null) return;
    }
    if (roles && row.indented && row.cells[0] === '' && this.carryOn(row, roles)) return;
    if (cells.length > 1 && this.rowNotice(row, cells)) return;
    const item = row.cells.map((text, i) => ({ role: roles?.[i] ?? null, text: text.trim() })).filter((c) => c.text !== '');
    this.items.push({ sources: [row.source], cells: this.named(row, item, roles), board: this.boardOf(row), section: this.section, supplied: this.supplied });
  }

  private rowNotice(row: Row, cells: readonly string[]): boolean {
    const text = cells.join(' ');
    if (/^(?:\d+\s*)?[?？.…]{2,}(?:\s*\d+)?$/.test(text.replace(/\s*\(.*\)$/, ''))) {
      this.blank.push({ source: row.source, text });
      return true;
    }
    const why = noticeOf(text);
    if (why === 'page' || why === 'rule') {
      this.ignore(row, why);
      return true;
    }
    const footnote = footnoteOf(text);
    if (footnote && (saysNotSupplied(text) || saysNotFitted(text)) && !cells.some(isRefList)) return this.notice(row, text, false);
    return false;
  }

  private boardOf(row: Row): string | null {
    const at = this.roles.indexOf('board');
    return at >= 0 && row.cells[at] ? row.cells[at] : this.board;
  }

  /** The name of a row above stands for an empty or a ditto cell. */
  private named(row: Row, cells: Item['cells'], roles: readonly (Role | null)[] | null): { role: Role | null; text: string }[] {
    const own = cells.map((c) => ({ ...c }));
    const ditto = own.findIndex((c) => DITTO.test(c.text));
    const at = roles?.indexOf('kind') ?? -1;
    const name = at >= 0 ? (row.cells[at] ?? '') : (own.find((c) => kindByWords(c.text) !== null)?.text ?? '');
    if (ditto >= 0) own[ditto] = { ...own[ditto]!, text: this.above };
    else if (
      at >= 0 &&
      name === '' &&
      this.above !== '' &&
      own.length >= 2 &&
      own.some((c) => c.role !== 'quantity' && c.role !== 'number' && /\p{L}|\d/u.test(c.text))
    )
      own.push({ role: 'kind', text: this.above });
    else if (name !== '') this.above = name.replace(/\([^)]*\)|[-–]\s*\p{L}+\s*$/gu, '').trim();
    return own;
  }

  /** The rest of a row above: joined cell by cell. */
  private carryOn(row: Row, roles: readonly (Role | null)[]): boolean {
    const last = this.items.at(-1);
    if (!last) return false;
    row.cells.forEach((text, i) => {
      if (text === '') return;
      const cell = last.cells.find((c) => c.role !== null && c.role === roles[i]);
      if (cell) cell.text = `${cell.text}${/[,/]$/.test(cell.text) ? '' : ' '}${text}`;
      else last.cells.push({ role: roles[i] ?? null, text });
    });
    last.sources.push(row.source);
    return true;
  }

  text(row: Row, prefixes: Prefixes): void {
    const line = row.cells[0]!;
    const last = this.items.at(-1);
    const above = last ? last.cells.map((c) => c.text).join(' ') : '';
    const glued = last?.sources.at(-1) === row.source - 1 || (last !== undefined && row.indented);
    const garbage = /^(?:\d+\s*(?:x|pcs?\.?|个|個)?\s*)?(?:[?？]+|\.{3,}|…)(?:\s*\([^)]*\))?$|^\d+\s*(?:pcs?|x|个|個)\.?\s*\([^)]*\)$/iu.test(line);
    if (garbage) return void this.blank.push({ source: row.source, text: line });
    if (last && glued && row.indented && !noticeOf(line) && prefixes.carriesOn(row, above)) return this.glue(last, row, line);
    if (this.notice(row, line, true)) return;
    if (last && glued && prefixes.carriesOn(row, above)) return this.glue(last, row, line);
    for (const part of splitInline(line))
      this.items.push({ sources: [row.source], cells: cellsOfText(part, prefixes), board: this.board, section: this.section, supplied: this.supplied });
  }

  private glue(last: (typeof this.items)[number], row: Row, line: string): void {
    const cell = last.cells.at(-1)!;
    const open = /[,/]$/.test(cell.text);
    cell.text = `${cell.text}${open ? '' : ' '}${line}`;
    last.sources.push(row.source);
  }

  laid(): Pick<Laid, 'title' | 'items' | 'ignored' | 'blank' | 'footnotes'> {
    return { title: this.title, items: this.items, ignored: this.ignored, blank: this.blank, footnotes: this.footnotes };
  }
}

const SUM_ROW = /^(?:(?:grand |small |sub)?total|altogether|gesamt|summe|razem|итого|всего|合计|合計|总计|小计|totale|somme|suma)/iu;
const DITTO =
  /^(?:id\.?|idem|ditto|dto\.?|do\.|″|"|''|〃|々|同上|同|то же|jw\.?|j\.w\.|wie oben|s\. ?o\.|come sopra|como arriba|igual|lo mismo|ibid\.?|-"-|„)$/iu;
const SECTION_ALONE =
  /^(?:resist(?:ors?|encias|ores|ori|enze|ances)|résistances|widerstände|rezystory|резисторы|capacitors?|capacitores|condensa\p{L}*|kondensator\p{L}*|конденсаторы|semicondu\p{L}*|halbleiter|półprzewodniki|полупроводники|misc\p{L}*|other parts|other|others|sonstiges|verschiedenes|divers\p{L}*|varie|varios|vari|otros|outros|autres|inne|разное|прочее|passives?|mechanik|mechanical|hardware|抵抗|コンデンサ|半導体|その他|其他|其它)(?:\s(?:parts|materials))?$/iu;

/** Kind that a section's heading names, where it names one part and no family. */
const sectionKind = (text: string): SheetKind | null => {
  const kind = kindByWords(text);
  return kind === 'resistor' || kind === 'capacitor' || kind === 'inductor' || kind === 'led' || kind === 'diode' ? kind : null;
};

/** Several parts in one line, parted by semicolons. */
const splitInline = (line: string): string[] => {
  const parts = line.split(/;\s*/).filter((p) => p.trim() !== '');
  return parts.length > 1 ? parts : [line.replace(/;\s*$/, '')];
};

/** Cells of a line of running text: its number and count in front, leaders and dashes between. */
function cellsOfText(line: string, prefixes: Prefixes): { role: Role | null; text: string }[] {
  const cells: { role: Role | null; text: string }[] = [];
  let rest = line.replace(/^[-–—•·]\s+/, '');
  const ordinal = /^\(?(\d{1,3})[.)]\s*(?=[^\d\s]|\d)/.exec(rest);
  if (ordinal && (prefixes.usual === 'dot' || prefixes.usual === 'bracket')) rest = rest.slice(ordinal[0].length);
  else if (prefixes.running && /^\d{1,3}\s/.test(rest)) {
    rest = rest.replace(/^\d{1,3}\s+/, '');
    const count = /^(\d{1,4})\s+(?=\D|\d+\S*\p{L})/u.exec(rest);
    if (count && prefixes.usual === 'two') {
      cells.push({ role: 'quantity', text: count[1]! });
      rest = rest.slice(count[0].length);
    }
  } else if (/^\d{1,4}\s+\S/.test(rest) && !UNIT_NEXT.test(rest) && prefixOf(rest) === 'one' && (prefixes.usual === 'one' || prefixes.usual === 'two')) {
    cells.push({ role: 'quantity', text: /^\d+/.exec(rest)![0] });
    rest = rest.replace(/^\d+\s+/, '');
  }
  const leaders = rest.replace(/\s*\.{4,}\s*|\s*…{2,}\s*|\s*_{4,}\s*/g, CELL);
  const dashed = leaders.replace(/(?<![A-Z]\d{1,3})\s+[-–—]\s+|\s+[-–—]\s+(?![A-Z]{1,4}\d)|\s+[-–—]$/g, CELL);
  const labelled = dashed.replace(/^([^:¦]{1,200}?):\s+/, (all, head: string) => (isRefList(head) ? `${head}${CELL}` : all));
  for (const text of labelled.split(CELL.trim())) if (text.trim() !== '') cells.push({ role: null, text: text.trim() });
  return cells.length > 0 ? cells : [{ role: null, text: line }];
}
