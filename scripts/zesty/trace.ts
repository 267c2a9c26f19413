import { type Answer, boardFor, type Difference, type FittedPart, type Pad, type PadPair, traceStep, type TracedBoard } from '../../src/core/trace';
import { arrayAt, arrayOf, numberAt, objectAt, textAt, wordAt } from './fields';
import type { Request } from './main';

/** The next question of a continuity tester, or what it found. */
export function trace(request: Request): object {
  const netlist = objectAt(request, 'netlist');
  const pads = arrayOf(netlist, 'pads').map((p): Pad => ({ id: textAt(p, 'id'), net: textAt(p, 'net'), x: numberAt(p, 'x'), y: numberAt(p, 'y') }));
  const numbers = new Map<string, number>();
  pads.forEach((p, i) => {
    if (numbers.has(p.id)) throw new Error(`pad ${p.id} is there twice in the netlist`);
    numbers.set(p.id, i);
  });
  const padAt = (id: unknown, where: string): number => {
    const found = typeof id === 'string' ? numbers.get(id) : undefined;
    if (found === undefined) throw new Error(`${where}: no pad ${typeof id === 'string' ? id : JSON.stringify(id ?? null)}`);
    return found;
  };
  const pairOf = (two: readonly unknown[], where: string): PadPair => {
    if (two.length !== 2) throw new Error(`${where} must name two pads`);
    const pair = [padAt(two[0], where), padAt(two[1], where)] as const;
    if (pair[0] === pair[1]) throw new Error(`${where} names ${String(two[0])} twice`);
    return pair;
  };
  const neighbours = arrayAt(netlist, 'neighbours').map((pair, i) => {
    if (!Array.isArray(pair)) throw new Error(`neighbours ${i} must be a pair of pads`);
    return pairOf(pair as unknown[], `neighbours ${i}`);
  });
  const fitted = arrayOf(request, 'fitted').map((f, i): FittedPart => {
    const ohms = f['ohms'] === null ? null : numberAt(f, 'ohms');
    if (ohms !== null && ohms < 0) throw new Error(`fitted ${i}: "ohms" must not be negative`);
    const ids = arrayAt(f, 'pads').map((id) => padAt(id, `fitted ${i}`));
    if (new Set(ids).size < ids.length) throw new Error(`fitted ${i} names a pad twice`);
    return { ref: textAt(f, 'ref'), kind: textAt(f, 'kind'), pads: ids, ohms };
  });
  const threshold = numberAt(objectAt(request, 'meter'), 'threshold');
  if (threshold <= 0) throw new Error('"threshold" must be positive');
  const goal = wordAt(request, 'goal', ['prove', 'locate']);
  const answers = arrayOf(request, 'answers').map((a, i): Answer => {
    if (typeof a['beep'] !== 'boolean') throw new Error(`answer ${i}: "beep" must be true or false`);
    return { pads: pairOf([a['a'], a['b']], `answer ${i}`), beep: a['beep'] };
  });
  return answerOf(boardFor(pads, neighbours, fitted, threshold), answers, goal);
}

function answerOf(board: TracedBoard, answers: readonly Answer[], goal: 'prove' | 'locate'): object {
  const step = traceStep(board, answers, goal);
  const id = (pad: number) => board.pads[pad]!.id;
  if (step.kind === 'ask') return { ask: { a: id(step.pads[0]), b: id(step.pads[1]) } };
  if (step.kind === 'conflict') return { conflict: step.answers };
  const written = (d: Difference): object => {
    if (d.kind === 'open') return { ...d, parts: d.parts.map((p) => p.map(id)) };
    if (d.kind === 'bridge') return { kind: d.kind, nets: d.pads.map((p) => board.pads[p]!.net), pads: d.pads.map(id) };
    return d.kind === 'moved' ? { ...d, pad: id(d.pad) } : d;
  };
  return { done: true, verdict: step.asDrawn ? 'as drawn' : 'differs', findings: step.differences.map(written) };
}
