import { type Circuit, GROUND, type SteadyOptions, steadyState } from '../circuit';
import { type RunningObservable } from './problem';

/** What a slow meter shows on a circuit that runs. */
export interface RunningReadings {
  /** In the unit of the mode, by observable; null for the frequency of a net that stands still. */
  readonly readings: ReadonlyMap<string, number | null>;
  /** False when it had not settled in the time allowed: the readings say nothing. */
  readonly steady: boolean;
  /** Something should oscillate and nothing does: what was set at the start is still on the capacitors, and only the operating point tells. */
  readonly stalled: boolean;
  /** Seconds of the circuit's time that were needed. */
  readonly seconds: number;
}

/**
 * Runs a circuit until it is steady and reads it as a DC meter (averages) or a counter does.
 * @throws UnsolvableError when the circuit has no start or the time steps vanish.
 */
export function readRunning(circuit: Circuit, observables: readonly RunningObservable[], options: Omit<SteadyOptions, 'periodsOf'> = {}): RunningReadings {
  const traced = [...new Set(observables.flatMap(tracesOf))].filter((net) => net !== GROUND);
  const periodsOf = observables.flatMap((o) => (o.mode === 'frequency' ? [o.net] : []));
  const { statistics, steady, stalled, seconds } = steadyState(circuit, traced, { ...options, periodsOf });
  const average = (net: string) => statistics[net]?.average ?? 0;
  const reading = (o: RunningObservable) => {
    if (o.mode === 'frequency') return statistics[o.net]?.frequency ?? null;
    return o.mode === 'dca' ? -average(`I(${o.source})`) : average(o.red) - average(o.black);
  };
  return { readings: new Map(observables.map((o) => [o.id, reading(o)])), steady, stalled, seconds };
}

function tracesOf(o: RunningObservable): string[] {
  if (o.mode === 'frequency') return [o.net];
  return o.mode === 'dca' ? [`I(${o.source})`] : [o.red, o.black];
}
