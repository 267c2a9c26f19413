import { Table, type TableProps } from 'antd';
import { useMemo } from 'react';
import { type Findings, type PredictedCell, shownSuspects, type TableRow } from '@/core/diagnose';
import { describeFaults } from '@/core/fault';
import { namingOf } from '@/core/loop';
import type { KitState } from '@/core/kit';
import { predictedText, seenText } from './evidence';
import styles from './Fault.module.css';
import { rowTitle } from './words';

/** What was seen, what a healthy board shows, what each suspect would show; what to read next last. */
export function Predictions({ kit, findings }: { kit: KitState; findings: Findings }) {
  const columns = useMemo(() => columnsOf(kit, findings), [kit, findings]);
  return (
    // It scrolls: keys reach it.
    <div className={styles.table ?? ''} role="region" aria-label="Predictions" tabIndex={0}>
      <Table<TableRow>
        size="small"
        rowKey="id"
        columns={columns}
        dataSource={[...findings.rows]}
        pagination={false}
        sticky
        rowClassName={(r) => (r.seen === null ? (styles.next ?? '') : '')}
      />
    </div>
  );
}

function columnsOf(kit: KitState, findings: Findings): NonNullable<TableProps<TableRow>['columns']> {
  const cell = (title: string, key: string, of: (r: TableRow) => PredictedCell | null) => ({
    title,
    key,
    align: 'right' as const,
    onCell: (r: TableRow) => ({ className: toneOf(of(r), r) }),
    render: (_: unknown, r: TableRow) => <Cell cell={of(r)} row={r} />,
  });
  return [
    {
      title: 'reading',
      key: 'reading',
      rowScope: 'row',
      render: (_, r) => (r.seen === null ? <b>Next: {rowTitle(kit, r.id, findings.rows)}</b> : rowTitle(kit, r.id, findings.rows)),
    },
    {
      title: 'seen',
      key: 'seen',
      align: 'right',
      className: 'num',
      render: (_, r) => seenText(r),
    },
    cell('healthy', 'healthy', (r) => r.healthy),
    ...shownSuspects(findings.suspects).map((s, i) => cell(describeFaults(s.faults, namingOf(kit)).title, `s${i}`, (r) => r.suspects[i] ?? null)),
  ];
}

const toneOf = (cell: PredictedCell | null, row: TableRow) => (!cell || row.seen === null ? '' : ((cell.fits ? styles.fits : styles.not) ?? ''));

function Cell({ cell, row }: { cell: PredictedCell | null; row: TableRow }) {
  if (!cell) return <span className="num">–</span>;
  return (
    <span className="num">
      {predictedText(cell, row)}
      {row.seen !== null && <span className="sr-only">{cell.fits ? ' fits' : ' does not fit'}</span>}
    </span>
  );
}
