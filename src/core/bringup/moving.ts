import { type Circuit, FORM_FACTOR, type Part, statisticsOf, steadyState, type SteadyState, UnsolvableError } from '../circuit';
import { hypercube } from '../statistics';
import { type Bench, realMeter } from './bench';
import { feedParts, leaks, type RealBoard } from './board';
import type { Draw } from './parts';
import { type Change, type Place, type Scene, SEED, type Shown, UNCHANGED } from './read';

/** Allowed error of a run as a multiple of the usual one: far below what a meter tells. */
const COARSE = 8;
/** Periods that a board is run for from the steady state of another. */
const PERIODS = 5;
/** A board that needs more steps is not read: with some faults a chip chatters at its threshold. */
const MOST_STEPS = { healthy: 20_000, faulty: 3000 };
/** How much longer a faulty board is run for. */
const FAULT_ROUNDS = 2;
/** Seconds in which a display follows (common practice, no source). */
const DISPLAY = 0.4;

/** A run of one board, and how the next one goes on from it. */
interface Run {
  readonly state: SteadyState;
  readonly seconds: number;
}

/** What a meter may show on a board that moves: a look at a slow display falls anywhere between its least and its most. */
export interface Moving {
  readonly rows: readonly (readonly Shown[])[];
  /** Nothing swings: it stands still. */
  readonly stalled: boolean;
}

/**
 * Readings of a board that never rests, some of each board: a display that follows slowly is read at its least and at its most.
 * `like`: how the healthy middle board went, so that others need not settle anew.
 */
export function readMoving(
  bench: Bench,
  board: RealBoard,
  scene: Scene,
  change: Change,
  boards: number | 'middle',
  like: Run | null = null,
): Moving & { readonly run: Run | null } {
  const names = new Set<string>();
  const note: Draw = (name) => {
    names.add(name);
    return 0.5;
  };
  const parts = change.parts(board.parts).filter((p) => !scene.without.includes(p.ref));
  const elements = (draw: Draw): Part[] => [
    ...parts.flatMap((p) => p.build(p.nodes, draw, scene.at, false, 1)),
    ...board.feeds.flatMap((f, k) => feedParts(f, k, draw)),
    ...change.extra,
    ...leaks(board.nets),
  ];
  const circuit: Circuit = { title: '', parts: elements(note), initial: startOf(bench, board) };
  realMeter(bench.meter, note);
  const nets = [...new Set(scene.places.flatMap(tracesOf))].filter((t) => t !== '0');
  const run = (draw: Draw, from: Run | null): Run => {
    const settled = steadyState({ ...circuit, parts: elements(draw) }, nets, {
      coarse: COARSE,
      mostSteps: change === UNCHANGED ? MOST_STEPS.healthy : MOST_STEPS.faulty,
      // With a fault the circuit has other nets: it begins anew, and is given time to settle.
      ...(from ? (change === UNCHANGED ? { seconds: from.seconds, start: from.state.end } : { seconds: FAULT_ROUNDS * from.seconds }) : {}),
    });
    return { state: settled, seconds: from?.seconds ?? nextSeconds(settled) };
  };
  try {
    const nominal = run(() => 0.5, like);
    if (boards === 'middle') return { rows: shownOf(nominal, scene.places, 'average'), stalled: nominal.state.stalled, run: nominal };
    const list = [...names];
    const index = new Map(list.map((n, i) => [n, i]));
    const rows = hypercube(list.length, boards, SEED).flatMap((row) => {
      const draw: Draw = (name) => row[index.get(name)!] ?? 0.5;
      const meter = realMeter(bench.meter, draw).profile;
      return shownOf(run(draw, nominal), scene.places, meter.acResponse ?? 'average');
    });
    return { rows, stalled: nominal.state.stalled, run: nominal };
  } catch (error) {
    if (!(error instanceof UnsolvableError)) throw error;
    return { rows: [scene.places.map(() => null)], stalled: true, run: null };
  }
}

/** Start values: the drawing's own, or a timer's capacitor empty. */
function startOf({ circuit }: Bench, { parts }: RealBoard): Readonly<Record<string, number>> {
  if (Object.keys(circuit.initial).length > 0) return circuit.initial;
  const timing = parts.flatMap((p) => (p.chip?.family === 'timer' && p.chip.pins['thr'] !== undefined ? [[p.chip.pins['thr'], 0] as const] : []));
  return Object.fromEntries(timing);
}

function nextSeconds({ statistics, seconds }: SteadyState): number {
  const found = Object.values(statistics).flatMap((s) => s.frequency ?? []);
  return found.length === 0 ? seconds : Math.min(seconds, PERIODS / Math.min(...found));
}

const currentOf = (p: Place) => `I(~V${p.feed ?? 0})`;
const tracesOf = (p: Place): string[] => (p.mode === 'dca' ? [currentOf(p)] : [p.red, p.black]);

/** Two rows: the least and the most that may be seen. */
function shownOf({ state }: Run, places: readonly Place[], response: 'average' | 'true-rms'): [Shown[], Shown[]] {
  const { times, volts } = state.settled;
  const pairs = places.map((p): [Shown, Shown] => {
    const course =
      p.mode === 'dca'
        ? Float64Array.from(volts[currentOf(p)] ?? [], (v) => -v)
        : Float64Array.from(times, (_, i) => (volts[p.red]?.[i] ?? 0) - (volts[p.black]?.[i] ?? 0));
    if (course.length === 0) return [null, null];
    const { min, max } = extremes(course);
    switch (p.mode) {
      case 'vmin':
        return [min, min];
      case 'vmax':
        return [max, max];
      case 'acv': {
        const { ac, acMean } = statisticsOf(times, course);
        const shown = response === 'true-rms' ? ac : acMean * FORM_FACTOR;
        return [shown, shown];
      }
      default: {
        const slow = followed(times, course, DISPLAY);
        return [slow.min, slow.max];
      }
    }
  });
  return [pairs.map((p) => p[0]), pairs.map((p) => p[1])];
}

function extremes(course: Float64Array): { readonly min: number; readonly max: number } {
  let [min, max] = [Infinity, -Infinity];
  for (const v of course) {
    if (v < min) min = v;
    if (v > max) max = v;
  }
  return { min, max };
}

/** Least and most of a course behind a first-order lag, once it has gone round often enough to forget its start. */
function followed(times: Float64Array, course: Float64Array, tau: number): { readonly min: number; readonly max: number } {
  let slow = statisticsOf(times, course).average;
  const length = times.at(-1)! - times[0]!;
  const rounds = length > 0 ? Math.min(50, Math.max(2, Math.ceil((6 * tau) / length))) : 1;
  let [min, max] = [slow, slow];
  for (let round = 0; round < rounds; round++) {
    if (round === rounds - 1) [min, max] = [slow, slow];
    for (let i = 1; i < times.length; i++) {
      slow += (course[i]! - slow) * (1 - Math.exp(-(times[i]! - times[i - 1]!) / tau));
      if (slow < min) min = slow;
      if (slow > max) max = slow;
    }
  }
  return { min, max };
}
