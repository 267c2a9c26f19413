import type { EntryOf, KitState } from '../kit';

/** Something that is waited for: a timer runs to an instant (ISO 8601), a delivery is expected on a day (`YYYY-MM-DD`). */
export interface Wait {
  readonly entry: EntryOf<'waiting'>;
  readonly until: { readonly kind: 'instant' | 'day'; readonly at: number } | null;
}

/** All that is waited for, what is over first. */
export const openWaits = (kit: KitState): Wait[] =>
  kit.waiting.map((entry): Wait => ({ entry, until: untilOf(entry.until) })).sort((a, b) => (a.until?.at ?? Infinity) - (b.until?.at ?? Infinity));

function untilOf(text: string | undefined): Wait['until'] {
  if (text === undefined) return null;
  const at = Date.parse(text);
  if (Number.isNaN(at)) return null;
  return { kind: /^\d{4}-\d\d-\d\d$/.test(text) ? 'day' : 'instant', at };
}

const SECOND = 1000;
const DAY = 86_400_000;

/** Whether what is waited for is over at a moment. */
export const isOver = ({ until }: Wait, now: number): boolean => until !== null && now >= until.at;

/** How long it takes yet, in words. `now`: milliseconds since 1970. */
export function waitText({ until }: Wait, now: number): string {
  if (until === null) return '';
  const left = until.at - now;
  if (until.kind === 'day') {
    const days = Math.ceil(left / DAY);
    return days > 1
      ? `expected in ${days} days`
      : days === 1
        ? 'expected tomorrow'
        : days === 0
          ? 'expected today'
          : `expected ${-days} ${days === -1 ? 'day' : 'days'} ago`;
  }
  if (left <= 0) return 'over';
  const seconds = Math.ceil(left / SECOND);
  const [h, m, s] = [Math.floor(seconds / 3600), Math.floor((seconds % 3600) / 60), seconds % 60];
  const two = (n: number) => String(n).padStart(2, '0');
  return h > 0 ? `${h}:${two(m)}:${two(s)} left` : `${m}:${two(s)} left`;
}
