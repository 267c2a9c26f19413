import { type Fault, listFaults } from '../fault';
import { type MeterProfile, rangeFor } from '../meter';
import { conditionalLast, type Fit, fitSample, logDensityRobust } from '../statistics';
import { type OrderCache } from '../circuit';
import {
  type Evidence,
  FaultSampler,
  fromScale,
  MODEL_SPREADS,
  type ModelSpread,
  observablesOf,
  OVER,
  type Problem,
  type Sample,
  scaleSlope,
  type StageObservable,
  toScale,
} from '../specimen';

/** Specimens per fault and spread for a first ranking, and for the faults that stay in question. */
const COARSE = 8;
const FINE = 60;
/** Faults whose coarse log likelihood lies within this of the best are drawn finely. */
const REFINE_MARGIN = 25;
const REFINE_MOST = 48;
/** Prior of "nothing is wrong" and of "something that is not on the list"; the rest is shared by the faults. */
const PRIOR_HEALTHY = 0.4;
const PRIOR_UNKNOWN = 0.004;
/** Smallest spread on the comparison scale: no prediction is sharper than this. */
const FLOOR = 2e-3;
/** The fault nobody listed: each reading anywhere in a span of this width on the comparison scale. */
const UNKNOWN_SPAN = 7;
/** Marginal screening: errors in units of the spread, capped so that one wild reading does not decide. */
const SCREEN_CAP = 10;

export interface Suspect {
  readonly fault: Fault;
  readonly probability: number;
}

export interface NextReading {
  readonly id: string;
  /** Expected information, bits. */
  readonly bits: number;
}

export interface Diagnosis {
  /** Most probable first; `healthy` is among them. */
  readonly suspects: readonly Suspect[];
  /** Probability that no fault of the list explains the readings. */
  readonly unexplained: number;
  readonly next: NextReading | null;
}

/** Weight of a fault before any reading; the CLI takes all alike, a kit by how common each is. */
/** Told how much of a longer work is done, 0..1. */
export type Progress = (done: number) => void;
const UNHEARD: Progress = () => undefined;

export type FaultPrior = (fault: Fault) => number;

export interface DiagnoserOptions {
  readonly prior: FaultPrior;
  /** Probability that a reading is simply wrong. */
  readonly badReading: number;
}

const ALL_ALIKE: DiagnoserOptions = { prior: () => 1, badReading: 0 };

/** One way in which a fault may show: a sample of readings, and its share. */
interface Component {
  readonly sample: Sample;
  readonly weight: number;
}

interface Candidate {
  readonly fault: Fault;
  readonly prior: number;
  /** One component per spread and steady state; finer ones replace coarser ones. */
  components: readonly Component[] | null;
  /** The first, coarse ones: what is screened must not change by having been looked at closely. */
  coarse: readonly Component[] | null;
  fine: boolean;
}

/**
 * Bayes over all single faults of a board. Predictions do not depend on the readings: they are computed once per
 * board and kept, so that a new reading only costs densities.
 */
export class Diagnoser {
  private readonly candidates: Candidate[];
  private readonly orders: OrderCache = new Map();
  private readonly samplers = new Map<Candidate, FaultSampler>();
  private readonly observables: readonly StageObservable[];
  private readonly indexOf: ReadonlyMap<string, number>;
  private healthySampler: FaultSampler | null = null;

  constructor(
    private readonly problem: Problem,
    private readonly options: DiagnoserOptions = ALL_ALIKE,
    private readonly spreads: readonly ModelSpread[] = MODEL_SPREADS,
  ) {
    const fullest = problem.scenes[problem.scenes.length - 1];
    const faults = fullest ? listFaults(fullest.circuit, problem.board) : [];
    const total = faults.slice(1).reduce((sum, f) => sum + options.prior(f), 0);
    this.candidates = faults.map((fault, i) => ({
      fault,
      prior: i === 0 ? PRIOR_HEALTHY : ((1 - PRIOR_HEALTHY - PRIOR_UNKNOWN) * options.prior(fault)) / total,
      components: null,
      coarse: null,
      fine: false,
    }));
    this.observables = observablesOf(problem);
    this.indexOf = new Map(this.observables.map((o, i) => [o.id, i]));
  }

  get faultCount(): number {
    return this.candidates.length;
  }

  /** Draws the coarse samples of all faults. `progress` gets 0..1. */
  prepare(progress: Progress = UNHEARD): void {
    this.candidates.forEach((c, i) => {
      if (!c.components) this.sample(c, COARSE);
      if (i % 4 === 0) progress(i / this.candidates.length);
    });
    progress(1);
  }

  private sample(c: Candidate, count: number): void {
    let sampler = this.samplers.get(c);
    if (!sampler) {
      sampler = new FaultSampler(this.problem, c.fault, this.orders, this.healthySampler);
      if (c.fault.kind === 'healthy') this.healthySampler = sampler;
      this.samplers.set(c, sampler);
    }
    c.fine = count >= FINE;
    // A first ranking is drawn from the widest spread alone: it only has to keep the true fault in.
    const spreads = c.fine ? this.spreads : this.spreads.slice(-1);
    const { states } = sampler;
    c.components = spreads.flatMap((spread, k) =>
      Array.from({ length: states }, (_, state) => ({ sample: sampler.draw(k * 1000, count, spread, state), weight: spread.weight / states })),
    );
    c.coarse ??= c.components;
    if (c.fine) this.samplers.delete(c);
  }

  /** Probabilities of all faults, given these readings; readings of unknown ids are ignored. */
  diagnose(evidence: readonly Evidence[], candidates: readonly string[] | null = null, progress: Progress = UNHEARD): Diagnosis {
    this.prepare();
    const seen = evidence.filter((e) => this.indexOf.has(e.id));
    const pick = seen.map((e) => this.indexOf.get(e.id)!);
    const y = Float64Array.from(seen, (e, i) => this.scaled(pick[i]!, e.value));
    const noise = seen.map((e, i) => this.noiseOf(pick[i]!, e.value, e.meter));
    this.refine(pick, y, noise, progress);
    const scored = this.candidates.map((c) => ({ c, logs: this.logLikelihoods(c, pick, y, noise) }));
    const weighted = scored.map(({ c, logs }) => ({ c, parts: logs.map((l, k) => l + Math.log(c.prior * c.components![k]!.weight)) }));
    const unknown = Math.log(PRIOR_UNKNOWN) - y.length * Math.log(UNKNOWN_SPAN);
    const top = Math.max(unknown, ...weighted.flatMap((w) => w.parts));
    const masses = weighted.map((w) => w.parts.map((l) => Math.exp(l - top)));
    const total = Math.exp(unknown - top) + masses.flat().reduce((a, b) => a + b, 0);
    const suspects = weighted
      .map((w, i) => ({ fault: w.c.fault, probability: masses[i]!.reduce((a, b) => a + b, 0) / total }))
      .sort((a, b) => b.probability - a.probability);
    const next = this.nextReading(
      pick,
      y,
      noise,
      masses.map((m) => m.map((v) => v / total)),
      candidates,
    );
    return { suspects, unexplained: Math.exp(unknown - top) / total, next };
  }

  /** What a fault predicts for one observable: 5th, 50th and 95th percentile, in volts, amperes or ohms; null when it cannot be solved. */
  prediction(fault: Fault, id: string): { low: number; middle: number; high: number } | null {
    const c = this.candidates.find((k) => k.fault === fault || JSON.stringify(k.fault) === JSON.stringify(fault));
    const index = this.indexOf.get(id);
    const sample = c?.components?.[0]?.sample;
    if (!c || index === undefined || !sample || sample.rows === 0) return null;
    const column = Array.from({ length: sample.rows }, (_, r) => sample.values[r * sample.width + index]!).sort((a, b) => a - b);
    const at = (q: number) => fromScale(this.observables[index]!.mode, column[Math.round(q * (column.length - 1))]!);
    return { low: at(0.05), middle: at(0.5), high: at(0.95) };
  }

  private scaled(index: number, value: number | 'over'): number {
    const { mode } = this.observables[index]!;
    return toScale(mode, value === 'over' ? OVER[mode] : value);
  }

  private noiseOf(index: number, value: number | 'over', meter = this.problem.meter): Noise {
    const { mode } = this.observables[index]!;
    return readingNoise(meter, mode, value === 'over' ? OVER[mode] : value);
  }

  /** Draws finely those faults that a rough, reading-by-reading comparison cannot rule out. */
  private refine(pick: readonly number[], y: Float64Array, noise: readonly Noise[], progress: Progress): void {
    const screened = this.candidates.map((c) => ({ c, score: Math.max(...this.screen(c, pick, y, noise)) }));
    const best = Math.max(...screened.map((s) => s.score));
    const wanted = screened
      .filter((s) => s.score >= best - REFINE_MARGIN)
      .sort((a, b) => b.score - a.score)
      .slice(0, REFINE_MOST);
    const healthy = this.candidates.slice(0, 1);
    const rough = [...healthy, ...wanted.map(({ c }) => c).filter((c) => c !== healthy[0])].filter((c) => !c.fine);
    rough.forEach((c, i) => {
      this.sample(c, FINE);
      progress((i + 1) / rough.length);
    });
  }

  private screen(c: Candidate, pick: readonly number[], y: Float64Array, noise: readonly Noise[]): number[] {
    return (c.coarse ?? []).map(({ sample }) => {
      if (sample.rows < 3) return -Infinity;
      let score = 0;
      for (let i = 0; i < pick.length; i++) {
        const { mean, variance } = columnMoments(sample, pick[i]!);
        const sd2 = variance * 1.5 + varianceOf(noise[i]!) + FLOOR * FLOOR;
        const z2 = (y[i]! - mean) ** 2 / sd2;
        score -= Math.min(z2 / 2, SCREEN_CAP) + 0.5 * Math.log(sd2);
      }
      return score;
    });
  }

  private logLikelihoods(c: Candidate, pick: readonly number[], y: Float64Array, noise: readonly Noise[]): number[] {
    if (!c.fine) return (c.components ?? []).map(() => -Infinity);
    return c.components!.map(({ sample }) => (sample.rows < 8 ? -Infinity : logDensityRobust(this.fit(sample, pick, noise), y, this.options.badReading).log));
  }

  private fit(sample: Sample, pick: readonly number[], noise: readonly Noise[]): Fit {
    return fitSample(sample.values, sample.rows, sample.width, pick, errorCovariance(noise));
  }

  /**
   * The reading not taken yet that is expected to tell most: mutual information between the suspects and the reading,
   * its integral taken at a few quantiles of every suspect's conditional prediction.
   */
  private nextReading(
    pick: readonly number[],
    y: Float64Array,
    noise: readonly Noise[],
    masses: readonly (readonly number[])[],
    only: readonly string[] | null,
  ): NextReading | null {
    const likely = this.candidates
      .flatMap((c, i) => masses[i]!.map((mass, k) => ({ c, k, i, mass })))
      .filter((m) => m.mass > 1e-3 && m.c.fine)
      .sort((a, b) => b.mass - a.mass)
      .slice(0, 60);
    let best: NextReading | null = null;
    this.observables.forEach((o, index) => {
      if (pick.includes(index) || (only && !only.includes(o.id))) return;
      const predictions = likely.map((m) => {
        const { sample } = m.c.components![m.k]!;
        const middle = columnMoments(sample, index).mean;
        const own = readingNoise(this.problem.meter, o.mode, fromScale(o.mode, middle));
        return { ...conditionalLast(this.fit(sample, [...pick, index], [...noise, own]), y), mass: m.mass, group: m.i };
      });
      const bits = mutualInformation(predictions);
      if (bits > (best?.bits ?? 0.01)) best = { id: o.id, bits };
    });
    return best;
  }
}

/** A reading's error on the comparison scale: its own part, and the part that all readings of one range share. */
interface Noise {
  readonly own: number;
  readonly gain: number;
  /** Equal for readings with one gain error: one meter, one mode, one range. */
  readonly range: string;
}

/**
 * The percent part of a meter's accuracy is a gain error: one number for all readings of one range. Counts and rounding come
 * anew with every reading. Both taken rectangular (JCGM 100), carried over to the comparison scale.
 */
function readingNoise(meter: MeterProfile, mode: StageObservable['mode'], value: number): Noise {
  const range = rangeFor(meter, mode, value);
  if (!range) return { own: FLOOR, gain: 0, range: '' };
  const slope = scaleSlope(mode, value);
  const counts = Math.hypot((range.counts * range.resolution) / Math.sqrt(3), range.resolution / Math.sqrt(12));
  return { own: counts * slope, gain: (range.percent / 100 / Math.sqrt(3)) * value * slope, range: `${meter.id}/${mode}/${range.upTo}` };
}

const varianceOf = (n: Noise) => n.own * n.own + n.gain * n.gain;

/** Covariance of the readings' errors, row-major. */
function errorCovariance(noise: readonly Noise[]): Float64Array {
  const n = noise.length;
  const m = new Float64Array(n * n);
  for (let i = 0; i < n; i++) {
    for (let j = 0; j < i; j++) {
      const common = noise[i]!.range !== '' && noise[i]!.range === noise[j]!.range ? noise[i]!.gain * noise[j]!.gain : 0;
      m[i * n + j] = common;
      m[j * n + i] = common;
    }
    m[i * n + i] = varianceOf(noise[i]!) + FLOOR * FLOOR;
  }
  return m;
}

function columnMoments(sample: Sample, column: number): { mean: number; variance: number } {
  let sum = 0;
  let squares = 0;
  for (let r = 0; r < sample.rows; r++) {
    const v = sample.values[r * sample.width + column]!;
    sum += v;
    squares += v * v;
  }
  const mean = sum / sample.rows;
  return { mean, variance: Math.max(0, squares / sample.rows - mean * mean) };
}

/** Quantiles of a normal distribution at the middles of seven equal slices of probability. */
const QUANTILES = [-1.4652, -0.7916, -0.3661, 0, 0.3661, 0.7916, 1.4652];

interface Prediction {
  readonly mean: number;
  readonly sd: number;
  readonly mass: number;
  readonly group: number;
}

/** Bits that one reading is expected to tell about which group is true. */
function mutualInformation(predictions: readonly Prediction[]): number {
  const total = predictions.reduce((s, p) => s + p.mass, 0);
  if (total <= 0) return 0;
  const groups = new Map<number, number>();
  for (const p of predictions) groups.set(p.group, (groups.get(p.group) ?? 0) + p.mass / total);
  let before = 0;
  for (const m of groups.values()) before -= m * Math.log2(m);
  let after = 0;
  const density = new Map<number, number>();
  for (const p of predictions) {
    for (const q of QUANTILES) {
      const at = p.mean + q * p.sd;
      density.clear();
      let sum = 0;
      for (const o of predictions) {
        const z = (at - o.mean) / o.sd;
        const d = z * z > 60 ? 0 : (o.mass * Math.exp((-z * z) / 2)) / o.sd;
        density.set(o.group, (density.get(o.group) ?? 0) + d);
        sum += d;
      }
      if (!(sum > 0)) continue;
      let entropy = 0;
      for (const d of density.values()) if (d > 0) entropy -= (d / sum) * Math.log2(d / sum);
      after += (p.mass / total / QUANTILES.length) * entropy;
    }
  }
  return Math.max(0, before - after);
}
