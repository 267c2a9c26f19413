import { type Cells, cellsOf, isNumber, numberOf, type Separator, separatorOf, timeOf } from './cells';

/** What a channel of a recording counts in. */
export type ChannelUnit = 'V' | 'A';

/** Volts (or amperes) over seconds, in rising order of time. */
export interface Recording {
  readonly t: Float64Array;
  readonly v: Float64Array;
}

/** One channel of a file, and what else the file holds. */
export interface RecordedChannel extends Recording {
  /** Names of all channels, as the head gives them. */
  readonly channels: readonly string[];
  readonly unit: ChannelUnit;
  /** Rows in which this channel stands empty or is no number ("OL"). */
  readonly leftOut: number;
}

const COMMENT = /^\s*[#;%]/;
const SECONDS: Readonly<Record<string, number>> = { s: 1, ms: 1e-3, us: 1e-6, '\u00b5s': 1e-6, '\u03bcs': 1e-6, ns: 1e-9 };
const LEVELS: Readonly<Record<string, readonly [ChannelUnit, scale: number]>> = {
  v: ['V', 1],
  mv: ['V', 1e-3],
  uv: ['V', 1e-6],
  '\u00b5v': ['V', 1e-6],
  '\u03bcv': ['V', 1e-6],
  kv: ['V', 1e3],
  ma: ['A', 1e-3],
  ua: ['A', 1e-6],
  '\u00b5a': ['A', 1e-6],
  '\u03bca': ['A', 1e-6],
};
const VOLTS: readonly [ChannelUnit, number] = ['V', 1];
/** An A by itself is a unit only in brackets: else it is the name of a channel. */
const AMPERES = /[([]\s*A\s*[)\]]|\bin A\b|\bamp(?:ere)?s?\b/i;
const RATE = /sampl\w*[\s_-]*(rate|freq\w*|interval|period)\s*[:=,;]?\s*([\d.,]+(?:e[+-]?\d+)?)\s*([a-z\u00b5\u03bc]*)/i;
const RATE_LINES = /^.*sampl.*$/gim;
const HERTZ: Readonly<Record<string, number>> = { hz: 1, khz: 1e3, mhz: 1e6 };
/** Fewest rows that say anything. */
const FEWEST = 8;
/** Rows between two words of progress. */
const TOLD_EVERY = 50_000;

/**
 * A recording as oscilloscopes, loggers, sound cards and simulators write it: time and one or more channels, or one channel alone
 * with a sample rate. Time may be a clock or a date. `channel`: 0-based.
 * @throws Error that names the line and what is wrong
 */
export function readRecording(csv: string, channel = 0, progress: (done: number) => void = () => undefined): RecordedChannel {
  const lines = csv.replace(/^\ufeff/, '').split(/\r\n|\n|\r/);
  const rate = [...csv.matchAll(RATE_LINES)].reduce<ReturnType<typeof rateOf>>((found, [line]) => found ?? rateOf(line), null);
  const prose: string[] = [];
  const rows = new Rows(channel, lines.length);
  for (const [i, raw] of lines.entries()) {
    if (i % TOLD_EVERY === 0) progress(i / lines.length);
    const line = raw.trim();
    if (line === '') continue;
    if (COMMENT.test(line)) {
      prose.push(line);
      continue;
    }
    if (rows.layout === null) rows.layout = separatorOf(line, rate !== null);
    if (rows.layout !== null && rows.add(line, i + 1)) continue;
    if (rows.count > 0) throw new Error(`Line ${i + 1} is not a row of numbers: “${line.slice(0, 40)}”. Cut the file there, or correct the line.`);
    prose.push(line);
  }
  if (rows.count < FEWEST) throw new Error(`A recording needs at least ${FEWEST} rows of numbers; here are ${rows.count}.`);
  return recordingOf(rows, prose, rate, channel);
}

/** What stands where a channel has no reading. */
const NO_READING = /^\s*["']?(?:OL|-OL|O\.L\.?|over(?:load|range)?|nan|inf|-|–|n\/?a)?["']?\s*$/i;

/** Rows of numbers as they come in: time and one channel. */
class Rows {
  layout: { readonly separator: Separator; readonly cells: number } | null = null;
  count = 0;
  leftOut = 0;
  /** Time is a clock or a date. */
  clock = false;
  readonly t: Float64Array;
  readonly v: Float64Array;
  /** Line of each row, for what is said about it. */
  readonly line: Uint32Array;

  constructor(
    private readonly channel: number,
    most: number,
  ) {
    this.t = new Float64Array(most);
    this.v = new Float64Array(most);
    this.line = new Uint32Array(most);
  }

  get timed(): boolean {
    return this.layout !== null && this.layout.cells > 1;
  }

  /** Takes a line in; false where it is no row of numbers. */
  add(text: string, line: number): boolean {
    const cells: Cells = cellsOf(text, this.layout!.separator);
    const first = this.timed ? timeOf(cells[0]!) : 0;
    if (first === null) return false;
    this.clock ||= this.timed && this.count === 0 && !isNumber(cells[0]!);
    const cell = cells[this.timed ? this.channel + 1 : 0];
    const value = cell === undefined ? null : numberOf(cell);
    if (value === null && !this.timed) return false;
    if (value === null && cells.length < 2) throw new Error(`Line ${line} has no second column.`);
    // A logger leaves a cell empty or writes over-range; any other word is a damaged file.
    if (cell !== undefined && value === null && !NO_READING.test(cell)) return false;
    if (value === null) {
      this.leftOut++;
      return true;
    }
    this.t[this.count] = first;
    this.v[this.count] = value;
    this.line[this.count] = line;
    this.count++;
    return true;
  }
}

/** A clock that falls by more than this has passed midnight, seconds. */
const MIDNIGHT = 12 * 3600;
const DAY = 24 * 3600;

function recordingOf(rows: Rows, prose: readonly string[], rate: number | null, channel: number): RecordedChannel {
  const { timed, count } = rows;
  if (!timed && rate === null) throw new Error('One column of volts says nothing without its sample rate: add a line such as “# sample rate: 48 kHz”.');
  const heads = headsOf(prose, rows.layout!);
  const [unit, scale] = levelIn(prose, heads, channel);
  const seconds = rows.clock ? 1 : timed ? secondsIn(prose, heads.units[0] ?? heads.names[0]) : 1 / rate!;
  const t = rows.t.subarray(0, count);
  const v = rows.v.subarray(0, count);
  // Dates count thousands of millions of seconds: from the first row on, so that no figure is lost.
  const origin = timed && Math.abs(t[0]!) > DAY ? t[0]! : 0;
  let days = 0;
  for (let i = 0; i < count; i++) {
    const moment = timed ? t[i]! : i;
    if (rows.clock && i > 0 && t[i - 1]! + origin - (moment + days) > MIDNIGHT) days += DAY;
    t[i] = (moment + days - origin) * seconds;
    v[i] = v[i]! * scale;
    if (i > 0 && !(t[i]! > t[i - 1]!))
      throw new Error(`Time does not rise at line ${rows.line[i]}.${rows.clock ? ' Let the clock write parts of a second.' : ''}`);
  }
  const channels = Array.from({ length: timed ? rows.layout!.cells - 1 : 1 }, (_, k) => heads.names[k + 1] || `channel ${k + 1}`);
  return { t, v, channels, unit, leftOut: rows.leftOut };
}

/** What is written above each column: a name, a unit, or both in one. */
interface Heads {
  readonly names: readonly string[];
  readonly units: readonly string[];
}

const UNIT_ALONE = /^[([]?\s*(?:[mun\u00b5\u03bck]?[sva]|seconds?|volts?|amps?)\s*[)\]]?$/i;

/** Heads: the last lines of prose that have as many cells as a row and no number among them; one that holds nothing but units names nothing. */
function headsOf(prose: readonly string[], { separator, cells }: NonNullable<Rows['layout']>): Heads {
  if (separator === 'alone') return { names: [], units: [] };
  const rows = prose
    .map((line) => cellsOf(line.replace(COMMENT, ''), separator).map((c) => c.trim().replace(/^(["'])(.*)\1$/, '$2')))
    .filter((row) => row.length === cells && !row.some(isNumber))
    .reverse();
  const onlyUnits = (row: readonly string[]) => row.every((c) => UNIT_ALONE.test(c));
  return { names: rows.find((row) => !onlyUnits(row)) ?? [], units: rows.find(onlyUnits) ?? [] };
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

/** A figure before a unit makes it a setting (“1 ms/div”). */
const SETTING = /(?:^|[\s,;:=])[-+]?\d[\d.,]*(?:e[+-]?\d+)?\s*$/i;

/** Units of a kind that a text names, in their order. */
const unitsIn = <T>(text: string, units: Readonly<Record<string, T>>): T[] =>
  RATE.test(text)
    ? []
    : [...text.matchAll(/[a-z\u00b5\u03bc]+/gi)].flatMap(({ 0: word, index }) => {
        const unit = Object.hasOwn(units, word.toLowerCase()) ? units[word.toLowerCase()] : undefined;
        return unit === undefined || SETTING.test(text.slice(0, index)) ? [] : [unit];
      });

/** Scale of time: by its own head, else by what head or comments name last. */
const secondsIn = (prose: readonly string[], head: string | undefined): number =>
  unitsIn(head ?? '', SECONDS)[0] ?? [...prose].reverse().flatMap((line) => unitsIn(line, SECONDS))[0] ?? 1;

/** Unit of a channel: by its own head, else the one at its place among those that a line names, else the last named. */
function levelIn(prose: readonly string[], { names, units }: Heads, channel: number): readonly [ChannelUnit, number] {
  const own = units[channel + 1] ?? names[channel + 1] ?? '';
  if (/^[([]?\s*volts?\s*[)\]]?$/i.test(own)) return VOLTS;
  if (AMPERES.test(own)) return ['A', 1];
  const named = unitsIn(own, LEVELS).at(-1);
  if (named) return named;
  for (const line of [...prose].reverse()) {
    const found = unitsIn(line, LEVELS);
    if (found.length > 0) return found[channel] ?? found[0]!;
  }
  return VOLTS;
}
