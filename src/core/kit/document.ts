import { changesOf, inBatch } from './changes';
import { fold } from './fold';
import { KIT_FORMAT, KIT_VERSION } from './schema/names';
import type { Entry, Stamp, UnknownEntry } from './schema/entries';
import { DEFAULT_SETTINGS, type KitSettings, type Sheet } from './sheet';
import type { KitState } from './state';
import { unite } from './log';

/** A kit as it is stored and exported: its log, and nothing that follows from it. */
export interface KitDocument {
  readonly format: typeof KIT_FORMAT;
  readonly version: typeof KIT_VERSION;
  readonly id: string;
  readonly created: string;
  readonly log: readonly (Entry | UnknownEntry)[];
  /** Photos and other large things by their SHA-256, base64. */
  readonly attachments?: Readonly<Record<string, string>> | undefined;
}

export const documentOf = (kit: Pick<KitState, 'id' | 'created' | 'log'>, attachments?: KitDocument['attachments']): KitDocument => ({
  format: KIT_FORMAT,
  version: KIT_VERSION,
  id: kit.id,
  created: kit.created,
  log: kit.log,
  ...(attachments && Object.keys(attachments).length > 0 ? { attachments } : {}),
});

export const foldDocument = (doc: KitDocument): KitState => fold(doc.id, doc.created, doc.log);

/** A new kit: its sheet and settings are its first batch. */
export function newKit(sheet: Sheet, stamp: Stamp, settings: Partial<KitSettings> = {}): KitState {
  return fold(stamp.id, stamp.at, inBatch(changesOf(sheet, { ...DEFAULT_SETTINGS, ...settings }), stamp));
}

/** The union of some documents of one kit. Commutative, associative, idempotent. */
export function mergeDocuments(docs: readonly KitDocument[]): KitDocument {
  const [first] = docs;
  if (!first) throw new Error('there is nothing to unite');
  const created = docs.map((d) => d.created).sort()[0]!;
  return documentOf(
    { id: first.id, created, log: unite(...docs.map((d) => d.log)).log },
    Object.assign({}, ...docs.map((d) => d.attachments ?? {})) as Record<string, string>,
  );
}
