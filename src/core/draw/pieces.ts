import type { Drawable, DrawnPart } from './request';
import {
  type Box,
  connectorShape,
  type Direction,
  flagBox,
  flagSize,
  overlap,
  type Point,
  type Rotation,
  SHAPES,
  textWidth,
  turned,
  turnedBox,
} from './symbols';

/** A symbol in its place, relative to its piece's origin. */
export interface PlacedSymbol {
  readonly part: number;
  readonly x: number;
  readonly y: number;
  readonly rotation: Rotation;
  readonly mirror: boolean;
  readonly form?: 'b';
  readonly box: Box;
  readonly pins: Readonly<Record<string, Point>>;
}
export interface PlacedFlag {
  readonly kind: 'ground' | 'supply';
  readonly net: string;
  readonly at: Point;
  readonly dir: Direction;
  readonly box: Box;
}
export interface PlacedLabel {
  readonly part: number;
  readonly what: 'ref' | 'value';
  readonly text: string;
  readonly box: Box;
}
/** Where a net must be joined, and which way it leaves. */
export interface Terminal {
  readonly net: string;
  readonly at: Point;
  readonly dir: Direction;
  readonly part: number;
  readonly pin: string;
}
/** Symbols that keep together, with their flags, labels and short wires, seen one way round. */
export interface Piece {
  readonly symbols: readonly PlacedSymbol[];
  readonly flags: readonly PlacedFlag[];
  readonly labels: readonly PlacedLabel[];
  readonly wires: readonly { readonly net: string; readonly points: readonly Point[] }[];
  readonly terminals: readonly Terminal[];
  /** Nothing else may lie in these. */
  readonly solid: readonly Box[];
  /** A cost that this way round carries by itself. */
  readonly dislike: number;
}

export const TWO_POLES: ReadonlySet<string> = new Set([
  'resistor', 'capacitor', 'inductor', 'fuse', 'thermistor', 'lamp', 'crystal', 'switch', 'link', 'electrolytic', 'diode', 'zener', 'led', 'ldr', 'speaker', 'microphone', 'coil', 'source', 'battery', 'winding',
]); // prettier-ignore
/** Control, upper and lower main pin of active parts. */
export const ACTIVE: Readonly<Record<string, { readonly control: string; readonly up: string; readonly low: string }>> = {
  npn: { control: 'B', up: 'C', low: 'E' },
  pnp: { control: 'B', up: 'E', low: 'C' },
  nmos: { control: 'G', up: 'D', low: 'S' },
  njf: { control: 'G', up: 'D', low: 'S' },
  pmos: { control: 'G', up: 'S', low: 'D' },
  pjf: { control: 'G', up: 'S', low: 'D' },
};

const LABEL_HIGH = 1.05;
const GAP = 0.15;

export const shifted = ([l, t, r, b]: Box, [x, y]: Point): Box => [l + x, t + y, r + x, b + y];

/** The side of a box on which a pin sits, so the way its wire leaves. */
function sideOf([x, y]: Point, [l, t, r, b]: Box, flat: boolean): Direction {
  if (flat && y === t) return 'up';
  if (flat && y === b) return 'down';
  if (x === l) return 'left';
  if (x === r) return 'right';
  return y === t ? 'up' : 'down';
}
export const STEP: Readonly<Record<Direction, Point>> = { up: [0, -1], down: [0, 1], left: [-1, 0], right: [1, 0] };

interface Way {
  readonly x?: number;
  readonly y?: number;
  readonly rotation?: Rotation;
  readonly mirror?: boolean;
  readonly form?: 'b';
  /** Where the labels stand. */
  readonly labels?: 'right' | 'left' | 'above' | 'split' | 'outer';
}

const swapInputs = (pin: string) => (pin === 'IN-' ? 'IN+' : pin === 'IN+' ? 'IN-' : pin);

/** One symbol with its rail flags and labels. `bare`: pins that need no flag of their own. */
export function piece(drawable: Drawable, part: number, way: Way = {}, bare: ReadonlySet<string> = new Set()): Piece {
  const p = drawable.parts[part]!;
  const { x = 0, y = 0, rotation = 0, mirror = false, form } = way;
  if (p.kind === 'chip') return chipPiece(drawable, part);
  const shape = p.kind === 'connector' ? connectorShape(p.pins) : SHAPES[p.kind]!;
  const box = shifted(turnedBox(shape.box, rotation, mirror), [x, y]);
  const pins: Record<string, Point> = {};
  for (const pin of p.pins) {
    const [px, py] = turned(shape.pins[form === 'b' ? swapInputs(pin) : pin]!, rotation, mirror);
    pins[pin] = [x + px, y + py];
  }
  const symbol: PlacedSymbol = { part, x, y, rotation, mirror, box, pins, ...(form ? { form } : {}) };
  const flat = rotation % 180 === 0 ? !['opamp', 'regulator', 'bridge', 'transformer', 'connector', 'trimmer'].includes(p.kind) || p.kind === 'opamp' : false;
  const side = (pin: string) =>
    TWO_POLES.has(p.kind)
      ? rotation % 180 === 0
        ? pins[pin]![1] < y
          ? 'up'
          : 'down'
        : pins[pin]![0] < x
          ? 'left'
          : 'right'
      : sideOf(pins[pin]!, box, flat && p.kind !== 'opamp');
  return finish(drawable, symbol, p, side, labelsOf(drawable, part, box, way, rotation), bare);
}

function finish(
  drawable: Drawable,
  symbol: PlacedSymbol,
  p: DrawnPart,
  side: (pin: string) => Direction,
  labels: readonly PlacedLabel[],
  bare: ReadonlySet<string>,
): Piece {
  const flags: PlacedFlag[] = [];
  const wires: { net: string; points: Point[] }[] = [];
  const terminals: Terminal[] = [];
  let dislike = 0;
  // What must be led round a symbol finds its place beside the flags that stand at their pins.
  const isLedRound = (pin: string): boolean => {
    const level = drawable.rails.get(p.net[pin]!);
    return level !== undefined && !bare.has(pin) && side(pin) === (level > 0 ? 'down' : 'up');
  };
  for (const pin of [...p.pins].sort((a, b) => Number(isLedRound(a)) - Number(isLedRound(b)))) {
    const net = p.net[pin]!;
    const at = symbol.pins[pin]!;
    const dir = side(pin);
    const level = drawable.rails.get(net);
    const alone = (drawable.nets.get(net)?.length ?? 0) < 2;
    if (level === undefined || bare.has(pin)) {
      if (!alone) terminals.push({ net, at, dir, part: symbol.part, pin });
      continue;
    }
    if (alone) continue;
    const kind = net === drawable.ground ? 'ground' : 'supply';
    const to: Direction = level > 0 ? 'up' : 'down';
    const name = drawable.written.get(net) ?? net;
    if (to === dir) {
      flags.push({ kind, net: name, at, dir: to, box: flagBox(kind, name, at, to) });
      continue;
    }
    const { half } = flagSize(kind, name, to);
    if (dir === 'left' || dir === 'right') {
      const sign = dir === 'left' ? -1 : 1;
      const edge = dir === 'left' ? symbol.box[0] : symbol.box[2];
      const there: Point = [edge + sign * half, at[1]];
      wires.push({ net: name, points: [at, there] });
      flags.push({ kind, net: name, at: there, dir: to, box: flagBox(kind, name, there, to) });
    } else {
      // Away from where its flag should point: led round beside the symbol.
      const out = dir === 'up' ? -1 : 1;
      const corner: Point = [at[0], at[1] + out];
      let there: Point = [Math.max(symbol.box[2] + half, at[0] + half + 1), at[1] + out];
      while (flags.some((f) => overlap(f.box, flagBox(kind, name, there, to)))) there = [there[0] + 1, there[1]];
      wires.push({ net: name, points: [at, corner, there] });
      flags.push({ kind, net: name, at: there, dir: to, box: flagBox(kind, name, there, to) });
      dislike += 12;
    }
  }
  const placed = clearOf(symbol.box, labels, [...flags.map((f) => f.box), ...wires.map((w) => around(w.points)), ...terminals.map((t) => exitOf(t))]);
  const solid = [symbol.box, ...flags.map((f) => f.box), ...placed.map((l) => roomOf(l.box, symbol.box))];
  return { symbols: [symbol], flags, labels: placed, wires, terminals, solid, dislike };
}

/** Room kept for a label: in steps of four letters, so that another value moves nothing. */
function roomOf([l, t, r, b]: Box, [sl]: Box): Box {
  const wide = Math.ceil((r - l) / LABEL_STEP - 1e-9) * LABEL_STEP;
  return r <= sl ? [r - wide, t, r, b] : [l, t, l + wide, b];
}
const LABEL_STEP = 2.6;

const around = (points: readonly Point[]): Box => [
  Math.min(...points.map((q) => q[0])),
  Math.min(...points.map((q) => q[1])),
  Math.max(...points.map((q) => q[0])),
  Math.max(...points.map((q) => q[1])),
];
const exitOf = ({ at, dir }: Terminal): Box => around([at, [at[0] + STEP[dir][0], at[1] + STEP[dir][1]]]);
const touches = (a: Box, b: Box) => a[2] > b[0] + 0.05 && b[2] > a[0] + 0.05 && a[3] > b[1] + 0.05 && b[3] > a[1] + 0.05;

/** Labels where they usually stand, moved round the symbol where a flag or a wire is. */
function clearOf([l, t, r, b]: Box, labels: readonly PlacedLabel[], others: readonly Box[]): PlacedLabel[] {
  const done: PlacedLabel[] = [];
  for (const label of labels) {
    const w = label.box[2] - label.box[0];
    const fits = (box: Box) => ![...others, ...done.map((d) => d.box)].some((o) => touches(box, [o[0] - 0.01, o[1] - 0.01, o[2] + 0.01, o[3] + 0.01]));
    const along = (from: number, to: number) => Array.from({ length: Math.max(1, Math.floor(to - from) + 1) }, (_, i) => from + i);
    const spots: Box[] = [
      label.box,
      ...along(l, r + 1).flatMap((x): Box[] => [
        [x, t - GAP - LABEL_HIGH, x + w, t - GAP],
        [x, b + GAP, x + w, b + GAP + LABEL_HIGH],
      ]),
      ...along(l - w, l).map((x): Box => [x, t - GAP - LABEL_HIGH, x + w, t - GAP]),
      ...along(t - 1, b).flatMap((y): Box[] => [
        [r + GAP, y, r + GAP + w, y + LABEL_HIGH],
        [l - GAP - w, y, l - GAP, y + LABEL_HIGH],
      ]),
    ];
    done.push({ ...label, box: spots.find(fits) ?? label.box });
  }
  return done;
}

/** Ref and value beside a symbol, within two of its box. */
function labelsOf(drawable: Drawable, part: number, [l, t, r, b]: Box, way: Way, rotation: Rotation): PlacedLabel[] {
  const p = drawable.parts[part]!;
  const ref = { part, what: 'ref' as const, text: p.ref };
  const value = p.value === null ? null : { part, what: 'value' as const, text: p.value };
  const [wr, wv] = [textWidth(p.ref), p.value === null ? 0 : textWidth(p.value)];
  const boxAt = (x: number, y: number, w: number): Box => [x, y, x + w, y + LABEL_HIGH];
  const lying = TWO_POLES.has(p.kind) && rotation % 180 === 90;
  const where = way.labels ?? (lying ? 'above' : 'right');
  const middle = (t + b) / 2;
  const both = (first: Box, second: Box): PlacedLabel[] => [{ ...ref, box: first }, ...(value ? [{ ...value, box: second }] : [])];
  if (p.kind === 'testpoint') return both(boxAt(r + GAP, t - 0.15, wr), boxAt(l - GAP - wv, t - 0.15, wv));
  if (p.kind === 'trimmer') return both(boxAt(l - GAP - wr, middle - LABEL_HIGH - 0.05, wr), boxAt(l - GAP - wv, middle + 0.05, wv));
  if (p.kind === 'connector') return both(boxAt(l, t - GAP - LABEL_HIGH, wr), boxAt(l, b + GAP, wv));
  if (p.kind === 'opamp') return both(boxAt(r - 2.6, t - GAP - LABEL_HIGH, wr), boxAt(r - 2.6, b + GAP, wv));
  if (p.kind === 'regulator') return both(boxAt((l + r - wr) / 2, t - GAP - LABEL_HIGH, wr), boxAt((l + r) / 2 + 1.2, b + GAP, wv));
  if (p.kind === 'bridge') return both(boxAt((l + r) / 2 + 0.3, t - GAP - LABEL_HIGH, wr), boxAt((l + r) / 2 + 0.3, b + GAP, wv));
  if (p.kind === 'transformer') return both(boxAt((l + r - wr) / 2, t - GAP - LABEL_HIGH, wr), boxAt((l + r - wv) / 2, b + GAP, wv));
  if (where === 'split') return both(boxAt((l + r - wr) / 2, t - GAP - LABEL_HIGH, wr), boxAt((l + r - wv) / 2, b + GAP, wv));
  if (where === 'above') {
    const mid = (l + r) / 2;
    return value
      ? both(boxAt(mid - 0.15 - wr, t - GAP - LABEL_HIGH, wr), boxAt(mid + 0.15, t - GAP - LABEL_HIGH, wv))
      : both(boxAt(mid - wr / 2, t - GAP - LABEL_HIGH, wr), boxAt(0, 0, 0));
  }
  if (where === 'outer') {
    // Beside the control pin, above and below its wire.
    const left = !way.mirror;
    return both(
      left ? boxAt(l - GAP - wr, middle - 0.25 - LABEL_HIGH, wr) : boxAt(r + GAP, middle - 0.25 - LABEL_HIGH, wr),
      left ? boxAt(l - GAP - wv, middle + 0.25, wv) : boxAt(r + GAP, middle + 0.25, wv),
    );
  }
  if (where === 'left') return both(boxAt(l - GAP - wr, middle - LABEL_HIGH - 0.05, wr), boxAt(l - GAP - wv, middle + 0.05, wv));
  return both(boxAt(r + GAP, middle - LABEL_HIGH - 0.05, wr), boxAt(r + GAP, middle + 0.05, wv));
}

/** A chip as a box: supplies above, grounds below, what it drives to the right, the rest to the left, in the order of the pins. */
function chipPiece(drawable: Drawable, part: number): Piece {
  const p = drawable.parts[part]!;
  const level = (pin: string) => drawable.rails.get(p.net[pin]!);
  const top = p.pins.filter((n) => (level(n) ?? 0) > 0);
  const bottom = p.pins.filter((n) => level(n) !== undefined && !((level(n) ?? 0) > 0));
  const rest = p.pins.filter((n) => level(n) === undefined);
  const told = rest.filter((n) => OUTPUT_NAME.test(n));
  const asked = rest.filter((n) => INPUT_NAME.test(n) && !OUTPUT_NAME.test(n));
  const open = rest.filter((n) => !told.includes(n) && !asked.includes(n));
  const left = [...asked];
  const right = [...told];
  for (const n of open) (drawable.inputs.includes(p.net[n]!) || left.length <= right.length ? left : right).push(n);
  const order = (side: string[]) => side.sort((a, b) => p.pins.indexOf(a) - p.pins.indexOf(b));
  order(left);
  order(right);
  const widest = (names: readonly string[]) => Math.max(0, ...names.map((n) => Math.ceil(textWidth(n))));
  const across = (pin: string) => 2 * flagSize(p.net[pin] === drawable.ground ? 'ground' : 'supply', drawable.written.get(p.net[pin]!) ?? '', 'up').half;
  const room = (pins: readonly string[]) => pins.reduce((sum, n) => sum + Math.max(2, across(n)), 0);
  const labelled = Math.ceil(Math.max(textWidth(p.ref), p.value === null ? 0 : textWidth(p.value)));
  const width = Math.max(6, widest(left) + widest(right) + 3, 2 * Math.max(top.length, bottom.length) + 2, labelled + 1 + Math.max(room(top), room(bottom)));
  const rows = Math.max(left.length, right.length);
  const height = Math.max(4, 2 * rows + (top.length > 0 ? 2 : 0) + (bottom.length > 0 ? 2 : 0));
  const pins: Record<string, Point> = {};
  const first = top.length > 0 ? 2 : 1;
  left.forEach((n, i) => (pins[n] = [0, first + 2 * i]));
  right.forEach((n, i) => (pins[n] = [width, first + 2 * i]));
  for (const [side, y] of [
    [top, 0],
    [bottom, height],
  ] as const) {
    let x = width - 1;
    for (const n of [...side].reverse()) {
      const half = Math.max(1, across(n) / 2);
      pins[n] = [Math.min(width - 1, x + 1 - half), y];
      x -= Math.max(2, across(n));
    }
  }
  const box: Box = [0, 0, width, height];
  const symbol: PlacedSymbol = { part, x: 0, y: 0, rotation: 0, mirror: false, box, pins };
  const side = (pin: string): Direction => (left.includes(pin) ? 'left' : right.includes(pin) ? 'right' : top.includes(pin) ? 'up' : 'down');
  const label = (text: string, y: number): Box => [0, y, textWidth(text), y + LABEL_HIGH];
  const labels: PlacedLabel[] = [
    { part, what: 'ref', text: p.ref, box: label(p.ref, -GAP - LABEL_HIGH) },
    ...(p.value === null ? [] : [{ part, what: 'value' as const, text: p.value, box: label(p.value, height + GAP) }]),
  ];
  return finish(drawable, symbol, p, side, labels, new Set());
}
const OUTPUT_NAME = /^(?:out|q|y|o|do|tx|vo|led|seg|p[b-d]|ra|gp[2-9]|co)\w*|^[a-g]$/i;
const INPUT_NAME = /^(?:in|clk|rst|reset|en|a\d|b\d|d\d|di|rx|trg|thr|tr|cv|dis|key|k\d|adj|set|sda|scl|x[it]|osc)\w*|[+-]$/i;

/** Pieces put together as one. */
export function joined(pieces: readonly Piece[], wires: Piece['wires'] = []): Piece {
  return {
    symbols: pieces.flatMap((p) => p.symbols),
    flags: pieces.flatMap((p) => p.flags),
    labels: pieces.flatMap((p) => p.labels),
    wires: [...pieces.flatMap((p) => p.wires), ...wires],
    terminals: pieces.flatMap((p) => p.terminals),
    solid: pieces.flatMap((p) => p.solid),
    dislike: pieces.reduce((sum, p) => sum + p.dislike, 0),
  };
}
