import { wordsOf } from './text';

/** Length units that files use, in millimetres. An inch is 25.4 mm (ISO 31-1), a mil its thousandth. */
const MILLIMETRES: Readonly<Record<string, number>> = Object.fromEntries(
  (
    [
      [1, 'mm millimeter millimeters millimetre millimetres'],
      [10, 'cm'],
      // Both letters that look like a micro sign are in use.
      [0.001, 'um \u00b5m \u03bcm micron microns'],
      [0.0254, 'mil mils thou th'],
      [25.4, 'in inch inches "'],
    ] as const
  ).flatMap(([mm, words]) => words.split(' ').map((w) => [w, mm])),
);

export const MIL = 0.0254;
export const INCH = 25.4;

/** Millimetres of one of a unit; null for a word that is no unit. */
export const unitOf = (word: string): number | null => (Object.hasOwn(MILLIMETRES, word) ? MILLIMETRES[word]! : null);

/** A number as files print it, and the millimetres of the unit behind it; a comma is a decimal mark. */
export interface Printed {
  readonly value: number;
  readonly unit: number | null;
}

const NUMBER = /^([+\-\u2212]?)((?:\d+(?:[.,]\d*)?|[.,]\d+)(?:e[+\-\u2212]?\d+)?)\s*(.*)$/is;
const LONGEST = 64;

/** @returns null for what is no number with at most a length unit behind it */
export function readLength(cell: string): Printed | null {
  const [, sign, digits, word] = (cell.length <= LONGEST && NUMBER.exec(cell)) || [];
  if (digits === undefined) return null;
  const unit = word === '' ? null : unitOf(word!.toLowerCase());
  const value = numberOf(sign!, digits);
  return (word !== '' && unit === null) || !Number.isFinite(value) ? null : { value, unit };
}

/** Degrees; the word or sign for it may stand behind. */
export function readDegrees(cell: string): number | null {
  const [, sign, digits, word] = (cell.length <= LONGEST && NUMBER.exec(cell)) || [];
  if (digits === undefined || !/^(?:deg|degrees?|\u00b0|\u00ba)?$/i.test(word!)) return null;
  const value = numberOf(sign!, digits);
  return Number.isFinite(value) ? value : null;
}

const numberOf = (sign: string, digits: string) => (sign === '' || sign === '+' ? 1 : -1) * Number(digits.replace(',', '.').replace('\u2212', '-'));

const SPEAKS_OF_UNITS = /(?<![\p{L}\p{N}])(?:units?|coordinates|positions)(?![\p{L}\p{N}])/iu;
/** Short signs for the inch are words of every language: they count only as the value of `unit`. */
const INCHES = /(?<![\p{L}\p{N}])units?[ \t]*[:=][ \t]*(?:in(?![\p{L}\p{N}])|")/iu;

/** Millimetres of the unit that a line of prose states for the coordinates: "Units: mm", "all positions in mil"; else null. */
export function statedUnit(line: string): number | null {
  const speaks = SPEAKS_OF_UNITS.exec(line);
  if (!speaks) return null;
  const behind = speaks.index + speaks[0].length;
  const inches = INCHES.exec(line);
  const word = wordsOf(line.slice(behind)).find((w) => w !== 'in' && unitOf(w) !== null);
  if (!inches) return word === undefined ? null : unitOf(word);
  const at = word === undefined ? -1 : line.toLowerCase().indexOf(word, behind);
  return at >= 0 && at < inches.index ? unitOf(word!) : INCH;
}
