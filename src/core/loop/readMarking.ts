import { expectationOf, type KitState, type Line } from '../kit';
import {
  type Band,
  capacitorCode,
  decodeCapacitorCode,
  decodeChipResistor,
  type Decoded,
  decodeDateCode,
  decodeInductorBands,
  decodeInductorCode,
  decodeResistorBands,
  decodeResistorCode,
  type Reading,
} from '../marking';
import { printNominal, type Unit } from '../quantity';
import { bandWord } from './pileEntry';

export type MarkingKind = 'bands' | 'resistor' | 'chip' | 'capacitor' | 'coil' | 'date';

/** One way to read a marking, the likeliest first. */
export interface MarkingChoice {
  readonly value: number | null;
  readonly unit: Unit | null;
  readonly text: string;
  readonly tolerance: readonly [number, number] | null;
  /** The line of this kit that wants such a value; null when none does. */
  readonly line: Line | null;
}

export interface MarkingAnswer {
  readonly choices: readonly MarkingChoice[];
  /** What to do when nothing, or more than one thing, can be read. */
  readonly message: string;
}

const UNIT: Readonly<Record<string, Unit>> = { ohm: 'ohm', F: 'F', H: 'H' };

/** Bands as typed: `bn bk rd gd`, a doubtful one as `bn/rd`. Null for a word that is no colour. */
export function readBandWords(text: string): Band[] | { readonly unknown: string } {
  const bands: Band[] = [];
  for (const word of text
    .trim()
    .split(/[\s,]+/)
    .filter(Boolean)) {
    const colours = word.split('/').map(bandWord);
    if (colours.includes(null)) return { unknown: word };
    bands.push(colours.length === 1 ? colours[0]! : colours.map((c) => c!));
  }
  return bands;
}

/** Reads a marking in every legal way; readings that this kit's list contains come first. */
export function readMarking(kind: MarkingKind, text: string, lines: readonly Line[], today: string): MarkingAnswer {
  if (text.trim() === '') return { choices: [], message: '' };
  let decoded: Decoded;
  if (kind === 'bands' || (kind === 'coil' && /[a-z]{2}\s/i.test(text))) {
    const bands = readBandWords(text);
    if ('unknown' in bands)
      return { choices: [], message: `"${bands.unknown}" is no colour. Use bk bn rd og ye gn bu vt gy wh gd sr, and bn/rd where you cannot tell.` };
    decoded = kind === 'coil' ? decodeInductorBands(bands) : decodeResistorBands(bands);
  } else decoded = decodeText(kind, text, lines, today);
  return answerOf(decoded, lines);
}

function decodeText(kind: MarkingKind, text: string, lines: readonly Line[], today: string): Decoded {
  switch (kind) {
    case 'resistor':
      return decodeResistorCode(text);
    case 'chip':
      return decodeChipResistor(
        text,
        lines.flatMap((l) => chipCodes(l)),
      );
    case 'capacitor':
      return decodeCapacitorCode(
        text,
        lines.flatMap((l) => (l.value !== null && expectationOf(l)?.unit === 'F' ? (capacitorCode(l.value) ?? []) : [])),
      );
    case 'coil':
      return decodeInductorCode(text);
    default:
      return decodeDateCode(text, /^\d{3}$/.test(text.trim()) ? 'YWW' : 'YYWW', today);
  }
}

/** Three- and four-figure codes of a resistor line, so that an unreadable figure can be settled by the list. */
function chipCodes(line: Line): string[] {
  if (line.value === null || line.value < 10 || expectationOf(line)?.unit !== 'ohm') return [];
  return [2, 3].flatMap((figures) => {
    const exponent = Math.floor(Math.log10(line.value!) + 1e-9) - figures + 1;
    const digits = line.value! / 10 ** exponent;
    return exponent >= 0 && Math.abs(digits - Math.round(digits)) < 1e-6 ? [`${Math.round(digits)}${exponent}`] : [];
  });
}

function answerOf(decoded: Decoded, lines: readonly Line[]): MarkingAnswer {
  if (decoded.state === 'invalid') return { choices: [], message: 'No legal reading, from either end. Look again with a lens, or measure it.' };
  const readings = decoded.state === 'clear' ? [decoded.reading, ...decoded.others] : decoded.readings;
  const choices = readings.map((r) => choiceOf(r, decoded.unit, lines)).sort((a, b) => Number(b.line !== null) - Number(a.line !== null));
  const wanted = choices.filter((c) => c.line !== null).length;
  if (choices.length === 1) return { choices, message: '' };
  if (wanted === 1) return { choices, message: `It can be read in ${choices.length} ways; only one is on this kit’s list.` };
  return { choices, message: wanted > 1 ? 'More than one reading is on the list: measure it.' : 'It can be read in several ways: measure it.' };
}

function choiceOf(r: Reading, unit: string, lines: readonly Line[]): MarkingChoice {
  if (typeof r.value === 'string')
    return { value: null, unit: null, text: `year ${r.value.slice(0, 4)}, week ${Number(r.value.slice(-2))}`, tolerance: null, line: null };
  const si = UNIT[unit]!;
  const value = r.value;
  const limits = r.tolerancePercent;
  const extras = [
    limits ? (limits[0] === -limits[1] ? `±${limits[1]} %` : `${limits[0]} / +${limits[1]} %`) : '',
    r.tempco !== null ? `${r.tempco} ppm/K` : '',
    r.ratedVoltage !== null ? `${r.ratedVoltage} V` : '',
  ].filter(Boolean);
  return {
    value,
    unit: si,
    text: [value === 0 ? '0 Ω link' : printNominal(value, si), ...extras].join(', '),
    tolerance: limits ? [limits[0] / 100, limits[1] / 100] : null,
    line: lines.find((l) => l.value !== null && expectationOf(l)?.unit === si && Math.abs(l.value - value) <= 1e-6 * value) ?? null,
  };
}

/** Whether what was read on a piece contradicts the line it lies with: none of the legal readings is the line's value. */
export function contradicts(kit: KitState, line: Line, marked: string): boolean {
  const [printed = '', said = ''] = marked.split(' = ');
  if (line.value === null || said === '') return false;
  const kinds: readonly MarkingKind[] = ['bands', 'resistor', 'chip', 'capacitor', 'coil'];
  const all = kinds.flatMap((k) => readMarking(k, printed, kit.sheet.lines, '').choices).filter((c) => said.startsWith(c.text) || c.text.startsWith(said));
  return all.length > 0 && !kinds.some((k) => readMarking(k, printed, kit.sheet.lines, '').choices.some((c) => c.line?.id === line.id));
}
