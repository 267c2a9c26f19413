import localforage from 'localforage';
import type { Standing } from '@/core/loop';
import { SHOWN } from '@/stand-in/demos/shown';

export const shelfDemos = SHOWN;

/** Databases of kits begin so, the kit's id behind it. */
export const PREFIX = 'zesty-kit-';
export const shelfNotes = localforage.createInstance({ name: 'zesty-shelf', storeName: 'kits' });
/** Where versions up to 3 kept whole kits. */
export const oldKits = localforage.createInstance({ name: 'zesty-bench', storeName: 'kits' });

/** What the shelf shows of a kit without opening it. */
export interface ShelfItem {
  readonly id: string;
  readonly title: string;
  readonly maker: string;
  readonly entries: number;
  readonly lastAt: string;
  /** Why the stored kit cannot be opened; null when it can. */
  readonly damaged: string | null;
  /** When it was taken off the shelf; it can be put back for a while. */
  readonly removedAt?: string | undefined;
  /** Where one was; missing for a kit that an older program noted. */
  readonly standing?: Standing | undefined;
  /** Kept, and out of the way. */
  readonly archived?: boolean | undefined;
}

export const saveSummary = (item: ShelfItem) => shelfNotes.setItem(item.id, item);

/** Notes how a kit stands. What was done to it on the shelf since its last entry stays so: archived, taken off. */
export async function noteStanding(item: ShelfItem): Promise<void> {
  const held = await shelfNotes.getItem<ShelfItem>(item.id);
  const off = held?.removedAt !== undefined && held.removedAt > item.lastAt ? { removedAt: held.removedAt } : {};
  await saveSummary({ ...item, ...(held?.archived ? { archived: true } : {}), ...off });
}

/** Takes a kit off the shelf. It stays in the storage for a while and can be put back as it is, damaged or not. */
export const takeOff = (item: ShelfItem) => saveSummary({ ...item, removedAt: new Date().toISOString() });
export const putBack = async ({ removedAt: _, ...item }: ShelfItem) => {
  if (item.damaged === null) await saveSummary(item);
  else await shelfNotes.removeItem(item.id);
};

export const archiveKit = (item: ShelfItem, archived: boolean) => saveSummary({ ...item, archived });
