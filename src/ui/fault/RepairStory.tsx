import { Alert, Button, Table } from 'antd';
import { useMemo } from 'react';
import { deriveRepair, type Phase, type RepairRow } from '@/core/loop';
import type { KitState } from '@/core/kit';
import { print } from '@/core/quantity';
import { unitOf } from '@/core/vocabulary';
import { VerdictMark } from '../drawn/VerdictMark';
import type { Loop } from '../probe/useLoop';
import { useWindows } from '../results/useWindows';
import zones from '../shell/zones.module.css';

/** After a repair: what was read before, what is read now, and whether the repair explains all of it. */
export function RepairStory({ kit, loop, go }: { kit: KitState; loop: Loop; go: (phase: Phase) => void }) {
  const windows = useWindows(kit);
  const repair = useMemo(() => deriveRepair(kit, windows), [kit, windows]);
  if (!repair || repair.rows.length === 0) return null;
  const left = repair.rows.filter((r) => r.after === null);
  const wrong = repair.rows.filter((r) => r.after !== null && r.verdictAfter === 'out');
  return (
    <section aria-label="After the repair">
      <h2 className={zones.label}>After the repair: {repair.note}</h2>
      {repair.status === 'explains' && (
        <Alert
          type="success"
          title={`The bad readings are right now: the repair explains everything.${left.length > 0 ? ` Repeat the others as well: ${left.map((r) => r.check.title).join(', ')}.` : ''}`}
        />
      )}
      {repair.status === 'repeat' && <p>Measure again: {left.map((r) => r.check.title).join(', ')}. Only that shows whether it was the fault.</p>}
      {repair.status === 'fails' && (
        <Alert
          type="error"
          title={`It does not explain everything: ${wrong.map((r) => r.check.title).join(', ')} ${wrong.length === 1 ? 'is' : 'are'} still out of range. There is another fault.`}
          action={
            <Button
              size="small"
              onClick={() => {
                go('fault');
              }}
            >
              Keep looking
            </Button>
          }
        />
      )}
      <Table<RepairRow>
        size="small"
        pagination={false}
        rowKey={(r) => r.check.id}
        dataSource={[...repair.rows]}
        columns={[
          {
            title: 'check',
            key: 'check',
            rowScope: 'row',
            render: (_, r) => (
              <Button
                type="link"
                size="small"
                onClick={() => {
                  go('power');
                  loop.choose(`check:${r.stage.id}:${r.check.id}`);
                }}
              >
                {r.check.title}
              </Button>
            ),
          },
          { title: 'before', key: 'before', render: (_, r) => <Shown row={r} of="before" /> },
          { title: 'now', key: 'now', render: (_, r) => <Shown row={r} of="after" /> },
        ]}
      />
    </section>
  );
}

function Shown({ row, of }: { row: RepairRow; of: 'before' | 'after' }) {
  const value = row[of];
  if (value === null) return <span className="soft">to repeat</span>;
  const text =
    typeof value === 'boolean'
      ? value
        ? 'as expected'
        : 'not so'
      : value === 'over'
        ? 'OL'
        : print(value, row.check.what === 'measure' ? unitOf(row.check.mode) : null);
  return (
    <span className="num">
      <VerdictMark verdict={of === 'before' ? row.verdictBefore : row.verdictAfter} size={13} /> {text}
    </span>
  );
}
