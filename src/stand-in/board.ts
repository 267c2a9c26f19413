import { averageCurrentThrough, type Circuit } from '@/core/circuit';
import type { LooseEntryBody } from '@/core/loop';
import { capacitorCode } from '@/core/marking';
import {
  atRest,
  FaultSampler,
  fromScale,
  inMotion,
  MODEL_SPREADS,
  OVER,
  type Problem,
  isObservable,
  readRunning,
  specimenOf,
  specimenSteps,
  type StageScene,
} from '@/core/specimen';
import { applyFaults, type Board } from '@/core/fault';
import { expectationOf, type Line, listedType, type ObserveCheck, offsetOf, type ReadingValue, type Stage } from '@/core/kit';
import { type MeterProfile, rangeFor } from '@/core/meter';
import { boardOf, circuitAt, circuitOf, sceneOf, showsSign } from '@/core/stage';
import { ledForward, factsOf, type MeterMode, typeReadings } from '@/core/vocabulary';
import { randomStream } from '@/core/statistics';
import { faultsLeft, type Practice } from './practice';

/**
 * A simulated bag of parts and board, and a meter on it, for practice without hardware.
 * It knows the hidden fault; nothing else in the program does.
 */

/** True value of one piece in the simulated bag, SI. */
function pieceValue(practice: Practice, line: Line, piece: number): number | null {
  const given = practice.standIn?.pieces[line.id]?.[piece];
  if (given !== undefined) return given;
  const expected = expectationOf(line);
  if (!expected) return null;
  const random = randomStream(hash(`${practice.standIn?.seed ?? 0}/${line.id}/${piece}`));
  const share = (random() + random() + random()) / 3;
  const usual = usualReading(line);
  if (usual) return usual[0] + (usual[1] - usual[0]) * share;
  const [low, high] = expected.tolerance;
  return expected.nominal * (1 + (low + (high - low) * share) * 0.85);
}

/** What most pieces of a junction read: a bag holds one make, while limits allow for all. */
function usualReading(line: Line): readonly [number, number] | null {
  if (line.kind === 'led') return ledForward(line.colour ?? '')?.usual ?? null;
  const type = typeReadings(listedType(line));
  return (line.kind === 'diode' ? type?.forward?.usual : line.range ? null : type?.gain?.usual) ?? null;
}

/** Pieces that really lie in the simulated bag. */
export function pieceCount(practice: Practice, line: Line): number {
  return practice.standIn?.pieces[`${line.id}#count`]?.[0] ?? line.quantity;
}

/** A piece drawn from the simulated bag: what is printed on it and what the meter shows. */
export type LooseFromBag = Omit<LooseEntryBody, 'kind' | 'meter'>;

/** The bag tipped out: piece number `number` in a shuffled order that stays the same; null when all are drawn. */
export function looseFromBag(practice: Practice, number: number): LooseFromBag | null {
  const seed = practice.standIn?.seed ?? 0;
  const all = practice.setup.sheet.lines.flatMap((line) =>
    factsOf(line.kind).loose ? Array.from({ length: pieceCount(practice, line) }, (_, piece) => ({ line, piece })) : [],
  );
  const order = all.map((p) => ({ p, at: randomStream(hash(`${seed}/bag/${p.line.id}/${p.piece}`))() })).sort((a, b) => a.at - b.at);
  const drawn = order[number]?.p;
  if (!drawn) return null;
  const { line, piece } = drawn;
  return {
    part: factsOf(line.kind).loose!,
    reading: readPiece(practice, line, piece, number),
    marking: printOn(line, pieceValue(practice, line, piece)),
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
export function readPiece(practice: Practice, line: Line, piece: number, attempt: number = practice.attempt): ReadingValue | null {
  const expected = expectationOf(line);
  const value = pieceValue(practice, line, piece);
  if (!expected || value === null) return null;
  const meter = meterAtHand(practice);
  const leads = expected.mode === 'ohms' ? (practice.standIn?.leads ?? 0) : 0;
  return display(practice, expected.mode, value + leads + offsetOf(meter, expected.mode), `${line.id}/${piece}/${attempt}`);
}

/** What the simulated meter shows at an observable of a stage; null when the board has no such point. */
export function readBoard(practice: Practice, stage: Stage, observableId: string, attempt: number = practice.attempt): ReadingValue | null {
  const whole = circuitOf(practice.setup.sheet);
  const scene = sceneOf(practice.setup, whole, stage);
  const observable = scene.observables.find((o) => o.id === observableId);
  if (!observable) return null;
  const meter = meterAtHand(practice);
  const board = trueBoard(practice, whole);
  const one: StageScene = { circuit: scene.circuit, observables: [observable] };
  const value = restingValue(practice, { board, scenes: [atRest(one)], meter }) ?? runningValue(practice, board, one);
  if (value === null || value === 'over') return value;
  const leads = observable.mode === 'ohms' ? (practice.standIn?.leads ?? 0) : 0;
  return display(practice, observable.mode, value + leads, `${observableId}/${attempt}`);
}

/** The simulated bench has one meter: it drives ohms and diode tests as its own figures say, whether or not its owner knows them. */
const meterAtHand = ({ setup }: Practice): MeterProfile => ({ ...setup.meter, coldTest: 'known' });

/** True value of the only observable of a problem, where an operating point tells it. */
function restingValue(practice: Practice, problem: Problem): ReadingValue | null {
  const [observable] = problem.scenes[0]!.observables;
  if (!observable) return null;
  const sample = new FaultSampler(problem, faultsLeft(practice), new Map(), null).draw(specimenNumber(practice), 1, MODEL_SPREADS[0]!);
  if (sample.rows === 0) return null;
  const value = fromScale(observable.mode, sample.values[0]!);
  return value >= OVER[observable.mode] * 0.999 ? 'over' : value;
}

/** The same on a board that runs: the average that a meter settles at, or what a counter counts (nothing is 0 Hz). */
function runningValue(practice: Practice, board: Board, scene: StageScene): ReadingValue | null {
  const observables = inMotion(scene);
  const [observable] = observables;
  if (!observable) return null;
  const faults = faultsLeft(practice);
  const faulty = applyFaults(scene.circuit, board, faults);
  const { readings, stalled } = readRunning(faulty.circuit, observables, {
    prepare: (system) => {
      const specimen = specimenOf(board, specimenNumber(practice) + 1);
      for (const step of specimenSteps(system, faulty.circuit, board, faults, faulty.pieceAt)) step(specimen, MODEL_SPREADS[0]!);
    },
  });
  if (stalled && isObservable(observable))
    return restingValue(practice, { board, scenes: [{ circuit: scene.circuit, observables: [observable] }], meter: meterAtHand(practice) });
  return readings.get(observable.id) ?? (isObservable(observable) ? null : 0);
}

const specimenNumber = (practice: Practice) => practice.standIn?.seed ?? 1;

/** Whether the simulated board does what an observation expects; true when nothing in the circuit shows it. */
export function watchBoard(practice: Practice, stage: Stage, check: ObserveCheck): boolean {
  const whole = circuitOf(practice.setup.sheet);
  const circuit = applyFaults(circuitAt(practice.setup, whole, stage), trueBoard(practice, whole), faultsLeft(practice)).circuit;
  return showsSign(practice.setup.sheet, circuit, check, averageCurrentThrough);
}

/** The board with the very pieces of the bag: values exact, so that Check and Power up tell one story. */
function trueBoard(practice: Practice, whole: Circuit): Board {
  const board = boardOf(practice.setup, whole);
  const lineOf = new Map(practice.setup.sheet.lines.flatMap((l) => l.refs.map((r, i) => [r, { line: l, piece: i }] as const)));
  return {
    ...board,
    parts: board.parts.map((p) => {
      // What is set to so many ohms was set with an ohmmeter.
      if (p.body === 'control' && !p.elements) return { ...p, tolerance: [0, 0], measured: undefined };
      const found = lineOf.get(p.ref);
      // A piece that was supplied wrong has been replaced by a right one before it went in.
      if (!found || !['resistor', 'relay'].includes(found.line.kind) || isWrong(practice, found.line, found.piece)) return { ...p, measured: undefined };
      return { ...p, measured: { value: pieceValue(practice, found.line, found.piece)!, standard: 0 } };
    }),
  };
}

/** Whether the piece that the bag was given for a place is none that its line asks for. */
function isWrong(practice: Practice, line: Line, piece: number): boolean {
  const given = practice.standIn?.pieces[line.id]?.[piece];
  const expected = expectationOf(line);
  if (given === undefined || !expected) return false;
  const off = given / expected.nominal - 1;
  return off < expected.tolerance[0] || off > expected.tolerance[1];
}

/**
 * A value as a display shows it. The percent part of a meter's accuracy is a gain error: one number for all readings of one range
 * of this very instrument. Counts come anew with every reading (`of` names it), then the display rounds; or it is over-range.
 */
function display({ setup: { meter }, standIn }: Practice, mode: MeterMode, value: number, of: string): ReadingValue | null {
  const range = rangeFor(meter, mode, value);
  if (!range) return null;
  if (Math.abs(value) > range.upTo) return 'over';
  const seed = standIn?.seed ?? 0;
  const off = (what: string) => (randomStream(hash(`${seed}/${what}`))() * 2 - 1) * WITHIN;
  const gain = 1 + off(`${meter.id}/${mode}/${range.upTo}`) * (range.percent / 100);
  const counted = value * gain + off(of) * range.counts * range.resolution;
  return Number((Math.round(counted / range.resolution) * range.resolution).toPrecision(8));
}
/** Good instruments keep within this share of what their data sheet allows (common practice, no source). */
const WITHIN = 0.8;

function hash(text: string): number {
  let h = 2166136261;
  for (const c of text) h = Math.imul(h ^ c.charCodeAt(0), 16777619);
  return h >>> 0;
}
