import { findNet, isRunning, operatingPoint, readDeck, statisticsOf, transient } from '@/core/circuit';
import { ConsequenceSolver, consequenceText, influences, substitutes } from '@/core/consequence';
import { type Diagnoser, diagnoserOf, findSuspects, investigate, type Investigation, worthOf } from '@/core/diagnose';
import { makeSheet, proposeStages, readDeckAgainst, readDraft, withLooks, withNeeds } from '@/core/draft';
import { arranged, type Drawable, drawableOf, grown, type Laid, type Layout, layout } from '@/core/draw';
import { FunctionBench, type LogicFault } from '@/core/logic';
import { recorded } from '@/core/load';
import { sortPile } from '@/core/loop';
import { laidOut } from '@/core/place';
import { forecastAdjustment, forecastStage, loadCurve } from '@/core/power';
import { allWindows, circuitAt, circuitOf, type Setup } from '@/core/stage';
import { hideTrouble, looseFromBag, pieceCount, practicePlay, practiceStanding, readBoard, readPiece, watchBoard } from '@/stand-in';
import type { ComputationName, InputsOf, Progress, ResultOf } from './contract';

/** The last investigation's diagnoser: another reading of the same board re-ranks without new predictions. */
let kept: { key: string; diagnoser: Diagnoser } | null = null;

function diagnoserFor(investigation: Investigation): Diagnoser {
  if (kept?.key !== investigation.key) kept = { key: investigation.key, diagnoser: diagnoserOf(investigation) };
  else kept.diagnoser.weigh(investigation.prior, investigation.effort);
  return kept.diagnoser;
}

/** A board built around chips with nothing wrong on it. */
const SOUND: LogicFault = { kind: 'healthy', parts: [], detail: {} };
/** The last board in sentences: a try more asks it again. */
const functionBench = new FunctionBench();

/** The last setup's solver: its values as they are need not be solved again for the next question. */
let solver: { key: string; solver: ConsequenceSolver } | null = null;

function solverFor(setup: Setup): ConsequenceSolver {
  const key = JSON.stringify(setup, (_, v: unknown) => (v instanceof Map ? [...v] : v instanceof Set ? [...v] : v));
  if (solver?.key !== key) solver = { key, solver: new ConsequenceSolver(setup) };
  return solver.solver;
}

/** The last layout of a drawing: what comes is added to it, and a symbol moved by hand needs only its wires led anew. */
class LayoutKept {
  #last: { readonly key: string; readonly laid: Laid } | null = null;

  of(sheet: object, drawable: Drawable): Layout {
    const key = JSON.stringify(sheet);
    if (this.#last?.key !== key) {
      const laid = (this.#last && grown(drawable, this.#last.laid)) ?? { drawable, layout: layout(drawable), since: 0 };
      this.#last = { key, laid };
    }
    return this.#last.laid.layout;
  }
}
const kitLayout = new LayoutKept();
const walkLayout = new LayoutKept();

/** Statistics are taken behind this share of the time, when it has settled. */
const SETTLED = 0.4;
const MOST_POINTS = 2000;
const thinned = (values: Float64Array) => values.filter((_, i) => i % Math.max(1, Math.ceil(values.length / MOST_POINTS)) === 0);

/** How each computation of the contract is run. Throws only what its caller should read. */
export const ENGINE: { readonly [N in ComputationName]: (inputs: InputsOf<N>, progress: Progress) => ResultOf<N> } = {
  windows: allWindows,
  pile: sortPile,
  influence: ({ setup, windows }) => influences(solverFor(setup), windows),
  consequences: ({ setup, windows, supposed }) => {
    const one = solverFor(setup);
    return Object.fromEntries(Object.entries(supposed).map(([key, values]) => [key, consequenceText(setup, one.of({ values }, windows))]));
  },
  predictions: (inputs, progress) => {
    const investigation = investigate(inputs);
    if (!investigation) return 0;
    const diagnoser = diagnoserFor(investigation);
    diagnoser.prepare(progress);
    return diagnoser.faultCount;
  },
  suspects: (inputs, progress) => {
    const investigation = investigate(inputs);
    return investigation && findSuspects(investigation, diagnoserFor(investigation), progress);
  },
  whatIf: ({ setup, windows, supposition }) => {
    const consequence = solverFor(setup).of(supposition, windows);
    return { consequence, text: consequenceText(setup, consequence) };
  },
  sweep: ({ setup, ref, values }) => solverFor(setup).sweep(ref, values),
  substitutes: ({ setup, windows, ref, spares }) => substitutes(solverFor(setup), ref, spares, windows),
  worth: worthOf,
  adjustment: ({ setup, stage, check, limits }) => forecastAdjustment(setup, stage, check, limits),
  stageForecast: ({ setup, stage }) => forecastStage(setup, stage),
  loadCurve: ({ setup, stage, net, amps }) => loadCurve(setup, stage, net, amps),
  overloads: (setup) => solverFor(setup).overloads,
  functions: (inputs, progress) => inputs && functionBench.of(inputs.sentences, inputs.seen, progress),
  watchFunctions: (inputs) => {
    if (!inputs) return [];
    const hidden = inputs.fault === '' ? SOUND : (JSON.parse(atob(inputs.fault)) as LogicFault);
    return functionBench.shows(inputs.sentences, hidden);
  },
  schematic: ({ symbols, ...sheet }) => {
    const drawable = drawableOf(sheet);
    return drawable && arranged(drawable, kitLayout.of(sheet, drawable), symbols);
  },
  walked: ({ lines, deck }) => {
    const sheet = { lines, circuit: { deck, neighbours: [] }, boards: [] };
    const drawable = drawableOf(sheet);
    return drawable && walkLayout.of(sheet, drawable).drawing;
  },
  netVolts: ({ setup, stage: id }) => {
    const whole = circuitOf(setup.sheet);
    const stage = setup.sheet.stages.find((s) => s.id === id);
    const circuit = stage ? circuitAt(setup, whole, stage) : whole;
    // What never rests has no steady volts: those of its operating point would mislead.
    return isRunning(circuit) ? {} : operatingPoint(circuit).nodes;
  },
  course: ({ deck, net: name, seconds }, progress) => {
    const { circuit } = readDeck(deck);
    const net = findNet(circuit, name);
    if (net === undefined) throw new Error(`No net is called ${name}.`);
    const trace = transient(circuit, { stop: seconds, nets: [net], progress });
    const volts = trace.volts[net]!;
    const from = trace.times.findIndex((t) => t >= seconds * SETTLED);
    return { times: [...thinned(trace.times)], volts: [...thinned(volts)], statistics: statisticsOf(trace.times.subarray(from), volts.subarray(from)) };
  },
  recorded: ({ csv, channel }, progress) => recorded(csv, channel, progress),
  layout: laidOut,
  readDraft: ({ list, deck, settled }) => readDraft(list, deck, settled),
  draftStages: ({ list, deck, settled, nets, beside, built, needs }, progress) => {
    const draft = withNeeds(readDraft(list, deck, settled), needs);
    const sheet = makeSheet('', draft, deck, nets, beside, built);
    return withLooks(proposeStages({ ...sheet, built }, draft.circuit, {}, progress).stages, beside.looks);
  },
  kitStages: ({ sheet, owned, built }, progress) => proposeStages({ ...sheet, owned, built }, sheet.circuit ? circuitOf(sheet) : null, {}, progress).stages,
  checkDeck: ({ deck, lines, elements }) => readDeckAgainst(deck, lines, elements),
  hideTrouble: ({ setup, choice }) => hideTrouble(setup, choice),
  practiceStanding: (doc) => practiceStanding(doc),
  practicePlay: (on) => practicePlay(on),
  drawLoose: ({ practice, number }) => looseFromBag(practice, number),
  countPieces: ({ practice, line }) => pieceCount(practice, lineOf(practice, line)),
  readPiece: ({ practice, line, piece }) => readPiece(practice, lineOf(practice, line), piece),
  readBoard: ({ practice, stage, observable }) => readBoard(practice, stageOf(practice, stage), observable),
  watchBoard: ({ practice, stage: id, check: checkId }) => {
    const stage = stageOf(practice, id);
    const check = stage.checks.find((c) => c.id === checkId);
    return check?.what === 'observe' ? watchBoard(practice, stage, check) : true;
  },
};

function lineOf({ setup }: { readonly setup: Setup }, id: string) {
  const line = setup.sheet.lines.find((l) => l.id === id);
  if (!line) throw new Error('This line is gone from the list.');
  return line;
}
function stageOf({ setup }: { readonly setup: Setup }, id: string) {
  const stage = setup.sheet.stages.find((s) => s.id === id);
  if (!stage) throw new Error('This stage is gone.');
  return stage;
}

export type Outcome<T> = { readonly ok: true; readonly value: T } | { readonly ok: false; readonly message: string };

/** Runs one computation; what goes wrong comes back as a value, so that a worker survives it. */
export function run<N extends ComputationName>(name: N, inputs: InputsOf<N>, progress: Progress): Outcome<ResultOf<N>> {
  try {
    return { ok: true, value: ENGINE[name](inputs, progress) };
  } catch (error) {
    return { ok: false, message: error instanceof Error ? error.message : String(error) };
  }
}
