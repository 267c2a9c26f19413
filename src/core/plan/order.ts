/** Something to be put in order. */
export interface Node {
  readonly id: string;
  readonly rank: readonly number[];
}

export interface Edge {
  readonly before: string;
  readonly after: string;
  /** Why, where it is a rule that somebody gave and that may be given up. */
  readonly rule: string | null;
  /** Never given up: firm edges alone form no ring. */
  readonly firm?: true;
}

export interface Ordered {
  readonly ids: readonly string[];
  /** Rules that could not be kept, each with the ring in which it stood. */
  readonly given: readonly { readonly rule: string; readonly ring: readonly string[] }[];
}

/**
 * The order in which the smallest rank comes first of all that nothing holds back (Kahn 1962). A ring of edges gives up the
 * rules in it, the last first; where it has none, another edge that is not firm.
 */
export function inOrder(nodes: readonly Node[], edges: readonly Edge[], compare: (a: readonly number[], b: readonly number[]) => number): Ordered {
  const given: { rule: string; ring: readonly string[] }[] = [];
  const known = new Set(nodes.map((n) => n.id));
  let held = edges.filter((e) => known.has(e.before) && known.has(e.after));
  const sorted = [...nodes].sort((a, b) => compare(a.rank, b.rank));
  const place = new Map(sorted.map((n, i) => [n.id, i]));
  for (;;) {
    const waits = new Map<string, number>();
    const after = new Map<string, string[]>();
    for (const e of held) {
      waits.set(e.after, (waits.get(e.after) ?? 0) + 1);
      const behind = after.get(e.before);
      if (behind) behind.push(e.after);
      else after.set(e.before, [e.after]);
    }
    const left = new Set(sorted.map((n) => n.id));
    const ids: string[] = [];
    // What became free lies anywhere before this place; all before `from` is done or still held.
    for (let from = 0; from < sorted.length; from++) {
      const { id } = sorted[from]!;
      if (!left.has(id) || (waits.get(id) ?? 0) > 0) continue;
      ids.push(id);
      left.delete(id);
      let earliest = from;
      for (const a of after.get(id) ?? []) {
        waits.set(a, waits.get(a)! - 1);
        if (waits.get(a) === 0) earliest = Math.min(earliest, place.get(a)! - 1);
      }
      from = earliest;
    }
    if (left.size === 0) return { ids, given };
    const ring = ringIn(held.filter((e) => left.has(e.before) && left.has(e.after)));
    const dropped = ring.findLast((e) => e.rule !== null) ?? ring.findLast((e) => !e.firm)!;
    given.push({ rule: dropped.rule ?? 'the order of the stages', ring: ring.map((e) => e.before) });
    held = held.filter((e) => e !== dropped);
  }
}

/** Edges of one ring among edges of which every node is held back. */
function ringIn(edges: readonly Edge[]): Edge[] {
  const into = new Map(edges.map((e) => [e.after, e]));
  const seen: Edge[] = [];
  for (let at = edges[0]!; !seen.includes(at); at = into.get(at.before)!) {
    seen.push(at);
    if (!into.has(at.before)) break;
  }
  const last = seen.at(-1)!;
  const begin = seen.findIndex((e) => e.after === last.before);
  return seen.slice(Math.max(0, begin)).reverse();
}
