import { AutoComplete, Form, type FormRule } from 'antd';
import type { BlockField, FieldType } from '@/core/circuit';
import { parseQuantity, printNominal, type Unit } from '@/core/quantity';
import { Choose } from '../form/Choose';
import { QuantityItem } from '../form/Items';
import styles from './Circuit.module.css';

const UNIT: Readonly<Partial<Record<FieldType, Unit>>> = { ohm: 'ohm', F: 'F', H: 'H', V: 'V', A: 'A', Hz: 'Hz' };
const COLOURS = ['red', 'green', 'yellow', 'orange', 'blue', 'white', 'infrared'];
const STATES: Readonly<Record<string, readonly string[]>> = { closed: ['closed', 'open'], open: ['open', 'closed'], high: ['high', 'low'] };

/** What was typed into the fields of a block or template. */
export type Texts = Record<string, string>;

/** One field of a block or template: a quantity, a name, or a choice. */
export function FieldItem({ field: f, names, rule }: { field: BlockField; names: readonly string[]; rule: FormRule }) {
  const choices = f.type === 'colour' ? COLOURS : f.type === 'state' ? STATES[String(f.initial)] : undefined;
  if (f.type !== 'ref' && f.type !== 'net' && !choices) return <QuantityItem name={f.key} label={f.label} unit={UNIT[f.type] ?? null} wide="m" />;
  return (
    <Form.Item name={f.key} label={f.label} className={styles.pick ?? ''} rules={choices ? [] : [rule]}>
      {choices ? (
        <Choose options={choices.map((value) => ({ value }))} />
      ) : (
        <AutoComplete options={names.map((value) => ({ value }))} showSearch={{ filterOption: true }} />
      )}
    </Form.Item>
  );
}

/** A name that a deck can carry and that `problem` has nothing against. */
export const nameRule = (problem: (name: string) => string | null): FormRule => ({
  validator: (_: unknown, text: string | undefined) => {
    const name = (text ?? '').trim().toLowerCase();
    const against = /^[a-z0-9_+-]+$/.test(name) ? problem(name) : 'A name has letters and digits, nothing else.';
    return against === null ? Promise.resolve() : Promise.reject(new Error(against));
  },
});

export const initialText = (f: BlockField) => (typeof f.initial === 'string' ? f.initial : printNominal(f.initial, UNIT[f.type] ?? null));

/** Values of all fields; the form has checked them. */
export function readFields(fields: readonly BlockField[], texts: Texts): Record<string, string | number> {
  return Object.fromEntries(
    fields.map((f): [string, string | number] => {
      const text = (texts[f.key] ?? '').trim();
      if (['ref', 'net', 'colour', 'state'].includes(f.type)) return [f.key, text];
      const parsed = parseQuantity(text, UNIT[f.type] ?? null);
      return [f.key, parsed.ok ? parsed.value : 0];
    }),
  );
}
