import { at, fitLine } from './line';

/** One step of a load test; the input's values where they were read. */
export interface LoadPoint {
  readonly amps: number;
  readonly volts: number;
  readonly inputVolts?: number;
  readonly inputAmps?: number;
}

export interface LoadTest {
  /** In the order in which the load was made heavier. */
  readonly points: readonly LoadPoint[];
  readonly setVolts: number;
  /** Fed by a DC supply, or by winding, rectifier and reservoir. */
  readonly kind: 'linear' | 'rectified';
  /** Drop-out voltage of the type, V. */
  readonly dropout?: number;
}

export type LimitCause = 'regulated' | 'supply-limit' | 'regulator-limit' | 'sag' | 'drop-out';

export interface Regulation {
  readonly outputOhms: number | null;
  readonly regulationPercent: number | null;
  /** Amperes at the first point that is no longer regulated; null: all are. */
  readonly limitedFrom: number | null;
  /** Null: it cannot be told. */
  readonly cause: LimitCause | null;
  /** Heat in the regulator at each point; null without its input. */
  readonly watts: readonly (number | null)[];
}

/** Drop-out of common three-lead regulators, V (common practice, from data sheets, from memory). */
const USUAL_DROPOUT = 2;
/** A point this far below the line of those before it is no longer regulated: part of the set voltage, and volts (own figures). */
const BELOW_LINE = { part: 0.005, volts: 0.02 };
const FIRST_TOO_LOW = 0.95;
const SURELY_REGULATED = 3;

/** What a load test says: output resistance, regulation (textbook), from where on it is limited, and by what. */
export function regulationOf(test: LoadTest): Regulation {
  const { points, setVolts } = test;
  const first = firstLimited(points, setVolts);
  const regulated = first === null ? points : points.slice(0, first);
  const enough = regulated.length >= SURELY_REGULATED;
  const [start, end] = [regulated[0], regulated.at(-1)];
  return {
    outputOhms: enough ? 0 - fitLine(regulated.map((p) => [p.amps, p.volts])).slope : null,
    regulationPercent: enough && start && end ? (100 * (start.volts - end.volts)) / end.volts : null,
    limitedFrom: first === null ? null : points[first]!.amps,
    cause: causeOf(test, first),
    watts: points.map(({ amps, volts, inputVolts, inputAmps }) => {
      if (inputVolts === undefined) return null;
      return inputAmps === undefined ? (inputVolts - volts) * amps : inputVolts * inputAmps - volts * amps;
    }),
  };
}

function firstLimited(points: readonly LoadPoint[], setVolts: number): number | null {
  if (points[0]!.volts < FIRST_TOO_LOW * setVolts) return 0;
  const allowed = Math.max(BELOW_LINE.part * setVolts, BELOW_LINE.volts);
  for (let i = SURELY_REGULATED; i < points.length; i++) {
    const before = fitLine(points.slice(0, i).map((p) => [p.amps, p.volts]));
    if (at(before, points[i]!.amps) - points[i]!.volts > allowed) return i;
  }
  return null;
}

function causeOf({ points, kind, dropout = USUAL_DROPOUT }: LoadTest, first: number | null): LimitCause | null {
  if (first === null) return 'regulated';
  const inputs = points.map((p) => p.inputVolts);
  if (inputs.some((v) => v === undefined)) return null;
  const input = (i: number) => inputs[i]!;
  const last = points.length - 1;
  const headroom = (i: number) => input(i) - points[i]!.volts;
  if (kind === 'linear' && first >= SURELY_REGULATED) {
    const straight = fitLine(points.slice(0, first).map((p, i) => [p.amps, input(i)]));
    // The supply has become a current source.
    if (at(straight, points[last]!.amps) - input(last) > 0.05 * input(0)) return 'supply-limit';
  }
  const folds = points.slice(first).every((p) => p.amps <= 1.05 * points[first]!.amps);
  if (folds && headroom(last) > 2 * dropout) return 'regulator-limit';
  if (input(first) < 0.95 * input(0)) return 'sag';
  return headroom(first) <= 1.5 * dropout ? 'drop-out' : null;
}
