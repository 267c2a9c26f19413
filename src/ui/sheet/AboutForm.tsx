import { Form } from 'antd';
import { useEffect } from 'react';
import { type KitState, put, type RecordOf } from '@/core/kit';
import { useBench } from '@/store/bench';
import { InlineForm } from '../form/InlineForm';
import { TextItem } from '../form/Items';
import { required } from '../form/rules';
import zones from '../shell/zones.module.css';

type About = RecordOf<'about'>;

/** What the kit is: its name, who made it, which edition. */
export function AboutForm({ kit }: { kit: KitState }) {
  const append = useBench((s) => s.append);
  const [form] = Form.useForm<Partial<About>>();
  const { title, maker, edition, note } = kit.sheet;
  useEffect(() => {
    form.setFieldsValue({ title, maker: maker ?? '', edition: edition ?? '', note: note ?? '' });
  }, [form, title, maker, edition, note]);
  const save = (values: Partial<About>) => {
    const about = Object.fromEntries(Object.entries(values).flatMap(([k, v]) => ((v ?? '').trim() === '' ? [] : [[k, v!.trim()]]))) as About;
    void append((k) => put(k, 'about', about));
  };
  return (
    <>
      <h2 className={zones.label}>About the kit</h2>
      <InlineForm<Partial<About>> name="about" form={form} submit="Keep" done={save}>
        <TextItem name="title" label="Name" wide="l" rules={[required('A kit needs a name.')]} />
        <TextItem name="maker" label="Maker or seller" />
        <TextItem name="edition" label="Edition" />
        <TextItem name="note" label="Note" wide="xl" />
      </InlineForm>
    </>
  );
}
