/** Volts over seconds, in rising order of time. */
export interface Recording {
  readonly t: Float64Array;
  readonly v: Float64Array;
}

const COMMENT = /^\s*[#;%]/;
const SECONDS: Readonly<Record<string, number>> = { s: 1, ms: 1e-3, us: 1e-6, '\u00b5s': 1e-6, '\u03bcs': 1e-6, ns: 1e-9 };
const VOLTS: Readonly<Record<string, number>> = { v: 1, mv: 1e-3 };
const RATE = /sampl\w*[\s_-]*(rate|freq\w*|interval|period)\s*[:=,;]?\s*([\d.,]+(?:e[+-]?\d+)?)\s*([a-z\u00b5\u03bc]*)/i;
const HERTZ: Readonly<Record<string, number>> = { hz: 1, khz: 1e3, mhz: 1e6 };
const NUMBER = /^[+-]?(?:\d+(?:[.,]\d*)?|[.,]\d+)(?:e[+-]?\d+)?$/i;
/** Fewest rows that say anything. */
const FEWEST = 8;

/**
 * A recording as oscilloscopes, sound cards and simulators write it: time and volts, or volts alone with a sample rate.
 * @throws Error that names the line and what is wrong
 */
export function readRecording(csv: string): Recording {
  const lines = csv.replace(/^\ufeff/, '').split(/\r\n|\n|\r/);
  const rate = lines.reduce<ReturnType<typeof rateOf>>((found, line) => found ?? rateOf(line), null);
  const prose: string[] = [];
  const rows: { readonly line: number; readonly cells: readonly number[] }[] = [];
  let separator: Separator | null = null;
  for (const [i, raw] of lines.entries()) {
    const line = raw.trim();
    if (line === '') continue;
    if (COMMENT.test(line)) {
      prose.push(line);
      continue;
    }
    separator ??= separatorOf(line, rate !== null);
    const cells = separator === null ? null : numbersOf(line, separator);
    if (cells) rows.push({ line: i + 1, cells });
    else if (rows.length > 0) throw new Error(`Line ${i + 1} is not a row of numbers: “${line.slice(0, 40)}”. Cut the file there, or correct the line.`);
    else prose.push(line);
  }
  if (rows.length < FEWEST) throw new Error(`A recording needs at least ${FEWEST} rows of numbers; here are ${rows.length}.`);
  return recordingOf(rows, prose, rate);
}

function recordingOf(rows: readonly { line: number; cells: readonly number[] }[], prose: readonly string[], rate: number | null): Recording {
  const volts = unitIn(prose, VOLTS);
  const timed = rows[0]!.cells.length > 1;
  if (!timed && rate === null) throw new Error('One column of volts says nothing without its sample rate: add a line such as “# sample rate: 48 kHz”.');
  const seconds = timed ? unitIn(prose, SECONDS) : 1 / rate!;
  const t = new Float64Array(rows.length);
  const v = new Float64Array(rows.length);
  rows.forEach(({ line, cells }, i) => {
    if (timed && cells.length < 2) throw new Error(`Line ${line} has no second column.`);
    t[i] = (timed ? cells[0]! : i) * seconds;
    v[i] = cells[timed ? 1 : 0]! * volts;
    if (i > 0 && !(t[i] > t[i - 1]!)) throw new Error(`Time does not rise at line ${line}.`);
  });
  return { t, v };
}

/** How cells are parted; `alone`: one column. */
type Separator = '\t' | ';' | ',' | ' ' | 'alone';

const isNumber = (cell: string) =>
  NUMBER.test(
    cell
      .trim()
      .replace(/^(["'])(.*)\1$/, '$2')
      .trim(),
  );

function cellsOf(line: string, separator: Separator): string[] {
  if (separator === 'alone') return [line];
  const cells = separator === ' ' ? line.split(/[ \t]+/) : line.split(separator);
  while (cells.length > 1 && cells.at(-1)!.trim() === '') cells.pop();
  return cells;
}

/** The separator with which this line is a row of numbers; null where it is none. */
function separatorOf(line: string, rated: boolean): Separator | null {
  // With a known rate two whole numbers at a comma are one decimal number.
  const alone = isNumber(line.replace(/[,;\s]+$/, ''));
  if (alone && (rated || !/^[+-]?\d+,[+-]?\d+$/.test(line))) return 'alone';
  for (const separator of ['\t', ';', ',', ' '] as const) {
    const cells = cellsOf(line, separator);
    if (cells.length > 1 && cells.every(isNumber)) return separator;
  }
  return alone ? 'alone' : null;
}

function numbersOf(line: string, separator: Separator): number[] | null {
  const cells = separator === 'alone' ? [line.replace(/[,;\s]+$/, '')] : cellsOf(line, separator);
  if (!cells.every(isNumber)) return null;
  return cells.map((c) => Number(c.trim().replace(/["']/g, '').trim().replace(',', '.')));
}

/** Seconds between samples, inverted: samples a second. */
function rateOf(line: string): number | null {
  const found = RATE.exec(line.replace(/["']/g, ''));
  if (!found) return null;
  const value = Number(found[2]!.replace(/,$/, '').replace(',', '.'));
  const unit = found[3]!.toLowerCase();
  const hertz = /rate|freq/i.test(found[1]!) ? value * (HERTZ[unit] ?? 1) : 1 / (value * (SECONDS[unit] ?? 1));
  return hertz > 0 && Number.isFinite(hertz) ? hertz : null;
}

/** Scale of a column by the unit that head or comments name; a figure before it makes it a setting (“1 ms/div”). */
function unitIn(prose: readonly string[], units: Readonly<Record<string, number>>): number {
  const settings = /(?:^|[\s,;:=])[-+]?\d[\d.,]*(?:e[+-]?\d+)?\s*$/i;
  for (const line of [...prose].reverse()) {
    if (RATE.test(line)) continue;
    for (const { 0: word, index } of line.matchAll(/[a-z\u00b5\u03bc]+/gi)) {
      const scale = Object.hasOwn(units, word.toLowerCase()) ? units[word.toLowerCase()] : undefined;
      if (scale !== undefined && !settings.test(line.slice(0, index))) return scale;
    }
  }
  return 1;
}
