import type { Fault } from '../fault';
import type { ModelSpread, Sample } from '../specimen';
import { type Fit, fitSample, PointDensity } from '../statistics';
import { badLogs, logSum, type OtherPoint, type Taken } from './badReadings';
import { logAnyLooks, logLooks, type Looked } from './looks';
import { errorCovariance, type Noise } from './noise';
import { NO_WAY, type Scored, type Way } from './posterior';

/** One way in which a fault may show: a sample of readings, and its share. */
export interface Component {
  readonly sample: Sample;
  readonly weight: number;
  readonly spread: ModelSpread['id'];
}

export interface Candidate {
  /** None on the healthy board, two for a pair. */
  readonly faults: readonly Fault[];
  prior: number;
  /** One component per spread, steady state and way of behaving; finer ones replace coarser ones. */
  components: readonly Component[] | null;
  /** The first, coarse ones: what is screened must not change by having been looked at closely. */
  coarse: readonly Component[] | null;
  fine: boolean;
}

/** Readings and looks as they are compared with a sample: their columns, what they show on the comparison scale, the meter's errors. */
export interface Seen {
  readonly pick: readonly number[];
  readonly y: Float64Array;
  readonly noise: readonly Noise[];
  readonly looked: readonly Looked[];
  readonly taken: readonly Taken[];
}

/** What is supposed of the readings. */
export interface Scoring {
  /** Probability that one of them is wrong. */
  readonly badReading: number;
  /** Where a probe may have stood instead. */
  readonly others: (index: number) => readonly OtherPoint[];
  /** The meter's error at what a sample shows in a column. */
  readonly ownNoise: (sample: Sample, index: number) => Noise;
}

/** How badly what nobody listed fits the best suspect: its squared distance lies anywhere up to this, evenly on a logarithmic scale. */
const FARTHEST = 1e6;
/** A reading that may be anything lies in a span of this width on the comparison scale. */
const ANYWHERE = 7;
/** Share of what nobody listed that shows at one place only. */
const AT_ONE_PLACE = 0.03;
/** So far below the best in log mass nothing counts. */
const NEGLIGIBLE = 25;
/** Fewer specimens are no fit. */
const FEWEST_FITTED = 8;
/** With fewer readings nothing can contradict another. */
export const FEWEST_TO_CONTRADICT = 3;
/** From so many on one of them may be the wrong one; while there are only these few, with this probability (own choice: the first readings go wrong most). */
const FEWEST_TO_DOUBT = 2;
const FEW = 4;
const BAD_AMONG_FEW = 0.1;

export const fitReadings = ({ values, rows, width }: Sample, pick: readonly number[], noise: readonly Noise[]): Fit =>
  fitSample(values, rows, width, pick, errorCovariance(noise));

/** A way in which a fault may show, fitted to the readings; logs of the belief in it before, with the looks, and with all readings good. */
interface Fitted {
  readonly sample: Sample;
  readonly density: PointDensity;
  readonly held: number;
  readonly before: number;
  readonly good: number;
}

/**
 * How well each way in which each of the faults may show explains the readings: all of them good, or one of them wrong.
 * Wrong readings that could not come near the best of them are left out.
 */
export function scoreAll(candidates: readonly Candidate[], seen: Seen, scoring: Scoring): Scored<Candidate>[] {
  const fitted = candidates.map((c) => {
    const badReading = badReadingOf(c, seen, scoring);
    return { c, badReading, ways: fittedWays(c, seen, badReading) };
  });
  const best = Math.max(...fitted.flatMap((f) => f.ways.map((w) => w?.good ?? -Infinity)));
  return fitted.map(({ c, badReading, ways }) => ({
    candidate: c,
    ways: ways.map((w) => (w ? wayOf(w, seen, { ...scoring, badReading }, best - NEGLIGIBLE) : NO_WAY)),
  }));
}

/** A pair and a bad reading at once are not supposed. */
const badReadingOf = (c: Candidate, { pick }: Seen, { badReading }: Scoring): number =>
  c.faults.length > 1 || badReading === 0 ? 0 : pick.length <= FEW ? Math.max(badReading, BAD_AMONG_FEW) : badReading;

function fittedWays(c: Candidate, { pick, y, noise, looked }: Seen, badReading: number): (Fitted | null)[] {
  return (c.components ?? []).map(({ sample, weight }) => {
    const density = !c.fine || sample.rows < FEWEST_FITTED ? null : PointDensity.of(fitReadings(sample, pick, noise), y);
    if (!density) return null;
    const held = Math.log(c.prior * weight);
    const before = held + logLooks(sample, looked);
    return { sample, density, held, before, good: before + density.log + Math.log(1 - badReading) };
  });
}

function wayOf({ sample, density, held, before, good }: Fitted, { pick, noise, looked, taken }: Seen, scoring: Scoring, least: number): Way {
  const contradictable = pick.length >= FEWEST_TO_CONTRADICT;
  const all = density.logAfar(FARTHEST);
  const one = logSum(pick.map((_, i) => density.logWithout(i))) - Math.log(pick.length * ANYWHERE);
  const afar = held + logAnyLooks(looked) + logSum([all + Math.log(1 - AT_ONE_PLACE), contradictable ? one + Math.log(AT_ONE_PLACE) : -Infinity]);
  if (scoring.badReading <= 0 || pick.length < FEWEST_TO_DOUBT) return { good, log: good, bad: [], afar };
  const fits = new Map<number, Fit>();
  const withOther = (index: number) => {
    const fit = fits.get(index) ?? fitReadings(sample, [...pick, index], [...noise, scoring.ownNoise(sample, index)]);
    fits.set(index, fit);
    return fit;
  };
  const given = before + Math.log(scoring.badReading);
  const bad = badLogs(taken, density, scoring.others, withOther, least - given).map((b) => ({ ...b, log: b.log + given }));
  return { good, bad, log: logSum([good, ...bad.map((b) => b.log)]), afar };
}
