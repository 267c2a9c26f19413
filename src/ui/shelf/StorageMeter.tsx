import { Alert, Button, Flex, Progress } from 'antd';
import { useCallback, useEffect, useState } from 'react';
import styles from './Shelf.module.css';

interface Room {
  readonly used: number;
  readonly quota: number;
  readonly kept: boolean;
}

const MEGABYTE = 1e6;
const megabytes = (bytes: number) => (bytes < 10 * MEGABYTE ? (bytes / MEGABYTE).toFixed(1) : String(Math.round(bytes / MEGABYTE)));

/** How much of the browser's room is used, and whether it promises to keep it. */
export function StorageMeter({ backup, kits }: { backup: () => void; kits: number }) {
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
  const save = kits > 0 && (
    <Button size="small" onClick={backup}>
      Back up the shelf
    </Button>
  );
  if (plain)
    return (
      <Alert
        type="info"
        className={styles.storage ?? ''}
        title="Opened over plain HTTP: no start without a network, no clipboard, no promise of the browser to keep your data."
        action={save}
      />
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
  );
}
