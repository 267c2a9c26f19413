import { DisjointSets, type PadPair, type TracedBoard } from './board';
import type { Known } from './known';

/** What differs from the drawing; pads by their numbers. */
export type Difference =
  | { readonly kind: 'open'; readonly net: string; readonly parts: readonly (readonly number[])[] }
  | { readonly kind: 'bridge'; readonly pads: PadPair }
  | { readonly kind: 'moved'; readonly pad: number; readonly from: string; readonly to: string }
  | { readonly kind: 'missing'; readonly ref: string };

/** Most pads that are tried as moved in all combinations. */
const MOST_MOVED = 10;

/**
 * The fewest differences that turn the drawing into the components that were found: links whose ends are apart are missing, a
 * net in several components is open or one of its pads has moved, and what is joined beyond that is bridged.
 */
export function differencesOf(board: TracedBoard, known: Known): Difference[] {
  const candidates = movedCandidates(board, known).slice(0, MOST_MOVED);
  let best: { readonly cost: number; readonly found: readonly Difference[] } | null = null;
  for (let chosen = 0; chosen < 1 << candidates.length; chosen++) {
    const moved = candidates.filter((_, i) => (chosen >> i) & 1);
    if (new Set(moved.map((p) => board.pads[p]!.net)).size < moved.length) continue;
    const told = explain(board, known, moved);
    if (told && (!best || told.cost < best.cost)) best = told;
  }
  return [...(best?.found ?? [])];
}

/** Pads that are alone of their net in their component while others of the net lie elsewhere. */
function movedCandidates({ pads, mobile }: TracedBoard, known: Known): number[] {
  return pads.flatMap((p, i) => {
    if (!mobile[i]) return [];
    const own = known.pads.get(known.of[i]!)!;
    return own.length > 1 && !own.some((j) => j !== i && pads[j]!.net === p.net) ? [i] : [];
  });
}

/** The differences with these pads moved; a pair of components that no neighbours explain costs more than any number of them. */
function explain(board: TracedBoard, known: Known, moved: readonly number[]): { cost: number; found: Difference[] } | null {
  const { pads } = board;
  const away = new Set(moved);
  const net = pads.map((p) => p.net);
  const found: Difference[] = [];
  for (const pad of moved) {
    const anchor = known.pads.get(known.of[pad]!)!.find((j) => !away.has(j));
    if (anchor === undefined) return null;
    net[pad] = pads[anchor]!.net;
    found.push({ kind: 'moved', pad, from: pads[pad]!.net, to: net[pad] });
  }
  for (const {
    ref,
    pads: [a, b],
  } of board.links)
    if (known.of[a] !== known.of[b]) found.push({ kind: 'missing', ref });
  let cost = found.length;
  const parts = new Map<string, Map<number, number[]>>();
  net.forEach((name, i) => {
    const own = parts.get(name) ?? new Map<number, number[]>();
    own.set(known.of[i]!, [...(own.get(known.of[i]!) ?? []), i]);
    parts.set(name, own);
  });
  const sets = new DisjointSets(pads.length);
  for (const [name, own] of parts) {
    if (own.size > 1) found.push({ kind: 'open', net: name, parts: [...own.values()] });
    cost += own.size - 1;
    for (const [first, ...rest] of own.values()) for (const other of rest) sets.join(first!, other);
  }
  for (const pair of board.joined) sets.join(...pair);
  for (const {
    pads: [a, b],
  } of board.links)
    if (known.of[a] === known.of[b]) sets.join(a, b);
  for (const pair of board.neighbours) {
    const [a, b] = pair;
    if (known.of[a] !== known.of[b] || sets.find(a) === sets.find(b) || away.has(a) || away.has(b) || pads[a]!.net === pads[b]!.net) continue;
    sets.join(a, b);
    found.push({ kind: 'bridge', pads: pair });
    cost++;
  }
  const groups = new Set(pads.map((_, i) => sets.find(i))).size;
  return { cost: cost + (groups - known.pads.size) * UNEXPLAINED, found };
}

const UNEXPLAINED = 1000;
