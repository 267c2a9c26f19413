import type { Box, Direction, Point } from './symbols';

/** A wire's end: where it begins, and which way it leaves. */
export interface RouteEnd {
  readonly at: Point;
  readonly dir: Direction;
}
export interface RouteNet {
  readonly net: string;
  readonly ends: readonly RouteEnd[];
}

/** Bits of the four directions: right, down, left, up. */
const DX = [1, 0, -1, 0] as const;
const DY = [0, 1, 0, -1] as const;
const DIR: Readonly<Record<Direction, number>> = { right: 0, down: 1, left: 2, up: 3 };
const COST = { step: 1, bend: 2.6, crossing: 7, hug: 0.6, joint: 0 };
const MARGIN = 10;

/** Routes nets one after the other on the grid: short, few bends, few crossings; what stands in the way is ripped up and led anew. */
export class Router {
  private readonly left: number;
  private readonly top: number;
  private readonly wide: number;
  private readonly high: number;
  /** Inside of symbols, flags and labels. */
  private readonly blocked: Uint8Array;
  /** Beside a symbol's edge: allowed, not liked. */
  private readonly edge: Uint8Array;
  /** Net of a pin or of a flag's point, from 1. */
  private readonly pinNet: Int32Array;
  /** Net and directions of what runs through a point; a crossing has two. */
  private readonly net: Int32Array;
  private readonly dirs: Uint8Array;
  private readonly second: Int32Array;
  /** Of a search: cost and way back by place and direction, valid where `seen` bears its number. */
  private readonly best: Float64Array;
  private readonly from: Int32Array;
  private readonly seen: Int32Array;
  private generation = 0;
  private readonly ids = new Map<string, number>();
  private readonly names: string[] = [''];
  private readonly paths: Point[][][] = [];

  constructor(solid: readonly Box[], labels: readonly Box[], points: readonly { readonly net: string; readonly at: Point }[], extra: readonly Point[]) {
    const xs = [...solid.flatMap((b) => [b[0], b[2]]), ...extra.map((p) => p[0])];
    const ys = [...solid.flatMap((b) => [b[1], b[3]]), ...extra.map((p) => p[1])];
    this.left = Math.floor(Math.min(...xs)) - MARGIN;
    this.top = Math.floor(Math.min(...ys)) - MARGIN;
    this.wide = Math.ceil(Math.max(...xs)) + MARGIN - this.left + 1;
    this.high = Math.ceil(Math.max(...ys)) + MARGIN - this.top + 1;
    const cells = this.wide * this.high;
    this.blocked = new Uint8Array(cells);
    this.edge = new Uint8Array(cells);
    this.pinNet = new Int32Array(cells);
    this.net = new Int32Array(cells);
    this.dirs = new Uint8Array(cells);
    this.second = new Int32Array(cells);
    this.best = new Float64Array(4 * cells);
    this.from = new Int32Array(4 * cells);
    this.seen = new Int32Array(4 * cells);
    for (const [l, t, r, b] of solid)
      for (let y = t; y <= b; y++)
        for (let x = l; x <= r; x++) {
          if (x > l && x < r && y > t && y < b) this.blocked[this.cell(x, y)] = 1;
          else this.edge[this.cell(x, y)] = 1;
        }
    for (const [l, t, r, b] of labels)
      for (let y = Math.ceil(t + 0.05); y <= Math.floor(b - 0.05); y++)
        for (let x = Math.ceil(l + 0.05); x <= Math.floor(r - 0.05); x++) this.blocked[this.cell(x, y)] = 1;
    this.labels = labels;
    for (const { net, at } of points) this.pinNet[this.cell(at[0], at[1])] = this.id(net);
  }
  private readonly labels: readonly Box[];

  private cell = (x: number, y: number) => (y - this.top) * this.wide + (x - this.left);
  private id(net: string): number {
    const known = this.ids.get(net);
    if (known !== undefined) return known;
    this.names.push(net);
    this.ids.set(net, this.names.length - 1);
    return this.names.length - 1;
  }

  /** A wire that is there already. */
  fix(net: string, points: readonly Point[]): void {
    this.mark(this.id(net), points);
  }

  private mark(id: number, points: readonly Point[]): void {
    for (let i = 1; i < points.length; i++) {
      let [x, y] = points[i - 1]!;
      const [tx, ty] = points[i]!;
      const d = tx > x ? 0 : ty > y ? 1 : tx < x ? 2 : 3;
      while (x !== tx || y !== ty) {
        this.touch(this.cell(x, y), id, d);
        x += DX[d];
        y += DY[d];
        this.touch(this.cell(x, y), id, (d + 2) % 4);
      }
    }
  }

  private touch(cell: number, id: number, d: number): void {
    if (this.net[cell] === 0 || this.net[cell] === id) {
      this.net[cell] = id;
      this.dirs[cell]! |= 1 << d;
    } else this.second[cell] = id;
  }

  /** Routes all nets; the names of those that found no way. */
  route(nets: readonly RouteNet[]): { readonly wires: { net: string; points: Point[] }[]; readonly failed: readonly string[] } {
    const spread = (n: RouteNet) => {
      const xs = n.ends.map((e) => e.at[0]);
      const ys = n.ends.map((e) => e.at[1]);
      return Math.max(...xs) - Math.min(...xs) + Math.max(...ys) - Math.min(...ys);
    };
    let order = [...nets].sort((a, b) => spread(a) - spread(b) || (a.net < b.net ? -1 : 1));
    let best: { wires: { net: string; points: Point[] }[]; failed: string[]; cost: number } | null = null;
    const rounds = roundsOf(nets.length);
    const fixedNet = this.net.slice();
    const fixedDirs = this.dirs.slice();
    for (let round = 0; round < rounds.most; round++) {
      this.net.set(fixedNet);
      this.dirs.set(fixedDirs);
      this.second.fill(0);
      const wires: { net: string; points: Point[] }[] = [];
      const failed: string[] = [];
      let cost = 0;
      const costs = new Map<string, number>();
      for (const n of order) {
        const found = this.routeNet(n);
        if (found === null) failed.push(n.net);
        else {
          cost += found.cost;
          costs.set(n.net, found.cost / Math.max(4, spread(n)));
          for (const points of found.paths) wires.push({ net: n.net, points });
        }
      }
      cost += failed.length * 1000;
      if (best === null || cost < best.cost) best = { wires, failed, cost };
      // What failed goes first next time, then what had to go round most.
      const rank = (n: RouteNet) =>
        failed.includes(n.net) ? -1e6 - round : -(costs.get(n.net) ?? 0) * (round % 2 === 0 ? 1 : 0.5) + spread(n) * 0.02 * (round % 3);
      order = [...order].sort((a, b) => rank(a) - rank(b));
      if (round >= rounds.least && best.failed.length === 0) break;
    }
    return best!;
  }

  private routeNet(n: RouteNet): { paths: Point[][]; cost: number } | null {
    const id = this.id(n.net);
    const paths: Point[][] = [];
    let cost = 0;
    const left = [...n.ends];
    const begin = left.shift()!;
    const tree = new Set<number>([this.cell(begin.at[0], begin.at[1])]);
    const pinsDone = [begin];
    const box = [begin.at[0], begin.at[1], begin.at[0], begin.at[1]];
    while (left.length > 0) {
      // The nearest pin that is not joined yet.
      left.sort((a, b) => nearest(a, pinsDone) - nearest(b, pinsDone));
      const end = left.shift()!;
      const at = this.cell(end.at[0], end.at[1]);
      if (tree.has(at)) {
        pinsDone.push(end);
        continue;
      }
      const found = this.search(id, end, tree, [box[0]!, box[1]!, box[2]!, box[3]!]);
      if (!found) {
        for (const p of paths) this.unmark(id, p);
        return null;
      }
      cost += found.cost;
      paths.push(found.points);
      for (const [x, y] of found.points) {
        box[0] = Math.min(box[0]!, x);
        box[1] = Math.min(box[1]!, y);
        box[2] = Math.max(box[2]!, x);
        box[3] = Math.max(box[3]!, y);
      }
      this.mark(id, found.points);
      for (let i = 1; i < found.points.length; i++) {
        let [x, y] = found.points[i - 1]!;
        const [tx, ty] = found.points[i]!;
        tree.add(this.cell(x, y));
        while (x !== tx || y !== ty) {
          x += Math.sign(tx - x);
          y += Math.sign(ty - y);
          tree.add(this.cell(x, y));
        }
      }
      pinsDone.push(end);
    }
    return { paths, cost };
  }

  /** Only after a failure within a net: its earlier paths give their places back. */
  private unmark(id: number, points: readonly Point[]): void {
    for (let i = 1; i < points.length; i++) {
      let [x, y] = points[i - 1]!;
      const [tx, ty] = points[i]!;
      for (;;) {
        const c = this.cell(x, y);
        if (this.second[c] === id) this.second[c] = 0;
        else if (this.net[c] === id && this.second[c] === 0) {
          this.net[c] = 0;
          this.dirs[c] = 0;
        }
        if (x === tx && y === ty) break;
        x += Math.sign(tx - x);
        y += Math.sign(ty - y);
      }
    }
  }

  /** Way from a pin to what is joined already: A* over places and directions. */
  private search(id: number, end: RouteEnd, tree: ReadonlySet<number>, box: Box): { points: Point[]; cost: number } | null {
    const { wide, high } = this;
    const { best, from } = this;
    const mark = ++this.generation;
    const seen = this.seen;
    const known = (state: number) => (seen[state] === mark ? best[state]! : Infinity);
    const heap = new Heap();
    // At least the way to the box round what is joined already.
    const [bl, bt, br, bb] = box;
    const guess = (x: number, y: number) => (x < bl ? bl - x : x > br ? x - br : 0) + (y < bt ? bt - y : y > bb ? y - bb : 0);
    const start = this.cell(end.at[0], end.at[1]);
    for (let d = 0; d < 4; d++) {
      // Leaving sideways along the symbol's edge is allowed and costs a bend.
      const c = d === DIR[end.dir] ? 0 : d === (DIR[end.dir] + 2) % 4 ? 8 : COST.bend;
      best[start * 4 + d] = c;
      from[start * 4 + d] = -1;
      seen[start * 4 + d] = mark;
      heap.push(c + guess(end.at[0], end.at[1]), start * 4 + d);
    }
    for (;;) {
      const state = heap.pop();
      if (state < 0) return null;
      const cell = state >> 2;
      const d = state & 3;
      const here = best[state]!;
      if (cell !== start && tree.has(cell)) return { points: this.trace(from, state), cost: here };
      const x = (cell % wide) + this.left;
      const y = Math.floor(cell / wide) + this.top;
      // A wire that is crossed must be left straight on.
      const crossing = cell !== start && this.net[cell] !== 0 && this.net[cell] !== id;
      for (let turn = 0; turn < 4; turn++) {
        if (turn === (d + 2) % 4 && cell !== start) continue;
        if (crossing && turn !== d) continue;
        if (cell === start && turn !== d) continue;
        const nx = x + DX[turn]!;
        const ny = y + DY[turn]!;
        if (nx <= this.left || ny <= this.top || nx >= this.left + wide - 1 || ny >= this.top + high - 1) continue;
        const next = this.cell(nx, ny);
        if (this.blocked[next] === 1) continue;
        if (this.edge[cell] === 1 && this.edge[next] === 1 && this.insideBetween(x, y, nx, ny)) continue;
        if (this.pinNet[next] !== 0 && this.pinNet[next] !== id) continue;
        let step = COST.step + (turn === d ? 0 : COST.bend);
        const other = this.net[next]!;
        if (other !== 0 && other !== id) {
          // Only straight across a straight wire.
          const straight = turn % 2 === 0 ? 10 : 5;
          if (this.dirs[next] !== straight || this.second[next] !== 0 || this.pinNet[next] !== 0) continue;
          step += COST.crossing;
        } else if (other === id && !tree.has(next)) continue;
        if (this.edge[next] === 1 && this.pinNet[next] === 0) step += COST.hug * 3;
        else if (this.pinNet[next] === 0) {
          if (this.net[this.cell(nx + DX[(turn + 1) % 4]!, ny + DY[(turn + 1) % 4]!)] !== 0) step += COST.hug * 0.3;
        }
        const state2 = next * 4 + turn;
        const total = here + step;
        if (total < known(state2) - 1e-9) {
          best[state2] = total;
          seen[state2] = mark;
          from[state2] = state;
          heap.push(total + guess(nx, ny), state2);
        }
      }
    }
  }

  /** Whether the step between two edge points runs through a box (between boxes that share an edge it does not), or through a label. */
  private insideBetween(x: number, y: number, nx: number, ny: number): boolean {
    const [mx, my] = [(x + nx) / 2, (y + ny) / 2];
    return this.boxes.some(([l, t, r, b]) => mx > l && mx < r && my > t && my < b);
  }
  boxes: readonly Box[] = [];

  private trace(from: Int32Array, end: number): Point[] {
    const points: Point[] = [];
    let state = end;
    let last = -1;
    for (;;) {
      const cell = state >> 2;
      const point: Point = [(cell % this.wide) + this.left, Math.floor(cell / this.wide) + this.top];
      const before = from[state]!;
      const d = state & 3;
      if (last < 0 || d !== last || before < 0) points.push(point);
      last = d;
      if (before < 0) break;
      state = before;
    }
    return tidy(points.reverse());
  }
}

/** Rounds by the number of nets: few for large circuits. */
const roundsOf = (nets: number) => (nets > 60 ? { least: 0, most: 3 } : nets > 25 ? { least: 1, most: 4 } : { least: 2, most: 8 });

const nearest = (e: RouteEnd, done: readonly RouteEnd[]) => Math.min(...done.map((d) => Math.abs(d.at[0] - e.at[0]) + Math.abs(d.at[1] - e.at[1])));

/** Points where a polyline turns, and its ends. */
function tidy(points: readonly Point[]): Point[] {
  return points.filter((p, i) => {
    if (i === 0 || i === points.length - 1) return true;
    const [a, b] = [points[i - 1]!, points[i + 1]!];
    return !((a[0] === p[0] && p[0] === b[0]) || (a[1] === p[1] && p[1] === b[1]));
  });
}

/** A binary heap of numbers by their key. */
class Heap {
  private readonly keys: number[] = [];
  private readonly values: number[] = [];
  push(key: number, value: number): void {
    let i = this.keys.length;
    this.keys.push(key);
    this.values.push(value);
    while (i > 0) {
      const up = (i - 1) >> 1;
      if (this.keys[up]! <= key) break;
      this.keys[i] = this.keys[up]!;
      this.values[i] = this.values[up]!;
      i = up;
    }
    this.keys[i] = key;
    this.values[i] = value;
  }
  pop(): number {
    if (this.keys.length === 0) return -1;
    const top = this.values[0]!;
    const key = this.keys.pop()!;
    const value = this.values.pop()!;
    const n = this.keys.length;
    if (n > 0) {
      let i = 0;
      for (;;) {
        let child = 2 * i + 1;
        if (child >= n) break;
        if (child + 1 < n && this.keys[child + 1]! < this.keys[child]!) child++;
        if (this.keys[child]! >= key) break;
        this.keys[i] = this.keys[child]!;
        this.values[i] = this.values[child]!;
        i = child;
      }
      this.keys[i] = key;
      this.values[i] = value;
    }
    return top;
  }
}
