import { Table, type TableProps } from 'antd';
import { useMemo } from 'react';
import type { Line, Need } from '@/core/kit';
import type { Column, Columns, PartsList, TableRow } from '@/core/partslist';
import { printNominal, printTolerance } from '@/core/quantity';
import { factsOf } from '@/core/vocabulary';
import styles from '../shelf/Shelf.module.css';
import { Choose } from '../form/Choose';

const COLUMNS: readonly { readonly value: Column; readonly label: string }[] = [
  { value: 'refs', label: 'positions' },
  { value: 'board', label: 'board' },
  { value: 'kind', label: 'what it is' },
  { value: 'value', label: 'value' },
  { value: 'tolerance', label: 'tolerance' },
  { value: 'quantity', label: 'count' },
  { value: 'package', label: 'body' },
  { value: 'note', label: 'note' },
];
const SHOWN_ROWS = 8;
const SHOWN_LINES = 200;
const LOOKED_AT = 50;

interface Props {
  readonly rows: readonly TableRow[];
  readonly list: PartsList;
  readonly setColumns: (columns: Columns | null) => void;
}

/** How the list was understood: its columns, which can be corrected, and the lines that come of it. */
export function ListPreview({ rows, list, setColumns }: Props) {
  const width = Math.max(0, ...rows.slice(0, LOOKED_AT).map((r) => r.cells.length));
  return (
    <section aria-label="How the list was read">
      <h2 className={styles.label}>
        {list.way === 'table' ? 'Read as a table. Correct a column where it is wrong:' : 'Read as free lines, each with its own words.'}
      </h2>
      {width > 1 && <ColumnTable rows={rows} list={list} width={width} setColumns={setColumns} />}
      <LinesUnderstood list={list} />
    </section>
  );
}

function ColumnTable({ rows, list, width, setColumns }: Props & { readonly width: number }) {
  const filled = rows.filter((r) => r.cells.some((c) => c.trim() !== ''));
  const choose = (index: number, name: Column | null) => {
    setColumns(Array.from({ length: width }, (_, i) => (i === index ? name : list.columns[i] === name ? null : (list.columns[i] ?? null))));
  };
  const columns: TableProps<TableRow>['columns'] = Array.from({ length: width }, (_, i) => ({
    key: i,
    title: (
      <Choose
        size="small"
        className={styles.columns ?? ''}
        aria-label={`Column ${i + 1}`}
        value={list.columns[i] ?? null}
        options={[{ value: null, label: 'passed over' }, ...COLUMNS]}
        onChange={(name: Column | null) => {
          choose(i, name);
        }}
      />
    ),
    ellipsis: true,
    render: (_: unknown, r: TableRow) => r.cells[i] ?? '',
  }));
  // Scrolled by its frame: the table's own scrolling keeps a hidden copy of its heading, choices and all.
  return (
    <div className={styles.wide}>
      <Table<TableRow>
        size="small"
        rowKey="line"
        aria-label="Columns"
        columns={columns}
        dataSource={filled.slice(0, SHOWN_ROWS)}
        pagination={false}
        rowClassName={(_, k) => (k === list.heading ? 'soft' : '')}
      />
    </div>
  );
}

type Understood = { readonly id: string; readonly line: Line } | { readonly id: string; readonly need: Need };

const UNDERSTOOD: NonNullable<TableProps<Understood>['columns']> = [
  { title: 'positions', key: 'refs', className: 'num', render: (_, u) => ('line' in u && u.line.refs.join(' ')) || '–' },
  { title: 'what it is', key: 'what', render: (_, u) => ('line' in u ? whatItIs(u.line) : `needed, not supplied: ${u.need.text}`) },
  { title: 'value', key: 'value', className: 'num', render: (_, u) => ('line' in u ? valueOf(u.line) : '') },
  { title: 'tolerance', key: 'tolerance', className: 'num', render: (_, u) => ('line' in u && u.line.tolerance ? printTolerance(u.line.tolerance) : '') },
  { title: 'count', key: 'count', className: 'num', render: (_, u) => ('line' in u ? u.line.quantity : '') },
];

const valueOf = (l: Line) => (l.value !== null ? printNominal(l.value, factsOf(l.kind).unit) : (l.colour ?? l.type ?? l.label));
const whatItIs = (l: Line) => `${factsOf(l.kind).word}${l.notFitted ? ', not fitted' : ''}${l.option ? `, only with ${l.option.split('=')[0]!}` : ''}`;

function LinesUnderstood({ list }: { list: PartsList }) {
  const data = useMemo(
    (): Understood[] => [...list.lines.slice(0, SHOWN_LINES).map((line) => ({ id: line.id, line })), ...list.needs.map((need) => ({ id: need.id, need }))],
    [list],
  );
  return (
    <div role="region" aria-label="Lines understood" className={styles.preview}>
      <Table<Understood> size="small" rowKey="id" columns={UNDERSTOOD} dataSource={data} pagination={false} scroll={{ y: 300 }} />
    </div>
  );
}
