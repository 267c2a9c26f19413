import type { Fault } from '../fault';
import type { Sample } from '../specimen';

/** Two faults at once. */
export type Pair = readonly [Fault, Fault];

/**
 * Pairs of which one specimen is solved, of which a few are, and of which as many as of a single fault. Every ohms and diode
 * reading has a circuit of its own: where there are many, fewer pairs are tried, so that an answer does not take a minute.
 */
const CIRCUITS_SOLVED = 5000;
const FEWEST_SOLVED = 300;
/** With more circuits than this a specimen costs so much that fewer pairs are looked at closely too. */
const CHEAP_CIRCUITS = 3;
const SOLVED_ROUGHLY = 160;
const SOLVED_FINELY = 24;
/** Of so many pairs each of the faults that their two stand for is tried, so many of each group at most. */
const OPENED = 12;
const OPENED_MEMBERS = 4;
const FEW_SPECIMENS = 8;
/** Two faults whose specimens read alike within this, on the comparison scale and in units of their spread, stand for one another. */
const ALIKE = 0.01;
const ALIKE_SPREADS = 0.3;
/** No reading counts for more than this when pairs are screened: what one fault of a pair hides must not throw it out. */
const CAP = 20;
const FLOOR2 = 4e-6;

/** A single fault as far as it is known: a rough sample, and the belief in it before any reading. */
export interface Single {
  readonly fault: Fault;
  readonly prior: number;
  readonly sample: Sample;
}

/** Faults that read alike: one stands for all. */
export interface Group {
  readonly single: Single;
  /** All of them, the one that stands for them first. */
  readonly members: readonly Single[];
  readonly moments: Moments;
}

export interface Moments {
  readonly mean: Float64Array;
  readonly variance: Float64Array;
}

export function momentsOf({ values, rows, width }: Sample): Moments {
  const mean = new Float64Array(width);
  const variance = new Float64Array(width);
  for (let i = 0; i < width; i++) {
    let [sum, squares] = [0, 0];
    for (let r = 0; r < rows; r++) {
      const v = values[r * width + i]!;
      sum += v;
      squares += v * v;
    }
    mean[i] = sum / rows;
    variance[i] = Math.max(0, squares / rows - mean[i]! ** 2);
  }
  return { mean, variance };
}

/**
 * Faults in groups that read alike, by the same specimens with each of them; those that read like the healthy board
 * (the first) are left out, for nothing would show them.
 */
export function groupsOf(healthy: Single, singles: readonly Single[]): Group[] {
  const groups: { single: Single; members: Single[]; moments: Moments }[] = [];
  const sound = { single: healthy, members: [healthy], moments: momentsOf(healthy.sample) };
  for (const single of singles) {
    if (single.sample.rows < 3) continue;
    const moments = momentsOf(single.sample);
    const known = [sound, ...groups].find((g) => readAlike(g, { single, moments }));
    if (known) known.members.push(single);
    else groups.push({ single, members: [single], moments });
  }
  return groups;
}

interface Sampled {
  readonly single: Single;
  readonly moments: Moments;
}
function readAlike(a: Sampled, b: Sampled): boolean {
  const [x, y] = [a.single.sample, b.single.sample];
  if (x.rows !== y.rows) return false;
  for (let i = 0; i < x.width; i++) {
    const apart = ALIKE + ALIKE_SPREADS * Math.sqrt(Math.max(a.moments.variance[i]!, b.moments.variance[i]!));
    for (let r = 0; r < x.rows; r++) if (Math.abs(x.values[r * x.width + i]! - y.values[r * y.width + i]!) > apart) return false;
  }
  return true;
}

/** Readings on the comparison scale: which columns of a sample, what they show, and the variance of the meter's error. */
export interface Seen {
  readonly pick: readonly number[];
  readonly y: Float64Array;
  readonly noise: readonly number[];
}

/** Draws `count` specimens with both faults, a sample for each steady state that such a board may take. */
export type DrawPair = (pair: Pair, count: number) => readonly Sample[];

export interface LikelyPair {
  readonly pair: Pair;
  /** Belief in it before any reading, among all pairs. */
  readonly prior: number;
}

/**
 * The pairs that may explain the readings, likeliest first. Best first in three steps: what two faults would show if they did not
 * meddle with one another (sum, or either alone), one specimen of the nearest, a few specimens of the nearest of those.
 * `circuits`: how many are solved for one specimen of a pair.
 */
export function likelyPairs(
  groups: readonly Group[],
  healthy: Moments,
  seen: Seen,
  { draw, circuits }: { readonly draw: DrawPair; readonly circuits: number },
  progress: (done: number) => void,
): LikelyPair[] {
  const share = Math.min(1, CHEAP_CIRCUITS / circuits);
  const roughly = Math.ceil(share * SOLVED_ROUGHLY);
  const total = groups.reduce((sum, g) => g.members.reduce((s, m) => s + m.prior, sum), 0) ** 2 / 2;
  const near = nearest(groups, healthy, seen, Math.max(FEWEST_SOLVED, Math.ceil(CIRCUITS_SOLVED / circuits)));
  const solved = near.map(({ a, b }, i) => {
    if (i % 50 === 0) progress((0.6 * i) / near.length);
    const variance = (c: number) => Math.max(a.moments.variance[c]!, b.moments.variance[c]!);
    const states = draw([a.single.fault, b.single.fault], 1).filter((s) => s.rows > 0);
    return { a, b, score: Math.max(-Infinity, ...states.map(({ values }) => fit(seen, values, variance))) };
  });
  const rough = ({ a, b }: Tried<Single>): Tried<Single> => {
    const states = draw([a.fault, b.fault], FEW_SPECIMENS).filter((s) => s.rows >= 3);
    const scores = states.map(momentsOf).map(({ mean, variance }) => fit(seen, mean, (c) => 1.5 * variance[c]!));
    return { a, b, score: Math.max(-Infinity, ...scores) };
  };
  const some = best(solved, roughly).map(({ a, b, score }, i) => {
    progress(0.6 + (0.2 * i) / roughly);
    return { a, b, score: rough({ a: a.single, b: b.single, score }).score };
  });
  const open = best(some, Math.ceil(share * OPENED)).flatMap(({ a, b }) => allOf(a, b));
  const opened = open.map((pair, i) => {
    progress(0.8 + (0.2 * i) / open.length);
    return rough(pair);
  });
  return best(opened, Math.ceil(share * SOLVED_FINELY)).map(({ a, b }) => ({ pair: [a.fault, b.fault], prior: (a.prior * b.prior) / total }));
}

/** Every pair that two groups stand for. */
const allOf = (a: Group, b: Group): Tried<Single>[] =>
  a.members
    .slice(0, OPENED_MEMBERS)
    .flatMap((x) => b.members.slice(0, OPENED_MEMBERS).flatMap((y) => (together(x.fault, y.fault) ? [{ a: x, b: y, score: 0 }] : [])));

interface Tried<One> {
  readonly a: One;
  readonly b: One;
  readonly score: number;
}
const best = <One>(pairs: readonly Tried<One>[], count: number) =>
  pairs
    .filter((p) => p.score > -Infinity)
    .sort((x, y) => y.score - x.score)
    .slice(0, count);

/** log of how well readings fit what is predicted of them, each by itself, capped. */
function fit({ pick, y, noise }: Seen, predicted: Float64Array, variance: (column: number) => number): number {
  let score = 0;
  pick.forEach((c, i) => {
    const v = variance(c) + noise[i]! + FLOOR2;
    score -= Math.min((y[i]! - predicted[c]!) ** 2 / v / 2, CAP) + Math.log(v) / 2;
  });
  return score;
}

/** The pairs nearest to the readings, as far as the single faults tell without solving anything. */
function nearest(groups: readonly Group[], healthy: Moments, { pick, y, noise }: Seen, count: number): Tried<Group>[] {
  const found: Tried<Group>[] = [];
  groups.forEach((a, k) => {
    for (const b of groups.slice(k + 1)) {
      if (!together(a.single.fault, b.single.fault)) continue;
      let score = 0;
      for (let i = 0; i < pick.length; i++) {
        const c = pick[i]!;
        const [ma, mb] = [a.moments.mean[c]!, b.moments.mean[c]!];
        const v = a.moments.variance[c]! + b.moments.variance[c]! + noise[i]! + FLOOR2;
        const apart = Math.min(Math.abs(y[i]! - ma), Math.abs(y[i]! - mb), Math.abs(y[i]! - (ma + mb - healthy.mean[c]!)));
        score -= Math.min((apart * apart) / v / 2, CAP);
      }
      found.push({ a, b, score });
    }
  });
  return best(found, count);
}

/** Whether two faults can be there at once: on parts of their own, and not twice of a kind that happens once. */
function together(a: Fault, b: Fault): boolean {
  if (a.kind === b.kind && (a.kind === 'bridge' || a.kind === 'stuck' || a.kind === 'track')) return false;
  const parts: readonly string[] = a.parts;
  return !b.parts.some((ref) => parts.includes(ref));
}
