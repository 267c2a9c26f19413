import { Form, type FormRule, Input } from 'antd';
import type { Unit } from '@/core/quantity';
import styles from './Items.module.css';
import { quantityRule } from './rules';

interface ItemProps {
  readonly name: string;
  readonly label: string;
  readonly hint?: string;
  /** Room in letters. */
  readonly wide?: 's' | 'm' | 'l' | 'xl';
  readonly rules?: readonly FormRule[];
}

const NO_RULES: readonly FormRule[] = [];
const MOST_LETTERS = 200;

/** A labelled line of text. */
export function TextItem({ name, label, hint, wide = 'm', rules = NO_RULES }: ItemProps) {
  return (
    <Form.Item name={name} label={label} className={styles[wide] ?? ''} rules={[...rules]}>
      <Input {...(hint ? { placeholder: hint } : {})} maxLength={MOST_LETTERS} spellCheck={false} autoComplete="off" />
    </Form.Item>
  );
}

/** A labelled quantity as people write it. */
export const QuantityItem = ({ unit, rules = NO_RULES, ...item }: ItemProps & { readonly unit: Unit | null }) => (
  <TextItem wide="s" {...item} rules={[...rules, quantityRule(unit)]} />
);
