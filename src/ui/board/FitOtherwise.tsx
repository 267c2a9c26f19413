import { Button, Form, Modal } from 'antd';
import { useState } from 'react';
import type { KitState } from '@/core/kit';
import { inOtherPlace, leftOut, otherValue, type Target } from '@/core/loop';
import { factsOf } from '@/core/vocabulary';
import { useBench } from '@/store/bench';
import { Choose } from '../form/Choose';
import { QuantityItem } from '../form/Items';
import { readQuantity, required } from '../form/rules';
import zones from '../shell/zones.module.css';

interface Values {
  readonly ref: string;
  readonly value?: string;
  readonly place?: string;
}
type Way = 'value' | 'place';

const TITLE = { value: 'Another value goes in', place: 'It was soldered in another place' } as const;

/** Not as the list has it: another value, left out, or in another place. Each changes the board, and with it the circuit. */
export function FitOtherwise({ kit, target, letGo }: { kit: KitState; target: Extract<Target, { kind: 'fit' }>; letGo: () => void }) {
  const append = useBench((s) => s.append);
  const [way, setWay] = useState<Way | null>(null);
  const [form] = Form.useForm<Values>();
  const { unit } = factsOf(target.line.kind);
  const open = target.refs.filter((r) => !kit.board.fitted.has(r));
  const places = kit.sheet.lines.filter((l) => l.kind === target.line.kind).flatMap((l) => l.refs.filter((r) => !target.refs.includes(r)));
  const done = ({ ref, value, place }: Values) => {
    const read = readQuantity(value, unit);
    setWay(null);
    if (way === 'value' && read !== null) void append(otherValue(ref, read)).then(letGo);
    if (way === 'place' && place) void append((k) => inOtherPlace(k, ref, place)).then(letGo);
  };
  return (
    <div className={zones.row}>
      {unit !== null && (
        <Button
          size="small"
          onClick={() => {
            setWay('value');
          }}
        >
          Another value
        </Button>
      )}
      {places.length > 0 && (
        <Button
          size="small"
          onClick={() => {
            setWay('place');
          }}
        >
          In another place
        </Button>
      )}
      <Button
        size="small"
        onClick={() => {
          void append(leftOut(open)).then(letGo);
        }}
      >
        Left out
      </Button>
      <Modal
        open={way !== null}
        title={way && TITLE[way]}
        okText="Note it"
        onCancel={() => {
          setWay(null);
        }}
        onOk={() => {
          form.submit();
        }}
        destroyOnHidden
      >
        <Form<Values>
          form={form}
          layout="vertical"
          requiredMark={false}
          preserve={false}
          initialValues={{ ref: open[0] ?? target.refs[0] ?? '' }}
          onFinish={done}
        >
          <Form.Item name="ref" label="Position on the list">
            <Choose options={target.refs.map((value) => ({ value }))} />
          </Form.Item>
          {way === 'value' && <QuantityItem name="value" label="Value that goes in" unit={unit} wide="m" rules={[required('Which value?')]} />}
          {way === 'place' && (
            <Form.Item name="place" label="Sits at" rules={[required('At which position?')]}>
              <Choose options={places.map((value) => ({ value }))} />
            </Form.Item>
          )}
        </Form>
        <p className="soft">
          {way === 'value'
            ? 'Limits and suspects now use this value.'
            : 'That position then holds this part’s value, and this part’s own position stays empty. If that is wrong, take the part out first: readings would mislead you.'}
        </p>
      </Modal>
    </div>
  );
}
