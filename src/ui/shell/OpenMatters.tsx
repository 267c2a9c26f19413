import { Alert, Button, Flex } from 'antd';
import { type KitFinding, kitFindings, type KitState } from '@/core/kit';
import { entryText, modificationText } from '@/core/loop';
import { useBench } from '@/store/bench';

/** What stands open until somebody acts: things that are on the board for a test, records that were changed in two places. */
export function OpenMatters({ kit }: { kit: KitState }) {
  const conflicts = kitFindings(kit).filter((f) => f.code === 'conflict');
  return (
    <>
      <ForTests kit={kit} />
      {conflicts.map((c) => (
        <Conflict key={`${c.room ?? ''}/${c.record ?? ''}`} kit={kit} finding={c} />
      ))}
    </>
  );
}

/** What is on the board for a test stays in sight until it is gone. */
function ForTests({ kit }: { kit: KitState }) {
  const append = useBench((s) => s.append);
  const open = kit.board.modifications.filter((m) => m.temporary);
  return open.map((m) => (
    <Alert
      key={m.entry}
      type="info"
      banner
      title={`On the board for a test: ${modificationText(kit, m.change)}${m.why ? ` (${m.why})` : ''}.`}
      action={
        <Button
          size="small"
          onClick={() => {
            void append({ kind: 'restored', modification: m.entry });
          }}
        >
          Put back
        </Button>
      }
    />
  ));
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
      title="Changed in two places at once. The later change counts; say which one is right."
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
