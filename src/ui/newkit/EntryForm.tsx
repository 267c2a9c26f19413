import { Button, Form, Input, InputNumber, Select } from 'antd';
import type { Line } from '@/core/kit';
import { type Correction, expandRefs, type ListEntry } from '@/core/partslist';
import { parseQuantity, printNominal } from '@/core/quantity';
import { factsOf, LINE_KINDS, type LineKind } from '@/core/vocabulary';
import zones from '../shell/zones.module.css';
import { likeEntries } from './entryWords';
import styles from './NewKit.module.css';

interface Values {
  readonly kind: LineKind;
  readonly value: string;
  readonly type: string;
  readonly refs: string;
  readonly quantity: number;
  readonly volts: number | null;
  readonly watts: number | null;
  readonly amperes: number | null;
}

const KINDS = LINE_KINDS.map((value) => ({ value, label: factsOf(value).word }));
const lineOf = (entry: ListEntry): Line | null => ('line' in entry.became ? entry.became.line : null);
const asText = (l: Line) => (l.value === null ? '' : printNominal(l.value, factsOf(l.kind).unit));

/** Value as typed, in the kind's unit; an Error with what to write instead. */
function readValue(text: string, kind: LineKind): number | null {
  const { unit } = factsOf(kind);
  if (text.trim() === '' || unit === null || unit === 'ratio') return null;
  const parsed = parseQuantity(text, unit);
  if (!parsed.ok) throw new Error(parsed.message);
  return parsed.value;
}

/** What the form says against the reading: only fields that differ. */
function correctionOf(v: Values, line: Line | null): Correction {
  const value = readValue(v.value, v.kind);
  const { unit } = factsOf(v.kind);
  const rating = {
    ...(v.volts === null ? {} : { V: v.volts }),
    ...(v.watts === null ? {} : { W: v.watts }),
    ...(v.amperes === null ? {} : { A: v.amperes }),
  };
  return {
    kind: v.kind,
    value,
    unit: value === null || (unit !== 'ohm' && unit !== 'F' && unit !== 'H' && unit !== 'Hz' && unit !== 'V') ? null : unit,
    type: v.type.trim() || null,
    refs: expandRefs(v.refs) ?? line?.refs ?? [],
    quantity: v.quantity,
    rating: Object.keys(rating).length > 0 ? rating : null,
  };
}

interface Props {
  readonly entry: ListEntry;
  readonly entries: readonly ListEntry[];
  readonly correct: (corrections: Readonly<Record<string, Correction>>) => void;
}

/** Everything about one entry, corrected in place. */
export function EntryForm({ entry, entries, correct }: Props) {
  const [form] = Form.useForm<Values>();
  const line = lineOf(entry);
  const like = likeEntries(entries, entry);
  const start: Values = {
    kind: line?.kind ?? 'other',
    value: line ? asText(line) : '',
    type: line?.type ?? '',
    refs: line?.refs.join(' ') ?? '',
    quantity: line?.quantity ?? 1,
    volts: line?.rating?.volts ?? null,
    watts: line?.rating?.watts ?? null,
    amperes: line?.rating?.amperes ?? null,
  };
  const apply = (withLike: boolean) => {
    form
      .validateFields()
      .then((v) => {
        const mine = correctionOf(v, line);
        const others = withLike ? like.map((e) => [e.key, { kind: v.kind }] as const) : [];
        correct({ [entry.key]: mine, ...Object.fromEntries(others) });
      })
      .catch(() => undefined);
  };
  return (
    <Form<Values>
      form={form}
      layout="inline"
      size="small"
      initialValues={start}
      className={styles.entry ?? ''}
      aria-label={`Correct line ${entry.sources[0]!}`}
      onFinish={() => {
        apply(false);
      }}
    >
      <Form.Item<Values> name="kind" label="What it is">
        <Select options={KINDS} showSearch={{ optionFilterProp: 'label' }} className={styles.kinds ?? ''} />
      </Form.Item>
      <Form.Item<Values>
        name="value"
        label="Value"
        dependencies={['kind']}
        rules={[
          ({ getFieldValue }) => ({
            validator: (_, text: string) => {
              try {
                readValue(text, getFieldValue('kind') as LineKind);
                return Promise.resolve();
              } catch (error) {
                return Promise.reject(error instanceof Error ? error : new Error(String(error)));
              }
            },
          }),
        ]}
      >
        <Input placeholder="4k7" className={styles.short ?? ''} />
      </Form.Item>
      <Form.Item<Values> name="type" label="Type">
        <Input placeholder="BC547B" className={styles.short ?? ''} />
      </Form.Item>
      <Form.Item<Values>
        name="refs"
        label="Positions"
        rules={[{ validator: (_, text: string) => (expandRefs(text) === null ? Promise.reject(new Error('Write R1, R2 or R1-R4.')) : Promise.resolve()) }]}
      >
        <Input placeholder="R1-R4" />
      </Form.Item>
      <Form.Item<Values> name="quantity" label="Count">
        <InputNumber min={0} max={9999} precision={0} className={styles.tiny ?? ''} />
      </Form.Item>
      <Form.Item<Values> name="volts" label="V">
        <InputNumber min={0} className={styles.tiny ?? ''} aria-label="Rated volts" />
      </Form.Item>
      <Form.Item<Values> name="watts" label="W">
        <InputNumber min={0} className={styles.tiny ?? ''} aria-label="Rated watts" />
      </Form.Item>
      <Form.Item<Values> name="amperes" label="A">
        <InputNumber min={0} className={styles.tiny ?? ''} aria-label="Rated amperes" />
      </Form.Item>
      <div className={zones.row}>
        <Button type="primary" htmlType="submit">
          Correct this line
        </Button>
        {like.length > 0 && (
          <Button
            onClick={() => {
              apply(true);
            }}
          >
            {`Set this kind on ${like.length} more like it`}
          </Button>
        )}
        <Button
          onClick={() => {
            correct({ [entry.key]: { settled: 'no-part' } });
          }}
        >
          Not a part
        </Button>
      </div>
    </Form>
  );
}
