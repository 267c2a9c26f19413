/** Quantiles of a normal distribution at the middles of seven equal slices of probability. */
const QUANTILES = [-1.4652, -0.7916, -0.3661, 0, 0.3661, 0.7916, 1.4652];

/** What one suspect predicts for a reading, given those taken: normal, with the belief in it; suspects of one group are one answer. */
export interface Prediction {
  readonly mean: number;
  readonly sd: number;
  readonly mass: number;
  readonly group: number;
}

/** Bits that one reading is expected to tell about which group is true. */
export function mutualInformation(all: readonly Prediction[]): number {
  const predictions = all.filter((p) => p.mass > 0);
  const total = predictions.reduce((s, p) => s + p.mass, 0);
  if (total <= 0) return 0;
  const groups = new Map<number, number>();
  for (const p of predictions) groups.set(p.group, (groups.get(p.group) ?? 0) + p.mass / total);
  let before = 0;
  for (const m of groups.values()) before -= m * Math.log2(m);
  let after = 0;
  const density = new Map<number, number>();
  for (const p of predictions) {
    for (const q of QUANTILES) {
      const at = p.mean + q * p.sd;
      density.clear();
      let sum = 0;
      for (const o of predictions) {
        const z = (at - o.mean) / o.sd;
        const d = z * z > 60 ? 0 : (o.mass * Math.exp((-z * z) / 2)) / o.sd;
        density.set(o.group, (density.get(o.group) ?? 0) + d);
        sum += d;
      }
      if (!(sum > 0)) continue;
      let entropy = 0;
      for (const d of density.values()) if (d > 0) entropy -= (d / sum) * Math.log2(d / sum);
      after += (p.mass / total / QUANTILES.length) * entropy;
    }
  }
  return Math.max(0, before - after);
}
