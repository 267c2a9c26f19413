import { type Circuit, readDeck, readSpiceNumber } from '../circuit';
import { CARDS } from './cards';

/** A part that the deck does not model, or models under another name. */
export type LogicPart =
  | { readonly ref: string; readonly kind: 'supply' | 'resistor' | 'capacitor' | 'electrolytic' | 'led' | 'diode' | 'npn' | 'pnp' }
  | { readonly ref: string; readonly kind: 'buzzer'; readonly element: string }
  | { readonly ref: string; readonly kind: 'key' | 'crystal'; readonly pins: readonly [string, string] }
  | { readonly ref: string; readonly kind: 'strap'; readonly common: string; readonly a: string; readonly b: string; readonly set: 'a' | 'b' }
  | { readonly ref: string; readonly kind: 'connector'; readonly wires: Readonly<Record<string, readonly [string, string]>> }
  | {
      readonly ref: string;
      readonly kind: 'display';
      readonly common: 'cathode' | 'anode';
      readonly model: string;
      readonly pins: Readonly<Record<string, string>>;
    };

export type Level = 'low' | 'high' | 'z' | 'blink';
export type Outputs = Readonly<Record<string, Level>>;
export type Edge = 'falls' | 'rises';

/** What a black box does: while `when` holds, or at an edge. Pins by number, variables with `$`, scanned keys `drive/read`. */
export interface BoxFunction {
  readonly when?: Readonly<Record<string, 'low' | 'high' | number>>;
  readonly then?: Outputs | { readonly frames: readonly Outputs[] };
  readonly on?: Readonly<Record<string, Edge>>;
  readonly do?: Readonly<Record<string, { readonly add: number; readonly mod: number } | { readonly set: number }>>;
}

export interface BoxRole {
  readonly in?: boolean;
  readonly out?: 'push-pull' | 'open-drain';
  readonly rest?: Level;
  readonly pull?: readonly ['up' | 'down', number];
}

/** A chip by its card, or a black box with functions. */
export interface Chip {
  readonly ref: string;
  readonly card: string;
  readonly pins: Readonly<Record<string, string>>;
  readonly package?: string;
  readonly timing?: {
    readonly parts: readonly string[];
    readonly pins: readonly string[];
    readonly weights: Readonly<Record<string, number>>;
    readonly hertz: number;
  };
  readonly supply?: { readonly vdd: string; readonly gnd: string; readonly min: number };
  readonly roles?: Readonly<Record<string, BoxRole>>;
  readonly electrical?: { readonly vil: number; readonly vih: number; readonly roh: number; readonly rol: number };
  readonly needs?: { readonly high?: readonly string[]; readonly low?: readonly string[] };
  readonly clock?: { readonly pins: readonly string[]; readonly parts: readonly string[] };
  readonly programmed?: boolean;
  readonly vars?: Readonly<Record<string, number>>;
  readonly scan?: { readonly drive: readonly string[]; readonly read: readonly string[] };
  readonly bus?: { readonly sda: string; readonly scl: string };
  readonly functions?: readonly BoxFunction[];
}

export type Step =
  | { readonly press: string }
  | { readonly release: string }
  | { readonly tap: { readonly key: string; readonly times: number } }
  | { readonly strap: Readonly<Record<string, 'a' | 'b'>> }
  | { readonly ticks: number }
  | { readonly send: { readonly from: string; readonly address: number; readonly byte: number } };

export type SeenKind = 'look' | 'digit' | 'sound' | 'blink' | 'volts';
export interface SeenItem {
  readonly what: SeenKind;
  readonly part?: string;
  readonly net?: string;
}
export interface LogicCheck {
  readonly id: string;
  readonly do: readonly Step[];
  readonly see: readonly SeenItem[];
  readonly cost: number;
}

/** A board round chips that no analog model describes. */
export interface LogicBoard {
  readonly name: string;
  readonly circuit: Circuit;
  /** Parameters of every model card of the deck, by lower-case name; some belong to digits alone. */
  readonly models: ReadonlyMap<string, Readonly<Record<string, number>>>;
  readonly parts: readonly LogicPart[];
  readonly chips: readonly Chip[];
  readonly neighbours: readonly (readonly [string, string])[];
  readonly checks: readonly LogicCheck[];
}

type Raw = Readonly<Record<string, unknown>>;
const isRecord = (x: unknown): x is Raw => typeof x === 'object' && x !== null && !Array.isArray(x);

function fail(message: string): never {
  throw new Error(message);
}
const list = (raw: Raw, field: string, where: string): readonly Raw[] => {
  const found = raw[field];
  if (!Array.isArray(found) || !found.every(isRecord)) fail(`${where}: “${field}” must be a list of records`);
  return found;
};

const PART_KINDS = new Set([
  'supply',
  'resistor',
  'capacitor',
  'electrolytic',
  'led',
  'diode',
  'npn',
  'pnp',
  'buzzer',
  'key',
  'crystal',
  'strap',
  'connector',
  'display',
]);
const SEEN: ReadonlySet<string> = new Set(['look', 'digit', 'sound', 'blink', 'volts']);
const STEPS = ['press', 'release', 'tap', 'strap', 'ticks', 'send'];

/**
 * A board from its description.
 * @throws Error that names what is wrong and where.
 */
export function readBoard(raw: unknown): LogicBoard {
  if (!isRecord(raw)) fail('a board is a record');
  if (typeof raw['deck'] !== 'string') fail('the board has no “deck”');
  const { circuit, diagnostics } = readDeck(raw['deck']);
  const wrong = diagnostics.find((d) => d.severity === 'error');
  if (wrong) fail(`deck: ${wrong.message}`);
  const models = modelCards(raw['deck']);
  const parts = list(raw, 'parts', 'board').map((p) => readPart(p, circuit, models));
  const chips = list(raw, 'chips', 'board').map(readChip);
  const board: LogicBoard = {
    name: typeof raw['name'] === 'string' ? raw['name'] : '',
    circuit,
    models,
    parts,
    chips,
    neighbours: (Array.isArray(raw['neighbours']) ? raw['neighbours'] : fail('the board has no “neighbours”')) as LogicBoard['neighbours'],
    checks: list(raw, 'checks', 'board') as unknown as readonly LogicCheck[],
  };
  const nets = netsOfBoard(board);
  for (const [a, b] of board.neighbours) for (const net of [a, b]) if (!nets.has(net)) fail(`neighbours: no net is called ${net}`);
  board.checks.forEach((c) => validateCheck(c, board, nets));
  return board;
}

/** Model cards with their parameters. The circuit keeps those that an element uses; a digit's segments are no elements. */
function modelCards(deck: string): Map<string, Record<string, number>> {
  return new Map(
    [...deck.matchAll(/^\.model\s+(\S+)\s+\w+\s*\(?([^)\n]*)/gim)].map((m) => [
      m[1]!.toLowerCase(),
      Object.fromEntries([...m[2]!.matchAll(/(\w+)\s*=\s*(\S+)/g)].map((p) => [p[1]!.toUpperCase(), readSpiceNumber(p[2]!) ?? NaN])),
    ]),
  );
}

function readPart(raw: Raw, circuit: Circuit, models: LogicBoard['models']): LogicPart {
  const ref = typeof raw['ref'] === 'string' ? raw['ref'] : fail('a part has no “ref”');
  const kind = String(raw['kind']);
  if (!PART_KINDS.has(kind)) fail(`${ref}: kind “${kind}” is not known`);
  const element = kind === 'buzzer' ? String(raw['element']) : ref;
  const drawn = !['key', 'crystal', 'strap', 'connector', 'display'].includes(kind);
  if (drawn && !circuit.parts.some((p) => p.name.toLowerCase() === element.toLowerCase())) fail(`${ref}: the deck has no element ${element}`);
  if ((kind === 'key' || kind === 'crystal') && !(Array.isArray(raw['pins']) && raw['pins'].length === 2)) fail(`${ref}: “pins” must name two nets`);
  if (kind === 'strap') for (const f of ['common', 'a', 'b', 'set']) if (typeof raw[f] !== 'string') fail(`${ref}: “${f}” is missing`);
  if (kind === 'connector' && !isRecord(raw['wires'])) fail(`${ref}: “wires” is missing`);
  if (kind === 'display') {
    if (!isRecord(raw['pins'])) fail(`${ref}: “pins” is missing`);
    if (!models.has(String(raw['model']).toLowerCase())) fail(`${ref}: model “${String(raw['model'])}” is not in the deck`);
  }
  return raw as unknown as LogicPart;
}

function readChip(raw: Raw): Chip {
  const ref = typeof raw['ref'] === 'string' ? raw['ref'] : fail('a chip has no “ref”');
  const card = String(raw['card']);
  if (card !== 'box' && card !== 'REG5' && !CARDS[card]) fail(`${ref}: card “${card}” is not known`);
  if (!isRecord(raw['pins'])) fail(`${ref}: “pins” is missing`);
  if (card === 'box') for (const f of ['supply', 'roles', 'electrical', 'functions']) if (raw[f] === undefined) fail(`${ref}: “${f}” is missing`);
  if (card === 'OSC8' && raw['timing'] === undefined) fail(`${ref}: “timing” is missing`);
  return raw as unknown as Chip;
}

/** All nets of a board. */
export function netsOfBoard(board: LogicBoard): ReadonlySet<string> {
  const nets = new Set<string>(['0']);
  for (const p of board.circuit.parts) for (const n of p.nodes) nets.add(n);
  for (const c of board.chips) for (const n of Object.values(c.pins)) nets.add(n);
  for (const p of board.parts) {
    if (p.kind === 'key' || p.kind === 'crystal') p.pins.forEach((n) => nets.add(n));
    else if (p.kind === 'strap') [p.common, p.a, p.b].forEach((n) => nets.add(n));
    else if (p.kind === 'connector')
      Object.values(p.wires)
        .flat()
        .forEach((n) => nets.add(n));
    else if (p.kind === 'display') Object.values(p.pins).forEach((n) => nets.add(n));
  }
  return nets;
}

function validateCheck(check: LogicCheck, board: LogicBoard, nets: ReadonlySet<string>): void {
  const where = `check ${check.id}`;
  const part = (ref: string, kinds: readonly string[]) => {
    if (!board.parts.some((p) => p.ref === ref && kinds.includes(p.kind))) fail(`${where}: the board has no ${kinds.join(' or ')} ${ref}`);
  };
  const isList = (x: unknown): boolean => Array.isArray(x);
  if (!isList(check.do) || !isList(check.see)) fail(`${where}: “do” or “see” is missing`);
  for (const step of check.do) {
    const kind = STEPS.find((k) => k in step) ?? fail(`${where}: a step of an unknown kind`);
    const s = step as Readonly<Record<string, unknown>>;
    if (kind === 'press' || kind === 'release') part(String(s[kind]), ['key']);
    if (kind === 'tap') part((s['tap'] as { key: string }).key, ['key']);
    if (kind === 'strap') Object.keys(s['strap'] as object).forEach((ref) => part(ref, ['strap']));
    if (kind === 'send' && !board.chips.some((c) => c.ref === (s['send'] as { from: string }).from && c.bus)) fail(`${where}: the sender has no bus`);
  }
  for (const item of check.see) {
    if (!SEEN.has(item.what)) fail(`${where}: “${item.what}” cannot be seen`);
    if (item.what === 'volts') {
      if (item.net === undefined || !nets.has(item.net)) fail(`${where}: no net is called ${item.net ?? '(none)'}`);
    } else part(item.part ?? '(none)', item.what === 'digit' ? ['display'] : item.what === 'sound' ? ['buzzer'] : ['led']);
  }
}
