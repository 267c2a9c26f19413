import { SERIES } from '../preferred';
import { decide, type Decoded, INVALID, plainReading, type Reading, scaled, unranked } from './decoded';
import { TOLERANCE_LETTERS, toleranceOf } from './tolerance';
import { matchesUnreadable } from './unreadable';

const EXPONENT: Readonly<Record<string, number>> = { R: 0, K: 3, M: 6, G: 9 };
const RKM = new RegExp(`^(\\d*)([RKMG])(\\d*)([${TOLERANCE_LETTERS}]?)$`);

/** RKM code of a wired resistor, with a tolerance letter; power printed in front is dropped (IEC 60062). */
export function decodeResistorCode(text: string): Decoded {
  const body = text
    .trim()
    .replace(/^\d+(?:[./]\d+)?\s*W\s*/i, '')
    .toUpperCase();
  const match = RKM.exec(body);
  if (!match || `${match[1]!}${match[3]!}` === '') return INVALID;
  const [, whole, letter, fraction, tolerance] = match as unknown as [string, string, string, string, string];
  const value = scaled(`${whole || '0'}.${fraction || '0'}`, EXPONENT[letter]!);
  return decide('ohm', unranked([plainReading(value, { tolerancePercent: toleranceOf(tolerance, 'R', value) })]));
}

/** Multiplier letters of the two-figure-and-letter chip code (EIA-96, from memory). */
const EIA96: Readonly<Record<string, number>> = { Z: -3, Y: -2, R: -2, X: -1, S: -1, A: 0, B: 1, H: 1, C: 2, D: 3, E: 4, F: 5 };

/** Chip resistors: three or four figures, R as the point, EIA-96. `?` stands for a character that cannot be read. */
export function decodeChipResistor(text: string, partsList: readonly string[] = []): Decoded {
  const code = text.trim().toUpperCase();
  const codes = code.includes('?') ? partsList.map((c) => c.toUpperCase()).filter((c) => matchesUnreadable(c, code)) : [code];
  return decide('ohm', unranked(codes.flatMap((c) => readChip(c) ?? [])));
}

function readChip(code: string): Reading | null {
  if (/^0{1,4}$/.test(code)) return plainReading(0);
  const percent = code.length === 3 ? 5 : code.length === 4 ? 1 : null;
  const plus = percent === null ? null : ([-percent, percent] as const);
  if (plus && /^\d{3,4}$/.test(code)) return plainReading(scaled(code.slice(0, -1), Number(code.slice(-1))), { tolerancePercent: plus });
  if (plus && /^\d*R\d*$/.test(code) && code.length > 1) return plainReading(Number(code.replace('R', '.')), { tolerancePercent: plus });
  const eia = /^(0[1-9]|[1-8]\d|9[0-6])([A-Z])$/.exec(code);
  const exponent = eia && EIA96[eia[2]!];
  if (!eia || exponent === undefined || exponent === null) return null;
  return plainReading(scaled(SERIES.E96[Number(eia[1]) - 1]!, exponent), { tolerancePercent: [-1, 1] });
}
