import { type Circuit, findPart } from '../circuit';
import { factsOf } from '../vocabulary';
import type { KitOption, Line, LineKind, Need } from '../kit';
import { findTolerance, printNominal } from '../quantity';
import type { Columns } from './columns';
import { needOf } from './need';
import { type Correction, type Doubt, type Entry, type Ignored, readSheet, type SheetLine, SURE } from './sheet';

/** A remark about a source line; errors leave it out. */
export interface ListRemark {
  readonly severity: 'error' | 'warning';
  readonly line: number;
  readonly message: string;
  readonly remedy: string;
}

/** What became of a part of the sheet, beside the source that it was read from. */
export interface ListEntry {
  /** Stable name for corrections. */
  readonly key: string;
  readonly sources: readonly number[];
  readonly source: string;
  readonly became: { readonly line: Line } | { readonly need: Need } | { readonly ignored: Ignored } | { readonly nothing: true };
  /** What the paper leaves open and nobody has settled yet. */
  readonly doubts: readonly Doubt[];
  readonly sure: boolean;
  readonly corrected: boolean;
}

export interface PartsList {
  readonly title: string | null;
  readonly lines: readonly Line[];
  readonly needs: readonly Need[];
  readonly options: readonly KitOption[];
  readonly remarks: readonly ListRemark[];
  /** Every source line that is not empty, in its order. */
  readonly entries: readonly ListEntry[];
  /** How the sheet is set; `free`: each line as running text. */
  readonly way: 'table' | 'free';
  readonly columns: Columns;
  /** Cells of a table as it was cut, with their source lines. */
  readonly cells: readonly { readonly line: number; readonly cells: readonly string[] }[];
  /** Source line of the heading row; −1 without one. */
  readonly heading: number;
}

const MOST_LINES = 2000;
const SHOWN_TEXT = 60;

/** What a builder says of a sheet beside it. */
export interface Settled {
  /** What the columns hold; null: as their headings and cells say. */
  readonly columns?: Columns | null;
  /** Corrections by the entry's key. */
  readonly corrections?: Readonly<Record<string, Correction>>;
}

/**
 * Lines of a kit from a seller's whole sheet in one of ten languages. The circuit, when there is one, settles what a letter
 * cannot. What the paper leaves open is a doubt of its entry until it is corrected or confirmed.
 */
export function readList(text: string, circuit: Circuit | null, { columns = null, corrections = {} }: Settled = {}): PartsList {
  const sheet = readSheet(text, columns, corrections);
  const state = new Collector();
  const entries = sheet.entries.map((entry) => {
    if ('ignored' in entry.is) return listed(entry, { ignored: entry.is.ignored }, state);
    if (!('line' in entry.is)) return listed(entry, { nothing: true }, state);
    const { line } = entry.is;
    if (state.lines.length >= MOST_LINES) {
      state.full(entry);
      return listed(entry, { nothing: true }, state);
    }
    if (FORMULA.test(entry.source)) state.formula(entry);
    if (line.kind === 'supply' || (!line.supplied && !line.notFitted)) return listed(entry, { need: state.need(line) }, state);
    return listed(entry, { line: state.line(line, circuit) }, state);
  });
  return {
    title: sheet.title,
    lines: state.lines,
    needs: state.needs,
    options: state.options,
    remarks: [...state.remarks, ...entries.flatMap(remarksOf)].sort((a, b) => a.line - b.line),
    entries,
    way: sheet.way === 'text' ? 'free' : 'table',
    columns: sheet.roles.map((r) => (r === 'number' ? null : r)),
    cells: sheet.cells,
    heading: sheet.heading,
  };
}

const FORMULA = /(?:^|[\t;,|])\s*"?(?:[=@]|[+-](?=[A-Z(]))/i;

function listed(entry: Entry, became: ListEntry['became'], state: Collector): ListEntry {
  const doubts = 'line' in became ? entry.doubts.filter((d) => d.what !== 'no-value' || state.valueless(became.line)) : entry.doubts;
  const sure = doubts.length === 0 && (!('line' in became) || !('line' in entry.is) || entry.corrected || entry.is.line.sure >= SURE);
  return { key: entry.key, sources: entry.sources, source: entry.source, became, doubts, sure, corrected: entry.corrected };
}

/** Gathers what the entries give. */
class Collector {
  readonly lines: Line[] = [];
  readonly needs: Need[] = [];
  readonly options: KitOption[] = [];
  readonly remarks: ListRemark[] = [];
  private cut = false;

  full(entry: Entry): void {
    if (!this.cut)
      this.remarks.push({
        severity: 'error',
        line: entry.sources[0]!,
        message: `the list has more than ${MOST_LINES} lines`,
        remedy: 'Split the kit, or remove what is not a part.',
      });
    this.cut = true;
  }

  formula(entry: Entry): void {
    this.remarks.push({
      severity: 'warning',
      line: entry.sources[0]!,
      message: `"${entry.source.trim().slice(0, SHOWN_TEXT)}" looks like a formula; it was taken as plain text`,
      remedy: 'Nothing was executed. Check where this list comes from.',
    });
  }

  need(line: SheetLine): Need {
    const need = needOf(line.printed, `need-${this.needs.length + 1}`, line.kind);
    this.needs.push(need);
    return need;
  }

  line(sheetLine: SheetLine, circuit: Circuit | null): Line {
    const line: Line = { id: `line-${this.lines.length + 1}`, ...kitLine(sheetLine, circuit) };
    const option = line.option?.split('=')[0];
    if (option && !this.options.some((o) => o.id === option)) this.options.push({ id: option, text: `with ${option}`, choices: ['yes', 'no'] });
    this.lines.push(line);
    return line;
  }

  /** Whether the circuit did not tell the value either. */
  valueless = (line: Line) => line.value === null;
}

const ONLY_WITH =
  /(?:only (?:with|for|in)|nur (?:mit|bei)|s[oó]lo con|seulement avec|apenas com|solo con|tylko z|только (?:с|для)|仅用于)\s*:?\s*([\p{L}\d][\p{L}\d .-]{0,30})/iu;

/** A line of the kit: what the sheet says, and what the circuit knows better. */
function kitLine(s: SheetLine, circuit: Circuit | null): Omit<Line, 'id'> {
  const named = s.kind === 'supply' ? 'other' : s.kind;
  const kind = settledKind(named, s.refs[0], circuit);
  const { unit } = factsOf(kind);
  const value =
    (kind === named && unit !== null && unit !== 'ratio' && !(unit === 'V' && kind !== 'zener') ? s.value : null) ?? circuitValue(s.refs[0], circuit);
  const percent = findTolerance(s.printed)?.percent ?? s.tolerance;
  const option = ONLY_WITH.exec(s.printed)?.[1]?.trim().toLowerCase();
  const { V, W, A } = s.rating ?? {};
  const rating = { ...(V !== undefined ? { volts: V } : {}), ...(W !== undefined ? { watts: W } : {}), ...(A !== undefined ? { amperes: A } : {}) };
  const label = s.label || (value !== null ? printNominal(value, unit) : factsOf(kind).word);
  const pins = s.pins !== null && !new RegExp(`\\b${s.pins}\\b`).test(label) ? ` ${s.pins} pins` : '';
  return {
    kind,
    label: `${label}${pins}`.slice(0, 80),
    value,
    tolerance: percent ? [percent[0] / 100, percent[1] / 100] : null,
    quantity: s.quantity,
    refs: s.refs,
    ...(s.type ? { type: s.type } : {}),
    ...(s.package ? { package: s.package } : {}),
    ...(s.color ? { colour: s.color } : {}),
    ...(Object.keys(rating).length > 0 ? { rating } : {}),
    ...(option ? { option: `${option}=yes` } : {}),
    ...(s.notFitted ? { notFitted: true } : {}),
    ...(s.note ? { note: s.note.slice(0, 300) } : {}),
    ...gainRange(s.printed),
  };
}

/** What a doubt says to the builder, with what to do. */
function remarksOf(entry: ListEntry): ListRemark[] {
  const line = entry.sources[0]!;
  const short = (text: string) => `“${text.slice(0, SHOWN_TEXT)}”`;
  return entry.doubts.map((d): ListRemark => {
    switch (d.what) {
      case 'says-nothing':
        return {
          severity: 'error',
          line,
          message: `${short(d.text)} was not understood; the line was left out`,
          remedy: 'Correct it in the table below, or leave it out.',
        };
      case 'unreadable':
        return { severity: 'warning', line, message: `${short(d.text)} cannot be read`, remedy: 'Read it on the part, or ask the seller.' };
      case 'no-value':
        return { severity: 'warning', line, message: `no value is printed here: ${short(d.text)}`, remedy: 'Without a value its pieces are only counted.' };
      case 'smudge':
        return { severity: 'warning', line, message: `a figure of ${short(d.text)} cannot be read`, remedy: 'Read it on the part, or measure one.' };
      case 'count':
        return {
          severity: 'warning',
          line,
          message: `${d.pieces} ${d.pieces === 1 ? 'piece' : 'pieces'} for ${d.positions} ${d.positions === 1 ? 'position' : 'positions'}`,
          remedy: 'Correct the count or the positions.',
        };
      case 'repeated':
        return { severity: 'warning', line, message: `${d.ref} is already on line ${d.before}`, remedy: 'A position takes one part: correct one of the two.' };
      case 'contradiction':
        return {
          severity: 'warning',
          line,
          message: `the line says both ${d.values[0]} and ${d.values[1]}`,
          remedy: 'Measure the pieces before you believe either.',
        };
    }
  });
}

function settledKind(named: LineKind, ref: string | undefined, circuit: Circuit | null): LineKind {
  const part = ref && circuit ? findPart(circuit, ref) : undefined;
  if (part?.kind === 'Q') return part.model.kind === 'PNP' ? 'pnp' : 'npn';
  if (part?.kind === 'M') return part.model.kind === 'PMOS' ? 'pmos' : 'nmos';
  if (part?.kind === 'J') return part.model.kind === 'PJF' ? 'pjf' : 'njf';
  if (part?.kind === 'D' && (named === 'diode' || named === 'other')) return diodeKind(part.model.name, part.model.params);
  return named;
}

/** A diode of the deck by its card: LEDs by name or large emission coefficient with tiny IS, zeners by breakdown below 50 V. */
export function diodeKind(name: string, params: Readonly<Record<string, number>>): LineKind {
  if (/led/i.test(name) || params['IS']! < 1e-16) return 'led';
  return params['BV']! > 0 && params['BV']! < 50 ? 'zener' : 'diode';
}

function circuitValue(ref: string | undefined, circuit: Circuit | null): number | null {
  const part = ref && circuit ? findPart(circuit, ref) : undefined;
  if (!part) return null;
  if (part.kind === 'R' || part.kind === 'C' || part.kind === 'L') return part.value;
  return part.kind === 'D' && diodeKind(part.model.name, part.model.params) === 'zener' ? part.model.params['BV']! : null;
}

/** `hfe 110..450` in a note. */
function gainRange(note: string): { range?: [number, number] } {
  const match = /\b(?:hfe|vto)\s+(-?[\d.]+?)\s*(?:\.\.|-|–|to)\s*(-?[\d.]+)/i.exec(note);
  return match ? { range: [Number(match[1]), Number(match[2])] } : {};
}
