import { Button, Form, Modal } from 'antd';
import { useState } from 'react';
import type { KitState } from '@/core/kit';
import { TextItem } from '../form/Items';
import { Choose } from '../form/Choose';
import { required } from '../form/rules';

/** Something that is on no list was found and mended. */
export function OtherFound({ kit, found }: { kit: KitState; found: (note: string, refs: readonly string[]) => void }) {
  const [open, setOpen] = useState(false);
  const [form] = Form.useForm<{ note: string; ref?: string }>();
  const refs = kit.sheet.lines.flatMap((l) => l.refs);
  return (
    <>
      <Button
        onClick={() => {
          setOpen(true);
        }}
      >
        I found something else
      </Button>
      <Modal
        open={open}
        title="Found and repaired"
        okText="Mark as repaired"
        onCancel={() => {
          setOpen(false);
        }}
        onOk={() => {
          form.submit();
        }}
        destroyOnHidden
      >
        <p>Measure this stage again: only new readings show whether that was everything.</p>
        <Form<{ note: string; ref?: string }>
          form={form}
          layout="vertical"
          requiredMark={false}
          preserve={false}
          onFinish={({ note, ref }) => {
            setOpen(false);
            found(note.trim(), ref ? [ref] : []);
          }}
        >
          <TextItem name="note" label="What was it?" wide="xl" hint="a hair of wire across the terminals" rules={[required('Write a few words for later.')]} />
          <Form.Item name="ref" label="At which part, if at one">
            <Choose allowClear options={refs.map((value) => ({ value }))} />
          </Form.Item>
        </Form>
      </Modal>
    </>
  );
}
