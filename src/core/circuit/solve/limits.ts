import type { LinearParts } from './linearParts';

/** A voltage source with a limit, as it is laid out. */
export interface LimitedSource {
  /** Unknown of its current, and of its two ends. */
  readonly branch: number;
  readonly plus: number;
  readonly minus: number;
  /** Number of the first constant entry of its branch equation: its two volts, then its current. */
  readonly stamp: number;
  readonly amperes: number;
  readonly volts: number;
}

interface Limiter extends LimitedSource {
  amperes: number;
  volts: number;
  limiting: boolean;
}

/** So near a limit neither side of it is wrong, relative. */
const AT_LIMIT = 1e-6;
const signOf = ({ volts }: Limiter): number => (volts < 0 ? -1 : 1);
const delivered = (l: Limiter, x: Float64Array): number => -signOf(l) * x[l.branch]!;

/** Voltage sources that deliver so many amperes at most: each is either within its limit, a voltage, or in it, a current. */
export class SourceLimits {
  private readonly limiters: readonly Limiter[];

  constructor(
    private readonly linear: LinearParts,
    sources: readonly LimitedSource[],
  ) {
    this.limiters = sources.map((s) => ({ ...s, limiting: false }));
  }

  /** Takes the sources to the side of their limit on which a solution has them; null: all within it. */
  takeLike(x: Float64Array | null): void {
    for (const l of this.limiters) this.take(l, x !== null && delivered(l, x) >= l.amperes * (1 - AT_LIMIT));
  }

  /** Takes all of them into their limit. False: there are none. */
  takeIn(): boolean {
    for (const l of this.limiters) this.take(l, true);
    return this.limiters.length > 0;
  }

  /** Takes those across that a solution has on the wrong side of their limit; whether there were any. */
  takeAcross(x: Float64Array): boolean {
    const wrong = this.limiters.filter((l) =>
      l.limiting ? (x[l.plus]! - x[l.minus]!) * signOf(l) > Math.abs(l.volts) * (1 + AT_LIMIT) : delivered(l, x) > l.amperes * (1 + AT_LIMIT),
    );
    for (const l of wrong) this.take(l, !l.limiting);
    return wrong.length > 0;
  }

  /** Sets the volts of a source; false where it has no limit. */
  setVolts(branch: number, volts: number): boolean {
    return this.set(branch, (l) => (l.volts = volts));
  }

  /** Sets the limit of a source, amperes; false where it has none. */
  setAmperes(branch: number, amperes: number): boolean {
    return this.set(branch, (l) => (l.amperes = amperes));
  }

  has(branch: number): boolean {
    return this.limiters.some((l) => l.branch === branch);
  }

  private set(branch: number, change: (l: Limiter) => void): boolean {
    const l = this.limiters.find((x) => x.branch === branch);
    if (!l) return false;
    change(l);
    this.drive(l);
    return true;
  }

  /** The branch equation: its volts, or in its limit its amperes. */
  private take(l: Limiter, limiting: boolean): void {
    if (limiting === l.limiting) return;
    l.limiting = limiting;
    for (const [i, value] of (limiting ? [0, 0, 1] : [1, -1, 0]).entries()) this.linear.setStamp(l.stamp + i, value);
    this.drive(l);
  }

  private drive(l: Limiter): void {
    this.linear.right[l.branch] = l.limiting ? -signOf(l) * l.amperes : l.volts;
  }
}
