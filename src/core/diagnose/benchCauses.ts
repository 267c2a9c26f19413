import type { Evidence } from '../specimen';
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

/** What is asked of a diagnoser here. */
type Judge = Pick<Diagnoser, 'logEvidence'>;

/** Readings as a meter without that gain would have shown them. Only volts: the supply's display is another instrument. */
export const withoutGain = (evidence: readonly Evidence[], isVolts: (id: string) => boolean, gain: number): Evidence[] =>
  evidence.map((e) => ('value' in e && typeof e.value === 'number' && isVolts(e.id) ? { ...e, value: e.value / gain } : e));

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
  const ways = [
    { cause: null, log: Math.log(NONE) + diagnoser.logEvidence(evidence) },
    ...GAINS.map((factor) => ({
      cause: { what: 'meter-gain' as const, factor },
      log: Math.log(EACH / GAINS.length) + diagnoser.logEvidence(withoutGain(evidence, isVolts, factor)) - volts * Math.log(factor),
    })),
    ...SUPPLIES.map((factor) => ({
      cause: { what: 'supply-set' as const, factor },
      log: Math.log(EACH / SUPPLIES.length) + under(factor).logEvidence(evidence),
    })),
  ];
  const most = Math.max(...ways.map((w) => w.log));
  const mass = (w: { readonly log: number }) => Math.exp(w.log - most);
  const all = ways.reduce((sum, w) => sum + mass(w), 0);
  for (const what of ['meter-gain', 'supply-set'] as const) {
    const own = ways.filter((w) => w.cause?.what === what);
    const probability = own.reduce((sum, w) => sum + mass(w), 0) / all;
    if (probability < NAMED) continue;
    return { what, factor: peakOf(own.map((w) => ({ at: w.cause!.factor, log: w.log }))), probability };
  }
  return null;
}

/** Where a parabola through the best factor and its neighbours has its top; the best factor itself at an end. */
function peakOf(points: readonly { readonly at: number; readonly log: number }[]): number {
  const best = points.reduce((a, b, i) => (b.log > points[a]!.log ? i : a), 0);
  const [a, b, c] = [points[best - 1], points[best]!, points[best + 1]];
  if (!a || !c || Math.abs(b.at - a.at - (c.at - b.at)) > 1e-6) return b.at;
  const bend = a.log - 2 * b.log + c.log;
  const shift = bend < 0 ? (0.5 * (a.log - c.log)) / bend : 0;
  return b.at + Math.max(-0.5, Math.min(0.5, shift)) * (b.at - a.at);
}
