import type { Stamp } from '@/core/kit';

/** Clock and ids live here, outside the core. */
export const newId = (): string => crypto.randomUUID();

/**
 * A stamp that sorts behind everything that stands there already, whatever the clock says: the log's order is by time, and
 * a clock that was set back must not put a new entry before an old one.
 */
export function stampAfter(lastAt: string | undefined): Stamp {
  const last = lastAt === undefined ? NaN : Date.parse(lastAt);
  const now = Date.now();
  return { id: newId(), at: new Date(Number.isNaN(last) ? now : Math.max(now, last + 1)).toISOString() };
}
