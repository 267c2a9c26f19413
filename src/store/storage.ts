import localforage from 'localforage';
import { checkKit, type KitDocument, type TypeCard } from '@/core/kit';

const kits = localforage.createInstance({ name: 'zesty-bench', storeName: 'kits' });
const cards = localforage.createInstance({ name: 'zesty-bench', storeName: 'cards' });
const drafts = localforage.createInstance({ name: 'zesty-bench', storeName: 'drafts' });

/** What the shelf shows of a kit without opening it. */
export interface ShelfItem {
  readonly id: string;
  readonly title: string;
  readonly maker: string;
  readonly entries: number;
  readonly lastAt: string;
  /** Why the stored kit cannot be opened; null when it can. */
  readonly damaged: string | null;
}

export async function listKits(): Promise<ShelfItem[]> {
  const items: ShelfItem[] = [];
  await kits.iterate<unknown, undefined>((value, id) => {
    items.push(shelfItem(id, value));
  });
  return items.sort((a, b) => b.lastAt.localeCompare(a.lastAt));
}

function shelfItem(id: string, value: unknown): ShelfItem {
  const opened = checkKit(value);
  if (!opened.ok) return { id, title: 'A kit that cannot be read', maker: '', entries: 0, lastAt: '', damaged: opened.message };
  const { kit } = opened;
  return {
    id,
    title: kit.sheet.title,
    maker: kit.sheet.maker ?? '',
    entries: kit.log.length,
    lastAt: kit.log[kit.log.length - 1]?.at ?? kit.created,
    damaged: null,
  };
}

export async function loadKit(id: string) {
  const value = await kits.getItem<unknown>(id);
  return value === null ? null : checkKit(value);
}

/** The stored text of a kit that does not open, so that it can be saved to a file. */
export const rawKit = (id: string) => kits.getItem<unknown>(id);

/**
 * Stores a kit without losing what another tab wrote: logs are united by entry id and ordered by time and id.
 * Returns the united document.
 */
export async function saveKit(doc: KitDocument): Promise<KitDocument> {
  const run = async () => {
    const stored = await loadKit(doc.id);
    const united = stored?.ok ? unite(stored.kit, doc) : doc;
    await kits.setItem(doc.id, united);
    return united;
  };
  return typeof navigator !== 'undefined' && 'locks' in navigator ? navigator.locks.request(`kit ${doc.id}`, run) : inTurn(run);
}

let last: Promise<unknown> = Promise.resolve();

/** One after another within this tab, where the browser has no locks between tabs. */
function inTurn<T>(run: () => Promise<T>): Promise<T> {
  const mine = last.then(run, run);
  last = mine.catch(() => undefined);
  return mine;
}

/** Merge of two states of one kit: all entries of both; the newer sheet. */
export function unite(a: KitDocument, b: KitDocument): KitDocument {
  const known = new Set(b.log.map((e) => e.id));
  const extra = a.log.filter((e) => !known.has(e.id));
  if (extra.length === 0) return a.sheet.revision > b.sheet.revision ? { ...b, sheet: a.sheet } : b;
  const log = [...b.log, ...extra].sort((x, y) => x.at.localeCompare(y.at) || x.id.localeCompare(y.id));
  return { ...b, log, sheet: a.sheet.revision > b.sheet.revision ? a.sheet : b.sheet };
}

export async function removeKit(id: string): Promise<void> {
  await kits.removeItem(id);
}

/** What stands in the entry field, kept on every keystroke so that a reload in mid-entry loses nothing. */
export const loadDraft = (kit: string) => drafts.getItem<Draft>(kit);
export const saveDraft = (kit: string, draft: Draft) => drafts.setItem(kit, draft);

export interface Draft {
  readonly target: string;
  readonly text: string;
}

/** One's own collection of type cards, common to all kits. */
export async function listCards(): Promise<TypeCard[]> {
  const found: TypeCard[] = [];
  await cards.iterate<TypeCard, undefined>((card) => {
    found.push(card);
  });
  return found.sort((a, b) => a.type.localeCompare(b.type));
}

export const saveCard = (card: TypeCard) => cards.setItem(card.type.toUpperCase(), card);

/** One's own drawer of spare resistors, as it was typed; common to all kits. */
export const loadDrawer = async () => (await drafts.getItem<string>('~drawer')) ?? '';
export const saveDrawer = (text: string) => drafts.setItem('~drawer', text);
