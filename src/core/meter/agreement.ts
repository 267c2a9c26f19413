/** A value with its standard uncertainty, both in one unit. */
export interface Uncertain {
  readonly value: number;
  readonly standard: number;
}

export interface Agreement {
  readonly agrees: boolean;
  /** Difference over its combined expanded uncertainty (k = 2); within ±1 the two agree. */
  readonly ratio: number;
  readonly difference: number;
  readonly expanded: number;
}

const COVERAGE = 2;

/** Whether two results agree within their combined uncertainty: |a − b| ≤ 2 √(ua² + ub²) (E_n number, ISO/IEC 17043, from memory). */
export function agreement(a: Uncertain, b: Uncertain): Agreement {
  const expanded = COVERAGE * Math.hypot(a.standard, b.standard);
  const difference = a.value - b.value;
  const ratio = expanded > 0 ? difference / expanded : difference === 0 ? 0 : Infinity * Math.sign(difference);
  return { agrees: Math.abs(difference) <= expanded, ratio, difference, expanded };
}

/** Offset and gain error of an instrument from readings of known parts: least squares of (reading − known) on the known value. */
export function verifyInstrument(
  points: readonly { readonly known: number; readonly reading: number }[],
): { readonly offset: number; readonly gain: number } | null {
  const n = points.length;
  if (n < 2) return null;
  const mean = points.reduce((s, p) => s + p.known, 0) / n;
  const spread = points.reduce((s, p) => s + (p.known - mean) ** 2, 0);
  if (!(spread > 0)) return null;
  const meanError = points.reduce((s, p) => s + p.reading - p.known, 0) / n;
  const gain = points.reduce((s, p) => s + (p.known - mean) * (p.reading - p.known), 0) / spread;
  return { offset: meanError - gain * mean, gain };
}
