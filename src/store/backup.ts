import type { ShelfItem } from './shelfItems';

/** When the whole shelf was last saved as a file on this device, and how many entries it held then. */
export interface Backup {
  readonly at: string;
  readonly entries: number;
}

const KEY = 'zesty-backup';
/** So much work and so many days without a file are worth a word (own choice: an evening's entries, a week). */
const MUCH_WORK = 60;
const LONG = 7 * 24 * 3600 * 1000;

const entriesOf = (items: readonly ShelfItem[]) => items.reduce((n, i) => n + i.entries, 0);

/** Entries that no file holds, once it is time for a word about them; null before. `now`: milliseconds. */
export function backupDue(items: readonly ShelfItem[], last: Backup | null, now: number): number | null {
  const unsaved = entriesOf(items) - (last?.entries ?? 0);
  if (unsaved < MUCH_WORK) return null;
  return last === null || now - Date.parse(last.at) > LONG ? unsaved : null;
}

export function noteBackup(items: readonly ShelfItem[]): void {
  const done: Backup = { at: new Date().toISOString(), entries: entriesOf(items) };
  try {
    localStorage.setItem(KEY, JSON.stringify(done));
  } catch {
    // Where nothing can be noted the reminder comes again.
  }
}

export function lastBackup(): Backup | null {
  try {
    const { at, entries } = JSON.parse(localStorage.getItem(KEY) ?? '') as Partial<Backup>;
    return typeof at === 'string' && typeof entries === 'number' && !Number.isNaN(Date.parse(at)) ? { at, entries } : null;
  } catch {
    return null;
  }
}
