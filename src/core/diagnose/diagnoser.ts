import { type Board, type Fault, faultKey, HEALTHY, listFaults } from '../fault';
import { rangeFor } from '../meter';
import { clustersOf } from './clusters';
import { columnMoments, FLOOR, type Noise, readingNoise, varianceOf } from './noise';
import { logLooks, type Looked } from './looks';
import type { Circuit, OrderCache } from '../circuit';
import { type Percentiles, percentilesOf, readAlike, type Shown, withMeter } from './likeness';
import { type Belief, bestReading, type FitWith, type NextReading } from './nextReading';
import { groupsOf, type Group, likelyPairs, momentsOf, type Pair } from './pairs';
import { logSum, nearness, otherPoints, type Taken } from './badReadings';
import { type BadReading, namedBad, nearestOf, type Posterior, posteriorOf } from './posterior';
import { type Candidate, type Component, FEWEST_TO_CONTRADICT, fitReadings, scoreAll, type Scoring } from './scoring';
import {
  type Evidence,
  FaultSampler,
  fromScale,
  isReading,
  lampsOf,
  MODEL_SPREADS,
  type ModelSpread,
  NOMINAL_SPECIMEN,
  observablesOf,
  OVER,
  type Problem,
  type Reading,
  type Sample,
  type StageObservable,
  SWITCHED_ON,
  toScale,
  withOpampMakers,
} from '../specimen';

/** Specimens per fault and spread for a first ranking, and for the faults that stay in question. */
const COARSE = 8;
const FINE = 60;
/** Faults whose coarse log likelihood lies within this of the best are drawn finely; so many, on boards that rest and on those that run. */
const REFINE_MARGIN = 25;
const REFINE_MOST = { resting: 160, anyMeter: 60, running: 48, switchedOn: 8 };
/** Prior of two faults at once; looked for only where no single fault explains the readings well. */
const PRIOR_PAIR = 0.01;
const PAIRS_WHEN = { unexplained: 0.02, bad: 0.2 };
/** From here on the suspects that come nearest are named all the same, so many of them. */
const MUCH_UNEXPLAINED = 0.3;
/** Ways of suspects that a next reading is weighed by: so likely at least, so many at most. */
const LEAST_WEIGHED = 1e-3;
const MOST_WEIGHED = 60;
/** Specimens of a pair that stays in question, per spread. */
const PAIR_FINE = 32;
/** Marginal screening: errors in units of the spread, capped so that one wild reading does not decide. */
const SCREEN_CAP = 10;

export interface Suspect {
  readonly fault: Fault;
  readonly probability: number;
}

/** Two faults at once, where no single one explains the readings. */
export interface PairSuspect {
  readonly pair: Pair;
  readonly probability: number;
}

export interface Diagnosis {
  /** Most probable first; `healthy` is among them. */
  readonly suspects: readonly Suspect[];
  /** Two faults at once, most probable first; empty where single faults do. */
  readonly pairs: readonly PairSuspect[];
  /** Readings that are probably wrong, most probable first. */
  readonly badReadings: readonly BadReading[];
  /** Probability that no fault of the list explains the readings. */
  readonly unexplained: number;
  /** What comes nearest all the same, best first: no fault (healthy), one or two; empty where the readings are explained. */
  readonly nearest: readonly (readonly Fault[])[];
  readonly next: NextReading | null;
}

/** Told how much of a longer work is done, 0..1. */
export type Progress = (done: number) => void;
const UNHEARD: Progress = () => undefined;

/** Weight of a fault before any reading; the CLI takes all alike, a kit by how common each is. */
export type FaultPrior = (fault: Fault) => number;

export interface DiagnoserOptions {
  /** Prior of "nothing is wrong"; the rest is shared by the faults. */
  readonly healthy: number;
  readonly prior: FaultPrior;
  /** Probability that one of the readings is wrong. */
  readonly badReading: number;
  /** All single faults that are thought of, healthy first. */
  readonly faults: (circuit: Circuit, board: Board) => readonly Fault[];
  /** Time and trouble of one reading against a voltage under power, which is 1: information is weighed against it. */
  readonly effort: (mode: StageObservable['mode']) => number;
}

/** One set of readings in twenty has a wrong one (choice of this product). */
const BAD_SET = 0.05;
/** Of a board without a history: healthy about as likely as a few dozen of its faults together (choice of this product). */
const HEALTHY_AMONG_FAULTS = 0.15;
export const ALL_ALIKE: DiagnoserOptions = {
  healthy: HEALTHY_AMONG_FAULTS,
  prior: () => 1,
  badReading: BAD_SET,
  faults: listFaults,
  effort: () => 1,
};
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
  private readonly lampColumns: ReadonlyMap<string, number>;
  private healthySampler: FaultSampler | null = null;
  /** A run in time costs as much as a thousand operating points: pairs are looked for, and many faults drawn finely, on boards that rest. */
  private readonly pace: keyof typeof REFINE_MOST;
  /** Faults that read alike, with their weights; and the pairs solved so far. None depends on the readings. */
  private groups: readonly Group[] | null = null;
  private effort: DiagnoserOptions['effort'];
  private readonly roughPairs = new Map<string, readonly Sample[]>();
  private readonly finePairs = new Map<string, readonly Component[]>();
  private readonly shown = new WeakMap<readonly Component[], readonly (Shown | null)[]>();
  private readonly scoring: Scoring;

  private readonly problem: Problem;

  constructor(
    asked: Problem,
    private readonly options: DiagnoserOptions = ALL_ALIKE,
    private readonly spreads: readonly ModelSpread[] = MODEL_SPREADS,
  ) {
    const problem = withOpampMakers(asked);
    this.problem = problem;
    const most = Math.max(...problem.scenes.map((s) => s.circuit.parts.length));
    const fullest = problem.scenes.findLast((s) => s.circuit.parts.length === most);
    const faults = fullest ? options.faults(fullest.circuit, problem.board) : [];
    this.candidates = faults.map((fault) => ({
      faults: fault.kind === 'healthy' ? [] : [fault],
      prior: options.healthy,
      components: null,
      coarse: null,
      fine: false,
    }));
    this.effort = options.effort;
    this.weigh(options.prior);
    this.pace = paceOf(problem);
    this.observables = observablesOf(problem);
    this.indexOf = new Map(this.observables.map((o, i) => [o.id, i]));
    this.lampColumns = new Map(lampsOf(problem).map((l, i) => [l.id, this.observables.length + i]));
    this.scoring = {
      badReading: options.badReading,
      others: otherPoints(this.observables, nearness(problem, this.observables)),
      ownNoise: (sample, index) => this.ownNoise(sample, index),
    };
  }

  /** Takes other weights for the single faults and other efforts of readings: what each fault would show stays as it was worked out. */
  weigh(prior: FaultPrior, effort: DiagnoserOptions['effort'] = this.effort): void {
    this.effort = effort;
    const faulty = this.candidates.flatMap((c) => (c.faults[0] ? [{ c, weight: prior(c.faults[0]) }] : []));
    const total = faulty.reduce((sum, f) => sum + f.weight, 0);
    this.groups = null;
    for (const { c, weight } of faulty) c.prior = ((1 - this.options.healthy) * weight) / total;
  }

  /** Whether a reading or a look of this id can be used. */
  knows(id: string): boolean {
    return this.indexOf.has(id) || this.lampColumns.has(id);
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
      sampler = this.samplerOf(c.faults);
      if (c.faults.length === 0) this.healthySampler = sampler;
      this.samplers.set(c, sampler);
    }
    c.fine = count >= FINE;
    // A first ranking is drawn from the widest spread alone: it only has to keep the true fault in.
    if (c.fine && this.pace === 'switchedOn') {
      // What takes a run each is drawn from the deck's own cards, as often as a run may cost.
      sampler.lookCloser();
      c.components = componentsOf(sampler, this.spreads.slice(0, 1), SWITCHED_ON[c.faults.length === 0 ? 'healthy' : 'faulty']);
    } else c.components = componentsOf(sampler, c.fine ? this.spreads : this.spreads.slice(-1), count);
    c.coarse ??= c.components;
    if (c.fine) this.samplers.delete(c);
  }

  /** Probabilities of all faults, given these readings; readings of unknown ids are ignored. */
  diagnose(evidence: readonly Evidence[], candidates: readonly string[] | null = null, progress: Progress = UNHEARD): Diagnosis {
    this.prepare();
    const { seen, pick, y, noise } = this.columnsOf(evidence);
    const looked = evidence.flatMap((e): Looked[] => (!isReading(e) && this.lampColumns.has(e.id) ? [{ look: e, column: this.lampColumns.get(e.id)! }] : []));
    this.refine(pick, y, noise, looked, progress);
    const taken = seen.map((e, i) => this.takenOf(e, pick[i]!, y[i]!, noise[i]!));
    const read = { pick, y, noise, looked, taken };
    const singles = scoreAll(this.candidates, read, this.scoring);
    const alone = posteriorOf(singles, [], pick.length);
    const doubted = alone.unexplained > PAIRS_WHEN.unexplained || namedBad(alone, seen).some((b) => b.probability > PAIRS_WHEN.bad);
    const pairs =
      doubted && (this.pace === 'resting' || this.pace === 'anyMeter') && pick.length >= FEWEST_TO_CONTRADICT ? this.pairsFor(pick, y, noise, progress) : [];
    const all = pairs.length === 0 ? alone : posteriorOf(singles, scoreAll(pairs, read, this.scoring), pick.length);
    const whole = all.scored.map((s, i) => ({ faults: s.candidate.faults, probability: all.masses[i]!.reduce((p, q) => p + q, 0) }));
    whole.sort((p, q) => q.probability - p.probability);
    return {
      suspects: whole.flatMap(({ faults, probability }) => (faults.length > 1 ? [] : [{ fault: faults[0] ?? HEALTHY, probability }])),
      pairs: whole.flatMap(({ faults: [one, two], probability }) => (one && two ? [{ pair: [one, two] as const, probability }] : [])),
      unexplained: all.unexplained,
      nearest: all.unexplained > MUCH_UNEXPLAINED ? nearestOf(all) : [],
      badReadings: namedBad(all, seen),
      next: this.nextReading(all, pick, y, noise, candidates),
    };
  }

  /** log mass that the listed faults give to readings: enough to weigh one cause on the bench against another. */
  logEvidence(evidence: readonly Evidence[]): number {
    this.prepare();
    const { seen, pick, y, noise } = this.columnsOf(evidence);
    this.refine(pick, y, noise, [], UNHEARD);
    const taken = seen.map((e, i) => this.takenOf(e, pick[i]!, y[i]!, noise[i]!));
    const { logTotal, unexplained } = posteriorOf(scoreAll(this.candidates, { pick, y, noise, looked: [], taken }, this.scoring), [], pick.length);
    return logTotal + Math.log(Math.max(1e-300, 1 - unexplained));
  }

  /** The same from the first, coarse samples, each reading by itself: cheap, and good enough to see where to look closer. */
  roughLogEvidence(evidence: readonly Evidence[]): number {
    this.prepare();
    const { pick, y, noise } = this.columnsOf(evidence);
    return logSum(this.candidates.map((c) => Math.log(c.prior) + Math.max(...this.screen(c, pick, y, noise, []))));
  }

  private columnsOf(evidence: readonly Evidence[]) {
    const seen = evidence.filter(isReading).filter((e) => this.indexOf.has(e.id));
    const pick = seen.map((e) => this.indexOf.get(e.id)!);
    const y = Float64Array.from(seen, (e, i) => this.scaled(pick[i]!, e.value));
    const noise = seen.map((e, i) => this.noiseOf(pick[i]!, e.value, e.meter));
    return { seen, pick, y, noise };
  }

  /** The pairs that may explain the readings, sampled; found from what each fault shows alone. */
  private pairsFor(pick: readonly number[], y: Float64Array, noise: readonly Noise[], progress: Progress): Candidate[] {
    const single = (c: Candidate) => ({ fault: c.faults[0] ?? HEALTHY, prior: c.prior, sample: c.coarse![0]!.sample });
    const healthy = single(this.candidates[0]!);
    this.groups ??= groupsOf(healthy, this.candidates.slice(1).map(single));
    const spread = this.spreads[this.spreads.length - 1]!;
    const seen = { pick, y, noise: noise.map(varianceOf) };
    const circuits = this.problem.scenes.reduce((n, s) => n + 1 + s.observables.filter((o) => o.mode === 'ohms' || o.mode === 'diode').length, 0);
    const draw = (pair: Pair, count: number) => this.drawPair(pair, count, spread);
    const found = likelyPairs(this.groups, momentsOf(healthy.sample), seen, { draw, circuits }, progress);
    return found.map(({ pair, prior }): Candidate => {
      const key = keyOf(pair);
      const components = this.finePairs.get(key) ?? componentsOf(this.samplerOf(pair), this.spreads, PAIR_FINE);
      this.finePairs.set(key, components);
      return { faults: pair, prior: prior * PRIOR_PAIR, components, coarse: null, fine: true };
    });
  }

  private samplerOf = (faults: readonly Fault[]) => new FaultSampler(this.problem, faults, this.orders, this.healthySampler);

  private drawPair(pair: Pair, count: number, spread: ModelSpread): readonly Sample[] {
    const key = `${count} ${keyOf(pair)}`;
    const known = this.roughPairs.get(key);
    const first = count === 1 ? NOMINAL_SPECIMEN : 0;
    if (known) return known;
    const sampler = this.samplerOf(pair);
    const samples = Array.from({ length: sampler.states }, (_, state) => sampler.draw(first, count, spread, state));
    this.roughPairs.set(key, samples);
    return samples;
  }

  private takenOf(e: Reading, index: number, y: number, noise: Noise): Taken {
    const observable = this.observables[index]!;
    const range = rangeFor(e.meter ?? this.problem.meter, observable.mode, e.value === 'over' ? OVER[observable.mode] : e.value);
    return { observable, index, value: e.value, y, sd: Math.sqrt(varianceOf(noise)), step: range?.resolution ?? 1e-3 };
  }

  private ownNoise(sample: Sample, index: number): Noise {
    const o = this.observables[index]!;
    return readingNoise(this.problem.meter, o.mode, fromScale(o.mode, columnMoments(sample, index).mean));
  }

  /** What faults (none: the healthy board) predict for one observable: 5th, 50th and 95th percentile, in volts, amperes or ohms (of a lamp: amperes); null when it cannot be solved. */
  prediction(faults: readonly Fault[], id: string): Percentiles | null {
    const components = faults.length > 1 ? this.finePairs.get(keyOf(faults)) : this.candidateOf(faults)?.components;
    const lamp = this.lampColumns.get(id);
    const index = this.indexOf.get(id) ?? lamp;
    const p = index === undefined || !components ? null : percentilesOf(asCarded(components), index);
    if (!p || index === undefined || index === lamp) return p;
    const { mode } = this.observables[index]!;
    return { low: fromScale(mode, p.low), middle: fromScale(mode, p.middle), high: fromScale(mode, p.high) };
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
  private refine(pick: readonly number[], y: Float64Array, noise: readonly Noise[], looked: readonly Looked[], progress: Progress): void {
    const screened = this.candidates.map((c) => ({ c, score: Math.max(...this.screen(c, pick, y, noise, looked)) }));
    const best = Math.max(...screened.map((s) => s.score));
    const wanted = screened
      .filter((s) => s.score >= best - REFINE_MARGIN)
      .sort((a, b) => b.score - a.score)
      .slice(0, REFINE_MOST[this.pace]);
    const healthy = this.candidates.slice(0, 1);
    const rough = [...healthy, ...wanted.map(({ c }) => c).filter((c) => c !== healthy[0])].filter((c) => !c.fine);
    rough.forEach((c, i) => {
      this.sample(c, FINE);
      progress((i + 1) / rough.length);
    });
  }

  private screen(c: Candidate, pick: readonly number[], y: Float64Array, noise: readonly Noise[], looked: readonly Looked[]): number[] {
    return (c.coarse ?? []).map(({ sample }) => {
      if (sample.rows < 3) return -Infinity;
      let score = logLooks(sample, looked);
      for (let i = 0; i < pick.length; i++) {
        const { mean, variance } = columnMoments(sample, pick[i]!);
        const sd2 = variance * 1.5 + varianceOf(noise[i]!) + FLOOR * FLOOR;
        const z2 = (y[i]! - mean) ** 2 / sd2;
        score -= Math.min(z2 / 2, SCREEN_CAP) + 0.5 * Math.log(sd2);
      }
      return score;
    });
  }

  /** Groups of faults that none of these readings tells apart, by their numbers; two or more in each. */
  alike(faults: readonly Fault[], ids: readonly string[]): number[][] {
    const points = ids.flatMap((id) => this.indexOf.get(id) ?? []);
    const shown = faults.map((f) => this.shownBy(this.candidateOf([f])));
    const groups: number[][] = [];
    shown.forEach((s, i) => {
      const group = groups.find((g) => g.every((j) => readAlike(shown[j]!, s, points)));
      if (group) group.push(i);
      else groups.push([i]);
    });
    return groups.filter((g) => g.length > 1);
  }

  private candidateOf(faults: readonly Fault[]): Candidate | undefined {
    const key = keyOf(faults);
    return this.candidates.find((c) => keyOf(c.faults) === key);
  }

  /** What a suspect shows at every observable and lamp, by the parts that the deck describes. */
  private shownBy(c: Candidate | undefined): readonly (Shown | null)[] {
    if (!c?.components) return [];
    const samples = asCarded(c.components);
    const known = this.shown.get(c.components) ?? this.observables.map((_, i) => this.shownAt(samples, i));
    this.shown.set(c.components, known);
    return known;
  }

  private shownAt(samples: readonly Sample[], index: number): Shown | null {
    const p = percentilesOf(samples, index);
    const { mode } = this.observables[index]!;
    return p && withMeter(p, readingNoise(this.problem.meter, mode, fromScale(mode, p.middle)));
  }

  private nextReading(
    { scored, masses }: Posterior<Candidate>,
    pick: readonly number[],
    y: Float64Array,
    noise: readonly Noise[],
    only: readonly string[] | null,
  ): NextReading | null {
    const likely = scored
      .flatMap(({ candidate: c }, i) => masses[i]!.map((mass, k) => ({ c, k, mass })))
      .filter((m) => m.mass > LEAST_WEIGHED && m.c.fine)
      .sort((a, b) => b.mass - a.mass)
      .slice(0, MOST_WEIGHED);
    const suspects = [...new Set(likely.map((m) => m.c))];
    const beliefs = likely.map(({ c, k, mass }): Belief => ({ sample: c.components![k]!.sample, mass, suspect: suspects.indexOf(c) }));
    const askable = this.observables.flatMap((o, index) =>
      pick.includes(index) || (only && !only.includes(o.id)) ? [] : [{ id: o.id, index, effort: this.effort(o.mode) }],
    );
    const fit: FitWith = (sample, columns) => fitReadings(sample, [...pick, ...columns], [...noise, ...columns.map((i) => this.ownNoise(sample, i))]);
    const points = askable.map((a) => a.index);
    const shown = suspects.map((c) => this.shownBy(c));
    const kin = shown.map((a, i) => shown.flatMap((b, j) => (i === j || readAlike(a, b, points) ? [j] : [])));
    return bestReading(beliefs, askable, fit, y, kin);
  }
}

/** What a specimen of a board costs: a run in time, a reading in several ranges of a meter that nobody knows, or an operating point. */
function paceOf({ scenes, meter }: Problem): keyof typeof REFINE_MOST {
  if (scenes.some((s) => s.run)) return 'switchedOn';
  if (scenes.some((s) => (s.motion ?? []).length > 0)) return 'running';
  const cold = scenes.some((s) => s.observables.some((o) => o.mode === 'ohms' || o.mode === 'diode'));
  return cold && meter.coldTest === 'unknown' ? 'anyMeter' : 'resting';
}

/** Every way in which a fault may show: by spread and steady state, those specimens apart that do otherwise. */
function componentsOf(sampler: FaultSampler, spreads: readonly ModelSpread[], count: number): Component[] {
  const { states } = sampler;
  return spreads.flatMap((spread, k) =>
    Array.from({ length: states }, (_, state) => sampler.draw(k * 1000, count, spread, state)).flatMap((sample) =>
      clustersOf(sample).map((cluster): Component => ({ sample: cluster.sample, weight: (cluster.share * spread.weight) / states, spread: spread.id })),
    ),
  );
}

/** Samples of the first spread that there is: of parts as the deck describes them, once they are drawn finely. */
const asCarded = (components: readonly Component[]): Sample[] => components.filter((c) => c.spread === components[0]!.spread).map((c) => c.sample);

const keyOf = (faults: readonly Fault[]): string => faults.map(faultKey).join(' ');
