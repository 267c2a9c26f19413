import {
  checkKit,
  documentOf,
  extend,
  foldDocument,
  type Entry,
  type KitDocument,
  type KitState,
  newKit,
  openKit,
  type OpenResult,
  put,
  type TypeCard,
  type UnknownEntry,
  unite,
} from '@/core/kit';
import { makeSheet, type Draft } from '@/core/draft';
import { entryText } from '@/core/loop';
import { cardFor } from '@/core/typecard';
import { DEMOS } from '@/stand-in/demos';
import { newId, stampAfter } from './stamps';
import { appendEntries, createKit as storeKit, listCards, loadKit, saveAttachments, saveSummary, summaryOf } from './storage';
import { tellTabs } from './tabs';

export const shelfDemos = DEMOS.map(({ slug, title, about }) => ({ slug, title, about }));

/** Puts a fresh demo on the shelf; returns its id. */
export async function openDemo(slug: string): Promise<string> {
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
  return previewKit(openKit(await file.text()), file.name);
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
    await saveSummary(summaryOf(foldDocument({ ...here.kit, log: unite(here.kit.log, added).log })));
  }
  return doc.id;
}

/** Makes a kit from a pasted list and deck; returns its id. Cards of one's own collection that fit its lines come along. */
export async function createKit(title: string, draft: Draft, deck: string, nets: readonly string[]): Promise<string> {
  const sheet = makeSheet(title, draft, deck, nets);
  const own = await listCards().catch((): TypeCard[] => []);
  const fitting = [...new Set(sheet.lines.flatMap((l) => cardFor(l, own) ?? []))].filter((c) => own.includes(c));
  const kit = newKit({ ...sheet, typeCards: fitting }, stampAfter(undefined));
  await storeKit(documentOf(kit));
  return kit.id;
}

/** Cards of one's own collection that lines of a kit use and the kit does not have: they belong into its file. */
export async function adoptCards(kit: KitState) {
  const own = await listCards().catch((): TypeCard[] => []);
  const used = [...new Set(kit.sheet.lines.flatMap((l) => cardFor(l, kit.sheet.typeCards, own) ?? []))];
  return used.filter((c) => own.includes(c)).map((c) => put(kit, 'typeCards', c));
}
