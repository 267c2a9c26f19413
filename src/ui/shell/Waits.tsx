import { Alert, Button } from 'antd';
import { useEffect, useMemo, useState } from 'react';
import type { KitState } from '@/core/kit';
import { isOver, openWaits, waitText } from '@/core/loop';
import { useBench } from '@/store/bench';

const TICK = 1000;

/** What is waited for stays in sight, with the time that is left; what does not need it can go on. */
export function Waits({ kit }: { kit: KitState }) {
  const append = useBench((s) => s.append);
  const waits = useMemo(() => openWaits(kit), [kit]);
  const [now, setNow] = useState(() => Date.now());
  const running = waits.some((w) => w.until?.kind === 'instant' && !isOver(w, now));
  useEffect(() => {
    if (!running) return;
    const timer = setInterval(() => {
      setNow(Date.now());
    }, TICK);
    return () => {
      clearInterval(timer);
    };
  }, [running]);
  useWakeLock(running);
  return waits.map((w) => {
    const over = isOver(w, now);
    return (
      <Alert
        key={w.entry.id}
        type={over ? 'success' : 'info'}
        banner
        role={over ? 'alert' : 'status'}
        title={
          <>
            {over ? 'Over' : 'Waiting'}: {w.entry.reason}
            {w.until && !(over && w.until.kind === 'instant') && <span aria-hidden={!over}>, {waitText(w, now)}</span>}
          </>
        }
        action={
          <Button
            size="small"
            aria-label={`Go on: ${w.entry.reason}`}
            onClick={() => {
              void append({ kind: 'resumed', waited: w.entry.id });
            }}
          >
            {over || w.until?.kind !== 'instant' ? 'It is here: go on' : 'Stop waiting'}
          </Button>
        }
      />
    );
  });
}

/** Keeps the screen awake while a timer runs, where the browser can; it lets go by itself when the tab is hidden. */
function useWakeLock(wanted: boolean): void {
  useEffect(() => {
    if (!wanted || !('wakeLock' in navigator)) return;
    let lock: WakeLockSentinel | null = null;
    let over = false;
    const hold = () => {
      if (document.visibilityState === 'visible')
        navigator.wakeLock.request('screen').then(
          (got) => {
            if (over) void got.release();
            else lock = got;
          },
          () => undefined,
        );
    };
    hold();
    document.addEventListener('visibilitychange', hold);
    return () => {
      over = true;
      document.removeEventListener('visibilitychange', hold);
      void lock?.release();
    };
  }, [wanted]);
}
