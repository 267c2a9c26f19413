import { generateKeyBetween, generateNKeysBetween } from 'fractional-indexing';
import { recordId, recordsOf, type Room } from './rooms';
import type { ChangedBody, Entry, EntryBody, Stamp } from './schema/entries';
import { ROOM_NAMES, type RoomName } from './schema/names';
import type { RecordOf } from './schema/records';
import { DEFAULT_SETTINGS, EMPTY_SHEET, type KitSettings, type Sheet } from './sheet';
import type { KitState } from './state';

/** Stamps for entries that belong together, from the stamp of the first: same time, ids that keep their order. */
const stampsFrom = (first: Stamp, count: number): Stamp[] =>
  Array.from({ length: count }, (_, i) => ({ id: `${first.id}.${String(i + 1).padStart(5, '0')}`, at: first.at }));

/** Entries of one batch: one undo takes all of them back. */
export const inBatch = (bodies: readonly EntryBody[], first: Stamp): Entry[] => {
  const stamps = stampsFrom(first, bodies.length);
  return bodies.map((body, i) => ({ ...body, ...stamps[i]!, batch: first.id }));
};

const last = (room: Room): string | null => {
  const orders = [...room.values()].flatMap((h) => h.order ?? []).sort();
  return orders[orders.length - 1] ?? null;
};

const bodyOf = (room: RoomName, record: string, before: unknown, after: unknown, order?: string): ChangedBody =>
  ({ kind: 'changed', room, record, before, after, ...(order === undefined ? {} : { order }) }) as ChangedBody;

/** Puts a record: new ones come last in their room. */
export function put<R extends RoomName>(kit: KitState, room: R, value: RecordOf<R>): ChangedBody {
  const record = recordId(room, value);
  const held = kit.rooms[room].get(record);
  return held ? bodyOf(room, record, held.value, value) : bodyOf(room, record, null, value, generateKeyBetween(last(kit.rooms[room]), null));
}

/** Changes some fields of a record; null when there is none of that name. */
export function patch<R extends RoomName>(kit: KitState, room: R, record: string, fields: Partial<RecordOf<R>>): ChangedBody | null {
  const held = kit.rooms[room].get(record);
  if (!held) return null;
  const after = Object.fromEntries(Object.entries({ ...held.value, ...fields }).filter(([, v]) => v !== undefined));
  return bodyOf(room, record, held.value, after);
}

/** Removes a record; what hangs on it is the caller's to take along (`withDependents`). */
export function remove(kit: KitState, room: RoomName, record: string): ChangedBody | null {
  const held = kit.rooms[room].get(record);
  return held ? bodyOf(room, record, held.value, null) : null;
}

/** Puts several new records, in their order: last in their room, or before one that is there. */
export function putAll<R extends RoomName>(kit: KitState, room: R, values: readonly RecordOf<R>[], before: string | null = null): ChangedBody[] {
  const [low, high] = gapBefore(kit, room, before);
  const keys = generateNKeysBetween(low, high, values.length);
  return values.map((value, i) => {
    const record = recordId(room, value);
    const held = kit.rooms[room].get(record);
    return held ? bodyOf(room, record, held.value, value) : bodyOf(room, record, null, value, keys[i]);
  });
}

/** Places between which a record stands before another one, or at the end. Equal ones, which two tabs can give, leave no gap. */
function gapBefore(kit: KitState, room: RoomName, before: string | null, without?: string): [string | null, string | null] {
  const others = ordered(kit, room).filter(([id]) => id !== without);
  const at = before === null ? others.length : others.findIndex(([id]) => id === before);
  if (at < 0) return [last(kit.rooms[room]), null];
  return [others[at - 1]?.[1].order ?? null, others[at]?.[1].order ?? null];
}

const ordered = (kit: KitState, room: RoomName) =>
  [...(kit.rooms[room] as Room)].sort((a, b) => ((a[1].order ?? '~') < (b[1].order ?? '~') ? -1 : (a[1].order ?? '~') > (b[1].order ?? '~') ? 1 : 0));

/** Moves a record to stand before another one, or to the end; where there is no gap the whole room is given new places. */
export function move(kit: KitState, room: RoomName, record: string, before: string | null): ChangedBody[] {
  const held = kit.rooms[room].get(record);
  if (!held || record === before) return [];
  const [low, high] = gapBefore(kit, room, before, record);
  if (low === null || high === null || low < high) return [bodyOf(room, record, held.value, held.value, generateKeyBetween(low, high))];
  const others = ordered(kit, room).filter(([id]) => id !== record);
  const at = before === null ? others.length : others.findIndex(([id]) => id === before);
  const all = [...others.slice(0, at), [record, held] as const, ...others.slice(at)];
  const keys = generateNKeysBetween(null, null, all.length);
  return all.map(([id, h], i) => bodyOf(room, id, h.value, h.value, keys[i]));
}

/** Everything that a new kit's sheet and settings amount to, as changes from nothing. */
export function changesOf(sheet: Sheet, settings: KitSettings = DEFAULT_SETTINGS): ChangedBody[] {
  const records = recordsOf(sheet, settings);
  return ROOM_NAMES.flatMap((room) => {
    const keys = generateNKeysBetween(null, null, records[room].length);
    return records[room].map((value, i) => bodyOf(room, recordId(room, value as never), null, value, keys[i]));
  });
}

/** A sheet from what is known of it. */
export const sheetWith = (parts: Partial<Sheet>): Sheet => ({ ...EMPTY_SHEET, ...parts });
