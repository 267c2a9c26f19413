import type { Ref } from '../kit';
import type { Windows } from '../stage';
import type { Consequence, ConsequenceSolver } from './consequence';

/** A value from one's own drawer; watts when it is known. */
export interface Spare {
  readonly value: number;
  readonly watts?: number | undefined;
}

/** One or two spares in place of a part. */
export interface Substitute {
  readonly how: 'single' | 'series' | 'parallel';
  readonly spares: readonly Spare[];
  readonly value: number;
  readonly consequence: Consequence;
  /** Greatest relative move of any check. */
  readonly worst: number;
  /** Every check stays, nothing flips, no part beyond its rating. */
  readonly usable: boolean;
}

/** Combinations solved in full: those whose value lies nearest. */
const SOLVED = 12;
/** Farther off than this factor nothing is worth solving. */
const NEAR = 1.6;

/** Combinations of one or two spares by how near their value lies to the wanted one. */
export function combinations(spares: readonly Spare[], wanted: number): Omit<Substitute, 'consequence' | 'worst' | 'usable'>[] {
  const singles = spares.map((s) => ({ how: 'single' as const, spares: [s], value: s.value }));
  const pairs = spares.flatMap((a, i) =>
    spares.slice(i).flatMap((b) => [
      { how: 'series' as const, spares: [a, b], value: a.value + b.value },
      { how: 'parallel' as const, spares: [a, b], value: (a.value * b.value) / (a.value + b.value) },
    ]),
  );
  const off = (v: number) => Math.abs(Math.log(v / wanted));
  return [...singles, ...pairs].filter((c) => c.value > 0 && off(c.value) < Math.log(NEAR)).sort((a, b) => off(a.value) - off(b.value));
}

/** A substitute may use up this much of a window by itself: the other parts have tolerances too. */
const LEAVES_ROOM = 0.5;

/** The best ways to make up for a missing part out of one's own drawer, solved in the circuit, usable ones first. */
export function substitutes(solver: ConsequenceSolver, ref: Ref, spares: readonly Spare[], windows: Windows): Substitute[] {
  const wanted = solver.nominal(ref);
  if (wanted === null) return [];
  return combinations(spares, wanted)
    .slice(0, SOLVED)
    .map((c): Substitute => {
      const consequence = solver.of({ values: { [ref]: c.value } }, windows);
      const worst = Math.max(0, ...consequence.shifts.map((s) => s.share));
      const power = solver.power({ [ref]: c.value }, ref);
      const shares = c.how === 'single' ? [1] : c.spares.map((s) => (c.how === 'series' ? s.value / c.value : c.value / s.value));
      const tooHot = c.spares.some((s, i) => s.watts !== undefined && power * shares[i]! > s.watts);
      const usable =
        consequence.shifts.length > 0 &&
        !tooHot &&
        consequence.overloads.length === 0 &&
        consequence.flips.length === 0 &&
        consequence.unsolved.length === 0 &&
        !consequence.shifts.some((s) => s.leaves || (s.used !== null && s.used > LEAVES_ROOM));
      return { ...c, consequence, worst, usable };
    })
    .sort((a, b) => Number(b.usable) - Number(a.usable) || a.worst - b.worst);
}
