import { type Circuit, FORM_FACTOR, GROUND, statisticsOf, type System, transient, type Trace } from '../circuit';
import type { Lamp, RunningObservable, Sign, SwitchOn } from './problem';

/** A crossing counts from below the one to above the other, as shares of the swing; a smaller swing is none (contract of boards that run). */
const CROSSING = { low: 0.4, high: 0.6, leastVolts: 0.1 };
/** Dark below the one all the time, lit from the other on, amperes; what alternates between them is seen to blink up to so many hertz. */
const LAMP = { dark: 0.3e-3, lit: 1e-3, blinks: 12, flickers: 50 };
/** AC volts below this are shown as none. */
const LEAST_AC = 0.02;
/** Error of a step, against the usual one: readings are judged by their spread, which is wider. */
const COARSE = 100;
const FEWEST_STEPS = 60;
/** What oscillates so fast that these steps do not reach the end is read in the later half of what was run. */
const ENOUGH_STEPS = 3000;

/** What a board shows in its window of time, in the unit of each mode; a lamp that glows in between shows nothing certain. */
export interface SwitchedOn {
  readonly readings: readonly number[];
  readonly signs: readonly (Sign | null)[];
}

/**
 * Switches a circuit on and reads it in its window.
 * @throws UnsolvableError when the circuit has no start or the time steps vanish.
 */
export function readSwitchedOn(
  circuit: Circuit,
  observables: readonly RunningObservable[],
  lamps: readonly Lamp[],
  run: SwitchOn,
  prepare: (system: System) => void,
): SwitchedOn {
  const nets = [...new Set(observables.flatMap(tracesOf))].filter((net) => net !== GROUND);
  const trace = transient(circuit, {
    stop: run.settle + run.window,
    rise: run.rise,
    nets,
    ammeters: lamps.map((l) => l.element),
    coarse: COARSE,
    fewestSteps: FEWEST_STEPS,
    enoughSteps: ENOUGH_STEPS,
    prepare,
  });
  const end = trace.times.at(-1)!;
  const from = trace.times.findIndex((t) => t >= (end > run.settle + run.window / 2 ? run.settle : end / 2));
  const cut = (columns: Trace['volts']) => Object.fromEntries(Object.entries(columns).map(([name, column]) => [name, column.subarray(from)]));
  const times = trace.times.subarray(from);
  const volts = cut(trace.volts);
  const amperes = cut(trace.amperes);
  return {
    readings: observables.map((o) => readingOf(o, { times, volts }, run)),
    signs: lamps.map((l) => signOf(times, amperes[l.element]!)),
  };
}

function tracesOf(o: RunningObservable): string[] {
  if ('net' in o) return [o.net];
  return 'source' in o ? [`I(${o.source})`] : [o.red, o.black];
}

function readingOf(o: RunningObservable, { times, volts }: Pick<Trace, 'times' | 'volts'>, { acResponse }: SwitchOn): number {
  const of = (name: string) => volts[name] ?? new Float64Array(times.length);
  switch (o.mode) {
    case 'frequency':
      return crossings(times, of(o.net));
    case 'duty':
      return 100 * (statisticsOf(times, of(o.net)).duty ?? 0);
    case 'dca':
      return -statisticsOf(times, of(`I(${o.source})`)).average;
    default: {
      const [red, black] = [of(o.red), of(o.black)];
      const course = o.black === GROUND ? red : times.map((_, i) => red[i]! - black[i]!);
      const s = statisticsOf(times, course);
      if (o.mode === 'dcv') return s.average;
      if (o.mode === 'vmin') return s.min;
      if (o.mode === 'vmax') return s.max;
      const ac = acResponse === 'true-rms' ? s.ac : s.acMean * FORM_FACTOR;
      return ac < LEAST_AC ? 0 : ac;
    }
  }
}

/** Hertz by the crossings of a course: (n − 1) over the time from first to last; 0 with fewer than two. */
function crossings(times: Float64Array, course: Float64Array): number {
  const low = course.reduce((a, b) => Math.min(a, b), Infinity);
  const swing = course.reduce((a, b) => Math.max(a, b), -Infinity) - low;
  if (!(swing >= CROSSING.leastVolts)) return 0;
  const [under, over] = [low + CROSSING.low * swing, low + CROSSING.high * swing];
  const found: number[] = [];
  let armed = false;
  for (let i = 0; i < course.length; i++) {
    const v = course[i]!;
    if (v < under) armed = true;
    if (!armed || v <= over) continue;
    armed = false;
    const before = course[i - 1] ?? v;
    const share = v === before ? 0 : (v - over) / (v - before);
    found.push(times[i]! - share * (times[i]! - (times[i - 1] ?? times[i]!)));
  }
  return found.length < 2 ? 0 : (found.length - 1) / (found.at(-1)! - found[0]!);
}

/** What is seen of a lamp by its current. */
function signOf(times: Float64Array, amperes: Float64Array): Sign | null {
  const least = amperes.reduce((a, b) => Math.min(a, b), Infinity);
  const most = amperes.reduce((a, b) => Math.max(a, b), -Infinity);
  if (most < LAMP.dark) return 'dark';
  if (least >= LAMP.lit) return 'lit';
  if (least >= LAMP.dark || most < LAMP.lit) return null;
  const hertz = rate(times, amperes);
  if (hertz < LAMP.blinks) return 'blinks';
  if (hertz <= LAMP.flickers) return 'flickers';
  const { average } = statisticsOf(times, amperes);
  return average < LAMP.dark ? 'dark' : average >= LAMP.lit ? 'lit' : null;
}

/** How often a lamp lights up, hertz. */
function rate(times: Float64Array, amperes: Float64Array): number {
  let armed = false;
  let count = 0;
  for (const a of amperes) {
    if (a < LAMP.dark) armed = true;
    else if (armed && a >= LAMP.lit) {
      armed = false;
      count++;
    }
  }
  return count / (times.at(-1)! - times[0]!);
}
