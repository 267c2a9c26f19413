import { AimOutlined, DeleteOutlined, PlusOutlined } from '@ant-design/icons';
import { AutoComplete, Button, Checkbox, Flex, Form, type FormRule, Input, Space, Switch } from 'antd';
import { lazy, Suspense, useState } from 'react';
import type { Unit } from '@/core/quantity';
import { Choose } from '../../form/Choose';
import { Names } from '../../form/Names';
import { quantityRule, readQuantity, required } from '../../form/rules';
import { type Field, readTolerance } from './fields';
import styles from './Records.module.css';

const MOST_LETTERS = 4000;

/** One field of a record, by its type. `path` leads to it from the form’s root inside rows. */
export function FieldItem({ field, path = [] }: { field: Field; path?: readonly (string | number)[] }) {
  const name = [...path, field.key];
  if (field.type === 'rows') return <Rows field={field} path={name} />;
  if (field.type === 'pair') return <Two field={field} path={name} labels={['One', 'The other']} options={field.options} />;
  if (field.type === 'limits') return <Limits field={field} path={name} />;
  const rules: FormRule[] = [
    ...(field.required === undefined ? [] : [field.type === 'names' ? { required: true, message: field.required } : required(field.required)]),
    ...rulesOf(field),
  ];
  return (
    <Form.Item name={name} label={field.label} rules={rules} {...(field.type === 'flag' ? { valuePropName: 'checked' } : {})} className={widthOf(field)}>
      {inputOf(field)}
    </Form.Item>
  );
}

function widthOf({ type }: Field): string {
  if (type === 'area' || type === 'lines' || type === 'pins' || type === 'names' || type === 'several') return styles.whole ?? '';
  return (type === 'quantity' || type === 'count' || type === 'number' || type === 'tolerance' || type === 'flag' ? styles.short : styles.middle) ?? '';
}

function rulesOf(field: Field): FormRule[] {
  switch (field.type) {
    case 'quantity':
      return [quantityRule(field.unit)];
    case 'count':
      return [{ pattern: /^\d{1,5}$/, message: 'Type a whole number.' }];
    case 'number':
      return [{ pattern: /^[-+]?\d*[.,]?\d+(e[-+]?\d+)?$/i, message: 'Type a number.' }];
    case 'tolerance':
      return [
        {
          validator: (_, text: string | undefined) =>
            (text ?? '').trim() === '' || readTolerance(text!) ? Promise.resolve() : Promise.reject(new Error('Type per cent, such as 5 or -20/+80.')),
        },
      ];
    default:
      return [];
  }
}

const found = (text: string, option: { value: string } | undefined) => (option?.value ?? '').toLowerCase().includes(text.toLowerCase());

function inputOf(field: Exclude<Field, { type: 'rows' | 'pair' | 'limits' }>) {
  const hint = field.hint ? { placeholder: field.hint } : {};
  switch (field.type) {
    case 'area':
    case 'lines':
    case 'pins':
      return <Input.TextArea autoSize={{ minRows: 2, maxRows: 8 }} maxLength={MOST_LETTERS} {...hint} />;
    case 'flag':
      return <Switch />;
    case 'choice':
      return <Choose options={field.options.map((o) => ({ ...o }))} allowClear={field.required === undefined} {...hint} />;
    case 'name':
      return <Offered options={field.options} {...hint} />;
    case 'place':
      return <Probed label={field.label} options={field.places} {...hint} />;
    case 'several':
      return field.options.length === 0 ? <small className="soft">{field.none}</small> : <Checkbox.Group options={field.options.map((o) => ({ ...o }))} />;
    case 'names':
      return <Names options={field.options} {...hint} />;
    default:
      return <Input autoComplete="off" spellCheck={false} maxLength={MOST_LETTERS} {...hint} />;
  }
}

/** Free text with proposals; the form hands value and change through. */
const Offered = ({ options, ...props }: { options: readonly string[] }) => (
  <AutoComplete options={options.map((value) => ({ value }))} showSearch={{ filterOption: found }} {...props} />
);

const PickOnMap = lazy(() => import('../../board/PickOnMap').then((m) => ({ default: m.PickOnMap })));

interface ProbedProps {
  readonly label: string;
  readonly options: readonly string[];
  readonly value?: string;
  readonly onChange?: (value: string) => void;
}

/** Where a probe goes: typed, chosen, or pressed on the map. */
function Probed({ label, options, ...held }: ProbedProps) {
  const [picking, setPicking] = useState(false);
  return (
    <Space.Compact block>
      <Offered options={options} {...held} />
      <Button
        icon={<AimOutlined />}
        aria-label={`${label}: press it on the map`}
        title="Press it on the map"
        onClick={() => {
          setPicking(true);
        }}
      />
      <Suspense>
        {picking && (
          <PickOnMap
            title={label}
            picked={(place) => held.onChange?.(place)}
            close={() => {
              setPicking(false);
            }}
          />
        )}
      </Suspense>
    </Space.Compact>
  );
}

function Two({
  field,
  path,
  labels,
  options,
}: {
  field: Field;
  path: readonly (string | number)[];
  labels: readonly [string, string];
  options: readonly string[];
}) {
  return (
    <Form.Item label={field.label} className={styles.whole ?? ''} required={field.required !== undefined}>
      <Flex gap="small">
        {[0, 1].map((i) => (
          <Form.Item
            key={i}
            name={[...path, i]}
            noStyle
            dependencies={[[...path, 1 - i]]}
            rules={[
              required(field.required ?? 'Name both.'),
              (form) => ({
                validator: (_, value: string | undefined) =>
                  i === 1 && value && value === (form.getFieldValue([...path, 0]) as string)
                    ? Promise.reject(new Error('Both are the same. Name two.'))
                    : Promise.resolve(),
              }),
            ]}
          >
            <AutoComplete
              aria-label={`${field.label}: ${labels[i]!.toLowerCase()}`}
              options={options.map((value) => ({ value }))}
              showSearch={{ filterOption: found }}
            />
          </Form.Item>
        ))}
      </Flex>
    </Form.Item>
  );
}

/** A lower and an upper limit; the wrong way round is said at the upper one. */
function Limits({ field, path }: { field: Extract<Field, { type: 'limits' }>; path: readonly (string | number)[] }) {
  return (
    <Form.Item label={field.label} className={styles.whole ?? ''} {...(field.hint ? { extra: field.hint } : {})}>
      <Flex gap="small">
        {(['from', 'to'] as const).map((word, i) => (
          <Form.Item
            key={word}
            name={[...path, i]}
            dependencies={[[...path, 1 - i]]}
            className={styles.short ?? ''}
            rules={[quantityRule(field.unit), wayRound(path, i, field.unit)]}
          >
            <Input aria-label={`${field.label}, ${word}`} prefix={<small className="soft">{word}</small>} autoComplete="off" />
          </Form.Item>
        ))}
      </Flex>
    </Form.Item>
  );
}

const wayRound =
  (path: readonly (string | number)[], i: number, unit: Unit | null): FormRule =>
  (form) => ({
    validator: (_, text: string | undefined) => {
      if (i === 0 || !text) return Promise.resolve();
      const [low, high] = [readQuantity(form.getFieldValue([...path, 0]) as string | undefined, unit), readQuantity(text, unit)];
      return low !== null && high !== null && low > high ? Promise.reject(new Error('Lower limit first: swap the two values.')) : Promise.resolve();
    },
  });

/** Rows of fields that one adds and takes away. */
function Rows({ field, path }: { field: Extract<Field, { type: 'rows' }>; path: readonly (string | number)[] }) {
  return (
    <Form.List name={[...path]}>
      {(rows, { add, remove }) => (
        <section className={styles.rows} aria-label={field.label}>
          <p className={styles.legend}>{field.label}</p>
          {rows.map(({ key, name }) => (
            <Flex key={key} gap="small" align="flex-start" wrap>
              {field.of.map((f) => (
                <FieldItem key={f.key} field={f} path={[name]} />
              ))}
              <Button
                type="text"
                icon={<DeleteOutlined />}
                aria-label={`Take row ${name + 1} of “${field.label}” away`}
                className={styles.away ?? ''}
                onClick={() => {
                  remove(name);
                }}
              />
            </Flex>
          ))}
          <Button
            size="small"
            icon={<PlusOutlined />}
            onClick={() => {
              add({ ...field.initial });
            }}
          >
            {field.add}
          </Button>
        </section>
      )}
    </Form.List>
  );
}
