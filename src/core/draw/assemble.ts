import { joined, type Piece, piece, type PlacedFlag, type PlacedLabel, type PlacedSymbol, shifted } from './pieces';
import type { Drawable } from './request';
import { Router, type RouteNet } from './route';
import { type Box, flagBox, overlap, type Point } from './symbols';

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

/** A drawing with the groups that it was made of, each in its place: what a hand moves is moved in it. */
export interface Layout {
  readonly drawing: Drawing;
  readonly pieces: readonly Piece[];
}

/** Whether a symbol or flag lies on another. */
export function overlaps(drawing: Drawing): boolean {
  const boxes = [...drawing.symbols, ...drawing.flags].map((s) => s.box);
  return boxes.some((a, i) => boxes.slice(i + 1).some((b) => overlap(a, b)));
}
export const moved = (p: Piece, by: Point): Piece => {
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

/** One symbol by itself at a place. A chip stands one way only. */
export function standing(d: Drawable, part: number, { x, y, rotation, mirror, form }: Pick<PlacedSymbol, 'x' | 'y' | 'rotation' | 'mirror' | 'form'>): Piece {
  if (d.parts[part]!.kind === 'chip') return moved(piece(d, part), [x, y]);
  return piece(d, part, { x, y, rotation, mirror, ...(form ? { form } : {}) });
}

/** How far a free place is looked for. */
const REACH = 60;

/** A piece where it is, or at the nearest place where it lies on none of the others. */
export function freeOf(p: Piece, others: readonly Piece[]): Piece {
  const solid = others.flatMap(wholeOf);
  const mine = wholeOf(p);
  const free = (dx: number, dy: number) => !mine.some((box) => solid.some((o) => overlap(shifted(box, [dx, dy]), o)));
  for (let ring = 0; ring <= REACH; ring++)
    for (let dx = -ring; dx <= ring; dx++)
      for (const dy of ring === Math.abs(dx) ? [0] : [Math.abs(dx) - ring, ring - Math.abs(dx)]) if (free(dx, dy)) return moved(p, [dx, dy]);
  return p;
}

/** All that a piece keeps free: its boxes, and its short wires a little wide. */
export const wholeOf = (p: Piece): Box[] => [
  ...p.solid,
  ...p.wires.map(({ points }): Box => [
    Math.min(...points.map((q) => q[0])) - 0.4,
    Math.min(...points.map((q) => q[1])) - 0.4,
    Math.max(...points.map((q) => q[0])) + 0.4,
    Math.max(...points.map((q) => q[1])) + 0.4,
  ]),
  ...p.terminals.map((t): Box => [t.at[0] - 0.3, t.at[1] - 0.3, t.at[0] + 0.3, t.at[1] + 0.3]),
];

/** Leads the wires; null when a net found no way and may not be named instead. */
export function wired(d: Drawable, pieces: readonly Piece[], mayLink: boolean): Drawing | null {
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
