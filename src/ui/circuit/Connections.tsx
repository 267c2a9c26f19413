import { DeleteOutlined } from '@ant-design/icons';
import { AutoComplete, Button, Input, Table, type TableProps } from 'antd';
import { useMemo } from 'react';
import { type Connection, connectionsOf, editConnection, removeConnection } from '@/core/circuit';
import styles from './Circuit.module.css';
import { Nothing } from '../drawn/Nothing';

const VIRTUAL_ABOVE = 100;

/** The circuit as a table: part, pins and nets. Every net and value can be changed without knowing SPICE. */
export function Connections({ deck, change }: { deck: string; change: (deck: string) => void }) {
  const rows = useMemo(() => connectionsOf(deck), [deck]);
  const columns = useMemo((): TableProps<Connection>['columns'] => {
    const nets = [...new Set(rows.flatMap((r) => r.pins.map((p) => p.net)))].map((value) => ({ value }));
    return [
      { title: 'part', dataIndex: 'name', width: 80, className: 'num', rowScope: 'row' },
      { title: 'pins and nets', key: 'pins', width: 250, render: (_, r) => <Pins row={r} nets={nets} deck={deck} change={change} /> },
      { title: 'value or model', key: 'rest', width: 140, render: (_, r) => <Value row={r} deck={deck} change={change} /> },
      {
        title: <span className="sr-only">remove</span>,
        key: 'remove',
        width: 44,
        render: (_, r) => (
          <Button
            type="text"
            size="small"
            icon={<DeleteOutlined />}
            aria-label={`Remove ${r.name}`}
            onClick={() => {
              change(removeConnection(deck, r.name));
            }}
          />
        ),
      },
    ];
  }, [rows, deck, change]);
  if (rows.length === 0) return <Nothing say="Nothing is connected yet. Add a block, or write the deck on the left." />;
  const many = rows.length > VIRTUAL_ABOVE;
  return (
    <Table<Connection>
      size="small"
      rowKey="name"
      columns={columns ?? []}
      dataSource={rows}
      pagination={false}
      virtual={many}
      {...(many ? { scroll: { x: 520, y: 460 } } : {})}
    />
  );
}

interface CellProps {
  readonly row: Connection;
  readonly deck: string;
  readonly change: (deck: string) => void;
}

function Pins({ row, nets, deck, change }: CellProps & { readonly nets: { value: string }[] }) {
  return (
    <span className={styles.pins}>
      {row.pins.map((p, i) => {
        const set = (text: string) => {
          const net = text.replace(/\s/g, '');
          if (net !== '' && net !== p.net) change(editConnection(deck, row.name, { pin: i, net }));
        };
        return (
          <label key={i} className={styles.pin}>
            {p.pin}
            <AutoComplete
              key={p.net}
              size="small"
              className={styles.net ?? ''}
              aria-label={`${row.name} ${p.pin}`}
              defaultValue={p.net}
              options={nets}
              showSearch={{ filterOption: true }}
              onSelect={set}
              onBlur={(e) => {
                set((e.target as HTMLInputElement).value);
              }}
            />
          </label>
        );
      })}
    </span>
  );
}

function Value({ row, deck, change }: CellProps) {
  return (
    <Input
      key={row.rest}
      size="small"
      aria-label={`${row.name} value`}
      defaultValue={row.rest}
      maxLength={200}
      onBlur={(e) => {
        const rest = e.target.value.trim();
        if (rest !== '' && rest !== row.rest) change(editConnection(deck, row.name, { rest }));
      }}
    />
  );
}
