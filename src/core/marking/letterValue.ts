import { findTolerance } from '../quantity';
import { decide, type Decoded, INVALID, type MarkingUnit, plainReading, scaled, unranked } from './decoded';

export type ValueKind = 'R' | 'C' | 'L';

const UNIT: Readonly<Record<ValueKind, MarkingUnit>> = { R: 'ohm', C: 'F', L: 'H' };
const UNIT_WORD: Readonly<Record<ValueKind, string>> = { R: 'ohms?|r', C: 'f(?:arads?)?', L: 'h(?:enr(?:y|ies))?' };

/** Cyrillic units and typographic characters as one spelling. */
const SPELLING: readonly (readonly [RegExp, string])[] = [
  [/[μµ]{2}/g, 'p'],
  [/(?<=\d\s*)mu(?=[fh]?(?![a-z]))/gi, 'u'],
  [/[μµ]/g, 'u'],
  [/[Ω\u2126ω]/g, 'ohm'],
  [/欧姆|欧/g, 'ohm'],
  [/мкФ/gi, 'uF'],
  [/нФ/gi, 'nF'],
  [/пФ/gi, 'pF'],
  [/мкГн/gi, 'uH'],
  [/мГн/gi, 'mH'],
  [/кОм/gi, 'kohm'],
  [/МОм/g, 'Mohm'],
  [/мОм/g, 'mohm'],
  [/Ом(?![а-я])/gi, 'ohm'],
  [/(\d)\s*В(?![а-я])/g, '$1 V'],
  [/МГц/gi, 'MHz'],
  [/кГц/gi, 'kHz'],
  [/MFD\b/gi, 'uF'],
];

export function normaliseUnits(text: string): string {
  return SPELLING.reduce((t, [from, to]) => t.replace(from, to), text);
}

interface Extras {
  readonly rest: string;
  readonly tolerancePercent: readonly [number, number] | null;
  readonly tempco: number | null;
  readonly ratedVoltage: number | null;
}

/** Takes tolerance, temperature coefficient, voltage and power out of a description. */
function takeExtras(text: string): Extras {
  let rest = text;
  const take = (pattern: RegExp): RegExpExecArray | null => {
    const match = pattern.exec(rest);
    if (match) rest = rest.replace(match[0], ' ');
    return match;
  };
  const number = (t: string) => Number(t.replace(',', '.'));
  const tolerance = findTolerance(rest);
  if (tolerance) rest = rest.replace(tolerance.text, ' ');
  const ppm = take(/(?:±\s*)?(\d+)\s*ppm(?:\/\s*(?:K|°C))?/i);
  take(/(?:^|\s)\d+(?:[./]\d+)?\s*W(?![a-z])/i);
  const volts = take(/(?:[/\s]|(?<=[a-z]))\s*(\d+(?:[.,]\d+)?)\s*V(?![a-z])/i);
  return {
    rest: rest
      .trim()
      .replace(/[/;,]$/, '')
      .trim(),
    tolerancePercent: tolerance?.percent ?? null,
    tempco: ppm ? Number(ppm[1]) : null,
    ratedVoltage: volts ? number(volts[1]!) : null,
  };
}

/** A value as people write it: RKM with the letter as the point, or a number with prefix and unit. */
export function decodeLetterValue(text: string, kind: ValueKind): Decoded {
  const { rest, ...extras } = takeExtras(normaliseUnits(text.trim()));
  const values = valuesOf(rest, kind);
  if (values.length === 0) return INVALID;
  return decide(UNIT[kind], unranked(values.map((v) => plainReading(v, extras))));
}

function valuesOf(text: string, kind: ValueKind): number[] {
  const point = /^(\d*)([a-zR])(\d+)(?:\s*(ohms?|F|H))?$/i.exec(text);
  if (point) {
    const exponent = prefixExponent(point[2]!, kind, true);
    return exponent === null ? [] : [scaled(`${point[1]! || '0'}.${point[3]!}`, exponent)];
  }
  const plain = new RegExp(`^(\\d+(?:[.,]\\d+)*|[.,]\\d+)\\s*(?:([a-z])?\\s*(${UNIT_WORD[kind]})?)?$`, 'i').exec(text);
  if (!plain) return [];
  const [, digits, letter, unit] = plain as unknown as [string, string, string?, string?];
  const exponent = letter === undefined ? defaultExponent(kind, unit) : prefixExponent(letter, kind, false);
  if (exponent === null) return [];
  return numbersOf(digits, unit !== undefined).flatMap((n) => {
    const value = scaled(n, exponent);
    // "mF" is millifarad as written (SI) and microfarad as often meant (common practice).
    return kind === 'C' && letter?.toLowerCase() === 'm' ? [value, scaled(n, -6)] : [value];
  });
}

const defaultExponent = (kind: ValueKind, unit: string | undefined): number | null => (kind === 'R' || unit !== undefined ? 0 : null);

function prefixExponent(letter: string, kind: ValueKind, asPoint: boolean): number | null {
  if (letter === 'R' || letter === 'r') return kind === 'R' ? 0 : kind === 'L' && asPoint ? -6 : null;
  if (kind === 'R') return { k: 3, K: 3, M: 6, m: asPoint ? null : -3, G: 9, u: null }[letter] ?? null;
  return { p: -12, P: -12, n: -9, N: -9, u: -6, U: -6, m: -3 }[letter] ?? null;
}

/** Decimal comma or point; a comma before exactly three digits may also be a thousands mark. */
function numbersOf(digits: string, hasUnit: boolean): string[] {
  if (/^\d{1,3},\d{3}$/.test(digits) && hasUnit) return [digits.replace(',', ''), digits.replace(',', '.')];
  if (/^\d{1,3}(?:,\d{3}){2,}$/.test(digits)) return [digits.replaceAll(',', '')];
  const plain = digits.replace(',', '.');
  return /^\d*\.?\d*$/.test(plain) ? [plain] : [];
}
