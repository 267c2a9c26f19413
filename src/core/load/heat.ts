import { leastAt } from './search';

/** Temperature of a sink at a moment, seconds and °C. */
export interface HeatReading {
  readonly t: number;
  readonly celsius: number;
}

export interface HeatQuestion {
  readonly readings: readonly HeatReading[];
  /** Standard deviation of one reading, K. */
  readonly noise: number;
  readonly watts: number;
  readonly ambient?: number;
  readonly limits: { readonly touch?: number; readonly junction?: number };
  /** Thermal resistances, K/W. */
  readonly junctionToCase?: number;
  readonly caseToSink?: number;
}

export interface HeatForecast {
  readonly state: 'ok' | 'too-early';
  /** Temperature at t = 0 and in the end, °C, and the standard deviation of the end. */
  readonly start: number | null;
  readonly final: number | null;
  readonly sigma: number | null;
  /** Time constant, s. */
  readonly tau: number | null;
  /** When the sink passes the touch limit, s; null: never. */
  readonly touchAt: number | null;
  /** Final temperature of the junction, °C. */
  readonly junction: number | null;
  readonly sinkToAmbient: number | null;
  /** Largest thermal resistance of a sink that keeps every limit at this power; null where none does or no limit is given. */
  readonly neededSinkToAmbient: number | null;
}

/** T(t) = final − (final − start) e^(−t/τ). */
interface Exponential {
  readonly final: number;
  readonly start: number;
  readonly tau: number;
}

/** A forecast is worth its name when its standard deviation is below this part of the whole rise (own figure). */
const WORTH_SAYING = 0.1;
const TAU_STEPS = 160;
/** Beyond this many spans of the readings an exponential is a straight line. */
const LONGEST_TAU = 300;

/**
 * Final temperature of a sink at constant power from three or more readings: least squares on one exponential, uncertainty
 * from the curvature at the best fit (Cramér–Rao, textbook).
 */
export function forecastHeat(q: HeatQuestion): HeatForecast {
  const { watts, limits, junctionToCase, caseToSink = 0 } = q;
  const fit = fitExponential(q.readings);
  const sigma = fit ? q.noise * Math.sqrt(varianceOfFinal(q.readings, fit)) : Infinity;
  const ok = fit !== null && sigma <= WORTH_SAYING * Math.abs(fit.final - fit.start);
  const ambient = q.ambient ?? (ok ? fit.start : null);
  const needed = ambient === null ? null : neededSink({ watts, ambient, limits, junctionToCase: junctionToCase ?? null, caseToSink });
  if (!ok || ambient === null)
    return {
      state: 'too-early',
      start: null,
      final: null,
      sigma: null,
      tau: null,
      touchAt: null,
      junction: null,
      sinkToAmbient: null,
      neededSinkToAmbient: needed,
    };
  const { final, tau } = fit;
  return {
    state: 'ok',
    start: fit.start,
    final,
    sigma,
    tau,
    touchAt: limits.touch === undefined ? null : passes(fit, limits.touch),
    junction: junctionToCase === undefined ? null : final + watts * (junctionToCase + caseToSink),
    sinkToAmbient: (final - ambient) / watts,
    neededSinkToAmbient: needed,
  };
}

/** When the curve rises through a temperature: τ ln((final − start)/(final − limit)). */
function passes({ final, start, tau }: Exponential, limit: number): number | null {
  if (start >= limit) return 0;
  return final <= limit ? null : tau * Math.log((final - start) / (final - limit));
}

function neededSink(q: { watts: number; ambient: number; limits: HeatQuestion['limits']; junctionToCase: number | null; caseToSink: number }): number | null {
  const { watts, ambient, limits, junctionToCase, caseToSink } = q;
  const touch = limits.touch === undefined ? [] : [(limits.touch - ambient) / watts];
  const junction = limits.junction === undefined || junctionToCase === null ? [] : [(limits.junction - ambient) / watts - junctionToCase - caseToSink];
  const least = Math.min(...touch, ...junction);
  return least > 0 && least < Infinity ? least : null;
}

/** Least squares in all three; null where no finite time constant is best: the readings still lie on a straight line. */
function fitExponential(readings: readonly HeatReading[]): Exponential | null {
  const times = [...new Set(readings.map((r) => r.t))].sort((a, b) => a - b);
  const span = times.at(-1)! - times[0]!;
  const closest = Math.min(...times.slice(1).map((t, i) => t - times[i]!));
  const [least, most] = [Math.log(closest / 20), Math.log(span * LONGEST_TAU)];
  const step = (most - least) / TAU_STEPS;
  const error = (logTau: number) => withTau(readings, times[0]!, Math.exp(logTau)).error;
  let best = 0;
  let smallest = Infinity;
  for (let i = 0; i <= TAU_STEPS; i++) {
    const e = error(least + i * step);
    if (e < smallest) [best, smallest] = [i, e];
  }
  if (best === TAU_STEPS) return null;
  const logTau = leastAt(error, least + (best - 1) * step, least + (best + 1) * step);
  const { fit } = withTau(readings, times[0]!, Math.exp(logTau));
  return Number.isFinite(fit.final) && Number.isFinite(fit.start) ? fit : null;
}

/** For a given time constant the rest is linear: T = final + b·e with e = e^(−(t − first)/τ). */
function withTau(readings: readonly HeatReading[], first: number, tau: number): { fit: Exponential; error: number } {
  const e = readings.map((r) => Math.exp(-(r.t - first) / tau));
  const n = readings.length;
  const me = e.reduce((s, x) => s + x, 0) / n;
  const mt = readings.reduce((s, r) => s + r.celsius, 0) / n;
  const see = e.reduce((s, x) => s + (x - me) ** 2, 0);
  const b = see > 0 ? readings.reduce((s, r, i) => s + (e[i]! - me) * (r.celsius - mt), 0) / see : 0;
  const final = mt - b * me;
  const error = readings.reduce((s, r, i) => s + (r.celsius - final - b * e[i]!) ** 2, 0);
  return { fit: { final, start: final + b * Math.exp(first / tau), tau }, error };
}

/** First element of the inverse of JᵀJ, with J the derivatives by final, start and τ. */
function varianceOfFinal(readings: readonly HeatReading[], { final, start, tau }: Exponential): number {
  const m = [0, 0, 0, 0, 0, 0];
  for (const { t } of readings) {
    const e = Math.exp(-t / tau);
    // τ in units of itself keeps the matrix well scaled.
    const [a, b, c] = [1 - e, e, ((start - final) * e * t) / tau];
    [a * a, a * b, a * c, b * b, b * c, c * c].forEach((x, i) => {
      m[i]! += x;
    });
  }
  const [aa, ab, ac, bb, bc, cc] = m as [number, number, number, number, number, number];
  const determinant = aa * (bb * cc - bc * bc) - ab * (ab * cc - bc * ac) + ac * (ab * bc - bb * ac);
  const variance = (bb * cc - bc * bc) / determinant;
  return variance > 0 ? variance : Infinity;
}
