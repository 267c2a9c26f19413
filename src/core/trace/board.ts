/** A board as drawn, for the continuity tester. Pads are counted from 0. */
export interface Pad {
  readonly id: string;
  /** Drawn net: copper only. */
  readonly net: string;
  /** Millimetres. */
  readonly x: number;
  readonly y: number;
}

export type PadPair = readonly [number, number];

/** A wire link: it joins two pads unless it was forgotten. */
export interface Link {
  readonly ref: string;
  readonly pads: PadPair;
}

/** What a tester answered between two pads. */
export interface Answer {
  readonly pads: PadPair;
  readonly beep: boolean;
}

export interface FittedPart {
  readonly ref: string;
  readonly kind: string;
  readonly pads: readonly number[];
  /** Null for what never beeps. */
  readonly ohms: number | null;
}

export interface TracedBoard {
  readonly pads: readonly Pad[];
  /** Pairs of pads that lie side by side, of one net or of two. */
  readonly neighbours: readonly PadPair[];
  /** Pads that a fitted part joins for the tester. */
  readonly joined: readonly PadPair[];
  readonly links: readonly Link[];
  /** Pads that may sit on another net than drawn: their net has three pads or more, and nothing that beeps hangs on them. */
  readonly mobile: readonly boolean[];
}

const LINK = 'link';

/** Least pads of a net of which one can be drawn wrongly and the others still tell its name. */
const PADS_OF_A_SURE_NET = 3;

/** What a tester with this threshold (ohm) makes of what is fitted: a two-pad part beeps below it. */
export function boardFor(pads: readonly Pad[], neighbours: readonly PadPair[], fitted: readonly FittedPart[], threshold: number): TracedBoard {
  const pairs = fitted.flatMap((f) => (f.pads.length === 2 ? [{ ...f, pads: [f.pads[0]!, f.pads[1]!] as const }] : []));
  const links = pairs.filter((f) => f.kind === LINK);
  const joined = pairs.filter((f) => f.kind !== LINK && f.ohms !== null && f.ohms < threshold).map((f) => f.pads);
  const sizes = new Map<string, number>();
  for (const p of pads) sizes.set(p.net, (sizes.get(p.net) ?? 0) + 1);
  const carrying = new Set([...joined, ...links.map((l) => l.pads)].flat());
  const mobile = pads.map((p, i) => (sizes.get(p.net) ?? 0) >= PADS_OF_A_SURE_NET && !carrying.has(i));
  return { pads, neighbours, joined, links: links.map(({ ref, pads: two }) => ({ ref, pads: two })), mobile };
}

/** Pads that are joined on the board as drawn, all links in place: the number of its component for every pad. */
export function drawnComponents(board: TracedBoard): Int32Array {
  const sets = new DisjointSets(board.pads.length);
  const first = new Map<string, number>();
  board.pads.forEach((p, i) => {
    const other = first.get(p.net);
    if (other === undefined) first.set(p.net, i);
    else sets.join(i, other);
  });
  for (const [a, b] of [...board.joined, ...board.links.map((l) => l.pads)]) sets.join(a, b);
  return sets.labels();
}

/** Union by pointers to a root, with path halving (textbook). */
export class DisjointSets {
  private readonly parent: Int32Array;

  constructor(size: number) {
    this.parent = Int32Array.from({ length: size }, (_, i) => i);
  }

  find(i: number): number {
    const p = this.parent;
    while (p[i] !== i) {
      p[i] = p[p[i]!]!;
      i = p[i]!;
    }
    return i;
  }

  join(a: number, b: number): void {
    this.parent[this.find(a)] = this.find(b);
  }

  labels(): Int32Array {
    return this.parent.map((_, i) => this.find(i));
  }
}
