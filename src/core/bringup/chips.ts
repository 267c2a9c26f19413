import type { Part } from '../circuit';
import type { Line } from '../kit';
import { cardFor } from '../typecard';

/** Families of chips whose behaviour a circuit can use. */
export type Family = 'fixed' | 'adjustable' | 'timer' | 'opamp' | 'comparator' | 'audio' | 'bridge' | 'gates' | 'unknown';

/** A chip of the board: nets by what its pins do (`out`, `in`, `gnd`, `vs`, `out1`…), and in the order of its pins. */
export interface Chip {
  readonly ref: string;
  readonly family: Family;
  readonly pins: Readonly<Record<string, string>>;
  readonly order: readonly string[];
  /** What each pin of that order does; null where nobody can tell. */
  readonly does: readonly (string | null)[];
  /** What a builder's deck has inside it, nets of its pins as they are there: used where nobody knows the family. */
  readonly inside: readonly Part[];
  /** Volts of a fixed regulator. */
  readonly volts: number | null;
}

/** Types by family; digits as data sheets have them (from memory), letters for makers before and for bodies behind. */
const BY_TYPE: readonly (readonly [RegExp, Family])[] = [
  [/78[LMS]?\d\d|1117.?\d|HT75\d\d|MCP170\d/, 'fixed'],
  [/317|350T|\bLM338|1117(?!.?\d)|1084|1086/, 'adjustable'],
  [/555|7555/, 'timer'],
  [/\b[A-Z]{0,3}(?:393|339|2903|2901)(?!\d)|COMPARATOR|KOMPARATOR/, 'comparator'],
  [/\b[A-Z]{0,4}386(?!\d)/, 'audio'],
  [/BTL|7052|7053|8571|BRIDGE AMP/, 'bridge'],
  [/40106|74[A-Z]{0,4}14(?!\d)|4093|74[A-Z]{0,4}132(?!\d)|4584/, 'gates'],
  [/\b[A-Z]{0,4}(?:358|324|741|1458|4558|5532|5534|2904|6002|0[678][124])(?!\d)|OP.?AMP|OPERATIONSVERST/, 'opamp'],
];

/** By the names of a sub-circuit's pins, where the list does not tell the type. */
const BY_PINS: readonly (readonly [readonly string[], Family])[] = [
  [['adj', 'in', 'out'], 'adjustable'],
  [['in', 'gnd', 'out'], 'fixed'],
  [['thr', 'trig', 'out'], 'timer'],
  [['byp', 'out', 'inp'], 'audio'],
  [['out1', 'out2', 'mode'], 'bridge'],
  [['out1', 'inn1', 'inp1'], 'opamp'],
];

export function familyOf(line: Pick<Line, 'type' | 'label'> | null, pins: Readonly<Record<string, string>>, model: string): Family {
  const text = `${line?.type ?? ''} ${line?.label ?? ''}`.toUpperCase();
  const typed = BY_TYPE.find(([pattern]) => pattern.test(text))?.[1];
  if (typed) return typed;
  const told = BY_PINS.find(([wanted]) => wanted.every((w) => w in pins))?.[1] ?? 'unknown';
  return told === 'opamp' && /CMP|COMP/i.test(model) ? 'comparator' : told;
}

/** Volts of a fixed regulator by its type or its model's parameter. */
export function regulatorVolts(line: Pick<Line, 'type' | 'label'> | null, rest: string): number | null {
  const text = `${line?.type ?? ''} ${line?.label ?? ''}`.toUpperCase();
  const fixed = /78[LMS]?(\d\d)/.exec(text);
  if (fixed) return Number(fixed[1]);
  const low = /(?:1117|HT75|MCP170\d)\D{0,3}(\d\.\d|\d\d?)/.exec(text);
  if (low) return Number(low[1]) > 20 ? Number(low[1]) / 10 : Number(low[1]);
  const param = /\bv=([\d.]+)/i.exec(rest);
  return param ? Number(param[1]) : null;
}

const PIN_WORDS: readonly (readonly [RegExp, string])[] = [
  [/^(?:gnd|vss|vn|vee|ground|v-|minus|gnd\d|masse)$/, 'gnd'],
  [/^(?:vcc|vdd|vs|vp|v\+|vplus|supply|vbat)$/, 'vs'],
  [/^(?:trig|trigger|tr|trg)$/, 'trig'],
  [/^(?:thr|threshold|th|thres)$/, 'thr'],
  [/^(?:dis|disch|discharge)$/, 'dis'],
  [/^(?:cv|ctrl|control|con|cont)$/, 'cv'],
  [/^(?:rst|reset|res|r)$/, 'reset'],
  [/^(?:byp|bypass)$/, 'byp'],
  [/^(?:mode|mute|shutdown|standby|sd|en)$/, 'mode'],
  [/^(?:adj|adjust)$/, 'adj'],
  [/^(?:in|vin|input|i)$/, 'in'],
  [/^(?:out|vout|output|q)$/, 'out'],
  [/^(?:inn|in-|inm)$/, 'inn'],
  [/^(?:inp|in\+)$/, 'inp'],
  [/^gain$/, 'gain'],
];
/** Pins of one of several units: `oa`, `out1`, `1in-`, `inpb`. */
const UNIT_PINS: readonly (readonly [RegExp, string])[] = [
  [/^(?:o|out|vo|out\.)([a-d1-4])$|^([1-4])out$|^out([+-])$/, 'out'],
  [/^(?:n|inn|in-|inm|minus|-in)([a-d1-4])$|^([1-4])in-$/, 'inn'],
  [/^(?:p|inp|in\+|plus|\+in)([a-d1-4])$|^([1-4])in\+$/, 'inp'],
  [/^in([a-d1-6])$/, 'in'],
];

/** What a pin does, from its name in a sub-circuit or on a type card; null where nobody can tell. */
export function pinFunction(name: string): string | null {
  const text = name.toLowerCase().replace(/[\s_()]/g, '');
  const whole = PIN_WORDS.find(([pattern]) => pattern.test(text))?.[1];
  if (whole) return whole;
  for (const [pattern, base] of UNIT_PINS) {
    const match = pattern.exec(text);
    const unit = match && (match[1] ?? match[2] ?? match[3]);
    if (unit) return `${base}${unit === '+' ? 1 : unit === '-' ? 2 : /[a-d]/.test(unit) ? unit.charCodeAt(0) - 96 : unit}`;
  }
  return null;
}

/** Pins by number (data sheets, from memory); null where a pin is not connected. */
const NUMBERED: Readonly<Partial<Record<Family, Readonly<Record<number, readonly (string | null)[]>>>>> = {
  fixed: { 3: ['in', 'gnd', 'out'] },
  adjustable: { 3: ['adj', 'out', 'in'] },
  timer: { 8: ['gnd', 'trig', 'out', 'reset', 'cv', 'thr', 'dis', 'vs'] },
  audio: { 8: ['gain', 'inn', 'inp', 'gnd', 'out', 'vs', 'byp', 'gain2'] },
  comparator: {
    8: ['out1', 'inn1', 'inp1', 'gnd', 'inp2', 'inn2', 'out2', 'vs'],
    14: ['out2', 'out1', 'vs', 'inn1', 'inp1', 'inn2', 'inp2', 'inn3', 'inp3', 'inn4', 'inp4', 'gnd', 'out4', 'out3'],
  },
  opamp: {
    8: ['out1', 'inn1', 'inp1', 'gnd', 'inp2', 'inn2', 'out2', 'vs'],
    14: ['out1', 'inn1', 'inp1', 'vs', 'inp2', 'inn2', 'out2', 'out3', 'inn3', 'inp3', 'gnd', 'inp4', 'inn4', 'out4'],
  },
};
/** Single op-amps in eight pins have an order of their own. */
const SINGLE = [null, 'inn1', 'inp1', 'gnd', null, 'out1', 'vs', null];
const HEX = ['in1', 'out1', 'in2', 'out2', 'in3', 'out3', 'gnd', 'out4', 'in4', 'out5', 'in5', 'out6', 'in6', 'vs'];
const QUAD = ['in1a', 'in1b', 'out1', 'out2', 'in2a', 'in2b', 'gnd', 'in3a', 'in3b', 'out3', 'out4', 'in4a', 'in4b', 'vs'];

/** What each pin of a chip does whose pins are told by number alone. */
export function numberedPins(family: Family, line: Line | null, count: number): readonly (string | null)[] {
  const text = `${line?.type ?? ''} ${line?.label ?? ''}`.toUpperCase();
  if (family === 'gates') return /4093|132/.test(text) ? QUAD : HEX;
  if (family === 'opamp' && /741|\b[A-Z]{0,2}0[678]1\b|5534|OP07|3140/.test(text)) return SINGLE;
  const known = NUMBERED[family];
  const sizes = known ? Object.keys(known).map(Number) : [];
  const size = sizes.find((n) => n >= count) ?? sizes.at(-1);
  if (known && size !== undefined) return known[size]!;
  const card = line ? Object.values(cardFor(line, [])?.pins ?? {})[0] : undefined;
  return card ? card.map(pinFunction) : [];
}
