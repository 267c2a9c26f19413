import type { Sample } from '../specimen';
import { conditionalLast, type Fit } from '../statistics';
import { type Kin, mutualInformation, type Prediction } from './information';

export interface NextReading {
  readonly id: string;
  /** Expected information, bits. */
  readonly bits: number;
}

/** One way in which a suspect may show, with the belief in it. */
export interface Belief {
  readonly sample: Sample;
  readonly mass: number;
  /** Number of the suspect, from 0. */
  readonly suspect: number;
}

/** A reading that can still be taken, with its column in the samples, and its time and trouble against a voltage under power. */
export interface Askable {
  readonly id: string;
  readonly index: number;
  readonly effort: number;
}

/** Readings of a sample by their columns, after those already taken, with the meter's errors. */
export type FitWith = (sample: Sample, columns: readonly number[]) => Fit;

/** A reading that is expected to tell less is not asked for. */
const LEAST_BITS = 0.01;
/** Readings whose worth lies within this share of the best tie: of them the one that leaves most to the next is asked for. */
const TIE = 0.1;
const MOST_TIED = 4;
/** Second readings, suspects and outcomes that the step ahead looks at. */
const SECONDS = 8;
const MOST_AHEAD = 24;
const OUTCOMES = 8;

interface Asked extends Askable {
  readonly bits: number;
  readonly worth: number;
}

/**
 * The reading not taken yet that is expected to tell most for its effort: mutual information between the suspects and the reading,
 * its integral taken at a few quantiles of every suspect's conditional prediction. Where several tie, the best second reading
 * after each of their outcomes is looked at too.
 * @param y readings taken so far, on the comparison scale
 */
export function bestReading(beliefs: readonly Belief[], askable: readonly Askable[], fit: FitWith, y: Float64Array, kin: Kin): NextReading | null {
  const asked = askable
    .map((a): Asked => {
      const bits = mutualInformation(
        beliefs.map((b) => ({ ...conditionalLast(fit(b.sample, [a.index]), y), mass: b.mass, suspect: b.suspect })),
        kin,
      );
      return { ...a, bits, worth: bits / a.effort };
    })
    .filter((a) => a.bits > LEAST_BITS)
    .sort((a, b) => b.worth - a.worth);
  const [first] = asked;
  if (!first) return null;
  const tied = asked.filter((a) => a.worth >= first.worth * (1 - TIE)).slice(0, MOST_TIED);
  const best = tied.length === 1 ? first : furthest(tied, asked, beliefs.slice(0, MOST_AHEAD), fit, y, kin);
  return { id: best.id, bits: best.bits };
}

/** Of tied readings the one with most worth, that of the best second reading included. */
function furthest(tied: readonly Asked[], asked: readonly Asked[], beliefs: readonly Belief[], fit: FitWith, y: Float64Array, kin: Kin): Asked {
  const ahead = tied.map((a) => ({ a, worth: a.worth + worthAfter(a, asked.filter((s) => s !== a).slice(0, SECONDS), beliefs, fit, y, kin) }));
  return ahead.reduce((p, q) => (q.worth > p.worth ? q : p)).a;
}

/** Worth of the best second reading, expected over the outcomes of a first one: what each of the likeliest suspects predicts for it. */
function worthAfter(first: Asked, seconds: readonly Asked[], beliefs: readonly Belief[], fit: FitWith, y: Float64Array, kin: Kin): number {
  const predicted = beliefs.map((b): Prediction => ({ ...conditionalLast(fit(b.sample, [first.index]), y), mass: b.mass, suspect: b.suspect }));
  const fits = seconds.map((s) => beliefs.map((b) => fit(b.sample, [first.index, s.index])));
  const outcomes = predicted.slice(0, OUTCOMES);
  const total = outcomes.reduce((sum, o) => sum + o.mass, 0);
  return outcomes.reduce((sum, { mean, mass }) => {
    const seen = Float64Array.of(...y, mean);
    const masses = predicted.map((p) => p.mass * densityAt(p, mean));
    const worths = seconds.map(
      (s, k) =>
        mutualInformation(
          beliefs.map((b, i) => ({ ...conditionalLast(fits[k]![i]!, seen), mass: masses[i]!, suspect: b.suspect })),
          kin,
        ) / s.effort,
    );
    return sum + (mass / total) * Math.max(0, ...worths);
  }, 0);
}

function densityAt({ mean, sd }: Prediction, x: number): number {
  const z = (x - mean) / sd;
  return Math.exp((-z * z) / 2) / sd;
}
