import type { EntryBody } from '../kit';
import { parseDisplay } from '../quantity';
import { ledForward, LOOSE_FACTS, type LooseKind, typeReadings, unitOf } from '../vocabulary';

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

const KIND_PREFIX: Readonly<Record<string, LooseKind>> = {
  ...{ r: 'R', c: 'C', l: 'L', d: 'D', led: 'LED', q: 'Q', t: 'Q' },
  ...{ resistor: 'R', capacitor: 'C', cap: 'C', coil: 'L', inductor: 'L', diode: 'D', transistor: 'Q', bjt: 'Q' },
};

/** What was read of one piece, or what has to be asked first. */
type PileEntry = { readonly ok: true; readonly body: Omit<LooseEntryBody, 'meter' | 'kind'> } | { readonly ok: false; readonly message: string };
const ask = (message: string): PileEntry => ({ ok: false, message });

/**
 * Reads what was typed for one loose piece: `9.66k`, `104 98n`, `bn bk og gd 9.66k`, `bc547 npn 280`, `red 1.82`,
 * `c 470n`, or a component tester's line: `BJT-NPN hFE=240 Vbe=680mV`, `C 98.7nF ESR 0.8`, `bc547b damaged`. `kind` is
 * what the last piece was; a prefix, a type, a unit or a colour of this piece goes before it.
 */
export function readPileEntry(text: string, kind: LooseKind): PileEntry {
  if (text.trim() === '') return ask('Type what the meter shows, with the marking in front if there is one');
  if (TWO_DIODES.test(text))
    return ask(
      'Two diodes: a transistor with a broken junction, a double diode, or legs in the wrong holes. Turn it and test again, or type its print and "damaged".',
    );
  const { plain, gain, forward, damaged } = testersLine(text);
  // `33k 32.9 k`: a unit that stands apart belongs to its figure.
  const words = plain
    .replace(/(\d)\s+([pnuµmkKM]?(?:Ω|ohms?|F|H|V)?)$/i, '$1$2')
    .split(/\s+/)
    .filter(Boolean);
  const prefix = words.length > 1 || gain !== null || forward !== null || damaged ? KIND_PREFIX[words[0]?.toLowerCase() ?? ''] : undefined;
  if (prefix) words.shift();
  const polarity = words.map((w) => POLARITY.exec(w)?.[1]!.toUpperCase()).find((w): w is 'NPN' | 'PNP' => w === 'NPN' || w === 'PNP') ?? null;
  const rest = words.filter((w) => !POLARITY.test(w));
  const colours = rest.filter((w) => bandWord(w) !== null);
  const others = rest.filter((w) => bandWord(w) === null);
  const part = prefix ?? kindOf({ colours, others, kind, transistor: polarity !== null || gain !== null, diode: forward !== null });
  const last =
    gain !== null || forward !== null || damaged
      ? { reading: damaged ? ('over' as const) : (gain ?? forward), rest: others, error: null }
      : takeReading(others, part);
  if (last.error !== null) return ask(last.error);
  const printed =
    colours.length >= 3
      ? colours.map((c) => bandWord(c)!)
      : part === 'LED' && colours.length > 0
        ? bandWord(colours[0]!)!
        : [...colours, ...last.rest].join(' ') || null;
  if (last.reading === null && printed === null) return ask('Neither a reading nor a marking was understood');
  return { ok: true, body: { part, reading: last.reading, marking: printed, polarity } };
}

const POLARITY = /^(?:bjt[-:]?)?(npn|pnp)$/i;
const TWO_DIODES = /\b(?:2|two|double) diodes?\b/i;
const GAIN = /(?:\bh\s?fe|\bbeta|β)\s*[=:]?\s*(\d+(?:[.,]\d+)?)/i;
const FORWARD = /\b[UV]f\s*[=:]?\s*(\d+(?:[.,]\d+)?)\s*(m?)V\b/i;
/** What a tester shows beside the figure that counts here: loss, series resistance, base volts, leakage. */
const BESIDE = /\b(?:ESR|Vloss|Rs|[UV]be|Ices?|Iceo|I[rc])\s*[=:]?\s*\d+(?:[.,]\d+)?\s*(?:mΩ|Ω|ohms?|mV|V|[nuµm]?A|%)?/gi;
const DAMAGED = /\b(?:damaged|dead|defect(?:ive)?|unknown part|no part)\b/i;

/** A component tester's words taken out of a line. */
function testersLine(text: string) {
  const gain = GAIN.exec(text);
  const forward = FORWARD.exec(text);
  const number = (t: string) => Number(t.replace(',', '.'));
  return {
    gain: gain && number(gain[1]!),
    forward: forward && number(forward[1]!) * (forward[2] ? 1e-3 : 1),
    damaged: DAMAGED.test(text),
    plain: text.replace(GAIN, ' ').replace(FORWARD, ' ').replace(BESIDE, ' ').replace(DAMAGED, ' ').trim(),
  };
}

interface Seen {
  readonly colours: readonly string[];
  readonly others: readonly string[];
  readonly kind: LooseKind;
  readonly transistor: boolean;
  readonly diode: boolean;
}

/** Volts that an LED shows on a diode test; resistors have three bands or more. */
const LIT: readonly [number, number] = [0.9, 4];

function kindOf({ colours, others, kind, transistor, diode }: Seen): LooseKind {
  if (transistor) return 'Q';
  const type = typeReadings(others.join(' '));
  if (type && /[a-z]/i.test(others.join(''))) return type.body === 'transistor' ? 'Q' : 'D';
  if (colours.length >= 3) return kind === 'L' ? 'L' : 'R';
  const last = others[others.length - 1] ?? '';
  const figure = Number(last.replace(',', '.').replace(/V$/i, ''));
  const colour = colours.length === 1 ? bandWord(colours[0]!)! : null;
  if (colour !== null && ledForward(colour) && (kind === 'D' || kind === 'LED' || last === '' || (figure >= LIT[0] && figure <= LIT[1]))) return 'LED';
  if (diode || ZENER.test(others.join(' '))) return kind === 'LED' ? 'LED' : 'D';
  return kindOfUnit(last, kind) ?? kind;
}

const ZENER = /\bzener\b|\bBZ[XVY]\d|\bdiode\b/i;

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
  if (!BARE.test(last) && typeReadings(last)) return { reading: null, rest: words, error: null };
  // A bare number on a capacitor or coil is its code, never so many farads.
  if ((part === 'C' || part === 'L') && /^\d+[A-Z]?$/.test(last)) return { reading: null, rest: words, error: null };
  const bare = BARE.test(last);
  if (bare && (part === 'C' || part === 'L')) return needsUnit(last, part === 'C' ? '98n or 2.2u for a capacitor' : '100u or 4.7m for a coil', `d ${last}`);
  const figure = Number(last.replace(',', '.'));
  if (bare && part === 'R' && words.length === 1 && figure >= JUNCTION[0] && figure <= JUNCTION[1])
    return needsUnit(last, `${last}R for a resistor`, `${last}V`);
  // Many meters show a junction in millivolts.
  if (bare && (part === 'D' || part === 'LED') && figure >= 100) return { reading: figure / 1000, rest: words.slice(0, -1), error: null };
  const parsed = parseDisplay(last, unitOf(LOOSE_FACTS[part].mode));
  if (!parsed.ok)
    return words.length === 1 && /^\d/.test(last) && /[.,]{2}|\d[.,]\d*[.,]/.test(last)
      ? { reading: null, rest: [], error: parsed.message }
      : { reading: null, rest: words, error: null };
  return { reading: parsed.kind === 'over' ? 'over' : parsed.value, rest: words.slice(0, -1), error: null };
}
const BARE = /^\d+(?:[.,]\d+)?$/;
/** A bare figure between these may be a junction's volts as well as a small resistor. */
const JUNCTION: readonly [number, number] = [0.15, 0.9];
const needsUnit = (figure: string, either: string, diode: string) => ({
  reading: null,
  rest: [],
  error: `${figure} of what? Type its unit: ${either}, ${diode} for a diode.`,
});
