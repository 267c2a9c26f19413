import { kindByType, KNOWN_LETTERS } from './kinds';

/** Slips of print in a number: O for 0, l or I for 1. */
const DIGITS = '[\\dOoIl]';
const ONE = new RegExp(`^(?:([\\p{L}\\p{N}]{1,8}):)?([A-Z]{1,5})(\\d${DIGITS}{0,3}|${DIGITS}{0,2}\\d)([A-Z]?)$`, 'u');
const RANGE_MARK = '(?:-|–|—|~|\\.\\.\\.?|…|to|thru|through|bis|al?|à|do|по|至|到)';
const RANGE = new RegExp(
  `^(?:([\\p{L}\\p{N}]{1,8}):)?([A-Z]{1,5})(\\d${DIGITS}{0,3})\\s*${RANGE_MARK}\\s*(?:(?:[\\p{L}\\p{N}]{1,8}:)?([A-Z]{1,5}))?(\\d${DIGITS}{0,3})$`,
  'u',
);
const LONGEST_RANGE = 200;

const digits = (text: string) => Number(text.replace(/[Oo]/g, '0').replace(/[Il]/g, '1'));

/** Positions that one word stands for; null when it is none. `before`: letters that a bare number goes on with. */
function expandWord(word: string, before: string | null): { refs: string[]; letters: string } | null {
  const range = RANGE.exec(word);
  if (range && (range[4] === undefined || range[4] === range[2])) {
    const [from, to] = [digits(range[3]!), digits(range[5]!)];
    if (to < from || to - from > LONGEST_RANGE) return null;
    const board = range[1] ? `${range[1]}:` : '';
    return { refs: Array.from({ length: to - from + 1 }, (_, i) => `${board}${range[2]!}${from + i}`), letters: `${board}${range[2]!}` };
  }
  const one = ONE.exec(word);
  if (one) {
    const board = one[1] ? `${one[1]}:` : '';
    return { refs: [`${board}${one[2]!}${digits(one[3]!)}${one[4]!}`], letters: `${board}${one[2]!}` };
  }
  if (before !== null && /^\d{1,3}$/.test(word)) return { refs: [`${before}${word}`], letters: before };
  return null;
}

const lettersOf = (ref: string) => /^(?:[^:]*:)?([A-Z]+)/.exec(ref)?.[1] ?? '';

/** Positions of a cell that holds nothing else; null when a word of it is none. */
export function refsOfCell(cell: string): string[] | null {
  const joined = cell
    .replace(/[()[\]]/g, ' ')
    .replace(/\s*(?:~|–|—|\.\.+|…)\s*/g, '-')
    .replace(/(?<=\d)\s*-\s*(?=[A-Z]{0,5}\d)/g, '-')
    .replace(/\s(?:to|thru|through|bis|al?|à|do|до|по)\s|\s?[至到]\s?/giu, '-')
    .trim();
  if (joined === '' || /^[-–—]$/.test(joined)) return joined === '' ? null : [];
  const refs: string[] = [];
  let letters: string | null = null;
  for (const [, gap, word] of joined.matchAll(/([\s,;/+&]*)([^\s,;/+&]+)/g)) {
    if (/^(?:and|und|y|e|i|и|et)$/i.test(word!)) continue;
    // A bare number goes on with a list behind a mark only: `R1 240` is a value.
    const more = expandWord(word!, /[,;/+&]/.test(gap!) ? letters : null);
    if (!more) return null;
    refs.push(...more.refs);
    letters = more.letters;
  }
  return refs.length > 0 ? refs : null;
}

/** `S8050` behind `Q1`, `C945` behind `T1`: other letters than the position in front, and a known type, three digits or a letter behind. */
const isTypeBehind = (first: string, word: string): boolean => {
  const [here, one] = [ONE.exec(first), ONE.exec(word)];
  if (!here || one === null || one[1] !== undefined) return false;
  // `DB1 DB107`: of the same letters, a known type with far more digits.
  if (one[2] === here[2]) return kindByType(word) !== null && one[3]!.length >= 3 && here[3]!.length < 3;
  // Where all numbers are in the hundreds, `D101` behind `Q101` is one more position.
  return kindByType(word) !== null || (one[3]!.length >= 3 && here[3]!.length < 3) || one[4] !== '';
};

/** Whether a list of positions ends with a type: one position, or several, and then what they are. */
export function endsWithType(cell: string): boolean {
  const words = cell.trim().split(/[\s,;/&+]+/);
  return words.slice(1).some((w) => isTypeBehind(words[0]!, w));
}

/** Whether a cell is a list of positions: known letters, or several positions of the same unknown ones. */
export function isRefList(cell: string): boolean {
  const refs = refsOfCell(cell);
  if (!refs || refs.length === 0) return false;
  if (refs.length === 1 && kindByType(cell.trim()) !== null && !KNOWN_LETTERS.has(lettersOf(refs[0]!))) return false;
  return refs.every((r) => KNOWN_LETTERS.has(lettersOf(r)));
}

const LIST_IN_TEXT = new RegExp(
  `(?<![\\p{Script=Latin}\\d.,/+%Ω±-])[A-Z]{1,5}\\d${DIGITS}{0,2}(?:(?:\\s?(?:[-–—~至到]|\\.\\.\\.?|…)\\s?|\\s(?:to|thru|through|bis|al?|à|do|до|по)\\s(?=[A-Z]))(?:[A-Z]{1,5})?\\d{1,3})?(?:\\s*[,/&+]\\s*(?:[A-Z]{1,5})?\\d${DIGITS}{0,2}(?:\\s?(?:[-–~]|\\.\\.\\.?|…)\\s?(?:[A-Z]{1,5})?\\d{1,3})?(?![\\d\\p{L}.]|\\s*[x×]\\s*\\d)|\\s+[A-Z]{1,5}\\d${DIGITS}{0,2}(?![\\d\\p{Script=Latin}.-]))*(?![\\p{Script=Latin}\\d.-]|\\s*[x×*]\\s*\\d+(?:[.,]\\d+)?(?:mm)?(?=\\s|$|\\s*¦)(?<=M\\d.*))`,
  'gu',
);

/**
 * Positions within running text, and the text without them. A word that is a type (`BAT85`, `M3`) or a size stays.
 * `hidden`: what is known to be no position.
 */
export function takeRefs(text: string, isType: (word: string) => boolean): { refs: string[]; rest: string } {
  const lists = [...text.matchAll(LIST_IN_TEXT)].flatMap((found) => knownPart(found[0], found.index, isType));
  // Several lists of a line belong together only where nothing but marks stands between them; else the longest counts.
  const best = [...lists].sort((a, b) => b.refs.length - a.refs.length || b.at - a.at)[0];
  if (!best) return { refs: [], rest: text };
  const rest = `${text.slice(0, best.at)}${' '.repeat(1)}${text.slice(best.at + best.length)}`.replace(/\(\s*\)/g, ' ');
  return { refs: best.refs, rest };
}

/** Of words side by side those that are positions: `EE13 TR1` holds one. */
function knownPart(words: string, at: number, isType: (word: string) => boolean): { at: number; length: number; refs: string[] }[] {
  const own = words.trimEnd();
  const first = /^[A-Z]+/.exec(own)?.[0] ?? '';
  const foreign = !KNOWN_LETTERS.has(first) || isType(/^[^\s,/]+/.exec(own)?.[0] ?? '');
  if (foreign) {
    const next = /^\S+?[\s,/–—-]+(?=[A-Z])/.exec(own);
    return next ? knownPart(own.slice(next[0].length), at + next[0].length, isType) : [];
  }
  const typed = [...own.matchAll(/(?<=[\s,/])[A-Z][^\s,/]*/g)].find((w) => isType(w[0]) || isTypeBehind(/^[^\s,/]+/.exec(own)?.[0] ?? '', w[0]));
  if (typed) return knownPart(own.slice(0, typed.index).replace(/[\s,/]+$/, ''), at, isType);
  const refs = refsOfCell(own);
  if (refs?.every((r) => KNOWN_LETTERS.has(lettersOf(r)))) return [{ at, length: own.length, refs }];
  const shorter = /^(.*\d)[\s,/]+\S+$/.exec(own);
  return shorter ? knownPart(shorter[1]!, at, isType) : [];
}
