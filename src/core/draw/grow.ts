import { freeOf, type Layout, moved, overlaps, standing, wired } from './assemble';
import { ACTIVE, type Piece, piece, type PlacedSymbol, TWO_POLES } from './pieces';
import type { Drawable, DrawnPart } from './request';
import { type Point, type Rotation, textWidth } from './symbols';

/** A circuit as it was laid out, and how many parts have come since all of it was laid out at once. */
export interface Laid {
  readonly drawable: Drawable;
  readonly layout: Layout;
  readonly since: number;
}

/** So much may come one by one before everything is laid out anew: a drawing that only ever grew reads badly (own choice). */
const MOST = { parts: 3, share: 0.4 };
/** Less than this share as it was is another circuit (own choice). */
const LEAST = 0.5;
/** A new part stands so far from what it is joined to. */
const AWAY = 4;

/**
 * A circuit of which most was laid out before: what is joined as it was stands as it did, new parts come beside what they are
 * joined to. Null where too much is new.
 */
export function grown(d: Drawable, { drawable: old, layout, since }: Laid): Laid | null {
  if (d.boards.length > 1 || old.boards.length > 1) return null;
  const known = new Map(d.parts.map((p, i) => [p.ref, i]));
  const kept = layout.pieces.flatMap((p) => (isIntact(p, old, d, known) ? [renewed(p, old, d, known)] : []));
  if (kept.length < LEAST * layout.pieces.length) return null;
  const there = new Set(kept.flatMap((p) => p.symbols.map((s) => s.part)));
  const placed = [...kept];
  let come = since;
  // What was joined to nothing had no place of its own yet.
  for (const symbol of layout.pieces.filter((p) => p.terminals.length > 0).flatMap((p) => p.symbols)) {
    const part = partOf(symbol, old, d, known);
    if (part === null || there.has(part)) continue;
    there.add(part);
    placed.push(freeOf(standing(d, part, symbol), placed));
  }
  const before = new Set(old.parts.map((p) => p.ref));
  for (let part = 0; part < d.parts.length; part++) {
    if (there.has(part)) continue;
    if (!before.has(d.parts[part]!.ref)) come++;
    placed.push(besideItsNets(d, part, placed));
  }
  const gone = old.parts.filter((p) => !known.has(p.ref)).length;
  if (come + gone > MOST.parts && come + gone > MOST.share * d.parts.length) return null;
  const drawing = wired(d, placed, true)!;
  return overlaps(drawing) ? null : { drawable: d, layout: { drawing, pieces: placed }, since: come + gone };
}

type Known = ReadonlyMap<string, number>;

const isSamePart = (a: DrawnPart, b: DrawnPart) => a.kind === b.kind && a.pins.length === b.pins.length && a.pins.every((pin, i) => pin === b.pins[i]);

/** Where a symbol's part is in the new circuit; null where it is gone or something else. */
function partOf({ part }: PlacedSymbol, old: Drawable, d: Drawable, known: Known): number | null {
  const was = old.parts[part]!;
  const now = known.get(was.ref);
  return now !== undefined && isSamePart(was, d.parts[now]!) ? now : null;
}

/** Whether all parts of a piece are there and joined so that its flags, short wires and ends still serve. */
function isIntact(p: Piece, old: Drawable, d: Drawable, known: Known): boolean {
  const led = new Set(p.terminals.map((t) => t.net));
  return p.symbols.every((s) => {
    const part = partOf(s, old, d, known);
    if (part === null) return false;
    const [was, now] = [old.parts[s.part]!, d.parts[part]!];
    return was.pins.every((pin) => {
      const net = was.net[pin]!;
      if (net !== now.net[pin] || old.rails.get(net) !== d.rails.get(net) || old.written.get(net) !== d.written.get(net)) return false;
      // A net that the piece joins within itself, or that only one pin is on, has no end for another.
      const isOpenToOthers = led.has(net) || (old.rails.has(net) && old.nets.get(net)!.length > 1);
      return isOpenToOthers || pinsOn(old, net) === pinsOn(d, net);
    });
  });
}

const pinsOn = (d: Drawable, net: string) =>
  d.nets
    .get(net)!
    .map((q) => `${d.parts[q.part]!.ref} ${q.pin}`)
    .sort()
    .join(', ');

/** The same piece with the new circuit's numbers and values. */
function renewed(p: Piece, old: Drawable, d: Drawable, known: Known): Piece {
  const of = (part: number) => known.get(old.parts[part]!.ref)!;
  return {
    ...p,
    symbols: p.symbols.map((s) => ({ ...s, part: of(s.part) })),
    labels: p.labels.flatMap((label) => {
      const part = of(label.part);
      const text = label.what === 'ref' ? label.text : d.parts[part]!.value;
      if (text === null) return [];
      const [l, t, r, b] = label.box;
      const isLeftOf = p.symbols.some((s) => s.part === label.part && r <= s.box[0]);
      return [{ ...label, part, text, box: isLeftOf ? ([r - textWidth(text), t, r, b] as const) : ([l, t, l + textWidth(text), b] as const) }];
    }),
    terminals: p.terminals.map((t) => ({ ...t, part: of(t.part) })),
  };
}

const TURNS: readonly Rotation[] = [0, 90, 180, 270];

/** Ways in which a new symbol may stand. */
function waysOf(d: Drawable, part: number): Piece[] {
  const { kind } = d.parts[part]!;
  if (TWO_POLES.has(kind)) return TURNS.map((rotation) => piece(d, part, { rotation }));
  if (ACTIVE[kind] || kind === 'connector' || kind === 'trimmer') return [piece(d, part), piece(d, part, { mirror: true })];
  return [piece(d, part)];
}

/** How much a flag that has to be led round counts against a step of wire (own choice). */
const UPSIDE_DOWN = 4;

/** A new part at the free place where its wires are shortest. */
function besideItsNets(d: Drawable, part: number, placed: readonly Piece[]): Piece {
  const ends = placed.flatMap((p) => p.terminals);
  const tried = waysOf(d, part).flatMap((way) => {
    const joins = way.terminals.flatMap((mine) => ends.filter((e) => e.net === mine.net).map((theirs) => ({ mine, theirs })));
    return joins.map(({ mine, theirs }) => freeOf(moved(way, towards(mine.at, theirs.at, theirs.dir)), placed));
  });
  if (tried.length === 0) return freeOf(moved(waysOf(d, part)[0]!, rightOf(placed)), placed);
  const cost = (p: Piece) =>
    UPSIDE_DOWN * p.dislike +
    p.terminals.reduce(
      (sum, mine) =>
        sum +
        nearest(
          mine.at,
          ends.filter((e) => e.net === mine.net).map((e) => e.at),
        ),
      0,
    );
  return tried.reduce((a, b) => (cost(b) < cost(a) ? b : a));
}

/** The step that takes an end to a little before another. */
function towards([x, y]: Point, [tx, ty]: Point, dir: 'up' | 'down' | 'left' | 'right'): Point {
  const [dx, dy] = { up: [0, -AWAY], down: [0, AWAY], left: [-AWAY, 0], right: [AWAY, 0] }[dir] as [number, number];
  return [tx + dx - x, ty + dy - y];
}

const nearest = ([x, y]: Point, others: readonly Point[]) => (others.length === 0 ? 0 : Math.min(...others.map(([a, b]) => Math.abs(a - x) + Math.abs(b - y))));

/** A place to the right of everything, half way down. */
function rightOf(placed: readonly Piece[]): Point {
  const boxes = placed.flatMap((p) => p.solid);
  if (boxes.length === 0) return [0, 0];
  const middle = (Math.min(...boxes.map((b) => b[1])) + Math.max(...boxes.map((b) => b[3]))) / 2;
  return [Math.ceil(Math.max(...boxes.map((b) => b[2]))) + 2 * AWAY, Math.round(middle)];
}
