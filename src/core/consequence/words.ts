import type { Sheet } from '../kit';
import { print } from '../quantity';
import { placeOf, unitOf } from '../vocabulary';
import type { Consequence, Shift } from './consequence';

/** What the names are read from. */
interface Named {
  readonly sheet: Pick<Sheet, 'stages'>;
}

/** A consequence in words: whether the part may go in, and why. */
export interface ConsequenceText {
  /** Null when no check was solved: then nobody can tell. */
  readonly usable: boolean | null;
  readonly title: string;
  readonly detail: string;
}

const OVERLOAD_UNIT = { power: 'W', voltage: 'V', current: 'A' } as const;
/** Below this nothing worth naming moves. */
const STILL = 0.01;

/** Title of a check or test point as the builder knows it. */
export function observableName(kit: Named, id: string): string {
  const place = placeOf(id);
  if (place.testPoint !== null) return place.testPoint;
  const check = kit.sheet.stages.find((s) => s.id === place.stage)?.checks.find((c) => c.id === place.check);
  // A point whose volts are read as well: the frequency goes by its title.
  if (check?.what === 'measure' && 'testPoint' in check.red) return check.red.testPoint;
  return check?.title ?? place.check ?? id;
}

export function consequenceText(kit: Named, c: Consequence): ConsequenceText {
  const leaving = c.shifts.filter((s) => s.leaves).sort((a, b) => b.share - a.share);
  const moved = [...c.shifts].sort((a, b) => b.share - a.share)[0];
  const stage = (id: string) => kit.sheet.stages.find((s) => s.id === id)?.title ?? id;
  const show = (v: number | 'over', mode: Shift['mode']) => (v === 'over' ? 'over-range' : print(v, unitOf(mode), 3));
  const [worst, ...others] = [...c.overloads].sort((a, b) => b.value / b.rating - a.value / a.rating);
  if (worst) {
    const bears = (o: typeof worst) => `${o.ref} would get ${print(o.value, OVERLOAD_UNIT[o.what], 3)}, rated ${print(o.rating, OVERLOAD_UNIT[o.what], 3)}`;
    const also = others.filter((o) => o.ref !== worst.ref || o.what !== worst.what).slice(0, 3);
    return {
      usable: false,
      title: `Do not fit: ${bears(worst)}`,
      detail: `${worst.when === 'switch-on' ? 'At switch-on in' : 'In'} “${stage(worst.stage)}”.${also.length > 0 ? ` Also: ${also.map(bears).join('; ')}.` : ''}`,
    };
  }
  const first = leaving[0];
  if (first || c.flips.length > 0 || c.unsolved.length > 0) {
    const facts = [
      ...(first
        ? [
            `${observableName(kit, first.observable)} goes out of its limits: ${show(first.after, first.mode)} instead of ${show(first.before, first.mode)} (“${stage(first.stage)}”)`,
          ]
        : []),
      ...(leaving.length > 1 ? [`${leaving.length - 1} more ${leaving.length === 2 ? 'check goes out of limits' : 'checks go out of theirs'}`] : []),
      ...c.flips.map((f) => `“${f.title}” would differ (“${stage(f.stage)}”)`),
      ...c.unsolved.map((u) => `“${stage(u.stage)}” has no steady state`),
    ];
    return { usable: false, title: 'It matters here: do not fit', detail: `${facts.join('; ')}.` };
  }
  if (!moved)
    return {
      usable: null,
      title: 'No check can tell',
      detail: 'No stage could be solved that reads anything: measure the part itself, and look at what it does there.',
    };
  if (moved.share <= STILL)
    return { usable: true, title: 'It does not matter here', detail: 'No check changes by more than 1 %: usable here, though not what was sold.' };
  return {
    usable: true,
    title: 'Usable here',
    detail: `Every check stays within its limits; ${observableName(kit, moved.observable)} changes most, from ${show(moved.before, moved.mode)} to ${show(moved.after, moved.mode)}.`,
  };
}
