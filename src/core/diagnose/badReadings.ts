import { type Fit, PointDensity } from '../statistics';
import { GROUND } from '../circuit';
import { type Problem, scaleSlope, type StageObservable, toScale } from '../specimen';

/** What can go wrong with one reading. */
export type BadWhy = 'sign' | 'other-point' | 'decimal' | 'no-contact';

/** What goes wrong is about as often the one as the other (common practice, no source). */
const SHARE = 1 / 4;
/** A slipped probe stands at a point nearby so much more often than at any other. */
const NEARBY = 0.75;
/** No contact: some tenths of a millivolt to tens of them, of either sign; or a meter on AC, which shows next to nothing. Volts. */
const OPEN = { low: 1e-4, high: 3e-2 };
const ON_AC: readonly (readonly [volts: number, share: number])[] = [
  [0, 0.5],
  [1e-3, 0.3],
  [2e-3, 0.2],
];

/** More than this no reading adds to the log density of the others: none is predicted more sharply than to a thousandth. */
const DENSEST = 7;

/** A reading as it was taken, on its place among the observables and on the comparison scale. */
export interface Taken {
  readonly observable: StageObservable;
  readonly index: number;
  readonly value: number | 'over';
  readonly y: number;
  /** Standard deviation of the meter's error on the comparison scale. */
  readonly sd: number;
  /** A step of the display, in the unit of the mode. */
  readonly step: number;
}

/** One way in which one of the readings is wrong: `reading` counts among those taken. */
export interface BadHypothesis {
  readonly reading: number;
  readonly why: BadWhy;
  /** Id of the observable that was really read. */
  readonly as: string | null;
}

/** Another point at which a probe may have stood. */
export interface OtherPoint {
  readonly observable: StageObservable;
  readonly index: number;
  /** Weight among the points where this reading may have been taken; they sum to one. */
  readonly weight: number;
}

/** Where the probe may have stood instead, by observable: points close by first of all. */
export function otherPoints(observables: readonly StageObservable[], areNear: (a: number, b: number) => boolean): (index: number) => OtherPoint[] {
  return (index) => {
    const own = observables[index]!;
    if (own.mode !== 'dcv') return [];
    const others = observables.flatMap((o, i) =>
      i !== index && o.mode === 'dcv' && o.black === own.black ? [{ observable: o, index: i, near: areNear(index, i) }] : [],
    );
    const near = others.filter((o) => o.near).length;
    const weight = (isNear: boolean) => (isNear ? NEARBY / near : 0) + (near === 0 ? 1 : 1 - NEARBY) / others.length;
    return others.map((o) => ({ observable: o.observable, index: o.index, weight: weight(o.near) }));
  };
}

/** A hypothesis and its log density at the readings, the belief in a bad reading left out. */
export interface BadLog {
  readonly hypothesis: BadHypothesis;
  readonly log: number;
}

/** Every hypothesis of one bad reading for one way in which a fault shows. */
export function badLogs(
  taken: readonly Taken[],
  whole: PointDensity,
  others: (index: number) => readonly OtherPoint[],
  /** The fit of all readings and, last, one more that was not taken. */
  withOther: (index: number) => Fit,
  /** What stays below this log density counts for nothing. */
  least: number,
): BadLog[] {
  const found: BadLog[] = [];
  const byIndex = new Map(taken.map((t, i) => [t.index, i]));
  taken.forEach((t, i) => {
    const rest = whole.logWithout(i);
    if (rest + DENSEST < least) return;
    const add = (why: BadWhy, log: number, as: string | null = null) => {
      if (log > -Infinity) found.push({ hypothesis: { reading: i, why, as }, log: log + Math.log(SHARE / taken.length) });
    };
    const { mode } = t.observable;
    if (t.value === 'over' || (mode !== 'dcv' && mode !== 'dca')) return;
    const shown = t.value;
    add('decimal', logSum([10, 0.1].map((by) => logIf(t, shown, by, (y) => rest + whole.logGiven(i, y)) - Math.LN2)));
    if (mode !== 'dcv') return;
    add('sign', rest + whole.logGiven(i, -t.y));
    add('no-contact', rest + logNoContact(t, shown));
    for (const o of others(t.index)) {
      const k = byIndex.get(o.index);
      const weight = Math.log(o.weight);
      if (k !== undefined) {
        add('other-point', rest + logNormal(t.y, taken[k]!.y, Math.hypot(t.sd, taken[k]!.sd)) + weight, o.observable.id);
        continue;
      }
      const extra = PointDensity.of(withOther(o.index), Float64Array.from([...taken.map((other) => other.y), t.y]));
      if (extra) add('other-point', extra.logWithout(i) + weight, o.observable.id);
    }
  });
  return found;
}

/** The reading shows `by` times what is there: density of what is there, carried over to what is shown. */
function logIf({ observable: { mode } }: Taken, shown: number, by: number, log: (y: number) => number): number {
  const right = shown / by;
  return log(toScale(mode, right)) + Math.log(scaleSlope(mode, right) / by / scaleSlope(mode, shown));
}

function logNoContact({ observable: { mode }, step }: Taken, shown: number): number {
  const slope = scaleSlope(mode, shown);
  const size = Math.abs(shown);
  const open = size >= OPEN.low / 2 && size <= OPEN.high * 1.05 ? 1 / (2 * Math.max(size, OPEN.low) * Math.log(OPEN.high / OPEN.low)) / slope : 0;
  const ac = ON_AC.find(([volts]) => Math.abs(shown - volts) < step / 2);
  return Math.log(0.5 * open + (ac ? (0.5 * ac[1]) / (step * slope) : 0));
}

const logNormal = (x: number, mean: number, sd: number) => -((x - mean) ** 2) / (2 * sd * sd) - Math.log(sd) - 0.5 * Math.log(2 * Math.PI);

export function logSum(logs: readonly number[]): number {
  const top = Math.max(...logs);
  return top === -Infinity ? top : top + Math.log(logs.reduce((s, l) => s + Math.exp(l - top), 0));
}

/** Which points a slipped probe may take for one another: next in the list, on neighbouring nets, at other pins of one part. */
export function nearness({ board, scenes }: Problem, observables: readonly StageObservable[]): (a: number, b: number) => boolean {
  const supplies = new Set(scenes.flatMap((s) => s.circuit.parts.filter((p) => p.kind === 'V' && !p.name.includes('.')).flatMap((p) => p.nodes)));
  const pairs = new Set(board.neighbours.flatMap(([x, y]) => [`${x}\n${y}`, `${y}\n${x}`]));
  for (const { circuit } of scenes)
    for (const part of circuit.parts) {
      const nets = part.name.includes('.') ? [] : part.nodes.filter((n) => n !== GROUND && !supplies.has(n));
      for (const x of nets) for (const y of nets) if (x !== y) pairs.add(`${x}\n${y}`);
    }
  const listed = observables.flatMap((o, i) => (o.mode === 'dcv' ? [i] : []));
  const red = (i: number) => {
    const o = observables[i]!;
    return o.mode === 'dcv' ? o.red : '';
  };
  return (a, b) => Math.abs(listed.indexOf(a) - listed.indexOf(b)) === 1 || pairs.has(`${red(a)}\n${red(b)}`);
}
