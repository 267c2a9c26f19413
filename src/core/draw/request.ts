import { KINDS, SHAPES } from './symbols';

/** What is to be drawn: parts with the net of every pin, and which nets are rails. */
export interface DrawnPart {
  readonly ref: string;
  readonly kind: string;
  readonly value: string | null;
  /** Pins in the order of the request. */
  readonly pins: readonly string[];
  readonly net: Readonly<Record<string, string>>;
}
export interface Drawable {
  readonly parts: readonly DrawnPart[];
  /** Pins by net. */
  readonly nets: ReadonlyMap<string, readonly { readonly part: number; readonly pin: string }[]>;
  /** How each net is written. */
  readonly written: ReadonlyMap<string, string>;
  readonly ground: string;
  /** Level of each rail: supply 1, ground 0, negative supply −1. */
  readonly rails: ReadonlyMap<string, number>;
  readonly inputs: readonly string[];
  readonly outputs: readonly string[];
  readonly aspect: number;
  /** Parts of each board, where there are several; they are drawn side by side. */
  readonly boards: readonly { readonly title: string; readonly parts: ReadonlySet<number> }[];
}

const NODES: Readonly<Record<string, number>> = { R: 2, C: 2, L: 2, V: 2, I: 2, D: 2, Q: 3, M: 4, J: 3, E: 4, G: 4 };
const TOKEN = /\{[^}]*\}?|'[^']*'?|=|[^\s(),={}']+/g;
const USUAL_ASPECT = 1.5;

/** Nets are compared without regard to case; `gnd` is ground. */
const netKey = (name: string) => (name.toLowerCase() === 'gnd' ? '0' : name.toLowerCase());

interface Element {
  readonly letter: string;
  readonly nodes: readonly string[];
  readonly rest: readonly string[];
}

function fail(message: string): never {
  throw new Error(message);
}

/** Element cards of a deck, outside sub-circuits; values are not looked at. */
function elementsOf(deck: unknown): Map<string, Element> {
  if (typeof deck !== 'string') fail('the deck is not a text');
  const cards: string[][] = [];
  for (const raw of deck
    .replace(/^\uFEFF/, '')
    .split(/\r\n|\r|\n/)
    .slice(1)) {
    let line = /^\s*\*/.test(raw) ? '' : raw;
    const cut = line.search(/;|\s\$(\s|$)/);
    if (cut >= 0) line = line.slice(0, cut);
    const more = /^\s*\+/.exec(line);
    const tokens = (more ? line.slice(more[0].length) : line).match(TOKEN) ?? [];
    if (tokens.length === 0) continue;
    if (/^\.end$/i.test(tokens[0]!)) break;
    if (more && cards.length > 0) cards.at(-1)!.push(...tokens);
    else cards.push([...tokens]);
  }
  const elements = new Map<string, Element>();
  let depth = 0;
  for (const card of cards) {
    const head = card[0]!.toLowerCase();
    if (head === '.subckt') depth++;
    else if (head === '.ends') depth--;
    if (head.startsWith('.') || depth > 0) continue;
    const words: string[] = [];
    for (let i = 1; i < card.length; i++) {
      if (card[i + 1] === '=') i += 2;
      else if (!/^params:$/i.test(card[i]!)) words.push(card[i]!);
    }
    const letter = head[0]!.toUpperCase();
    const n = letter === 'X' ? words.length - 1 : NODES[letter];
    if (n === undefined) fail(`element ${card[0]!}: the letter ${letter} is not known`);
    if (!(words.length > n || (words.length === n && 'RCLVI'.includes(letter)))) fail(`element ${card[0]!}: nodes are missing`);
    if (elements.has(head)) fail(`element ${card[0]!} is in the deck twice`);
    elements.set(head, { letter, nodes: words.slice(0, n), rest: words.slice(n) });
  }
  if (depth !== 0) fail('a .subckt has no .ends');
  if (elements.size === 0) fail('the deck has no element');
  return elements;
}

type Raw = Readonly<Record<string, unknown>>;
const isRecord = (x: unknown): x is Raw => typeof x === 'object' && x !== null && !Array.isArray(x);
const texts = (x: unknown): string[] => (Array.isArray(x) ? x.filter((n): n is string => typeof n === 'string') : []);

/**
 * Reads a request for a drawing.
 * @throws Error that names element, part or pin.
 */
export function readDrawable(request: Raw): Drawable {
  const elements = elementsOf(request['deck']);
  const written = new Map<string, string>();
  for (const e of elements.values()) for (const n of e.nodes) if (!written.has(netKey(n))) written.set(netKey(n), n);
  const raw = request['parts'];
  if (!Array.isArray(raw) || raw.length === 0) fail('there are no parts to draw');
  const refs = new Set<string>();
  const used = new Set<string>();
  const nets = new Map<string, { part: number; pin: string }[]>();
  const parts = raw.map((p: unknown, part): DrawnPart => {
    if (!isRecord(p) || typeof p['ref'] !== 'string' || p['ref'] === '') fail('a part has no ref');
    const ref = p['ref'];
    if (refs.has(ref)) fail(`part ${ref} is given twice`);
    refs.add(ref);
    const kind = String(p['kind']);
    if (!KINDS.has(kind)) fail(`part ${ref}: the kind “${kind}” is not known`);
    if (!Array.isArray(p['elements'])) fail(`part ${ref}: “elements” is missing`);
    const own = texts(p['elements']).map((e) => e.toLowerCase());
    for (const e of own) {
      if (!elements.has(e)) fail(`part ${ref}: the deck has no element ${e}`);
      if (used.has(e)) fail(`part ${ref}: element ${e} belongs to another part`);
      used.add(e);
    }
    if (!isRecord(p['pins']) || Object.keys(p['pins']).length === 0) fail(`part ${ref}: “pins” is missing`);
    const shape = SHAPES[kind];
    const names = Object.keys(p['pins']);
    if (shape) {
      for (const n of names) if (!(n in shape.pins)) fail(`part ${ref}: a ${kind} has no pin ${n}`);
      for (const n of Object.keys(shape.pins)) if (!names.includes(n) && !shape.optional?.includes(n)) fail(`part ${ref}: pin ${n} is missing`);
    }
    const net: Record<string, string> = {};
    for (const [pin, where] of Object.entries(p['pins'])) {
      const found = netAt(String(where), own, elements, written, `part ${ref}, pin ${pin}`);
      net[pin] = netKey(found);
      nets.set(net[pin], [...(nets.get(net[pin]) ?? []), { part, pin }]);
    }
    const value = p['value'];
    return { ref, kind, value: typeof value === 'string' && value !== '' ? value : null, pins: names, net };
  });
  const hints = isRecord(request['hints']) ? request['hints'] : {};
  const ground = netKey(typeof hints['ground'] === 'string' ? hints['ground'] : '0');
  const room = isRecord(request['room']) ? request['room'] : null;
  const size = room && typeof room['width'] === 'number' && typeof room['height'] === 'number' ? room['width'] / room['height'] : USUAL_ASPECT;
  return {
    parts,
    nets,
    written,
    ground,
    rails: railsOf(hints['supplies'], ground, elements, parts),
    inputs: texts(hints['inputs']).map(netKey),
    outputs: texts(hints['outputs']).map(netKey),
    aspect: Number.isFinite(size) && size > 0 ? size : USUAL_ASPECT,
    boards: [],
  };
}

function netAt(where: string, own: readonly string[], elements: ReadonlyMap<string, Element>, known: ReadonlyMap<string, string>, place: string): string {
  if (where.startsWith('=')) return known.has(netKey(where.slice(1))) ? where.slice(1) : fail(`${place}: the deck has no net ${where.slice(1)}`);
  const dot = where.lastIndexOf('.');
  const element = where.slice(0, dot).toLowerCase();
  if (!own.includes(element)) fail(`${place}: ${where} is on an element of another part`);
  return elements.get(element)!.nodes[Number(where.slice(dot + 1)) - 1] ?? fail(`${place}: ${where} does not exist`);
}

/** Rails by the hints, else by the sources that tie a net to ground, and behind regulators. */
function railsOf(supplies: unknown, ground: string, elements: ReadonlyMap<string, Element>, parts: readonly DrawnPart[]): Map<string, number> {
  const rails = new Map<string, number>([[ground, 0]]);
  if (Array.isArray(supplies)) {
    for (const s of supplies) if (isRecord(s) && typeof s['net'] === 'string') rails.set(netKey(s['net']), Math.sign(Number(s['volts'])));
    return rails;
  }
  for (const { letter, nodes, rest } of elements.values()) {
    if (letter !== 'V' || rest.some((w) => /^(sin|pulse|pwl)$/i.test(w))) continue;
    const [a, b] = nodes.map(netKey) as [string, string];
    const volts = Number.parseFloat(rest.find((w) => /^[-+.\d]/.test(w)) ?? '0');
    if (volts && b === ground && a !== ground) rails.set(a, Math.sign(volts));
    if (volts && a === ground && b !== ground) rails.set(b, -Math.sign(volts));
  }
  for (let again = true; again;) {
    again = false;
    for (const p of parts) {
      const [input, output] = [p.net['IN'], p.net['OUT']];
      if (p.kind !== 'regulator' || input === undefined || output === undefined) continue;
      const level = rails.get(input);
      if (level && !rails.has(output)) {
        rails.set(output, level);
        again = true;
      }
    }
  }
  return rails;
}
