import { ACTIVE, joined, type Piece, piece, TWO_POLES } from './pieces';
import type { Drawable } from './request';
import { type Box, overlap, type Point, type Rotation, textWidth } from './symbols';

/** What moves as one: its ways round, the first the usual one. */
export interface Group {
  readonly parts: readonly number[];
  readonly ways: readonly Piece[];
}

/** The trade's habits: chains in line, pairs mirrored, feedback over its amplifier, everything else by itself. */
export function groupsOf(d: Drawable): Group[] {
  const taken = new Set<number>();
  const groups: Group[] = [];
  const take = (parts: readonly number[], ways: readonly Piece[]) => {
    parts.forEach((p) => taken.add(p));
    const sound = parts.length === 1 ? ways : isOnOneBoard(d, parts) ? ways.filter((w) => !liesOnItself(w)) : [];
    if (sound.length > 0) groups.push({ parts, ways: sound });
    // A habit in which flags or symbols would lie on each other is none: each part stands by itself.
    else parts.forEach((p) => groups.push({ parts: [p], ways: [piece(d, p)] }));
  };
  const inner = innerNets(d);
  const free = (p: number) => !taken.has(p);
  fours(d).forEach(({ parts, ways }) => {
    if (parts.every(free)) take(parts, ways);
  });
  stacked(d, free).forEach(({ parts, ways }) => {
    if (parts.every(free)) take(parts, ways);
  });
  mirroredPairs(d).forEach(({ parts, ways }) => {
    if (parts.every(free)) take(parts, ways);
  });
  d.parts.forEach((p, i) => {
    if (p.kind === 'opamp' && free(i)) {
      const g = amplifier(d, i, free);
      take(g.parts, g.ways);
    }
  });
  d.parts.forEach((p, i) => {
    if (!free(i)) return;
    if (TWO_POLES.has(p.kind)) {
      const g = chain(d, i, free, inner);
      take(g.parts, g.ways);
    } else if (ACTIVE[p.kind]) take([i], activeWays(d, i));
    else if (p.kind === 'trimmer') take([i], [piece(d, i), piece(d, i, { rotation: 180, mirror: true })]);
    else if (p.kind === 'connector') take([i], connectorWays(d, i));
    else if (p.kind === 'changeover') take([i], [piece(d, i), piece(d, i, { mirror: true }), piece(d, i, { rotation: 180 })]);
    else if (p.kind === 'testpoint') take([i], [piece(d, i)]);
    else if (p.kind === 'bridge' || p.kind === 'transformer') take([i], [piece(d, i)]);
    else take([i], [piece(d, i)]);
  });
  return groups;
}

const isOnOneBoard = ({ boards }: Drawable, parts: readonly number[]) => boards.length < 2 || boards.some((b) => parts.every((p) => b.parts.has(p)));

function liesOnItself({ symbols, flags, labels }: Piece): boolean {
  const boxes = [...symbols, ...flags].map((x) => x.box);
  const words = labels.map((k) => shrunk(k.box));
  return [...boxes, ...words].some((a, i) => [...boxes.slice(i + 1), ...words.slice(Math.max(0, i + 1 - boxes.length))].some((b) => overlap(a, b)));
}
/** How far a word may lap over what it stands beside. */
const LAP = 0.2;
const shrunk = ([l, t, r, b]: Box): Box => [l + LAP / 2, t + LAP / 2, r - LAP / 2, b - LAP / 2];

function connectorWays(d: Drawable, i: number): Piece[] {
  const nets = Object.values(d.parts[i]!.net);
  const out = nets.some((n) => d.outputs.includes(n)) && !nets.some((n) => d.inputs.includes(n));
  const [straight, mirror] = [piece(d, i), piece(d, i, { mirror: true })];
  return out ? [mirror, { ...straight, dislike: straight.dislike + 6 }] : [straight, { ...mirror, dislike: mirror.dislike + 2 }];
}

const ends = (d: Drawable, i: number) => d.parts[i]!.pins.map((n) => d.parts[i]!.net[n]!) as [string, string];
const otherEnd = (d: Drawable, i: number, net: string) => {
  const [a, b] = ends(d, i);
  return a === net ? b : a;
};

/** Nets that join just two two-poles, in a row. */
function innerNets(d: Drawable): Map<string, readonly [number, number]> {
  const found = new Map<string, readonly [number, number]>();
  for (const [net, pins] of d.nets) {
    if (d.rails.has(net) || pins.length !== 2 || d.inputs.includes(net) || d.outputs.includes(net)) continue;
    const [a, b] = [pins[0]!.part, pins[1]!.part];
    if (a !== b && TWO_POLES.has(d.parts[a]!.kind) && TWO_POLES.has(d.parts[b]!.kind)) found.set(net, [a, b]);
  }
  return found;
}

const half = (kind: string) => (kind === 'source' || kind === 'battery' || kind === 'winding' ? 3 : 2);

/** Parts in a row, top to bottom; `from` is the net at the top. */
function column(d: Drawable, row: readonly number[], from: string, labels: 'right' | 'left', x = 0, y = 0): Piece {
  let net = from;
  let at = y;
  const between = new Set<string>();
  const pieces = row.map((part, i) => {
    if (i > 0) between.add(net);
    const p = d.parts[part]!;
    const h = half(p.kind);
    const top = p.net[p.pins[0]!] === net ? firstPinUp(p.kind, p.pins[0]!) : firstPinUp(p.kind, p.pins[1]!);
    const made = piece(d, part, { x, y: at + h, rotation: top ? 0 : 180, labels });
    at += 2 * h;
    net = otherEnd(d, part, net);
    return made;
  });
  return inRow(pieces, between);
}
const FIRST: Readonly<Record<string, string>> = { electrolytic: '+', diode: 'A', zener: 'A', led: 'A', source: '+', battery: '+' };
/** Whether this pin is the upper one of an unturned symbol. */
const firstPinUp = (kind: string, pin: string) => pin === (FIRST[kind] ?? '1');

/** Parts in a row, left to right; long words beside them set them further apart. */
function rowLying(d: Drawable, row: readonly number[], from: string): Piece {
  let net = from;
  let at = 0;
  const wires: { net: string; points: Point[] }[] = [];
  const between = new Set<string>();
  const pieces = row.map((part, i) => {
    if (i > 0) between.add(net);
    const p = d.parts[part]!;
    const h = half(p.kind);
    const first = firstPinUp(p.kind, p.net[p.pins[0]!] === net ? p.pins[0]! : p.pins[1]!);
    const words = Math.max(textWidth(p.ref), textWidth(p.value ?? ''));
    const room = row.length > 1 ? Math.max(h, Math.ceil(words / 2 + 0.2)) : h;
    // Turned by 270 the upper pin comes to lie on the left.
    const made = piece(d, part, { x: at + room, y: 0, rotation: first ? 270 : 90, ...(row.length > 1 ? { labels: 'split' as const } : {}) });
    if (i > 0 && room > h)
      wires.push({
        net: d.written.get(net) ?? net,
        points: [
          [at, 0],
          [at + room - h, 0],
        ],
      });
    const after = otherEnd(d, part, net);
    if (i < row.length - 1 && room > h)
      wires.push({
        net: d.written.get(after) ?? after,
        points: [
          [at + room + h, 0],
          [at + 2 * room, 0],
        ],
      });
    at += 2 * room;
    net = after;
    return made;
  });
  const whole = inRow(pieces, between);
  return { ...whole, wires: [...whole.wires, ...wires] };
}

/** What is joined within a row already wants no wire of its own. Two parts in parallel have a net at both outer ends too: that one does. */
function inRow(pieces: readonly Piece[], between: ReadonlySet<string>): Piece {
  const whole = joined(pieces);
  return { ...whole, terminals: whole.terminals.filter((t) => !between.has(t.net)) };
}

function chain(d: Drawable, start: number, free: (p: number) => boolean, inner: ReadonlyMap<string, readonly [number, number]>): Group {
  const row = [start];
  const grow = (net: string, put: (p: number) => void): string => {
    let at = net;
    let last = row[0]!;
    if (put === push) last = row.at(-1)!;
    for (;;) {
      const next = inner.get(at)?.find((p) => p !== last && free(p) && !row.includes(p));
      if (next === undefined || row.length >= LONGEST) return at;
      put(next);
      at = otherEnd(d, next, at);
      last = next;
    }
  };
  const push = (p: number) => void row.push(p);
  const [a, b] = ends(d, start);
  const tail = grow(b, push);
  const head = grow(a, (p) => void row.unshift(p));
  return { parts: row, ways: rowWays(d, row, head, tail) };
}
const LONGEST = 8;

/** Ways round of a row: upright with the higher level above where it hangs on a rail, else every way. */
function rowWays(d: Drawable, row: readonly number[], head: string, tail: string): Piece[] {
  const [lh, lt] = [d.rails.get(head), d.rails.get(tail)];
  const back = [...row].reverse();
  const down = () => [column(d, row, head, 'right'), column(d, row, head, 'left')];
  const up = () => [column(d, back, tail, 'right'), column(d, back, tail, 'left')];
  const lying = () => [rowLying(d, row, head), rowLying(d, back, tail)];
  const worse = (pieces: readonly Piece[], by: number) => pieces.map((p) => ({ ...p, dislike: p.dislike + by }));
  const loose = row.length === 1 && ['fuse', 'switch', 'link'].includes(d.parts[row[0]!]!.kind);
  if (lh !== undefined && lt !== undefined) return lh >= lt ? (lh === lt ? [...lying(), ...down()] : down()) : up();
  if (lh !== undefined || lt !== undefined) {
    const downward = lh !== undefined ? lh > 0 : lt! <= 0;
    const upright = downward ? down() : up();
    return loose ? [...upright, ...worse(lying(), 0)] : [...upright, ...worse(lying(), 25)];
  }
  return [...lying(), ...worse([...down(), ...up()], 1.5)];
}

function activeWays(d: Drawable, i: number): Piece[] {
  const p = d.parts[i]!;
  const pins = ACTIVE[p.kind]!;
  const [up, low] = [d.rails.get(p.net[pins.up]!), d.rails.get(p.net[pins.low]!)];
  const straight = piece(d, i);
  const mirror = piece(d, i, { mirror: true, labels: 'left' });
  const usual = [straight, { ...mirror, dislike: mirror.dislike + 10 }];
  // In the way of a supply it lies, its control below.
  if (up !== undefined && up !== 0 && up === low) return [piece(d, i, { rotation: 270 }), piece(d, i, { rotation: 90, mirror: true }), ...usual];
  return usual;
}

/** An amplifier with the two-poles from its output to its inputs above and below it. */
function amplifier(d: Drawable, i: number, free: (p: number) => boolean): Group {
  const p = d.parts[i]!;
  const out = p.net['OUT']!;
  const toInput = (pin: string) =>
    d.parts.flatMap((q, k) => {
      if (k === i || !free(k) || !TWO_POLES.has(q.kind)) return [];
      const [a, b] = ends(d, k);
      const input = p.net[pin]!;
      return !d.rails.has(input) && ((a === out && b === input) || (b === out && a === input)) ? [k] : [];
    });
  const [minus, plus] = [toInput('IN-').slice(0, 3), toInput('IN+').slice(0, 3)];
  const make = (form?: 'b'): Piece => {
    const [above, below] = form === 'b' ? [plus, minus] : [minus, plus];
    const fed = (parts: readonly number[], dir: -1 | 1) =>
      parts.map((k, n) => {
        const q = d.parts[k]!;
        const first = firstPinUp(q.kind, q.net[q.pins[0]!] === out ? q.pins[1]! : q.pins[0]!);
        return piece(d, k, { x: 0, y: dir < 0 ? -8 - 4 * n : 9 + 4 * n, rotation: first ? 270 : 90 });
      });
    return joined([piece(d, i, form ? { form } : {}), ...fed(above, -1), ...fed(below, 1)]);
  };
  return { parts: [i, ...minus, ...plus], ways: [make(), make('b')] };
}

/** Pairs of transistors with joined emitters or joined bases, mirrored, with their loads. */
function mirroredPairs(d: Drawable): Group[] {
  const found: Group[] = [];
  const active = d.parts.flatMap((p, i) => (ACTIVE[p.kind] ? [i] : []));
  const nets = (i: number) => {
    const p = d.parts[i]!;
    const bipolar = p.kind === 'npn' || p.kind === 'pnp';
    return bipolar ? [p.net['B']!, p.net['C']!, p.net['E']!] : [p.net['G']!, p.net['D']!, p.net['S']!];
  };
  const linked = (a: string, b: string) =>
    a === b || d.parts.some((p, k) => TWO_POLES.has(p.kind) && ends(d, k).includes(a) && ends(d, k).includes(b) && a !== b);
  for (const i of active)
    for (const j of active) {
      if (j <= i || d.parts[i]!.kind !== d.parts[j]!.kind) continue;
      const [ib, ic, ie] = nets(i) as [string, string, string];
      const [jb, jc, je] = nets(j) as [string, string, string];
      if (ie !== je || ic === jc) continue;
      const main = d.parts[i]!.kind === 'npn' || d.parts[i]!.kind === 'pnp' ? 'E' : 'S';
      const difference = !d.rails.has(ie) && ib !== jb && d.nets.get(ie)!.filter((x) => x.pin === main).length === 2;
      const crossed = !d.rails.has(ic) && !d.rails.has(jc) && linked(ic, jb) && linked(jc, ib);
      const twin = d.rails.has(ie) && ib === jb && (ib === ic || ib === jc);
      if (!difference && !crossed && !twin) continue;
      found.push(twin ? { parts: [i, j], ways: [mirrorPiece(d, i, j), mirrorPiece(d, j, i)] } : outward(d, i, j, ic, jc));
    }
  return found;
}

const mirrorPiece = (d: Drawable, left: number, right: number): Piece =>
  joined([piece(d, left, { mirror: true, labels: 'left' }), piece(d, right, { x: 6, labels: 'right' })]);

/** Bases outwards; loads from the collectors to a rail stand over them. */
function outward(d: Drawable, i: number, j: number, ic: string, jc: string): Group {
  const rung = (net: string) => {
    const all = d.parts.flatMap((p, k) => (TWO_POLES.has(p.kind) && ends(d, k).includes(net) && d.rails.has(otherEnd(d, k, net)) ? [k] : []));
    return all.length === 1 ? all[0]! : null;
  };
  const [a, b] = [rung(ic), rung(jc)];
  const both = a !== null && b !== null && a !== b && d.parts[a]!.kind === d.parts[b]!.kind;
  const make = (left: number, right: number, leftNet: string, rightNet: string, lr: number | null, rr: number | null): Piece => {
    const wide = 10;
    const pieces = [piece(d, left, { labels: 'outer' }), piece(d, right, { x: wide, mirror: true, labels: 'outer' })];
    if (both)
      for (const [k, net, x, labels] of [
        [lr!, leftNet, 1, 'left'],
        [rr!, rightNet, wide - 1, 'right'],
      ] as const) {
        const rail = otherEnd(d, k, net);
        const above = (d.rails.get(rail) ?? 0) > 0;
        pieces.push(above ? column(d, [k], rail, labels, x, -2 - LOAD_GAP - 2 * half(d.parts[k]!.kind)) : column(d, [k], net, labels, x, 2 + LOAD_GAP));
      }
    return joined(pieces);
  };
  const parts = both ? [i, j, a, b] : [i, j];
  return { parts, ways: [make(i, j, ic, jc, a, b), make(j, i, jc, ic, b, a)] };
}
const LOAD_GAP = 4;

/** Push-pull and half bridges: the upper part over the lower one, emitter resistors between. */
function stacked(d: Drawable, free: (p: number) => boolean): Group[] {
  const found: Group[] = [];
  d.parts.forEach((p, n) => {
    const main = p.kind === 'npn' ? ['C', 'E'] : p.kind === 'nmos' ? ['D', 'S'] : null;
    if (!main) return;
    d.parts.forEach((q, m) => {
      if (q.kind !== (p.kind === 'npn' ? 'pnp' : 'pmos')) return;
      const [nc, ne, mc, me] = [p.net[main[0]!]!, p.net[main[1]!]!, q.net[main[0]!]!, q.net[main[1]!]!];
      const level = (net: string) => d.rails.get(net);
      if (nc === mc && !d.rails.has(nc) && d.rails.has(ne) && (level(me) ?? -9) > (level(ne) ?? 9)) {
        found.push({ parts: [n, m], ways: [joined([piece(d, m), piece(d, n, { y: 8 })])] });
        return;
      }
      if (d.rails.has(ne) || d.rails.has(me) || !((level(nc) ?? -9) > (level(mc) ?? 9))) return;
      const resistor = (x: string) =>
        d.parts.flatMap((r, k) => (r.kind === 'resistor' && free(k) && ends(d, k).includes(x) && !d.rails.has(otherEnd(d, k, x)) ? [k] : []));
      if (ne === me) {
        found.push({ parts: [n, m], ways: [joined([piece(d, n), piece(d, m, { y: 8 })])] });
        return;
      }
      const both = resistor(ne).flatMap((a) => resistor(me).flatMap((b) => (a !== b && otherEnd(d, a, ne) === otherEnd(d, b, me) ? [[a, b] as const] : [])))[0];
      if (both) {
        const [a, b] = both;
        const middle = otherEnd(d, a, ne);
        found.push({
          parts: [n, m, a, b],
          ways: [joined([piece(d, n), column(d, [a], ne, 'right', 1, 4), column(d, [b], middle, 'right', 1, 10), piece(d, m, { y: 18 })])],
        });
      } else {
        const one = resistor(ne).find((k) => otherEnd(d, k, ne) === me);
        if (one !== undefined) found.push({ parts: [n, m, one], ways: [joined([piece(d, n), column(d, [one], ne, 'right', 1, 4), piece(d, m, { y: 12 })])] });
      }
    });
  });
  return found;
}

/** Four single diodes that form a bridge: two columns, two rows, all upright. */
function fours(d: Drawable): Group[] {
  const diodes = d.parts.flatMap((p, i) => (p.kind === 'diode' ? [i] : []));
  const net = (i: number, pin: string) => d.parts[i]!.net[pin]!;
  const found: Group[] = [];
  const used = new Set<number>();
  for (const a of diodes)
    for (const b of diodes) {
      if (a >= b || used.has(a) || used.has(b) || net(a, 'K') !== net(b, 'K') || net(a, 'A') === net(b, 'A')) continue;
      const c = diodes.find((x) => x !== a && x !== b && net(x, 'K') === net(a, 'A'));
      const e = diodes.find((x) => x !== a && x !== b && x !== c && c !== undefined && net(x, 'K') === net(b, 'A') && net(x, 'A') === net(c, 'A'));
      if (c === undefined || e === undefined || net(c, 'A') === net(a, 'K')) continue;
      [a, b, c, e].forEach((x) => used.add(x));
      const up: Rotation = 180;
      const at = (i: number, x: number, y: number, labels: 'left' | 'right') => piece(d, i, { x, y, rotation: up, labels });
      found.push({ parts: [a, b, c, e], ways: [joined([at(a, 0, 0, 'left'), at(b, 6, 0, 'right'), at(c, 0, 8, 'left'), at(e, 6, 8, 'right')])] });
    }
  return found;
}
