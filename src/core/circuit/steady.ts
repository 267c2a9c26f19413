import { type Circuit, GROUND } from './netlist';
import { type System } from './solve/system';
import { SMALLEST_SWING, statisticsOf, type TraceStatistics, wholePeriods } from './traceStatistics';
import { transient } from './transient';

/** Whether an alternating or pulsing source drives a circuit. */
const isDriven = (circuit: Circuit): boolean => circuit.parts.some((p) => (p.kind === 'V' || p.kind === 'I') && p.wave !== null && p.wave.shape !== 'pwl');

/** Whether a circuit never rests: it is driven, or start values set something going. */
export const isRunning = (circuit: Circuit): boolean => Object.keys(circuit.initial).length > 0 || isDriven(circuit);

export interface SteadyState {
  /** What each net shows once it has settled. */
  readonly statistics: Readonly<Record<string, TraceStatistics>>;
  /** Seconds that were needed; more of the same tells no more. */
  readonly seconds: number;
  /** False when successive stretches still differed at the end of the time allowed. */
  readonly steady: boolean;
  /** No net and no capacitor swings although nothing drives the circuit: what was set at the start is all that is left. */
  readonly stalled: boolean;
}

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
  readonly seconds?: number;
  /** Sets values of the compiled circuit. */
  readonly prepare?: (system: System) => void;
  /** Nets whose frequency is wanted: the run goes on until enough of their periods fit. */
  readonly periodsOf?: readonly string[];
}

/** Runs a circuit for longer and longer until the averages of two successive stretches agree at every net. */
export function steadyState(circuit: Circuit, nets: readonly string[], options: SteadyOptions = {}): SteadyState {
  let seconds = options.seconds ?? firstGuess(circuit);
  const charged = circuit.parts.flatMap((p) => (p.kind === 'C' ? p.nodes.filter((n) => n !== GROUND) : []));
  for (;;) {
    const trace = transient(circuit, { stop: seconds, nets: [...new Set([...nets, ...charged])], ...(options.prepare ? { prepare: options.prepare } : {}) });
    const part = (net: string, from: number, to: number) => {
      const a = trace.times.findIndex((t) => t >= from * seconds);
      const b = trace.times.findIndex((t) => t >= to * seconds);
      const [times, volts] = [trace.times, trace.volts[net]!].map((all) => all.subarray(a, b < 0 ? undefined : b + 1)) as [Float64Array, Float64Array];
      const all = statisticsOf(times, volts);
      if (all.max - all.min < SMALLEST_SWING) return all;
      const whole = wholePeriods(times, volts);
      const { average, rms } = statisticsOf(whole.times, whole.volts);
      return { ...all, average, rms };
    };
    const agrees = (floor: number) => (net: string) => {
      const [first, second] = [part(net, 0.4, 0.7), part(net, 0.7, 1)];
      return Math.abs(first.average - second.average) <= AGREE * (second.max - second.min) + floor;
    };
    const steady = nets.every(agrees(FLOOR));
    const rests = (net: string) => {
      const { min, max, frequency } = part(net, 0.4, 1);
      return frequency === null && max - min < STALLED_SWING;
    };
    const counted = (options.periodsOf ?? []).every((net) => {
      const { min, max, frequency } = part(net, 0.4, 1);
      return frequency !== null || max - min < SMALLEST_SWING;
    });
    if ((steady && counted && charged.every(agrees(CHARGE_FLOOR))) || seconds >= LONGEST || options.seconds !== undefined)
      return {
        statistics: Object.fromEntries(nets.map((net) => [net, part(net, 0.4, 1)])),
        seconds,
        steady,
        stalled: !isDriven(circuit) && charged.every(rests),
      };
    seconds = Math.min(LONGEST, seconds * 3);
  }
}

function firstGuess(circuit: Circuit): number {
  const periods = circuit.parts.flatMap((p) => {
    if ((p.kind !== 'V' && p.kind !== 'I') || !p.wave) return [];
    if (p.wave.shape === 'sin') return p.wave.frequency > 0 ? [1 / p.wave.frequency] : [];
    return p.wave.shape === 'pulse' && Number.isFinite(p.wave.period) ? [p.wave.period] : [];
  });
  return Math.min(LONGEST, Math.max(SHORTEST, PERIODS * Math.max(0, ...periods)));
}
