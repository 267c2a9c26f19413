import { removeParts } from './edit';
import { type Circuit, GROUND, type Part, type TwoTerminal, type Waveform } from './netlist';
import { checkSolved, UnsolvableError } from './operatingPoint';
import { Newton } from './solve/newton';
import { System } from './solve/system';
import { statisticsOf, between } from './traceStatistics';
import { type Trace, transient, type TransientOptions } from './transient';
import { levelAt } from './waveform';

/** Periods of one run, and how often one begins anew from where the slow ones belong. */
const PERIODS = 12;
const ROUNDS = 8;
/** A capacitor is slow when its average still moves by more than this between two quarters of a run: share of its swing, and volts. */
const MOVES = { share: 0.01, volts: 5e-4 };
/** The operating point is believed where it lies no further than so many times what the approach so far says. */
const FARTHER = 5;
/** Resistance of what holds a capacitor's voltage while an operating point is looked for, ohms. */
const HELD_OHMS = 1e-3;

type Capacitor = TwoTerminal & { readonly kind: 'C' };

/**
 * Unknowns near the steady state of a circuit that sources of one period drive. What is slow would take hundreds of periods
 * to charge: the fast capacitors are run until they repeat, then held at their averages, and the slow ones are put where the
 * operating point has them, as far as they were moving that way (two time scales, textbook averaging). It is only a place to
 * start from: whoever runs on finds out whether it is steady. Undefined where no such place is found.
 */
export function nearSteady(circuit: Circuit, period: number, options: Pick<TransientOptions, 'coarse' | 'prepare'>): Float64Array | undefined {
  const capacitors = circuit.parts.filter((p): p is Capacitor => p.kind === 'C' && p.value > 0);
  const nets = [...new Set(capacitors.flatMap((c) => c.nodes.filter((n) => n !== GROUND)))];
  const stop = PERIODS * period;
  let start: Float64Array | undefined;
  let reached: Float64Array | undefined;
  for (let round = 0; round < ROUNDS; round++) {
    const trace = ranFrom(circuit, { ...options, stop, nets, start });
    if (!trace) return reached;
    reached = trace.end;
    const seen = capacitors.map((c) => watch(c, trace, stop));
    start = seen.some((s) => s.slow) ? restarted(circuit, seen, trace.end) : undefined;
    if (!start) return reached;
  }
  return reached;
}

/** A run; null where the place to start from leads nowhere. Without one its own failure is said. */
function ranFrom(circuit: Circuit, options: TransientOptions): Trace | null {
  try {
    return transient(circuit, options);
  } catch (error) {
    if (error instanceof UnsolvableError && options.start) return null;
    throw error;
  }
}

/** How a capacitor's average moves in the course of a run. */
function watch(capacitor: Capacitor, { times, volts }: Trace, stop: number): Seen {
  const [a, b] = capacitor.nodes.map((n) => volts[n]);
  const course = Float64Array.from(times, (_, i) => (a?.[i] ?? 0) - (b?.[i] ?? 0));
  const quarter = (k: number) => {
    const cut = between(times, course, (k * stop) / 4, ((k + 1) * stop) / 4);
    return statisticsOf(cut.times, cut.volts);
  };
  const [first, before, after] = [quarter(1), quarter(2), quarter(3)];
  const moved = after.average - before.average;
  const slow = Math.abs(moved) > MOVES.share * (after.max - after.min) + MOVES.volts;
  return { capacitor, average: after.average, last: course.at(-1)!, moved, left: leftOf(before.average - first.average, moved), slow };
}

interface Seen {
  readonly capacitor: Capacitor;
  readonly average: number;
  readonly last: number;
  readonly moved: number;
  /** How far it would still go if it went on as it went, volts. */
  readonly left: number;
  readonly slow: boolean;
}

/** What an exponential approach has left after two equal stretches (Aitken 1926); infinite where it does not slow down. */
function leftOf(before: number, now: number): number {
  const ratio = now / before;
  return before === 0 || ratio < 0 || ratio >= 1 ? Infinity : (now * ratio) / (1 - ratio);
}

/** Unknowns with the slow capacitors where they are going; undefined when that has no solution. */
function restarted(circuit: Circuit, seen: readonly Seen[], end: Float64Array): Float64Array | undefined {
  try {
    const fast = seen.filter((s) => !s.slow);
    const goal = unknownsOf(
      holding(
        circuit,
        fast.map((s) => [s.capacitor, s.average] as const),
        averageOf,
      ),
    );
    const goalOf = ({ nodes: [a, b] }: Capacitor) => (goal.get(a!) ?? 0) - (goal.get(b!) ?? 0);
    const volts = seen.map((s) => {
      const to = goalOf(s.capacitor);
      // What a rectifier charges has no place in the operating point: it would be sent to nothing.
      const goesThere = s.slow && Math.sign(to - s.average) === Math.sign(s.moved) && Math.abs(to - s.average) < FARTHER * Math.abs(s.left);
      return [s.capacitor, goesThere ? to : s.last] as const;
    });
    const found = unknownsOf(holding(circuit, volts, (w) => levelAt(w, 0)));
    // Coils keep their current.
    const next = end.slice();
    new System(circuit, { dynamic: true }).unknowns.forEach((name, i) => {
      if (!/^I\(L/i.test(name)) next[i] = found.get(name) ?? next[i]!;
    });
    return next;
  } catch (error) {
    if (error instanceof UnsolvableError) return undefined;
    throw error;
  }
}

/** All unknowns at rest, inner nets too, by name. */
function unknownsOf(circuit: Circuit): ReadonlyMap<string, number> {
  const system = new System(circuit);
  const solution = new Newton(system).solve(null);
  checkSolved(solution);
  return new Map(system.unknowns.map((name, i) => [name, solution.x[i]!]));
}

/** The circuit at rest with some capacitors held at a voltage, all others open, and its waves at one level each. */
function holding(circuit: Circuit, held: readonly (readonly [Capacitor, number])[], level: (wave: Waveform) => number): Circuit {
  const bare = removeParts(
    circuit,
    circuit.parts.filter((p) => p.kind === 'C').map((p) => p.name),
  );
  const still = bare.parts.map((p): Part => ((p.kind === 'V' || p.kind === 'I') && p.wave ? { ...p, dc: level(p.wave), wave: null } : p));
  const holders = held.flatMap(([{ name, nodes }, volts]): Part[] => [
    { name: `~V${name}`, kind: 'V', nodes: [nodes[0]!, `~${name}`], dc: volts, wave: null },
    { name: `~R${name}`, kind: 'R', nodes: [`~${name}`, nodes[1]!], value: HELD_OHMS },
  ]);
  return { ...bare, parts: [...still, ...holders], initial: {} };
}

/** What a wave amounts to over a period. */
function averageOf(wave: Waveform): number {
  if (wave.shape === 'sin') return wave.offset;
  if (wave.shape !== 'pulse') return levelAt(wave, 0);
  const share = (wave.width + (wave.rise + wave.fall) / 2) / wave.period;
  return wave.low + Math.min(1, share) * (wave.high - wave.low);
}
