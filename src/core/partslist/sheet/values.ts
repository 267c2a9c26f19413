import { decodeChipResistor } from '../../marking';
import type { SheetKind } from './reading';

/** A value found in a text, and the text without it. `tolerance` in percent where a code carries its letter. */
export interface FoundValue {
  readonly value: number;
  readonly unit: 'ohm' | 'F' | 'H' | 'Hz' | 'V' | 'm';
  readonly rest: string;
  readonly tolerance?: readonly [number, number];
  /** Volts printed behind the value with a stroke alone: `33/16`. */
  readonly volts?: number;
}

const NUMBER = '(\\d+(?:[.,]\\d+)?|[.,]\\d+)';
const num = (text: string) => Number(text.replace(',', '.').replace(/^\./, '0.'));
const EXPONENT: Readonly<Record<string, number>> = {
  f: -15,
  p: -12,
  n: -9,
  u: -6,
  µ: -6,
  m: -3,
  '': 0,
  k: 3,
  K: 3,
  M: 6,
  G: 9,
  U: -6,
  N: -9,
  P: -12,
  п: -12,
  н: -9,
  мк: -6,
  м: -3,
  к: 3,
  К: 3,
  М: 6,
};
/** Keeps the figures as printed: 11.0592 MHz is 11059200 Hz and nothing beside. */
const scaled = (figures: string, exponent: number) => Number(`${num(figures)}e${exponent}`);
const START = '(?<![\\p{L}\\d.,±?])';
const END = '(?![\\p{Script=Latin}\\p{Script=Cyrillic}\\d])';
const re = (source: string) => new RegExp(source, 'u');

/** Letters of tolerance behind a three-figure code (IEC 60062). */
const LETTER_TOLERANCE: Readonly<Record<string, readonly [number, number]>> = { F: [-1, 1], G: [-2, 2], J: [-5, 5], K: [-10, 10], M: [-20, 20], Z: [-20, 80] };

const without = (text: string, found: RegExpExecArray) => `${text.slice(0, found.index)} ${text.slice(found.index + found[0].length)}`;
/** Slips of print within figures: O for 0 (`12O0Ω`, `82OOhm`), l for 1. */
export const withoutSlips = (text: string) => {
  let before = text;
  for (;;) {
    const after = before
      .replace(/((?<![\p{L}])\d[\d.,]*)[Oo](?=[Oo]*(?:\d|\s*[kKM]?\s*(?:[Oo]hm|Ω|Ом)|[kKRM](?![\p{L}])|\s*[unpµ]?F(?!\p{L})))/gu, '$10')
      .replace(/((?<![\p{L}\d])\d[\d.,]*)l(?=\d|[kKMΩR](?!\p{L}))/gu, '$11');
    if (after === before) return after;
    before = after;
  }
};

const OHM = '(?:[Oo][Hh][Mm][Ss]?|OHM|Ω|Ом|ом|欧姆?|オーム)';

function ohms(text: string, chip: boolean): FoundValue | null {
  const withUnit = re(`${START}${NUMBER}\\s*(k|K|M|m|meg|к|К|М)?\\s*${OHM}`).exec(text);
  if (withUnit)
    return { value: scaled(withUnit[1]!, withUnit[2] === 'meg' ? 6 : (EXPONENT[withUnit[2] ?? ''] ?? 0)), unit: 'ohm', rest: without(text, withUnit) };
  const rkm = re(`${START}(\\d*)([RrKkMEе])(\\d+)(?:[FGJK](?!\\p{L}))?${END}`).exec(text);
  if (rkm && (rkm[1] !== '' || /[Rr]/.test(rkm[2]!))) {
    const exponent = { R: 0, E: 0, K: 3, M: 6 }[rkm[2]!.toUpperCase()] ?? 0;
    return { value: Number(`${rkm[1] || '0'}.${rkm[3]!}e${exponent}`), unit: 'ohm', rest: without(text, rkm) };
  }
  const letter = re(`${START}${NUMBER}\\s?(k|K|M|R|E|meg|к|К|М)(?:[FGJ](?!\\p{L}))?${END}`).exec(text);
  if (letter)
    return {
      value: scaled(letter[1]!, /meg/i.test(letter[2]!) ? 6 : ({ R: 0, E: 0 }[letter[2]!] ?? EXPONENT[letter[2]!] ?? 0)),
      unit: 'ohm',
      rest: without(text, letter),
    };
  const lettered = re(`${START}(\\d{2})(\\d)[FGJ](?!\\p{L})${END}`).exec(text);
  if (lettered) return { value: Number(`${lettered[1]!}e${lettered[2]!}`), unit: 'ohm', rest: without(text, lettered) };
  if (chip) {
    const code = re(`${START}(\\d{3,4}|\\d{2}[A-Z])${END}`).exec(text);
    const decoded = code && decodeChipResistor(code[1]!);
    if (code && decoded?.state === 'clear' && typeof decoded.reading.value === 'number')
      return { value: decoded.reading.value, unit: 'ohm', rest: without(text, code) };
  }
  const bare = re(`${START}${NUMBER}${END}(?![.,]\\d)(?!\\s*(?:%|[VWAВ](?!\\p{L})|mm|/|[x×*]\\s*\\d))(?<!/\\d)`).exec(text);
  return bare ? { value: num(bare[1]!), unit: 'ohm', rest: without(text, bare) } : null;
}

/** Trimmers, controls and networks carry codes: `203` = 20 kΩ, `A103J`, `B50K` (common practice). */
function codedOhms(text: string): FoundValue | null {
  const tapered = re(`${START}[ABC](\\d+(?:[.,]\\d+)?)\\s?([kKM])(?:Ω|[Oo]hm)?${END}`).exec(text);
  if (tapered && !/^\d\d[1-6]$/.test(tapered[1]!)) return { value: scaled(tapered[1]!, EXPONENT[tapered[2]!]!), unit: 'ohm', rest: without(text, tapered) };
  // `50kB`: the taper behind the value.
  const behind = re(`${START}(\\d+(?:[.,]\\d+)?)\\s?([kKM])\\s?[ABC]${END}`).exec(text);
  if (behind) return { value: scaled(behind[1]!, EXPONENT[behind[2]!]!), unit: 'ohm', rest: without(text, behind) };
  // Three figures that end in 0 are ohms as they stand; behind a letter they are a code too.
  const code = re(`${START}(?:(\\d{2})([1-6])|[ABC](\\d{2})([0-6])[FGJKM]?)${END}(?!\\s*[kKM]?\\s*${OHM})`).exec(text);
  const plainly = re(`${START}${NUMBER}\\s*(?:k|K|M|R)?\\s*${OHM}|${START}${NUMBER}\\s?(?:k|K|M|R)${END}|${START}\\d+[kKMR]\\d`);
  if (code && !plainly.test(text.replace(code[0], ' ')))
    return { value: Number(`${code[1] ?? code[3]!}e${code[2] ?? code[4]!}`), unit: 'ohm', rest: without(text, code) };
  return ohms(text, false);
}

function farads(text: string, polarised: boolean): FoundValue | null {
  const withUnit = re(`${START}${NUMBER}\\s*(мк|[pnuµmfпнмUNP])\\s?(?:F|Ф)(?!\\p{Ll})`).exec(text) ?? re(`${START}${NUMBER}\\s*()(?:F|Ф)${END}`).exec(text);
  if (withUnit) return { value: scaled(withUnit[1]!, EXPONENT[withUnit[2]!]!), unit: 'F', rest: without(text, withUnit) };
  const rkm = re(`${START}(\\d+)([pnuµ])(\\d+)(?:[JKM](?!\\p{L}))?${END}`).exec(text);
  if (rkm) return { value: Number(`${rkm[1]!}.${rkm[3]!}e${EXPONENT[rkm[2]!]!}`), unit: 'F', rest: without(text, rkm) };
  const letter = re(`${START}${NUMBER}\\s?(мк|[pnuµпн])${END}`).exec(text);
  if (letter) return { value: scaled(letter[1]!, EXPONENT[letter[2]!]!), unit: 'F', rest: without(text, letter) };
  if (polarised) {
    const stroke = re(`${START}${NUMBER}\\s*/\\s*(\\d+(?:[.,]\\d+)?)(?:\\s*[VВ])?${END}`).exec(text);
    if (stroke) return { value: scaled(stroke[1]!, -6), unit: 'F', rest: without(text, stroke), volts: num(stroke[2]!) };
  }
  const code = re(`${START}(\\d{2})(\\d)([FGJKMZ])?(?=$|,(?!\\d)|[^\\p{L}\\d.,%])(?!\\s*(?:[VWВ](?!\\p{L})|%))`).exec(text);
  if (code && !polarised) {
    const exponent = code[2] === '9' ? -1 : code[2] === '8' ? -2 : Number(code[2]);
    const tolerance = code[3] ? LETTER_TOLERANCE[code[3]] : undefined;
    return { value: Number(`${code[1]!}e${exponent - 12}`), unit: 'F', rest: without(text, code), ...(tolerance ? { tolerance } : {}) };
  }
  const bare = re(`${START}${NUMBER}${END}(?![.,]\\d)(?!\\s*(?:%|[VWAВ](?!\\p{L})|mm|[x×*]\\s*\\d))(?<!/\\d{1,3})`).exec(text);
  // A single digit beside a capacitor is a count more often than a picofarad: it is asked.
  if (!bare || (!polarised && /^\d$/.test(bare[1]!))) return null;
  const micro = polarised || /[.,]/.test(bare[1]!);
  return { value: scaled(bare[1]!, micro ? -6 : -12), unit: 'F', rest: without(text, bare) };
}

function henries(text: string): FoundValue | null {
  const withUnit = re(`${START}${NUMBER}\\s*([nuµmм]|мк)?\\s?(?:H|Гн)(?!\\p{Ll}|z)`).exec(text);
  if (withUnit) return { value: scaled(withUnit[1]!, EXPONENT[withUnit[2] ?? '']!), unit: 'H', rest: without(text, withUnit) };
  const letter = re(`${START}${NUMBER}\\s?([nuµm])${END}`).exec(text);
  if (letter) return { value: scaled(letter[1]!, EXPONENT[letter[2]!]!), unit: 'H', rest: without(text, letter) };
  const code = re(`${START}(\\d{2})(\\d)[JKM]?${END}`).exec(text);
  return code ? { value: Number(`${code[1]!}e${Number(code[2]) - 6}`), unit: 'H', rest: without(text, code) } : null;
}

function hertz(text: string): FoundValue | null {
  const found =
    re(`${START}${NUMBER}\\s*([kKMG])?\\s?(?:Hz|HZ|hz|Гц|赫兹?)`).exec(text) ??
    re(`${START}${NUMBER}\\s*([kкKКмМ])\\s?(?:Гц)`).exec(text) ??
    re(`${START}${NUMBER}\\s?([kKM])${END}`).exec(text);
  if (!found) return null;
  const exponent = { k: 3, K: 3, M: 6, G: 9, к: 3, К: 3, м: 6, М: 6 }[found[2] ?? ''] ?? 0;
  return { value: scaled(found[1]!, exponent), unit: 'Hz', rest: without(text, found) };
}

function zenerVolts(text: string): FoundValue | null {
  const rkm = re(`${START}(\\d+)V(\\d+)${END}`).exec(text);
  if (rkm) return { value: Number(`${rkm[1]!}.${rkm[2]!}`), unit: 'V', rest: without(text, rkm) };
  const volts = re(`${START}${NUMBER}\\s?[VВ](?!\\p{L})`).exec(text);
  if (volts) return { value: num(volts[1]!), unit: 'V', rest: without(text, volts) };
  const typed = /(?:BZX\d{2}-?C?|BZV\d{2}-?C?|BZY\d{2}-?C?|ZPD|C|B)(\d+)V(\d*)/i.exec(text);
  return typed ? { value: Number(`${typed[1]!}.${typed[2] || '0'}`), unit: 'V', rest: text } : null;
}

function metres(text: string): FoundValue | null {
  const found = re(`${START}${NUMBER}\\s?(mm|cm|m|м|см)${END}`).exec(text) ?? re(`${START}${NUMBER}\\s?(米|メートル)`).exec(text);
  if (!found) return null;
  const exponent = { mm: -3, cm: -2, см: -2 }[found[2]!] ?? 0;
  return { value: scaled(found[1]!, exponent), unit: 'm', rest: without(text, found) };
}

/** The value that a part of this kind carries in a text; null for kinds without value, and where none is printed. */
export function valueOf(kind: SheetKind, text: string, chip: boolean): FoundValue | null {
  switch (kind) {
    case 'resistor':
    case 'thermistor':
      return ohms(text, chip);
    case 'network':
    case 'trimmer':
    case 'potentiometer':
      return codedOhms(text);
    case 'loudspeaker':
      return ohms(text, false);
    case 'capacitor':
      return farads(text, false);
    case 'electrolytic':
    case 'tantalum':
      return farads(text, true);
    case 'inductor':
      return henries(text);
    case 'crystal':
      return hertz(text);
    case 'zener':
      return zenerVolts(text);
    case 'wire':
      return metres(text);
    default:
      return null;
  }
}

/** Kinds that are nothing without a value. */
export const VALUED: ReadonlySet<SheetKind> = new Set([
  'resistor',
  'network',
  'trimmer',
  'potentiometer',
  'thermistor',
  'capacitor',
  'electrolytic',
  'tantalum',
  'inductor',
  'crystal',
  'zener',
]);
