import { UnsolvableError } from '../circuit';
import {
  atRest,
  FaultSampler,
  fromScale,
  inMotion,
  MODEL_SPREADS,
  NOMINAL_SPECIMEN,
  type Observable,
  OVER,
  type Problem,
  readRunning,
  type RunningObservable,
  type Sample,
  type Scene,
  specimenOf,
  specimenSteps,
  type StageScene,
  toScale,
} from '../specimen';
import { type Board, HEALTHY } from '../fault';
import { type MeterProfile, uncertaintyOf } from '../meter';

/** Specimens per spread that a window is drawn from. */
const SPECIMENS = 80;
/** Windows are stretched by this share of their width beyond the extremes seen: 160 specimens miss the outermost ones. */
const STRETCH = 0.1;

/** Where a reading is expected on a healthy board. In the unit of the mode. */
export interface ComputedWindow {
  readonly low: number;
  readonly middle: number;
  readonly high: number;
  /** Share of the window that is the meter's allowance, half-width. */
  readonly meter: number;
  /** A healthy board reads over-range here. */
  readonly over: boolean;
}

/**
 * Windows of all observables of a scene: the extremes over many healthy specimens (parts anywhere in tolerance,
 * models of other makers too), widened by the meter's greatest error.
 */
export function windowsOf(scene: StageScene, board: Board, meter: MeterProfile): Map<string, ComputedWindow | null> {
  return new Map([...restingWindows(atRest(scene), board, meter), ...runningWindows(scene, board, meter)]);
}

function restingWindows(scene: Scene, board: Board, meter: MeterProfile): Map<string, ComputedWindow | null> {
  if (scene.observables.length === 0) return new Map();
  const problem: Problem = { board, scenes: [scene], meter };
  const sampler = new FaultSampler(problem, HEALTHY, new Map(), null);
  const samples = MODEL_SPREADS.map((spread, k) => sampler.draw(5000 + k * 1000, SPECIMENS, spread));
  return new Map(scene.observables.map((o, i) => [o.id, windowOf(o, samples, i, meter)]));
}

function windowOf(o: Observable, samples: readonly Sample[], column: number, meter: MeterProfile): ComputedWindow | null {
  const values = samples.flatMap((s) => Array.from({ length: s.rows }, (_, r) => s.values[r * s.width + column]!));
  if (values.length < SPECIMENS) return null;
  values.sort((a, b) => a - b);
  const over = values[values.length >> 1]! >= toScale(o.mode, OVER[o.mode]) - 1e-6;
  const [lowest, middle, highest] = [values[0]!, values[values.length >> 1]!, values[values.length - 1]!].map((y) => fromScale(o.mode, y)) as [
    number,
    number,
    number,
  ];
  const allowance = uncertaintyOf(meter, o.mode, middle)?.halfWidth ?? 0;
  const stretch = (highest - lowest) * STRETCH;
  return { low: lowest - stretch - allowance, middle, high: over ? Infinity : highest + stretch + allowance, meter: allowance, over };
}

/** Specimens that a running circuit is run for: each takes a transient of its own. */
const RUNS = 5;
/** So few specimens miss more of the extremes. */
const RUN_STRETCH = 0.4;

/**
 * Windows of volts, supply currents and frequencies of a circuit that never rests: a DC meter shows averages, found by
 * running a few specimens until they are steady. Null where it does not settle, or stands still where it should swing.
 */
function runningWindows(scene: StageScene, board: Board, meter: MeterProfile): Map<string, ComputedWindow | null> {
  const observables = inMotion(scene);
  const none = new Map(observables.map((o) => [o.id, null] as const));
  if (observables.length === 0) return none;
  const run = (number: number, seconds?: number) =>
    readRunning(scene.circuit, observables, {
      ...(seconds === undefined ? {} : { seconds }),
      prepare: (system) => {
        const specimen = specimenOf(board, number + 1);
        for (const step of specimenSteps(system, scene.circuit, board, HEALTHY, new Map())) step(specimen, MODEL_SPREADS[1]!);
      },
    });
  try {
    const nominal = run(NOMINAL_SPECIMEN);
    if (!nominal.steady) return none;
    const runs = [nominal, ...Array.from({ length: RUNS }, (_, i) => run(7000 + i, nominal.seconds))];
    return new Map(
      observables.map((o) => [
        o.id,
        runWindow(
          o,
          runs.flatMap((r) => r.readings.get(o.id) ?? []),
          meter,
        ),
      ]),
    );
  } catch (error) {
    if (!(error instanceof UnsolvableError)) throw error;
    return none;
  }
}

/** `values`: the nominal run's reading first. */
function runWindow(o: RunningObservable, values: readonly number[], meter: MeterProfile): ComputedWindow | null {
  const [middle] = values;
  if (middle === undefined || values.length <= RUNS) return null;
  const [low, high] = [Math.min(...values), Math.max(...values)];
  const allowance = uncertaintyOf(meter, o.mode, middle)?.halfWidth ?? 0;
  const stretch = (high - low) * RUN_STRETCH;
  return { low: low - stretch - allowance, middle, high: high + stretch + allowance, meter: allowance, over: false };
}
