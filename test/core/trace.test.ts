import fc from 'fast-check';
import { type Answer, boardFor, type Difference, type FittedPart, type Pad, type PadPair, type TracedBoard, traceStep } from '@/core/trace';

const THRESHOLD = 40;

/** Components of a board that differs from the drawing: an independent flood over edges. */
function flood(size: number, edges: readonly PadPair[]): number[] {
  const of = new Array<number>(size).fill(-1);
  const ways = Array.from({ length: size }, () => [] as number[]);
  for (const [a, b] of edges) {
    ways[a]!.push(b);
    ways[b]!.push(a);
  }
  for (let i = 0; i < size; i++) {
    const queue = of[i] === -1 ? [i] : [];
    for (let at = queue.pop(); at !== undefined; at = queue.pop()) {
      if (of[at] !== -1) continue;
      of[at] = i;
      queue.push(...ways[at]!);
    }
  }
  return of;
}

const chain = (pads: readonly number[]): PadPair[] => pads.slice(1).map((p, i) => [pads[i]!, p] as const);

/** Edges of the board that a set of differences describes. */
function edgesWith(board: TracedBoard, differences: readonly Difference[]): PadPair[] {
  const nets = new Map<string, number[]>();
  const moved = new Map(differences.flatMap((d) => (d.kind === 'moved' ? [[d.pad, d.to] as const] : [])));
  board.pads.forEach((p, i) => {
    const net = moved.get(i) ?? p.net;
    nets.set(net, [...(nets.get(net) ?? []), i]);
  });
  const missing = new Set(differences.flatMap((d) => (d.kind === 'missing' ? [d.ref] : [])));
  const open = new Map(differences.flatMap((d) => (d.kind === 'open' ? [[d.net, d.parts] as const] : [])));
  return [
    ...[...nets].flatMap(([net, pads]) => (open.has(net) ? open.get(net)!.flatMap(chain) : chain(pads))),
    ...board.joined,
    ...board.links.filter((l) => !missing.has(l.ref)).map((l) => l.pads),
    ...differences.flatMap((d) => (d.kind === 'bridge' ? [d.pads] : [])),
  ];
}

/** Asks until the board is proved, and says how many questions that took. */
function trace(board: TracedBoard, truth: readonly number[], goal: 'prove' | 'locate') {
  const answers: Answer[] = [];
  const asked = new Set<string>();
  for (;;) {
    const step = traceStep(board, answers, goal);
    if (step.kind !== 'ask') return { step, answers };
    const key = [...step.pads].sort((a, b) => a - b).join('-');
    expect(asked.has(key)).toBe(false);
    asked.add(key);
    const [a, b] = step.pads;
    answers.push({ pads: step.pads, beep: truth[a] === truth[b] });
    expect(answers.length).toBeLessThan(board.pads.length * board.pads.length);
  }
}

/** Boards on a grid with random nets, parts between pads side by side, and what lies beside what. */
const boards = fc
  .record({
    columns: fc.integer({ min: 2, max: 5 }),
    rows: fc.integer({ min: 2, max: 4 }),
    nets: fc.array(fc.integer({ min: 0, max: 5 }), { minLength: 20, maxLength: 20 }),
    parts: fc.array(fc.record({ at: fc.nat(18), kind: fc.constantFrom('fuse', 'link', 'diode') }), { maxLength: 3 }),
  })
  .map(({ columns, rows, nets, parts }) => {
    const size = columns * rows;
    const pads = Array.from({ length: size }, (_, i): Pad => ({
      id: `X${i}.1`,
      net: `n${nets[i]!}`,
      x: (i % columns) * 2.54,
      y: Math.floor(i / columns) * 2.54,
    }));
    const neighbours = pads.flatMap((_, i): PadPair[] => [
      ...((i + 1) % columns ? [[i, i + 1] as const] : []),
      ...(i + columns < size ? [[i, i + columns] as const] : []),
    ]);
    const used = new Set<number>();
    const fitted = parts.flatMap(({ at, kind }, k): FittedPart[] => {
      const pair = neighbours[at % neighbours.length]!;
      if (pair.some((p) => used.has(p)) || pads[pair[0]]!.net === pads[pair[1]]!.net) return [];
      pair.forEach((p) => used.add(p));
      return [{ ref: `W${k}`, kind, pads: pair, ohms: kind === 'diode' ? null : 0.1 }];
    });
    return boardFor(pads, neighbours, fitted, THRESHOLD);
  });

/** One fault of each kind that the board can have, chosen by a number. */
function plant(board: TracedBoard, dice: number): Difference | null {
  const bridges = board.neighbours.filter(([a, b]) => board.pads[a]!.net !== board.pads[b]!.net);
  const netOf = (net: string) => board.pads.flatMap((p, i) => (p.net === net ? [i] : []));
  const mobile = board.pads.flatMap((_, i) => (board.mobile[i] ? [i] : []));
  const kinds: (() => Difference | null)[] = [
    () => (bridges.length ? { kind: 'bridge', pads: bridges[dice % bridges.length]! } : null),
    () => {
      const pads = netOf(board.pads[dice % board.pads.length]!.net);
      const cut = 1 + (dice % Math.max(1, pads.length - 1));
      return pads.length > 1 ? { kind: 'open', net: board.pads[pads[0]!]!.net, parts: [pads.slice(0, cut), pads.slice(cut)] } : null;
    },
    () => (board.links.length ? { kind: 'missing', ref: board.links[dice % board.links.length]!.ref } : null),
    () => {
      const pad = mobile[dice % Math.max(1, mobile.length)];
      if (pad === undefined) return null;
      const other = board.pads.find((p) => p.net !== board.pads[pad]!.net);
      return other ? { kind: 'moved', pad, from: board.pads[pad]!.net, to: other.net } : null;
    },
  ];
  return kinds[dice % kinds.length]!();
}

const same = (a: readonly number[], b: readonly number[]) => a.every((_, i) => a.every((__, j) => (a[i] === a[j]) === (b[i] === b[j])));

describe('tracing', () => {
  it('proves a board that is as drawn with the fewest questions that can do', () => {
    fc.assert(
      fc.property(boards, fc.constantFrom('prove' as const, 'locate' as const), (board, goal) => {
        const truth = flood(board.pads.length, edgesWith(board, []));
        const { step, answers } = trace(board, truth, goal);
        expect(step).toEqual({ kind: 'done', asDrawn: true, differences: [] });
        // n − 1 for what is joined (what a part joins is one point), one for each two components that lie side by side.
        const points = flood(board.pads.length, board.joined);
        const joints = new Set(points).size - new Set(truth).size;
        const sides = new Set(board.neighbours.map(([a, b]) => [truth[a]!, truth[b]!].sort((x, y) => x - y).join('-')));
        for (const c of truth) sides.delete(`${c}-${c}`);
        expect(answers).toHaveLength(joints + sides.size);
      }),
    );
  });

  it('finds what was planted, or as little that gives the same board', () => {
    fc.assert(
      fc.property(boards, fc.nat(10_000), fc.nat(10_000), (board, one, two) => {
        const planted = [plant(board, one), plant(board, two)].filter((d) => d !== null);
        const nets = planted.flatMap((d) => (d.kind === 'open' ? [d.net] : d.kind === 'moved' ? [d.from, d.to] : []));
        // Two faults in one net are one story that the faults do not tell.
        fc.pre(
          new Set(nets).size === nets.length && !planted.some((d) => d.kind === 'bridge' && planted.some((m) => m.kind === 'moved' && d.pads.includes(m.pad))),
        );
        const truth = flood(board.pads.length, edgesWith(board, planted));
        const { step } = trace(board, truth, 'locate');
        if (step.kind !== 'done') throw new Error(`ended with ${step.kind}`);
        expect(same(flood(board.pads.length, edgesWith(board, step.differences)), truth)).toBe(true);
        const count = (all: readonly Difference[]) => all.reduce((n, d) => n + (d.kind === 'open' ? d.parts.length - 1 : 1), 0);
        expect(count(step.differences)).toBeLessThanOrEqual(count(planted));
        expect(step.asDrawn).toBe(same(truth, flood(board.pads.length, edgesWith(board, []))));
      }),
      { numRuns: 300 },
    );
  });

  it('stops proving at the first answer that is not as drawn', () => {
    const pads: Pad[] = ['a', 'a', 'b', 'b'].map((net, i) => ({ id: `R${i}.1`, net, x: i, y: 0 }));
    const board = boardFor(pads, [[1, 2]], [], THRESHOLD);
    expect(traceStep(board, [{ pads: [0, 1], beep: false }], 'prove')).toMatchObject({ kind: 'done', asDrawn: false });
    expect(traceStep(board, [{ pads: [0, 1], beep: false }], 'locate')).toMatchObject({ kind: 'ask' });
  });

  it('names the answers that cannot all be true, and none that could be left out', () => {
    const pads: Pad[] = ['a', 'b', 'c', 'd'].map((net, i) => ({ id: `R${i}.1`, net, x: i, y: 0 }));
    const fuse: FittedPart = { ref: 'F1', kind: 'fuse', pads: [2, 3], ohms: 0.1 };
    const board = boardFor(pads, [], [fuse], THRESHOLD);
    const beep = (a: number, b: number, yes = true): Answer => ({ pads: [a, b], beep: yes });
    expect(traceStep(board, [beep(0, 3), beep(0, 1), beep(1, 2), beep(0, 3, false)], 'locate')).toEqual({ kind: 'conflict', answers: [0, 3] });
    expect(traceStep(board, [beep(0, 1), beep(1, 2), beep(0, 3, false)], 'locate')).toEqual({ kind: 'conflict', answers: [0, 1, 2] });
    expect(traceStep(board, [beep(2, 3, false)], 'prove')).toEqual({ kind: 'conflict', answers: [0] });
  });

  it('takes a part for a joint below the threshold of the tester, and none above', () => {
    const pads: Pad[] = ['a', 'b'].map((net, i) => ({ id: `R${i}.1`, net, x: i, y: 0 }));
    const resistor = (ohms: number): FittedPart => ({ ref: 'R1', kind: 'resistor', pads: [0, 1], ohms });
    // A tester beeps below 30 to 50 ohm (common practice, no source).
    expect(boardFor(pads, [], [resistor(33)], 40).joined).toEqual([[0, 1]]);
    expect(boardFor(pads, [], [resistor(47)], 40).joined).toEqual([]);
  });
});
