import { create } from 'zustand';
import {
  type DamagedEntry,
  documentOf,
  type Entry,
  type EntryBody,
  entryProblem,
  extend,
  foldDocument,
  inBatch,
  type KitDocument,
  type KitState,
  lastRedoable,
  lastUndoable,
  type OpenFinding,
  put,
  type UnknownEntry,
  unite,
} from '@/core/kit';
import { noteStanding } from './shelfItems';
import { appendEntries, loadKit, saveAttachments, summaryOf } from './storage';
import { stampAfter } from './stamps';
import { onTabs, tellTabs } from './tabs';

type Logged = Entry | UnknownEntry;
/** What is to be written: entries, or a function that makes them of the kit as it then is. Null or nothing writes nothing. */
export type Writing = EntryBody | readonly EntryBody[] | ((kit: KitState) => EntryBody | readonly EntryBody[] | null);

/** The open kit. Screens read this and append entries: nothing else. */
export interface BenchState {
  readonly status: 'closed' | 'loading' | 'open' | 'missing';
  readonly kit: KitState | null;
  /** A newer program wrote the kit: it is shown and not changed. */
  readonly readOnly: boolean;
  /** Message that must not be missed: storage full, damaged kit. */
  readonly alarm: string | null;
  /** Remarks when the kit was opened. */
  readonly findings: readonly OpenFinding[];
  /** Stored entries that do not fit the schema. */
  readonly damaged: readonly DamagedEntry[];
  /** Photos and other large things by their SHA-256, base64: they go with the exported file. */
  readonly attachments: NonNullable<KitDocument['attachments']>;
  /** Entries that are on the screen and not yet in the storage. */
  readonly unsaved: readonly Logged[];
  /** What this tab wrote last, as one step: what it did can be said, and taken back. */
  readonly written: readonly Logged[];
  open: (id: string) => Promise<void>;
  /** Writes entries, several as one step; they are on disk, or marked as not saved, when this resolves. */
  append: (what: Writing) => Promise<void>;
  /** Writes a note with its photos; rejects with a message where a photo cannot be read or kept. */
  note: (text: string, photos: readonly File[]) => Promise<void>;
  /** Keeps a photo of the board or of a paper with the sheet; rejects with a message where it cannot be read or kept. */
  photo: (file: File) => Promise<void>;
  /** Writes what the shelf shows of the kit now, when it is still to be written: the bench is being left. */
  settle: () => void;
  undo: () => Promise<void>;
  redo: () => Promise<void>;
  retry: () => Promise<void>;
  dismissAlarm: () => void;
}

const NOT_SAVED =
  'The browser’s storage is full or refused: the last entries are only on the screen, marked “not saved yet”. Export the kit to a file now (Logbook), or clear old kits from the shelf; saving is tried again by itself.';
const CLEARED = 'The browser’s storage was cleared while this kit was open. It was written anew from this tab; export it to a file to be safe.';
const READ_ONLY = 'A newer program wrote this kit: it is shown here and cannot be changed.';
const RETRY_EVERY = 4000;
/** The hand rests, milliseconds. */
const NOTED_AFTER = 700;

const listOf = (bodies: EntryBody | readonly EntryBody[] | null): readonly EntryBody[] => (bodies === null ? [] : 'kind' in bodies ? [bodies] : bodies);

export const useBench = create<BenchState>((set, get) => {
  let queue: Promise<unknown> = Promise.resolve();
  /** One write after another: each is made of what the ones before left. */
  const inTurn = (run: () => Promise<void>): Promise<void> => {
    const mine = queue.then(run, run);
    queue = mine.catch(() => undefined);
    return mine;
  };

  /** Photos made smaller and stored by their hashes. */
  const keep = async (files: readonly File[]) => {
    if (files.length === 0) return [];
    const { keepPhoto } = await import('./photos');
    const kept = await Promise.all(files.map(keepPhoto));
    const bytes = Object.fromEntries(kept.map((k) => [k.photo.hash, k.bytes]));
    try {
      await saveAttachments(get().kit!.id, bytes);
    } catch {
      throw new Error('The browser’s storage has no room for the photo. Nothing was written; export old kits and take them off the shelf.');
    }
    set({ attachments: { ...get().attachments, ...bytes } });
    return kept;
  };

  const show = (entries: readonly Logged[]) => {
    const { kit } = get();
    if (kit) set({ kit: extend(kit, ...entries) });
  };

  const write = async (what: Writing) => {
    const { kit, readOnly } = get();
    if (!kit) return;
    if (readOnly) {
      set({ alarm: READ_ONLY });
      return;
    }
    const bodies = listOf(typeof what === 'function' ? what(kit) : what);
    if (bodies.length === 0) return;
    const stamp = stampAfter(kit.log[kit.log.length - 1]?.at);
    const entries = bodies.length === 1 ? [{ ...bodies[0]!, ...stamp } as Entry] : inBatch(bodies, stamp);
    const problem = entries.map(entryProblem).find((p) => p !== null);
    if (problem) {
      set({ alarm: `This was not written: ${problem}. Nothing was changed.` });
      return;
    }
    await store(kit, entries);
  };

  /** On disk before it is shown; when the disk refuses, it is shown marked. */
  const store = async (kit: KitState, entries: readonly Entry[]) => {
    // All that changes is told at once: the bench is drawn once.
    let after: Partial<BenchState>;
    try {
      const came = await appendEntries(kit, [...get().unsaved, ...entries]);
      after = {
        ...(get().unsaved.length > 0 ? { unsaved: [] } : {}),
        ...(came === 'rewritten' ? { alarm: CLEARED } : get().alarm === NOT_SAVED ? { alarm: null } : {}),
      };
    } catch {
      after = { unsaved: [...get().unsaved, ...entries], alarm: NOT_SAVED };
    }
    const now = get().kit;
    set({ ...after, written: entries, ...(now ? { kit: extend(now, ...entries) } : {}) });
    tellTabs({ kit: kit.id, entries });
    noteOnShelf();
  };

  /** The shelf's note of the kit follows when the hand rests: it costs more than an entry. */
  let noting: ReturnType<typeof setTimeout> | undefined;
  const noteNow = () => {
    clearTimeout(noting);
    noting = undefined;
    const { kit } = get();
    if (kit) noteStanding(summaryOf(kit)).catch(() => undefined);
  };
  const noteOnShelf = () => {
    clearTimeout(noting);
    noting = setTimeout(noteNow, NOTED_AFTER);
  };

  const retry = async () => {
    const { kit, unsaved } = get();
    if (!kit || unsaved.length === 0) return;
    try {
      await appendEntries(kit, unsaved);
      const saved = new Set(unsaved.map((e) => e.id));
      set({ unsaved: get().unsaved.filter((e) => !saved.has(e.id)), alarm: get().alarm === NOT_SAVED ? null : get().alarm });
    } catch {
      // Still refused: the alarm stands, and it is tried again.
    }
  };
  if (typeof window !== 'undefined') {
    setInterval(() => {
      if (get().unsaved.length > 0) void inTurn(retry);
    }, RETRY_EVERY);
    addEventListener('beforeunload', (e) => {
      if (get().unsaved.length > 0) e.preventDefault();
    });
    addEventListener('pagehide', () => {
      get().settle();
    });
    // A tab that slept may have missed what others told.
    document.addEventListener('visibilitychange', () => {
      if (document.visibilityState === 'visible') void inTurn(catchUp);
    });
  }

  const catchUp = async () => {
    const { kit } = get();
    const stored = kit && (await loadKit(kit.id).catch(() => null));
    const now = get().kit;
    if (!kit || !stored?.ok || now?.id !== kit.id) return;
    const known = new Set(now.log.map((e) => e.id));
    const missed = stored.kit.log.filter((e) => !known.has(e.id));
    if (missed.length > 0) set({ kit: foldDocument(documentOf({ ...now, log: unite(now.log, missed).log })) });
  };

  onTabs(({ kit, entries }) => {
    if (get().kit?.id !== kit) return;
    const known = new Set(get().kit!.log.map((e) => e.id));
    show(entries.filter((e) => !known.has(e.id)));
  });

  return {
    status: 'closed',
    kit: null,
    readOnly: false,
    alarm: null,
    findings: [],
    damaged: [],
    attachments: {},
    unsaved: [],
    written: [],
    async open(id) {
      get().settle();
      set({ status: 'loading', kit: null, readOnly: false, alarm: null, findings: [], damaged: [], attachments: {}, unsaved: [], written: [] });
      let opened;
      try {
        opened = await loadKit(id);
      } catch {
        set({
          status: 'missing',
          alarm: 'This browser refuses access to its storage. Allow it for this site, or open the kit from its file in another browser.',
        });
        return;
      }
      if (!opened?.ok) {
        set({ status: 'missing', alarm: opened?.message ?? null });
        return;
      }
      const { kit, readOnly, findings, damaged } = opened;
      set({ status: 'open', kit: foldDocument(kit), readOnly, findings, damaged, attachments: kit.attachments ?? {} });
      // What other tabs wrote between reading and listening is read once more.
      void inTurn(catchUp);
    },
    append: (what) => inTurn(() => write(what)),
    settle() {
      if (noting !== undefined) noteNow();
    },
    async photo(file) {
      if (get().readOnly || !get().kit) return;
      const [kept] = await keep([file]);
      const { name, hash, type } = kept!.photo;
      const size = Math.floor((kept!.bytes.length * 3) / 4);
      await get().append((k) => put(k, 'photos', { id: `photo-${hash.slice(0, 12)}`, name, hash, type, size }));
    },
    async note(text, files) {
      if (get().readOnly) return get().append({ kind: 'noted', text });
      if (!get().kit) return;
      const kept = await keep(files);
      await get().append({ kind: 'noted', text, ...(kept.length > 0 ? { photos: kept.map((k) => k.photo) } : {}) });
    },
    undo: () =>
      inTurn(() =>
        write((kit) => {
          const last = lastUndoable(kit);
          return last && (last.batch === undefined ? { kind: 'withdrawn', entry: last.id } : { kind: 'withdrawn', ofBatch: last.batch });
        }),
      ),
    redo: () =>
      inTurn(() =>
        write((kit) => {
          const last = lastRedoable(kit);
          return last && { kind: 'withdrawn', entry: last.id };
        }),
      ),
    retry: () => inTurn(retry),
    dismissAlarm() {
      set({ alarm: null });
    },
  };
});
