import { Button, Form, type FormInstance } from 'antd';
import type { ReactNode } from 'react';
import styles from './Items.module.css';

interface Props<V> {
  readonly name: string;
  readonly submit: string;
  readonly form?: FormInstance<V>;
  readonly initial?: Partial<V>;
  readonly disabled?: boolean;
  /** Heard at every letter. */
  readonly changed?: (values: V) => void;
  readonly done: (values: V) => void;
  /** What came of it, said beneath. */
  readonly said?: ReactNode;
  readonly children: ReactNode;
}

/** A small form whose fields stand side by side; errors stand at their fields. */
export function InlineForm<V extends object>({ name, submit, form, initial, disabled = false, changed, done, said, children }: Props<V>) {
  return (
    <Form<V>
      name={name}
      layout="vertical"
      requiredMark={false}
      className={styles.inline ?? ''}
      {...(form ? { form } : {})}
      {...(initial ? { initialValues: initial } : {})}
      {...(changed
        ? {
            onValuesChange: (_: unknown, values: V) => {
              changed(values);
            },
          }
        : {})}
      onFinish={done}
      autoComplete="off"
    >
      {children}
      <div className={styles.submit}>
        <Button htmlType="submit" disabled={disabled}>
          {submit}
        </Button>
      </div>
      {said !== undefined && (
        <p role="status" className={`${styles.said} soft`}>
          {said}
        </p>
      )}
    </Form>
  );
}
