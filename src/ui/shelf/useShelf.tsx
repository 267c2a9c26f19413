import { Button, Flex, type MessageArgsProps } from 'antd';
import { type ReactNode, useCallback, useEffect, useMemo, useState } from 'react';
import type { KitDocument } from '@/core/kit';
import type { FilePreview } from '@/store/shelf';
import { noteBackup } from '@/store/backup';
import { archiveKit, putBack, type ShelfItem, takeOff } from '@/store/shelfItems';
import { listKits } from '@/store/shelfList';
import { saveFile } from '../shell/saveFile';

interface Messages {
  readonly open: (message: MessageArgsProps) => unknown;
  readonly error: (text: ReactNode, seconds?: number) => unknown;
  readonly destroy: (key: string) => void;
}

/** What can be done on the shelf. */
export interface ShelfActs {
  readonly items: readonly ShelfItem[] | null;
  /** Why nothing can be kept here; null when all is well. */
  readonly blocked: string | null;
  readonly preview: FilePreview | null;
  readonly closePreview: () => void;
  readonly open: (id: string) => void;
  readonly demo: (slug: string) => void;
  readonly takeFile: (file: File) => void;
  readonly takeDocument: (doc: KitDocument) => void;
  readonly rename: (id: string, title: string) => void;
  readonly duplicate: (id: string, withLog: boolean) => void;
  readonly archive: (item: ShelfItem) => void;
  readonly remove: (item: ShelfItem) => void;
  readonly exportKit: (item: ShelfItem) => void;
  /** Its sheet alone, for somebody else to build. */
  readonly exportForOthers: (item: ShelfItem) => void;
  /** The whole shelf as one file. */
  readonly backup: () => void;
  readonly takeShelf: (docs: readonly KitDocument[]) => void;
}

const BLOCKED =
  'This browser refuses to store anything, so kits cannot be kept here. Leave private browsing, or export every kit to a file before you close the tab.';
const SECONDS = 8;
/** What opens and makes kits is fetched when a hand reaches for it. */
const store = () => import('@/store/shelf');
const storage = () => import('@/store/storage');

export function useShelf(push: (path: string) => void, message: Messages): ShelfActs {
  const [items, setItems] = useState<readonly ShelfItem[] | null>(null);
  const [blocked, setBlocked] = useState<string | null>(null);
  const [preview, setPreview] = useState<FilePreview | null>(null);
  const refresh = useCallback(() => {
    listKits().then(setItems, () => {
      setItems([]);
      setBlocked(BLOCKED);
    });
  }, []);
  useEffect(refresh, [refresh]);
  return useMemo((): ShelfActs => {
    const fail = (e: unknown) => void message.error((e as Error).message, SECONDS);
    const open = (id: string) => {
      push(`/bench/?kit=${encodeURIComponent(id)}`);
    };
    /** Said with the way back. */
    const say = (text: string, undo: () => Promise<unknown>) => {
      message.open({
        key: 'shelf',
        duration: SECONDS,
        content: (
          <Flex gap="small" align="center" component="span">
            {text}
            <Button
              size="small"
              onClick={() => {
                message.destroy('shelf');
                undo().then(refresh, fail);
              }}
            >
              Undo
            </Button>
          </Flex>
        ),
      });
      refresh();
    };
    const take = async (file: File) => {
      const { previewFile, takeIn } = await store();
      const found = await previewFile(file);
      if (found.kind === 'new') open(await takeIn(found.doc));
      else if (found.kind === 'same') open(found.id);
      else if (found.kind === 'newer' || (found.kind === 'refused' && found.rest === null)) throw new Error(found.message);
      else setPreview(found);
    };
    const takeFile = (file: File) => {
      take(file).catch(fail);
    };
    return {
      items,
      blocked,
      preview,
      closePreview: () => {
        setPreview(null);
      },
      open,
      demo: (slug) => {
        store()
          .then((s) => s.openDemo(slug))
          .then(open, fail);
      },
      takeFile,
      takeDocument: (doc) => {
        store()
          .then((s) => s.takeIn(doc))
          .then(open, fail);
      },
      rename: (id, title) => {
        store()
          .then((s) => s.renameKit(id, title.trim()))
          .then(refresh, fail);
      },
      duplicate: (id, withLog) => {
        store()
          .then((s) => s.duplicateKit(id, withLog))
          .then(refresh, fail);
      },
      archive: (item) => {
        archiveKit(item, !item.archived).then(() => {
          say(item.archived ? `“${item.title}” is back on the shelf.` : `“${item.title}” is archived.`, () => archiveKit(item, item.archived === true));
        }, fail);
      },
      remove: (item) => {
        takeOff(item).then(() => {
          say(`“${item.title}” is off the shelf.`, () => putBack(item));
        }, fail);
      },
      backup: () => {
        const written = async () => {
          const { text, kits, left } = await (await store()).shelfBackup();
          saveFile(`shelf-${new Date().toISOString().slice(0, 10)}.zesty.json`, text);
          noteBackup(await listKits());
          void message.open({
            key: 'shelf',
            duration: SECONDS,
            content: `${kits === 1 ? '1 kit' : `${kits} kits`} in the file.${left.length > 0 ? ` Damaged, and not in it: ${left.join(', ')}.` : ''}`,
          });
        };
        written().catch(fail);
      },
      takeShelf: (docs) => {
        const taken = async () => {
          const { takeIn } = await store();
          for (const doc of docs) await takeIn(doc);
          setPreview(null);
        };
        taken().then(refresh, fail);
      },
      exportForOthers: (item) => {
        const written = async () => {
          const { kitForOthers } = await store();
          saveFile(`${item.title}, for others.zesty.json`, JSON.stringify(await kitForOthers(item.id), null, 1));
        };
        written().catch(fail);
      },
      exportKit: (item) => {
        const written = async () => {
          const { loadKit, rawKit } = await storage();
          if (item.damaged !== null) {
            saveFile('damaged-kit.json', JSON.stringify(await rawKit(item.id), null, 1));
            return;
          }
          const found = await loadKit(item.id);
          if (found?.ok) saveFile(`${item.title}.zesty.json`, JSON.stringify(found.kit, null, 1));
        };
        written().catch(fail);
      },
    };
  }, [items, blocked, preview, push, message, refresh]);
}
