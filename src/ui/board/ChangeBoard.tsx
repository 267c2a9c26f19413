import { Form, Modal, Switch } from 'antd';
import { useMemo } from 'react';
import { amend } from '@/core/draft';
import type { EntryBody, KitState, Modification, Ref } from '@/core/kit';
import { factsOf } from '@/core/vocabulary';
import { useBench } from '@/store/bench';
import { newId } from '@/store/stamps';
import { readQuantity } from '../form/rules';
import { FieldItem } from '../sheet/records/FieldItem';
import type { Field, FormValues } from '../sheet/records/fields';
import records from '../sheet/records/Records.module.css';
import { netsOfKit, refsOfKit } from '../sheet/records/specs';

interface Props {
  readonly kit: KitState;
  /** The part that it begins with, where one is in hand. */
  readonly at: Ref | null;
  readonly close: () => void;
}

type What = Exclude<Modification['what'], 'strap'>;

const WHATS: readonly { readonly value: What; readonly label: string }[] = [
  { value: 'value-replaced', label: 'Another value is fitted' },
  { value: 'part-added', label: 'A part is added' },
  { value: 'track-cut', label: 'A track is cut at a pin' },
  { value: 'link', label: 'A link joins two nets' },
  { value: 'unplugged', label: 'Something is unplugged or taken out' },
  { value: 'other', label: 'Something else: new firmware, another lead' },
];

/** A change of the board itself: for good, for a test, or because a slip amends the kit. Earlier readings are judged by the board as it was. */
export function ChangeBoard({ kit, at, close }: Props) {
  const append = useBench((s) => s.append);
  const [form] = Form.useForm<FormValues>();
  const what = (Form.useWatch('what', form) as What | undefined) ?? 'value-replaced';
  const ref = Form.useWatch('ref', form) as string | undefined;
  const kind = (Form.useWatch('kind', form) as string | undefined) ?? 'R';
  const temporary = Form.useWatch('temporary', form) as boolean | undefined;
  const slip = (what === 'part-added' || what === 'value-replaced') && temporary !== true;
  const unit = useMemo(() => {
    if (what === 'part-added') return ({ R: 'ohm', C: 'F', L: 'H' } as const)[kind as 'R' | 'C' | 'L'];
    const line = kit.sheet.lines.find((l) => l.refs.includes(ref ?? ''));
    return line ? factsOf(line.kind).unit : null;
  }, [what, kind, kit.sheet.lines, ref]);
  const fields = fieldsOf(kit, what, unit);
  const done = (values: FormValues) => {
    const amendment = slip && values['slip'] === true;
    void append((k) => (amendment ? amended(k, what, values, unit) : written(what, values, unit)));
    close();
  };
  return (
    <Modal
      open
      title="Change the board"
      okText="Note it"
      onCancel={close}
      onOk={() => {
        form.submit();
      }}
    >
      <Form<FormValues>
        form={form}
        name="change-board"
        layout="vertical"
        requiredMark={false}
        className={records.form ?? ''}
        initialValues={{ what: 'value-replaced', kind: 'R', ref: at ?? '', refs: at ? [at] : [], nets: ['', ''], pin: '1', name: nextName(kit, 'R') }}
        onFinish={done}
        onValuesChange={(changed: FormValues) => {
          if (changed['kind'] !== undefined) form.setFieldValue('name', nextName(kit, changed['kind'] as string));
        }}
      >
        <FieldItem field={{ key: 'what', label: 'What happens', type: 'choice', options: WHATS, required: 'Say what happens.' }} />
        {fields.map((f) => (
          <FieldItem key={`${what}-${f.key}`} field={f} />
        ))}
        <FieldItem field={{ key: 'why', label: 'Why', type: 'text', hint: 'the base hung on the output' }} />
        <Form.Item
          name="temporary"
          label="For a test only"
          valuePropName="checked"
          className={records.short ?? ''}
          extra="It stays in view until you put it back."
        >
          <Switch />
        </Form.Item>
        {slip && (
          <Form.Item
            name="slip"
            label="A slip from the seller says so"
            valuePropName="checked"
            className={records.middle ?? ''}
            extra="Corrects list and circuit: the board was always meant to be like this."
          >
            <Switch />
          </Form.Item>
        )}
      </Form>
    </Modal>
  );
}

function fieldsOf(kit: KitState, what: What, unit: Parameters<typeof readQuantity>[1]): readonly Field[] {
  const part: Field = { key: 'ref', label: 'Part', type: 'name', options: refsOfKit(kit), required: 'Which part?' };
  const value: Field = { key: 'value', label: 'Value', type: 'quantity', unit, required: 'Which value?' };
  const nets: Field = { key: 'nets', label: 'Between nets', type: 'pair', options: [...netsOfKit(kit), '0'], required: 'Name both nets.' };
  switch (what) {
    case 'value-replaced':
      return [part, value];
    case 'part-added':
      return [
        {
          key: 'kind',
          label: 'Kind',
          type: 'choice',
          options: [
            { value: 'R', label: 'resistor' },
            { value: 'C', label: 'capacitor' },
            { value: 'L', label: 'coil' },
          ],
          required: 'What kind of part?',
        },
        { key: 'name', label: 'Called', type: 'text', required: 'What is it called?' },
        value,
        nets,
      ];
    case 'track-cut':
      return [part, { key: 'pin', label: 'Pin left unconnected', type: 'text', required: 'Which pin?' }];
    case 'link':
      return [nets];
    case 'unplugged':
      return [{ key: 'refs', label: 'Parts or modules', type: 'names', options: refsOfKit(kit), required: 'What is unplugged?' }];
    case 'other':
      return [{ key: 'text', label: 'What is changed', type: 'text', required: 'What is changed, in a few words?', hint: 'firmware 1.2' }];
  }
}

function changeOf(what: What, v: FormValues, unit: Parameters<typeof readQuantity>[1]): Modification {
  const value = readQuantity(v['value'] as string | undefined, unit) ?? 0;
  switch (what) {
    case 'value-replaced':
      return { what, ref: v['ref'] as string, value };
    case 'part-added':
      return { what, kind: v['kind'] as 'R', name: v['name'] as string, value, nets: v['nets'] as [string, string] };
    case 'track-cut':
      return { what, ref: v['ref'] as string, pin: v['pin'] as string };
    case 'link':
      return { what, nets: v['nets'] as [string, string] };
    case 'unplugged':
      return { what, refs: v['refs'] as string[] };
    case 'other':
      return { what, text: (v['text'] as string).trim() };
  }
}

function written(what: What, v: FormValues, unit: Parameters<typeof readQuantity>[1]): EntryBody {
  const why = ((v['why'] as string | undefined) ?? '').trim();
  return { kind: 'modified', change: changeOf(what, v, unit), ...(v['temporary'] === true ? { temporary: true } : {}), ...(why ? { why } : {}) };
}

function amended(kit: KitState, what: What, v: FormValues, unit: Parameters<typeof readQuantity>[1]): readonly EntryBody[] {
  const change = changeOf(what, v, unit);
  const says = ((v['why'] as string | undefined) ?? '').trim() || 'amended by a slip';
  const id = () => `line-${newId().slice(0, 8)}`;
  if (change.what === 'part-added' && change.value !== null && change.kind !== 'D')
    return amend(kit, { what: 'add', kind: change.kind, name: change.name, value: change.value, nets: [...change.nets], says }, id);
  return change.what === 'value-replaced' ? amend(kit, { what: 'value', ref: change.ref, value: change.value, says }, id) : [];
}

/** The next free designator of a letter. */
function nextName(kit: KitState, letter: string): string {
  const taken = new Set([...refsOfKit(kit), ...kit.board.modifications.flatMap(({ change }) => (change.what === 'part-added' ? [change.name] : []))]);
  for (let n = 100; ; n++) if (!taken.has(`${letter}${n}`)) return `${letter}${n}`;
}
