import type { Fault } from '../fault';
import type { Evidence } from '../specimen';
import { type BadLog, type BadWhy, logSum } from './badReadings';

/**
 * Weight of "something that is not on the list" against all that is, set so that of single faults on the list less than 2 % are called
 * unlisted, and of those beyond it more than four in five (simulated boards). Its density is thin: where anything fits, little is left of it.
 */
const PRIOR_UNKNOWN = 0.5;
/** What is not on the list is richer than all pairs of what is: it explains at least as well, and is as likely (choice of this product). */
const BEYOND_PAIRS = 1.5;
/** Suspects that are named where nothing explains the readings. */
const NEAREST = 3;
/** The same while nothing has been read. */
const BEFORE_ANY_READING = 0.02;
/** Wrong readings below this are not told. */
const LEAST_BAD = 0.02;

/** A reading that is probably wrong, and how. */
export interface BadReading {
  readonly id: string;
  readonly why: BadWhy;
  /** Observable that was really read. */
  readonly as: string | null;
  readonly probability: number;
}

/** One way in which a fault may show (a spread, a steady state), against the readings. Logs of mass, belief before included. */
export interface Way {
  /** All readings good. */
  readonly good: number;
  /** One of them wrong. */
  readonly bad: readonly BadLog[];
  /** All together. */
  readonly log: number;
  /** Something else, at any distance about it. */
  readonly afar: number;
}
export const NO_WAY: Way = { good: -Infinity, bad: [], log: -Infinity, afar: -Infinity };

/** A suspect (no fault: the healthy board; two: a pair) with all ways in which it may show. */
export interface Scored<C extends { readonly faults: readonly Fault[] } = { readonly faults: readonly Fault[] }> {
  readonly candidate: C;
  readonly ways: readonly Way[];
}

/** How far so many readings can contradict what is listed: by the pairs among them, of which nine readings have enough (choice of this product). */
const tested = (n: number): number => Math.min(1, Math.max(LEAST_TESTED, (n * (n - 1)) / (ENOUGH * (ENOUGH - 1))));
const ENOUGH = 9;
const LEAST_TESTED = 0.02;

/**
 * log mass of what nobody listed: it looks like something listed from afar. About each suspect's prediction it lies in the same
 * directions, but at any distance, evenly on a logarithmic scale; or it shows at one place only, and there by anything.
 */
function unlisted(scored: readonly Scored[], n: number): number {
  if (n === 0) return Math.log(BEFORE_ANY_READING);
  return Math.log(PRIOR_UNKNOWN * tested(n)) + logSum(scored.flatMap(({ ways }) => ways.map((w) => w.afar)));
}

/** What the readings make of all suspects: probabilities by suspect and way, and of what is on no list. */
export interface Posterior<C extends { readonly faults: readonly Fault[] } = { readonly faults: readonly Fault[] }> {
  readonly scored: readonly Scored<C>[];
  readonly masses: readonly (readonly number[])[];
  readonly unexplained: number;
  /** log of the mass that probabilities are shares of. */
  readonly logTotal: number;
}

/** Single faults and pairs against one another and against what is on no list. `n`: number of readings. */
export function posteriorOf<C extends { readonly faults: readonly Fault[] }>(
  singles: readonly Scored<C>[],
  pairs: readonly Scored<C>[],
  n: number,
): Posterior<C> {
  const logOf = (of: readonly Scored[]) => logSum([-Infinity, ...of.flatMap((s) => s.ways.map((w) => w.log))]);
  const inPairs = logOf(pairs);
  const unknown = Math.max(unlisted(singles, n), inPairs + Math.log(BEYOND_PAIRS));
  const logTotal = logSum([unknown, logOf(singles), inPairs]);
  const scored = [...singles, ...pairs];
  return { scored, masses: scored.map((s) => s.ways.map((w) => Math.exp(w.log - logTotal))), unexplained: Math.exp(unknown - logTotal), logTotal };
}

/** Suspects by how well they explain the readings, were they ever so unlikely. */
export function nearestOf({ scored }: Posterior): (readonly Fault[])[] {
  return scored
    .map(({ candidate, ways }) => ({ faults: candidate.faults, log: logSum([-Infinity, ...ways.map((w) => w.log)]) }))
    .filter((s) => s.log > -Infinity)
    .sort((a, b) => b.log - a.log)
    .slice(0, NEAREST)
    .map((s) => s.faults);
}

/** Wrong readings with their probabilities, over all suspects. */
export function namedBad({ scored, logTotal }: Posterior, seen: readonly Evidence[]): BadReading[] {
  const found = new Map<string, { id: string; why: BadWhy; as: string | null; probability: number }>();
  for (const { ways } of scored)
    for (const { bad } of ways)
      for (const { hypothesis, log } of bad) {
        const mass = Math.exp(log - logTotal);
        if (mass < 1e-9) continue;
        const { reading, why, as } = hypothesis;
        const key = `${reading} ${why} ${as ?? ''}`;
        const known = found.get(key) ?? { id: seen[reading]!.id, why, as, probability: 0 };
        known.probability += mass;
        found.set(key, known);
      }
  // A reading is told once, by its most probable reason, with the belief that it is wrong at all.
  const byReading = new Map<string, BadReading>();
  for (const b of [...found.values()].sort((a, c) => c.probability - a.probability)) {
    const known = byReading.get(b.id);
    byReading.set(b.id, known ? { ...known, probability: known.probability + b.probability } : b);
  }
  return [...byReading.values()].filter((b) => b.probability >= LEAST_BAD).sort((a, b) => b.probability - a.probability);
}
