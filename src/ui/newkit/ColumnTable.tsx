import { Table, type TableProps } from 'antd';
import type { Column, Columns, PartsList } from '@/core/partslist';
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
const LOOKED_AT = 50;

interface Props {
  readonly list: PartsList;
  readonly setColumns: (columns: Columns | null) => void;
}

type Cells = PartsList['cells'][number];

/** What the columns of a table hold; each can be corrected. Running text has none. */
export function ColumnTable({ list, setColumns }: Props) {
  const filled = list.cells.filter((r) => r.cells.some((c) => c.trim() !== ''));
  const width = Math.max(0, ...filled.slice(0, LOOKED_AT).map((r) => r.cells.length));
  if (width < 2) return null;
  const choose = (index: number, name: Column | null) => {
    setColumns(Array.from({ length: width }, (_, i) => (i === index ? name : list.columns[i] === name ? null : (list.columns[i] ?? null))));
  };
  const columns: TableProps<Cells>['columns'] = Array.from({ length: width }, (_, i) => ({
    key: i,
    title: (
      <Choose
        size="small"
        className={styles.columns ?? ''}
        aria-label={`Column ${i + 1}`}
        value={list.columns[i] ?? null}
        options={[{ value: null, label: 'ignored' }, ...COLUMNS]}
        onChange={(name: Column | null) => {
          choose(i, name);
        }}
      />
    ),
    ellipsis: true,
    render: (_: unknown, r: Cells) => r.cells[i] ?? '',
  }));
  // Scrolled by its frame: the table's own scrolling keeps a hidden copy of its heading, choices and all.
  return (
    <section aria-label="Columns of the list">
      <h2 className={styles.label}>Columns: correct any that are wrong</h2>
      <div className={styles.wide}>
        <Table<Cells>
          size="small"
          rowKey="line"
          aria-label="Columns"
          columns={columns}
          dataSource={filled.slice(0, SHOWN_ROWS)}
          pagination={false}
          rowClassName={(r) => (r.line === list.heading ? 'soft' : '')}
        />
      </div>
    </section>
  );
}
