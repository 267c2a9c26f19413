import { type BenchCause, benchCause, withoutGain } from './benchCauses';
import { type Diagnosis, Diagnoser, type DiagnoserOptions, type FaultPrior, type Progress } from './diagnoser';
import { type Evidence, isReading, type Lamp, OVER, type Problem, type Scene, type Signal, type StageObservable, toScene } from '../specimen';
import { assumedBridges, type Fault, faultKey, type FaultKind, HEALTHY, listBenchFaults } from '../fault';
import type { Stage } from '../kit';
import { type MeterProfile, uncertaintyOf } from '../meter';
import type { InvestigationInputs, Sitting } from './investigationInputs';
import { type Circuit, isRunning } from '../circuit';
import { boardOf, circuitAt, circuitOf, elementOf, sceneOf, tracksOf } from '../stage';
import { checkObservableId, onBoard } from '../vocabulary';
import type { Percentiles } from './likeness';
import type { WorkEvidence } from './work';
import { readingToRepeat } from './repeat';
import { workFactor } from './workReasons';

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
  leaky: 0.4,
  'no-supply': 2,
  'low-supply': 1,
  'reversed-supply': 0.4,
  strap: 1,
  blank: 2,
  track: 0.3,
};

/** Two boards in five that are looked into are in order: a reading was wrong, or a stage was not set as it should be (choice of this product). */
const PRIOR_HEALTHY = 0.4;
/** One set of readings in twenty has one that was taken at a neighbouring point, with swapped probes or misread (choice of this product). */
const BAD_READING = 0.05;

/**
 * Time and effort of a reading against a voltage under power (common practice, no source): a supply's display is glanced at,
 * a frequency waits for its gate, ohms and diode tests want the supply off, the capacitors empty and the board out of its leads.
 */
const EFFORT: Readonly<Record<StageObservable['mode'], 'live' | 'moving' | 'cold'>> = {
  dcv: 'live',
  dca: 'live',
  acv: 'moving',
  frequency: 'moving',
  duty: 'moving',
  vmin: 'moving',
  vmax: 'moving',
  ohms: 'cold',
  diode: 'cold',
};
const effortOf =
  ({ moving, cold }: InvestigationInputs['efforts']) =>
  (mode: StageObservable['mode']): number =>
    ({ live: 1, moving, cold })[EFFORT[mode]];

interface Limits {
  readonly low: number;
  readonly high: number;
}

/** Everything the fault finder works from, and what it can still ask for. */
export interface Investigation {
  readonly problem: Problem;
  readonly evidence: readonly (Exclude<Evidence, Signal> & { readonly entry: string })[];
  /** Observables that may be read next: those of the stage in hand, and of earlier ones where one goes back to them. */
  readonly open: readonly string[];
  /** Limits of readings from simulated boards, by observable: a drawing that reads elsewhere when healthy does not describe that place. */
  readonly simulated: ReadonlyMap<string, Limits>;
  readonly prior: FaultPrior;
  /** Effort of a reading by its mode. */
  readonly effort: (mode: StageObservable['mode']) => number;
  /** Places that were read more than once: these are not asked again. */
  readonly repeated: readonly string[];
  /** Bridges that are thought of because nobody said which nets lie side by side. */
  readonly assumedBridges: number;
  /** Equal keys mean equal predictions, so that a diagnoser can be kept. */
  readonly key: string;
}

/** The problem that the gathered readings pose; null when the circuit is empty. */
export function investigate({ sittings: gathered, setup, skipped, work, placement, pads, efforts, elsewhere }: InvestigationInputs): Investigation | null {
  const whole = circuitOf(setup.sheet);
  if (whole.parts.length === 0) return null;
  const stageOf = (id: string) => setup.sheet.stages.find((s) => s.id === id)!;
  const sittings = united(gathered, whole, stageOf);
  const newest = sittings.filter((s) => s.newest);
  const inHand = [...newest].reverse().find((s) => stageOf(s.stage).supplies.length > 0) ?? newest[newest.length - 1];
  if (!inHand) return null;
  const read = sittings.map((s) => sceneAt(s, whole, stageOf(s.stage)));
  const further = elsewhere ? earlierScenes(setup, whole, sittings, inHand.stage) : [];
  const scenes = [...read, ...further, ...sittings.flatMap((s, i) => twinScene(s, read[i]!))];
  const evidence = sittings.flatMap((s) => [
    ...s.readings.map((r) => ({ id: nameIn(s, r.observable), value: r.value, entry: r.entry, meter: r.meter })),
    ...s.reference.map((r) => ({ id: twinId(r.observable), value: r.value, entry: r.entry, meter: r.meter })),
    ...s.sights.map(({ observable, entry, lit, amperes }) => ({ id: nameIn(s, observable), lit, amperes, entry })),
  ]);
  const own = boardOf(setup, whole);
  const assumed = own.neighbours.length > 0 ? [] : likelyBridges(whole);
  const bridgeWeight = new Map(assumed.map((a) => [a.nets.join(' '), a.weight]));
  const problem: Problem = {
    board: {
      ...own,
      neighbours: assumed.length > 0 ? assumed.map((a) => a.nets) : own.neighbours,
      strangers: work.strangers.filter(isOhms),
      tracks: tracksOf({ ...setup.sheet, placement, pads }, whole),
    },
    scenes,
    meter: setup.meter,
  };
  return {
    problem,
    effort: effortOf(efforts),
    evidence,
    open: [read[sittings.indexOf(inHand)]!, ...read.filter((_, i) => elsewhere && sittings[i] !== inHand && sittings[i]!.newest), ...further].flatMap((scene) =>
      openIds(scene, evidence, skipped),
    ),
    simulated: simulatedLimits(setup.sheet.stages),
    prior: kitPrior(work, bridgeWeight),
    repeated: sittings.flatMap((s) => s.repeated.map((id) => nameIn(s, id))),
    assumedBridges: assumed.length,
    key: JSON.stringify([scenes, problem.board, setup.meter]),
  };
}

const simulatedLimits = (stages: readonly Stage[]): Map<string, Limits> =>
  new Map(
    stages.flatMap((stage) =>
      stage.checks.flatMap((c) =>
        c.what === 'measure' && c.window?.from === 'simulated'
          ? [[checkObservableId(stage.id, c.id), { low: c.window.low ?? -Infinity, high: c.window.high ?? Infinity }] as const]
          : [],
      ),
    ),
  );

/** Places that the drawing does not describe: on a healthy board it reads beside what healthy boards show, as where a source stands in for a chip. */
function undescribed({ simulated }: Investigation, diagnoser: Diagnoser): ReadonlySet<string> {
  if (simulated.size === 0) return new Set();
  diagnoser.prepare();
  return new Set(
    [...simulated].flatMap(([id, { low, high }]) => {
      const drawn = diagnoser.prediction([], id);
      return drawn && (drawn.high < low || drawn.low > high) ? [id] : [];
    }),
  );
}

/**
 * Stages before the one in hand that were not read, on the board as it is now: nothing is powered that the ladder has not reached.
 * Those that run would cost more than they are likely to tell.
 */
function earlierScenes(setup: InvestigationInputs['setup'], whole: Circuit, sittings: readonly Sitting[], inHand: string): Scene[] {
  const { stages } = setup.sheet;
  const read = new Set(sittings.filter((s) => s.newest).map((s) => s.stage));
  return stages
    .slice(
      0,
      stages.findIndex((s) => s.id === inHand),
    )
    .filter((s) => !read.has(s.id))
    .map((stage) => sceneAt({ stage: stage.id, setup, readings: [], repeated: [], sights: [], reference: [], newest: true }, whole, stage))
    .filter((scene) => !isRunning(scene.circuit) && scene.observables.length > 0);
}

/** Sittings of one stage whose boards make no difference to its circuit are one. */
function united(sittings: readonly Sitting[], whole: Circuit, stageOf: (id: string) => Stage): Sitting[] {
  const byCircuit = new Map<string, Sitting>();
  for (const s of sittings) {
    const key = JSON.stringify([s.stage, circuitAt(s.setup, whole, stageOf(s.stage))]);
    const known = byCircuit.get(key);
    const readings = new Map([...(known?.readings ?? []), ...s.readings].map((r) => [r.observable, r]));
    const sights = new Map([...(known?.sights ?? []), ...s.sights].map((r) => [r.observable, r]));
    byCircuit.set(key, {
      ...(known ?? s),
      newest: s.newest || (known?.newest ?? false),
      readings: [...readings.values()],
      repeated: [...(known?.repeated ?? []), ...s.repeated],
      sights: [...sights.values()],
      reference: s.newest ? s.reference : (known?.reference ?? []),
    });
  }
  return [...byCircuit.values()];
}

/** Values of strangers that can be ohms of a resistor: farads and henries are smaller. */
const isOhms = (value: number) => value >= LEAST_OHMS && value <= MOST_OHMS;
const LEAST_OHMS = 0.1;
const MOST_OHMS = 1e8;

const nameIn = (s: Sitting, observable: string) => (s.newest ? observable : onBoard(observable, s.setup.board.number));

/** The stage's circuit as its readings met it. Of an older board only what was read there matters. */
function sceneAt(sitting: Sitting, whole: Circuit, stage: Stage): Scene {
  const scene = sceneOf(sitting.setup, whole, stage);
  const read = new Set(sitting.readings.map((r) => r.observable));
  const observables = sitting.newest ? scene.observables : scene.observables.filter((o) => read.has(o.id)).map((o) => ({ ...o, id: nameIn(sitting, o.id) }));
  const lamps = sitting.sights.flatMap((s): Lamp[] => {
    const element = elementOf(sitting.setup.sheet, scene.circuit, s.ref);
    return element === null ? [] : [{ id: nameIn(sitting, s.observable), element }];
  });
  return { ...toScene({ ...scene, observables }), lamps: isRunning(scene.circuit) ? [] : lamps };
}

/** A known-good board is read beside the own one: another draw of the same parts, without the fault. */
function twinScene(sitting: Sitting, own: Scene): Scene[] {
  if (sitting.reference.length === 0 || own.observables.length === 0) return [];
  // All of its points, so that one more reading of it is no board of its own.
  return [{ circuit: own.circuit, observables: own.observables.map((o) => ({ ...o, id: twinId(o.id) })), twin: true }];
}
const TWIN = 'known-good:';
const twinId = (observable: string) => `${TWIN}${observable}`;
const isTwin = (id: string) => id.startsWith(TWIN);

/** Most bridges that are thought of without a list of neighbours: each costs as much as any other fault (own choice). */
const MOST_ASSUMED = 150;
/** Bridges where nobody said which nets lie side by side: those across a part first. */
const likelyBridges = (circuit: Circuit) => [...assumedBridges(circuit)].sort((a, b) => b.weight - a.weight).slice(0, MOST_ASSUMED);

/** Readings not taken yet and not given up as out of reach. */
function openIds(scene: Scene, evidence: Investigation['evidence'], skipped: readonly string[]): string[] {
  const seen = new Set([...evidence.map((e) => e.id), ...skipped]);
  return [...scene.observables, ...(scene.motion ?? [])].map((o) => o.id).filter((id) => !seen.has(id));
}

/** How common each kind is, weighed by what the log tells. */
const kitPrior =
  (work: WorkEvidence, bridges: ReadonlyMap<string, number>): FaultPrior =>
  (fault) =>
    KIND_WEIGHT[fault.kind] * workFactor(fault, work) * (fault.kind === 'bridge' ? (bridges.get(fault.detail.nets.join(' ')) ?? 1) : 1);

/** What one suspect would show against what was seen. In the unit of the mode. */
export interface PredictedCell extends Percentiles {
  readonly fits: boolean;
}
export type TableRow = ReadingRow | LookRow;
interface Row {
  readonly id: string;
  readonly healthy: PredictedCell | null;
  /** One cell per suspect that is a fault, in their order. */
  readonly suspects: readonly (PredictedCell | null)[];
}
/** A reading, or (`seen` is null) the one to take next. */
export interface ReadingRow extends Row {
  readonly mode: StageObservable['mode'];
  readonly seen: number | 'over' | null;
}
/** A part that was looked at; its cells hold amperes. */
export interface LookRow extends Row {
  readonly mode: 'look';
  readonly seen: 'on' | 'off';
  /** On from so many amperes. */
  readonly amperes: number;
}

/** A suspect as the screen ranks it: no fault (healthy), one, or two at once. Where nothing explains the readings the nearest ones follow, their probability 0. */
export interface Ranked {
  readonly faults: readonly Fault[];
  readonly probability: number;
}

/** The answer that the screen shows. */
export interface Findings extends Omit<Diagnosis, 'suspects' | 'pairs' | 'nearest'> {
  readonly suspects: readonly Ranked[];
  readonly rows: readonly TableRow[];
  readonly readings: number;
  /** Readings that say nothing here, because the drawing does not describe their place. */
  readonly leftOut: readonly string[];
  readonly faults: number;
  /** One cause on the bench for all readings. */
  readonly bench: BenchCause | null;
  /** A reading to take again before another one: it decides, and is probably wrong. */
  readonly again: string | null;
  /** Bridges that were thought of without knowing which nets lie side by side. */
  readonly assumedBridges: number;
  /** Suspects that no reading left on this bench can tell apart: positions in `suspects`, two or more of each group. */
  readonly alike: readonly (readonly number[])[];
}

const SHOWN_SUSPECTS = 5;
const LEAST_RANKED = 1e-4;
const MOST_RANKED = 12;

/** Ranks the suspects and lays out what each predicts. */
export function findSuspects(investigation: Investigation, diagnoser: Diagnoser, progress?: Progress): Findings {
  const beside = undescribed(investigation, diagnoser);
  const evidence = investigation.evidence.filter((e) => !beside.has(e.id));
  const open = investigation.open.filter((id) => !beside.has(id));
  const bench = commonCause(investigation, diagnoser, evidence);
  const isVolts = voltsOf(investigation);
  const told = bench?.what === 'meter-gain' ? withoutGain(evidence, isVolts, bench.factor) : evidence;
  const diagnosis = diagnoser.diagnose(told, open, progress);
  const suspects = [
    ...diagnosis.suspects.map(({ fault, probability }): Ranked => ({ faults: fault.kind === 'healthy' ? [] : [fault], probability })),
    ...diagnosis.pairs.map(({ pair, probability }): Ranked => ({ faults: pair, probability })),
  ]
    .filter((s) => s.probability >= LEAST_RANKED)
    .sort((a, b) => b.probability - a.probability)
    .slice(0, MOST_RANKED);
  const ranked = new Set(suspects.map((s) => s.faults.map(faultKey).join(' ')));
  suspects.push(...diagnosis.nearest.filter((faults) => !ranked.has(faults.map(faultKey).join(' '))).map((faults): Ranked => ({ faults, probability: 0 })));
  const faulty = faultySuspects(suspects);
  const modes = new Map(investigation.problem.scenes.flatMap((s) => [...s.observables, ...(s.motion ?? [])].map((o) => [o.id, o.mode] as const)));
  const cells = (id: string, fits: (p: Percentiles) => boolean) => {
    const cell = (faults: readonly Fault[]): PredictedCell | null => {
      const p = diagnoser.prediction(faults, id);
      return p && { ...p, fits: fits(p) };
    };
    return { id, healthy: cell([]), suspects: faulty.map((s) => cell(s.faults)) };
  };
  // What a meter with a gain of its own showed is judged as a sound one would have shown it.
  const sound = new Map(told.flatMap((e) => (isReading(e) ? [[e.id, e.value] as const] : [])));
  const row = (id: string, seen: number | 'over' | null): TableRow => {
    const mode = modes.get(id) ?? 'dcv';
    return { ...cells(id, (p) => agrees(p, sound.get(id) ?? seen, mode, investigation.problem.meter)), mode, seen };
  };
  const rows = evidence
    .filter((e) => !isTwin(e.id))
    .map((e): TableRow =>
      isReading(e)
        ? row(e.id, e.value)
        : { ...cells(e.id, ({ middle }) => middle >= e.amperes === e.lit), mode: 'look', seen: e.lit ? 'on' : 'off', amperes: e.amperes },
    );
  if (diagnosis.next) rows.push(row(diagnosis.next.id, null));
  return {
    suspects,
    badReadings: diagnosis.badReadings.filter((b) => !isTwin(b.id)),
    unexplained: diagnosis.unexplained,
    next: diagnosis.next,
    rows,
    bench,
    again: again(investigation, evidence, diagnosis),
    assumedBridges: investigation.assumedBridges,
    readings: evidence.filter((e) => !isTwin(e.id)).length,
    leftOut: investigation.evidence.flatMap((e) => (beside.has(e.id) ? [e.id] : [])),
    faults: diagnoser.faultCount,
    alike: alikeOf(suspects, open, diagnoser),
  };
}

/** Suspects below this are not worth telling apart. */
const WORTH_GROUPING = 0.02;

/** Single suspects that no reading left tells apart, by their place among all. */
function alikeOf(suspects: readonly Ranked[], open: readonly string[], diagnoser: Diagnoser): number[][] {
  const likely = suspects.flatMap(({ faults, probability }, place) => {
    const [fault, second] = faults;
    return fault && !second && probability >= WORTH_GROUPING ? [{ fault, place }] : [];
  });
  const groups = diagnoser.alike(
    likely.map((l) => l.fault),
    open,
  );
  return groups.map((g) => g.map((i) => likely[i]!.place));
}

/** All suspects but the healthy board. */
export const faultySuspects = (suspects: readonly Ranked[]): readonly Ranked[] => suspects.filter((s) => s.faults.length > 0);

/** The suspects that the table shows: the most probable ones, healthy apart. */
export const shownSuspects = (suspects: readonly Ranked[]): readonly Ranked[] => faultySuspects(suspects).slice(0, SHOWN_SUSPECTS);

/** Over-range is predicted as what it counts for on the comparison scale; so near that a prediction says over-range. */
const OVER_SHARE = 0.95;

/** Whether a reading lies where it is predicted, with some slack for what the percentiles leave out and for the meter's own error. */
export function agrees(p: Percentiles, seen: number | 'over' | null, mode: StageObservable['mode'], meter: MeterProfile): boolean {
  if (seen === null) return false;
  if (seen === 'over') return p.high >= OVER_SHARE * OVER[mode];
  const slack = 0.02 * Math.abs(p.middle) + 0.6 * (p.high - p.low) + (uncertaintyOf(meter, mode, seen)?.halfWidth ?? 0);
  return seen >= p.low - slack && seen <= p.high + slack;
}

/** Readings of volts, which a meter's gain moves together. */
function voltsOf({ problem }: Investigation): (id: string) => boolean {
  const volts = new Set(problem.scenes.flatMap((s) => s.observables.flatMap((o) => (o.mode === 'dcv' && !s.twin ? [o.id] : []))));
  return (id) => volts.has(id);
}

/** One cause on the bench for all readings: the meter's gain, or, on a board that is otherwise in order, the supply at other volts. */
function commonCause(investigation: Investigation, diagnoser: Diagnoser, evidence: Investigation['evidence']): BenchCause | null {
  if (investigation.problem.scenes.some((s) => (s.motion ?? []).length > 0)) return null;
  const healthy = (factor: number) =>
    new Diagnoser(atVolts(investigation.problem, factor), { ...optionsOf(investigation), healthy: 1, faults: () => [HEALTHY] });
  return benchCause(diagnoser, healthy, evidence, voltsOf(investigation));
}

/** All direct supplies at a factor of their volts. */
const atVolts = (problem: Problem, factor: number): Problem => ({
  ...problem,
  scenes: problem.scenes.map((s) => ({
    ...s,
    circuit: {
      ...s.circuit,
      parts: s.circuit.parts.map((p) => (p.kind === 'V' && p.wave === null && !p.name.includes('.') ? { ...p, dc: p.dc * factor } : p)),
    },
  })),
});

/** The reading to take again before anything is concluded, of those that count. */
function again({ repeated }: Investigation, evidence: Investigation['evidence'], { badReadings, unexplained, next }: Diagnosis): string | null {
  const own = evidence.flatMap((e) => (isReading(e) && !isTwin(e.id) ? [e.id] : []));
  return readingToRepeat({ once: own.filter((id) => !repeated.includes(id)), readings: own.length, badReadings, unexplained, bits: next?.bits ?? 0 });
}

/** A diagnoser for an investigation. */
export const diagnoserOf = (i: Investigation) => new Diagnoser(i.problem, optionsOf(i));

const optionsOf = (i: Investigation): DiagnoserOptions => ({
  healthy: PRIOR_HEALTHY,
  prior: i.prior,
  badReading: BAD_READING,
  faults: listBenchFaults,
  effort: i.effort,
});
