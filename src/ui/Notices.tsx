'use client';
import { Alert, Button, Flex } from 'antd';
import { type DamagedEntry, type KitFinding, type KitState, kitFindings } from '@/core/kit';
import { entryText } from '@/core/loop';
import { useBench } from '@/store/bench';
import { runner } from '@/store/results';
import { saveFile } from './files';
import { useResult } from './useResult';

/** What must not be missed: alarms, entries that are not saved, conflicts, damaged records, failed computations. */
export function Notices({ kit }: { kit: KitState }) {
  const { alarm, unsaved, retry, dismissAlarm, findings, damaged } = useBench();
  const windows = useResult('windows', kit, undefined);
  const conflicts = kitFindings(kit).filter((f) => f.code === 'conflict');
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
      {conflicts.map((c) => (
        <Conflict key={`${c.room ?? ''}/${c.record ?? ''}`} kit={kit} finding={c} />
      ))}
    </>
  );
}

function Damaged({ damaged }: { damaged: readonly DamagedEntry[] }) {
  return (
    <Alert
      type="warning"
      banner
      title={`${damaged.length} stored ${damaged.length === 1 ? 'record is' : 'records are'} damaged and set aside: ${damaged[0]!.why}. The rest of the kit is whole.`}
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

/** One record that two places changed at once: the later change stands until one says which. */
function Conflict({ kit, finding }: { kit: KitState; finding: KitFinding }) {
  const append = useBench((s) => s.append);
  const changes = finding.entries.flatMap((id) => kit.log.find((e) => e.id === id) ?? []);
  const keep = (id: string) => {
    void append((k) => {
      const chosen = k.log.find((e) => e.id === id);
      const held = chosen && 'room' in chosen ? k.rooms[chosen.room].get(chosen.record) : undefined;
      return chosen && 'room' in chosen
        ? ({ kind: 'changed', room: chosen.room, record: chosen.record, before: held?.value ?? null, after: chosen.after } as never)
        : null;
    });
  };
  return (
    <Alert
      type="warning"
      banner
      title="Changed in two places at once. The later change stands; say which one is right."
      description={
        <Flex vertical gap="small">
          {changes.map((e, i) => (
            <Flex key={e.id} gap="small" align="center">
              <Button
                size="small"
                onClick={() => {
                  keep(e.id);
                }}
              >
                {i === changes.length - 1 ? 'Keep this' : 'Take this'}
              </Button>
              <span>{entryText(kit, e)}</span>
            </Flex>
          ))}
        </Flex>
      }
    />
  );
}
