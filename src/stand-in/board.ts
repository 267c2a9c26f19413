import { type Circuit } from '@/core/circuit/netlist';
import { looseKindOf } from '@/core/bench/pile';
import { type LooseEntryBody } from '@/core/kit/entry';
import { capacitorCode } from '@/core/marking/printBands';
import { FaultSampler } from '@/core/diagnose/predict';
import { atRest, inMotion, MODEL_SPREADS, type Problem, type StageScene } from '@/core/diagnose/problem';
import { readRunning } from '@/core/diagnose/running';
import { fromScale, OVER } from '@/core/diagnose/scale';
import { specimenOf, specimenSteps } from '@/core/diagnose/specimen';
import { applyFault } from '@/core/fault/apply';
import { type Board } from '@/core/fault/board';
import { type Fault, HEALTHY } from '@/core/fault/fault';
import {
  deriveBoardState,
  expectationOf,
  type KitDocument,
  type Line,
  meterOf,
  type ObserveCheck,
  offsetOf,
  type ReadingValue,
  type Stage,
  standing,
} from '@/core/kit';
import { type MeterMode, type MeterProfile, rangeFor, uncertaintyIn } from '@/core/meter';
import { showsSign } from '@/core/stage/observe';
import { boardOf, circuitAt, circuitOf, sceneOf } from '@/core/stage/scene';
import { randomStream } from '@/core/statistics/random';

/**
 * A simulated bag of parts and board, and a meter on it, for practice without hardware.
 * It knows the hidden fault; nothing else in the program does.
 */

export const hideFault = (fault: Fault) => btoa(JSON.stringify(fault));

/** The fault on the simulated board, mended once one of its parts (or the board itself) was repaired. */
function hiddenFault(doc: KitDocument): Fault {
  if (!doc.settings.standIn) return HEALTHY;
  const fault = JSON.parse(atob(doc.settings.standIn.fault)) as Fault;
  const repaired = new Set(standing(doc.log).flatMap((e) => (e.kind === 'repaired' ? e.refs : [])));
  const places: readonly string[] = fault.kind === 'bridge' ? fault.detail.nets : fault.parts;
  return places.some((ref) => repaired.has(ref)) ? HEALTHY : fault;
}

/** True value of one piece in the simulated bag, SI. */
function pieceValue(doc: KitDocument, line: Line, piece: number): number | null {
  const given = doc.settings.standIn?.pieces[line.id]?.[piece];
  if (given !== undefined) return given;
  const expected = expectationOf(line);
  if (!expected) return null;
  const random = randomStream(hash(`${doc.settings.standIn?.seed ?? 0}/${line.id}/${piece}`));
  const share = (random() + random() + random()) / 3;
  const [low, high] = expected.tolerance;
  return expected.nominal * (1 + (low + (high - low) * share) * 0.85);
}

/** Pieces that really lie in the simulated bag. */
export function pieceCount(doc: KitDocument, line: Line): number {
  return doc.settings.standIn?.pieces[`${line.id}#count`]?.[0] ?? line.quantity;
}

/** A piece drawn from the simulated bag: what is printed on it and what the meter shows. */
export type LooseFromBag = Omit<LooseEntryBody, 'kind' | 'meter'>;

/** The bag tipped out: piece number `number` in a shuffled order that stays the same; null when all are drawn. */
export function looseFromBag(doc: KitDocument, number: number): LooseFromBag | null {
  const seed = doc.settings.standIn?.seed ?? 0;
  const all = doc.sheet.lines.flatMap((line) => (looseKindOf(line) ? Array.from({ length: pieceCount(doc, line) }, (_, piece) => ({ line, piece })) : []));
  const order = all.map((p) => ({ p, at: randomStream(hash(`${seed}/bag/${p.line.id}/${p.piece}`))() })).sort((a, b) => a.at - b.at);
  const drawn = order[number]?.p;
  if (!drawn) return null;
  const { line, piece } = drawn;
  return {
    part: looseKindOf(line)!,
    reading: readPiece(doc, line, piece, number),
    marking: printOn(line, pieceValue(doc, line, piece)),
    polarity: line.kind === 'npn' ? 'NPN' : line.kind === 'pnp' ? 'PNP' : null,
  };
}

/** What stands on a piece: bands of resistors are left to the eye (half of the builders measure instead), codes are read. */
function printOn(line: Line, value: number | null): string | null {
  const right = line.value === null || value === null || Math.abs(value / line.value - 1) < 0.5;
  if (line.kind === 'capacitor' && line.value !== null && right) return capacitorCode(line.value);
  if (line.kind === 'electrolytic') return line.label;
  if (line.kind === 'npn' || line.kind === 'pnp' || line.kind === 'diode') return line.label;
  return line.kind === 'led' ? (line.colour ?? null) : null;
}

/** What the simulated meter shows on a loose piece. */
export function readPiece(doc: KitDocument, line: Line, piece: number, attempt: number): ReadingValue | null {
  const expected = expectationOf(line);
  const value = pieceValue(doc, line, piece);
  if (!expected || value === null) return null;
  const meter = meterOf(doc);
  return display(meter, expected.mode, value + offsetOf(meter, expected.mode), randomStream(hash(`${line.id}/${piece}/${attempt}`)));
}

/** What the simulated meter shows at an observable of a stage; null when the board has no such point. */
export function readBoard(doc: KitDocument, stage: Stage, observableId: string, attempt: number): ReadingValue | null {
  const whole = circuitOf(doc.sheet);
  const scene = sceneOf(doc, whole, stage, deriveBoardState(doc));
  const observable = scene.observables.find((o) => o.id === observableId);
  if (!observable) return null;
  const meter = meterOf(doc);
  const board = trueBoard(doc, whole);
  const one: StageScene = { circuit: scene.circuit, observables: [observable] };
  const value = restingValue(doc, { board, scenes: [atRest(one)], meter }) ?? runningValue(doc, board, one);
  if (value === null || value === 'over') return value;
  return display(meter, observable.mode, value, randomStream(hash(`${observableId}/${attempt}`)));
}

/** True value of the only observable of a problem, where an operating point tells it. */
function restingValue(doc: KitDocument, problem: Problem): ReadingValue | null {
  const [observable] = problem.scenes[0]!.observables;
  if (!observable) return null;
  const sample = new FaultSampler(problem, hiddenFault(doc), new Map(), null).draw(specimenNumber(doc), 1, MODEL_SPREADS[0]!);
  if (sample.rows === 0) return null;
  const value = fromScale(observable.mode, sample.values[0]!);
  return value >= OVER[observable.mode] * 0.999 ? 'over' : value;
}

/** The same on a board that runs: the average that a meter settles at, or what a counter counts (nothing is 0 Hz). */
function runningValue(doc: KitDocument, board: Board, scene: StageScene): ReadingValue | null {
  const observables = inMotion(scene);
  const [observable] = observables;
  if (!observable) return null;
  const fault = hiddenFault(doc);
  const faulty = applyFault(scene.circuit, board, fault);
  const { readings, stalled } = readRunning(faulty.circuit, observables, {
    prepare: (system) => {
      const specimen = specimenOf(board, specimenNumber(doc) + 1);
      for (const step of specimenSteps(system, faulty.circuit, board, fault, faulty.pieceAt)) step(specimen, MODEL_SPREADS[0]!);
    },
  });
  if (stalled && observable.mode !== 'frequency')
    return restingValue(doc, { board, scenes: [{ circuit: scene.circuit, observables: [observable] }], meter: meterOf(doc) });
  return readings.get(observable.id) ?? (observable.mode === 'frequency' ? 0 : null);
}

const specimenNumber = (doc: KitDocument) => doc.settings.standIn?.seed ?? 1;

/** Whether the simulated board does what an observation expects; true when nothing in the circuit shows it. */
export function watchBoard(doc: KitDocument, stage: Stage, check: ObserveCheck): boolean {
  const whole = circuitOf(doc.sheet);
  const circuit = applyFault(circuitAt(doc, whole, stage, deriveBoardState(doc)), trueBoard(doc, whole), hiddenFault(doc)).circuit;
  return showsSign(doc.sheet, circuit, check);
}

/** The board with the very pieces of the bag: values exact, so that Check and Power up tell one story. */
function trueBoard(doc: KitDocument, whole: Circuit): Board {
  const board = boardOf(doc, whole);
  const lineOf = new Map(doc.sheet.lines.flatMap((l) => l.refs.map((r, i) => [r, { line: l, piece: i }] as const)));
  return {
    ...board,
    parts: board.parts.map((p) => {
      const found = lineOf.get(p.ref);
      // A piece that was supplied wrong has been replaced by a right one before it went in.
      if (!found || !['resistor', 'relay'].includes(found.line.kind) || doc.settings.standIn?.pieces[found.line.id]?.[found.piece] !== undefined)
        return { ...p, measured: undefined };
      return { ...p, measured: { value: pieceValue(doc, found.line, found.piece)!, standard: 0 } };
    }),
  };
}

/** A value as a display shows it: error within the meter's accuracy, rounded to its step, or over-range. */
function display(meter: MeterProfile, mode: MeterMode, value: number, random: () => number): ReadingValue | null {
  const range = rangeFor(meter, mode, value);
  if (!range) return null;
  if (Math.abs(value) > range.upTo) return 'over';
  const error = (random() * 2 - 1) * uncertaintyIn(range, value).halfWidth * 0.8;
  const shown = Math.round((value + error) / range.resolution) * range.resolution;
  return Number(shown.toPrecision(8));
}

function hash(text: string): number {
  let h = 2166136261;
  for (const c of text) h = Math.imul(h ^ c.charCodeAt(0), 16777619);
  return h >>> 0;
}
