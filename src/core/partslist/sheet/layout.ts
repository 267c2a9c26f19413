import { type Column, isHeadingWord } from '../columns';
import { type Headed, headingOf, remarkOnAll } from './headed';
import { kindByWords } from './kinds';
import { boardHeading, footnoteOf, namedUnsupplied, noticeOf, saysAdvice, saysList, saysNotFitted, saysNotSupplied, saysSection } from './notices';
import { cellsOfText, prefixOf, Prefixes, splitInline } from './prefixes';
import type { Ignored, SheetKind } from './reading';
import { isRefList } from './refs';
import { alignedRows, filled, isHeading, printedOf, type Role, rolesOf, type Row, rowsOf, sameCells, SEARCHED, type Way } from './rows';

/** What is printed about one part, gathered from its source lines. */
export interface Item {
  readonly sources: readonly number[];
  readonly cells: readonly { readonly role: Role | null; readonly text: string }[];
  readonly board: string | null;
  /** What the section's heading names; null without one. */
  readonly section: SheetKind | null;
  /** What was said of all parts of a kind above. */
  readonly headed: readonly Headed[];
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
  /** Every source line that is not empty, as printed. */
  readonly printed: ReadonlyMap<number, string>;
  /** Cells of a table as it was cut. */
  readonly cells: readonly { readonly line: number; readonly cells: readonly string[] }[];
  /** How the sheet is set: cells of a table, columns of fixed pitch, or running text. */
  readonly way: Way;
  readonly roles: readonly (Role | null)[];
  readonly heading: number;
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
  for (const [i, row] of aligned.entries()) {
    const next = aligned[i + 1] ? filled(aligned[i + 1]!).join(' ') : '';
    if (heading && sameCells(row, heading)) sheet.ignore(row, 'column heading');
    else if (classes) sheet.text(row, classes, next);
    else sheet.row(row, bag ? null : roles, heading !== undefined && row.source < heading.source, next);
  }
  return {
    ...sheet.laid(),
    printed: printedOf(source),
    cells: way === 'text' ? [] : aligned.map((r) => ({ line: r.source, cells: r.cells })),
    way,
    roles,
    heading: heading?.source ?? -1,
  };
}

/** Gathers the items in their order, with the sections and boards that they stand under. */
class Sheet {
  private title: string | null = null;
  private readonly items: {
    sources: number[];
    cells: { role: Role | null; text: string }[];
    board: string | null;
    section: SheetKind | null;
    headed: readonly Headed[];
    supplied: boolean;
  }[] = [];
  /** Remarks that hold for the whole sheet, and the heading above. */
  private readonly general: Headed[] = [];
  private heading: Headed | null = null;
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

  private get headed(): readonly Headed[] {
    return this.heading === null ? this.general : [...this.general, this.heading];
  }

  ignore(row: Row, why: Ignored): void {
    this.ignored.push({ source: row.source, why, text: filled(row).join(' ') });
  }

  /** A line that holds one text alone: a title, a section, a remark; false when it may be a part. */
  private notice(row: Row, text: string, early: boolean, next: string): boolean {
    const why = noticeOf(text);
    if (why) {
      this.ignore(row, why);
      return true;
    }
    const headed = text.split(/\s+/);
    if (this.way === 'text' && headed.length >= 2 && headed.every(isHeadingWord)) {
      this.ignore(row, 'column heading');
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
    if (saysNotSupplied(text) && !/\d/.test(text) && (marked || !namedUnsupplied(text)) && (marked || kindByWords(text.replace(/kit|set/gi, '')) === null)) {
      this.supplied = false;
      this.section = null;
      this.ignore(row, 'section');
      return true;
    }
    if ((marked || this.isSection(bare)) && !/\d/.test(marked ? bare.replace(/\([^()]*\)/g, '') : bare) && bare.length < 40 && !saysList(bare)) {
      this.section = sectionKind(bare);
      this.heading = headingOf(bare, next, marked);
      this.supplied = true;
      this.ignore(row, 'section');
      return true;
    }
    const general = remarkOnAll(text);
    if (general) {
      this.general.push(general);
      this.ignore(row, 'advice');
      return true;
    }
    const heading = headingOf(bare, next, marked);
    if (heading) {
      this.section = sectionKind(bare);
      this.heading = heading;
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
    if (early && first && prefixOf(text) === 'other' && !/(?:^|\s)\d{1,3}\s?[x×]\s|\d[kKRMΩµunp]|(?<![\p{L}\d])[A-Z]{1,5}\d{1,3}(?![\p{L}\d])/u.test(text)) {
      this.title = text;
      this.ignore(row, 'title');
      return true;
    }
    return false;
  }

  /** `电阻类`, `Halbleiter`: a heading without its colon. */
  private isSection(text: string): boolean {
    const bare = text.replace(/^[=[#*<\s]+|[=\]#*\-–—>\s]+$/g, '');
    return /[类類]$/.test(bare) || (saysSection(bare) && SECTION_ALONE.test(bare));
  }

  row(row: Row, roles: readonly (Role | null)[] | null, early: boolean, next: string): void {
    const cells = filled(row);
    if (cells.length === 1 || SUM_ROW.test(cells[0]!)) {
      const text = cells.length === 1 ? cells[0]! : cells.join(' ');
      if (this.notice(row, text, early || this.items.length === 0, next)) return;
      if (/^[?.…\s]+$/.test(text)) return void this.blank.push({ source: row.source, text });
      if (row.indented && roles && this.carryOn(row, roles)) return;
      if (cells.length === 1 && saysNotSupplied(text) && kindByWords(text) === null && !namedUnsupplied(text)) return;
    }
    if (roles && row.indented && row.cells[0] === '' && this.carryOn(row, roles)) return;
    if (cells.length > 1 && this.rowNotice(row, cells)) return;
    const item = row.cells.map((text, i) => ({ role: roles?.[i] ?? null, text: text.trim() })).filter((c) => c.text !== '');
    this.items.push({
      sources: [row.source],
      cells: this.named(row, item, roles),
      board: this.boardOf(row),
      section: this.section,
      headed: this.headed,
      supplied: this.supplied,
    });
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
    if (footnote && (saysNotSupplied(text) || saysNotFitted(text)) && !cells.some(isRefList)) return this.notice(row, text, false, '');
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

  text(row: Row, prefixes: Prefixes, next: string): void {
    const line = row.cells[0]!;
    const last = this.items.at(-1);
    const above = last ? last.cells.map((c) => c.text).join(' ') : '';
    const glued = last?.sources.at(-1) === row.source - 1 || (last !== undefined && row.indented && !prefixes.indents);
    const garbage = /^(?:\d+\s*(?:x|pcs?\.?|个|個)?\s*)?(?:[?？]+|\.{3,}|…)(?:\s*\([^)]*\))?$|^\d+\s*(?:pcs?|x|个|個)\.?\s*\([^)]*\)$/iu.test(line);
    if (garbage) return void this.blank.push({ source: row.source, text: line });
    if (last && glued && row.indented && !noticeOf(line) && prefixes.carriesOn(row, above)) {
      this.glue(last, row, line);
      return;
    }
    if (this.notice(row, line, true, next)) return;
    if (last && glued && prefixes.carriesOn(row, above)) {
      this.glue(last, row, line);
      return;
    }
    for (const part of splitInline(line))
      this.items.push({
        sources: [row.source],
        cells: cellsOfText(part, prefixes),
        board: this.board,
        section: this.section,
        headed: this.headed,
        supplied: this.supplied,
      });
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
  return kind === 'resistor' || kind === 'capacitor' || kind === 'electrolytic' || kind === 'inductor' || kind === 'led' || kind === 'diode' ? kind : null;
};
