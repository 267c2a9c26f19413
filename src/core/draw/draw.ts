import { Annealer, type Placement } from './anneal';
import { type Group, groupsOf } from './groups';
import { joined, type Piece, piece, type PlacedFlag, type PlacedLabel, type PlacedSymbol, shifted } from './pieces';
import type { Drawable } from './request';
import { Router, type RouteNet } from './route';
import { type Box, flagBox, overlap, type Point, type Rotation } from './symbols';

/** A schematic as geometry on a grid, y downwards. */
export interface Drawing {
  readonly box: Box;
  readonly symbols: readonly (Omit<PlacedSymbol, 'part'> & { readonly ref: string; readonly kind: string })[];
  readonly wires: readonly { readonly net: string; readonly points: readonly Point[] }[];
  readonly junctions: readonly Point[];
  readonly flags: readonly {
    readonly kind: 'ground' | 'supply' | 'link';
    readonly net: string;
    readonly x: number;
    readonly y: number;
    readonly dir: string;
    readonly box: Box;
  }[];
  readonly labels: readonly { readonly what: 'ref' | 'value'; readonly ref: string; readonly text: string; readonly box: Box }[];
  /** Boards of a kit with several, drawn side by side. */
  readonly frames?: readonly { readonly title: string; readonly box: Box }[];
}

/** How much is tried: moves of the annealing by the number of groups (own choice; two seconds for 150 parts). */
const MOVES = { base: 24_000, each: 2_200, most: 1_100_000 };
const STRETCH = 1.18;
const MOST_STRETCHES = 9;

/** Draws a circuit in the trade's symbols. The same request gives the same drawing. */
export const draw = (d: Drawable): Drawing => layout(d).drawing;

/** A drawing with the groups that it was made of, each in its place: what a hand moves is moved in it. */
export interface Layout {
  readonly drawing: Drawing;
  readonly pieces: readonly Piece[];
}

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

/** Whether a symbol or flag lies on another. */
function overlaps(drawing: Drawing): boolean {
  const boxes = [...drawing.symbols, ...drawing.flags].map((s) => s.box);
  return boxes.some((a, i) => boxes.slice(i + 1).some((b) => overlap(a, b)));
}
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

const moved = (p: Piece, by: Point): Piece => {
  const at = ([x, y]: Point): Point => [x + by[0], y + by[1]];
  return {
    symbols: p.symbols.map((s) => ({
      ...s,
      x: s.x + by[0],
      y: s.y + by[1],
      box: shifted(s.box, by),
      pins: Object.fromEntries(Object.entries(s.pins).map(([n, q]) => [n, at(q)])),
    })),
    flags: p.flags.map((f) => ({ ...f, at: at(f.at), box: shifted(f.box, by) })),
    labels: p.labels.map((l) => ({ ...l, box: shifted(l.box, by) })),
    wires: p.wires.map((w) => ({ ...w, points: w.points.map(at) })),
    terminals: p.terminals.map((t) => ({ ...t, at: at(t.at) })),
    solid: p.solid.map((b) => shifted(b, by)),
    dislike: p.dislike,
  };
};

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

/** One symbol by itself at a place. A chip stands one way only. */
function standing(d: Drawable, part: number, { x, y, rotation, mirror, form }: Pick<PlacedSymbol, 'x' | 'y' | 'rotation' | 'mirror' | 'form'>): Piece {
  if (d.parts[part]!.kind === 'chip') return moved(piece(d, part), [x, y]);
  return piece(d, part, { x, y, rotation, mirror, ...(form ? { form } : {}) });
}

/** How far a free place is looked for. */
const REACH = 60;

/** A piece where it is, or at the nearest place where it lies on none of the others. */
function freeOf(p: Piece, others: readonly Piece[]): Piece {
  const solid = others.flatMap(wholeOf);
  const mine = wholeOf(p);
  const free = (dx: number, dy: number) => !mine.some((box) => solid.some((o) => overlap(shifted(box, [dx, dy]), o)));
  for (let ring = 0; ring <= REACH; ring++)
    for (let dx = -ring; dx <= ring; dx++)
      for (const dy of ring === Math.abs(dx) ? [0] : [Math.abs(dx) - ring, ring - Math.abs(dx)]) if (free(dx, dy)) return moved(p, [dx, dy]);
  return p;
}

/** All that a piece keeps free: its boxes, and its short wires a little wide. */
const wholeOf = (p: Piece): Box[] => [
  ...p.solid,
  ...p.wires.map(({ points }): Box => [
    Math.min(...points.map((q) => q[0])) - 0.4,
    Math.min(...points.map((q) => q[1])) - 0.4,
    Math.max(...points.map((q) => q[0])) + 0.4,
    Math.max(...points.map((q) => q[1])) + 0.4,
  ]),
  ...p.terminals.map((t): Box => [t.at[0] - 0.3, t.at[1] - 0.3, t.at[0] + 0.3, t.at[1] + 0.3]),
];

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

/** Leads the wires; null when a net found no way and may not be named instead. */
function wired(d: Drawable, pieces: readonly Piece[], mayLink: boolean): Drawing | null {
  const whole = joined(pieces);
  const name = (net: string) => d.written.get(net) ?? net;
  const key = new Map([...d.written].map(([k, v]) => [v, k]));
  const solid = [...whole.symbols.map((s) => s.box), ...whole.flags.map((f) => f.box)];
  const points = [
    ...whole.symbols.flatMap((s) => Object.entries(s.pins).map(([pin, at]) => ({ net: d.parts[s.part]!.net[pin]!, at }))),
    ...whole.flags.map((f) => ({ net: key.get(f.net) ?? f.net, at: f.at })),
  ];
  const ends = new Map<string, { at: Point; dir: 'up' | 'down' | 'left' | 'right' }[]>();
  for (const t of whole.terminals) ends.set(t.net, [...(ends.get(t.net) ?? []), { at: t.at, dir: t.dir }]);
  const nets: RouteNet[] = [...ends].filter(([, e]) => e.length > 1).map(([net, e]) => ({ net, ends: e }));
  const router = new Router(
    solid,
    whole.labels.map((l) => l.box),
    points,
    whole.wires.flatMap((w) => w.points),
  );
  router.boxes = solid;
  for (const w of whole.wires) router.fix(key.get(w.net) ?? w.net, w.points);
  const { wires, failed } = router.route(nets);
  if (failed.length > 0 && !mayLink) return null;
  const flags: Drawing['flags'][number][] = whole.flags.map((f: PlacedFlag) => ({ kind: f.kind, net: f.net, x: f.at[0], y: f.at[1], dir: f.dir, box: f.box }));
  for (const net of failed) {
    for (const e of ends.get(net)!) {
      const box = flagBox('link', name(net), e.at, e.dir);
      flags.push({ kind: 'link', net: name(net), x: e.at[0], y: e.at[1], dir: e.dir, box });
    }
  }
  const all = [...whole.wires, ...wires.map((w) => ({ net: name(w.net), points: w.points }))];
  const frames = d.boards.length > 1 ? framesOf(d, pieces) : null;
  const drawn: Box[] = [
    ...solid,
    ...flags.map((f) => f.box),
    ...whole.labels.map((l) => l.box),
    ...all.flatMap((w) => w.points.map(([x, y]): Box => [x, y, x, y])),
    ...(frames ?? []).map((f) => f.box),
  ];
  return {
    box: [
      Math.floor(Math.min(...drawn.map((b) => b[0]))),
      Math.floor(Math.min(...drawn.map((b) => b[1]))),
      Math.ceil(Math.max(...drawn.map((b) => b[2]))),
      Math.ceil(Math.max(...drawn.map((b) => b[3]))),
    ],
    symbols: whole.symbols.map(({ part, ...s }) => ({ ref: d.parts[part]!.ref, kind: d.parts[part]!.kind, ...s })),
    wires: all,
    junctions: junctionsOf(
      all,
      points.map((p) => p.at),
      failed.length > 0 ? flags.filter((f) => f.kind === 'link').map((f): Point => [f.x, f.y]) : [],
    ),
    flags,
    labels: whole.labels.map((l: PlacedLabel) => ({ what: l.what, ref: d.parts[l.part]!.ref, text: l.text, box: l.box })),
    ...(frames ? { frames } : {}),
  };
}

/** Room between a board's parts and its frame; above them stands its name. */
const FRAME = 1.5;
const TITLE = 3;

/** Each board's frame round its parts; a board of which nothing is drawn has none. */
const framesOf = (d: Drawable, pieces: readonly Piece[]) =>
  d.boards.flatMap(({ title, parts }) => {
    const solid = pieces.filter((p) => p.symbols.some((s) => parts.has(s.part))).flatMap((p) => p.solid);
    if (solid.length === 0) return [];
    const box: Box = [
      Math.min(...solid.map((b) => b[0])) - FRAME,
      Math.min(...solid.map((b) => b[1])) - TITLE,
      Math.max(...solid.map((b) => b[2])) + FRAME,
      Math.max(...solid.map((b) => b[3])) + FRAME,
    ];
    return [{ title, box }];
  });

/** Dots where three or more branches meet. Four wires of two nets cross; those of one net are joined. */
function junctionsOf(wires: readonly { readonly net: string; readonly points: readonly Point[] }[], pins: readonly Point[], links: readonly Point[]): Point[] {
  const at = new Map<string, { point: Point; dirs: number; others: number; nets: Set<string> }>();
  const of = (x: number, y: number) => {
    const k = `${x},${y}`;
    const known = at.get(k) ?? { point: [x, y] as Point, dirs: 0, others: 0, nets: new Set<string>() };
    at.set(k, known);
    return known;
  };
  for (const { net, points } of wires)
    for (let i = 1; i < points.length; i++) {
      let [x, y] = points[i - 1]!;
      const [tx, ty] = points[i]!;
      const [dx, dy] = [Math.sign(tx - x), Math.sign(ty - y)];
      const d = dx > 0 ? 0 : dy > 0 ? 1 : dx < 0 ? 2 : 3;
      while (x !== tx || y !== ty) {
        const here = of(x, y);
        here.dirs |= 1 << d;
        here.nets.add(net);
        x += dx;
        y += dy;
        const there = of(x, y);
        there.dirs |= 1 << ((d + 2) % 4);
        there.nets.add(net);
      }
    }
  for (const [x, y] of [...pins, ...links]) of(x, y).others++;
  const bits = (n: number) => (n & 1) + ((n >> 1) & 1) + ((n >> 2) & 1) + ((n >> 3) & 1);
  return [...at.values()].filter((p) => bits(p.dirs) + p.others >= 3 && p.nets.size < 2).map((p) => p.point);
}
