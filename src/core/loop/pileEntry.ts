import type { EntryBody } from '../kit';
import { parseDisplay } from '../quantity';
import { LOOSE_FACTS, type LooseKind, unitOf } from '../vocabulary';

export type LooseEntryBody = Extract<EntryBody, { kind: 'loose' }>;

/** Colours as people abbreviate them on one hand (IEC 60757 letters and everyday ones). */
const BAND_WORDS: Readonly<Record<string, string>> = {
  bk: 'black',
  bn: 'brown',
  br: 'brown',
  rd: 'red',
  og: 'orange',
  or: 'orange',
  ye: 'yellow',
  yl: 'yellow',
  gn: 'green',
  gr: 'green',
  bu: 'blue',
  bl: 'blue',
  vt: 'violet',
  vi: 'violet',
  pu: 'violet',
  gy: 'grey',
  wh: 'white',
  wt: 'white',
  gd: 'gold',
  au: 'gold',
  sr: 'silver',
  si: 'silver',
  ag: 'silver',
  black: 'black',
  brown: 'brown',
  red: 'red',
  orange: 'orange',
  yellow: 'yellow',
  green: 'green',
  blue: 'blue',
  violet: 'violet',
  purple: 'violet',
  grey: 'grey',
  gray: 'grey',
  white: 'white',
  gold: 'gold',
  silver: 'silver',
};

/** The colour that a word or its abbreviation means; null when it is none. */
export const bandWord = (word: string): string | null => BAND_WORDS[word.toLowerCase()] ?? null;

const KIND_PREFIX: Readonly<Record<string, LooseKind>> = { r: 'R', c: 'C', l: 'L', d: 'D', led: 'LED', q: 'Q', t: 'Q' };

/**
 * Reads what was typed for one loose piece: `9.66k`, `104 98n`, `bn bk og gd 9.66k`, `bc547 npn 280`, `red 1.82`,
 * `c 470n`. `kind` is what the last piece was; a unit, a prefix letter or the marking may change it.
 */
export function readPileEntry(
  text: string,
  kind: LooseKind,
): { readonly ok: true; readonly body: Omit<LooseEntryBody, 'meter' | 'kind'> } | { readonly ok: false; readonly message: string } {
  const words = text.trim().split(/\s+/).filter(Boolean);
  if (words.length === 0) return { ok: false, message: 'Type what the meter shows, with the marking in front if there is one' };
  const prefix = words.length > 1 ? KIND_PREFIX[words[0]!.toLowerCase()] : undefined;
  if (prefix) words.shift();
  const polarity = words.map((w) => w.toUpperCase()).find((w): w is 'NPN' | 'PNP' => w === 'NPN' || w === 'PNP') ?? null;
  const rest = words.filter((w) => w.toUpperCase() !== polarity);
  const colours = rest.filter((w) => bandWord(w) !== null);
  const others = rest.filter((w) => bandWord(w) === null);
  const banded = colours.length >= 3;
  const part =
    prefix ??
    (polarity
      ? 'Q'
      : banded && kind !== 'L'
        ? 'R'
        : (kindOfUnit(others[others.length - 1] ?? '', kind) ?? (colours.length === 1 && kind === 'D' ? 'LED' : kind)));
  const last = takeReading(others, part);
  if (last.error !== null) return { ok: false, message: last.error };
  const printed = banded
    ? colours.map((c) => bandWord(c)!)
    : part === 'LED' && colours.length > 0
      ? bandWord(colours[0]!)!
      : [...colours, ...last.rest].join(' ') || null;
  if (last.reading === null && printed === null) return { ok: false, message: 'Neither a reading nor a marking was understood' };
  return { ok: true, body: { part, reading: last.reading, marking: printed, polarity } };
}

/** Kind that a unit gives away; a bare number says nothing. */
function kindOfUnit(word: string, kind: LooseKind): LooseKind | null {
  if (/\d\s*[pnuµm]?F$/i.test(word) || /^\d+[.,]?\d*[pnuµ]$/.test(word)) return 'C';
  if (/\d\s*[nuµm]?H$/.test(word)) return 'L';
  if (/(Ω|ohms?)$/i.test(word) || /^\d+[.,]?\d*[kKM]$/.test(word) || /^\d+[RkKM]\d*$/.test(word)) return 'R';
  if (/\dm?V$/.test(word)) return kind === 'LED' ? 'LED' : 'D';
  return null;
}

function takeReading(words: readonly string[], part: LooseKind): { reading: number | 'over' | null; rest: readonly string[]; error: string | null } {
  const last = words[words.length - 1];
  if (last === undefined) return { reading: null, rest: [], error: null };
  // A bare number on a capacitor or coil is its code, never so many farads.
  if ((part === 'C' || part === 'L') && /^\d+[A-Z]?$/.test(last)) return { reading: null, rest: words, error: null };
  const parsed = parseDisplay(last, unitOf(LOOSE_FACTS[part].mode));
  if (!parsed.ok)
    return words.length === 1 && /^\d/.test(last) && /[.,]{2}|\d[.,]\d*[.,]/.test(last)
      ? { reading: null, rest: [], error: parsed.message }
      : { reading: null, rest: words, error: null };
  return { reading: parsed.kind === 'over' ? 'over' : parsed.value, rest: words.slice(0, -1), error: null };
}
