import { type Circuit, GROUND, isRunning, netsOf } from '../circuit';
import { assumedBridges, type Fault, type FaultKind, listBenchFaults } from '../fault';
import type { Check, Stage } from '../kit';
import { OVER, type Problem, type Scene, toScene } from '../specimen';
import { boardOf, circuitOf, computedWindow, elementOf, sceneOf, type Setup, statesOf, type Windows } from '../stage';
import { checkObservableId } from '../vocabulary';
import { Diagnoser, type Progress } from './diagnoser';
import type { Percentiles } from './likeness';

/** Faults that turn up in most builds; rarer ones would blur what a test order is worth (common practice, no source). */
const USUAL: ReadonlySet<FaultKind> = new Set<FaultKind>([
  'open',
  'open-pin',
  'short',
  'short-pins',
  'wrong-value',
  'swapped',
  'reversed',
  'turned',
  'wrong-type',
  'bridge',
  'no-supply',
  'reversed-supply',
]);
/** Bridges that are counted where no neighbours are known: those across a part. */
const ACROSS = 0.3;
/** A short order keeps this share of what the whole one catches. */
const SHORT_KEEPS = 0.95;
const MOST_ADDED = 3;

/** One check, with how many usual faults it catches: all, and those that no check before it does. */
export interface CheckWorth {
  readonly stage: string;
  readonly check: string;
  readonly catches: number;
  readonly first: number;
}

/** What a kit's test order is worth, as the fault finder reckons it. */
export interface Worth {
  readonly faults: number;
  readonly caught: number;
  /** Caught before the board is powered, or at the first power. */
  readonly early: number;
  readonly checks: readonly CheckWorth[];
  /** Usual faults that every check passes. */
  readonly missed: readonly Fault[];
  /** Few checks that keep most of it, in their order. */
  readonly short: readonly { readonly stage: string; readonly check: string }[];
  /** Nets that would catch most of what is missed, read against ground in the stage named. */
  readonly add: readonly { readonly stage: string; readonly net: string; readonly catches: number }[];
  /** Checks of boards that oscillate: what they catch is not counted here. */
  readonly uncounted: number;
}

interface Told {
  readonly setup: Setup;
  readonly windows: Windows;
}

/** Limits of a check in the unit of its mode. */
interface Limits {
  readonly low: number;
  readonly high: number;
}

/** What a test order catches of the usual faults, one at a time; null without a circuit or checks. */
export function worthOf({ setup, windows }: Told, progress?: Progress): Worth | null {
  const whole = circuitOf(setup.sheet);
  if (whole.parts.length === 0) return null;
  const own = boardOf(setup, whole);
  const board = own.neighbours.length > 0 ? own : { ...own, neighbours: assumedBridges(whole).flatMap((a) => (a.weight >= ACROSS ? [a.nets] : [])) };
  const scenes = setup.sheet.stages.flatMap((stage) => statesOf(stage).flatMap((state) => sceneOfState(setup, whole, stage, state)));
  const last = lastFed(setup, whole);
  const problem: Problem = { board, scenes: [...scenes, ...(last ? [last.scene] : [])], meter: setup.meter };
  const diagnoser = new Diagnoser(problem, {
    healthy: 0.5,
    prior: () => 1,
    badReading: 0,
    faults: (circuit, b) => listBenchFaults(circuit, b).filter((f) => f.kind === 'healthy' || USUAL.has(f.kind)),
    effort: () => 1,
  });
  diagnoser.prepare(progress);
  const faults = listBenchFaults(last?.scene.circuit ?? whole, board).filter((f) => USUAL.has(f.kind));
  const counted = setup.sheet.stages.flatMap((stage) =>
    stage.checks.flatMap((check) => {
      const catches = catchesOf(diagnoser, faults, stage, check, windows);
      return catches ? [{ stage, check, catches }] : [];
    }),
  );
  if (counted.length === 0) return null;
  const caught = new Map<Fault, Stage>();
  const checks = counted.map(({ stage, check, catches }): CheckWorth => {
    const fresh = [...catches].filter((f) => !caught.has(f));
    for (const f of fresh) caught.set(f, stage);
    return { stage: stage.id, check: check.id, catches: catches.size, first: fresh.length };
  });
  const firstFed = setup.sheet.stages.findIndex((s) => s.supplies.length > 0);
  const early = setup.sheet.stages.slice(0, firstFed < 0 ? undefined : firstFed + 1);
  const missed = faults.filter((f) => !caught.has(f));
  return {
    faults: faults.length,
    caught: caught.size,
    early: [...caught.values()].filter((s) => early.includes(s)).length,
    checks,
    missed,
    short: shortest(counted, SHORT_KEEPS * caught.size).map(({ stage, check }) => ({ stage: stage.id, check: check.id })),
    add: last ? addable(diagnoser, missed, last) : [],
    uncounted: setup.sheet.stages.reduce((n, s) => n + s.checks.filter((c) => c.what === 'measure' && !counted.some((x) => x.check === c)).length, 0),
  };
}

/** A stage in one of its settings, as far as it rests, with the lamps that are looked at. */
function sceneOfState(setup: Setup, whole: Circuit, stage: Stage, state: Stage): Scene[] {
  const full = sceneOf(setup, whole, state);
  if (isRunning(full.circuit)) return [];
  const { observables, ...scene } = toScene(full);
  const own = new Set(state.checks.map((c) => checkObservableId(stage.id, c.id)));
  const lamps = state.checks.flatMap((c) => {
    const element = c.what === 'observe' && c.sign ? elementOf(setup.sheet, full.circuit, c.sign.ref) : null;
    return element === null ? [] : [{ id: checkObservableId(stage.id, c.id), element }];
  });
  const read = observables.filter((o) => own.has(o.id));
  return read.length + lamps.length === 0 ? [] : [{ ...scene, observables: read, motion: [], lamps }];
}

/** The last stage that is fed and rests, with every net read that no check reads. */
function lastFed(setup: Setup, whole: Circuit): { readonly stage: string; readonly scene: Scene; readonly nets: readonly string[] } | null {
  const stage = setup.sheet.stages.findLast((s) => s.supplies.length > 0);
  if (!stage) return null;
  const { circuit, observables } = sceneOf(setup, whole, stage);
  if (isRunning(circuit)) return null;
  const read = new Set(observables.flatMap((o) => (o.mode === 'dcv' && o.black === GROUND ? [o.red] : [])));
  const nets = netsOf(circuit).filter((n) => n !== GROUND && !/[.~]/.test(n) && !read.has(n));
  return { stage: stage.id, nets, scene: { circuit, observables: nets.map((net) => ({ id: netId(net), mode: 'dcv' as const, red: net, black: GROUND })) } };
}

const netId = (net: string) => `net:${net}`;

/** Usual faults that a check catches; null where it has no limits or is not computed. */
function catchesOf(diagnoser: Diagnoser, faults: readonly Fault[], stage: Stage, check: Check, windows: Windows): ReadonlySet<Fault> | null {
  const id = checkObservableId(stage.id, check.id);
  if (!diagnoser.knows(id)) return null;
  if (check.what === 'observe') {
    if (!check.sign) return null;
    const { amperes } = check.sign;
    const least = Math.abs(amperes);
    return caughtBy(diagnoser, faults, id, (p) => (amperes >= 0 ? p.high < least : p.low > least));
  }
  const limits = limitsOf(check, windows[id]);
  return limits && caughtBy(diagnoser, faults, id, (p) => p.high < limits.low || p.low > limits.high);
}

/** Null where a healthy board would be called out too: the drawing does not describe that place, and every fault would seem caught. */
function caughtBy(diagnoser: Diagnoser, faults: readonly Fault[], id: string, isOut: (p: Percentiles) => boolean): ReadonlySet<Fault> | null {
  const healthy = diagnoser.prediction([], id);
  if (!healthy || isOut(healthy)) return null;
  return new Set(
    faults.filter((f) => {
      const p = diagnoser.prediction([f], id);
      return p !== null && isOut(p);
    }),
  );
}

function limitsOf(check: Extract<Check, { what: 'measure' }>, result: Windows[string] | undefined): Limits | null {
  if (check.window) return { low: check.window.low ?? -Infinity, high: check.window.high ?? Infinity };
  const window = computedWindow(result);
  if (!window) return null;
  return window.over ? { low: 0.9 * OVER[check.mode === 'temp' ? 'dcv' : check.mode], high: Infinity } : { low: window.low, high: window.high };
}

/** Greedily the checks that catch most, until `enough` is caught; in their order. */
function shortest<C extends { readonly catches: ReadonlySet<Fault> }>(checks: readonly C[], enough: number): C[] {
  const chosen = new Set<C>();
  const caught = new Set<Fault>();
  while (caught.size < enough) {
    const gain = (c: C) => (chosen.has(c) ? 0 : [...c.catches].filter((f) => !caught.has(f)).length);
    const best = checks.reduce((a, b) => (gain(b) > gain(a) ? b : a));
    if (gain(best) === 0) break;
    chosen.add(best);
    for (const f of best.catches) caught.add(f);
  }
  return checks.filter((c) => chosen.has(c));
}

/** Nets where most of what is missed reads beside a healthy board. */
function addable(diagnoser: Diagnoser, missed: readonly Fault[], { stage, nets }: { readonly stage: string; readonly nets: readonly string[] }): Worth['add'] {
  return nets
    .flatMap((net) => {
      const healthy = diagnoser.prediction([], netId(net));
      if (!healthy) return [];
      const slack = 0.02 * Math.abs(healthy.middle) + 0.01;
      const catches = caughtBy(diagnoser, missed, netId(net), (p) => p.high < healthy.low - slack || p.low > healthy.high + slack)?.size ?? 0;
      return catches > 0 ? [{ stage, net, catches }] : [];
    })
    .sort((a, b) => b.catches - a.catches)
    .slice(0, MOST_ADDED);
}
