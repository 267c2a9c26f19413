import localforage from 'localforage';
import {
  checkCurrent,
  type DamagedEntry,
  documentOf,
  type Entry,
  foldDocument,
  KIT_FORMAT,
  KIT_VERSION,
  type KitDocument,
  type KitState,
  type OpenFinding,
  type TypeCard,
  type UnknownEntry,
  unite,
} from '@/core/kit';
import type { Settled } from '@/core/partslist';
import type { Beside } from '@/core/draft';
import { standingOf } from '@/core/loop';
import { oldKits, PREFIX, saveSummary, type ShelfItem } from './shelfItems';

type Logged = Entry | UnknownEntry;

/**
 * One small database a kit: `~kit` says what it is, `e:` holds one entry a key, `c:` a packed chunk of older ones, `a:` an
 * attachment. Appending is one put, so that two tabs cannot overwrite each other.
 */
const ABOUT = '~kit';
/** More single entries than this are packed; the newest stay single. */
const PACK_ABOVE = 400;
const KEEP_SINGLE = 200;

const opened = new Map<string, LocalForage>();
/** Forgets the connection to a kit whose database was dropped. */
export const forget = (id: string) => opened.delete(id);
function baseOf(id: string): LocalForage {
  const known = opened.get(id) ?? localforage.createInstance({ name: `${PREFIX}${id}`, storeName: 'log' });
  opened.set(id, known);
  return known;
}

const cards = localforage.createInstance({ name: 'zesty-bench', storeName: 'cards' });
const drafts = localforage.createInstance({ name: 'zesty-bench', storeName: 'drafts' });

/** A kit as it came out of the storage. */
export interface StoredKit {
  readonly kit: KitDocument;
  readonly readOnly: boolean;
  readonly findings: readonly OpenFinding[];
  /** Entries that do not fit the schema: they stay where they are and can be exported. */
  readonly damaged: readonly DamagedEntry[];
}
export type LoadResult = ({ readonly ok: true } & StoredKit) | { readonly ok: false; readonly message: string };

interface About {
  readonly format: string;
  readonly version: number;
  readonly id: string;
  readonly created: string;
}

interface Raw {
  readonly about: About | null;
  readonly log: unknown[];
  readonly attachments: Record<string, string>;
  readonly single: readonly { readonly key: string; readonly value: unknown }[];
}

async function readRaw(id: string): Promise<Raw> {
  let about: About | null = null;
  const log: unknown[] = [];
  const attachments: Record<string, string> = {};
  const single: { key: string; value: unknown }[] = [];
  await baseOf(id).iterate<unknown, undefined>((value, key) => {
    if (key === ABOUT) about = value as About;
    else if (key.startsWith('a:')) attachments[key.slice(2)] = value as string;
    else if (key.startsWith('c:')) log.push(...(Array.isArray(value) ? (value as unknown[]) : [value]));
    else {
      log.push(value);
      single.push({ key, value });
    }
  });
  return { about, log, attachments, single };
}

/** A stored kit; null when there is none of that id. Whatever fits the schema opens, the rest is set aside. */
export async function loadKit(id: string): Promise<LoadResult | null> {
  const raw = await readRaw(id);
  if (raw.about === null && raw.log.length === 0) return adoptOld(id);
  const { about, log, attachments, single } = raw;
  if (about === null) return { ok: false, message: 'The beginning of this kit is missing: it was cut off while it was stored. Save what is there to a file.' };
  const result = checkCurrent({ ...about, log, ...(Object.keys(attachments).length > 0 ? { attachments } : {}) });
  const read = result.ok ? result : result.rest;
  if (!read) return { ok: false, message: result.ok ? '' : result.message };
  if (single.length > PACK_ABOVE && !read.readOnly) void pack(id, single);
  return { ok: true, kit: read.kit, readOnly: read.readOnly, findings: read.findings, damaged: read.damaged };
}

/** A kit that an older program stored as one record moves into its own database. */
async function adoptOld(id: string): Promise<LoadResult | null> {
  const value = await oldKits.getItem<unknown>(id);
  if (value === null) return null;
  const { bringUp } = await import('./bringUp');
  const result = bringUp(value);
  if (!result.ok) return { ok: false, message: result.message };
  if (!result.readOnly) {
    await createKit(result.kit);
    await oldKits.removeItem(id);
  }
  return { ok: true, kit: result.kit, readOnly: result.readOnly, findings: result.findings, damaged: [] };
}

/** Older single entries become one chunk. Written before the single ones go: a crash between leaves both, which is the same log. */
async function pack(id: string, single: readonly { readonly key: string; readonly value: unknown }[]): Promise<void> {
  const run = async () => {
    const at = (v: unknown) => (v as { at?: string } | null)?.at ?? '';
    const older = [...single].sort((a, b) => (at(a.value) < at(b.value) ? -1 : 1)).slice(0, -KEEP_SINGLE);
    const base = baseOf(id);
    await base.setItem(
      `c:${older[0]!.key}`,
      older.map((e) => e.value),
    );
    for (const { key } of older) await base.removeItem(key);
  };
  try {
    if (typeof navigator !== 'undefined' && 'locks' in navigator)
      await navigator.locks.request(`pack ${id}`, { ifAvailable: true }, (lock) => (lock ? run() : undefined));
    else await run();
  } catch {
    // Packing is a convenience: the entries stand as they are.
  }
}

/** Stores a new kit: its log as one chunk, then what makes it a kit. */
export async function createKit(doc: KitDocument): Promise<void> {
  const base = baseOf(doc.id);
  await base.setItem(`c:${doc.log[0]?.id ?? 'empty'}`, doc.log);
  await saveAttachments(doc.id, doc.attachments);
  await base.setItem(ABOUT, { format: KIT_FORMAT, version: KIT_VERSION, id: doc.id, created: doc.created });
  await saveSummary(summaryOf(foldDocument(doc)));
}

/** Stores what a kit's records name by its hash; what is there already is the same. */
export async function saveAttachments(id: string, attachments: KitDocument['attachments']): Promise<void> {
  for (const [hash, bytes] of Object.entries(attachments ?? {})) await baseOf(id).setItem(`a:${hash}`, bytes);
}

/** What an append came to: `rewritten` when the storage had been cleared and the whole kit was written anew. */
export type Appended = 'appended' | 'rewritten';

/**
 * Puts entries on disk; they are there when this resolves. A kit whose storage was cleared meanwhile is written anew from what
 * the tab still has.
 * @throws Error when the browser's storage is full or refused.
 */
export async function appendEntries(kit: Pick<KitState, 'id' | 'created' | 'log'>, entries: readonly Logged[]): Promise<Appended> {
  const put = async (): Promise<boolean> => {
    const base = baseOf(kit.id);
    const [first, ...more] = entries;
    if (!first) return true;
    if (more.length === 0) await base.setItem(`e:${first.id}`, first);
    else await base.setItem(`c:${first.id}`, entries);
    return (await base.getItem(ABOUT)) !== null;
  };
  let whole: boolean;
  try {
    whole = await put();
  } catch {
    // The connection may have been closed from outside: once more with a new one.
    opened.delete(kit.id);
    whole = await put();
  }
  if (whole) return 'appended';
  await createKit(documentOf({ ...kit, log: unite(kit.log, entries).log }));
  return 'rewritten';
}

export const summaryOf = (kit: KitState): ShelfItem => ({
  id: kit.id,
  title: kit.sheet.title,
  maker: kit.sheet.maker ?? '',
  entries: kit.log.filter((e) => e.kind !== 'changed').length,
  lastAt: kit.log[kit.log.length - 1]?.at ?? kit.created,
  damaged: null,
  standing: standingOf(kit),
});

/** Everything that is stored of a kit as it lies there, so that a damaged one can be saved to a file. */
export async function rawKit(id: string): Promise<unknown> {
  const { about, log, attachments } = await readRaw(id);
  return about === null && log.length === 0 ? oldKits.getItem<unknown>(id) : { ...about, log, attachments };
}

/** What stands in the entry field, kept on every keystroke so that a reload in mid-entry loses nothing. */
export const loadDraft = (kit: string) => drafts.getItem<Draft>(kit);
export const saveDraft = (kit: string, draft: Draft) => drafts.setItem(kit, draft);

/** A kit that is being made, so that the path to it can be left and gone on with. */
export interface Begun {
  readonly title: string;
  readonly list: string;
  /** What was said of the list: its columns, and corrections of single lines. */
  readonly settled: Settled;
  readonly deck: string;
  readonly way: 'none' | 'like' | 'walk' | 'blocks' | 'deck';
  readonly step: number;
  readonly built: boolean;
  readonly nets: readonly string[] | null;
  readonly beside: Beside;
  /** What each supply of the drawing is, by its name, where the builder said. */
  readonly feeds: Readonly<Record<string, FeedKind>>;
}
/** What a supply can be, other than a winding. */
export type FeedKind = 'adapter' | 'battery' | 'usb';
const BEGUN = '~begun';
export const loadBegun = () => drafts.getItem<Begun>(BEGUN);
export const saveBegun = (begun: Begun | null) => (begun === null ? drafts.removeItem(BEGUN) : drafts.setItem(BEGUN, begun));

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

/** A kit that the shelf has no note of, opened to make one. */
export async function lookUp(id: string): Promise<ShelfItem> {
  const loaded = await loadKit(id);
  if (!loaded?.ok) return { id, title: 'A kit that cannot be read', maker: '', entries: 0, lastAt: '', damaged: loaded?.message ?? 'It is empty.' };
  const item = summaryOf(foldDocument(loaded.kit));
  await saveSummary(item);
  return item;
}
