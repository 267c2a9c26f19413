import { Annealer, type Placement } from './anneal';
import { type Drawing, freeOf, type Layout, moved, overlaps, standing, wholeOf, wired } from './assemble';
import { type Group, groupsOf } from './groups';
import type { Piece } from './pieces';
import type { Drawable } from './request';
import { overlap, type Point, type Rotation } from './symbols';

/** How much is tried: moves of the annealing by the number of groups (own choice; two seconds for 150 parts). */
const MOVES = { base: 24_000, each: 2_200, most: 1_100_000 };
const STRETCH = 1.18;
const MOST_STRETCHES = 9;

/** Draws a circuit in the trade's symbols. The same request gives the same drawing. */
export const draw = (d: Drawable): Drawing => layout(d).drawing;

/** Room between two boards that are drawn side by side. */
const BETWEEN = 12;

/** Lays a circuit out; each board of several by itself, side by side, with the wires of the lead between them. */
export function layout(d: Drawable): Layout {
  const groups = groupsOf(d);
  if (d.boards.length < 2) return best(d, groups);
  let right = 0;
  const pieces = d.boards.flatMap(({ parts }) => {
    const mine = groups.filter((g) => parts.has(g.parts[0]!));
    if (mine.length === 0) return [];
    const { drawing, pieces } = best(d, mine);
    const [l, t, r, b] = drawing.box;
    const by: Point = [Math.round(right - l), -Math.round((t + b) / 2)];
    right += r - l + BETWEEN;
    return pieces.map((p) => moved(p, by));
  });
  return { drawing: wired(d, pieces, true)!, pieces };
}

/** The best of several placements of some groups. */
function best(d: Drawable, groups: readonly Group[]): Layout {
  const n = groups.length;
  const runs = n > 30 ? 1 : n > 14 ? 2 : 3;
  const moves = Math.round(Math.min(MOVES.base + MOVES.each * n, MOVES.most / n) / runs);
  const tried = Array.from({ length: runs }, (_, run) => {
    const annealer = new Annealer(d, groups, 7 + 13 * run);
    const placement = annealer.run(moves);
    return { placement, cost: annealer.total() };
  }).sort((a, b) => a.cost - b.cost);
  const found = tried
    .slice(0, ROUTED)
    .map(({ placement }) => assemble(d, groups, placement))
    .map((made) => ({ made, cost: costOf(made.drawing) + (overlaps(made.drawing) ? NEVER : 0) }))
    .reduce((a, b) => (b.cost < a.cost ? b : a)).made;
  if (!overlaps(found.drawing)) return found;
  const apart = apartFrom(d, groups);
  return overlaps(apart.drawing) ? found : apart;
}
/** Dearer than any drawing in which nothing lies on anything. */
const NEVER = 1e9;

/** The best placements whose wires are led. */
const ROUTED = 2;

/** Which of several drawings reads best: wire, bends, crossings, links, area. */
function costOf(drawing: Drawing): number {
  let length = 0;
  let bends = 0;
  for (const { points } of drawing.wires) {
    bends += points.length - 2;
    for (let i = 1; i < points.length; i++) length += Math.abs(points[i]![0] - points[i - 1]![0]) + Math.abs(points[i]![1] - points[i - 1]![1]);
  }
  const [l, t, r, b] = drawing.box;
  return length + 3 * bends + 60 * drawing.flags.filter((f) => f.kind === 'link').length + 12 * crossings(drawing) + 1.2 * (r - l + b - t);
}

function crossings(drawing: Drawing): number {
  const segments = drawing.wires.flatMap(({ net, points }) => points.slice(1).map((q, i) => ({ net, a: points[i]!, b: q })));
  let count = 0;
  for (const s of segments)
    for (const o of segments)
      if (s.net < o.net && (s.a[1] === s.b[1]) !== (o.a[1] === o.b[1])) {
        const [h, v] = s.a[1] === s.b[1] ? [s, o] : [o, s];
        const [x0, x1] = [Math.min(h.a[0], h.b[0]), Math.max(h.a[0], h.b[0])];
        const [y0, y1] = [Math.min(v.a[1], v.b[1]), Math.max(v.a[1], v.b[1])];
        if (v.a[0] > x0 && v.a[0] < x1 && h.a[1] > y0 && h.a[1] < y1) count++;
      }
  return count;
}

/** Stretches the placement until nothing lies on anything, then leads the wires. */
function assemble(d: Drawable, groups: readonly Group[], placement: Placement): Layout {
  let factor = 1;
  for (let i = 0; ; i++) {
    const pieces = groups.map((g, k) => moved(g.ways[placement.way[k]!]!, [Math.round(placement.x[k]! * factor), Math.round(placement.y[k]! * factor)]));
    const clash = pieces.some((a, k) => pieces.slice(k + 1).some((b) => clashes(a, b)));
    const last = i >= MOST_STRETCHES;
    if (!clash || last) {
      const drawing = clash ? null : wired(d, pieces, last || i > 4);
      if (drawing) return { drawing, pieces };
      if (last) return apartFrom(d, groups);
    }
    factor *= STRETCH;
  }
}

const clashes = (a: Piece, b: Piece) => wholeOf(a).some((x) => wholeOf(b).some((y) => overlap(x, y)));

/** Where a hand put a symbol. */
export interface Put {
  readonly ref: string;
  readonly x: number;
  readonly y: number;
  readonly rotation: Rotation;
  readonly mirror?: boolean | undefined;
}

/**
 * A layout with some symbols where a hand put them. They stay there; what would lie under them gives way to the nearest free
 * place, everything else stands as it did, and all wires are led anew.
 */
export function arranged(d: Drawable, { drawing, pieces }: Layout, put: readonly Put[]): Drawing {
  const known = new Map(d.parts.map((p, i) => [p.ref, i]));
  const byHand = new Map(put.flatMap((p) => (known.has(p.ref) ? [[known.get(p.ref)!, p] as const] : [])));
  if (byHand.size === 0) return drawing;
  const isMoved = (p: Piece) => p.symbols.some((s) => byHand.has(s.part));
  const placed: Piece[] = [];
  const place = (p: Piece) => placed.push(freeOf(p, placed));
  for (const [part, { x, y, rotation, mirror }] of byHand) place(standing(d, part, { x, y, rotation, mirror: mirror ?? false }));
  const rest = pieces.flatMap((p) => (isMoved(p) ? p.symbols.filter((s) => !byHand.has(s.part)).map((s) => standing(d, s.part, s)) : [p]));
  for (const p of rest) place(p);
  return wired(d, placed, true)!;
}

/** The last resort: everything in a row, far apart. */
function apartFrom(d: Drawable, groups: readonly Group[]): Layout {
  const pieces = spreadOut(groups);
  return { drawing: wired(d, pieces, true)!, pieces };
}

function spreadOut(groups: readonly Group[]): Piece[] {
  let x = 0;
  return groups.map((g) => {
    const p = g.ways[0]!;
    const l = Math.min(...p.solid.map((b) => b[0]));
    const r = Math.max(...p.solid.map((b) => b[2]));
    const made = moved(p, [Math.round(x - l) + 20, 0]);
    x += r - l + 40;
    return made;
  });
}
