import type { Evidence } from '../specimen';
import { logSum } from './badReadings';
import type { Diagnoser } from './diagnoser';

/** One cause on the bench for all readings: the meter shows all volts times a factor, or the supply gives a factor of its volts. */
export interface BenchCause {
  readonly what: 'meter-gain' | 'supply-set';
  readonly factor: number;
  readonly probability: number;
}

/** Beliefs before (own choice): three benches in five have no such cause, the two kinds are alike. */
const NONE = 0.6;
const EACH = 0.2;
const range = (from: number, to: number, step: number) =>
  Array.from({ length: Math.round((to - from) / step) + 1 }, (_, i) => Number((from + i * step).toFixed(3)));
/** A flat battery makes a meter read high by some per cent, a worn one low; supplies are set further off (common practice, no source). */
const GAINS = [...range(0.88, 0.97, 0.01), ...range(1.03, 1.15, 0.01)];
const SUPPLIES = [...range(0.8, 0.92, 0.03), ...range(1.08, 1.29, 0.03)];
/** With fewer readings a common cause explains anything. */
const LEAST_READINGS = 4;
/** Below this much that no fault explains a cause on the bench is not thought of. */
const DOUBTFUL = 0.03;
const NAMED = 0.7;
/**
 * A kind of cause is looked at closely where the rough comparison gives it this much (natural log) over no cause. Gains cost little;
 * a supply at other volts is a board of its own, all faults drawn anew.
 */
const PROMISING = { 'meter-gain': -10, 'supply-set': 0 };

/** What is asked of a diagnoser here. */
type Judge = Pick<Diagnoser, 'logEvidence' | 'roughLogEvidence'>;

/** Readings as a meter without that gain would have shown them. Only volts: the supply's display is another instrument. */
export const withoutGain = <E extends Evidence>(evidence: readonly E[], isVolts: (id: string) => boolean, gain: number): E[] =>
  evidence.map((e) => ('value' in e && typeof e.value === 'number' && isVolts(e.id) ? { ...e, value: e.value / gain } : e));

/** One kind of cause: its factors, and what each makes of the readings. */
interface Kind {
  readonly what: BenchCause['what'];
  readonly factors: readonly number[];
  readonly judge: (factor: number) => Judge;
  readonly evidence: (factor: number) => readonly Evidence[];
  /** log of what the change of scale does to a density. */
  readonly scale: (factor: number) => number;
}

/**
 * The common cause that the readings speak for; null where none stands out. `under` gives a diagnoser of the board with its
 * supplies at a factor of their volts. One cause needs its evidence in several readings.
 */
export function benchCause(
  diagnoser: Judge & Pick<Diagnoser, 'diagnose'>,
  under: (factor: number) => Judge,
  evidence: readonly Evidence[],
  isVolts: (id: string) => boolean,
): BenchCause | null {
  const volts = evidence.filter((e) => 'value' in e && isVolts(e.id)).length;
  if (volts < LEAST_READINGS) return null;
  const { unexplained, badReadings } = diagnoser.diagnose(evidence);
  if (unexplained < DOUBTFUL && !badReadings.some((b) => b.probability > DOUBTFUL)) return null;
  const kinds: readonly Kind[] = [
    {
      what: 'meter-gain',
      factors: GAINS,
      judge: () => diagnoser,
      evidence: (factor) => withoutGain(evidence, isVolts, factor),
      scale: (factor) => -volts * Math.log(factor),
    },
    { what: 'supply-set', factors: SUPPLIES, judge: under, evidence: () => evidence, scale: () => 0 },
  ];
  const rough = diagnoser.roughLogEvidence(evidence);
  const found = kinds.map((kind) => ({ kind, points: closely(kind, rough + PROMISING[kind.what]) }));
  if (found.every((f) => f.points.length === 0)) return null;
  const none = Math.log(NONE) + diagnoser.logEvidence(evidence);
  const sums = found.map(({ kind, points }) => Math.log(EACH / kind.factors.length) + logSum(points.map((p) => p.log)));
  const all = logSum([none, ...sums]);
  const named = found.findIndex((_, i) => Math.exp(sums[i]! - all) >= NAMED);
  if (named < 0) return null;
  return { what: found[named]!.kind.what, factor: peakOf(found[named]!.points), probability: Math.exp(sums[named]! - all) };
}

interface Point {
  readonly at: number;
  readonly log: number;
}

/** log evidence at the best factor of a kind and its neighbours, in order; empty where the kind does not promise `least`. */
function closely({ factors, judge, evidence, scale }: Kind, least: number): Point[] {
  const rough = factors.map((f) => judge(f).roughLogEvidence(evidence(f)) + scale(f));
  let best = rough.indexOf(Math.max(...rough));
  if (!(rough[best]! >= least)) return [];
  const known = new Map<number, number>();
  const at = (i: number): number => {
    const log = known.get(i) ?? judge(factors[i]!).logEvidence(evidence(factors[i]!)) + scale(factors[i]!);
    known.set(i, log);
    return log;
  };
  // The rough best may be beside the true one: climb until both neighbours are lower.
  for (;;) {
    const next = [best - 1, best + 1].filter((i) => i >= 0 && i < factors.length).find((i) => at(i) > at(best));
    if (next === undefined) break;
    best = next;
  }
  return [...known.keys()].sort((a, b) => a - b).map((i) => ({ at: factors[i]!, log: at(i) }));
}

/** Where a parabola through the best factor and its neighbours has its top; the best factor itself at an end. */
function peakOf(points: readonly Point[]): number {
  const best = points.reduce((a, b, i) => (b.log > points[a]!.log ? i : a), 0);
  const [a, b, c] = [points[best - 1], points[best]!, points[best + 1]];
  if (!a || !c || Math.abs(b.at - a.at - (c.at - b.at)) > 1e-6) return b.at;
  const bend = a.log - 2 * b.log + c.log;
  const shift = bend < 0 ? (0.5 * (a.log - c.log)) / bend : 0;
  return b.at + Math.max(-0.5, Math.min(0.5, shift)) * (b.at - a.at);
}
