/** A check that could be made: which faults (by number) it would catch, and in which stage it stands. */
export interface Offer {
  readonly stage: number;
  readonly catches: ReadonlySet<number>;
}

/** What a first, second and further check that catches a fault are worth (own choice): one reading may be wrong, two seldom are. */
const WORTH = [1, 0.4, 0.1];
/** A check that adds less than this is left out. */
const LEAST = 0.3;
/** Each stage later a catch counts this much less. */
const LATER = 0.06;

/** From all checks that could be made those that catch most: the best first, then whatever adds most to it. */
export function choose(offers: readonly Offer[], harm: ReadonlySet<number>): number[] {
  const caught = new Map<number, number>();
  const left = new Set(offers.keys());
  const chosen: number[] = [];
  const gain = ({ stage, catches }: Offer) => {
    let sum = 0;
    for (const f of catches) sum += (WORTH[caught.get(f) ?? 0] ?? 0) * (harm.has(f) ? 1.5 : 1);
    return sum * (1 - LATER * stage);
  };
  for (;;) {
    const best = [...left].map((i) => ({ i, gain: gain(offers[i]!) })).reduce((a, b) => (b.gain > a.gain ? b : a), { i: -1, gain: 0 });
    if (best.i < 0 || best.gain < LEAST) return chosen.sort((a, b) => a - b);
    left.delete(best.i);
    chosen.push(best.i);
    for (const f of offers[best.i]!.catches) caught.set(f, (caught.get(f) ?? 0) + 1);
  }
}
