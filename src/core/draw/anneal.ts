import type { Group } from './groups';
import { ACTIVE, type Piece, STEP } from './pieces';
import type { Drawable } from './request';
import type { Box, Point } from './symbols';

/** Where each group lies, and which way round. */
export interface Placement {
  readonly x: Int32Array;
  readonly y: Int32Array;
  readonly way: Int32Array;
}

/** Costs in units of a grid step of wire (own choices, tuned on public circuits). */
const COST = { overlap: 14, near: 1.6, bend: 2.2, away: 3, cross: 9, order: 3, edge: 0.25, area: 0.7, through: 4 };
/** Free room round a solid box, for a wire on each side. */
const ROOM = 1;

/** Reproducible numbers from 0 to 1 (xorshift; the same drawing for the same circuit). */
function randoms(seed: number): () => number {
  let s = seed | 0 || 1;
  return () => {
    s ^= s << 13;
    s ^= s >>> 17;
    s ^= s << 5;
    return (s >>> 0) / 4294967296;
  };
}

/** A net with its present tree: edges as four numbers each, and the box round them. */
interface Net {
  readonly name: string;
  readonly pins: Pin[];
  cost: number;
  segments: number[];
  bounds: Float64Array;
}

interface Pin {
  readonly group: number;
  readonly index: number;
}

/** Rules of order: what must lie to the left of what. */
interface Order {
  readonly left: Pin;
  readonly right: Pin;
}

/** Finds places by simulated annealing: wires short and straight, little crossing, signal from left to right, nothing on anything. */
export class Annealer {
  readonly x: Int32Array;
  readonly y: Int32Array;
  readonly way: Int32Array;
  private readonly nets: Net[] = [];
  private readonly netsOf: number[][];
  private readonly inputs: readonly number[];
  private readonly outputs: readonly number[];
  private readonly orders: readonly Order[];
  private readonly random: () => number;
  private readonly bounds: readonly (readonly Box[])[][];

  constructor(
    private readonly d: Drawable,
    private readonly groups: readonly Group[],
    seed: number,
  ) {
    const n = groups.length;
    this.x = new Int32Array(n);
    this.y = new Int32Array(n);
    this.way = new Int32Array(n);
    this.random = randoms(seed);
    const byNet = new Map<string, Pin[]>();
    groups.forEach((g, group) =>
      g.ways[0]!.terminals.forEach((t, index) => {
        byNet.set(t.net, [...(byNet.get(t.net) ?? []), { group, index }]);
      }),
    );
    for (const [name, pins] of byNet) if (pins.length > 1) this.nets.push({ name, pins, cost: 0, segments: [], bounds: new Float64Array(4) });
    this.inputs = this.nets.flatMap((net, k) => (d.inputs.includes(net.name) ? [k] : []));
    this.outputs = this.nets.flatMap((net, k) => (d.outputs.includes(net.name) ? [k] : []));
    this.netsOf = groups.map((_, g) => this.nets.flatMap((net, k) => (net.pins.some((p) => p.group === g) ? [k] : [])));
    this.bounds = groups.map((g) => g.ways.map(hull));
    this.orders = this.flow();
    this.start();
  }

  private piece = (g: number): Piece => this.groups[g]!.ways[this.way[g]!]!;

  /** Steps from the inputs decide the column, so that the signal goes to the right from the start. */
  private start(): void {
    const steps = stepsOf(this.d);
    const column = (g: number) => {
      const own = this.groups[g]!.parts.flatMap((p) => Object.values(this.d.parts[p]!.net).flatMap((net) => steps.get(net) ?? []));
      return own.length === 0 ? 0 : own.reduce((a, b) => a + b, 0) / own.length;
    };
    const order = this.groups.map((_, g) => g).sort((a, b) => column(a) - column(b) || a - b);
    const rows = Math.max(2, Math.round(Math.sqrt(this.groups.length / this.d.aspect)));
    let x = 0;
    for (let i = 0; i < order.length; i += rows) {
      let y = 0;
      let wide = 0;
      for (const g of order.slice(i, i + rows)) {
        const [l, t, r, b] = this.bounds[g]![0]![0]!;
        this.x[g] = Math.round(x - l);
        this.y[g] = Math.round(y - t);
        y += b - t + 4;
        wide = Math.max(wide, r - l);
      }
      x += wide + 4;
    }
  }

  /** Control pins left of the others, stages left of what they drive. */
  private flow(): Order[] {
    const steps = stepsOf(this.d);
    const pinOf = (part: number, pin: string): Pin | null => {
      for (let group = 0; group < this.groups.length; group++) {
        const index = this.groups[group]!.ways[0]!.terminals.findIndex((t) => t.part === part && t.pin === pin);
        if (index >= 0) return { group, index };
      }
      return null;
    };
    const found: Order[] = [];
    const stages = this.d.parts.flatMap((p, i) => {
      const control = p.kind === 'opamp' ? ['IN+', 'IN-'] : ACTIVE[p.kind] ? [ACTIVE[p.kind]!.control] : [];
      if (control.length === 0) return [];
      const main = p.kind === 'opamp' ? ['OUT'] : [ACTIVE[p.kind]!.up, ACTIVE[p.kind]!.low];
      return [{ i, control, main, steps: Math.min(...control.map((c) => steps.get(p.net[c]!) ?? Infinity)) }];
    });
    for (const a of stages)
      for (const b of stages) {
        if (a === b || !(b.steps > a.steps)) continue;
        const drives = a.main.find((m) => {
          const net = this.d.parts[a.i]!.net[m]!;
          return !this.d.rails.has(net) && b.control.some((c) => reaches(this.d, net, this.d.parts[b.i]!.net[c]!));
        });
        if (drives === undefined) continue;
        const left = pinOf(a.i, drives);
        const right = b.control.map((c) => pinOf(b.i, c)).find((x) => x !== null) ?? null;
        if (left && right && left.group !== right.group) found.push({ left, right });
      }
    this.d.parts.forEach((p, i) => {
      if (p.kind !== 'regulator') return;
      const [left, right] = [pinOf(i, 'IN'), pinOf(i, 'OUT')];
      if (left && right) found.push({ left, right });
    });
    return found;
  }

  private at(p: Pin): Point {
    const t = this.piece(p.group).terminals[p.index]!.at;
    return [t[0] + this.x[p.group]!, t[1] + this.y[p.group]!];
  }

  /** Cost of a net: a tree over its pins, with a guess at bends; its edges are kept for the crossings. */
  private netCost(k: number): number {
    const net = this.nets[k]!;
    const n = net.pins.length;
    const { px, py, dx, dy, done, best, from } = scratch(n);
    const bounds = new Float64Array([Infinity, Infinity, -Infinity, -Infinity]);
    for (let i = 0; i < n; i++) {
      const p = net.pins[i]!;
      const t = this.piece(p.group).terminals[p.index]!;
      px[i] = t.at[0] + this.x[p.group]!;
      py[i] = t.at[1] + this.y[p.group]!;
      const step = STEP[t.dir];
      dx[i] = step[0];
      dy[i] = step[1];
      if (px[i]! < bounds[0]!) bounds[0] = px[i]!;
      if (py[i]! < bounds[1]!) bounds[1] = py[i]!;
      if (px[i]! > bounds[2]!) bounds[2] = px[i]!;
      if (py[i]! > bounds[3]!) bounds[3] = py[i]!;
      done[i] = 0;
      best[i] = Infinity;
    }
    let at = 0;
    done[0] = 1;
    let cost = 0;
    const segments: number[] = [];
    for (let step = 1; step < n; step++) {
      for (let j = 0; j < n; j++) {
        if (done[j]) continue;
        const dist = Math.abs(px[at]! - px[j]!) + Math.abs(py[at]! - py[j]!);
        if (dist < best[j]!) {
          best[j] = dist;
          from[j] = at;
        }
      }
      let next = -1;
      for (let j = 0; j < n; j++) if (!done[j] && (next < 0 || best[j]! < best[next]!)) next = j;
      const f = from[next]!;
      const ex = px[next]! - px[f]!;
      const ey = py[next]! - py[f]!;
      cost += Math.abs(ex) + Math.abs(ey);
      if (ex !== 0 && ey !== 0) cost += COST.bend;
      // A pin that looks the other way wants a detour.
      if (dx[f]! * ex + dy[f]! * ey < 0) cost += COST.away;
      if (dx[next]! * -ex + dy[next]! * -ey < 0) cost += COST.away;
      if (ex === 0 && dy[f] === 0 && ey !== 0) cost += COST.bend / 2;
      if (ey === 0 && dx[f] === 0 && ex !== 0) cost += COST.bend / 2;
      segments.push(px[f]!, py[f]!, px[next]!, py[next]!);
      done[next] = 1;
      at = next;
    }
    net.segments = segments;
    net.bounds = bounds;
    return cost;
  }

  /** Inputs at the left, outputs at the right. */
  private terminalsCost(l: number, r: number): number {
    let cost = 0;
    for (const k of this.inputs) cost += COST.edge * 4 * (this.nets[k]!.bounds[0]! - l);
    for (const k of this.outputs) cost += COST.edge * 4 * (r - this.nets[k]!.bounds[2]!);
    return cost;
  }

  private orderCost(): number {
    let cost = 0;
    for (const o of this.orders) {
      const gap = this.at(o.right)[0] - this.at(o.left)[0];
      if (gap < 2) cost += COST.order * (3 + Math.min(30, 2 - gap));
    }
    return cost;
  }

  private overlapCost(g: number, only: number | null = null): number {
    const mine = this.bounds[g]![this.way[g]!]!;
    const hull = mine[0]!;
    const gx = this.x[g]!;
    const gy = this.y[g]!;
    let cost = 0;
    for (let o = 0; o < this.groups.length; o++) {
      if (o === g || (only !== null && o !== only)) continue;
      const theirs = this.bounds[o]![this.way[o]!]!;
      const other = theirs[0]!;
      const ox = this.x[o]! - gx;
      const oy = this.y[o]! - gy;
      if (hull[2] + ROOM <= other[0] + ox || other[2] + ox + ROOM <= hull[0] || hull[3] + ROOM <= other[1] + oy || other[3] + oy + ROOM <= hull[1]) continue;
      for (let i = 1; i < mine.length; i++)
        for (let j = 1; j < theirs.length; j++) {
          const a = mine[i]!;
          const b = theirs[j]!;
          const w = Math.min(a[2], b[2] + ox) - Math.max(a[0], b[0] + ox);
          const h = Math.min(a[3], b[3] + oy) - Math.max(a[1], b[1] + oy);
          if (w > 0 && h > 0) cost += COST.overlap * (2 + Math.min(w, h));
          else if (w + ROOM > 0.01 && h + ROOM > 0.01) cost += COST.near * Math.min(w + ROOM, ROOM) * Math.min(h + ROOM, ROOM);
        }
    }
    return cost;
  }

  private crossCost(k: number): number {
    const mine = this.nets[k]!.segments;
    const box = this.nets[k]!.bounds;
    let count = 0;
    for (let o = 0; o < this.nets.length; o++) {
      if (o === k) continue;
      const b = this.nets[o]!.bounds;
      if (b[0]! >= box[2]! || b[2]! <= box[0]! || b[1]! >= box[3]! || b[3]! <= box[1]!) continue;
      const theirs = this.nets[o]!.segments;
      for (let i = 0; i < mine.length; i += 4)
        for (let j = 0; j < theirs.length; j += 4)
          if (cross(mine[i]!, mine[i + 1]!, mine[i + 2]!, mine[i + 3]!, theirs[j]!, theirs[j + 1]!, theirs[j + 2]!, theirs[j + 3]!)) count++;
    }
    return COST.cross * count;
  }

  /** Wires that would have to go round a symbol. */
  private throughCost(k: number): number {
    const s = this.nets[k]!.segments;
    let cost = 0;
    for (let i = 0; i < s.length; i += 4) {
      const x0 = Math.min(s[i]!, s[i + 2]!);
      const x1 = Math.max(s[i]!, s[i + 2]!);
      const y0 = Math.min(s[i + 1]!, s[i + 3]!);
      const y1 = Math.max(s[i + 1]!, s[i + 3]!);
      if (x1 - x0 > 1 && y1 - y0 > 1) continue;
      for (let g = 0; g < this.groups.length; g++) {
        const gx = this.x[g]!;
        const gy = this.y[g]!;
        const boxes = this.bounds[g]![this.way[g]!]!;
        const hull = boxes[0]!;
        if (hull[2] + gx <= x0 || hull[0] + gx >= x1 + 0.01 || hull[3] + gy <= y0 || hull[1] + gy >= y1 + 0.01) continue;
        for (let b = 1; b < boxes.length; b++) {
          const box = boxes[b]!;
          const l = box[0];
          const t = box[1];
          const r = box[2];
          const q = box[3];
          if (r + gx > x0 + 0.1 && l + gx < x1 - 0.1 && q + gy > y0 && t + gy < y1 && y0 === y1) cost += COST.through;
          else if (q + gy > y0 + 0.1 && t + gy < y1 - 0.1 && r + gx > x0 && l + gx < x1 && x0 === x1) cost += COST.through;
        }
      }
    }
    return cost;
  }

  /** What the drawing as a whole costs: its area and shape, inputs and outputs, the order of its stages. */
  private globalCost(): number {
    let l = Infinity;
    let t = Infinity;
    let r = -Infinity;
    let b = -Infinity;
    for (let g = 0; g < this.groups.length; g++) {
      const h = this.bounds[g]![this.way[g]!]![0]!;
      l = Math.min(l, h[0] + this.x[g]!);
      t = Math.min(t, h[1] + this.y[g]!);
      r = Math.max(r, h[2] + this.x[g]!);
      b = Math.max(b, h[3] + this.y[g]!);
    }
    const w = r - l;
    const h = b - t;
    const want = this.d.aspect;
    const off = Math.max(w / h / want, (want * h) / w);
    return COST.area * (w / want + h) + 8 * Math.max(0, off - 1.5) + this.terminalsCost(l, r) + this.orderCost();
  }

  /** `share` of progress, 0 to 1; stops after so many moves. */
  run(moves: number): Placement {
    const n = this.groups.length;
    for (let k = 0; k < this.nets.length; k++) this.nets[k]!.cost = this.netCost(k);
    let global = this.globalCost();
    const span = Math.max(12, Math.sqrt(n) * 12);
    for (let move = 0; move < moves; move++) {
      const share = move / moves;
      const temperature = 26 * Math.pow(0.012, share);
      const g = Math.floor(this.random() * n);
      const before = [this.x[g]!, this.y[g]!, this.way[g]!] as const;
      const kind = this.random();
      let partner = -1;
      const ways = this.groups[g]!.ways.length;
      const reach = Math.max(1.5, span * Math.pow(1 - share, 1.6));
      if (kind < 0.12 && ways > 1) this.way[g] = (before[2] + 1 + Math.floor(this.random() * (ways - 1))) % ways;
      else if (kind < 0.2 && n > 1 && share < 0.75) {
        partner = Math.floor(this.random() * n);
        if (partner === g) continue;
      } else if (kind < 0.45 && this.netsOf[g]!.length > 0) {
        // Line a pin up with another one of its net.
        const net = this.nets[this.netsOf[g]![Math.floor(this.random() * this.netsOf[g]!.length)]!]!;
        const mine = net.pins.filter((p) => p.group === g);
        const others = net.pins.filter((p) => p.group !== g);
        if (others.length === 0) continue;
        const a = this.at(mine[Math.floor(this.random() * mine.length)]!);
        const b = this.at(others[Math.floor(this.random() * others.length)]!);
        if (this.random() < 0.5) this.x[g] = before[0] + b[0] - a[0];
        else this.y[g] = before[1] + b[1] - a[1];
        if (this.random() < 0.4) {
          if (this.x[g] !== before[0]) this.y[g] = before[1] + Math.round((this.random() - 0.5) * reach);
          else this.x[g] = before[0] + Math.round((this.random() - 0.5) * reach);
        }
      } else {
        this.x[g] = before[0] + Math.round((this.random() - 0.5) * 2 * reach);
        this.y[g] = before[1] + Math.round((this.random() - 0.5) * 2 * reach);
      }
      const after = [this.x[g]!, this.y[g]!, this.way[g]!] as const;
      if (partner < 0 && after[0] === before[0] && after[1] === before[1] && after[2] === before[2]) continue;
      const touched = partner < 0 ? this.netsOf[g]! : [...new Set([...this.netsOf[g]!, ...this.netsOf[partner]!])];
      // Old cost.
      [this.x[g], this.y[g], this.way[g]] = before;
      const pb = partner < 0 ? null : ([this.x[partner]!, this.y[partner]!] as const);
      let old = this.overlapCost(g) + this.groups[g]!.ways[before[2]]!.dislike + (partner < 0 ? 0 : this.overlapCost(partner));
      for (const k of touched) old += this.nets[k]!.cost + this.crossCost(k) + this.throughCost(k);
      const saved = touched.map((k) => ({ k, cost: this.nets[k]!.cost, segments: this.nets[k]!.segments, bounds: this.nets[k]!.bounds }));
      // New cost.
      if (pb) {
        [this.x[g], this.y[g]] = pb;
        [this.x[partner], this.y[partner]] = [before[0], before[1]];
      } else [this.x[g], this.y[g], this.way[g]] = after;
      let now = this.overlapCost(g) + this.piece(g).dislike + (partner < 0 ? 0 : this.overlapCost(partner));
      for (const k of touched) this.nets[k]!.cost = this.netCost(k);
      for (const k of touched) now += this.nets[k]!.cost + this.crossCost(k) + this.throughCost(k);
      const whole = this.globalCost();
      const delta = now + whole - old - global;
      if (delta <= 0 || this.random() < Math.exp(-delta / temperature)) global = whole;
      else {
        [this.x[g], this.y[g], this.way[g]] = before;
        if (pb) [this.x[partner], this.y[partner]] = pb;
        for (const s of saved) {
          this.nets[s.k]!.cost = s.cost;
          this.nets[s.k]!.segments = s.segments;
          this.nets[s.k]!.bounds = s.bounds;
        }
      }
    }
    return { x: this.x, y: this.y, way: this.way };
  }

  /** Cost of the whole placement: the better of several runs is kept. */
  total(): number {
    let cost = 0;
    for (let k = 0; k < this.nets.length; k++) cost += this.netCost(k);
    cost += this.globalCost();
    for (let g = 0; g < this.groups.length; g++) cost += this.overlapCost(g) / 2 + this.piece(g).dislike;
    for (let k = 0; k < this.nets.length; k++) cost += this.throughCost(k);
    for (let k = 0; k < this.nets.length; k++) cost += this.crossCost(k) / 2;
    return cost;
  }
}

/** Room for the tree of one net, used again for the next. */
const SPACE = {
  size: 0,
  px: new Float64Array(0),
  py: new Float64Array(0),
  dx: new Float64Array(0),
  dy: new Float64Array(0),
  best: new Float64Array(0),
  done: new Uint8Array(0),
  from: new Int32Array(0),
};
function scratch(n: number): typeof SPACE {
  if (SPACE.size < n) {
    SPACE.size = 2 * n;
    for (const k of ['px', 'py', 'dx', 'dy', 'best'] as const) SPACE[k] = new Float64Array(2 * n);
    SPACE.done = new Uint8Array(2 * n);
    SPACE.from = new Int32Array(2 * n);
  }
  return SPACE;
}

/** Hull first, then the solid boxes themselves. */
function hull(p: Piece): Box[] {
  const solid = [
    ...p.solid,
    ...p.wires.map((w): Box => [
      Math.min(...w.points.map((q) => q[0])),
      Math.min(...w.points.map((q) => q[1])),
      Math.max(...w.points.map((q) => q[0])),
      Math.max(...w.points.map((q) => q[1])),
    ]),
  ];
  return [
    [Math.min(...solid.map((b) => b[0])), Math.min(...solid.map((b) => b[1])), Math.max(...solid.map((b) => b[2])), Math.max(...solid.map((b) => b[3]))],
    ...solid,
  ];
}

/** Whether two straight stretches cross properly. */
function cross(ax: number, ay: number, bx: number, by: number, cx: number, cy: number, dx: number, dy: number): boolean {
  const side = (px: number, py: number, qx: number, qy: number, rx: number, ry: number) => Math.sign((qx - px) * (ry - py) - (qy - py) * (rx - px));
  return side(ax, ay, bx, by, cx, cy) * side(ax, ay, bx, by, dx, dy) < 0 && side(cx, cy, dx, dy, ax, ay) * side(cx, cy, dx, dy, bx, by) < 0;
}

/** Steps of the signal from the inputs: over two-poles and from control to main pins. */
function stepsOf(d: Drawable): Map<string, number> {
  const steps = new Map<string, number>(d.inputs.map((n) => [n, 0]));
  const queue = [...d.inputs];
  const links = new Map<string, string[]>();
  const link = (a: string, b: string) => {
    if (!d.rails.has(a) && !d.rails.has(b)) links.set(a, [...(links.get(a) ?? []), b]);
  };
  for (const p of d.parts) {
    const nets = p.pins.map((n) => p.net[n]!);
    if (p.pins.length === 2) {
      link(nets[0]!, nets[1]!);
      link(nets[1]!, nets[0]!);
    } else if (ACTIVE[p.kind]) {
      const { control, up, low } = ACTIVE[p.kind]!;
      link(p.net[control]!, p.net[up]!);
      link(p.net[control]!, p.net[low]!);
    } else if (p.kind === 'opamp') {
      link(p.net['IN+']!, p.net['OUT']!);
      link(p.net['IN-']!, p.net['OUT']!);
    } else for (const a of nets) for (const b of nets) if (a !== b && (p.kind === 'trimmer' || p.kind === 'transformer' || p.kind === 'bridge')) link(a, b);
  }
  while (queue.length > 0) {
    const net = queue.shift()!;
    for (const next of links.get(net) ?? [])
      if (!steps.has(next)) {
        steps.set(next, steps.get(net)! + 1);
        queue.push(next);
      }
  }
  return steps;
}

/** Whether a net is another one, or one two-pole away from it. */
const reaches = (d: Drawable, a: string, b: string) =>
  a === b || d.parts.some((p) => p.pins.length === 2 && p.pins.some((n) => p.net[n] === a) && p.pins.some((n) => p.net[n] === b));
