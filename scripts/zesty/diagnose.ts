import Papa from 'papaparse';
import type { Diagnoser } from '../../src/core/diagnose/diagnoser';
import { answer, diagnoserFor, diagnoserKey, type RequestObservation, type RequestReading, type RequestStage } from '../../src/core/diagnose/request';
import { SIGNS } from '../../src/core/specimen';
import type { Request } from './main';
import { arrayAt, arrayOf, objectAt, numberAt, textAt, wordAt } from './fields';

/** Boards by the text of their request: predictions of a board are computed once. */
const boards = new Map<string, Diagnoser>();
const KEPT_BOARDS = 8;

export function diagnose(request: Request): object {
  const deck = textAt(request, 'deck');
  const bom = textAt(request, 'bom');
  const testPoints = arrayOf(request, 'testPoints').map((t) => ({ name: textAt(t, 'name'), node: textAt(t, 'node') }));
  const neighbours = request['neighbours'] === undefined ? null : arrayAt(request, 'neighbours').map((n) => n as [string, string]);
  const limits = request['limit'] === undefined ? {} : objectAt(request, 'limit');
  const limit = Object.fromEntries(Object.keys(limits).map((ref) => [ref, numberAt(limits, ref)]));
  const m = objectAt(request, 'meter');
  const meter = {
    inputResistance: numberAt(m, 'inputResistance'),
    percent: numberAt(m, 'percent'),
    counts: numberAt(m, 'counts'),
    displayCounts: numberAt(m, 'displayCounts'),
    ...(m['coldTest'] === undefined ? {} : { coldTest: wordAt(m, 'coldTest', ['unknown'] as const) }),
    ...(m['acResponse'] === undefined ? {} : { acResponse: wordAt(m, 'acResponse', ['true-rms', 'average'] as const) }),
  };
  const readings = arrayOf(request, 'readings').map(readingAt);
  const twin = (request['twin'] === undefined ? [] : arrayOf(request, 'twin')).map(readingAt);
  const seen = request['symptoms'] === undefined ? {} : objectAt(request, 'symptoms');
  const symptoms = Object.fromEntries(Object.entries(seen).map(([id, s]) => [id, s === true]));
  const stages = (request['stages'] === undefined ? [] : arrayOf(request, 'stages')).map(stageAt);
  const observations = (request['observations'] === undefined ? [] : arrayOf(request, 'observations')).map((o): RequestObservation => ({
    part: textAt(o, 'part'),
    what: wordAt(o, 'what', request['run'] === undefined ? (['lit', 'dark'] as const) : SIGNS),
  }));
  const rows = Papa.parse<Record<string, string>>(bom, { header: true, skipEmptyLines: true }).data;
  const run = request['run'] === undefined ? undefined : runAt(objectAt(request, 'run'));
  const board = { deck, bom: rows, testPoints, neighbours, limit, meter, readings, stages, twin, symptoms, run };
  const key = diagnoserKey(board);
  let diagnoser = boards.get(key);
  if (!diagnoser) {
    diagnoser = diagnoserFor(board);
    if (boards.size >= KEPT_BOARDS) boards.delete(boards.keys().next().value!);
    boards.set(key, diagnoser);
  }
  return answer(diagnoser, { ...board, observations }, board);
}

const runAt = (r: Request) => ({ rise: numberAt(r, 'rise'), settle: numberAt(r, 'settle'), window: numberAt(r, 'window') });

const readingAt = (r: Request): RequestReading => ({
  at: textAt(r, 'at'),
  mode: textAt(r, 'mode'),
  value: r['value'] === 'over' ? 'over' : numberAt(r, 'value'),
  ...(r['to'] === undefined ? {} : { to: textAt(r, 'to') }),
  ...(r['again'] === true ? { again: true } : {}),
  ...(r['stage'] === undefined ? {} : { stage: textAt(r, 'stage') }),
});

function stageAt(raw: Request): RequestStage {
  const absent = arrayAt(raw, 'absent').map((ref) => String(ref));
  const supply = objectAt(raw, 'supply');
  return { id: textAt(raw, 'id'), absent, supply: Object.fromEntries(Object.keys(supply).map((ref) => [ref, numberAt(supply, ref)])) };
}
