import { type Circuit, connectionsOf, findPart, GROUND, ownerOf, type Part, type Semiconductor, type Source, VT } from '../circuit';
import type { Line, LineKind } from '../kit';
import { controlOf, elementsOf } from '../stage';
import { behave } from './behaviour';
import { type Chip, familyOf, numberedPins, pinFunction, regulatorVolts } from './chips';
import { about, D, type Draw, evenly, inDecades, R } from './parts';
import type { Bench, Feed } from './bench';

/** One part of the board: where its pins lie, and what it is on one board. */
export interface RealPart {
  readonly ref: string;
  readonly kind: LineKind | 'feed';
  readonly nodes: readonly string[];
  /** Its elements on one board, with its pins on `nodes` and its value times `factor`; under a meter (`cold`) or fed. */
  readonly build: (nodes: readonly string[], draw: Draw, at: Settings, cold: boolean, factor: number) => readonly Part[];
  /** Element whose current is seen from outside: an LED's, a relay's; null for all else. */
  readonly lamp: string | null;
  /** The chip that it is; null for all else. */
  readonly chip: Chip | null;
}

/** Positions of controls, 0..1, and ohms of what is set by hand or by its surroundings. */
export type Settings = Readonly<Record<string, number>>;

export interface RealBoard {
  readonly parts: readonly RealPart[];
  readonly feeds: readonly Feed[];
  /** Every net of the drawing, ground left out; nothing of a model's inside. */
  readonly nets: readonly string[];
}

/** Shares and factors that good parts of a kind differ by (common practice, no source). */
const CARBON = 0.055;
const SPREAD: Readonly<Partial<Record<LineKind, number>>> = {
  capacitor: 0.22,
  trimmer: 0.22,
  potentiometer: 0.22,
  relay: 0.11,
  loudspeaker: 0.11,
  buzzer: 0.3,
  microphone: 0.32,
  lamp: 0.3,
};
/**
 * Sensors whose surroundings nobody told: an LDR from lamplight to a dark room, a thermistor from a cold room to a warm one, as factors of
 * the value on the list. What they move is expected anywhere between. In a told state they differ by a third.
 */
const SURROUNDINGS: Readonly<Partial<Record<LineKind, readonly [number, number]>>> = { ldr: [1 / 15, 60], thermistor: [0.5, 2.2] };
const IN_STATE = 0.32;
/** An electrolytic's leakage, amperes per farad and volt; a tenth of it at the few volts of a meter. */
const LEAKAGE = { fed: [1.8e-3, 2.2e-2], cold: [1.8e-4, 2.2e-2] } as const;
/** Backwards an electrolytic conducts from about a volt on: 1.03 to 1.16 V at a milliampere. */
const BACKWARDS = { IS: [2e-14, 4e-13], N: 1.85, RS: 2 } as const;
const SATURATION = [0.13, 8] as const;
const BREAKDOWN_OF_BASE = 8;
/** Gain of any grade; at tens of milliamperes it has fallen to less than half. */
const GAIN = { small: [30, 480], power: [20, 180] } as const;
/** Volts either way of LEDs of one colour. */
const LED_VOLTS = 0.32;

const isPower = (line: Line) => /\bBD\d|TIP\d|2N3055|MJE|2SD|TO-?(?:220|126|3|247)|power/i.test(`${line.type ?? ''} ${line.label} ${line.package ?? ''}`);

const withParams = (part: Semiconductor, nodes: readonly string[], params: Readonly<Record<string, number>>): Semiconductor => ({
  ...part,
  nodes,
  model: { ...part.model, params: { ...part.model.params, ...params } },
});

/** How one element of a listed part differs from board to board. */
function elementOn(part: Part, line: Line, ref: string, draw: Draw, cold: boolean, told: boolean): Part[] {
  const u = (name: string) => draw(`${ref}:${name}`);
  const tolerance =
    line.tolerance && line.kind === 'resistor' ? Math.max(0.011, Math.abs(line.tolerance[1]) * 1.08) : told ? IN_STATE : (SPREAD[line.kind] ?? CARBON);
  const open = told ? undefined : SURROUNDINGS[line.kind];
  switch (part.kind) {
    case 'R':
      return [{ ...part, value: part.value * (open ? inDecades(open, u('value')) : about(tolerance, u('value'))) }];
    case 'C': {
      if (line.kind !== 'electrolytic' && line.kind !== 'tantalum') return [{ ...part, value: part.value * about(tolerance, u('value')) }];
      const [plus, minus] = [part.nodes[0]!, part.nodes[1]!];
      const leak = part.value * inDecades(cold ? LEAKAGE.cold : LEAKAGE.fed, u('leak'));
      return [
        { ...part, value: part.value * evenly([0.78, 1.52], u('value')) },
        R(`${part.name}.leak`, plus, minus, 1 / leak),
        D(`${part.name}.back`, minus, plus, { ...BACKWARDS, IS: inDecades(BACKWARDS.IS, u('back')) }),
      ];
    }
    case 'D': {
      const { IS, N, BV } = part.model.params as { IS: number; N: number; BV: number };
      if (line.kind === 'led')
        return [withParams(part, part.nodes, { IS: IS * Math.exp(-evenly([-LED_VOLTS, LED_VOLTS], u('volts')) / (N * VT)), RS: evenly([2, 12], u('ohms')) })];
      if (line.kind === 'zener') return [withParams(part, part.nodes, { BV: BV * about(0.065, u('volts')), IS: IS * inDecades(SATURATION, u('IS')) })];
      return [withParams(part, part.nodes, { IS: IS * inDecades(SATURATION, u('IS')) })];
    }
    case 'Q': {
      const gain = isPower(line) ? GAIN.power : GAIN.small;
      const [, base, emitter] = part.nodes as [string, string, string];
      const npn = part.model.kind === 'NPN';
      return [
        withParams(part, part.nodes, { IS: part.model.params['IS']! * inDecades(SATURATION, u('IS')), BF: inDecades(gain, u('BF')) }),
        D(`${part.name}.zener`, npn ? base : emitter, npn ? emitter : base, { IS: 1e-20, BV: BREAKDOWN_OF_BASE, IBV: 1e-4 }),
      ];
    }
    case 'M':
    case 'J':
      return [withParams(part, part.nodes, { VTO: part.model.params['VTO']! * about(0.35, u('VTO')) })];
    default:
      return [part];
  }
}

/**
 * The board as it really is: the drawing's parts each with the spread of its kind, chips by their behaviour instead of what a deck
 * puts in their place, and supplies as they come.
 */
export function realBoard(bench: Bench): RealBoard {
  const { circuit, deck, lines, feeds } = bench;
  const sheet = { circuit: { deck, neighbours: [] } };
  const cards = connectionsOf(deck);
  const placed = lines.filter((l) => !l.notFitted).flatMap((line) => line.refs.map((ref) => ({ line, ref, elements: elementsOf(sheet, circuit, ref) })));
  const isChip = (l: Line) => ['ic', 'opamp', 'timer', 'regulator', 'microcontroller', 'optocoupler', 'module'].includes(l.kind);
  const owned = new Set(placed.flatMap((p) => p.elements.map((e) => e.toLowerCase())));
  const sources = circuit.parts.filter((p): p is Source => p.kind === 'V' && feeds.some((f) => feedsAt(p, f)));
  const fed = new Set(sources.map((s) => s.name.toLowerCase()));
  // What no line stands for is a stand-in for a chip of the list that has no element of its own.
  const strays = cards.filter((c) => !owned.has(c.name.toLowerCase()) && !fed.has(c.name.toLowerCase()));
  const parts = placed.flatMap(({ line, ref, elements }): RealPart[] => {
    if (isChip(line)) {
      // A card without a model behind it is no element of the circuit, but tells its pins.
      const names = [...elements, ref, `X${ref}`].map((n) => n.toLowerCase());
      const card = cards.find((c) => names.includes(c.name.toLowerCase()));
      const found = card ? chipOf(line, ref, card, circuit) : standIn(line, ref, strays, circuit, feeds);
      const chip = found && fedChip(found, feeds);
      return chip ? [chipPart(chip, line, feedVolts(bench, chip))] : [];
    }
    const own = elements.flatMap((e) => findPart(circuit, e) ?? []);
    return own.length === 0 ? [] : [listedPart(line, ref, own, bench)];
  });
  // What no line stands for is on the board all the same, as it is drawn; where a chip has a stand-in, only capacitors are surely none of it.
  const standsIn = parts.some((p) => p.chip && !cards.some((c) => [p.ref, `X${p.ref}`].some((n) => n.toLowerCase() === c.name.toLowerCase())));
  const unlisted = strays.filter((c) => !standsIn || /^C/i.test(c.name)).map((c) => asDrawnPart(c, circuit));
  const nets = [...new Set([...parts, ...unlisted].flatMap((p) => p.nodes))].filter((n) => n !== GROUND);
  return { parts: [...parts, ...unlisted], feeds, nets };
}

/** A card that no line stands for, with its own values and nothing else. */
function asDrawnPart({ name, pins }: Card, circuit: Circuit): RealPart {
  const nets = pins.map((p) => p.net);
  const own = circuit.parts.filter((p) => ownerOf(p.name).toLowerCase() === name.toLowerCase());
  return {
    ref: name,
    kind: /^C/i.test(name) ? 'capacitor' : 'other',
    nodes: nets,
    lamp: null,
    chip: null,
    build: (nodes) => own.map((p) => ({ ...p, nodes: p.nodes.map((n) => nodes[nets.findIndex((net) => net.toLowerCase() === n.toLowerCase())] ?? n) })),
  };
}

export const feedsAt = (source: Source, feed: Feed): boolean => {
  const [a, b] = source.nodes.map((n) => n.toLowerCase());
  const ends = [feed.net.toLowerCase(), feed.back.toLowerCase()];
  return ends.includes(a!) && ends.includes(b!);
};

function listedPart(line: Line, ref: string, own: readonly Part[], { circuit, deck, conditions }: Bench): RealPart {
  const control = controlOf({ circuit: { deck, neighbours: [] } }, circuit, ref);
  const condition = conditions.find((c) => c.ref.toLowerCase() === ref.toLowerCase());
  if (control) {
    const [upper, lower] = [findPart(circuit, control.upper)!, findPart(circuit, control.lower)!];
    const wiper = upper.nodes.find((n) => lower.nodes.includes(n))!;
    const far = (p: Part) => p.nodes.find((n) => n !== wiper) ?? wiper;
    const track = (upper as { value: number }).value + (lower as { value: number }).value;
    return {
      ref,
      kind: line.kind,
      nodes: [far(upper), wiper, far(lower)],
      lamp: null,
      chip: null,
      build: ([a, w, b], draw, at, _cold, factor) => {
        const whole = track * about(SPREAD.trimmer!, draw(`${ref}:value`)) * factor;
        const end = (name: string) => evenly([0.8, 13], draw(`${ref}:${name}`));
        const p = at[ref] ?? draw(`${ref}:position`);
        return [R(`${ref}.a`, a!, w!, whole * (1 - p) + end('a')), R(`${ref}.b`, w!, b!, whole * p + end('b'))];
      },
    };
  }
  const nodes = [...new Set(own.flatMap((p) => p.nodes))];
  return {
    ref,
    kind: line.kind,
    nodes: own.length === 1 ? own[0]!.nodes : nodes,
    lamp: (line.kind === 'led' || line.kind === 'relay') && own.length === 1 ? own[0]!.name : null,
    chip: null,
    build: (to, draw, at, cold, factor) => {
      const moved = own.length === 1 ? [{ ...own[0]!, nodes: to }] : own.map((p) => ({ ...p, nodes: p.nodes.map((n) => to[nodes.indexOf(n)] ?? n) }));
      return moved.flatMap((p) => {
        const set = condition && p.kind === 'R' ? { ...p, value: at[ref] ?? pickState(Object.values(condition.states), draw(`${ref}:state`)) } : p;
        return elementOn(scaled(set, factor), line, ref, draw, cold, condition !== undefined);
      });
    },
  };
}

const pickState = (ohms: readonly number[], u: number) => ohms[Math.min(ohms.length - 1, Math.floor(u * ohms.length))]!;

const scaled = (p: Part, by: number): Part => (by !== 1 && (p.kind === 'R' || p.kind === 'C' || p.kind === 'L') ? { ...p, value: p.value * by } : p);

type Card = ReturnType<typeof connectionsOf>[number];

function chipOf(line: Line, ref: string, card: Card, circuit: Circuit): Chip {
  const named = card.pins.map((p) => (/^p?\d+$/i.test(p.pin) ? null : pinFunction(p.pin)));
  const byName = Object.fromEntries(card.pins.flatMap((p, i) => (named[i] ? [[named[i], p.net] as const] : [])));
  const family = familyOf(line, byName, card.rest);
  const numbers = numberedPins(family, line, card.pins.length);
  const byNumber = card.pins.map((p, i) => numbers[(/^p?\d+$/i.test(p.pin) ? Number(p.pin.replace(/p/i, '')) : i + 1) - 1] ?? null);
  const does = named.filter((n) => n !== null).length >= 2 ? named : byNumber;
  const order = card.pins.map((p) => p.net);
  const inside = circuit.parts.filter((p) => p.name.includes('.') && ownerOf(p.name).toLowerCase() === card.name.toLowerCase());
  return { ref, family, pins: pinsAt(does, order), order, does, inside, volts: regulatorVolts(line, card.rest) };
}

/** A chip whose supply pin nobody told hangs on the feed that one of its pins lies on, or draws from the first there is. */
function fedChip(chip: Chip, feeds: readonly Feed[]): Chip {
  if (chip.pins['vs'] !== undefined || chip.pins['in'] !== undefined) return chip;
  const feed = feeds.find((f) => chip.order.includes(f.net)) ?? feeds[0];
  return feed ? { ...chip, pins: { ...chip.pins, vs: feed.net } } : chip;
}

/** Nets by what the pins on them do; the first of several pins of one job counts. */
const pinsAt = (does: readonly (string | null)[], nets: readonly string[]): Record<string, string> =>
  Object.fromEntries(does.flatMap((d, i) => (d === null ? [] : [[d, nets[i]!] as const])).reverse());

/** A chip that a deck stands in for by loose sources and resistors: its pins are told by the names of the nets they lie on. */
function standIn(line: Line, ref: string, strays: readonly Card[], circuit: Circuit, feeds: readonly Feed[]): Chip | null {
  if (strays.length === 0) return null;
  const family = familyOf(line, {}, '');
  const inside = new Set(strays.flatMap((s) => s.pins.map((p) => p.net)).filter((net) => net.toLowerCase().includes(ref.toLowerCase())));
  const own = new Set(strays.flatMap((s) => s.pins.map((p) => p.net)).filter((n) => !inside.has(n)));
  if (family === 'timer') for (const p of circuit.parts) for (const n of p.nodes) if (pinFunction(n) !== null) own.add(n);
  const pins: Record<string, string> = { gnd: GROUND };
  for (const net of own) {
    const does = net === GROUND ? null : pinFunction(net);
    if (does && !(does in pins)) pins[does] = net;
  }
  const feed = feeds.find((f) => f.back === GROUND)?.net;
  if (feed !== undefined) pins['vs'] = feed;
  if (family === 'timer') {
    if (pins['thr'] !== undefined) pins['trig'] ??= pins['thr'];
    if (pins['trig'] !== undefined) pins['thr'] ??= pins['trig'];
    if (feed !== undefined) pins['reset'] ??= feed;
  }
  const numbers = numberedPins(family, line, 8);
  const order = numbers.length > 0 ? numbers.map((f, i) => (f && pins[f]) ?? `${ref}~nc${i}`) : [...own];
  return { ref, family, pins, order, does: numbers.length > 0 ? numbers : order.map(() => null), inside: [], volts: null };
}

function chipPart(chip: Chip, line: Line, volts: number): RealPart {
  return {
    ref: chip.ref,
    kind: line.kind,
    nodes: chip.order,
    lamp: null,
    chip,
    build: (nodes, draw, _at, cold) => {
      const pins = { ...chip.pins, ...pinsAt(chip.does, nodes) };
      const inside = chip.inside.map((p) => ({ ...p, nodes: p.nodes.map((n, i) => nodes[p.ports?.[i] ?? -1] ?? n) }));
      const own = behave({ ...chip, pins, order: nodes, inside }, draw, volts);
      return cold ? own.cold : own.powered;
    },
  };
}

/** Volts that feed a chip, roughly: what its supply pin's feed gives, or the greatest of all. */
function feedVolts({ feeds }: Bench, chip: Chip): number {
  const at = feeds.find((f) => f.net === (chip.pins['vs'] ?? chip.pins['in']));
  const most = Math.max(...feeds.map((f) => (f.kind === 'winding' ? f.volts * Math.SQRT2 : f.volts)), 1);
  return chip.family === 'fixed' ? most : at ? at.volts : most;
}

/** What a supply gives on one board. A winding as one of its peaks, which is what the reservoir behind a rectifier holds. */
export function feedParts(feed: Feed, k: number, draw: Draw, sign: 1 | -1 = 1): Part[] {
  const u = (name: string) => draw(`feed${k}:${name}`);
  const wiring = evenly([0.03, 0.5], u('wiring'));
  const inner = `~feed${k}`;
  const [volts, ohms] =
    feed.kind === 'winding'
      ? // Unloaded 10 to 30 % above its print, mains 6 % either way; the sag under the board's own load is taken from its peak.
        [sign * Math.SQRT2 * feed.volts * evenly([1.08, 1.31], u('unloaded')) * about(0.065, u('mains')) * evenly([0.9, 1], u('sag')), 0.5]
      : feed.kind === 'battery'
        ? [feed.volts * evenly([1, 1.125], u('volts')), evenly([0.6, 3], u('ohms'))]
        : [feed.volts * about(feed.kind === 'usb' ? 0.042 : 0.022, u('volts')), 0];
  return [{ kind: 'V', name: `~V${k}`, nodes: [inner, feed.back], dc: volts, wave: null }, R(`~W${k}`, inner, feed.net, wiring + ohms)];
}

/** Bare capacitors of a circuit cost nothing at rest, but a net that hangs on them alone has no volts of its own: each net leaks a little. */
export const leaks = (nets: readonly string[]): Part[] => nets.map((net) => R(`~leak.${net}`, net, GROUND, 1e10));
