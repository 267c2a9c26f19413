import { PREFIX, type Unit, UNIT_SYMBOL, UNIT_WORDS } from './units';

export interface QuantityOk {
  readonly ok: true;
  /** SI base unit. */
  readonly value: number;
  /** The unit that was written or expected; null when neither is known. */
  readonly unit: Unit | null;
}
export interface QuantityError {
  readonly ok: false;
  readonly message: string;
  /** Place of the first character that cannot be read, counted from 0. */
  readonly at: number;
}

const LETTER_POINT_UNIT: Readonly<Record<string, Unit>> = { R: 'ohm', r: 'ohm', V: 'V', v: 'V' };

/**
 * Reads a value as people write it: `4k7`, `4,7 k`, `0.1uF`, `R47`, `12V`, `2.2 mA`, `1e-6`.
 * A decimal comma is a point; capital M is mega, small m milli. `expected` decides what a bare number means.
 */
export function parseQuantity(text: string, expected: Unit | null = null): QuantityOk | QuantityError {
  const trimmed = text.trim();
  const lead = text.length - text.trimStart().length;
  if (trimmed === '') return fail(0, 'nothing was entered');
  const letterPoint = readLetterPoint(trimmed, expected);
  if (letterPoint) return checkUnit(letterPoint, expected, lead);
  return readPlain(trimmed, expected, lead);
}

const fail = (at: number, message: string): QuantityError => ({ ok: false, message, at });

/** `4k7`, `R47`, `1M5`, `4n7F`, `5V6`: the letter stands where the point would be. */
function readLetterPoint(text: string, expected: Unit | null): QuantityOk | null {
  const match = /^([+-]?)(\d*)([pPnNuUµμmkKMGRrVv])(\d+)\s*(.*)$/.exec(text);
  if (!match) return null;
  const [, sign, whole, letter, fraction, tail] = match as unknown as [string, string, string, string, string, string];
  const unitOfLetter = LETTER_POINT_UNIT[letter];
  const tailUnit = tail === '' ? null : readUnitWord(tail);
  if (tail !== '' && !tailUnit) return null;
  const exponent = unitOfLetter ? 0 : PREFIX[letter]!;
  return { ok: true, value: scaled(`${sign}${whole || '0'}.${fraction}`, exponent), unit: unitOfLetter ?? tailUnit ?? expected };
}

/** Decimal shift in the text, so that `0.1u` is exactly 1e-7. */
const scaled = (digits: string, exponent: number) => Number(`${digits}e${exponent}`);

function readPlain(text: string, expected: Unit | null, lead: number): QuantityOk | QuantityError {
  const number = /^[+\-−]?\s*(\d+([.,]\d*)?|[.,]\d+)(e[+-]?\d+)?/i.exec(text);
  if (!number) return fail(lead, `"${text[0]!}" is no number. Type what the display shows, such as ${example(expected)}`);
  const digits = number[0].replace(',', '.').replace('−', '-').replace(/\s/g, '');
  const rest = text.slice(number[0].length);
  const at = lead + number[0].length;
  const tail = rest.trim();
  const tailAt = at + (rest.length - rest.trimStart().length);
  if (/^[.,\d]/.test(tail)) return fail(tailAt, `"${tail}" cannot follow ${digits}: a number has one decimal mark`);
  if (tail === '') return checkUnit({ ok: true, value: Number(digits), unit: expected }, expected, lead);
  const suffix = readSuffix(tail);
  if (!suffix) return fail(tailAt, `"${tail}" is no unit that is known here. Type the number with a prefix and unit, such as ${example(expected)}`);
  const [mantissa, exponent] = splitExponent(digits);
  return checkUnit({ ok: true, value: scaled(mantissa, exponent + suffix.exponent), unit: suffix.unit ?? expected }, expected, tailAt);
}

function splitExponent(digits: string): [string, number] {
  const [mantissa, exponent] = digits.toLowerCase().split('e') as [string, string?];
  return [mantissa, exponent ? Number(exponent) : 0];
}

/** A prefix with or without a unit, or a unit alone. */
function readSuffix(tail: string): { exponent: number; unit: Unit | null } | null {
  if (/^meg(a|ohms?|hz)?$/i.test(tail)) return { exponent: 6, unit: /ohm/i.test(tail) ? 'ohm' : /hz/i.test(tail) ? 'Hz' : null };
  const alone = readUnitWord(tail);
  if (alone) return { exponent: 0, unit: alone };
  const exponent = PREFIX[tail[0]!];
  if (exponent === undefined) return /^r$/i.test(tail) ? { exponent: 0, unit: 'ohm' } : null;
  const word = tail.slice(1).trim();
  if (word === '') return { exponent, unit: null };
  const unit = readUnitWord(word);
  return unit ? { exponent, unit } : null;
}

function readUnitWord(word: string): Unit | null {
  const lower = word.trim().toLowerCase().replace('ω', 'ω').replace('\u2126', 'ω');
  return UNIT_WORDS.find(([w]) => w === lower)?.[1] ?? (lower === 'r' ? 'ohm' : null);
}

function checkUnit(q: QuantityOk, expected: Unit | null, at: number): QuantityOk | QuantityError {
  if (expected && q.unit && q.unit !== expected)
    return fail(at, `a value in ${UNIT_SYMBOL[expected] || expected} is expected here, but this is in ${UNIT_SYMBOL[q.unit] || q.unit}`);
  if (!Number.isFinite(q.value)) return fail(at, 'this number is too large');
  return q;
}

function example(unit: Unit | null): string {
  switch (unit) {
    case 'V':
      return '4.98 or 320m';
    case 'A':
      return '12.5m';
    case 'F':
      return '98n';
    case 'ohm':
      return '4k7 or 9.96k';
    default:
      return '4.7k';
  }
}

/** What a display can show: a number, or that it is beyond the range. */
export type DisplayReading = { readonly kind: 'value'; readonly value: number } | { readonly kind: 'over' };

const OVER = /^\s*(o\.?l\.?|0l|over|overload|∞|inf)\s*$/i;

/** Reads what a display shows; `OL` and its relatives mean over-range. */
export function parseDisplay(text: string, unit: Unit): ({ readonly ok: true } & DisplayReading) | QuantityError {
  if (OVER.test(text)) return { ok: true, kind: 'over' };
  const q = parseQuantity(text, unit);
  return q.ok ? { ok: true, kind: 'value', value: q.value } : q;
}
