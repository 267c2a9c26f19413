import { type Answer, DisjointSets, drawnComponents, type TracedBoard } from './board';

/** What parts and answers with a beep have proved to be joined, and what answers without one keep apart. */
export interface Known {
  /** Component of each pad: the number of one of its pads. */
  readonly of: Int32Array;
  /** Pads of each component, by its number. */
  readonly pads: ReadonlyMap<number, readonly number[]>;
  readonly apart: (a: number, b: number) => boolean;
}

export function knownOf(board: TracedBoard, answers: readonly Answer[]): Known {
  const sets = new DisjointSets(board.pads.length);
  for (const [a, b] of board.joined) sets.join(a, b);
  for (const { pads, beep } of answers) if (beep) sets.join(...pads);
  const of = sets.labels();
  const pads = new Map<number, number[]>();
  of.forEach((c, i) => {
    const own = pads.get(c);
    if (own) own.push(i);
    else pads.set(c, [i]);
  });
  const apart = new Set<number>();
  const n = board.pads.length;
  for (const { pads: two, beep } of answers) {
    const [a, b] = [of[two[0]]!, of[two[1]]!];
    if (!beep) apart.add(a * n + b).add(b * n + a);
  }
  return { of, pads, apart: (a, b) => apart.has(a * n + b) };
}

/** Why two components have still to be told apart or joined. */
export type Reason = 'net' | 'link' | 'neighbours' | 'mobile';

export interface Unsettled {
  readonly a: number;
  readonly b: number;
  /** The strongest reason: a net or a link first, then pads side by side, then a single pad that may sit anywhere. */
  readonly reason: Reason;
  /** Pairs of pads side by side across the two. */
  readonly sides: readonly (readonly [number, number])[];
}

/**
 * Pairs of components that are neither joined nor apart although they hold pads of one net, of one link or of two neighbours,
 * or (`mobile`) one of them is a single pad that may sit on any net. A board without such a pair is proved.
 */
export function unsettledOf(board: TracedBoard, known: Known, mobile: boolean): Unsettled[] {
  const found = new Map<number, { a: number; b: number; reason: Reason; sides: (readonly [number, number])[] }>();
  const n = board.pads.length;
  const add = (i: number, j: number, reason: Reason, side: readonly [number, number] | null) => {
    const [a, b] = known.of[i]! < known.of[j]! ? [known.of[i]!, known.of[j]!] : [known.of[j]!, known.of[i]!];
    if (a === b || known.apart(a, b)) return;
    const pair = found.get(a * n + b);
    if (!pair) found.set(a * n + b, { a, b, reason, sides: side ? [side] : [] });
    else if (side) pair.sides.push(side);
  };
  const nets = new Map<string, number[]>();
  board.pads.forEach((p, i) => {
    const components = nets.get(p.net) ?? [];
    if (!components.includes(known.of[i]!)) nets.set(p.net, [...components, known.of[i]!]);
  });
  for (const components of nets.values())
    components.forEach((a, k) => {
      for (const b of components.slice(k + 1)) add(a, b, 'net', null);
    });
  for (const { pads } of board.links) add(...pads, 'link', null);
  for (const pair of board.neighbours) add(...pair, 'neighbours', pair);
  if (!mobile) return [...found.values()];
  for (const [c, pads] of known.pads) if (pads.length === 1 && board.mobile[c]) for (const other of known.pads.keys()) add(c, other, 'mobile', null);
  return [...found.values()];
}

/** Whether an answer is what the drawing says. */
export function asDrawn(drawn: Int32Array, { pads: [a, b], beep }: Answer): boolean {
  return (drawn[a] === drawn[b]) === beep;
}

/** Whether the components that are known are those of the drawing. */
export function isDrawing(board: TracedBoard, known: Known): boolean {
  const drawn = drawnComponents(board);
  const of = new Map<number, number>();
  return (
    known.of.every((c, i) => {
      const seen = of.get(drawn[i]!);
      if (seen === undefined) of.set(drawn[i]!, c);
      return seen === undefined || seen === c;
    }) && new Set(of.values()).size === of.size
  );
}
