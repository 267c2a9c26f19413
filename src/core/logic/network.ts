import { type Circuit, type Part, operatingPoint, UnsolvableError } from '../circuit';

/** From every net to ground, siemens (this keeps nets that hang on nothing at a voltage). */
const LEAK = 1e9;

/** What a slot may be at one setting: a resistance to a voltage; null for nothing. */
export interface Branch {
  readonly ohms: number;
  readonly volts: number;
}
/** Something on a net that the simulation switches: a chip's pin, by its setting. */
export interface Slot {
  readonly net: string;
  readonly settings: readonly (Branch | null)[];
}
/** A contact between two nets: open (0) or closed (1). */
export interface Contact {
  readonly nets: readonly [string, string];
  readonly ohms: number;
}

/** A stretch of the board between nets of fixed voltage: solved by itself, remembered by its settings. */
interface Stretch {
  readonly nets: readonly string[];
  readonly parts: readonly Part[];
  readonly slots: number[];
  readonly contacts: number[];
  /** Equal stretches of other boards share what was solved. */
  readonly memo: Map<string, Float64Array>;
  dirty: boolean;
  volts: Float64Array;
}

/** Solutions by a stretch's content, for all faults of a board. */
export type Solved = Map<string, Map<string, Float64Array>>;

/**
 * The network of a board with its chips as sources. Nets of fixed voltage part it into stretches that do not know of each
 * other; each is solved once for every setting of what hangs on it.
 */
export class Network {
  private readonly stretches: Stretch[] = [];
  private readonly where = new Map<string, { readonly stretch: Stretch; readonly at: number }>();
  private readonly ofSlot: (Stretch | null)[];
  private readonly ofContact: (Stretch | null)[];
  readonly settings: Uint8Array;
  readonly closed: Uint8Array;

  constructor(
    parts: readonly Part[],
    private readonly fixed: ReadonlyMap<string, number>,
    private readonly slots: readonly Slot[],
    private readonly contacts: readonly Contact[],
    nets: ReadonlySet<string>,
    solved: Solved,
  ) {
    this.settings = new Uint8Array(slots.length);
    this.closed = new Uint8Array(contacts.length);
    const root = unite(
      [...nets].filter((n) => !fixed.has(n)),
      [...parts.map((p) => p.nodes), ...contacts.map((c) => c.nets)],
      fixed,
    );
    const groups = new Map<string, string[]>();
    for (const net of nets) if (!fixed.has(net)) groups.set(root(net), [...(groups.get(root(net)) ?? []), net]);
    const stretchOf = (touched: readonly string[]) => {
      const free = touched.find((n) => !fixed.has(n));
      return free === undefined ? null : root(free);
    };
    const made = new Map<string, Stretch>();
    for (const [name, members] of groups) {
      const own = parts.filter((p) => stretchOf(p.nodes) === name);
      const mine = slots.flatMap((s, i) => (stretchOf([s.net]) === name ? [i] : []));
      const joins = contacts.flatMap((c, i) => (stretchOf(c.nets) === name ? [i] : []));
      const key = this.contentOf(members, own, mine, joins);
      const memo = solved.get(key) ?? new Map<string, Float64Array>();
      solved.set(key, memo);
      const stretch: Stretch = { nets: members, parts: own, slots: mine, contacts: joins, memo, dirty: true, volts: new Float64Array(members.length) };
      made.set(name, stretch);
      members.forEach((net, at) => this.where.set(net, { stretch, at }));
      this.stretches.push(stretch);
    }
    this.ofSlot = slots.map((s) => made.get(stretchOf([s.net]) ?? '') ?? null);
    this.ofContact = contacts.map((c) => made.get(stretchOf(c.nets) ?? '') ?? null);
  }

  /** All that decides a stretch's solutions, nets by their place in it. */
  private contentOf(nets: readonly string[], parts: readonly Part[], slots: readonly number[], contacts: readonly number[]): string {
    const place = (n: string) => (this.fixed.has(n) ? `=${this.fixed.get(n)!}` : String(nets.indexOf(n)));
    return JSON.stringify([
      nets.length,
      parts.map((p) => [p.kind, p.nodes.map(place), 'value' in p ? p.value : 'model' in p ? p.model.name : 0]),
      slots.map((i) => [place(this.slots[i]!.net), this.slots[i]!.settings]),
      contacts.map((i) => [this.contacts[i]!.nets.map(place), this.contacts[i]!.ohms]),
    ]);
  }

  set(slot: number, setting: number): void {
    if (this.settings[slot] === setting) return;
    this.settings[slot] = setting;
    const stretch = this.ofSlot[slot];
    if (stretch) stretch.dirty = true;
  }

  close(contact: number, on: boolean): void {
    if (this.closed[contact] === Number(on)) return;
    this.closed[contact] = Number(on);
    const stretch = this.ofContact[contact];
    if (stretch) stretch.dirty = true;
  }

  /** Volts of a net to ground at the present settings. */
  volts(net: string): number {
    const known = this.fixed.get(net);
    if (known !== undefined) return known;
    const place = this.where.get(net);
    if (!place) return 0;
    const { stretch, at } = place;
    if (stretch.dirty) this.solve(stretch);
    return stretch.volts[at]!;
  }

  /** Volts of a net with a resistance from it to ground besides: a meter. */
  voltsLoaded(net: string, ohms: number): number {
    const place = this.where.get(net);
    if (!place) return this.fixed.get(net) ?? 0;
    const key = `${this.keyOf(place.stretch)}|${place.at}`;
    const known = place.stretch.memo.get(key) ?? this.compute(place.stretch, { net, ohms });
    place.stretch.memo.set(key, known);
    return known[place.at]!;
  }

  private keyOf(stretch: Stretch): string {
    let key = '';
    for (const s of stretch.slots) key += String.fromCharCode(48 + this.settings[s]!);
    for (const c of stretch.contacts) key += this.closed[c] ? 'c' : 'o';
    return key;
  }

  private solve(stretch: Stretch): void {
    const key = this.keyOf(stretch);
    let volts = stretch.memo.get(key);
    if (!volts) {
      volts = this.compute(stretch, null);
      stretch.memo.set(key, volts);
    }
    stretch.volts = volts;
    stretch.dirty = false;
  }

  private compute(stretch: Stretch, meter: { readonly net: string; readonly ohms: number } | null): Float64Array {
    const resistors: [string, string, number][] = stretch.nets.map((n) => [n, '0', LEAK]);
    const levels = new Map<number, string>([[0, '0']]);
    const source = (volts: number): string => {
      const known = levels.get(volts);
      if (known !== undefined) return known;
      const net = `=${levels.size}`;
      levels.set(volts, net);
      return net;
    };
    const net = (n: string) => (this.fixed.has(n) ? source(this.fixed.get(n)!) : n);
    for (const s of stretch.slots) {
      const branch = this.slots[s]!.settings[this.settings[s]!];
      if (branch) resistors.push([this.slots[s]!.net, source(branch.volts), branch.ohms]);
    }
    for (const c of stretch.contacts)
      if (this.closed[c]) resistors.push([net(this.contacts[c]!.nets[0]), net(this.contacts[c]!.nets[1]), this.contacts[c]!.ohms]);
    if (meter) resistors.push([meter.net, '0', meter.ohms]);
    const rest = stretch.parts.filter((p) => p.kind !== 'R' && p.kind !== 'C');
    for (const p of stretch.parts) if (p.kind === 'R') resistors.push([net(p.nodes[0]!), net(p.nodes[1]!), p.value]);
    if (rest.length === 0) return linear(stretch.nets, resistors, new Map([...levels].map(([v, n]) => [n, v])));
    const parts: Part[] = [
      ...resistors.map(([a, b, value], i): Part => ({ kind: 'R', name: `R${i}`, nodes: [a, b], value })),
      ...rest.map((p, i): Part => ({ ...p, name: `${p.kind}${i}`, nodes: p.nodes.map(net) })),
      ...[...levels].filter(([v]) => v !== 0).map(([dc, n], i): Part => ({ kind: 'V', name: `V${i}`, nodes: [n, '0'], dc, wave: null })),
    ];
    const circuit: Circuit = { title: '', parts, initial: {} };
    try {
      const { nodes } = operatingPoint(circuit);
      return Float64Array.from(stretch.nets, (n) => nodes[n] ?? 0);
    } catch (error) {
      if (!(error instanceof UnsolvableError)) throw error;
      return new Float64Array(stretch.nets.length);
    }
  }
}

/** Union of free nets by what touches them both. */
function unite(free: readonly string[], links: readonly (readonly string[])[], fixed: ReadonlyMap<string, number>): (net: string) => string {
  const parent = new Map(free.map((n) => [n, n]));
  const root = (net: string): string => {
    let at = net;
    while (parent.get(at) !== at) at = parent.get(at)!;
    return at;
  };
  for (const link of links) {
    const inside = link.filter((n) => !fixed.has(n));
    for (const n of inside.slice(1)) parent.set(root(n), root(inside[0]!));
  }
  return root;
}

/** Node voltages of resistors between free nets and known voltages: Gaussian elimination with pivoting. */
function linear(nets: readonly string[], resistors: readonly (readonly [string, string, number])[], known: ReadonlyMap<string, number>): Float64Array {
  const n = nets.length;
  const at = new Map(nets.map((net, i) => [net, i]));
  const m = Array.from({ length: n }, () => new Float64Array(n + 1));
  for (const [a, b, ohms] of resistors) {
    const g = 1 / ohms;
    for (const [here, there] of [
      [a, b],
      [b, a],
    ] as const) {
      const i = at.get(here);
      if (i === undefined) continue;
      m[i]![i]! += g;
      const j = at.get(there);
      if (j === undefined) m[i]![n]! += g * (known.get(there) ?? 0);
      else m[i]![j]! -= g;
    }
  }
  for (let k = 0; k < n; k++) {
    let best = k;
    for (let r = k + 1; r < n; r++) if (Math.abs(m[r]![k]!) > Math.abs(m[best]![k]!)) best = r;
    [m[k], m[best]] = [m[best]!, m[k]!];
    for (let r = k + 1; r < n; r++) {
      const f = m[r]![k]! / m[k]![k]!;
      if (f !== 0) for (let c = k; c <= n; c++) m[r]![c]! -= f * m[k]![c]!;
    }
  }
  const x = new Float64Array(n);
  for (let k = n - 1; k >= 0; k--) {
    let sum = m[k]![n]!;
    for (let c = k + 1; c < n; c++) sum -= m[k]![c]! * x[c]!;
    x[k] = sum / m[k]![k]!;
  }
  return x;
}
