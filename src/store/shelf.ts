import {
  checkKit,
  documentOf,
  extend,
  foldDocument,
  type Entry,
  type KitDocument,
  type KitState,
  inBatch,
  newKit,
  openKit,
  patch,
  type OpenResult,
  type Stage,
  type StandIn,
  put,
  type TypeCard,
  type UnknownEntry,
  unite,
} from '@/core/kit';
import type { Beside, Draft } from '@/core/draft';
import { entryText } from '@/core/loop';
import { cardFor } from '@/core/typecard';

export type { Difficulty, Trouble } from '@/stand-in';
import { newId, stampAfter } from './stamps';
import { appendEntries, createKit as storeKit, listCards, loadKit, saveAttachments, summaryOf } from './storage';
import { noteStanding } from './shelfItems';
import { listKits } from './shelfList';
import { tellTabs } from './tabs';

/** Puts a fresh demo on the shelf; returns its id. */
export async function openDemo(slug: string): Promise<string> {
  // The demos' sheets are not part of a bench's first load.
  const { DEMOS } = await import('@/stand-in/demos');
  const kit = DEMOS.find((d) => d.slug === slug)!.kit(stampAfter(undefined));
  await storeKit(documentOf(kit));
  return kit.id;
}

/** What a file holds, held against the shelf, before anything is stored. */
export type FilePreview =
  | {
      readonly kind: 'refused';
      readonly message: string;
      /** What opens all the same, damaged entries aside. */ readonly rest: KitDocument | null;
      readonly damaged: number;
    }
  | { readonly kind: 'newer'; readonly message: string }
  | { readonly kind: 'shelf'; readonly kits: readonly FilePreview[]; readonly made: string }
  | { readonly kind: 'new'; readonly doc: KitDocument; readonly title: string }
  | { readonly kind: 'same'; readonly id: string; readonly title: string }
  | {
      readonly kind: 'adds';
      readonly doc: KitDocument;
      readonly title: string;
      readonly count: number;
      /** The first few of what it would add, in words. */
      readonly texts: readonly string[];
      readonly conflicts: number;
    };

const SHOWN = 8;

/** Reads a kit file and says what it would add. Nothing is stored. */
export async function previewFile(file: File): Promise<FilePreview> {
  const text = await file.text();
  const kits = SHELF_FILE.test(text.slice(0, HEAD)) ? shelfOf(text) : null;
  if (kits === null) return previewKit(openKit(text), file.name);
  const previews: FilePreview[] = [];
  for (const [i, kit] of kits.kits.entries()) previews.push(await previewKit(checkKit(kit), `Kit ${i + 1} of ${file.name}`));
  return { kind: 'shelf', kits: previews, made: kits.made };
}

const SHELF_FORMAT = 'zesty-bench-shelf';
const SHELF_FILE = new RegExp(`"format"\\s*:\\s*"${SHELF_FORMAT}"`);
/** A shelf's file says what it is at its beginning. */
const HEAD = 500;

/** The kits of a shelf's file, not checked yet; null for what is no whole JSON. */
function shelfOf(text: string): { readonly kits: readonly unknown[]; readonly made: string } | null {
  try {
    const { kits, made } = JSON.parse(text.replace(/^\uFEFF/, '')) as { kits?: unknown; made?: unknown };
    return Array.isArray(kits) ? { kits: kits as unknown[], made: typeof made === 'string' ? made : '' } : null;
  } catch {
    return null;
  }
}

/** All kits of the shelf, archived ones too, as one file; damaged ones are told by name and stay out. */
export async function shelfBackup(): Promise<{ readonly text: string; readonly kits: number; readonly left: readonly string[] }> {
  const kits: KitDocument[] = [];
  const left: string[] = [];
  for (const item of await listKits()) {
    const found = await loadKit(item.id);
    if (found?.ok) kits.push(found.kit);
    else left.push(item.title);
  }
  return { text: JSON.stringify({ format: SHELF_FORMAT, version: 1, made: new Date().toISOString(), kits }), kits: kits.length, left };
}

async function previewKit(opened: OpenResult, name: string): Promise<FilePreview> {
  if (!opened.ok) return { kind: 'refused', message: `${name}: ${opened.message}`, rest: opened.rest?.kit ?? null, damaged: opened.rest?.damaged.length ?? 0 };
  if (opened.readOnly) return { kind: 'newer', message: `${name}: ${opened.findings[0]!.text}` };
  const doc = opened.kit;
  const state = foldDocument(doc);
  const here = await loadKit(doc.id);
  // A damaged kit of that id stays where it is; the file comes to lie beside it under an id of its own.
  if (here?.ok === false) return { kind: 'new', doc: { ...doc, id: newId() }, title: state.sheet.title };
  if (!here) return { kind: 'new', doc, title: state.sheet.title };
  const added = missingIn(here.kit.log, doc.log);
  if (added.length === 0) return { kind: 'same', id: doc.id, title: state.sheet.title };
  const united = extend(foldDocument(here.kit), ...added);
  return {
    kind: 'adds',
    doc,
    title: state.sheet.title,
    count: added.length,
    texts: added.slice(0, SHOWN).map((e) => entryText(united, e)),
    conflicts: united.conflicts.length - foldDocument(here.kit).conflicts.length,
  };
}

function missingIn(log: readonly { readonly id: string }[], other: readonly (Entry | UnknownEntry)[]) {
  const known = new Set(log.map((e) => e.id));
  return other.filter((e) => !known.has(e.id));
}

/** Stores a new kit, or unites it with the copy that is here; returns its id. */
export async function takeIn(doc: KitDocument): Promise<string> {
  const checked = checkKit(doc);
  if (!checked.ok) throw new Error(checked.message);
  const here = await loadKit(doc.id);
  if (!here?.ok) {
    await storeKit(checked.kit);
    return doc.id;
  }
  const added = missingIn(here.kit.log, checked.kit.log);
  await saveAttachments(doc.id, checked.kit.attachments);
  if (added.length > 0) {
    await appendEntries(here.kit, added);
    tellTabs({ kit: doc.id, entries: added });
    await noteStanding(summaryOf(foldDocument({ ...here.kit, log: unite(here.kit.log, added).log })));
  }
  return doc.id;
}

/** Makes a kit from a pasted list and deck; returns its id. Cards of one's own collection that fit its lines come along. */
export async function createKit({ title, draft, deck, nets, beside, built, stages }: NewKitParts): Promise<string> {
  // The room of lists and its dictionaries are only needed here: the shelf opens without them.
  const { makeSheet } = await import('@/core/draft');
  const sheet = { ...makeSheet(title, draft, deck, nets, beside, built), stages };
  const own = await listCards().catch((): TypeCard[] => []);
  const fitting = [...new Set(sheet.lines.flatMap((l) => cardFor(l, own) ?? []))].filter((c) => own.includes(c));
  const bare = newKit({ ...sheet, typeCards: fitting }, stampAfter(undefined));
  const refs = sheet.lines.filter((l) => !l.notFitted).flatMap((l) => l.refs);
  const kit = built && refs.length > 0 ? extend(bare, { kind: 'fitted', refs, ...stampAfter(bare.log.at(-1)?.at) }) : bare;
  await storeKit(documentOf(kit));
  return kit.id;
}

/** What a new kit is made of. `built`: it stands on the bench already, everything fitted. */
export interface NewKitParts {
  readonly title: string;
  readonly draft: Draft;
  readonly deck: string;
  readonly nets: readonly string[];
  readonly beside: Beside;
  readonly built: boolean;
  /** The ladder, as a worker proposed it. */
  readonly stages: readonly Stage[];
}

/** Cards of one's own collection that lines of a kit use and the kit does not have: they belong into its file. */
export async function adoptCards(kit: KitState) {
  const own = await listCards().catch((): TypeCard[] => []);
  const used = [...new Set(kit.sheet.lines.flatMap((l) => cardFor(l, kit.sheet.typeCards, own) ?? []))];
  return used.filter((c) => own.includes(c)).map((c) => put(kit, 'typeCards', c));
}

/** Longest title that a kit may have. */
const LONGEST_TITLE = 200;
/** A kit's title with what tells the copy from it; the title gives way where both are too long. */
const titled = (title: string, addition: string) => `${title.slice(0, LONGEST_TITLE - addition.length)}${addition}`;

/** The kit under this id, or why it cannot be opened. */
async function opened(id: string): Promise<{ doc: KitDocument; kit: KitState }> {
  const found = await loadKit(id);
  if (!found?.ok) throw new Error(found?.message ?? 'The kit is not here any more.');
  if (found.readOnly) throw new Error('A newer program wrote this kit: it cannot be changed here.');
  return { doc: found.kit, kit: foldDocument(found.kit) };
}

/** Gives a kit another name: one entry of its log. */
export async function renameKit(id: string, title: string): Promise<void> {
  const { kit } = await opened(id);
  if (title.trim() === '' || title.length > LONGEST_TITLE) throw new Error(`A kit needs a name of at most ${LONGEST_TITLE} letters.`);
  const change = patch(kit, 'about', [...kit.rooms.about.keys()][0] ?? '', { title });
  if (!change) throw new Error('This kit does not say what it is.');
  const entries = inBatch([change], stampAfter(kit.log[kit.log.length - 1]?.at));
  await appendEntries(kit, entries);
  tellTabs({ kit: id, entries });
  await noteStanding(summaryOf(extend(kit, ...entries)));
}

/** A second copy of the same kit: its sheet for another bag, or all of it. Returns its id. */
export async function duplicateKit(id: string, withLog: boolean): Promise<string> {
  const { doc, kit } = await opened(id);
  if (withLog) {
    const copy = { ...doc, id: newId() };
    await storeKit(copy);
    await renameKit(copy.id, titled(kit.sheet.title, ', copy'));
    return copy.id;
  }
  const { meter, school, measure, meters } = kit.settings;
  const fresh = newKit({ ...kit.sheet, title: titled(kit.sheet.title, ', another one') }, stampAfter(undefined), { meter, school, measure, meters });
  await storeKit(documentOf(fresh, sheetPhotos(kit, doc)));
  return fresh.id;
}

/** Photos of the sheet go with it, those of notes stay with their log. */
function sheetPhotos(kit: KitState, { attachments = {} }: Pick<KitDocument, 'attachments'>): Readonly<Record<string, string>> {
  const photos = new Set(kit.sheet.photos.map((p) => p.hash));
  return Object.fromEntries(Object.entries(attachments).filter(([hash]) => photos.has(hash)));
}

/** A kit for others: its sheet with everything that was written for it, nothing of one's own log, meters or settings. */
export async function kitForOthers(id: string): Promise<KitDocument> {
  const { doc, kit } = await opened(id);
  return documentOf(newKit(kit.sheet, stampAfter(undefined)), sheetPhotos(kit, doc));
}

/**
 * A copy of a kit to practise on: its sheet and a simulated bench, nothing of its log. `built`: the trouble is on the board, so that
 * the board is soldered already, but for what a later stage puts in. Returns its id.
 */
export async function practiceCopy(kit: KitState, standIn: StandIn, built: boolean): Promise<string> {
  const title = kit.sheet.title.replace(/, practice.*$/, '');
  const { meter, meters } = kit.settings;
  const copy = newKit({ ...kit.sheet, photos: [], title: titled(title, ', practice') }, stampAfter(undefined), { standIn, meter, meters });
  await storeKit(documentOf(built ? soldered(copy) : copy));
  return copy.id;
}

function soldered(kit: KitState): KitState {
  const { lines, stages } = kit.sheet;
  const first = stages.findIndex((s) => s.supplies.length > 0);
  const later = new Set(stages.slice(first + 1).flatMap((s) => s.fits));
  const refs = lines.flatMap((l) => (l.notFitted ? [] : l.refs)).filter((r) => !later.has(r));
  return refs.length === 0 ? kit : extend(kit, { kind: 'fitted', refs, ...stampAfter(kit.log.at(-1)?.at) });
}
