import { Input, Table } from 'antd';
import { type KeyboardEvent, useMemo, useState } from 'react';
import type { KitState, MeasureCheck } from '@/core/kit';
import { differenceFromKnownGood, type KnownGoodRow, knownGoodRows, limitsOfCheck } from '@/core/loop';
import { parseDisplay, print } from '@/core/quantity';
import { unitOf } from '@/core/vocabulary';
import { useBench } from '@/store/bench';
import { useWindows } from '../results/useWindows';
import styles from './Fault.module.css';

/** Readings of a known-good board beside one's own: another channel, a finished kit, the maker's table of volts. */
export function KnownGood({ kit }: { kit: KitState }) {
  const rows = useMemo(() => knownGoodRows(kit), [kit]);
  const windows = useWindows(kit);
  const first = rows.filter((r) => r.differs).sort((a, b) => (b.share ?? 0) - (a.share ?? 0))[0];
  if (rows.length === 0) return <p className="soft">No checks to compare yet. Add stages with measurements on the Sheet.</p>;
  return (
    <div className={styles.table ?? ''} role="region" aria-label="Known-good board" tabIndex={0}>
      <p>
        Read the same points on a board that works, such as the other channel, and type them here. Or copy the maker’s table.{' '}
        {first && (
          <b>
            The largest difference is at {first.check.title} ({first.stage.title}): {differenceFromKnownGood(first)}.
          </b>
        )}
      </p>
      <Table<KnownGoodRow>
        size="small"
        rowKey={(r) => r.observable}
        dataSource={[...rows]}
        pagination={false}
        sticky
        columns={[
          { title: 'check', key: 'check', rowScope: 'row', render: (_, r) => `${r.check.title} (${r.stage.title})` },
          { title: 'expected', key: 'expected', align: 'right', className: 'num', render: (_, r) => limitsOfCheck(r.stage, r.check, windows) ?? '–' },
          { title: 'this board', key: 'own', align: 'right', className: 'num', render: (_, r) => shown(r.own, r.check) },
          { title: 'known-good board', key: 'good', render: (_, r) => <GoodField row={r} meter={kit.settings.meter} /> },
          {
            title: 'difference',
            key: 'difference',
            align: 'right',
            onCell: (r) => ({ className: r.differs === null ? '' : ((r.differs ? styles.not : styles.fits) ?? '') }),
            render: (_, r) => differenceFromKnownGood(r),
          },
        ]}
      />
    </div>
  );
}

const shown = (reading: number | 'over' | null, check: MeasureCheck) =>
  reading === null ? '–' : reading === 'over' ? 'OL' : print(reading, unitOf(check.mode));

/** One reading of the known-good board; emptied, it is removed. */
function GoodField({ row, meter }: { row: KnownGoodRow; meter: string }) {
  const append = useBench((s) => s.append);
  const said = row.good === null ? '' : shown(row.good, row.check);
  const [text, setText] = useState<string | null>(null);
  const [error, setError] = useState('');
  const save = () => {
    if (text === null || text === said) return;
    const target = { stage: row.stage.id, check: row.check.id, meter } as const;
    if (text.trim() === '') {
      if (row.good !== null) void append({ kind: 'referenced', ...target, reading: null });
    } else {
      const read = parseDisplay(text, unitOf(row.check.mode));
      if (!read.ok) {
        setError(`${read.message}.`);
        return;
      }
      void append({ kind: 'referenced', ...target, reading: read.kind === 'over' ? 'over' : read.value });
    }
    setText(null);
    setError('');
  };
  const onKeyDown = (e: KeyboardEvent<HTMLInputElement>) => {
    if (e.key === 'Enter') save();
    else if (e.key === 'Escape') {
      setText(null);
      setError('');
    } else return;
    e.stopPropagation();
  };
  return (
    <>
      <Input
        size="small"
        className={styles.good ?? ''}
        aria-label={`Known-good board: ${row.check.title} (${row.stage.title})`}
        value={text ?? said}
        status={error === '' ? '' : 'error'}
        onChange={(e) => {
          setText(e.target.value);
        }}
        onKeyDown={onKeyDown}
        onBlur={save}
      />
      {error !== '' && <small role="alert">{error}</small>}
    </>
  );
}
