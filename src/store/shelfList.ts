import localforage from 'localforage';
import { oldKits, PREFIX, type ShelfItem, shelfNotes } from './shelfItems';

/** A kit taken off the shelf is kept this long, so that it can be put back, milliseconds. */
const KEPT_FOR = 10 * 60 * 1000;

/**
 * All kits there are; a shelf that was lost is made anew from the databases. What opens kits is fetched only where there is
 * no note of one, or one is dropped.
 */
export async function listKits(): Promise<ShelfItem[]> {
  const items = new Map<string, ShelfItem>();
  await shelfNotes.iterate<ShelfItem, undefined>((item, id) => {
    items.set(id, item);
  });
  for (const item of items.values()) if (item.removedAt !== undefined && Date.now() - Date.parse(item.removedAt) > KEPT_FOR) await dropKit(item.id, items);
  for (const id of [...(await storedIds()), ...(await oldKits.keys())]) if (!items.has(id)) items.set(id, await (await import('./storage')).lookUp(id));
  return [...items.values()].filter((i) => i.removedAt === undefined).sort((a, b) => b.lastAt.localeCompare(a.lastAt));
}

async function storedIds(): Promise<string[]> {
  if (typeof indexedDB === 'undefined' || !('databases' in indexedDB)) return [];
  return (await indexedDB.databases()).flatMap(({ name }) => (name?.startsWith(PREFIX) ? [name.slice(PREFIX.length)] : []));
}

async function dropKit(id: string, items: Map<string, ShelfItem>): Promise<void> {
  (await import('./storage')).forget(id);
  await localforage.dropInstance({ name: `${PREFIX}${id}` });
  await oldKits.removeItem(id);
  await shelfNotes.removeItem(id);
  items.delete(id);
}
