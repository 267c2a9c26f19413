import { readSpiceNumber } from '../circuit';
import type { BoxFunction, BoxRole, LogicPart, Step } from './board';
import { CARDS } from './cards';

/** A chip while its sentences are read. */
export interface MutableChip {
  ref: string;
  card: string;
  package: string;
  pins: Map<string, string>;
  vdd: string | null;
  gnd: string | null;
  needsHigh: string[];
  clock: { pins: string[]; parts: string[] } | null;
  roles: Map<string, BoxRole>;
  functions: BoxFunction[];
  modes: number;
}
/** A key, and the nets that it joins. */
export interface Key {
  readonly ref: string;
  readonly nets: readonly [string, string];
}
/** A lamp with its resistor: the outer ends of both. */
export interface Lamp {
  readonly ref: string;
  readonly anode: string;
  readonly cathode: string;
}
/** A jumper with its two positions. */
export interface Strap {
  readonly ref: string;
  readonly common: string;
  readonly a: string;
  readonly b: string;
  readonly set: 'a' | 'b';
}

/** A board while its sentences are read. */
export interface Written {
  volts: number;
  readonly chips: Map<string, MutableChip>;
  readonly keys: Key[];
  readonly lamps: Lamp[];
  readonly straps: Strap[];
  readonly displays: string[];
  readonly buzzers: { readonly ref: string; readonly net: string }[];
  readonly parts: LogicPart[];
  /** Cards of the deck. */
  readonly cards: string[];
  /** Tries of the builder's own. */
  readonly own: { readonly act: string; readonly steps: readonly Step[] }[];
}

export const nothingWritten = (): Written => ({
  volts: 5,
  chips: new Map(),
  keys: [],
  lamps: [],
  straps: [],
  displays: [],
  buzzers: [],
  parts: [{ ref: 'V1', kind: 'supply' }],
  cards: [],
  own: [],
});

/** Where a remark goes: what is wrong, or what was taken for granted and is asked. */
export interface Say {
  readonly error: (message: string) => void;
  readonly ask: (message: string) => void;
}

/** The pin of a chip that a net leads to; null for the rails and for nets without one. */
export function pinOf({ chips }: Written, net: string): { readonly chip: MutableChip; readonly pin: string } | null {
  if (net === GROUND || net === PLUS) return null;
  for (const chip of chips.values()) for (const [pin, n] of chip.pins) if (n === net) return { chip, pin };
  return null;
}

/** Nets of the rails. */
export const PLUS = 'vcc';
export const GROUND = '0';
/** Inside pull-ups of programmed chips, ohms (common practice, no source). */
export const INSIDE_PULL = 40_000;
/** Longer ranges, larger chips, more taps are slips (own figures). */
const MOST_IN_RANGE = 100;
export const MOST_PINS = 100;
export const MOST_STEPS = 50;

/** Refs one after another: `K1-K8`, `K1, K4`, `K1 and K2`. */
export const RANGE = String.raw`[A-Za-z]{1,4}\d+(?:\s*(?:-|–|\.\.)\s*[A-Za-z]{0,4}\d+)?(?:\s*(?:,|and|&)\s*[A-Za-z]{1,4}\d+(?:\s*(?:-|–|\.\.)\s*[A-Za-z]{0,4}\d+)?)*`;
/** A sentence as a pattern; RANGE stands for refs. */
export const rule = (source: string) => new RegExp(`^${source.replaceAll('RANGE', RANGE)}$`, 'i');

const ELECTRICAL = { vil: 0.3, vih: 0.6, roh: 50, rol: 30 };
const LEAST_SUPPLY = 2.7;
/** `K1-K8`, `K1..K3`, `K1, K4`, `K2` as the refs that it means. */
export function rangeOf(text: string): string[] {
  return text
    .split(/\s*(?:,|\band\b|&)\s*/)
    .filter(Boolean)
    .flatMap((part) => {
      const m = /^([A-Za-z]*)(\d+)\s*(?:-|–|\.\.|to)\s*\1?(\d+)$/.exec(part.trim());
      const [from, to] = [Number(m?.[2]), Number(m?.[3])];
      if (!m || Math.abs(to - from) >= MOST_IN_RANGE) return [part.trim()];
      return Array.from({ length: Math.abs(to - from) + 1 }, (_, i) => `${m[1]!}${from <= to ? from + i : from - i}`);
    });
}

export const newChip = (ref: string, card: string, body: string): MutableChip => ({
  ref,
  card,
  package: body,
  pins: new Map(),
  vdd: null,
  gnd: null,
  needsHigh: [],
  clock: null,
  roles: new Map(),
  functions: [],
  modes: 0,
});

export const pinsIn = (body: string) => Number(/\d+/.exec(body)?.[0] ?? 8);

/** Ohms of `470`, `4k7`, `10k`, `1M`. */
export function ohmsOf(text: string): number | null {
  const t = text.trim().replace(',', '.');
  const letter = /^(\d+)([kKMR])(\d+)$/.exec(t);
  const spelt = letter ? `${letter[1]!}.${letter[3]!}${letter[2] === 'R' ? '' : letter[2]!}` : t.replace(/R$/, '');
  const ohms = readSpiceNumber(spelt.replace(/M$/, 'meg'));
  return ohms !== null && ohms > 0 ? ohms : null;
}

/** Chips that can be named in sentences, as they are printed, with the names of their pins from pin 1 on. */
export const LIBRARY: readonly { readonly name: string; readonly printed: string; readonly pins: readonly string[] }[] = Object.entries(CARDS)
  .filter(([name]) => name !== 'OSC8')
  .map(([name, { pins }]) => ({ name, printed: printedName(name), pins }))
  .sort((a, b) => a.printed.localeCompare(b.printed, 'en', { numeric: true }));

function printedName(card: string): string {
  if (card.startsWith('HC')) return `74${card}`;
  if (card.startsWith('C4')) return `CD${card.slice(1)}`;
  return { DA7: 'ULN2003 (seven Darlingtons)', DA8: 'ULN2803 (eight Darlingtons)', PE8: 'PE8 (port expander on a bus)' }[card] ?? card;
}

/** A library card by the type as it is printed: `74HC595`, `CD4017`, `HC595`. */
export function cardNamed(type: string): string | null {
  const t = type.toUpperCase();
  const names = Object.keys(CARDS);
  // A timer's parts, which set its rate, cannot be said in sentences yet.
  if (t === 'OSC8') return null;
  const exact = names.find((n) => n === t);
  if (exact) return exact;
  // `SN74HCT165N`, `74LS00`, `HC595`; a 4000 chip in the faster family keeps its pins.
  const logic = /^(?:[A-Z]{2}(?=[57]4))?(?:[57]4)?(?:HCT?|A?LS|A?HCT?|ACT?|F|S)?(\d{2,4})[A-Z]{0,3}$/.exec(t);
  const known = logic && names.find((n) => n === `HC${logic[1]!}` || n === `C${logic[1]!}`);
  if (known) return known;
  const array = /^[A-Z]{2,3}2([08])0[34][A-Z]*$/.exec(t);
  if (array) return array[1] === '0' ? 'DA7' : 'DA8';
  const cmos = /^[A-Z]{0,3}(4\d{3})[A-Z]*$/.exec(t);
  if (cmos) return names.find((n) => n === `C${cmos[1]!}`) ?? null;
  return null;
}

export function chipOf(chip: MutableChip): object {
  const pins = Object.fromEntries(chip.pins);
  if (chip.card !== 'box') return { ref: chip.ref, card: chip.card, pins };
  return {
    ref: chip.ref,
    card: 'box',
    package: chip.package,
    pins,
    supply: { vdd: chip.vdd ?? '1', gnd: chip.gnd ?? '2', min: LEAST_SUPPLY },
    roles: Object.fromEntries(chip.roles),
    electrical: ELECTRICAL,
    programmed: true,
    functions: chip.functions,
    ...(chip.needsHigh.length > 0 ? { needs: { high: chip.needsHigh } } : {}),
    ...(chip.clock ? { clock: chip.clock } : {}),
    ...(chip.modes > 0 ? { vars: { $mode: 0 } } : {}),
  };
}

/** Pins side by side on one flank of a chip: where a bridge is likeliest. */
export function neighboursOf(chips: readonly MutableChip[]): [string, string][] {
  const pairs = new Map<string, [string, string]>();
  for (const chip of chips) {
    const most = pinsIn(chip.package);
    for (let pin = 1; pin < most; pin++) {
      if (pin === most / 2) continue;
      const [a, b] = [chip.pins.get(String(pin)), chip.pins.get(String(pin + 1))];
      if (a !== undefined && b !== undefined && a !== b) pairs.set([a, b].sort().join(' '), [a, b]);
    }
  }
  return [...pairs.values()];
}
