import type { Stamp } from '@/core/kit';

/** Clock and ids live here, outside the core. */
export function newId(): string {
  // A page served over plain HTTP in the local network has no `randomUUID`: RFC 9562, version 4, from random bytes.
  if ('randomUUID' in crypto) return crypto.randomUUID();
  const bytes = (crypto as Crypto).getRandomValues(new Uint8Array(16));
  bytes[6] = (bytes[6]! & 0x0f) | 0x40;
  bytes[8] = (bytes[8]! & 0x3f) | 0x80;
  const hex = [...bytes].map((b) => b.toString(16).padStart(2, '0')).join('');
  return [hex.slice(0, 8), hex.slice(8, 12), hex.slice(12, 16), hex.slice(16, 20), hex.slice(20)].join('-');
}

/**
 * A stamp that sorts behind everything that stands there already, whatever the clock says: the log's order is by time, and
 * a clock that was set back must not put a new entry before an old one.
 */
export function stampAfter(lastAt: string | undefined): Stamp {
  const last = lastAt === undefined ? NaN : Date.parse(lastAt);
  const now = Date.now();
  return { id: newId(), at: new Date(Number.isNaN(last) ? now : Math.max(now, last + 1)).toISOString() };
}
