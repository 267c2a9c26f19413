import { addCard, type Connection, connectionsOf, editConnection, GROUND, insertBlock, readSpiceNumber } from '../circuit';
import type { Line, Ref } from '../kit';
import { type DrawnPart, drawnPart } from './elementCards';

/**
 * Walking a drawing: every pin of every part is asked where it goes. What has been answered stands in the deck and nowhere
 * else, so that a walk can be left half way, done in the table of connections, and gone on with.
 */

/** Nets of pins that were not asked yet, and of those that go nowhere; each pin has one of its own. */
const UNASKED = 'todo_';
const NOWHERE = 'nc_';

export type PinState = 'todo' | 'nowhere' | 'net';

/** One pin on the drawing. */
export interface WalkPin {
  readonly ref: Ref;
  /** Its place among the part's pins, from 0. */
  readonly index: number;
  readonly name: string;
  readonly net: string;
  readonly state: PinState;
}

export interface WalkPart {
  readonly ref: Ref;
  /** As the list prints it. */
  readonly label: string;
  /** Its line; null for a supply. */
  readonly line: Line | null;
  readonly pins: readonly WalkPin[];
  readonly drawn: DrawnPart;
}

/** A supply that the walk begins with. */
export interface WalkSupply {
  readonly ref: Ref;
  readonly volts: number;
  readonly kind: 'dc' | 'winding';
}

const MAINS_HERTZ = 50;

const peak = (rms: number) => Number((rms * Math.SQRT2).toPrecision(5));

const supplyPart = ({ ref, volts, kind }: WalkSupply): DrawnPart => ({
  pins: kind === 'dc' ? ['+', '-'] : ['one end', 'other end'],
  cards: ([a, b]) => [`${ref} ${a!} ${b!} ${kind === 'dc' ? `DC ${volts}` : `SIN(0 ${peak(volts)} ${MAINS_HERTZ})`}`],
  needs: [],
  modelled: true,
});

/** The deck with a supply whose ends are still to be asked for, or lie on nets. */
export function withSupply(
  deck: string,
  supply: WalkSupply,
  nets: readonly [string, string] = [`${UNASKED}${supply.ref}_1`, `${UNASKED}${supply.ref}_2`],
): string {
  return addCard(deck.trim() === '' ? 'My board\n' : deck, supplyPart(supply).cards(nets)[0]!);
}

/** The deck with other volts at a supply; the frequency of a winding stays. */
export function withSupplyVolts(deck: string, { ref, kind }: WalkSupply, volts: number): string {
  const rest = connectionsOf(deck).find((c) => c.name === ref)?.rest ?? '';
  return editConnection(deck, ref, { rest: kind === 'dc' ? `DC ${volts}` : rest.replace(SINE, (_, head: string) => `${head}${peak(volts)}`) });
}

/** What the walk goes through, in its order: supplies, then the parts of the list that a drawing shows. */
export function walkOf(lines: readonly Line[], deck: string, supplies: readonly WalkSupply[]): WalkPart[] {
  const cards = connectionsOf(deck);
  const parts = [
    ...supplies.map((s) => ({ ref: s.ref, label: s.kind === 'dc' ? `supply, ${s.volts} V` : `winding, ${s.volts} V AC`, line: null, drawn: supplyPart(s) })),
    ...lines
      .filter((l) => !l.notFitted)
      .flatMap((l) =>
        l.refs.flatMap((ref) => {
          const drawn = drawnPart(l, ref);
          return drawn ? [{ ref, label: l.label, line: l, drawn }] : [];
        }),
      ),
  ];
  return parts.map(({ ref, label, line, drawn }) => {
    const held = netsIn(cards, drawn);
    const pins = drawn.pins.map((name, index): WalkPin => {
      const net = held?.[index] ?? `${UNASKED}${ref}_${index + 1}`;
      return { ref, index, name, net, state: net.startsWith(UNASKED) ? 'todo' : net.startsWith(NOWHERE) ? 'nowhere' : 'net' };
    });
    return { ref, label, line, pins, drawn };
  });
}

const SINE = /(SIN\s*\(?\s*\S+\s+)([^\s)]+)/i;

/** The supplies that a deck has already, as a walk goes through them. Signals (pulses, curves) are none. */
export function suppliesIn(deck: string): WalkSupply[] {
  return connectionsOf(deck).flatMap((c): WalkSupply[] => {
    if (!/^V/i.test(c.name) || /PULSE|PWL/i.test(c.rest)) return [];
    const sine = SINE.exec(c.rest);
    const volts = readSpiceNumber(sine ? sine[2]! : c.rest.replace(/^DC\s+/i, '').split(/\s+/)[0]!) ?? 0;
    return [{ ref: c.name, volts: Number((sine ? volts / Math.SQRT2 : volts).toPrecision(3)), kind: sine ? 'winding' : 'dc' }];
  });
}

/** Nets of a part's pins as the deck has them; null where it lacks the part. Cards repeat a net where two elements meet. */
function netsIn(cards: readonly Connection[], drawn: DrawnPart): string[] | null {
  const marks = drawn.pins.map((_, i) => `@${i}`);
  const nets = new Map<string, string>();
  for (const card of drawn.cards(marks)) {
    const [name, ...words] = card.split(/\s+/);
    const held = cards.find((c) => c.name.toLowerCase() === name!.toLowerCase());
    if (!held) return null;
    held.pins.forEach((p, i) => {
      if (words[i]?.startsWith('@')) nets.set(words[i], p.net);
    });
  }
  return marks.map((m) => nets.get(m) ?? '');
}

/** The deck with other nets at some pins; parts that it lacks come in with the models they need. */
function written(deck: string, parts: readonly WalkPart[], netOf: (pin: WalkPin) => string): string {
  const changed = parts.filter((p) => p.pins.some((pin) => netOf(pin) !== pin.net));
  return changed.reduce((text, part) => {
    const cards = part.drawn.cards(part.pins.map(netOf));
    const known = new Map(connectionsOf(text).map((c) => [c.name.toLowerCase(), c]));
    const lines = text.split('\n');
    const fresh = cards.filter((card) => {
      const held = known.get(card.split(' ')[0]!.toLowerCase());
      if (!held) return true;
      const [name, ...words] = card.split(/\s+/);
      // What stands behind the nets may have been changed by hand since.
      lines[held.line - 1] = `${name!} ${words.slice(0, held.pins.length).join(' ')} ${held.rest}`.trimEnd();
      return false;
    });
    const kept = lines.join('\n');
    return fresh.length === 0 ? kept : insertBlock(fresh.reduce(addCard, kept.trim() === '' ? 'My board\n' : kept), { lines: [], needs: part.drawn.needs });
  }, deck);
}

/** A word that was typed for where a pin goes. */
type Target =
  | { readonly kind: 'net'; readonly net: string }
  | { readonly kind: 'pin'; readonly pin: WalkPin }
  | { readonly kind: 'nowhere' }
  | { readonly kind: 'no'; readonly why: string };

const GROUND_WORDS = /^(?:0|gnd|ground|earth|masse|tierra|masa|地)$/i;
const NOWHERE_WORDS = /^(?:nowhere|nc|n\.c\.|open|-|–|—)$/i;

/** Reads `R5.2`, `R5 2`, `Q1 B`, a net, `ground` or `nowhere`. */
function readTarget(parts: readonly WalkPart[], from: WalkPin, typed: string): Target {
  const text = typed.trim();
  const no = (why: string): Target => ({ kind: 'no', why });
  if (text === '') return no('Type where it goes: another pin such as R5.2, a net, ground, or nowhere.');
  if (GROUND_WORDS.test(text)) return { kind: 'net', net: GROUND };
  if (NOWHERE_WORDS.test(text)) return { kind: 'nowhere' };
  const [, name = '', pinText = ''] = /^([^\s.]+)[\s.]*(.*)$/.exec(text)!;
  const part = parts.find((p) => p.ref.toLowerCase() === name.toLowerCase()) ?? parts.find((p) => p.ref.toLowerCase() === text.toLowerCase());
  if (part) {
    const others = part.pins.filter((p) => p.ref !== from.ref || p.index !== from.index);
    const pin =
      pinText === ''
        ? others.length === 1
          ? others[0]
          : undefined
        : (part.pins.find((p) => p.name.toLowerCase() === pinText.toLowerCase()) ?? part.pins[Number(pinText) - 1]);
    if (!pin) return no(`${part.ref} has the pins ${part.pins.map((p) => p.name).join(', ')}: which one? Type it as ${part.ref}.${part.pins[0]!.name}.`);
    if (pin.ref === from.ref && pin.index === from.index) return no('That is this pin itself. Name the pin at the other end of the line.');
    return { kind: 'pin', pin };
  }
  if (!/^[A-Za-z0-9_+-]+$/.test(text)) return no(`“${text}” is no part of the list, and no name for a net: a net's name has letters and digits.`);
  if (text.startsWith(UNASKED) || text.startsWith(NOWHERE)) return no('Names that begin so are kept for pins without a net. Choose another one.');
  return { kind: 'net', net: text };
}

export type WalkAnswer =
  | { readonly ok: true; readonly deck: string }
  /** The pin lies on a net already: is it to move to the other one, or are both nets one? */
  | { readonly ok: 'two'; readonly nets: readonly [string, string] }
  | { readonly ok: false; readonly why: string };

/** The deck after one answer. `how` settles a pin that lies on another net already. */
export function answerPin(deck: string, parts: readonly WalkPart[], from: WalkPin, typed: string, how: 'move' | 'join' | null = null): WalkAnswer {
  const target = readTarget(parts, from, typed);
  if (target.kind === 'no') return { ok: false, why: target.why };
  const all = parts.flatMap((p) => p.pins);
  const same = (a: WalkPin, b: WalkPin) => a.ref === b.ref && a.index === b.index;
  const put = (nets: (pin: WalkPin) => string | undefined): WalkAnswer => ({ ok: true, deck: written(deck, parts, (pin) => nets(pin) ?? pin.net) });
  if (target.kind === 'nowhere') return put((pin) => (same(pin, from) ? `${NOWHERE}${from.ref}_${from.index + 1}` : undefined));
  const spelled = (net: string) => all.find((p) => p.state === 'net' && p.net.toLowerCase() === net.toLowerCase())?.net ?? net;
  const fresh = () => freshNet(all);
  const other = target.kind === 'pin' ? target.pin : null;
  const there = other === null ? spelled((target as { net: string }).net) : other.state === 'net' ? other.net : null;
  // The other pin has no net yet: both get this pin's, or a new one.
  if (there === null) {
    const net = from.state === 'net' && how !== 'move' ? from.net : fresh();
    return put((pin) => (same(pin, from) || same(pin, other!) ? net : undefined));
  }
  if (from.state === 'net' && from.net !== there) {
    if (how === null) return { ok: 'two', nets: [from.net, there] };
    // Ground keeps its name; else the net that was named later is the one net.
    const [gone, kept] = there === GROUND || from.net !== GROUND ? [from.net, there] : [there, from.net];
    if (how === 'join') return put((pin) => (pin.state === 'net' && pin.net === gone ? kept : undefined));
  }
  return put((pin) => (same(pin, from) ? there : undefined));
}

function freshNet(pins: readonly WalkPin[]): string {
  const taken = new Set(pins.map((p) => p.net.toLowerCase()));
  let k = 1;
  while (taken.has(`n${k}`)) k++;
  return `n${k}`;
}

/** The first pin not asked yet, from this one on; null when all are. */
export function nextPin(parts: readonly WalkPart[], after: WalkPin | null = null): WalkPin | null {
  const all = parts.flatMap((p) => p.pins);
  const start = after ? all.findIndex((p) => p.ref === after.ref && p.index === after.index) + 1 : 0;
  return [...all.slice(start), ...all.slice(0, start)].find((p) => p.state === 'todo') ?? null;
}

/** Still open, in words; pins not asked yet are no finding. */
export function walkFindings(parts: readonly WalkPart[]): string[] {
  const all = parts.flatMap((p) => p.pins).filter((p) => p.state === 'net');
  const ends = new Map<string, WalkPin[]>();
  for (const p of all) ends.set(p.net, [...(ends.get(p.net) ?? []), p]);
  const found: string[] = [];
  if (all.length > 0 && !ends.has(GROUND)) found.push('Nothing goes to ground yet: one net must be ground, most often the minus of the supply.');
  for (const part of parts) {
    const asked = part.pins.filter((p) => p.state !== 'todo');
    const [first] = asked;
    if (part.pins.length === 2 && asked.length === 2 && asked.every((p) => p.state === 'net' && p.net === first!.net))
      found.push(`${part.ref} has both ends on ${netWord(first!.net)}: it does nothing there.`);
    for (const p of asked) {
      if (p.state === 'net' && p.net !== GROUND && ends.get(p.net)!.length === 1) found.push(`The net ${p.net} has one end so far: ${p.ref}.${p.name}.`);
      if (p.state === 'nowhere')
        found.push(SUPPLY_PIN.test(p.name) ? `${part.ref} has no supply: ${p.name} goes nowhere.` : `${part.ref}.${p.name} goes nowhere.`);
    }
    if (!part.drawn.modelled && !PASSIVE.has(part.line?.kind) && asked.length === part.pins.length)
      found.push(`${part.ref} (${part.label}) has no model: its pins are known, what it does is not. Windows at its outputs are typed.`);
  }
  return found;
}
/** Nobody misses what these do. */
const PASSIVE = new Set<Line['kind'] | undefined>(['connector', 'crystal']);
const SUPPLY_PIN = /^(?:V\+|V-|V−|VCC|VDD|in|ground|\+|-)$/i;

export const netWord = (net: string): string => (net === GROUND ? 'ground' : `the net ${net}`);

/** Whether a net is only a pin's own, not one of the drawing. */
export const isLoose = (net: string): boolean => net.startsWith(UNASKED) || net.startsWith(NOWHERE);
