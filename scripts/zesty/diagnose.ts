import Papa from 'papaparse';
import { type Diagnoser } from '../../src/core/diagnose/posterior';
import { answer, diagnoserFor, type DiagnoseRequest } from '../../src/core/diagnose/request';
import { type Request } from './main';
import { arrayOf, objectAt, numberAt, textAt } from './fields';

/** Boards by the text of their request: predictions of a board are computed once. */
const boards = new Map<string, Diagnoser>();
const KEPT_BOARDS = 8;

export function diagnose(request: Request): object {
  const deck = textAt(request, 'deck');
  const bom = textAt(request, 'bom');
  const testPoints = arrayOf(request, 'testPoints').map((t) => ({ name: textAt(t, 'name'), node: textAt(t, 'node') }));
  const neighbours = ((request['neighbours'] ?? []) as unknown[]).map((n) => n as [string, string]);
  const m = objectAt(request, 'meter');
  const meter = {
    inputResistance: numberAt(m, 'inputResistance'),
    percent: numberAt(m, 'percent'),
    counts: numberAt(m, 'counts'),
    displayCounts: numberAt(m, 'displayCounts'),
  };
  const readings = arrayOf(request, 'readings').map((r): DiagnoseRequest['readings'][number] => ({
    at: textAt(r, 'at'),
    mode: textAt(r, 'mode'),
    value: r['value'] === 'over' ? 'over' : numberAt(r, 'value'),
  }));
  const key = JSON.stringify([deck, bom, testPoints, neighbours, meter]);
  let diagnoser = boards.get(key);
  if (!diagnoser) {
    const rows = Papa.parse<Record<string, string>>(bom, { header: true, skipEmptyLines: true }).data;
    diagnoser = diagnoserFor({ deck, bom: rows, testPoints, neighbours, meter });
    if (boards.size >= KEPT_BOARDS) boards.delete(boards.keys().next().value!);
    boards.set(key, diagnoser);
  }
  return answer(diagnoser, readings);
}
