import { printNominal } from '../../quantity';
import { factsOf } from '../../vocabulary';
import { colourIn } from '../kindWords';
import { familyOf, kindByLetters, kindByType, kindByWords } from './kinds';
import { figuresFor } from './headed';
import type { Item } from './layout';
import { programmedWord, saysNotFitted, saysNotSupplied, saysOptional, sparesIn, withoutNotices } from './notices';
import type { Doubt, SheetKind, SheetLine, SheetRating } from './reading';
import { endsWithType, isRefList, refsOfCell, takeRefs } from './refs';
import { CELL } from './text';
import { VALUED, valueOf, withoutSlips } from './values';

/** What one item says, with what it leaves open. */
export interface Part {
  readonly line: SheetLine;
  readonly doubts: readonly Doubt[];
  /** Footnote marks that stand at the line. */
  readonly marks: readonly string[];
  readonly spares: number;
}

const UNITS_OF_COUNT =
  'pcs?\\.?|pieces?|off|stk\\.?|stück|st\\.|uds?\\.?|unid(?:ades)?\\.?|un\\.|unidades?|peças?|pçs?\\.?|pz\\.?|pezz[io]|szt\\.?|sztuk\\w?|шт\\.?|штук[иа]?|pièces?|piezas?|nos\\.?|parts?|ea\\.?|个|個|只|支|颗|块|片|条|枚|卷|包|套|根|本|張|コ|ヶ';
const DIMENSION =
  /(?<![\p{L}\d.])(?:M\d+(?:[.,]\d+)?\s*[x×*]\s*\d+(?:[.,]\d+)?|\d+(?:[.,]\d+)?(?:[x×*]|\s[x×*]\s)\d+(?:[.,]\d+)?(?:(?:[x×*]|\s[x×*]\s)\d+(?:[.,]\d+)?)?(?:\s*mm)?|\d\s*[x×*]\s*(?:A{2,4}|9V|18650)|\d+\s+x\s+\d+\s*mm)(?![\p{Ll}\d])/gu;
const HIDE = /\d/g;
/** Figures of sizes written so that no pattern for counts sees them. */
const shield = (text: string) => text.replace(DIMENSION, (d) => d.replace(HIDE, (n) => String.fromCharCode(0xe000 + Number(n))));
const unshield = (text: string) => text.replace(/[\ue000-\ue009]/g, (c) => String(c.charCodeAt(0) - 0xe000));

const COUNTS: readonly RegExp[] = [
  new RegExp(`(?<![\\p{L}\\d.,/~-])(\\d{1,4})\\s*(?:${UNITS_OF_COUNT})(?![\\p{Script=Latin}\\p{Script=Cyrillic}])`, 'iu'),
  /(?<![\p{L}\d.,])[x×*]\s?(\d{1,4})(?![\p{L}\d.,/%]|\s*[x×*Ωµ])/u,
  /(?<![\p{L}\d.,])(\d{1,4})\s?[x×](?=\s|$|¦)/u,
  /(?:qty|qté|menge|anzahl|cant|数量|個数)\.?\s*[:=]?\s*(\d{1,4})(?![\d.])/iu,
];

/** `2 x 10 ohm`, `4 x 1N5408`: a count in front of what cannot be the other side of a size. */
const COUNT_BEFORE_VALUE =
  /^\s*(\d{1,3})\s?[x×]\s+(?=\d+(?:[.,]\d+)?\s?(?:[pnuµmkKMR]?(?:[Oo]hms?|Ω|F|H|Hz|W|[Ww]att|V|VA|A)(?!\p{L})|[kKMRpnuµ](?!\p{L}))|\d[NS][A-Z]?\d)/u;

function takeCount(text: string): { count: number | null; rest: string } {
  const before = COUNT_BEFORE_VALUE.exec(text);
  if (before) return { count: Number(before[1]), rest: text.slice(before[0].length) };
  const hidden = shield(text);
  for (const pattern of COUNTS) {
    const found = pattern.exec(hidden);
    if (found) return { count: Number(found[1]), rest: unshield(`${hidden.slice(0, found.index)} ${hidden.slice(found.index + found[0].length)}`) };
  }
  return { count: null, rest: text };
}

/** `2 bornes de 2 terminales`: a number in front of a word that is no measure of the part. */
const LEADING_COUNT =
  /^\s*(\d{1,3})\s+(?=\p{L}{3})(?!(?:ways?|poles?|polig|positions?|pos|digits?|contacts?|cores?|channels?|steps?|turns?|vie|voies|vías|vias|pins?|pines|pinos|poli|ohms?|volts?|watts?|amps?|kilo\p{L}*|mega\p{L}*|hole|row|segment|inch|zoll)(?!\p{L}))/iu;

const FOR_WORDS =
  /(?:^|[\s(（¦,])((?:for|für|fuer|para|pour|per|dla|для|zu|pod|do|用于|用|适用)\s*:?\s*(?:the\s|den\s|die\s|il\s|el\s|o\s|le\s)?)([A-Z]{1,5}\d{1,3}(?:\s*[,/&-]\s*(?:[A-Z]{1,5})?\d{1,3})*)(?![\p{L}\d])\s*[)）]?|([A-Z]{1,5}\d{1,3})\s*(?:用|に|へ)/u;
const COMPANION =
  '(?:socket(?:ed)?|sockel|fassung|support|z[óo]calo|soquete|zoccolo|podstawk\\p{L}*|heat ?sink|kühlkörper|disipador|dissipat\\p{L}*|radiador|radiateur|radiator)(?!\\p{L})';
/** A socket or a sink that comes with the part does not make one of it. */
const WITH_SOCKET = new RegExp(
  `\\(?(?:\\+|(?<!\\p{L})(?:with|w\\/|incl(?:uding|uded|\\.)?|inkl(?:usive|\\.)?|mit|avec|con|com|z))\\s*(?:an?\\s|the\\s)?(?:ic[- ]?)?${COMPANION}\\)?|\\(\\s*(?:ic[- ]?)?${COMPANION}\\s*(?:included|incl\\.?|supplied|inkl\\.?|beiliegend|fourni|inclus|incluido)?\\s*\\)`,
  'iu',
);
/** `see note 2`: the number counts notes, not ohms. */
const SEE_NOTE =
  /\(?(?<!\p{L})(?:see|siehe|s\.|voir|ver|vedi|patrz|см\.?)\s+(?:the\s)?(?:notes?|text|drawing|table|page|anm\p{L}*\.?|fußnote|hinweis|nota|note|texto|testo|uwag\p{L}*|прим\p{L}*\.?)\s*\d*\)?/iu;
const ALTERNATIVE = /\s(?:or|oder|o|ou|oppure|lub|albo|или|或|または|もしくは)\s+((?:(?!¦)[^\s¦])+(?:\s?(?:k|M|m)?(?:Ω|[Oo]hm|[unpµ]F))?)/u;
const SPACED_SIZE = /(?<![\p{L}\d.])(\d+(?:[.,]\d+)?)(?:[x×*]|\s[x×*]\s)(\d+(?:[.,]\d+)?)(?:(?:[x×*]|\s[x×*]\s)(\d+(?:[.,]\d+)?))?(?:\s*mm)?(?![\p{Ll}\d])/u;
const METRIC = /(?<![\p{L}\d])M(\d+(?:[.,]\d+)?)(?:\s*[x×*]\s*(\d+(?:[.,]\d+)?))?(?:\s*mm)?(?![\p{L}\d])/u;
const CHIP_SIZE = /(?<![\p{L}\d.])(0201|0402|0603|0805|1206|1210|1812|2010|2512)(?![\d\p{L}])/u;
const CASE =
  /(?<![\p{L}\d])((?:TO|DO|SOT|SOD|SOP|SO|SOIC|SSOP|TSSOP|MSOP|QFP|LQFP|TQFP|QFN|DFN|PLCC|P?DI[PL]|SI[PL]|HC)-?\d{1,3}[A-Z]{0,2}(?:-\d{1,2})?|SM[ABC]|MELF)(?![\p{Script=Latin}\d])/u;
const LED_SIZE = /(?<![\p{L}\d.,])(?:[ØΦφ⌀F]\s?(\d{1,2}(?:[.,]\d)?)(?:\s?mm)?|(\d{1,2}(?:[.,]\d)?)\s?mm)(?![\p{L}\d])/u;
const PINS =
  /(?<![\p{L}\d.,])(\d{1,3})\s?-?\s?(?:p(?:ins?)?|pol(?:ig|\.)?|pines?|pinos?|pole?s?|poli|broches?|контакт\p{L}*|вывод\p{L}*|конт\.?|нож\p{L}*|n[óo]ż\p{L}*|pin[óo]w|ways?|feet|foot|legs?|needles?|ピン|端子|脚|腳|芯|针|位(?!共))(?![\p{Script=Latin}\p{Script=Cyrillic}\d])/iu;
const WATTS = /(?<![\p{L}\d.,])(?:(\d+)\s?\/\s?(\d+)|(\d{1,3}(?:[.,]\d+)?))\s?(m)?(?:W|Вт|Watt|watts?|瓦)(?![\p{L}\d]|-\d{3})/u;
const VOLTS = /(?<![\p{L}\d.,])(\d+(?:[.,]\d+)?)\s?(k)?(?:V|В|v|Volt|вольт|伏)(?:\s?(?:DC|AC|=|~))?(?![\p{Script=Latin}\p{Script=Cyrillic}\d])/u;
/** A rating glued to the value in front of it: `47uF16V`, `33uF50V`. */
const GLUED_VOLTS = /(?<=[Ff])(\d+(?:[.,]\d+)?)\s?()(?:V|В)(?![\p{L}\d])/u;
const AMPERES = /(?<![\p{L}\d.,])[TFM]?\s?(\d+(?:[.,]\d+)?)\s?(m|м)?(?:A|А|Amp)(?![\p{L}\d])/u;
const PERCENT = /(?:±|\+\/?-|\+-)?\s?(\d+(?:[.,]\d+)?)\s?%/u;
const num = (t: string) => Number(t.replace(',', '.'));
const COUNT_CELL = /^(?:[x×*]\s*)?\d{1,5}(?:[.,]0+)?\s*[\p{L}×.*)]*$|^[-–—]$|^[?？.]+$/u;
const cutOut = (text: string, found: RegExpExecArray) => `${text.slice(0, found.index)} ${text.slice(found.index + found[0].length)}`;

const COLOURED: ReadonlySet<SheetKind> = new Set(['led', 'wire', 'lamp']);
const TYPED: ReadonlySet<SheetKind> = new Set([
  'diode', 'zener', 'npn', 'pnp', 'nmos', 'pmos', 'njf', 'pjf', 'opamp', 'regulator', 'timer', 'ic', 'microcontroller', 'bridge', 'optocoupler', 'varistor', 'ldr', 'transformer',
]); // prettier-ignore
const BANDS =
  /(?:\b(?:sw|br|rt|ge|gn|bl|vi|ws|or|go|gr|black|brown|red|orange|yellow|green|blue|violet|purple|gr[ae]y|white|gold|silver|schwarz|braun|rot|gelb|grün|blau|violett|lila|grau|weiß|silber)\b[\s,/-]*){3,}/iu;
const UNREADABLE = /^(?:[?？]+|\.{2,}|…|[-–—]+)$/u;
const SMUDGED = /(?<![\p{L}])[?？]+[\d.,]*\s?[\p{L}\dΩµ.,]|\d[?？]+(?![?？])/u;

/** Letters or figures of a type number: what is left when all else is taken. */
function typeIn(text: string, kind: SheetKind | null): string | null {
  const words = text
    .replace(/[^\x20-\x7eµА-Яа-я]+/gu, ' ')
    .replace(/[()[\]¦,;]/g, ' ')
    .split(/\s+/)
    .map((w) => w.replace(/^[-.:/*]+|[-.:/*]+$/g, ''))
    .filter((w) => /\d/.test(w) && !/^\d{1,2}$/.test(w) && !UNREADABLE.test(w));
  const known = words.find((w) => kindByType(w) !== null);
  if (known) return known;
  if (kind === 'transformer') return words.find((w) => /^[A-Z]{1,3}\d{1,3}/i.test(w)) ?? words[0] ?? null;
  if (kind === 'ldr') return words.find((w) => /\d{4}/.test(w)) ?? null;
  return words.find((w) => /[A-Z]/i.test(w) && w.length >= 3) ?? words.find((w) => /^\d{3,}/.test(w)) ?? null;
}

/** Words, signs of East Asian scripts and `IC` stand apart from the figures glued to them. Types such as `ATmega8` have shorter words. */
const apart = (text: string) =>
  text
    .replace(/([\p{Script=Han}\p{Script=Hiragana}\p{Script=Katakana}ー])(?=[\p{Script=Latin}\p{Script=Greek}\d.ØΦ])/gu, '$1 ')
    .replace(/(\p{Ll}{5,})(?=\d)/gu, '$1 ')
    .replace(/(?<![\p{L}\d.,/])(\d+(?:[./]\d+)?W)[-_/]?(?=\d{3}|\d+R)/gu, '$1 ')
    .replace(/LED(?=[ØΦφ])/gu, 'LED ')
    .replace(/(?<!\p{Script=Latin})IC(?=[A-Z]{2,}\d)/gu, 'IC ')
    .replace(SPLIT_TYPE, (found, letters: string, digits: string, grade: string | undefined) => {
      const whole = `${letters}${digits}`;
      if (kindByType(whole) === null) return found;
      return grade === undefined ? whole : kindByType(`${whole}${grade}`) === null ? `${whole} ${grade}` : `${whole}${grade}`;
    });

/** `BC 337`, `2N 3904`, `BC 547 B`: a type written with a gap, which would leave a number that is some other part's type. */
const SPLIT_TYPE =
  /(?<![\p{L}\d])(BC|BD|BF|BS|BU|BUZ|BY|BAT|BAV|BAW|TIP|MJE|IRF|[12]N|2S[A-DK]|NE|LM|CD|HEF|TL|TDA|ULN|UA|CA|LF|TLC|ICM|MAX)[ -](\d{2,5}[A-Z]?)(?:\s([ABC]))?(?![\p{L}\d]|[.,]\d)/gu;

/** Sizes of trimmers' bodies that end like a rating: `3296W`. */
const TRIMMER_BODY = /(?<![\p{L}\d])(?:3296|3362|3386|3006|3266|3299|3329|3323|3352)[A-Z]?(?![\p{L}\d])/u;
/** Kinds whose value may stand as a letter and three figures: `A103`. */
const CODED: ReadonlySet<SheetKind> = new Set(['potentiometer', 'trimmer', 'network']);
/** What a value without a word is by its unit. */
const BY_UNIT: readonly (readonly [RegExp, SheetKind])[] = [
  [/(?<![\p{L}\d.,])\d+(?:[.,]\d+)?\s?(?:[kKMR]?\s?(?:Ω|[Oo]hms?)|[kKMR])(?![\p{L}\d])|(?<![\p{L}\d])\d+[kKMR]\d(?![\p{L}\d])/u, 'resistor'],
  [/(?<![\p{L}\d.,])\d+(?:[.,]\d+)?\s?[pnuµ]F?(?![\p{L}\d])|(?<![\p{L}\d])\d+[pnuµ]\d(?![\p{L}\d])/u, 'capacitor'],
  [/(?<![\p{L}\d.,])\d+(?:[.,]\d+)?\s?[nuµm]H(?![\p{L}\d])/u, 'inductor'],
];
/** Positions of controls, and a track's ohms as they stand on controls: `50kB`, `B50K`, `10k`. No connector has ohms. */
const TURNED = /^(?:[^:]*:)?(?:P|POT|VR|RV|RP|PR)\d/;
const TRACK = /(?<![\p{L}\d.,])(?:[ABC]\d{1,3}\s?[kKM]|\d+(?:[.,]\d+)?\s?[kKM](?:\s?[ABC]|\s?(?:Ω|[Oo]hms?))?)(?![\p{L}\d])/u;
const TAPER = /(?<![\p{L}\d.,])(?:[ABC]\d{1,3}\s?[kKM]|\d+(?:[.,]\d+)?\s?[kKM]\s?[ABC])(?![\p{L}\d])/u;
/** Ratings of fuses that look like positions: `F1A`, `T2A`. */
const FUSE_RATING = /^[TFM]+\d+(?:[.,]\d+)?m?A$/;

/** Reads one item: what it is, its value and ratings, its positions, how many there are. */
export function readPart(item: Item): Part {
  const cell = (role: string) =>
    item.cells
      .filter((c) => c.role === role)
      .map((c) => c.text)
      .join(' ');
  const doubts: Doubt[] = [];
  const marks: string[] = [];
  const texts = item.cells.filter((c) => !['number', 'quantity', 'refs', 'board'].includes(c.role ?? '')).map((c) => c.text);
  let text = apart(texts.join(CELL)).replace(/(?<=[\p{L}\d)）¦.]\s?)(\*{1,3}|†)(?=\s|$|¦)/gu, (mark) => {
    marks.push(mark);
    return ' ';
  });
  const quantityCell = cell('quantity').replace(/\s*\*+$/, '');

  // What the line says beside the part itself.
  const whole = `${text}${CELL}${cell('refs')}${CELL}${quantityCell}`;
  const notFitted = saysNotFitted(whole);
  const supplied = item.supplied && !saysNotSupplied(whole);
  const spares = sparesIn(text) || sparesIn(cell('refs'));
  const notes: string[] = [];
  const programmed = programmedWord(text);
  if (programmed) notes.push(programmed);
  if (saysOptional(text)) notes.push(/\(([^()]*)\)/.exec(text)?.[1] ?? 'optional');
  text = withoutNotices(text);
  const bands = BANDS.exec(text);
  if (bands) text = cutOut(text, bands);
  const meant = FOR_WORDS.exec(text);
  if (meant) {
    notes.push(meant[0].replace(/[()（）¦]/g, ' ').trim());
    text = cutOut(text, meant);
  }
  for (const pattern of [WITH_SOCKET, SEE_NOTE]) {
    const beside = pattern.exec(text);
    if (!beside || cutOut(text, beside).replace(/[¦\s]/g, '') === '') continue;
    notes.push(beside[0].replace(/[()+]/g, '').trim());
    text = cutOut(text, beside);
  }
  const other = ALTERNATIVE.exec(text);
  if (other) {
    const stays = isRefList(other[1]!) ? null : other;
    if (stays) {
      notes.push(other[0].trim());
      text = cutOut(text, other);
    }
  }

  // Positions and count.
  let refs = refsOfCell(cell('refs').replace(/\([^()]*\)/g, ' ')) ?? [];
  if (cell('refs') !== '' && refs.length === 0 && !UNREADABLE.test(cell('refs'))) text = `${text}${CELL}${cell('refs')}`;
  if (quantityCell !== '' && !COUNT_CELL.test(quantityCell) && !notFitted) doubts.push({ what: 'unreadable', text: quantityCell });
  let counted = /\d+/.exec(/^(?:[x×*]\s*)?\d{1,4}/.exec(quantityCell)?.[0] ?? '')?.[0] ?? null;
  const words = text;
  const wordKind = kindByWords(words);
  if (refs.length === 0) {
    const alone = text.split('¦').map((t) => t.trim());
    const isType = (w: string) =>
      (wordKind === 'mechanical' && /^M\d/.test(w)) ||
      (wordKind === 'fuse' && FUSE_RATING.test(w)) ||
      (CODED.has(wordKind ?? 'other') && /^[ABC]\d{3}[A-Z]?$/.test(w)) ||
      (kindByType(w) !== null && !/^(?:R|C|D|L|Q|T|U|IC|LED|ZD|TR)\d/.test(w) && !(wordKind === 'connector' && /^J\d{1,3}$/.test(w))) ||
      /^(?:EE|EI|DIP|TO|SO|SOT|DO|BAT[48]\d)/.test(w) ||
      (wordKind === 'led' && /^F\d{1,2}$/.test(w));
    const named = /^\s*([A-Z]{1,4}\d{1,3}(?:\s*[,;/&+-]\s*[A-Z]{0,4}\d{1,3})*)\s*[:=]\s/.exec(text);
    const at = alone.findIndex((t) => isRefList(t) && !isType(t) && !endsWithType(t));
    if (at >= 0) {
      refs = refsOfCell(alone[at]!)!;
      text = alone.filter((_, i) => i !== at).join(CELL);
    } else if (named && !isType(named[1]!) && refsOfCell(named[1]!)) {
      // What stands in front of a colon is a position, whatever its letters.
      refs = refsOfCell(named[1]!)!;
      text = text.slice(named[0].length);
    } else {
      const taken = takeRefs(text, isType);
      refs = taken.refs;
      text = taken.rest;
    }
  }
  const shielded = text;
  if (counted === null) {
    const { count, rest } = takeCount(text);
    if (count !== null) {
      counted = String(count);
      text = rest;
    } else if (refs.length === 0 && LEADING_COUNT.test(text)) {
      counted = LEADING_COUNT.exec(text)![1]!;
      text = text.replace(LEADING_COUNT, '');
    } else if (item.cells.some((c) => c.role === null) && item.cells.length > 1) {
      // A cell with nothing but a whole number, in a sheet that keeps to no columns.
      const alone = text.split('¦').map((t) => t.trim());
      const bare = alone.flatMap((t, i) => (/^\d{1,3}$/.test(t) ? [i] : []));
      const valued = alone.some((t, i) => !bare.includes(i) && /\d/.test(t));
      if (bare.length > 0 && alone.length > 1 && (bare[0] === 0 || valued)) {
        counted = alone[bare[0]!]!;
        text = alone.filter((_, i) => i !== bare[0]).join(CELL);
      }
    }
  }
  const board = item.board === null ? null : boardName(item.board);
  const placed = board === null ? refs : refs.map((r) => (r.includes(':') ? r : `${board}:${r}`));

  const label = unshield(text)
    .replace(/[¦[\]]/g, ' ')
    .replace(/\(\s*\)/g, ' ')
    .replace(/\s+/g, ' ')
    .replace(/^[\s,:;–-]+|[\s,:;–-]+$/g, '');

  // Ratings, body, figures.
  text = withoutSlips(text);
  let rating: SheetRating = {};
  const kindGuess = wordKind ?? item.section ?? (refs[0] ? kindByLetters(refs[0]) : null);
  const take = (pattern: RegExp): RegExpExecArray | null => {
    const found = pattern.exec(text);
    if (found) text = cutOut(text, found);
    return found;
  };
  if (wordKind === 'trimmer' || wordKind === 'potentiometer') take(TRIMMER_BODY);
  const percent = take(PERCENT);
  let tolerance: readonly [number, number] | null = percent ? [-num(percent[1]!), num(percent[1]!)] : null;
  const watts = take(WATTS);
  if (watts) rating = { ...rating, W: (watts[1] ? Number(watts[1]) / Number(watts[2]) : num(watts[3]!)) * (watts[4] ? 1e-3 : 1) };
  let pack: string | null = null;
  const chip = take(CHIP_SIZE);
  if (chip) pack = chip[1]!;
  const body = take(CASE);
  if (body && !pack) pack = body[1]!;
  if (!pack && cell('package')) pack = cell('package');
  const pinsOfBody = body && /^(?:P?DI[LP]|SI[LP])/i.test(body[1]!) ? Number(/\d+/.exec(body[1]!)![0]) : null;
  const metric = wordKind === 'mechanical' || (wordKind === null && refs.length === 0) ? take(METRIC) : null;
  if (wordKind === 'led' || kindGuess === 'led') {
    const size = take(LED_SIZE);
    if (size) pack = `${(size[1] ?? size[2]!).replace(',', '.')}mm`;
  }
  const sized = wordKind === 'mechanical' ? null : take(SPACED_SIZE);
  if (sized && (wordKind === 'fuse' || wordKind === 'switch'))
    pack = [sized[1], sized[2], sized[3]]
      .filter(Boolean)
      .map((n) => n!.replace(',', '.'))
      .join('x');
  const hasPins = wordKind !== null && ['socket', 'connector', 'network', 'switch', 'display', 'ic', 'relay'].includes(wordKind);
  const counts = hasPins || kindGuess === 'connector' || kindGuess === 'network' ? take(PINS) : null;
  let pins = counts ? Number(counts[1]) : null;
  if (wordKind === 'socket' && pins === null && pinsOfBody !== null) pins = pinsOfBody;
  if (wordKind === 'socket') pack = null;

  // Kind: a word, a type, the section, the designator with its value (in this order).
  const typed = typeIn(text, wordKind);
  // A transformer's size is no type.
  const typeFound = typed !== null && /^\d+VA$/i.test(typed) ? null : typed;
  const typeKind = typeFound === null ? null : isBareDiode(typeFound, refs[0] ?? '') ? 'diode' : kindByType(typeFound);
  // A trimmer's letters stay a trimmer's unless a taper is printed; a connector has no ohms; a switch that has them sits on a control.
  const isOtherwise = wordKind === 'switch' || (wordKind === null && kindByLetters(refs[0] ?? '') === 'connector');
  const isTapered = typeKind === null && TURNED.test(refs[0] ?? '') && (isOtherwise ? TRACK.test(text) : wordKind === null && TAPER.test(text));
  // `Q1 4 MHz`: a quartz where a transistor's letters stand.
  const isQuartz = wordKind === null && typeKind === null && /^(?:[^:]*:)?(?:Q|QZ|X|Y)\d/.test(refs[0] ?? '') && /\d\s?[kM]Hz/.test(text);
  let kind = isTapered ? 'potentiometer' : isQuartz ? 'crystal' : settle(wordKind, typeKind, item.section, refs[0] ?? null, words);
  let sure = kind === null ? 0.4 : wordKind !== null ? 0.95 : typeKind !== null ? 0.92 : 0.85;
  // `2x 10k`: the unit says what it most likely is; it is looked at before it is taken.
  const byUnit = kind === null && refs.length === 0 && cell('refs') === '' ? (BY_UNIT.find(([pattern]) => pattern.test(text))?.[1] ?? null) : null;
  if (byUnit) sure = 0.7;
  kind ??= byUnit ?? 'other';

  if (kind !== 'zener') {
    const volts = take(GLUED_VOLTS) ?? take(VOLTS);
    if (volts) rating = { ...rating, V: num(volts[1]!) * (volts[2] ? 1e3 : 1) };
  }
  if (
    ['fuse', 'lamp', 'supply', 'battery', 'relay', 'motor', 'diode', 'bridge', 'switch', 'connector', 'module', 'ic', 'regulator'].includes(kind) ||
    (kind === 'other' && wordKind === null)
  ) {
    const amps = take(AMPERES);
    if (amps) rating = { ...rating, A: num(amps[1]!) * (amps[2] ? 1e-3 : 1) };
  }
  if (kind === 'battery') text = text.replace(/\bA{2,4}\b/g, ' ');

  const smudged = SMUDGED.test(text) && VALUED.has(kind);
  const found = kind === 'zener' && typeKind === 'zener' ? valueOf('zener', typeFound!, false) : valueOf(kind, text, chip !== null);
  let value = found?.value ?? null;
  let unit = found?.unit ?? null;
  if (found) {
    if (!(kind === 'zener' && typeKind === 'zener')) text = found.rest;
    if (found.tolerance && !tolerance) tolerance = found.tolerance;
    if (found.volts !== undefined) rating = { ...rating, V: found.volts };
  }
  if (kind === 'capacitor' && value !== null && value >= ELECTROLYTIC_FROM && wordKind === null && chip === null) kind = 'electrolytic';
  if (kind === 'capacitor' && wordKind === null && value === null) {
    const large = valueOf('electrolytic', text, false);
    if (large) ({ value, unit } = large);
  }
  const [named, valued] = [cell('kind'), cell('value')];
  const second = valued !== '' && /\d/.test(named) ? valueOf(kind, withoutSlips(apart(withoutNotices(named))), chip !== null) : null;
  const first = second === null ? null : valueOf(kind, withoutSlips(apart(valued)), chip !== null);
  if (first && second && Math.abs(first.value - second.value) > 1e-6 * first.value) {
    const printed = (v: number) => printNominal(v, factsOf(kind === 'supply' ? 'other' : kind).unit);
    doubts.push({ what: 'contradiction', values: [printed(first.value), printed(second.value)] });
  }
  // Old lists write mF for microfarads: one of ten millifarads and more is asked about.
  const milli = unit === 'F' && value !== null && value >= 1e-2 ? /(\d+(?:[.,]\d+)?)\s?mF(?!\p{L})/u.exec(unshield(shielded)) : null;
  if (milli) doubts.push({ what: 'contradiction', values: [`${milli[1]!} mF`, `${milli[1]!} µF`] });
  if (smudged) doubts.push({ what: 'smudge', text: text.trim() });
  else if (value === null && VALUED.has(kind) && !(kind === 'zener' && typeFound)) doubts.push({ what: 'no-value', text: unshield(shielded).trim() });

  let type: string | null = null;
  if (TYPED.has(kind)) type = typeFound && !(kind === 'zener' && typeKind !== 'zener') ? typeFound : null;
  if (kind === 'mechanical' && metric) type = metric[2] ? `M${metric[1]!}x${metric[2]}` : `M${metric[1]!}`;
  if (TYPED.has(kind) && type === null && kind !== 'zener' && !notFitted) {
    if (/[?？]|\.{3}|…/.test(text)) doubts.push({ what: 'unreadable', text: text.trim() });
    sure = Math.min(sure, 0.7);
  }
  const color = COLOURED.has(kind) ? (colourIn(text) ?? shortColour(text)) : null;
  if (kind === 'led' && color === null) sure = Math.min(sure, 0.9);
  // `M3x10 screws 8`: a number behind hardware that has no position counts it.
  if (kind === 'mechanical' && counted === null && refs.length === 0) counted = /(?<![x×*\d.,]\s?)\b(\d{1,3})$/.exec(text.trim())?.[1] ?? null;
  const quantity = counted === null || notFitted ? Math.max(1, refs.length) : Number(counted);
  if (!notFitted && counted !== null && refs.length > 0 && Number(counted) !== refs.length && Number(counted) !== refs.length + spares)
    doubts.push({ what: 'count', pieces: Number(counted), positions: refs.length });
  // What a heading or a remark says of all parts of a kind holds where the line itself says nothing.
  const headed = figuresFor(item.headed, kind);
  tolerance ??= headed.tolerance;
  rating = { ...headed.rating, ...rating };
  return {
    line: {
      kind,
      value,
      unit: value === null ? null : unit,
      tolerance,
      rating: Object.keys(rating).length > 0 ? rating : null,
      type,
      package: pack,
      color,
      pins,
      quantity,
      refs: placed,
      supplied,
      notFitted,
      note: notes.length > 0 ? notes.join('; ') : null,
      label: cell('value') || label,
      printed: item.cells
        .filter((c) => c.role !== 'number')
        .map((c) => c.text)
        .join(' '),
      sources: item.sources,
      sure,
    },
    doubts,
    marks,
    spares,
  };
}

/** `4007` at a diode's place is a rectifier, elsewhere a chip. */
const isBareDiode = (type: string, ref: string) => /^(?:[^:]*:)?V?D\d/.test(ref) && /^(?:400[1-7]|4148)$/.test(type);

/** A board's name as it stands in front of its positions. */
const boardName = (text: string) =>
  text
    .replace(/[^\p{L}\p{N}]/gu, '')
    .slice(0, 8)
    .toUpperCase();

/** From here on a capacitor of which nothing else is said is an electrolytic, farads (common practice, no source). */
const ELECTROLYTIC_FROM = 1e-5;

const SHORT_COLOURS: readonly (readonly [RegExp, string])[] = [
  [/\bIR\b|infra/i, 'infrared'],
  [/\b(?:rd|rt)\b/i, 'red'],
  [/\bgrn\b|\bgn\b/i, 'green'],
  [/\byel\b|\b[yg]e\b/i, 'yellow'],
  [/\bblu\b|\bbl\b/i, 'blue'],
  [/\bwht\b|\bw[hs]\b/i, 'white'],
  [/\borg\b|\bora\b/i, 'orange'],
];
const shortColour = (text: string) => SHORT_COLOURS.find(([pattern]) => pattern.test(text))?.[1] ?? null;

const TRANSISTORS: ReadonlySet<SheetKind> = new Set(['npn', 'pnp', 'nmos', 'pmos', 'njf', 'pjf']);
const CHIPS: ReadonlySet<SheetKind> = new Set(['opamp', 'regulator', 'timer', 'ic', 'microcontroller']);

/** A word beats the type, the type the section, the section the designator; words for families leave the finer kind to the type. */
function settle(word: SheetKind | null, type: SheetKind | null, section: SheetKind | null, ref: string | null, words: string): SheetKind | null {
  if (word === 'npn' || word === 'nmos') {
    if (word === 'nmos' && (type === 'pmos' || /p-?(?:mos|channel|kanal|ch\b)/i.test(words))) return 'pmos';
    if (type !== null && TRANSISTORS.has(type)) return type;
    if (/\bpnp\b/i.test(words)) return 'pnp';
    if (/p-?(?:mos|channel|kanal)/i.test(words)) return 'pmos';
    return word;
  }
  if (word === 'ic') return type !== null && (CHIPS.has(type) || type === 'optocoupler') ? type : 'ic';
  if (word === 'timer') return type === null || type === 'timer' || type === 'ic' ? 'timer' : type;
  if (word === 'diode') return type === 'zener' || type === 'bridge' ? type : 'diode';
  if (word !== null) return word;
  if (type !== null) return type;
  const letters = ref === null ? null : kindByLetters(ref);
  // A position under the heading of something else has lost its own: `VT1` below the capacitors.
  if (section !== null && (letters === null || familyOf(letters) < 0 || familyOf(section) < 0 || familyOf(section) === familyOf(letters))) return section;
  return letters ?? section;
}

/** Kinds that share their designators; others stand for themselves. */
