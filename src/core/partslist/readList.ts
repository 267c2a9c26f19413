import { type Circuit, findPart } from '../circuit';
import { factsOf } from '../vocabulary';
import type { KitOption, Line, LineKind, Need } from '../kit';
import { normaliseUnits } from '../marking';
import { findTolerance, parseQuantity, printNominal, readTolerance } from '../quantity';
import { type Column, type Columns, findHeading, guessColumns, type TableRow } from './columns';
import { readFreeLine, typeNumber, valueIn } from './freeLine';
import { colourIn, type FreeKind, knowsKind, lineKindOf } from './kindWords';
import { readNeed } from './need';
import { expandRefs } from './refs';

/** A remark about a row; errors leave the row out. */
export interface ListRemark {
  readonly severity: 'error' | 'warning';
  readonly line: number;
  readonly message: string;
  readonly remedy: string;
}

export interface PartsList {
  readonly lines: readonly Line[];
  readonly needs: readonly Need[];
  readonly options: readonly KitOption[];
  readonly remarks: readonly ListRemark[];
  /** How the rows were read; `free`: each row as one line of text. */
  readonly way: 'table' | 'free';
  readonly columns: Columns;
  /** Index of the heading row among the rows; −1 without one. */
  readonly heading: number;
}

const MOST_LINES = 2000;
const SHOWN_TEXT = 60;

/** Marks that change the direction of writing say nothing about parts. */
const DIRECTION_MARKS = /[\u200b-\u200f\u202a-\u202e\u2060\u2066-\u2069\ufeff]/g;
const clean = (rows: readonly TableRow[]): TableRow[] =>
  rows
    .map((r) => ({
      line: r.line,
      cells: r.cells.map((c) =>
        c
          .normalize('NFC')
          .replace(DIRECTION_MARKS, '')
          .replace(/\u00a0/g, ' ')
          .trim(),
      ),
    }))
    .filter((r) => r.cells.some((c) => c !== ''));

/**
 * Lines of a kit from a list in one of ten languages: a table with or without a heading row, or free lines as sellers
 * print them. `chosen` overrides what the columns hold. The circuit, when there is one, settles what a letter cannot.
 */
export function readList(rows: readonly TableRow[], circuit: Circuit | null, chosen: Columns | null = null): PartsList {
  const filled = clean(rows);
  const found = findHeading(filled);
  const heading = found?.row ?? -1;
  const body = filled.slice(heading + 1);
  const columns = chosen ?? found?.columns ?? guessColumns(body);
  const state = new Collector();
  for (const row of body) {
    if (state.lines.length >= MOST_LINES) {
      state.remark(row, 'error', `the list has more than ${MOST_LINES} lines`, 'Split the kit, or remove what is no part.');
      break;
    }
    warnOfFormulas(row, state);
    if (columns) readRow(row, columns, circuit, state);
    else readFree(row, circuit, state);
  }
  return {
    lines: state.lines,
    needs: state.needs,
    options: state.options,
    remarks: state.remarks,
    way: columns ? 'table' : 'free',
    columns: columns ?? [],
    heading,
  };
}

/** Gathers what the rows give; repeated refs are found here. */
class Collector {
  readonly lines: Line[] = [];
  readonly needs: Need[] = [];
  readonly options: KitOption[] = [];
  readonly remarks: ListRemark[] = [];
  /** Value of the row above, for cells that were merged downwards. */
  above: string | null = null;
  private readonly taken = new Map<string, number>();

  remark(row: TableRow, severity: ListRemark['severity'], message: string, remedy: string): void {
    this.remarks.push({ severity, line: row.line, message, remedy });
  }

  addNeed(text: string): boolean {
    const need = readNeed(text, `need-${this.needs.length + 1}`);
    if (need) this.needs.push(need);
    return need !== null;
  }

  add(row: TableRow, line: Omit<Line, 'id'>): void {
    for (const ref of line.refs) {
      const before = this.taken.get(ref);
      if (before === undefined) this.taken.set(ref, row.line);
      else this.remark(row, 'warning', `${ref} already stands in line ${before}`, 'A position takes one part: correct one of the two.');
    }
    if (line.refs.length > 0 && line.quantity !== line.refs.length && !line.notFitted)
      this.remark(row, 'warning', `${line.quantity} pieces for ${line.refs.length} positions`, 'Check the list: something is missing or spare.');
    const option = line.option?.split('=')[0];
    if (option && !this.options.some((o) => o.id === option)) this.options.push({ id: option, text: `with ${option}`, choices: ['yes', 'no'] });
    this.lines.push({ id: `line-${this.lines.length + 1}`, ...line });
  }
}

function warnOfFormulas(row: TableRow, state: Collector): void {
  const cell = row.cells.find((c) => /^[=@]|^[+-](?=[A-Z(])/i.test(c));
  if (cell !== undefined)
    state.remark(
      row,
      'warning',
      `"${cell.slice(0, SHOWN_TEXT)}" looks like a formula; it was taken as plain text`,
      'Nothing was executed. Check where this list comes from.',
    );
}

function readFree(row: TableRow, circuit: Circuit | null, state: Collector): void {
  const text = row.cells.filter((c) => c !== '').join(' ');
  if (state.addNeed(text)) return;
  if (/^[-–—=_*#\s]*$/.test(text)) return;
  const free = readFreeLine(text);
  if (free.kind === 'OTHER' && free.refs.length === 0 && !knowsKind(text)) {
    state.remark(
      row,
      'error',
      `"${text.slice(0, SHOWN_TEXT)}" was not understood; the line was left out`,
      'Write what it is, its value, its positions and the count, such as: Resistor 10k R1-R4 x4.',
    );
    return;
  }
  const kind = settledKind(lineKindOf(text, free.refs), free.refs[0], circuit);
  const value = typeof free.value === 'number' ? free.value : circuitValue(free.refs[0], circuit);
  state.add(row, { ...describe(kind, text, value), ...typeOf(free.value), quantity: free.quantity, refs: free.refs });
}

const typeOf = (value: string | number | null) => (typeof value === 'string' && !colourIn(value) ? { type: value } : {});

function readRow(row: TableRow, columns: Columns, circuit: Circuit | null, state: Collector): void {
  const cell = (name: Column) => (columns.includes(name) ? (row.cells[columns.indexOf(name)] ?? '') : '');
  const whole = row.cells.join(' ');
  if (state.addNeed(whole)) return;
  const refs = expandRefs(cell('refs'))?.map((r) => withBoard(cell('board'), r));
  if (!refs) {
    state.remark(row, 'error', `"${cell('refs').slice(0, SHOWN_TEXT)}" is no list of refs; the line was left out`, 'Write refs as R1, R2 or R1-R4.');
    return;
  }
  const text = cell('value');
  if (refs.length === 0 && text === '' && cell('kind') === '') return;
  if (text === '' && cell('kind') === '' && state.above !== null && columns.includes('value')) {
    state.remark(
      row,
      'warning',
      `no value stands beside ${refs.join(', ')}; taken as "${state.above.slice(0, 40)}" from the row above, as merged cells mean it`,
      'Check this line against the paper.',
    );
    const cells = [...row.cells];
    cells[columns.indexOf('value')] = state.above;
    readRow({ ...row, cells }, columns, circuit, state);
    return;
  }
  state.above = text || null;
  const quantity = readCount(cell('quantity'), refs.length);
  if (quantity === null) {
    state.remark(row, 'error', `"${cell('quantity').slice(0, 30)}" is no count; the line was left out`, 'Write a whole number of pieces.');
    return;
  }
  const words = [cell('kind'), text, cell('note'), cell('package')].filter(Boolean).join(' ');
  const kind = settledKind(lineKindOf(words, refs), refs[0], circuit);
  const value = valueOfRow(row, kind, text, cell('kind'), state) ?? circuitValue(refs[0], circuit);
  const described = describe(kind, words, value);
  const type = value === null ? typeNumber(`${text} ${cell('kind')}`) : null;
  const tolerance = readTolerance(cell('tolerance')) ?? described.tolerance;
  state.add(row, {
    ...described,
    label: text || (value !== null ? printNominal(value, factsOf(kind).unit) : cell('kind') || factsOf(kind).word),
    tolerance,
    quantity,
    refs,
    ...(type && TYPED.has(kind) ? { type } : {}),
    ...(cell('package') ? { package: cell('package') } : {}),
    ...(cell('note') ? { note: cell('note') } : {}),
    ...gainRange(cell('note')),
  });
}

const TYPED = new Set<LineKind>(['diode', 'npn', 'pnp', 'nmos', 'pmos', 'njf', 'pjf', 'opamp', 'regulator', 'timer', 'ic', 'microcontroller']);
const withBoard = (board: string, ref: string) =>
  board === '' || ref.includes(':')
    ? ref
    : `${board
        .replace(/[^\p{L}\p{N}]/gu, '')
        .slice(0, 8)
        .toUpperCase()}:${ref}`;

/** Value of a table row; two cells that contradict each other are a finding. */
function valueOfRow(row: TableRow, kind: LineKind, text: string, description: string, state: Collector): number | null {
  const { unit } = factsOf(kind);
  if (!unit || unit === 'ratio' || (unit === 'V' && kind !== 'zener')) return null;
  const word = valueWord(normaliseUnits(text));
  const parsed = parseQuantity(word, unit);
  const coarse = COARSE[kind];
  const read = (t: string) => (coarse ? valueIn(coarse, t) : null);
  // `104` on a capacitor or coil is its code, never so many farads.
  const coded = (coarse === 'C' || coarse === 'L') && /^[\d.,]+$|^\d+[A-Z]$/i.test(word);
  const value = parsed.ok && text !== '' && !coded ? parsed.value : read(text);
  const described = read(description);
  if (value !== null && described !== null && Math.abs(value - described) > 1e-6 * value)
    state.remark(
      row,
      'warning',
      `the row says both ${printNominal(value, unit)} and ${printNominal(described, unit)}`,
      'Measure the pieces before you believe either.',
    );
  // What a coil or a lamp is made for is its rating, not its ohms.
  const rated = coarse === undefined && /^\s*\d+(?:[.,]\d+)?\s*m?[VAW]\b/i.test(text);
  if (value === null && described === null && text !== '' && !parsed.ok && !rated && kind !== 'other')
    state.remark(
      row,
      'warning',
      `the value "${text.slice(0, 40)}" was not understood: ${parsed.message}`,
      'The line is kept, but its pieces are only counted.',
    );
  return value ?? described;
}

const COARSE: Readonly<Partial<Record<LineKind, FreeKind>>> = {
  resistor: 'R',
  trimmer: 'R',
  thermistor: 'R',
  ldr: 'R',
  capacitor: 'C',
  electrolytic: 'C',
  inductor: 'L',
  crystal: 'XTAL',
};

/** The first word of a description that can be a value: `10k 1/4W` → `10k`. */
const valueWord = (text: string) => /^\S+(\s*(?:[kmgunpµ]?\s?(?:ohms?|Ω|F|Hz|H)|k|M|G|meg))?(?=\s|$|\/)/i.exec(text.replace(/\s*\/\s*\d.*$/, ''))?.[0] ?? text;

const NOT_FITTED =
  /\b(dnp|dnf|not fitted|do not (?:fit|populate|install)|nicht bestück(?:t|en)|no (?:montar|poner)|ne pas (?:monter|souder)|não montar|non montare|nie montować)\b|не устанавл|不焊|不贴|未実装|空焊/i;
const ONLY_WITH =
  /(?:only (?:with|for|in)|nur (?:mit|bei)|s[oó]lo con|seulement avec|apenas com|solo con|tylko z|только (?:с|для)|仅用于)\s*:?\s*([\p{L}\d][\p{L}\d .-]{0,30})/iu;
const PACKAGE = /\b(0402|0603|0805|1206|TO-?\d{2,3}|DIP-?\d{1,2}|SO(?:IC|T)?-?\d{1,3}|DO-?\d{2,3}|SIP-?\d{1,2}|SMA|SMB)\b/i;

/** Everything about a line that its words tell beyond count and refs. */
/** From here on a capacitor of which nothing else is said is an electrolytic, farads (common practice, no source). */
const ELECTROLYTIC_FROM = 2.2e-5;
const OTHER_DIELECTRIC =
  /ceram|keram|cerám|céram|керам|陶瓷|瓷片|独石|セラミック|MLCC|X[57]R|Y5V|NP0|C0G|film|foil|folie|poly|plastik|薄膜|涤纶|non.?pol|unpol|\b(?:0402|0603|0805|1206|1210)\b/i;

/** A large capacitor is polarised, whether the list says so or not: turned round it bursts. */
const byValue = (kind: LineKind, words: string, value: number | null): LineKind =>
  kind === 'capacitor' && value !== null && value >= ELECTROLYTIC_FROM && !OTHER_DIELECTRIC.test(words) ? 'electrolytic' : kind;

function describe(named: LineKind, words: string, value: number | null): Omit<Line, 'id' | 'quantity' | 'refs'> {
  const kind = byValue(named, words, value);
  const volts = /(?<![\d.,])(\d+(?:[.,]\d+)?)\s*(?:V|В)(?![a-zа-я])/i.exec(words);
  const watts = /(\d+)\/(\d+)\s*W|(\d+(?:[.,]\d+)?)\s*W(?![a-z])/i.exec(words);
  const rating = {
    ...(volts && kind !== 'zener' ? { volts: Number(volts[1]!.replace(',', '.')) } : {}),
    ...(watts ? { watts: watts[1] ? Number(watts[1]) / Number(watts[2]) : Number(watts[3]!.replace(',', '.')) } : {}),
  };
  const percent = findTolerance(words)?.percent ?? null;
  const option = ONLY_WITH.exec(words)?.[1]?.trim().toLowerCase();
  const pack = PACKAGE.exec(words)?.[1];
  const colour = kind === 'led' ? colourIn(words) : null;
  return {
    kind,
    label: words.replace(/\s+/g, ' ').slice(0, 80),
    value,
    tolerance: percent ? [percent[0] / 100, percent[1] / 100] : null,
    ...(Object.keys(rating).length > 0 ? { rating } : {}),
    ...(pack ? { package: pack } : {}),
    ...(colour ? { colour } : {}),
    ...(NOT_FITTED.test(words) ? { notFitted: true } : {}),
    ...(option ? { option: `${option}=yes` } : {}),
  };
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

function readCount(text: string, refs: number): number | null {
  if (text === '') return Math.max(1, refs);
  const match = /^(\d{1,5})(?:[.,]0+)?\s*(x|pcs|pieces|stk|szt|шт|个|個|只|uds)?\.?$/i.exec(text);
  return match ? Number(match[1]) : null;
}

/** `hfe 110..450` in a note. */
function gainRange(note: string): { range?: [number, number] } {
  const match = /\b(?:hfe|vto)\s+(-?[\d.]+?)\s*(?:\.\.|-|–|to)\s*(-?[\d.]+)/i.exec(note);
  return match ? { range: [Number(match[1]), Number(match[2])] } : {};
}
