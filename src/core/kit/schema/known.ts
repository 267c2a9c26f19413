import type { Entry, UnknownEntry } from './entries';
import { HAPPENED_KINDS, ROOM_NAMES } from './names';

export const KNOWN_KINDS: ReadonlySet<string> = new Set<string>([...HAPPENED_KINDS, 'changed']);
export const KNOWN_ROOMS: ReadonlySet<string> = new Set<string>(ROOM_NAMES);
/** Whether this program knows what an entry means. */
export const isKnown = (e: Entry | UnknownEntry): e is Entry =>
  KNOWN_KINDS.has(e.kind) && (e.kind !== 'changed' || KNOWN_ROOMS.has((e as { room?: string }).room ?? ''));
