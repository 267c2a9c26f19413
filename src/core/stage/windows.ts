import { type Circuit, findSourceLoop, isRunning, type Part, UnsolvableError } from '../circuit';
import {
  atRest,
  HealthyBoards,
  inMotion,
  isObservable,
  type Observable,
  readHealthy,
  readRunning,
  resting,
  type RunningObservable,
  type RunningReadings,
  type Scene,
  type StageScene,
} from '../specimen';
import type { Board } from '../fault';
import { type MeterProfile, rangeFor, uncertaintyOf } from '../meter';
import { feedsMeter } from './loading';
import type { ComputedWindow, WindowResult } from './windowResult';

/** Healthy boards that a window is drawn from. */
const BOARDS = 300;
/** Windows are stretched by this share of their width on either side: the boards miss the outermost readings. */
const STRETCH = 0.04;
/** Seed of the made-up boards: the same kit has the same windows everywhere. */
const SEED = 5000;

type Mode = (Observable | RunningObservable)['mode'];
type Results = Map<string, WindowResult>;

const UNSOLVED =
  'No steady voltages were found for this stage. Look at the circuit’s findings: a missing part, a wrong value or a net without a path to ground.';
const UNSETTLED = 'The circuit does not settle within 20 s of its own time. Give it start values with .ic, or type limits.';
const STANDS_STILL = 'Nothing oscillates here in the circuit as fitted. If it should, give start values with .ic, or type limits.';

/**
 * Windows of all observables of a scene: what a meter within its data sheet shows on many healthy boards (parts anywhere
 * among good ones, whoever made them).
 */
export function windowsOf(scene: StageScene, board: Board, meter: MeterProfile): Results {
  const loop = findSourceLoop(scene.circuit);
  if (loop) return new Map(scene.observables.map((o) => [o.id, { none: loop }]));
  if (!isRunning(scene.circuit)) return new Map([...stillWindows(scene, meter), ...restingWindows(atRest(scene), board, meter)]);
  const motion = runningWindows(scene, board, meter);
  if (motion !== 'stalled') return new Map([...motion, ...restingWindows(atRest(scene), board, meter)]);
  // What should run and stands still reads as its operating point.
  return new Map([...stillWindows(scene, meter), ...restingWindows(stalled(scene), board, meter)]);
}

/** What should run and stands still, by its operating point. */
const stalled = (scene: StageScene): Scene => ({ ...scene, observables: scene.observables.map(resting).filter(isObservable) });

/** What only a running circuit shows, on one that rests: no AC volts, and no periods to count. */
function stillWindows({ observables }: StageScene, meter: MeterProfile): Results {
  return new Map(
    observables.flatMap((o): [string, WindowResult][] => {
      if (isObservable(o) || o.mode === 'vmin' || o.mode === 'vmax') return [];
      return [[o.id, o.mode === 'acv' ? windowOf('acv', [0, 0], meter, 'all') : { none: STANDS_STILL }]];
    }),
  );
}

function restingWindows(scene: Scene, board: Board, meter: MeterProfile): Results {
  if (scene.observables.length === 0) return new Map();
  const rows = readHealthy(scene, board, meter, BOARDS, SEED);
  const windowAt = (o: Observable, i: number): WindowResult =>
    rows.length < BOARDS / 2
      ? { none: UNSOLVED }
      : windowOf(
          o.mode,
          rows.map((r) => r[i]!),
          meter,
          'all',
        );
  return new Map(scene.observables.map((o, i) => [o.id, windowAt(o, i)]));
}

/** The window about what healthy boards read, with the meter's error. `some`: so few boards that their spread tells more than their extremes. */
function windowOf(mode: Mode, readings: readonly (number | 'over')[], meter: MeterProfile, boards: 'all' | 'some'): ComputedWindow {
  const numbers = readings.filter((r) => r !== 'over');
  const over = numbers.length < readings.length / 2;
  if (numbers.length === 0) {
    const limit = limitOf(mode, meter);
    return { low: limit, middle: limit, high: Infinity, meter: 0, over };
  }
  const middle = [...numbers].sort((a, b) => a - b)[numbers.length >> 1]!;
  const error = (value: number) => uncertaintyOf(meter, mode, value)?.halfWidth ?? 0;
  const [lowest, highest] = boards === 'all' ? stretched(numbers) : spread(numbers);
  const [centre, half] = [(lowest + highest) / 2, (highest - lowest) / 2];
  const high = over ? Infinity : centre + together(half, error(highest));
  return { low: centre - together(half, error(lowest)), middle, high, meter: error(middle), over };
}

/**
 * Half-width of the sum of two errors that hardly ever reach their ends at once: more than their root sum of squares, less
 * than their sum. With this exponent 99 % of the sum of two even distributions of equal width lie inside.
 */
const together = (a: number, b: number) => (a ** SUM + b ** SUM) ** (1 / SUM);
const SUM = 1.2;

/** From the lowest to the highest reading, and a little beyond. */
function stretched(readings: readonly number[]): [number, number] {
  const [lowest, highest] = [Math.min(...readings), Math.max(...readings)];
  const stretch = (highest - lowest) * STRETCH;
  return [lowest - stretch, highest + stretch];
}

/** So many standard deviations hold 99 % of readings that are normal, with a margin for how well few boards tell it. */
const DEVIATIONS = 2.8;
const BEYOND = 1.5;

/** As far as the readings' standard deviation says, or their extremes where those lie further out. */
function spread(readings: readonly number[]): [number, number] {
  const mean = readings.reduce((sum, v) => sum + v, 0) / readings.length;
  const deviation = Math.sqrt(readings.reduce((sum, v) => sum + (v - mean) ** 2, 0) / (readings.length - 1));
  const [lowest, highest] = [Math.min(...readings), Math.max(...readings)];
  // An even distribution has ends: the boards come near them, and the deviation would lead far beyond.
  const most = (BEYOND * (highest - lowest)) / 2;
  return [Math.min(mean - Math.min(DEVIATIONS * deviation, most), lowest), Math.max(mean + Math.min(DEVIATIONS * deviation, most), highest)];
}

/** Where over-range begins on a meter. */
function limitOf(mode: Mode, meter: MeterProfile): number {
  return mode === 'diode' ? meter.diodeCompliance : (rangeFor(meter, mode, Infinity)?.upTo ?? Infinity);
}

/** Healthy boards that a running circuit is run for: each takes a transient of its own. */
const RUNS = 26;
/** Allowed error of such a run as a multiple of the usual one: still far below what a meter tells. */
const COARSE = 8;
/** Periods that a board is run for from the steady state of another. */
const PERIODS = 6.5;

/**
 * Windows of what a meter shows on a circuit that never rests: averages on DC, found by running a few healthy boards until
 * they are steady. `stalled` where it stands still.
 */
function runningWindows(scene: StageScene, board: Board, meter: MeterProfile): Results | 'stalled' {
  const observables = inMotion(scene);
  if (observables.length === 0) return new Map();
  const boards = new HealthyBoards(scene.circuit, board);
  const run = (circuit: Circuit, parts: readonly Part[], like?: RunningReadings) =>
    readRunning(circuit, observables, {
      ...(like ? goingOn(like) : {}),
      acResponse: meter.acResponse,
      coarse: COARSE,
      prepare: (system) => {
        for (const part of parts) system.take(part);
      },
    });
  const refused = (none: string): Results => new Map(observables.map((o) => [o.id, { none }]));
  try {
    const middle = boards.middle();
    const nominal = run(boards.circuit, middle);
    if (nominal.stalled) return 'stalled';
    if (!nominal.steady) return refused(UNSETTLED);
    const counted = (r: RunningReadings) => observables.every((o) => r.readings.get(o.id) !== null);
    const runs = boards.draw(RUNS, SEED).map((parts) => {
      const quick = run(boards.circuit, parts, nominal);
      // A much slower board than the nominal one has too few periods in its time.
      return counted(quick) || !counted(nominal) ? quick : run(boards.circuit, parts);
    });
    return new Map(
      observables.map((o): [string, WindowResult] => {
        const shift = loadingOf(o, nominal);
        const readings = runs.flatMap((r) => {
          const reading = r.readings.get(o.id);
          return reading === null || reading === undefined ? [] : [reading + shift];
        });
        return [o.id, readings.length < RUNS ? { none: STANDS_STILL } : windowOf(o.mode, readings, meter, 'some')];
      }),
    );

    /** How far the connected meter shifts a reading: run once with it, where it can matter. */
    function loadingOf(o: RunningObservable, unloaded: RunningReadings): number {
      const reading = unloaded.readings.get(o.id);
      const loaded = reading === null || reading === undefined ? null : feedsMeter(boards.circuit, o, meter);
      return loaded ? (run(loaded, middle, unloaded).readings.get(o.id) ?? reading!) - reading! : 0;
    }
  } catch (error) {
    if (!(error instanceof UnsolvableError)) throw error;
    return refused(`${error.message} Or type limits.`);
  }
}

/** How a board much like another goes on from the other's steady state; driven ones, which may have to discharge, begin anew. */
function goingOn(like: RunningReadings) {
  const seconds = like.slowest === null ? like.seconds : Math.min(like.seconds, PERIODS / like.slowest);
  return seconds < like.seconds ? { seconds, start: like.end } : { seconds: like.seconds };
}
