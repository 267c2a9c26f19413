'use client';
import { Alert, Button, Flex } from 'antd';
import { lazy, Suspense } from 'react';
import type { DamagedEntry, KitState } from '@/core/kit';
import { useShallow } from 'zustand/react/shallow';
import { useBench } from '@/store/bench';
import { runner } from '@/store/results';
import { saveFile } from './saveFile';
import { useResult } from '../results/useResult';

// What has to name entries in words is fetched when there is such a thing.
const Waits = lazy(() => import('./Waits').then((m) => ({ default: m.Waits })));
const OpenMatters = lazy(() => import('./OpenMatters').then((m) => ({ default: m.OpenMatters })));

/** What must not be missed: alarms, entries that are not saved, conflicts, damaged records, failed computations. */
export function Notices({ kit }: { kit: KitState }) {
  const { alarm, retry, dismissAlarm, findings, damaged } = useBench(
    useShallow((s) => ({ alarm: s.alarm, retry: s.retry, dismissAlarm: s.dismissAlarm, findings: s.findings, damaged: s.damaged })),
  );
  const unsaved = useBench((s) => s.unsaved);
  const windows = useResult('windows', kit, undefined);
  return (
    <>
      {alarm !== null && (
        <Alert
          type="error"
          banner
          role="alert"
          title={alarm}
          action={
            <Flex gap="small">
              {unsaved.length > 0 && (
                <Button size="small" onClick={() => void retry()}>
                  Try again
                </Button>
              )}
              <Button size="small" onClick={dismissAlarm}>
                Understood
              </Button>
            </Flex>
          }
        />
      )}
      {windows.state === 'failed' && (
        <Alert
          type="error"
          banner
          role="alert"
          title={`The expected readings could not be computed: ${windows.message}`}
          action={
            <Button
              size="small"
              onClick={() => {
                runner.again('windows');
              }}
            >
              Try again
            </Button>
          }
        />
      )}
      {findings
        .filter((f) => f.code === 'newer')
        .map((f) => (
          <Alert key={f.text} type="warning" banner title={f.text} />
        ))}
      {damaged.length > 0 && <Damaged damaged={damaged} />}
      {kit.waiting.length > 0 && (
        <Suspense fallback={null}>
          <Waits kit={kit} />
        </Suspense>
      )}
      {(kit.conflicts.length > 0 || kit.board.modifications.some((m) => m.temporary)) && (
        <Suspense fallback={null}>
          <OpenMatters kit={kit} />
        </Suspense>
      )}
    </>
  );
}

function Damaged({ damaged }: { damaged: readonly DamagedEntry[] }) {
  return (
    <Alert
      type="warning"
      banner
      title={`${damaged.length} stored ${damaged.length === 1 ? 'record is' : 'records are'} damaged and set aside: ${damaged[0]!.why}. The rest of the kit is intact.`}
      action={
        <Button
          size="small"
          onClick={() => {
            saveFile('damaged-records.json', JSON.stringify(damaged, null, 1));
          }}
        >
          Save them to a file
        </Button>
      }
    />
  );
}
