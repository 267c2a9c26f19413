/** Quantiles of a normal distribution at the middles of seven equal slices of probability. */
const QUANTILES = [-1.4652, -0.7916, -0.3661, 0, 0.3661, 0.7916, 1.4652];

/** Squared distance from which a normal density is nothing; share of all belief from which a prediction counts. */
const FARTHEST = 40;
const LEAST_SHARE = 1e-4;

/** What one suspect predicts for a reading, given those taken: normal, with the belief in it. A suspect may show in several ways. */
export interface Prediction {
  readonly mean: number;
  readonly sd: number;
  readonly mass: number;
  /** Number of the suspect, from 0. */
  readonly suspect: number;
}

/** For each suspect, by number, those that are one answer with it, itself included: no reading tells them apart. */
export type Kin = readonly (readonly number[])[];

/**
 * Bits that one reading is expected to tell about which suspect is true, those that are alike counted as one answer: the expected
 * fall of the entropy that knows of likeness, −Σ pᵢ log Σⱼ Zᵢⱼ pⱼ with Z = 1 for what is alike (Leinster, Cobbold 2012; from memory).
 */
export function mutualInformation(all: readonly Prediction[], kin: Kin): number {
  const whole = all.reduce((s, p) => s + p.mass, 0);
  const predictions = all.filter((p) => p.mass > LEAST_SHARE * whole);
  const total = predictions.reduce((s, p) => s + p.mass, 0);
  if (total <= 0) return 0;
  // Plain arrays: this is the innermost loop of every next reading.
  const n = predictions.length;
  const mean = Float64Array.from(predictions, (p) => p.mean);
  const stiffness = Float64Array.from(predictions, (p) => 1 / p.sd);
  const height = Float64Array.from(predictions, (p) => p.mass / p.sd);
  const suspect = Int32Array.from(predictions, (p) => p.suspect);
  const masses = new Float64Array(kin.length);
  for (const p of predictions) masses[p.suspect]! += p.mass;
  const before = entropy(masses, total, kin);
  let after = 0;
  for (const p of predictions) {
    for (const q of QUANTILES) {
      const at = p.mean + q * p.sd;
      masses.fill(0);
      let sum = 0;
      for (let k = 0; k < n; k++) {
        const z = (at - mean[k]!) * stiffness[k]!;
        if (z * z > FARTHEST) continue;
        const d = height[k]! * Math.exp((-z * z) / 2);
        masses[suspect[k]!]! += d;
        sum += d;
      }
      if (sum > 0) after += (p.mass / total / QUANTILES.length) * entropy(masses, sum, kin);
    }
  }
  return Math.max(0, before - after);
}

function entropy(masses: Float64Array, sum: number, kin: Kin): number {
  let h = 0;
  for (let i = 0; i < masses.length; i++) {
    const own = masses[i]!;
    if (own === 0) continue;
    let group = 0;
    for (const j of kin[i]!) group += masses[j]!;
    h -= (own / sum) * Math.log2(group / sum);
  }
  return h;
}
