import { expectation, LogicDiagnoser, type LogicFault, readBoard, type Result } from '../../src/core/logic';
import { arrayAt, textAt } from './fields';
import type { Request } from './main';

/** Boards by their text: a session asks of one board many times. */
const known = new Map<string, LogicDiagnoser>();
const MOST_KNOWN = 8;

/** Boards round chips: what their checks show, what is wrong, what to try next. */
export function functions(request: Request): object {
  const task = textAt(request, 'task');
  if (task === 'expect') return { expect: expectation(readBoard(request['board'])) };
  if (task !== 'suspects' && task !== 'next') throw new Error(`task “${task}” is not known: expect, suspects or next`);
  const diagnoser = diagnoserOf(request['board']);
  const results = arrayAt(request, 'results').map(resultOf);
  const { suspects, unexplained, groups, doubts } = diagnoser.suspects(results);
  const told = suspects.map(({ fault, probability }) => ({ ...faultOf(fault), probability }));
  return task === 'next'
    ? { next: diagnoser.next(results), suspects: told, unexplained }
    : { suspects: told, unexplained, groups: groups.map((g) => g.map(faultOf)), doubts };
}

const faultOf = ({ kind, parts, detail }: LogicFault) => ({ kind, parts, detail });

function resultOf(raw: unknown): Result {
  const { check, saw } = (raw ?? {}) as { check?: unknown; saw?: unknown };
  if (typeof check !== 'string' || !Array.isArray(saw)) throw new Error('a result has the fields “check” and “saw”');
  return { check, saw };
}

function diagnoserOf(board: unknown): LogicDiagnoser {
  const text = JSON.stringify(board);
  const held = known.get(text);
  if (held) return held;
  if (board === undefined) throw new Error('the field “board” is missing');
  const made = new LogicDiagnoser(readBoard(board));
  if (known.size >= MOST_KNOWN) known.delete(known.keys().next().value!);
  known.set(text, made);
  return made;
}
