import { type Answer, drawnComponents, type PadPair, type TracedBoard } from './board';
import type { Known, Unsettled } from './known';

export type Goal = 'prove' | 'locate';

/**
 * How often each fault is met on hand-made boards (own figures, after common practice): they only order the questions.
 * `bridge` is shared by all pairs of pads side by side, `open` by all nets, `moved` by all pads that may be drawn wrongly.
 */
const FAULTS = { bridge: 25, open: 20, moved: 10, missing: 6 };

/**
 * The next pair of pads to touch. To prove, what most likely shows a fault comes first. To locate, what most likely beeps
 * comes first: joined components need fewer questions to be told apart. Among equals the nearest pads.
 */
export function nextQuestion(board: TracedBoard, known: Known, unsettled: readonly Unsettled[], answers: readonly Answer[], goal: Goal): PadPair {
  const drawn = drawnComponents(board);
  const asked = new Set(answers.map(({ pads }) => keyOf(board, pads)));
  const weigh = goal === 'prove' ? tells(board, known, drawn, answers) : beeps(board, known, unsettled, answers, drawn);
  let best: { readonly pair: Unsettled; readonly weight: number; readonly pads: PadPair; readonly distance: number } | null = null;
  for (const pair of unsettled) {
    const weight = weigh(pair);
    if (best && weight < best.weight - TIE) continue;
    const nearest = nearestPads(board, known, pair, asked);
    if (!nearest) continue;
    if (!best || weight > best.weight + TIE || nearest.distance < best.distance) best = { pair, weight, ...nearest };
  }
  // Two components that are not apart always hold a pair that was not asked: an answer about them would have settled them.
  return best!.pads;
}

const TIE = 1e-9;
const keyOf = (board: TracedBoard, [a, b]: PadPair) => (a < b ? a * board.pads.length + b : b * board.pads.length + a);

function nearestPads(board: TracedBoard, known: Known, { a, b, sides, reason }: Unsettled, asked: ReadonlySet<number>) {
  const own = (c: number) => known.pads.get(c)!;
  const linked = reason === 'link' ? board.links.map((l) => l.pads).filter(([i, j]) => crosses(known, a, b, i, j)) : [];
  const across = own(a).flatMap((i) => own(b).map((j) => [i, j] as const));
  const sameNet = reason === 'net' ? across.filter(([i, j]) => board.pads[i]!.net === board.pads[j]!.net) : [];
  for (const candidates of [linked, sameNet, sides, across]) {
    let best: { pads: PadPair; distance: number } | null = null;
    for (const pads of candidates) {
      if (asked.has(keyOf(board, pads))) continue;
      const distance = Math.hypot(board.pads[pads[0]]!.x - board.pads[pads[1]]!.x, board.pads[pads[0]]!.y - board.pads[pads[1]]!.y);
      if (!best || distance < best.distance) best = { pads, distance };
    }
    if (best) return best;
  }
  return null;
}

const crosses = (known: Known, a: number, b: number, i: number, j: number) =>
  (known.of[i] === a && known.of[j] === b) || (known.of[i] === b && known.of[j] === a);

/** How likely an answer to this pair shows that the board is not as drawn. */
function tells(board: TracedBoard, known: Known, drawn: Int32Array, answers: readonly Answer[]) {
  const pairOf = (i: number, j: number) => keyOf(board, [drawn[i]!, drawn[j]!]);
  // As long as all is as drawn, one answer parts two drawn components for good: their other neighbours wait until they are joined.
  const parted = new Set(answers.filter((x) => !x.beep).map(({ pads: [i, j] }) => pairOf(i, j)));
  const sidesOf = new Map<number, number>();
  for (const [i, j] of board.neighbours) sidesOf.set(pairOf(i, j), (sidesOf.get(pairOf(i, j)) ?? 0) + 1);
  const nets = new Map<string, Set<number>>();
  board.pads.forEach((p, i) => nets.set(p.net, (nets.get(p.net) ?? new Set()).add(known.of[i]!)));
  const open = [...nets.values()].filter((c) => c.size > 1).length;
  const mobile = board.mobile.filter(Boolean).length;
  const between = board.neighbours.filter(([i, j]) => drawn[i] !== drawn[j]).length;
  return ({ a, b, reason }: Unsettled): number => {
    if (drawn[a] !== drawn[b]) return parted.has(pairOf(a, b)) ? 0 : (FAULTS.bridge * (sidesOf.get(pairOf(a, b)) ?? 0)) / Math.max(1, between);
    if (reason === 'link') return FAULTS.missing / board.links.length;
    const net = board.pads[a]!.net;
    const joints = Math.max(1, (nets.get(net)?.size ?? 2) - 1);
    const single = [a, b].filter((c) => known.pads.get(c)!.length === 1 && board.mobile[c]).length;
    return FAULTS.open / open / joints + (FAULTS.moved * single) / Math.max(1, mobile) / 2;
  };
}

/** How likely the two beep: parts of one net that nothing keeps apart from the rest of it first, pads side by side last. */
function beeps(board: TracedBoard, known: Known, unsettled: readonly Unsettled[], answers: readonly Answer[], drawn: Int32Array) {
  const split = splits(known, answers, drawn);
  const degree = new Map<number, number>();
  for (const { a, b, reason } of unsettled) if (reason === 'neighbours') for (const c of [a, b]) degree.set(c, (degree.get(c) ?? 0) + 1);
  return ({ a, b, reason }: Unsettled): number => {
    if (drawn[a] === drawn[b]) return 1000 - 10 * (split(a) + split(b)) - (reason === 'mobile' ? 5 : 0);
    const lone = [a, b].some((c) => known.pads.get(c)!.length === 1 && board.mobile[c]);
    // A pad that left its net is looked for before the rest is told apart: what does not beep with it tells its new net apart too.
    return lone ? 100 + ((degree.get(a) ?? 0) + (degree.get(b) ?? 0)) / 1000 : 0;
  };
}

/** How many components that the drawing joins to this one were silent with it. */
function splits(known: Known, answers: readonly Answer[], drawn: Int32Array): (component: number) => number {
  const apart = new Map<number, Set<number>>();
  for (const { pads, beep } of answers) {
    const [a, b] = [known.of[pads[0]]!, known.of[pads[1]]!];
    if (beep || drawn[a] !== drawn[b]) continue;
    apart.set(a, (apart.get(a) ?? new Set()).add(b));
    apart.set(b, (apart.get(b) ?? new Set()).add(a));
  }
  return (c) => apart.get(c)?.size ?? 0;
}

/**
 * Whether some of these pairs beep more likely than any single pad that may have moved beeps anywhere: then the many pairs of
 * such pads need not be looked at.
 */
export function anySure(known: Known, unsettled: readonly Unsettled[], answers: readonly Answer[], drawn: Int32Array): boolean {
  const split = splits(known, answers, drawn);
  return unsettled.some(({ a, b }) => drawn[a] === drawn[b] && split(a) + split(b) === 0);
}
