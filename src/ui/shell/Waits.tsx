import { Alert, Button } from 'antd';
import { useEffect, useMemo, useState } from 'react';
import type { KitState } from '@/core/kit';
import { isOver, openWaits, waitText } from '@/core/loop';
import { useBench } from '@/store/bench';
import { useWakeLock } from './useWakeLock';

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
