import { type Diagnosis, Diagnoser, type FaultPrior, type Progress } from './posterior';
import { type Evidence, type Problem, type Scene, type StageObservable, toScene } from '../specimen';
import { type Fault, type FaultKind, HEALTHY } from '../fault';
import { type EntryOf, type KitState, type MeasuredValue, meterOf, type Ref, type Stage, type Taken } from '../kit';
import { type Circuit } from '../circuit';
import { type MeterProfile } from '../meter';
import { boardOf, circuitAt, circuitOf, sceneOf, type Setup, setupOf } from '../stage';
import { onBoard } from '../vocabulary';

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

type Reading = Taken<EntryOf<'read'> | EntryOf<'probed'>>;

/** Readings of one stage that met one board, oldest first. */
interface Sitting {
  readonly stage: string;
  readonly setup: Setup;
  readonly readings: readonly { readonly observable: string; readonly entry: string; readonly value: number | 'over'; readonly meter: MeterProfile }[];
  /** The newest board of its stage: its observables go by their plain names, those of older boards carry a number. */
  readonly newest: boolean;
}

/** What an investigation follows from, as plain data. */
export interface InvestigationInputs {
  readonly sittings: readonly Sitting[];
  readonly setup: Setup;
  readonly skipped: readonly string[];
}

/** Gathers the readings since the last repair, sitting by sitting; null when there is no circuit or nothing was read. */
export function investigationInputs(kit: KitState): InvestigationInputs | null {
  if (!kit.sheet.circuit) return null;
  const since = kit.change?.at ?? -1;
  const readings = [...kit.readings]
    .flatMap(([observable, all]) => all.filter((t): t is Reading => t.entry.kind !== 'observed' && t.met.at > since).map((taken) => ({ observable, taken })))
    .sort((a, b) => a.taken.met.at - b.taken.met.at);
  const sittings = kit.sheet.stages.flatMap((stage) =>
    sittingsOf(
      kit,
      stage,
      readings.filter((r) => r.taken.entry.stage === stage.id),
    ),
  );
  return sittings.length === 0 ? null : { sittings, setup: setupOf(kit), skipped: [...kit.skipped] };
}

function sittingsOf(kit: KitState, stage: Stage, readings: readonly { readonly observable: string; readonly taken: Reading }[]): Sitting[] {
  const boards = [...new Set(readings.map((r) => r.taken.met.board))];
  const meter = meterOf(kit);
  return boards.map((board, i) => {
    const met = readings.filter((r) => r.taken.met.board === board);
    const last = new Map(met.map((r) => [r.observable, r.taken]));
    return {
      stage: stage.id,
      // Predictions carry one meter; each reading brings its own error.
      setup: setupOf(kit, { board, meter }),
      readings: [...last].map(([observable, t]) => ({ observable, entry: t.entry.id, value: t.entry.reading, meter: t.met.meter })),
      newest: i === boards.length - 1,
    };
  });
}

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

/** The problem that the gathered readings pose; null when the circuit is empty. */
export function investigate({ sittings: gathered, setup, skipped }: InvestigationInputs): Investigation | null {
  const whole = circuitOf(setup.sheet);
  if (whole.parts.length === 0) return null;
  const stageOf = (id: string) => setup.sheet.stages.find((s) => s.id === id)!;
  const sittings = united(gathered, whole, stageOf);
  const newest = sittings.filter((s) => s.newest);
  const inHand = [...newest].reverse().find((s) => stageOf(s.stage).supplies.length > 0) ?? newest[newest.length - 1];
  if (!inHand) return null;
  const scenes = sittings.map((s) => sceneAt(s, whole, stageOf(s.stage)));
  const evidence = sittings.flatMap((s) => s.readings.map((r) => ({ id: nameIn(s, r.observable), value: r.value, entry: r.entry, meter: r.meter })));
  const problem: Problem = { board: boardOf(setup, whole), scenes, meter: setup.meter };
  return {
    problem,
    evidence,
    open: openIds(scenes[sittings.indexOf(inHand)]!, evidence, skipped),
    prior: kitPrior(setup.measured),
    key: JSON.stringify([scenes, problem.board, setup.meter]),
  };
}

/** Sittings of one stage whose boards make no difference to its circuit are one. */
function united(sittings: readonly Sitting[], whole: Circuit, stageOf: (id: string) => Stage): Sitting[] {
  const byCircuit = new Map<string, Sitting>();
  for (const s of sittings) {
    const key = JSON.stringify([s.stage, circuitAt(s.setup, whole, stageOf(s.stage))]);
    const known = byCircuit.get(key);
    const readings = new Map([...(known?.readings ?? []), ...s.readings].map((r) => [r.observable, r]));
    byCircuit.set(key, { ...(known ?? s), newest: s.newest || (known?.newest ?? false), readings: [...readings.values()] });
  }
  return [...byCircuit.values()];
}

const nameIn = (s: Sitting, observable: string) => (s.newest ? observable : onBoard(observable, s.setup.board.number));

/** The stage's circuit as its readings met it. Of an older board only what was read there matters. */
function sceneAt(sitting: Sitting, whole: Circuit, stage: Stage): Scene {
  const scene = sceneOf(sitting.setup, whole, stage);
  const read = new Set(sitting.readings.map((r) => r.observable));
  const observables = sitting.newest ? scene.observables : scene.observables.filter((o) => read.has(o.id)).map((o) => ({ ...o, id: nameIn(sitting, o.id) }));
  return toScene({ ...scene, observables });
}

/** Readings not taken yet and not given up as out of reach. */
function openIds(scene: Scene, evidence: Investigation['evidence'], skipped: readonly string[]): string[] {
  const seen = new Set([...evidence.map((e) => e.id), ...skipped]);
  return [...scene.observables, ...(scene.motion ?? [])].map((o) => o.id).filter((id) => !seen.has(id));
}

function kitPrior(measured: ReadonlyMap<Ref, MeasuredValue>): FaultPrior {
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
