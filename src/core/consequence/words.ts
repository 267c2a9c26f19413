import { type KitDocument } from '../kit';
import { print, type Unit } from '../quantity';
import { type Consequence, type Shift } from './consequence';

/** A consequence in words: whether the part may go in, and why. */
export interface ConsequenceText {
  readonly usable: boolean;
  readonly title: string;
  readonly detail: string;
}

const UNIT: Readonly<Record<Shift['mode'], Unit>> = { dcv: 'V', dca: 'A', ohms: 'ohm', diode: 'V', frequency: 'Hz' };
const OVERLOAD_UNIT = { power: 'W', voltage: 'V', current: 'A' } as const;
/** Below this nothing worth naming moves. */
const STILL = 0.01;

/** Title of a check or test point as the builder knows it. */
export function observableName(doc: KitDocument, id: string): string {
  const [stageId = '', place = ''] = id.split('/');
  if (place.startsWith('@')) return place.slice(1);
  const check = doc.sheet.stages.find((s) => s.id === stageId)?.checks.find((c) => c.id === place);
  // A point whose volts are read as well: the frequency goes by its title.
  if (check?.what === 'measure' && check.mode !== 'frequency' && 'testPoint' in check.red) return check.red.testPoint;
  return check?.title ?? place;
}

export function consequenceText(doc: KitDocument, c: Consequence): ConsequenceText {
  const leaving = c.shifts.filter((s) => s.leaves).sort((a, b) => b.share - a.share);
  const moved = [...c.shifts].sort((a, b) => b.share - a.share)[0];
  const stage = (id: string) => doc.sheet.stages.find((s) => s.id === id)?.title ?? id;
  const show = (v: number | 'over', mode: Shift['mode']) => (v === 'over' ? 'over-range' : print(v, UNIT[mode], 3));
  const [worst, ...others] = [...c.overloads].sort((a, b) => b.value / b.rating - a.value / a.rating);
  if (worst) {
    const bears = (o: typeof worst) => `${o.ref} gets ${print(o.value, OVERLOAD_UNIT[o.what], 3)}, it stands ${print(o.rating, OVERLOAD_UNIT[o.what], 3)}`;
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
            `${observableName(doc, first.observable)} leaves its window: ${show(first.after, first.mode)} instead of ${show(first.before, first.mode)} (“${stage(first.stage)}”)`,
          ]
        : []),
      ...(leaving.length > 1 ? [`${leaving.length - 1} more ${leaving.length === 2 ? 'check leaves its window' : 'checks leave theirs'}`] : []),
      ...c.flips.map((f) => `“${f.title}” comes out otherwise (“${stage(f.stage)}”)`),
      ...c.unsolved.map((u) => `“${stage(u.stage)}” finds no steady state`),
    ];
    return { usable: false, title: 'It matters here: do not fit', detail: `${facts.join('; ')}.` };
  }
  if (!moved || c.shifts.length === 0)
    return { usable: true, title: 'No check can tell', detail: 'No voltage or resistance that the stages read depends on it.' };
  if (moved.share <= STILL)
    return { usable: true, title: 'It does not matter here', detail: 'No check moves by more than 1 %: usable here, though not as what it was sold for.' };
  return {
    usable: true,
    title: 'Usable here',
    detail: `Every check stays in its window; ${observableName(doc, moved.observable)} moves most, from ${show(moved.before, moved.mode)} to ${show(moved.after, moved.mode)}.`,
  };
}
