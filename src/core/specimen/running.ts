import { type Circuit, FORM_FACTOR, GROUND, statisticsOf, isDriven, type SteadyOptions, steadyState, type SteadyState, type TraceStatistics } from '../circuit';
import type { MeterProfile } from '../meter';
import type { RunningObservable } from './problem';

/** What a slow meter shows on a circuit that runs. */
export interface RunningReadings extends Pick<SteadyState, 'steady' | 'stalled' | 'seconds' | 'end'> {
  /** In the unit of the mode, by observable; null for the frequency or duty of a net that stands still. */
  readonly readings: ReadonlyMap<string, number | null>;
  /** Hertz of the slowest net that repeats by itself; null where a source drives the circuit or nothing repeats. */
  readonly slowest: number | null;
}

interface RunningOptions extends Omit<SteadyOptions, 'periodsOf'> {
  /** What the meter makes of a wave on AC volts: average-responding unless told otherwise. */
  readonly acResponse?: MeterProfile['acResponse'];
}

/**
 * Runs a circuit until it is steady and reads it as a meter does: averages on DC, what alternates on AC, periods on a counter.
 * @throws UnsolvableError when the circuit has no start or the time steps vanish.
 */
export function readRunning(circuit: Circuit, observables: readonly RunningObservable[], { acResponse, ...options }: RunningOptions = {}): RunningReadings {
  const traced = [...new Set(observables.flatMap(tracesOf))].filter((net) => net !== GROUND);
  const periodsOf = observables.flatMap((o) => (o.mode === 'frequency' || o.mode === 'duty' ? [o.net] : []));
  const { statistics, settled, steady, stalled, seconds, end } = steadyState(circuit, traced, { ...options, periodsOf });
  const average = (net: string) => statistics[net]?.average ?? 0;
  const reading = (o: RunningObservable): number | null => {
    switch (o.mode) {
      case 'frequency':
        return statistics[o.net]?.frequency ?? null;
      case 'duty': {
        const duty = statistics[o.net]?.duty ?? null;
        return duty === null ? null : 100 * duty;
      }
      case 'dca':
        return -average(`I(${o.source})`);
      case 'dcv':
        return average(o.red) - average(o.black);
      case 'vmin':
      case 'vmax': {
        const volts = between(settled, o);
        return volts.reduce((found, v) => (o.mode === 'vmin' ? Math.min(found, v) : Math.max(found, v)), o.mode === 'vmin' ? Infinity : -Infinity);
      }
      case 'acv': {
        const { ac, acMean } = statisticsOf(settled.times, between(settled, o));
        return acResponse === 'true-rms' ? ac : acMean * FORM_FACTOR;
      }
    }
  };
  return {
    readings: new Map(observables.map((o) => [o.id, reading(o)])),
    steady,
    stalled,
    seconds,
    end,
    slowest: slowestOf(circuit, Object.values(statistics)),
  };
}

/** Volts between two nets over time. */
const between = ({ times, volts }: SteadyState['settled'], { red, black }: { readonly red: string; readonly black: string }): Float64Array =>
  Float64Array.from(times, (_, i) => (volts[red]?.[i] ?? 0) - (volts[black]?.[i] ?? 0));

function slowestOf(circuit: Circuit, statistics: readonly TraceStatistics[]): number | null {
  const found = isDriven(circuit) ? [] : statistics.flatMap((s) => s.frequency ?? []);
  return found.length === 0 ? null : Math.min(...found);
}

function tracesOf(o: RunningObservable): string[] {
  if ('net' in o) return [o.net];
  return 'source' in o ? [`I(${o.source})`] : [o.red, o.black];
}
