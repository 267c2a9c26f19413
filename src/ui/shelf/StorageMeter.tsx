import { Alert, Button, Flex, Progress } from 'antd';
import { useCallback, useEffect, useState } from 'react';
import { backupDue, lastBackup } from '@/store/backup';
import type { ShelfItem } from '@/store/shelfItems';
import styles from './Shelf.module.css';

interface Room {
  readonly used: number;
  readonly quota: number;
  readonly kept: boolean;
}

const MEGABYTE = 1e6;
const megabytes = (bytes: number) => (bytes < 10 * MEGABYTE ? (bytes / MEGABYTE).toFixed(1) : String(Math.round(bytes / MEGABYTE)));

/** How much of the browser's room is used, and whether it promises to keep it. */
export function StorageMeter({ backup, items }: { backup: () => void; items: readonly ShelfItem[] }) {
  const [room, setRoom] = useState<Room | null>(null);
  const [asked, setAsked] = useState(false);
  const [plain, setPlain] = useState(false);
  const look = useCallback(async () => {
    setPlain(!window.isSecureContext);
    if (!('storage' in navigator)) return;
    const [{ usage = 0, quota = 0 }, kept] = await Promise.all([navigator.storage.estimate(), navigator.storage.persisted()]);
    setRoom({ used: usage, quota, kept });
  }, []);
  useEffect(() => {
    look().catch(() => undefined);
  }, [look]);
  const [due, setDue] = useState<{ readonly entries: number; readonly last: string | null } | null>(null);
  useEffect(() => {
    const last = lastBackup();
    const entries = backupDue(items, last, Date.now());
    setDue(entries === null ? null : { entries, last: last?.at ?? null });
  }, [items]);
  const reminder = due !== null && (
    <p role="note" className={styles.due}>
      {due.entries} entries are in no file{due.last === null ? '' : `: the last backup is of ${new Date(due.last).toLocaleDateString('en-GB')}`}. Nothing but
      this browser holds them.
    </p>
  );
  const save = items.length > 0 && (
    <Button
      size="small"
      onClick={() => {
        backup();
        setDue(null);
      }}
    >
      Back up the shelf
    </Button>
  );
  if (plain)
    return (
      <>
        {reminder}
        <Alert
          type="info"
          className={styles.storage ?? ''}
          title="Opened over plain HTTP: no start without a network, no clipboard, no promise of the browser to keep your data."
          action={save}
        />
      </>
    );
  if (!room) return null;
  const ask = () => {
    setAsked(true);
    navigator.storage
      .persist()
      .then(look)
      .catch(() => undefined);
  };
  return (
    <>
      {reminder}
      <Flex gap="middle" align="center" wrap className={styles.storage ?? ''}>
        <span>
          Kept in this browser: {megabytes(room.used)} MB of {megabytes(room.quota)} MB
        </span>
        <Progress
          className={styles.meter ?? ''}
          percent={Math.max(0.5, (100 * room.used) / Math.max(1, room.quota))}
          showInfo={false}
          size="small"
          aria-label="Share of the browser’s room in use"
        />
        {room.kept ? (
          <span>The browser will keep this data.</span>
        ) : (
          <>
            <Button size="small" onClick={ask}>
              Ask the browser to keep my data
            </Button>
            {asked && <span role="status">This browser may delete the data when space runs low: export kits that matter.</span>}
          </>
        )}
        {save}
      </Flex>
    </>
  );
}
