/** Thermal voltage kT/q at 27 °C, volts (CODATA k and q; 27 °C is the SPICE default temperature). */
export const VT = (1.38064852e-23 * 300.15) / 1.6021766208e-19;
/** Conductance across every junction, siemens (SPICE default GMIN). */
export const GMIN = 1e-12;

const MAX_EXPONENT = 300;

/** exp that stays finite: beyond the limit it goes on along its tangent. */
export function safeExp(x: number): number {
  return x < MAX_EXPONENT ? Math.exp(x) : Math.exp(MAX_EXPONENT) * (1 + x - MAX_EXPONENT);
}

/** Voltage above which a junction's current rises too fast for a plain Newton step. */
export function criticalVoltage(saturation: number, nvt: number): number {
  return nvt * Math.log(nvt / (Math.SQRT2 * saturation));
}

/** A step down that takes more than this share of a junction's current away is better taken in the current. */
const MOST_LOSS = 0.7;

/**
 * Junction voltage limiting (`pnjlim` of SPICE 2, Nagel 1975): returns a voltage near `wanted` at which the exponential is safe.
 * `bold`: downwards too the step is taken in the current where that nearly vanishes, v + nVT ln(1 + Δv / nVT). Newton's method
 * in the voltage creeps down by one nVT an iteration: thirty of them from milliamperes to a leakage current.
 */
export function limitJunction(wanted: number, before: number, nvt: number, critical: number, bold: boolean): number {
  const share = (wanted - before) / nvt;
  if (bold && share < -MOST_LOSS && share > -1 && before > 0) return before + nvt * Math.log(1 + share);
  if (wanted <= critical || Math.abs(share) <= 2) return wanted;
  if (before <= 0) return nvt * Math.log(wanted / nvt);
  return share > -1 ? before + nvt * Math.log(1 + share) : critical;
}

/**
 * Voltage from which a junction is taken up in a warm start. In the circuit that the start comes from the place may have held
 * another part, or none: what no junction carries is cut to 10 VT above the critical voltage (hundreds of amperes).
 */
export const startingVoltage = (volts: number, nvt: number, critical: number): number => Math.min(volts, critical + 10 * nvt);

/** Gate voltage limiting (`fetlim` of SPICE 2): keeps a step from jumping across the threshold. */
export function limitGate(wanted: number, before: number, threshold: number): number {
  const high = Math.abs(2 * (before - threshold)) + 2;
  const low = high / 2 + 2;
  const middle = threshold + 3.5;
  const delta = wanted - before;
  if (before >= threshold) {
    if (before >= middle) {
      if (delta <= 0) return wanted >= middle ? Math.max(wanted, before - low) : Math.max(wanted, threshold + 2);
      return Math.min(wanted, before + high);
    }
    return delta <= 0 ? Math.max(wanted, threshold - 0.5) : Math.min(wanted, middle);
  }
  if (delta <= 0) return Math.max(wanted, before - high);
  return wanted <= threshold + 0.5 ? Math.min(wanted, before + low) : threshold + 0.5;
}

/** Drain voltage limiting (`limvds` of SPICE 2). */
export function limitDrain(wanted: number, before: number): number {
  if (before >= 3.5) {
    if (wanted > before) return Math.min(wanted, 3 * before + 2);
    return wanted < 3.5 ? Math.max(wanted, 2) : wanted;
  }
  return wanted > before ? Math.min(wanted, 4) : Math.max(wanted, -0.5);
}
