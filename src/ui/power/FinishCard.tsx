import { Alert, Button } from 'antd';
import { useMemo } from 'react';
import { isFinished, openMatters } from '@/core/loop';
import type { KitState } from '@/core/kit';
import { useBench } from '@/store/bench';
import { useWindows } from '../results/useWindows';
import zones from '../shell/zones.module.css';

/** All stages are behind: the long run, what is still open, and the end. */
export function FinishCard({ kit, wait }: { kit: KitState; wait: () => void }) {
  const append = useBench((s) => s.append);
  const windows = useWindows(kit);
  const open = useMemo(() => openMatters(kit, windows), [kit, windows]);
  const finished = isFinished(kit);
  return (
    <section aria-label="The end">
      <h2 className={`${zones.label} ${zones.section}`}>{finished ? 'Finished' : 'Long run and finish'}</h2>
      {finished ? (
        <Alert
          type="success"
          title={kit.finished!.entry.open.length === 0 ? 'Finished, and nothing is open.' : `Finished, with this open: ${kit.finished!.entry.open.join('; ')}.`}
        />
      ) : (
        <>
          <p>Let it run for half an hour with its load. Touch-test at the start, in the middle and at the end: nothing gets too hot, nothing drifts.</p>
          {open.length > 0 && (
            <>
              <p>Still open:</p>
              <ul aria-label="Still open">
                {open.map((text) => (
                  <li key={text}>{text}</li>
                ))}
              </ul>
            </>
          )}
          <div className={zones.row}>
            <Button size="small" onClick={wait}>
              Start a timer
            </Button>
            <Button
              size="small"
              type={open.length === 0 ? 'primary' : 'default'}
              onClick={() => {
                void append({ kind: 'finished', open });
              }}
            >
              {open.length === 0 ? 'The kit is finished' : 'Finish it, with this open'}
            </Button>
          </div>
        </>
      )}
    </section>
  );
}
