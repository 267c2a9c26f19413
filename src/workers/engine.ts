import { diagnoserOf, type Findings, findSuspects, investigate, type Investigation } from '@/core/bench/investigation';
import { pileOf, sortPile, type SortedPile } from '@/core/bench/pile';
import { type Windows } from '@/core/bench/stages';
import {
  type Consequence,
  ConsequenceSolver,
  consequenceText,
  type ConsequenceText,
  influences,
  type Overload,
  type Spare,
  substitutes,
  type Substitute,
  type Supposed,
  type Supposition,
  type Swept,
} from '@/core/consequence';
import { findNet } from '@/core/circuit/netlist';
import { statisticsOf, type TraceStatistics } from '@/core/circuit/traceStatistics';
import { transient } from '@/core/circuit/transient';
import { operatingPoint } from '@/core/circuit/operatingPoint';
import { readDeck } from '@/core/circuit/deck/read';
import { circuitAt } from '@/core/stage/scene';
import { type Diagnoser, type Progress } from '@/core/diagnose/posterior';
import { type StageScene } from '@/core/diagnose/problem';
import { deriveBoardState, type KitDocument, meterOf, type ReadingValue } from '@/core/kit';
import { boardOf, circuitOf, pastReadings, sceneOf } from '@/core/stage/scene';
import { type ComputedWindow, windowsOf } from '@/core/stage/windows';
import { looseFromBag, type LooseFromBag, pieceCount, readBoard, readPiece, watchBoard } from '@/stand-in/board';

export type Outcome<T> = { readonly ok: true; readonly value: T } | { readonly ok: false; readonly message: string };

/** What the worker can do. Expected failures come back as values; only bugs throw. */
export interface Engine {
  windows: (doc: KitDocument) => Outcome<Windows>;
  /** Works out what every fault would show, and keeps it for `suspects`. */
  predict: (doc: KitDocument, progress: Progress) => Outcome<boolean>;
  suspects: (doc: KitDocument, progress: Progress) => Outcome<Findings | null>;
  /** Consequence in words of every supposed change, by its key. */
  consequences: (doc: KitDocument, windows: Windows, asked: Readonly<Record<string, Supposed>>) => Outcome<Readonly<Record<string, ConsequenceText>>>;
  /** How much each ref matters, in half-widths of the most sensitive window. */
  influences: (doc: KitDocument, windows: Windows) => Outcome<Readonly<Record<string, number>>>;
  /** One supposition in full: what moves, flips or burns. */
  whatIf: (doc: KitDocument, windows: Windows, supposition: Supposition) => Outcome<{ readonly consequence: Consequence; readonly text: ConsequenceText }>;
  /** What the checks read as one value goes through a range. */
  sweep: (doc: KitDocument, ref: string, values: readonly number[]) => Outcome<readonly Swept[]>;
  substitutes: (doc: KitDocument, windows: Windows, ref: string, spares: readonly Spare[]) => Outcome<readonly Substitute[]>;
  overloads: (doc: KitDocument) => Outcome<readonly (Overload & { readonly stage: string })[]>;
  /** Volts of every net of a stage's circuit; null without a solution. */
  netVolts: (doc: KitDocument, stage: string | null) => Outcome<Readonly<Record<string, number>>>;
  /** The course of a net in time, from the operating point (or the deck's start values). */
  course: (deck: string, net: string, seconds: number, progress: Progress) => Outcome<Course>;
  sortPile: (doc: KitDocument) => Outcome<SortedPile>;
  looseFromBag: (doc: KitDocument, number: number) => Outcome<LooseFromBag | null>;
  countPieces: (doc: KitDocument, line: string) => Outcome<number>;
  readPiece: (doc: KitDocument, line: string, piece: number, attempt: number) => Outcome<ReadingValue | null>;
  readBoard: (doc: KitDocument, stage: string, observable: string, attempt: number) => Outcome<ReadingValue | null>;
  watchBoard: (doc: KitDocument, stage: string, check: string) => Outcome<boolean>;
}

/** The last investigation's diagnoser: another reading of the same board re-ranks without new predictions. */
let kept: { key: string; diagnoser: Diagnoser } | null = null;

function diagnoserFor(investigation: Investigation): Diagnoser {
  if (kept?.key !== investigation.key) kept = { key: investigation.key, diagnoser: diagnoserOf(investigation) };
  return kept.diagnoser;
}

function attempt<T>(run: () => T): Outcome<T> {
  try {
    return { ok: true, value: run() };
  } catch (error) {
    return { ok: false, message: error instanceof Error ? error.message : String(error) };
  }
}

/** A course for drawing, and the statistics of its later part. */
export interface Course {
  readonly times: readonly number[];
  readonly volts: readonly number[];
  readonly statistics: TraceStatistics;
}

/** Statistics are taken behind this share of the time, when it has settled. */
const SETTLED = 0.4;
const MOST_POINTS = 2000;
const thinned = (values: Float64Array) => values.filter((_, i) => i % Math.max(1, Math.ceil(values.length / MOST_POINTS)) === 0);

/** The last document's solver: its values as they are need not be solved again for the next question. */
let solver: { key: string; solver: ConsequenceSolver } | null = null;

function solverFor(doc: KitDocument): ConsequenceSolver {
  const key = JSON.stringify([doc.id, doc.sheet.revision, doc.settings, doc.log.length]);
  if (solver?.key !== key) solver = { key, solver: new ConsequenceSolver(doc) };
  return solver.solver;
}

/** One result per different argument, compared by content. */
function memo<A, R>(compute: (a: A) => R): (a: A) => R {
  const known = new Map<string, R>();
  return (a) => {
    const key = JSON.stringify(a);
    const found = known.get(key);
    if (found !== undefined) return found;
    const result = compute(a);
    known.set(key, result);
    return result;
  };
}

export const engine: Engine = {
  windows: (doc) =>
    attempt(() => {
      const whole = circuitOf(doc.sheet);
      const all: Record<string, ComputedWindow | null> = {};
      if (whole.parts.length === 0) return all;
      const board = boardOf(doc, whole);
      const meter = meterOf(doc);
      const windows = memo((scene: StageScene) => windowsOf(scene, board, meter));
      const state = deriveBoardState(doc);
      const now = new Map(doc.sheet.stages.map((stage) => [stage.id, sceneOf(doc, whole, stage, state)]));
      for (const scene of now.values()) for (const [id, window] of windows(scene)) all[id] = window;
      for (const { entry, observable, scene } of pastReadings(doc, whole, now)) all[entry] = windows(scene).get(observable) ?? null;
      return all;
    }),
  predict: (doc, progress) =>
    attempt(() => {
      const investigation = investigate(doc);
      if (investigation) diagnoserFor(investigation).prepare(progress);
      return investigation !== null;
    }),
  suspects: (doc, progress) =>
    attempt(() => {
      const investigation = investigate(doc);
      return investigation && findSuspects(investigation, diagnoserFor(investigation), progress);
    }),
  consequences: (doc, windows, asked) =>
    attempt(() => {
      const solver = solverFor(doc);
      return Object.fromEntries(Object.entries(asked).map(([key, supposed]) => [key, consequenceText(doc, solver.of({ values: supposed }, windows))]));
    }),
  influences: (doc, windows) => attempt(() => influences(solverFor(doc), windows)),
  whatIf: (doc, windows, supposition) =>
    attempt(() => {
      const consequence = solverFor(doc).of(supposition, windows);
      return { consequence, text: consequenceText(doc, consequence) };
    }),
  sweep: (doc, ref, values) => attempt(() => solverFor(doc).sweep(ref, values)),
  substitutes: (doc, windows, ref, spares) => attempt(() => substitutes(solverFor(doc), ref, spares, windows)),
  overloads: (doc) => attempt(() => solverFor(doc).overloads),
  netVolts: (doc, stageId) =>
    attempt(() => {
      const whole = circuitOf(doc.sheet);
      const stage = doc.sheet.stages.find((s) => s.id === stageId);
      return operatingPoint(stage ? circuitAt(doc, whole, stage, deriveBoardState(doc)) : whole).nodes;
    }),
  course: (deck, name, seconds, progress) =>
    attempt(() => {
      const { circuit } = readDeck(deck);
      const net = findNet(circuit, name);
      if (net === undefined) throw new Error(`No net is called ${name}.`);
      const trace = transient(circuit, { stop: seconds, nets: [net], progress });
      const volts = trace.volts[net]!;
      const from = trace.times.findIndex((t) => t >= seconds * SETTLED);
      const statistics = statisticsOf(trace.times.subarray(from), volts.subarray(from));
      return { times: [...thinned(trace.times)], volts: [...thinned(volts)], statistics };
    }),
  sortPile: (doc) => attempt(() => sortPile(pileOf(doc))),
  looseFromBag: (doc, number) => attempt(() => looseFromBag(doc, number)),
  countPieces: (doc, line) =>
    attempt(() =>
      pieceCount(
        doc,
        doc.sheet.lines.find((l) => l.id === line)!,
      ),
    ),
  readPiece: (doc, line, piece, n) =>
    attempt(() =>
      readPiece(
        doc,
        doc.sheet.lines.find((l) => l.id === line)!,
        piece,
        n,
      ),
    ),
  readBoard: (doc, stage, observable, n) =>
    attempt(() =>
      readBoard(
        doc,
        doc.sheet.stages.find((s) => s.id === stage)!,
        observable,
        n,
      ),
    ),
  watchBoard: (doc, stage, check) =>
    attempt(() => {
      const found = doc.sheet.stages.find((s) => s.id === stage)!;
      const observed = found.checks.find((c) => c.id === check);
      return observed?.what === 'observe' ? watchBoard(doc, found, observed) : true;
    }),
};
