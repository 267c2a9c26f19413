import type { Answer, TracedBoard } from './board';

/**
 * Answers that cannot all be true together with the fitted parts, none of which could be left out; null where they agree.
 * Two pads that did not beep but are joined by the fewest answers with a beep.
 * @returns positions in `answers`, rising
 */
export function conflictIn(board: TracedBoard, answers: readonly Answer[]): number[] | null {
  const ways: { readonly to: number; readonly by: number | null }[][] = board.pads.map(() => []);
  const add = ([a, b]: readonly [number, number], by: number | null) => {
    ways[a]!.push({ to: b, by });
    ways[b]!.push({ to: a, by });
  };
  for (const pair of board.joined) add(pair, null);
  answers.forEach(({ pads, beep }, i) => {
    if (beep) add(pads, i);
  });
  for (const [i, { pads, beep }] of answers.entries()) {
    const path = beep ? null : fewestBeeps(ways, ...pads);
    if (path) return [...path, i].sort((x, y) => x - y);
  }
  return null;
}

/** Answers along the way with the fewest of them; what a part joins costs none (breadth first, in two queues). */
function fewestBeeps(ways: readonly (readonly { to: number; by: number | null }[])[], from: number, to: number): number[] | null {
  const came = new Map<number, { readonly from: number; readonly by: number | null }>();
  const done = new Set<number>();
  let now: { pad: number; from: number; by: number | null }[] = [{ pad: from, from, by: null }];
  while (now.length > 0) {
    const next: typeof now = [];
    // What a part joins belongs to the same step: it is put at the end of the queue that is worked off.
    for (const { pad, from: before, by } of now) {
      if (done.has(pad)) continue;
      done.add(pad);
      came.set(pad, { from: before, by });
      for (const w of ways[pad]!) if (!done.has(w.to)) (w.by === null ? now : next).push({ pad: w.to, from: pad, by: w.by });
    }
    now = next;
  }
  if (!done.has(to)) return null;
  const path: number[] = [];
  for (let at = to; at !== from; at = came.get(at)!.from) {
    const { by } = came.get(at)!;
    if (by !== null) path.push(by);
  }
  return path;
}
