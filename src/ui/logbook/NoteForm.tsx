import { CameraOutlined } from '@ant-design/icons';
import { App, Button, Form, Input, Upload, type UploadFile } from 'antd';
import { useState } from 'react';
import { useBench } from '@/store/bench';
import styles from './Logbook.module.css';

const MOST_LETTERS = 1000;
const MOST_PHOTOS = 6;

/** A note for later, with photos where they say more. */
export function NoteForm() {
  const { message } = App.useApp();
  const [form] = Form.useForm<{ text?: string }>();
  const [photos, setPhotos] = useState<UploadFile[]>([]);
  const add = ({ text = '' }: { text?: string }) => {
    const files = photos.flatMap((p) => (p.originFileObj ? [p.originFileObj as File] : []));
    if (text.trim() === '' && files.length === 0) return;
    // The field is free at once: the next note can be typed while this one is being written.
    form.resetFields();
    setPhotos([]);
    useBench
      .getState()
      .note(text.trim() || 'Photo', files)
      .catch((e: unknown) => {
        void message.error((e as Error).message, 8);
        const typed = form.getFieldValue('text') as string | undefined;
        form.setFieldValue('text', typed?.trim() ? `${text} ${typed}` : text);
        setPhotos((since) => [...photos, ...since]);
      });
  };
  return (
    <Form form={form} name="note" className={styles.note ?? ''} onFinish={add}>
      <Form.Item name="text" className={styles.noteText ?? ''}>
        <Input aria-label="Note" placeholder="A note for later" maxLength={MOST_LETTERS} autoComplete="off" />
      </Form.Item>
      <Upload
        accept="image/*,.heic,.heif"
        hasControlInside
        multiple
        maxCount={MOST_PHOTOS}
        fileList={photos}
        beforeUpload={() => false}
        onChange={({ fileList }) => {
          setPhotos(fileList);
        }}
      >
        <Button icon={<CameraOutlined />}>Photo</Button>
      </Upload>
      <Button htmlType="submit">Add note</Button>
    </Form>
  );
}
