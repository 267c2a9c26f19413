import { createSelector } from 'reselect';
import { print } from '../quantity';
import type { Need, Owned, Ref, Stage } from './sheet';
import type { KitState } from './state';

/** Whether something from the drawer meets a need. */
export interface NeedVerdict {
  readonly meets: boolean;
  /** Every point in words, those that fail first. */
  readonly reasons: readonly string[];
}

/** A supply may differ from the wanted voltage by this share (common practice, no source). */
const VOLTS_SHARE = 0.05;
/** Ohms of a load may differ by this share; less ohms is more current (common practice, no source). */
const OHMS_SHARE = 0.1;

const FIGURES = ['volts', 'amperes', 'ohms', 'watts', 'plug', 'polarity'] as const;

/** Holds what one owns against a need: voltage right, current and power at least, plug and polarity the same. */
export function meetsNeed(need: Need, owned: Owned): NeedVerdict {
  if (owned.none) return { meets: false, reasons: ['there is none for now'] };
  const bad: string[] = [];
  const good: string[] = [];
  const say = (ok: boolean, yes: string, no: string) => (ok ? good : bad).push(ok ? yes : no);
  if (need.volts !== undefined && owned.volts !== undefined) {
    const off = owned.volts / need.volts - 1;
    const side = off > 0 ? 'higher: it may destroy the board' : 'lower: a healthy board will look faulty';
    say(Math.abs(off) <= VOLTS_SHARE, `${print(owned.volts, 'V', 3)} is right`, `${print(owned.volts, 'V', 3)} is not ${print(need.volts, 'V', 3)}, ${side}`);
  }
  if (need.amperes !== undefined && owned.amperes !== undefined)
    say(
      owned.amperes >= need.amperes,
      `${print(owned.amperes, 'A', 3)} is enough`,
      `${print(owned.amperes, 'A', 3)} is less than ${print(need.amperes, 'A', 3)}: it will sag, and that looks like a fault`,
    );
  if (need.ohms !== undefined && owned.ohms !== undefined) {
    const low = owned.ohms < need.ohms * (1 - OHMS_SHARE);
    const high = owned.ohms > need.ohms * (1 + OHMS_SHARE);
    say(
      !low && !high,
      `${print(owned.ohms, 'ohm', 3)} is right`,
      low ? 'its resistance is too low: the output may be overloaded' : 'its resistance is higher: less power, nothing breaks',
    );
  }
  if (need.watts !== undefined && owned.watts !== undefined)
    say(owned.watts >= need.watts, `${owned.watts} W is enough`, `rated ${owned.watts} W, needs ${need.watts} W: it may burn`);
  if (need.polarity !== undefined && owned.polarity !== undefined)
    say(owned.polarity === need.polarity, 'the polarity agrees', 'the polarity is reversed: do not plug it in');
  if (need.plug !== undefined && owned.plug !== undefined && owned.plug.trim() !== '')
    say(
      owned.plug.replace(/[^\d.]+/g, ' ').trim() === need.plug.replace(/[^\d.]+/g, ' ').trim(),
      'the plug fits',
      `the plug is ${owned.plug}, it needs ${need.plug}`,
    );
  const asked = FIGURES.some((f) => need[f] !== undefined);
  if (good.length + bad.length === 0) say(!asked, 'it is there', 'nothing was entered to compare');
  return { meets: bad.length === 0, reasons: [...bad, ...good] };
}

/** What a stage needs and somebody said not to have. */
export const lackingFor = (kit: Pick<KitState, 'sheet' | 'owned'>, stage: Stage): Need[] =>
  kit.sheet.needs.filter((n) => stage.needs?.includes(n.id) && kit.owned.get(n.id)?.at(-1)?.owned.none === true);

/** Refs that would go in with stages which wait for something: they are not in yet. */
export const derivePostponed = createSelector([(kit: KitState) => kit.sheet, (kit: KitState) => kit.owned], (sheet, owned): readonly Ref[] =>
  sheet.stages.flatMap((s) => (lackingFor({ sheet, owned }, s).length > 0 ? s.fits : [])),
);
