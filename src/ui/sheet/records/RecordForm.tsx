import { Button, Drawer, Flex, Form } from 'antd';
import { useEffect } from 'react';
import { type Field, fieldsOf, type FormValues, valuesOf } from './fields';
import { FieldItem } from './FieldItem';
import styles from './Records.module.css';

type Json = Readonly<Record<string, unknown>>;

interface Props {
  readonly title: string;
  readonly fields: readonly Field[];
  /** What is edited; null closes the form. */
  readonly record: Json | null;
  /** Fields that hold null where they are left empty. */
  readonly nullable?: readonly string[];
  readonly testPoints: ReadonlySet<string>;
  /** What is wrong beyond a single field: words by field; nothing lets it be saved. */
  readonly refuse?: (record: FormValues) => Readonly<Record<string, string>>;
  readonly save: (record: FormValues) => void;
  readonly close: () => void;
  /** What stands above the fields. */
  readonly lead?: React.ReactNode;
}

/** One record in a drawer beside the sheet: errors stand at their fields, nothing is written until it is saved. */
export function RecordForm({ title, fields, record, nullable = [], testPoints, refuse, save, close, lead }: Props) {
  const [form] = Form.useForm<FormValues>();
  useEffect(() => {
    if (!record) return;
    form.resetFields();
    form.setFieldsValue(valuesOf(fields, record));
    // Only another record fills the form anew: what is typed stays while the kit changes around it.
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [record]);
  const done = (values: FormValues) => {
    const read: FormValues = { ...record, ...fieldsOf(fields, values, { testPoints, nullable: new Set(nullable) }) };
    const wrong = Object.entries(refuse?.(read) ?? {});
    if (wrong.length > 0) {
      form.setFields(wrong.map(([key, text]) => ({ name: wholeField(fields, key), errors: [text] })));
      return;
    }
    save(read);
    close();
  };
  return (
    <Drawer title={title} open={record !== null} onClose={close} size="large" destroyOnHidden>
      {lead}
      <Form form={form} layout="vertical" requiredMark={false} className={styles.form ?? ''} onFinish={done} autoComplete="off" name="record">
        {fields.map((f) => (
          <FieldItem key={f.key} field={f} />
        ))}
        <Flex gap="small" className={styles.whole ?? ''}>
          <Button type="primary" htmlType="submit">
            Save
          </Button>
          <Button onClick={close}>Leave it as it was</Button>
        </Flex>
      </Form>
    </Drawer>
  );
}

/** Where an error of a field stands: limits and pairs are two inputs, the second shows it. */
const wholeField = (fields: readonly Field[], key: string): (string | number)[] => {
  const type = fields.find((f) => f.key === key)?.type;
  return type === 'limits' || type === 'pair' ? [key, 1] : [key];
};
