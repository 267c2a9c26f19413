import { familyOf, kindByLetters, kindByType, kindByWords } from './kinds';
import type { SheetKind, SheetRating } from './reading';

/** What was said of all parts of a kind: “Resistors 1/4 W 5 %”, “all capacitors 50 V”. The kind stands for its family. */
export interface Headed {
  readonly kind: SheetKind;
  readonly figures: string;
}

const FIGURES = /(?:±|\+\/?-)?\s?\b\d+\s?\/\s?\d+\s?W\b|(?:±|\+\/?-)?\s?\b\d+(?:[.,]\d+)?\s?(?:V|W|Вт|В|%)(?!\p{L})/gu;
const ALL = /^(?:all|alle|sämtliche|tous|toutes|todos|todas|tutti|tutte|wszystkie|все)\s/iu;
/** Beside the word for the part a heading may say how it is made. */
const MOST_WORDS = 5;
const PLURAL = /(?:s|en|er|e|i|y|ы|и)$/iu;
const DESIGNATOR = /(?<![\p{L}\d])[A-Z]{1,4}\d{1,3}(?![\p{L}\d])/u;

/**
 * A line that names parts in the plural, with figures that hold for all of them, and above one of them. `next`: the line below;
 * `marked`: it ended in a colon. Null for anything else: a part whose line says little stays a part.
 */
export function headingOf(text: string, next: string, marked: boolean): Headed | null {
  const found = plainOf(text);
  const kind = found && kindByWords(found.bare);
  if (!found || kind === null || DESIGNATOR.test(text)) return null;
  const words = found.bare.split(/\s+/).filter((w) => /\p{L}/u.test(w));
  if (words.length === 0 || words.length > MOST_WORDS || !words.some((w) => PLURAL.test(w) && kindByWords(w) !== null)) return null;
  // A colon or figures make a heading of a word; a word alone may as well be a line without a count.
  return (marked && found.figures !== '') || isOf(next, kind) ? { kind, figures: found.figures } : null;
}

/** “All resistors 1/4 W, 5 % unless stated”: null for anything else. */
export function remarkOnAll(text: string): Headed | null {
  const found = ALL.test(text) ? plainOf(text) : null;
  const kind = found && kindByWords(found.bare);
  return found && kind !== null && found.figures !== '' ? { kind, figures: found.figures } : null;
}

/** A text without its figures; null where others are left: a value makes a part of it. */
function plainOf(text: string): { readonly bare: string; readonly figures: string } | null {
  const figures = (text.match(FIGURES) ?? []).join(' ').trim();
  const bare = text
    .replace(FIGURES, ' ')
    .replace(/[()[\]:,;*=#–—-]+/g, ' ')
    .trim();
  return /\d/.test(bare) ? null : { bare, figures };
}

/** Whether a line below names a part of this family: by its position, its word or its type. */
function isOf(line: string, kind: SheetKind): boolean {
  const ref = DESIGNATOR.exec(line)?.[0];
  const same = (other: SheetKind | null) => other !== null && (other === kind || (familyOf(kind) >= 0 && familyOf(other) === familyOf(kind)));
  if (!/\d/.test(line)) return false;
  return (ref !== undefined && same(kindByLetters(ref))) || same(kindByWords(line)) || line.split(/[\s,;]+/).some((w) => same(kindByType(w)));
}

const number = (t: string) => Number(t.replace(',', '.'));

/** What was said of all parts of a kind's family, the last word of each sort first. */
export function figuresFor(all: readonly Headed[], kind: SheetKind): { readonly tolerance: readonly [number, number] | null; readonly rating: SheetRating } {
  const text = all
    .filter((h) => h.kind === kind || (familyOf(kind) >= 0 && familyOf(h.kind) === familyOf(kind)))
    .map((h) => h.figures)
    .reverse()
    .join(' ');
  const percent = /(\d+(?:[.,]\d+)?)\s?%/.exec(text);
  const watts = /(?:(\d+)\s?\/\s?)?(\d+(?:[.,]\d+)?)\s?(?:W|Вт)/.exec(text);
  const volts = /(\d+(?:[.,]\d+)?)\s?[VВ](?!\p{L})/u.exec(text);
  const share = percent && number(percent[1]!);
  return {
    tolerance: share === null ? null : [-share, share],
    rating: {
      ...(watts ? { W: watts[1] === undefined ? number(watts[2]!) : Number(watts[1]) / number(watts[2]!) } : {}),
      ...(volts ? { V: number(volts[1]!) } : {}),
    },
  };
}
