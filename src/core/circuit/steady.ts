import { type Circuit, GROUND } from './netlist';
import type { System } from './solve/system';
import { between, risesOf, SMALLEST_SWING, statisticsOf, type TraceStatistics } from './traceStatistics';
import { nearSteady } from './periodic';
import { type Trace, transient } from './transient';

/** Whether an alternating or pulsing source drives a circuit. */
export const isDriven = (circuit: Circuit): boolean =>
  circuit.parts.some((p) => (p.kind === 'V' || p.kind === 'I') && p.wave !== null && p.wave.shape !== 'pwl');

/** Whether a circuit never rests: it is driven, or start values set something going. */
export const isRunning = (circuit: Circuit): boolean => Object.keys(circuit.initial).length > 0 || isDriven(circuit);

export interface SteadyState {
  /** What each net shows once it has settled. */
  readonly statistics: Readonly<Record<string, TraceStatistics>>;
  /** The course of the nets once they have settled, over whole periods: averages do not depend on where it was cut. */
  readonly settled: Course;
  /** Seconds that were needed; more of the same tells no more. */
  readonly seconds: number;
  /** False when successive stretches still differed at the end of the time allowed. */
  readonly steady: boolean;
  /** No net and no capacitor swings although nothing drives the circuit: what was set at the start is all that is left. */
  readonly stalled: boolean;
  /** Unknowns at the end: where an equal circuit may go on from. */
  readonly end: Float64Array;
}

type Course = Pick<Trace, 'times' | 'volts'>;

const SHORTEST = 0.05;
const LONGEST = 20;
const PERIODS = 12;
/** Two stretches agree when their averages differ by less: share of the swing, and a floor in volts. */
const AGREE = 0.01;
const FLOOR = 2e-3;
/** The same at every capacitor, coarser: a flasher between two flips rests everywhere but there. */
const CHARGE_FLOOR = 2e-2;
/** Nets that swing by less do not oscillate, volts. */
const STALLED_SWING = 0.3;

export interface SteadyOptions {
  /** A time that is known to do, seconds. */
  readonly seconds?: number | undefined;
  /** Where to begin, from the end of an equal circuit's run: little is left to settle. */
  readonly start?: Float64Array | undefined;
  /** Allowed error of the run as a multiple of the usual one. */
  readonly coarse?: number | undefined;
  /** Steps after which a run is given up. */
  readonly mostSteps?: number | undefined;
  /** Sets values of the compiled circuit. */
  readonly prepare?: ((system: System) => void) | undefined;
  /** Nets whose frequency is wanted: the run goes on until enough of their periods fit. */
  readonly periodsOf?: readonly string[];
}

/** Share of a run that counts as settling, from nothing and from another circuit's steady state. */
const SETTLING = { cold: 0.4, warm: 0.3 };

/** Runs a circuit for longer and longer until the averages of two successive stretches agree at every net. */
export function steadyState(circuit: Circuit, nets: readonly string[], options: SteadyOptions = {}): SteadyState {
  const { coarse, mostSteps, prepare, periodsOf = [] } = options;
  const period = commonPeriod(circuit);
  const start = options.start ?? (period === null ? undefined : nearSteady(circuit, period, { coarse, ...(prepare ? { prepare } : {}) }));
  let seconds = options.seconds ?? firstGuess(circuit);
  const charged = circuit.parts.flatMap((p) => (p.kind === 'C' ? p.nodes.filter((n) => n !== GROUND) : []));
  const recorded = [...new Set([...nets, ...charged])];
  const settling = start ? SETTLING.warm : SETTLING.cold;
  const half = (1 + settling) / 2;
  for (;;) {
    const trace = transient(circuit, { stop: seconds, nets: recorded, start, coarse, mostSteps, ...(prepare ? { prepare } : {}) });
    const stretch = (from: number, to: number) => wholePeriods(cutAt(trace, from * seconds, to * seconds), circuit);
    const agrees = (floor: number) => (net: string) => {
      const [first, second] = [stretch(settling, half), stretch(half, 1)].map((c) => statisticsOf(c.times, c.volts[net]!)) as [
        TraceStatistics,
        TraceStatistics,
      ];
      return Math.abs(first.average - second.average) <= AGREE * (second.max - second.min) + floor;
    };
    const settled = stretch(settling, 1);
    const all = cutAt(trace, settling * seconds, seconds);
    // Periods are counted over all that has settled, sizes over whole periods.
    const statistics = (net: string): TraceStatistics => {
      const { frequency, duty, min, max } = statisticsOf(all.times, all.volts[net]!);
      return { ...statisticsOf(settled.times, settled.volts[net]!), min, max, frequency, duty };
    };
    const steady = nets.every(agrees(FLOOR));
    const rests = (net: string) => {
      const { min, max, frequency } = statistics(net);
      return frequency === null && max - min < STALLED_SWING;
    };
    const counted = periodsOf.every((net) => {
      const { min, max, frequency } = statistics(net);
      return frequency !== null || max - min < SMALLEST_SWING;
    });
    if ((steady && counted && charged.every(agrees(CHARGE_FLOOR))) || seconds >= LONGEST || options.seconds !== undefined)
      return {
        statistics: Object.fromEntries(nets.map((net) => [net, statistics(net)])),
        settled,
        seconds,
        steady,
        stalled: !isDriven(circuit) && charged.every(rests),
        end: trace.end,
      };
    seconds = Math.min(LONGEST, seconds * 3);
  }
}

const cutAt = ({ times, volts }: Course, from: number, to: number): Course => {
  const cut = Object.entries(volts).map(([net, all]) => [net, between(times, all, from, to)] as const);
  return { times: cut[0]?.[1].times ?? times, volts: Object.fromEntries(cut.map(([net, c]) => [net, c.volts])) };
};

/** As much of a course as holds whole periods: those of its sources, or of its slowest net; all of it where nothing repeats. */
function wholePeriods(course: Course, circuit: Circuit): Course {
  const [from, to] = [course.times[0]!, course.times.at(-1)!];
  const period = Math.max(0, ...periodsOfSources(circuit));
  if (period > 0) {
    const count = Math.floor((to - from) / period + 1e-9);
    return count < 1 ? course : cutAt(course, to - count * period, to);
  }
  const rises = Object.values(course.volts)
    .map((volts) => risesOf(course.times, volts))
    .filter((r) => r.length > 1)
    .sort((a, b) => a.length - b.length)[0];
  return rises ? cutAt(course, rises[0]!, rises.at(-1)!) : course;
}

function firstGuess(circuit: Circuit): number {
  return Math.min(LONGEST, Math.max(SHORTEST, PERIODS * Math.max(0, ...periodsOfSources(circuit))));
}

/** The period of all sources together, where the longest of them is a multiple of each other; null where nothing repeats or they do not fit. */
function commonPeriod(circuit: Circuit): number | null {
  const periods = periodsOfSources(circuit);
  const longest = Math.max(0, ...periods);
  const fits = (p: number) => Math.abs(longest / p - Math.round(longest / p)) < 1e-6;
  return longest > 0 && periods.every(fits) ? longest : null;
}

/** Seconds of the periods of all sources that repeat. */
function periodsOfSources(circuit: Circuit): number[] {
  return circuit.parts.flatMap((p) => {
    if ((p.kind !== 'V' && p.kind !== 'I') || !p.wave) return [];
    if (p.wave.shape === 'sin') return p.wave.frequency > 0 ? [1 / p.wave.frequency] : [];
    return p.wave.shape === 'pulse' && Number.isFinite(p.wave.period) ? [p.wave.period] : [];
  });
}
