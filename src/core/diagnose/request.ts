import { type Circuit, describe, findNet, findPart, readDeck, readSpiceNumber } from '../circuit';
import { type Board, type BoardPart, type Fault } from '../fault';
import { BOARD_KINDS, type BoardKind } from '../vocabulary';
import { decadeRanges, HANDHELD, type MeterProfile } from '../meter';
import { readTolerance } from '../quantity';
import { Diagnoser } from './posterior';
import { type Evidence, type Observable } from '../specimen';

/** One request of `zesty diagnose`, already known to be an object. */
export interface DiagnoseRequest {
  readonly id: string;
  readonly deck: string;
  readonly bom: readonly Readonly<Record<string, string>>[];
  readonly testPoints: readonly { readonly name: string; readonly node: string }[];
  readonly neighbours: readonly (readonly [string, string])[];
  readonly meter: { readonly inputResistance: number; readonly percent: number; readonly counts: number; readonly displayCounts: number };
  readonly readings: readonly { readonly at: string; readonly mode: string; readonly value: number | 'over' }[];
}

export interface DiagnoseResponse {
  readonly suspects: readonly (Fault & { readonly probability: number })[];
  readonly unexplained: number;
  readonly next: { readonly at: string; readonly mode: string; readonly bits: number } | null;
}

const ANSWERED_SUSPECTS = 40;

/**
 * A diagnoser for the board of a request.
 * @throws Error naming the line of the deck or the row of the parts list that cannot be used.
 */
export function diagnoserFor(request: Omit<DiagnoseRequest, 'id' | 'readings'>): Diagnoser {
  const { circuit, diagnostics } = readDeck(request.deck);
  const error = diagnostics.find((d) => d.severity === 'error');
  if (error) throw new Error(`deck ${describe(error)}`);
  const board = boardFor(circuit, request.bom, request.neighbours);
  const { parts } = board;
  const observables: Observable[] = [];
  for (const p of parts) if (p.kind === 'supply') observables.push({ id: `${p.ref} dca`, mode: 'dca', source: p.element });
  for (const t of request.testPoints) {
    const net = findNet(circuit, t.node);
    if (net === undefined) throw new Error(`test point ${t.name}: the deck has no node ${t.node}`);
    observables.push({ id: `${t.name} dcv`, mode: 'dcv', red: net, black: '0' });
  }
  return new Diagnoser({ board, scenes: [{ circuit, observables }], meter: autorangingMeter(request.meter) });
}

/**
 * The board that a deck, its parts list and its neighbouring nets describe.
 * @throws Error naming the row of the parts list that cannot be used.
 */
export function boardFor(circuit: Circuit, bom: DiagnoseRequest['bom'], neighbours: DiagnoseRequest['neighbours']): Board {
  return { parts: bom.map((row, i) => readRow(row, i, (name) => findPart(circuit, name) !== undefined)), neighbours };
}

export function answer(diagnoser: Diagnoser, readings: DiagnoseRequest['readings']): DiagnoseResponse {
  const evidence: Evidence[] = readings.map((r) => ({ id: `${r.at} ${r.mode}`, value: r.value }));
  const { suspects, unexplained, next } = diagnoser.diagnose(evidence);
  const [at, mode] = next ? next.id.split(' ') : [];
  return {
    suspects: suspects.slice(0, ANSWERED_SUSPECTS).map((s) => ({ ...s.fault, probability: s.probability })),
    unexplained,
    next: next && at && mode ? { at, mode, bits: next.bits } : null,
  };
}

function autorangingMeter(m: DiagnoseRequest['meter']): MeterProfile {
  const dcv = decadeRanges(0.4, 400, m.percent, m.counts, m.displayCounts);
  const dca = decadeRanges(4e-4, 4000, m.percent, m.counts, m.displayCounts);
  return { ...HANDHELD, id: 'request', name: 'meter of the request', inputResistance: m.inputResistance, ranges: { ...HANDHELD.ranges, dcv, dca } };
}

const KINDS: readonly string[] = BOARD_KINDS;

function readRow(row: Readonly<Record<string, string>>, index: number, inDeck: (name: string) => boolean): BoardPart {
  const ref = (row['ref'] ?? '').trim();
  const kind = (row['kind'] ?? '').trim().toLowerCase();
  if (!ref) throw new Error(`parts list row ${index + 1}: no ref`);
  if (!KINDS.includes(kind)) throw new Error(`parts list row ${index + 1} (${ref}): kind "${kind}" is not known`);
  const text = (row['value'] ?? '').trim();
  const note = row['note'] ?? '';
  return {
    ref,
    element: inDeck(ref) ? ref : `X${ref}`,
    kind: kind as BoardKind,
    value: readSpiceNumber(text),
    model: readSpiceNumber(text) === null ? text : null,
    tolerance: readTolerance(row['tolerance'] ?? '') ?? [0, 0],
    range: readRange(note),
  };
}

/** The `hfe a..b` or `vto a..b` at the beginning of a note. */
function readRange(note: string): [number, number] | null {
  const match = /^\s*(?:hfe|vto)\s+(-?[\d.]+?)\.\.(-?[\d.]+)/i.exec(note);
  return match ? [Number(match[1]), Number(match[2])] : null;
}
