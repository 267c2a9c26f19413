import { parseDisplay } from '../quantity';
import { MODES, type MeterMode, unitOf } from '../vocabulary';
import type { Shown } from './scpi';

/** How a meter that only talks writes its lines, learnt from examples. */
export interface LineFormat {
  /** Mode of a line that names no unit; null where every line names its own. */
  readonly mode: MeterMode | null;
  /** SI units of one unit of such a line. */
  readonly scale: number;
}

export interface LineReading {
  readonly value: Shown;
  readonly mode: MeterMode;
}

const OVER = /\b(?:O\.?L\.?|OVER|OVLD|OVERLOAD|INF)\b/i;
const FIGURE = /([+-]?\s?\d+(?:[.,]\d+)?(?:E[+-]?\d+)?)\s*([pnuµmkKMG]?)\s*(V|A|Ω|OHMS?|F|HZ|°?C)?\b/i;
const PREFIX: Readonly<Record<string, number>> = { p: 1e-12, n: 1e-9, u: 1e-6, µ: 1e-6, m: 1e-3, '': 1, k: 1e3, K: 1e3, M: 1e6, G: 1e9 };

/** Mode that a line's unit and words stand for; null without a unit. */
function modeOf(line: string, unit: string | undefined): MeterMode | null {
  switch (unit?.toUpperCase()) {
    case 'V':
      return /\bDIO/i.test(line) ? 'diode' : /\bAC\b|~/i.test(line) ? 'acv' : 'dcv';
    case 'A':
      return 'dca';
    case 'Ω':
    case 'OHM':
    case 'OHMS':
      return 'ohms';
    case 'F':
      return 'capacitance';
    case 'HZ':
      return 'frequency';
    case 'C':
    case '°C':
      return 'temp';
    default:
      return null;
  }
}

/** Over-range says its unit as well: `OL MOhm`. */
const UNIT_ALONE = /(?:^|\s)[pnuµmkKMG]?(V|A|Ω|OHMS?|F|HZ)\b/i;

/** What a line says; null where it is no reading, as a battery warning or a line that was cut. */
export function readOwnLine(line: string, format: LineFormat): LineReading | null {
  if (OVER.test(line)) {
    const mode = modeOf(line, UNIT_ALONE.exec(line.replace(OVER, ' '))?.[1]) ?? format.mode;
    return mode === null ? null : { value: 'over', mode };
  }
  const found = FIGURE.exec(line);
  if (!found) return null;
  const figure = Number(found[1]!.replace(/\s/g, '').replace(',', '.'));
  if (!Number.isFinite(figure)) return null;
  const named = modeOf(line, found[3]);
  if (named !== null) return { value: figure * PREFIX[found[2]!]!, mode: named };
  return format.mode === null ? null : { value: figure * format.scale, mode: format.mode };
}

export type Learnt = { readonly ok: true; readonly format: LineFormat } | { readonly ok: false; readonly line: number; readonly message: string };

/** What differs by less than this share is the same figure, rounded. */
const ROUNDED = 2e-3;

/**
 * How lines are to be read, from examples and what the display showed for each (`4.98 V`, `OL`). All of them have to come out
 * right: otherwise the first one that does not is named.
 */
export function learnLines(examples: readonly { readonly line: string; readonly shows: string }[], mode: MeterMode): Learnt {
  const bare = examples.map(({ line }) => readOwnLine(line, { mode: null, scale: 1 }));
  let format: LineFormat = { mode: null, scale: 1 };
  const first = examples.findIndex(({ line }, i) => bare[i] === null && FIGURE.test(line) && !OVER.test(line));
  if (first >= 0) {
    const shown = parseDisplay(examples[first]!.shows, unitOf(mode));
    const figure = readOwnLine(examples[first]!.line, { mode, scale: 1 })?.value;
    if (!shown.ok || shown.kind === 'over' || typeof figure !== 'number' || figure === 0)
      return { ok: false, line: first, message: 'Type what the display showed with this line, such as 4.98 V. Choose a line that is not zero' };
    format = { mode, scale: 10 ** Math.round(Math.log10(Math.abs(shown.value / figure))) };
  }
  for (const [i, { line, shows }] of examples.entries()) {
    const read = readOwnLine(line, format);
    const shown = parseDisplay(shows, unitOf(read?.mode ?? mode));
    if (!shown.ok) return { ok: false, line: i, message: shown.message };
    const right =
      read !== null &&
      (shown.kind === 'over'
        ? read.value === 'over'
        : typeof read.value === 'number' && Math.abs(read.value - shown.value) <= ROUNDED * Math.abs(shown.value) + 1e-15);
    if (!right)
      return {
        ok: false,
        line: i,
        message:
          read === null
            ? 'No figure was found in this line'
            : `This line would be read as ${read.value === 'over' ? 'over-range' : `${String(read.value)} (${MODES[read.mode].words})`}`,
      };
  }
  return { ok: true, format };
}
