/** A part of known value, or of one between two. */
export type Span = readonly [least: number, most: number];

/** Printed figures are rounded: a claim that is reached within this part counts as possible (own figure). */
const ROUNDED = 1.05;

export interface PowerClaim {
  readonly topology: 'single-ended' | 'bridge' | 'split';
  /** Class of the output stage: conducting half of the time (AB), or switching (D). */
  readonly outputClass: 'ab' | 'd';
  /** Volts of the supply; one rail of a split one. */
  readonly supplyVolts: number;
  /** Average amperes that the supply, or each rail, can give. */
  readonly supplyAmps: number | null;
  readonly loadOhms: number;
  /** Volts that each output device keeps. */
  readonly saturationVolts: number;
  readonly claimedWatts: number;
  readonly claimedAs: 'rms' | 'peak';
}

/**
 * Greatest sine power into a load: Vp²/(2R) (textbook), less where the supply's current limits it: a half sine of peak I has the
 * mean I/π (class B, textbook), a switching stage takes its energy.
 */
export function powerClaim(c: PowerClaim): { mostWatts: number; possible: boolean } {
  const { supplyVolts: vs, saturationVolts: sat, loadOhms: r } = c;
  const peak = Math.max(0, c.topology === 'single-ended' ? vs / 2 - sat : c.topology === 'bridge' ? vs - 2 * sat : vs - sat);
  const byCurrent = c.supplyAmps === null ? Infinity : mostByCurrent(c, c.supplyAmps);
  const mostWatts = Math.min(peak ** 2 / (2 * r), byCurrent);
  const claimed = c.claimedAs === 'peak' ? c.claimedWatts / 2 : c.claimedWatts;
  return { mostWatts, possible: claimed <= ROUNDED * mostWatts };
}

function mostByCurrent({ topology, outputClass, supplyVolts, loadOhms }: PowerClaim, amps: number): number {
  if (outputClass === 'd') return (topology === 'split' ? 2 : 1) * supplyVolts * amps;
  const peak = topology === 'bridge' ? (Math.PI * amps) / 2 : Math.PI * amps;
  return (peak ** 2 * loadOhms) / 2;
}

export interface Reach {
  readonly low: number;
  readonly high: number;
  readonly possible: boolean;
}

const reach = (low: number, high: number, claimed: Span): Reach => ({
  low,
  high,
  possible: low <= ROUNDED * claimed[0] && claimed[1] <= ROUNDED * high,
});

export interface RangeClaim {
  readonly vref: number;
  /** Current of the adjust pin, A. */
  readonly iadj: number;
  readonly rTop: number;
  readonly rBottom: Span;
  readonly inputVolts: number;
  readonly dropout: number;
  readonly claimed: Span;
}

/** Output of an adjustable regulator: Vref · (1 + R2/R1) + Iadj · R2 (data sheet formula), no higher than input minus drop-out. */
export function rangeClaim(c: RangeClaim): Reach {
  const volts = (rBottom: number) => Math.min(c.inputVolts - c.dropout, c.vref * (1 + rBottom / c.rTop) + c.iadj * rBottom);
  return reach(volts(c.rBottom[0]), volts(c.rBottom[1]), c.claimed);
}

export type Oscillator =
  | { readonly form: 'rc-2.3'; readonly r: Span; readonly c: Span }
  | { readonly form: '555-astable'; readonly ra: Span; readonly rb: Span; readonly c: Span }
  | { readonly form: 'two-transistor'; readonly r1: Span; readonly c1: Span; readonly r2: Span; readonly c2: Span };

/**
 * Frequency of an oscillator: 1/(2.3 R C) (data sheet formula of CMOS divider chips), 1/(ln 2 · (Ra + 2 Rb) C) (data sheet
 * formula of the timer), 1/(ln 2 · (R1 C1 + R2 C2)) (textbook), divided by two a stage.
 */
export function frequencyClaim(of: Oscillator, stages: number, claimed: Span): Reach {
  const hertz = (end: 0 | 1) => 1 / period(of, end) / 2 ** stages;
  return reach(hertz(1), hertz(0), claimed);
}

function period(of: Oscillator, end: 0 | 1): number {
  switch (of.form) {
    case 'rc-2.3':
      return 2.3 * of.r[end] * of.c[end];
    case '555-astable':
      return Math.LN2 * (of.ra[end] + 2 * of.rb[end]) * of.c[end];
    case 'two-transistor':
      return Math.LN2 * (of.r1[end] * of.c1[end] + of.r2[end] * of.c2[end]);
  }
}
