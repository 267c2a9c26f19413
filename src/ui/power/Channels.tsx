import { Button, Table } from 'antd';
import type { ObserveProgress, StageProgress } from '@/core/loop';
import type { Verdict } from '@/core/verdict';
import { VerdictMark } from '../drawn/VerdictMark';
import type { Loop } from '../probe/useLoop';
import styles from './Channels.module.css';
import { matrixOf } from './channels';

/** What is tried one by one: every key, pin, mode or message stays in sight until it was tried. */
export function Channels({ c, here, loop }: { c: ObserveProgress; here: StageProgress; loop: Loop }) {
  const left = c.results.filter((r) => r.entry === null).length;
  const matrix = matrixOf(c.results.map((r) => r.channel));
  const cell = (channel: string, label: string) => <Channel key={channel} c={c} here={here} loop={loop} channel={channel} label={label} />;
  return (
    <div className={styles.channels} role="group" aria-label={`${c.check.title}, one by one`}>
      {matrix ? (
        <Table
          size="small"
          pagination={false}
          rowKey="row"
          columns={[
            { title: '', dataIndex: 'row', rowScope: 'row' },
            ...matrix.columns.map((column) => ({
              title: column,
              key: column,
              render: (_: unknown, { row }: { readonly row: string }) => cell(`${row} ${column}`, ''),
            })),
          ]}
          dataSource={matrix.rows.map((row) => ({ row }))}
        />
      ) : (
        c.results.map((r) => cell(r.channel, r.channel))
      )}
      <small className="soft">{left === 0 ? 'all tried' : `${left} of ${c.results.length} not tried yet`}</small>
    </div>
  );
}

function Channel({ c, here, loop, channel, label }: { c: ObserveProgress; here: StageProgress; loop: Loop; channel: string; label: string }) {
  const entry = c.results.find((r) => r.channel === channel)?.entry ?? null;
  const verdict: Verdict = entry === null ? 'none' : entry.asExpected ? 'in' : 'out';
  const now = loop.target?.kind === 'check' && loop.target.check.id === c.check.id && loop.target.channel === channel;
  return (
    <Button
      type="text"
      size="small"
      className={`${styles.channel} ${now ? styles.now : ''}`}
      aria-label={`${channel}: ${entry === null ? 'not tried' : entry.asExpected ? 'as expected' : 'not so'}`}
      aria-current={now ? 'true' : undefined}
      onClick={() => {
        loop.choose(`check:${here.stage.id}:${c.check.id}:${channel}`);
      }}
    >
      <VerdictMark verdict={verdict} size={14} /> {label}
    </Button>
  );
}
