import { CopyOutlined } from '@ant-design/icons';
import { App, Button, Form, Table } from 'antd';
import { useMemo } from 'react';
import type { KitState } from '@/core/kit';
import { lineTitle } from '@/core/loop';
import { type ShoppingItem, shoppingList, shoppingText } from '@/core/report';
import { useBench } from '@/store/bench';
import { copyText } from '../shell/copyText';
import { Nothing } from '../drawn/Nothing';
import { Choose } from '../form/Choose';
import { InlineForm } from '../form/InlineForm';
import { TextItem } from '../form/Items';
import { required } from '../form/rules';
import zones from '../shell/zones.module.css';
import styles from './records/Records.module.css';

/** What to buy or ask for, and what came in another parcel. */
export function Parcels({ kit }: { kit: KitState }) {
  const items = useMemo(() => shoppingList(kit), [kit]);
  return (
    <div className={`${zones.zones} ${zones.halves}`}>
      <section className={zones.card} aria-label="Shopping list">
        <ShoppingTable items={items} />
      </section>
      <section className={zones.card} aria-label="Another parcel">
        <AnotherParcel kit={kit} items={items} />
      </section>
    </div>
  );
}

function ShoppingTable({ items }: { items: readonly ShoppingItem[] }) {
  const { message } = App.useApp();
  const append = useBench((s) => s.append);
  const copy = () => {
    copyText(shoppingText(items)).then(
      () => void message.success('The list is on the clipboard.'),
      () => void message.error('The browser did not let the list be copied. Mark it and copy it by hand.'),
    );
  };
  return (
    <>
      <div className={styles.head}>
        <h2 className={zones.label}>Missing, or better replaced</h2>
        <Button size="small" icon={<CopyOutlined />} disabled={items.length === 0} onClick={copy}>
          Copy the list
        </Button>
      </div>
      <Table<ShoppingItem>
        size="small"
        rowKey="id"
        pagination={false}
        dataSource={[...items]}
        locale={{ emptyText: <Nothing say="Nothing is missing among what was counted and measured, and nothing else is needed." /> }}
        columns={[
          { title: 'pieces', dataIndex: 'quantity', width: 70, className: 'num' },
          { title: 'what', key: 'what', rowScope: 'row', render: (_, i) => (i.line ? lineTitle(i.line) : i.text) },
          { title: 'why', dataIndex: 'why' },
          {
            title: <span className="sr-only">came</span>,
            key: 'came',
            width: 100,
            render: (_, i) =>
              i.line && (
                <Button
                  size="small"
                  onClick={() => {
                    void append({ kind: 'received', line: i.line!.id, quantity: i.quantity, ...(i.instead.length > 0 ? { instead: [...i.instead] } : {}) });
                  }}
                >
                  It came
                </Button>
              ),
          },
        ]}
      />
    </>
  );
}

interface Values {
  readonly line?: string;
  readonly quantity?: string;
  readonly aside?: string;
}

/** Pieces that came later: they join their line, and what they replace is put aside. */
function AnotherParcel({ kit, items }: { kit: KitState; items: readonly ShoppingItem[] }) {
  const append = useBench((s) => s.append);
  const [form] = Form.useForm<Values>();
  const line = Form.useWatch('line', form);
  const replaceable = items.find((i) => i.line?.id === line)?.instead ?? [];
  const done = ({ line: id, quantity = '0', aside }: Values) => {
    if (!id) return;
    const instead = aside === 'yes' ? replaceable.slice(0, Number(quantity)) : [];
    void append({ kind: 'received', line: id, quantity: Number(quantity), ...(instead.length > 0 ? { instead } : {}) });
    form.resetFields();
  };
  return (
    <>
      <h2 className={zones.label}>Another parcel came</h2>
      <p className="soft">Its pieces join their lines and are asked for under Check. The pieces that they replace are put aside.</p>
      <InlineForm<Values> name="parcel" form={form} submit="It came" done={done} initial={{ aside: 'yes' }}>
        <Form.Item name="line" label="Line" rules={[required('Which line do they belong to?')]} className={styles.middle ?? ''}>
          <Choose options={kit.sheet.lines.map((l) => ({ value: l.id, label: lineTitle(l) }))} />
        </Form.Item>
        <TextItem
          name="quantity"
          label="Pieces"
          wide="s"
          rules={[required('How many?'), { pattern: /^[1-9]\d{0,3}$/, message: 'Type a whole number from 1.' }]}
        />
        {replaceable.length > 0 && (
          <Form.Item name="aside" label={`${replaceable.length} out of tolerance`} className={styles.middle ?? ''}>
            <Choose
              options={[
                { value: 'yes', label: 'put aside for them' },
                { value: 'no', label: 'kept as well' },
              ]}
            />
          </Form.Item>
        )}
      </InlineForm>
    </>
  );
}
