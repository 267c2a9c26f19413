import { Form, Input, InputNumber, Select } from 'antd';
import { useState } from 'react';
import type { Compartment, EntryBody, KitState } from '@/core/kit';
import { lineTitle, readPileEntry } from '@/core/loop';
import type { PieceKind } from '@/core/vocabulary';
import { useBench } from '@/store/bench';
import { InlineForm } from '../form/InlineForm';

interface Fields {
  readonly kind: PieceKind;
  readonly what: string;
  readonly quantity: number;
  readonly instead?: string;
}

const KINDS: readonly { readonly value: PieceKind; readonly label: string }[] = [
  { value: 'R', label: 'resistor' },
  { value: 'C', label: 'capacitor' },
  { value: 'L', label: 'coil' },
  { value: 'D', label: 'diode' },
  { value: 'LED', label: 'LED' },
  { value: 'Q', label: 'transistor' },
  { value: 'X', label: 'something else' },
];

/** In words or as the meter shows it: never longer than a label. */
const MOST_LETTERS = 60;
const MOST_PIECES = 99;

/** What came in place of something, or is on no line at all: one step puts it into tray, letter and shopping list. */
export function Unlisted({ kit, tray }: { kit: KitState; tray: readonly Compartment[] }) {
  const append = useBench((s) => s.append);
  const [form] = Form.useForm<Fields>();
  const [said, setSaid] = useState('');
  const options = tray.map((c) => ({ value: c.line.id, label: `${lineTitle(c.line)} ${c.line.refs.slice(0, 4).join(' ')}`.trim() }));
  const add = ({ kind, what, quantity, instead }: Fields) => {
    const read = kind === 'X' ? { ok: true as const, body: { part: kind, reading: null, marking: what.trim(), polarity: null } } : readPileEntry(what, kind);
    if (!read.ok) {
      form.setFields([{ name: 'what', errors: [`${read.message}.`] }]);
      return;
    }
    const line = tray.find((c) => c.line.id === instead);
    const pieces = Array.from({ length: quantity }, (): EntryBody => ({ kind: 'loose', ...read.body, meter: kit.settings.meter, instead: instead ?? null }));
    // They take the place of listed pieces: a line that was not counted yet is counted with it.
    const counted: EntryBody[] =
      line && line.counted === null ? [{ kind: 'counted', line: line.line.id, quantity: Math.max(0, line.line.quantity - quantity) }] : [];
    void append([...counted, ...pieces]).then(() => {
      form.resetFields(['what', 'quantity', 'instead']);
      setSaid(`Noted: ${quantity} × ${what.trim()}${line ? ` in place of ${lineTitle(line.line)}` : ', not on the list'}.`);
    });
  };
  return (
    <InlineForm<Fields> name="unlisted" submit="Add these pieces" form={form} initial={{ kind: 'R', quantity: 1 }} done={add} said={said}>
      <Form.Item name="quantity" label="Pieces" rules={[{ required: true, message: 'How many?' }]}>
        <InputNumber min={1} max={MOST_PIECES} precision={0} />
      </Form.Item>
      <Form.Item name="kind" label="Kind">
        <Select options={[...KINDS]} popupMatchSelectWidth={false} />
      </Form.Item>
      <Form.Item
        name="what"
        label="Marking or value"
        rules={[{ required: true, whitespace: true, message: 'What is printed on it, or what does the meter show?' }]}
      >
        <Input placeholder="47k" maxLength={MOST_LETTERS} autoComplete="off" />
      </Form.Item>
      <Form.Item name="instead" label="Came in place of">
        <Select allowClear showSearch={{ optionFilterProp: 'label' }} placeholder="nothing: not on the list" options={options} popupMatchSelectWidth={false} />
      </Form.Item>
    </InlineForm>
  );
}
