import { decodeCapacitorCode, decodeChipResistor, decodeLetterValue, type Decoded, decodeResistorCode, normaliseUnits } from '../marking';
import { colourIn, type FreeKind, kindOf } from './kindWords';
import { expandRefs } from './refs';

/** What a line of free text says. Numbers in the SI unit; a type number or colour as text. */
export interface FreeLine {
  readonly kind: FreeKind;
  readonly value: number | string | null;
  readonly unit: 'ohm' | 'F' | 'H' | 'Hz' | null;
  readonly quantity: number;
  readonly refs: readonly string[];
}

const COUNT_WORDS =
  'pcs?|pieces?|stk\\.?|stück|st\\.|uds?\\.?|unid(?:ades)?\\.?|un\\.|peças|pçs?\\.?|pz\\.?|pezzi|szt\\.?|шт\\.?|штук[иа]?|pièces?|only|parts?|rolls?|bags?|sets?|个|個|只|支|颗|块|片|条|枚|卷|包|套|根|本|張';
const COUNT_PREFIX = 'qty\\.?|qté|qtd\\.?|cant\\.?|quantity|menge|anzahl|数量|кол-во|szt\\.?|ilość|quantité|cantidad|quantidade';

const COUNTS: readonly RegExp[] = [
  new RegExp(`(?:${COUNT_PREFIX})\\s*[:：=]?\\s*(\\d{1,4})(?![\\d.,]*\\s*[a-zµΩ])`, 'i'),
  new RegExp(`(?:^|[\\s;,(—-])(\\d{1,4})\\s*(?:${COUNT_WORDS})(?=$|[\\s;,)])`, 'i'),
  new RegExp('(\\d{1,4})\\s*(?:个|個|只|支|颗|块|片|条|枚|卷|包|套|根|本|張)'),
  /(?:^|[\s;,(])[x×*]\s*(\d{1,4})(?=$|[\s;,)])/i,
  /(?:^|[\s;,(])(\d{1,4})\s*[x×](?=$|[\s;,)])/i,
  /[x×*]\s*(\d{1,4})(?=$|[\s;,)])/i,
];

const REF =
  '(?:R|RN|RV|VR|RP|RT|RK|C|CE|CX|L|D|LED|ZD|DZ|VD|Q|T|TR|VT|U|IC|X|XTAL|Y|XT|ZQ|J|JP|CN|CON|P|K|RL|F|FU|SW|SB|SA|S|TP|TH|LDR|HL|BQ|BZ|LS|LK|DA|DD|Z)';
/** A board's letter in front: `B:R7`. */
const ON_BOARD = '(?:[A-Z]:)?';
const REF_RANGE = `${ON_BOARD}${REF}\\d{1,3}(?:\\s*(?:[-–—~～]|\\.\\.|to|bis|a|à|do|по|至|到)\\s*(?:${ON_BOARD}${REF})?\\d{1,3})?`;
/** A bare number continues a list only behind a comma or slash, and when no unit or count word follows it. */
const BARE_NUMBER = `\\d{1,3}(?![\\dA-Za-zµΩ%]|\\.\\d|\\s*(?:[kKMµunpmx×*%]|V\\b|W\\b|${COUNT_WORDS}))`;
/** Between two refs: a mark, a space, or "and" in the languages of the lists. */
const BETWEEN = '(?:\\s*[,，、/;&+\\s]\\s*|\\s+(?:and|und|et|y|e|i|и|oraz)\\s+|\\s*[和及与]\\s*)';
const REF_LIST = new RegExp(`(?<![A-Za-z0-9])${REF_RANGE}(?:${BETWEEN}${REF_RANGE}|\\s*[,，、/]\\s*${BARE_NUMBER})*(?![A-Za-z0-9])`, 'g');

/** Reads one line of a seller's list, whatever the order of its pieces. */
export function readFreeLine(text: string): FreeLine {
  const flat = normaliseUnits(text.normalize('NFC').replace(/[\t\u00a0\u200e\u200f]/g, ' '));
  const { refs, rest: withoutRefs } = takeRefs(flat);
  const { quantity, rest } = takeCount(withoutRefs);
  const kind = kindOf(flat, refs);
  const { value, unit } = valueOf(kind, rest, flat);
  return { kind, value, unit, quantity: quantity ?? Math.max(1, refs.length), refs };
}

function takeRefs(line: string): { refs: string[]; rest: string } {
  const named = kindOf(line, []);
  // A type number that looks like a position is hidden from the search, and shown again to whoever reads the rest.
  const text = line.replace(/(?<![A-Za-z0-9])[A-Z]\d{3,4}(?![A-Za-z0-9])/g, (word) =>
    contradictsKind(word, named) ? `${word[0]!}${HIDDEN}${word.slice(1)}` : word,
  );
  const { refs, rest } = findRefs(text);
  return { refs, rest: rest.replaceAll(HIDDEN, '') };
}

const HIDDEN = '\u2060';

function findRefs(text: string): { refs: string[]; rest: string } {
  const found = [...text.matchAll(REF_LIST)].flatMap((match) => {
    const refs = expandRefs(match[0].replace(/\s+(?:to|bis|a|à|do|по)\s+|[～至到—]/gi, '-').replace(/\s+(?:and|und|et|y|e|i|и|oraz)\s+|[和及与]/gi, ','));
    if (!refs || refs.length === 0 || isTypeNumber(match[0], text)) return [];
    return [{ refs, rest: text.replace(match[0], ' ').replace(/[(（]\s*[)）]/g, ' '), value: SUB_OHM.test(match[0]) }];
  });
  const first = found[0];
  if (!first) return { refs: [], rest: text };
  if (!first.value || hasOhms(first.rest)) return first;
  // `R47` with no other value in the line is 0.47 ohm, not a position; refs may still follow it.
  return found[1] ?? { refs: [], rest: text };
}

/** A value below one ohm looks like a position: preferred numbers of two figures behind an R (IEC 60062). */
const SUB_OHM = /^R(?:1[0-35-68]|2[0247]|3[0369]|4[37]|5[16]|6[28]|75|82|91)$/;
const hasOhms = (rest: string) => kindOf(rest, ['R1']) !== 'R' || valueOf('R', takeCount(rest.replace(REF_LIST, ' ')).rest, rest).value !== null;

/** `D1` alone may be a ref or the head of a type number; a type number goes on with letters or stands as the only number. */
const isTypeNumber = (found: string, text: string) => /^[A-Z]+\d+$/.test(found) && new RegExp(`${found}[A-Z]`).test(text);

/** `C945` behind a word for transistors is its type, whatever its letter is the sign for: positions have rarely three figures. */
const contradictsKind = (word: string, named: FreeKind): boolean => ['D', 'Q', 'IC'].includes(named) && named !== kindOf('', [word]);

function takeCount(text: string): { quantity: number | null; rest: string } {
  for (const pattern of COUNTS) {
    const match = pattern.exec(text);
    if (match) return { quantity: Number(match[1]), rest: text.replace(match[0], ' ') };
  }
  return { quantity: null, rest: text };
}

function valueOf(kind: FreeKind, rest: string, whole: string): { value: FreeLine['value']; unit: FreeLine['unit'] } {
  switch (kind) {
    case 'R':
      return { value: firstNumber(rest, (w) => [decodeLetterValue(w, 'R'), decodeResistorCode(w), resistorFigures(w), taperedTrack(w)]), unit: 'ohm' };
    case 'C':
      return { value: firstNumber(rest, (w) => [decodeLetterValue(w, 'C'), decodeCapacitorCode(w)], NO_CAPACITY), unit: 'F' };
    case 'L':
      return { value: firstNumber(rest, (w) => [decodeLetterValue(w, 'L')]), unit: 'H' };
    case 'XTAL':
      return { value: frequencyOf(rest), unit: 'Hz' };
    case 'LED':
      return { value: colourIn(whole), unit: null };
    case 'D':
    case 'Q':
    case 'IC':
      return { value: typeNumber(rest), unit: null };
    default:
      return { value: null, unit: null };
  }
}

/** Words that look like values but are sizes, powers, voltages or tolerances; a `p` behind a number is pins, but picofarads on a capacitor. */
const NO_VALUE = /^[\d.,/]+\s*(?:mm|cm|W|V|%|ppm|pins?|p)$|^±?[\d.,]+%$|^[\d.,]+V(?:DC|AC)?$/i;
const NO_CAPACITY = /^[\d.,/]+\s*(?:mm|cm|W|V|%|ppm|pins?)$|^±?[\d.,]+%$|^[\d.,]+V(?:DC|AC)?$/i;

/** The first word (or word and unit) that decodes to a number. */
function firstNumber(text: string, decoders: (word: string) => Decoded[], noValue = NO_VALUE): number | null {
  const apart = text.replace(/(\d\s*W)\s*[-_/]?\s*(?=\d)/gi, '$1 ');
  const prefixed = noValue === NO_CAPACITY ? apart.replace(/(\d)\s+(?=[munpµ](?:F\b|[\s;,)/]|$))/g, '$1') : apart;
  const glued = prefixed.replace(/(\d)\s+(?=(?:[kKMmunp]?(?:ohms?|F|H)|[kKM])(?:[\s;,)/]|$))/g, '$1').replace(/[（）()\[\];；]/g, ' ');
  for (const word of candidateWords(glued)) {
    if (noValue.test(word)) continue;
    for (const d of decoders(word)) {
      if (d.state === 'clear' && typeof d.reading.value === 'number') return d.reading.value;
      if (d.state === 'ambiguous' && typeof d.readings[0]!.value === 'number') return d.readings[0]!.value;
    }
  }
  return null;
}

/** Values glued to other scripts stand out by their first digit: `电容0.33nF`. Values with units come before bare numbers. */
function candidateWords(text: string): string[] {
  const words = text
    .replace(/[^\x20-\x7eµΩ±]+/g, ' ')
    .split(/[\s,]+(?!\d)|\s+/)
    .map((w) => w.replace(/^[-–:*x]+|[-–:;,.]+$/g, ''))
    .filter((w) => /\d/.test(w));
  const shares = words.flatMap((w) => (w.includes('/') && !/^\d+\/\d+\s*W?$/i.test(w) ? [w.split('/')[0]!] : [w]));
  return [...shares.filter((w) => /[a-zµΩ]/i.test(w)), ...shares.filter((w) => !/[a-zµΩ]/i.test(w))];
}

/** A potentiometer's taper stands in front of its value: `B50K` (A logarithmic, B linear, C reversed: common practice). */
const taperedTrack = (word: string): Decoded => decodeResistorCode(/^[ABC](?=\d+[KM]\d*$)/i.test(word) ? word.slice(1) : '');

/** Two figures and a power of ten with a tolerance letter behind, as cement and metal-film bodies bear it: `103J`. */
const resistorFigures = (word: string): Decoded => (/^\d{3}[FGJKM]$/i.test(word) ? decodeChipResistor(word.slice(0, 3)) : decodeResistorCode(''));

function frequencyOf(text: string): number | null {
  const match = /(\d+(?:[.,]\d+)?)\s*([kKMG]?)\s*(?:Hz|Гц|赫)/i.exec(text) ?? /(\d+(?:[.,]\d+)?)\s*([kKM])\b/.exec(text);
  if (!match) return null;
  const exponent = { '': 0, k: 3, K: 3, M: 6, m: 6, G: 9 }[match[2]!] ?? 0;
  return Number(`${match[1]!.replace(',', '.')}e${exponent}`);
}

/** Names of bodies: `DIP-16` is no type. */
const BODY_CODE = /^(?:P?DI[LP]|SI[LP]|SO|SOIC|SOP|SSOP|TSSOP|MSOP|SOT|SOD|TO|DO|QF[PN])-?\d+[A-Z]?$/i;

/** A type number: letters and digits mixed, or a bare number of three digits and more. */
function typeNumber(text: string): string | null {
  const words = text
    .replace(/[^\x20-\x7e]+/g, ' ')
    .replace(/[()[\];,]/g, ' ')
    .split(/\s+/)
    .filter((w) => /\d/.test(w) && !NO_VALUE.test(w) && !BODY_CODE.test(w) && !/^[x*]\d+$/i.test(w));
  return words.find((w) => /[A-Z]/i.test(w) && w.length >= 4) ?? words.find((w) => /^\d{3,}[A-Z]*$/i.test(w)) ?? words.find((w) => w.length >= 3) ?? null;
}
