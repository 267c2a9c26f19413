import { type Diagnosis, Diagnoser, type FaultPrior, type Progress } from '../diagnose/posterior';
import { type Evidence, type Problem, type Scene, type StageObservable, toScene } from '../diagnose/problem';
import { type Fault, type FaultKind, HEALTHY } from '../fault/fault';
import { deriveBoardState, deriveMeasuredValues, type Entry, type EntryOf, type KitDocument, lastBoardChange, meterOf, type Stage, standing } from '../kit';
import { boardOf, checkObservableId, circuitOf, probeObservableId, sceneOf } from '../stage/scene';

/** How often each kind turns up in real builds, relative to one another (common practice, no source). */
const KIND_WEIGHT: Readonly<Record<FaultKind, number>> = {
  healthy: 0,
  open: 3,
  'open-pin': 2,
  short: 0.5,
  'short-pins': 0.6,
  'wrong-value': 1,
  swapped: 0.6,
  reversed: 2,
  turned: 2,
  'wrong-type': 0.8,
  bridge: 1.5,
  weak: 0.6,
  stuck: 1,
};
/** A wrong value is this much less likely in a place whose piece was measured and found right. */
const MEASURED_FACTOR = 0.1;

/** Share of readings that people take at a neighbouring point, with exchanged probes or misread (choice of this product). */
const BAD_READING = 5e-4;

type VoltageEntry = EntryOf<'read'> | EntryOf<'probed'>;

/** Everything the fault finder works from, and what it can still ask for. */
export interface Investigation {
  readonly problem: Problem;
  readonly evidence: readonly (Evidence & { readonly entry: string })[];
  /** Observables that may be read next: those of the stage in hand. */
  readonly open: readonly string[];
  readonly prior: FaultPrior;
  /** Equal keys mean equal predictions, so that a diagnoser can be kept. */
  readonly key: string;
}

/** The reading's id among the observables. */
const evidenceId = (e: VoltageEntry) => (e.kind === 'read' ? checkObservableId(e.stage, e.check) : probeObservableId(e.stage, e.testPoint));

/** Gathers readings since the last repair, stage by stage; null when there is no circuit or nothing was read. */
export function investigate(doc: KitDocument): Investigation | null {
  const whole = circuitOf(doc.sheet);
  if (whole.parts.length === 0) return null;
  const change = lastBoardChange(doc);
  const position = new Map(doc.log.map((e, i) => [e.id, i]));
  const entries = standing(doc.log).filter((e): e is VoltageEntry => isVoltage(e) && position.get(e.id)! > change);
  const stages = doc.sheet.stages.filter((s) => entries.some((e) => e.stage === s.id));
  const inHand = [...stages].reverse().find((s) => s.supplies.length > 0) ?? stages[stages.length - 1];
  if (!inHand) return null;
  const scenes = stages.map((s) => sceneAt(doc, whole, s, entries, position));
  const evidence = lastOfEach(entries);
  const problem: Problem = { board: boardOf(doc, whole), scenes, meter: meterOf(doc) };
  return {
    problem,
    evidence,
    open: openIds(doc, scenes[stages.indexOf(inHand)]!, evidence),
    prior: kitPrior(doc),
    key: JSON.stringify([scenes, problem.board, doc.settings.meter]),
  };
}

/** Names what the predictions follow from; empty when there is nothing to investigate. */
export const investigationKey = (doc: KitDocument): string => investigate(doc)?.key ?? '';

const isVoltage = (e: Entry): e is VoltageEntry => e.kind === 'read' || e.kind === 'probed';

/** The stage's circuit as it was when its last reading was taken. */
function sceneAt(
  doc: KitDocument,
  whole: ReturnType<typeof circuitOf>,
  stage: Stage,
  entries: readonly VoltageEntry[],
  position: ReadonlyMap<string, number>,
): Scene {
  const last = entries.filter((e) => e.stage === stage.id).map((e) => position.get(e.id)!);
  return toScene(sceneOf(doc, whole, stage, deriveBoardState(doc, Math.max(...last))));
}

function lastOfEach(entries: readonly VoltageEntry[]): Investigation['evidence'] {
  const byId = new Map(entries.map((e) => [evidenceId(e), { id: evidenceId(e), value: e.reading, entry: e.id }]));
  return [...byId.values()];
}

/** Readings not taken yet and not given up as out of reach. */
function openIds(doc: KitDocument, scene: Scene, evidence: Investigation['evidence']): string[] {
  const skipped = standing(doc.log).flatMap((e) => (e.kind === 'skipped' ? [e.target] : []));
  const seen = new Set([...evidence.map((e) => e.id), ...skipped]);
  return [...scene.observables, ...(scene.motion ?? [])].map((o) => o.id).filter((id) => !seen.has(id));
}

function kitPrior(doc: KitDocument): FaultPrior {
  const measured = deriveMeasuredValues(doc);
  return (fault) => KIND_WEIGHT[fault.kind] * (fault.kind === 'wrong-value' && measured.has(fault.parts[0]) ? MEASURED_FACTOR : 1);
}

/** What one suspect would show against what was seen. In the unit of the mode. */
export interface PredictedCell {
  readonly low: number;
  readonly middle: number;
  readonly high: number;
  readonly fits: boolean;
}
export interface TableRow {
  readonly id: string;
  readonly mode: StageObservable['mode'];
  readonly seen: number | 'over' | null;
  readonly healthy: PredictedCell | null;
  /** One cell per suspect shown, in their order. */
  readonly suspects: readonly (PredictedCell | null)[];
}

/** The answer that the screen shows. */
export interface Findings extends Diagnosis {
  readonly rows: readonly TableRow[];
  readonly readings: number;
  readonly faults: number;
}

const SHOWN_SUSPECTS = 5;

/** Ranks the suspects and lays out what each predicts. */
export function findSuspects(investigation: Investigation, diagnoser: Diagnoser, progress?: Progress): Findings {
  const { evidence, open } = investigation;
  const diagnosis = diagnoser.diagnose(evidence, open, progress);
  const suspects = diagnosis.suspects.filter((s) => s.probability >= 1e-4).slice(0, 12);
  const shown = shownSuspects(suspects);
  const modes = new Map(investigation.problem.scenes.flatMap((s) => [...s.observables, ...(s.motion ?? [])].map((o) => [o.id, o.mode] as const)));
  const row = (id: string, seen: number | 'over' | null): TableRow => {
    const cell = (fault: Fault) => toCell(diagnoser.prediction(fault, id), seen);
    return { id, mode: modes.get(id) ?? 'dcv', seen, healthy: cell(HEALTHY), suspects: shown.map((s) => cell(s.fault)) };
  };
  const rows = evidence.map((e) => row(e.id, e.value));
  if (diagnosis.next) rows.push(row(diagnosis.next.id, null));
  return { suspects, unexplained: diagnosis.unexplained, next: diagnosis.next, rows, readings: evidence.length, faults: diagnoser.faultCount };
}

/** The suspects that the table shows: the most probable ones, healthy apart. */
export function shownSuspects(suspects: Diagnosis['suspects']): Diagnosis['suspects'] {
  return suspects.filter((s) => s.fault.kind !== 'healthy').slice(0, SHOWN_SUSPECTS);
}

function toCell(p: { low: number; middle: number; high: number } | null, seen: number | 'over' | null): PredictedCell | null {
  if (!p) return null;
  const slack = 0.02 * Math.abs(p.middle) + 0.6 * (p.high - p.low) + 1e-9;
  const fits = typeof seen === 'number' ? seen >= p.low - slack && seen <= p.high + slack : seen === 'over' ? p.high > 1e6 : false;
  return { ...p, fits };
}

/** A diagnoser for an investigation. */
export const diagnoserOf = (i: Investigation) => new Diagnoser(i.problem, { prior: i.prior, badReading: BAD_READING });
