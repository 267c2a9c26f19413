import { Form, InputNumber, Modal, Segmented } from 'antd';
import { useState } from 'react';
import { useBench } from '@/store/bench';
import { Choose } from '../form/Choose';
import { TextItem } from '../form/Items';
import { required } from '../form/rules';

/** What is waited for most, and for how many minutes (common practice, no source). */
const USUAL = [
  { value: 'the board to cool', minutes: 5 },
  { value: 'washing to dry', minutes: 15 },
  { value: 'glue or lacquer to cure', minutes: 60 },
  { value: 'warming up before calibration', minutes: 20 },
  { value: 'the soak run', minutes: 30 },
];

type Way = 'timer' | 'delivery';
interface Values {
  readonly usual?: string;
  readonly reason: string;
  readonly minutes?: number;
  readonly day?: string;
}

/** Starts a timer, or notes what was ordered and when it should come. Both outlive a closed lid: they stand in the log. */
export function WaitForm({ close }: { close: () => void }) {
  const append = useBench((s) => s.append);
  const [form] = Form.useForm<Values>();
  const [way, setWay] = useState<Way>('timer');
  const done = ({ reason, minutes, day }: Values) => {
    const until = way === 'timer' ? new Date(Date.now() + 60_000 * (minutes ?? 0)).toISOString() : (day ?? '').trim() || undefined;
    void append({ kind: 'waiting', reason: reason.trim(), ...(until === undefined ? {} : { until }) });
    close();
  };
  return (
    <Modal
      open
      title="Wait for something"
      okText={way === 'timer' ? 'Start the timer' : 'Note it'}
      onCancel={close}
      onOk={() => {
        form.submit();
      }}
    >
      <Segmented<Way>
        aria-label="What kind of waiting"
        value={way}
        options={[
          { value: 'timer', label: 'a timer' },
          { value: 'delivery', label: 'a part, an answer' },
        ]}
        onChange={setWay}
      />
      <Form<Values> form={form} name="wait" layout="vertical" requiredMark={false} initialValues={{ minutes: 5 }} onFinish={done}>
        {way === 'timer' && (
          <Form.Item name="usual" label="Usual ones">
            <Choose<string>
              allowClear
              options={USUAL.map((u) => ({ value: u.value, label: `${u.value}, ${u.minutes} min` }))}
              onChange={(value) => {
                const usual = USUAL.find((u) => u.value === value);
                if (usual) form.setFieldsValue({ reason: usual.value, minutes: usual.minutes });
              }}
            />
          </Form.Item>
        )}
        <TextItem
          name="reason"
          label="What for"
          wide="xl"
          hint={way === 'timer' ? 'the board to cool' : 'C3, ordered'}
          rules={[required('What is waited for?')]}
        />
        {way === 'timer' ? (
          <Form.Item name="minutes" label="Minutes" rules={[{ required: true, message: 'For how many minutes?' }]}>
            <InputNumber min={0.1} max={6000} />
          </Form.Item>
        ) : (
          <TextItem name="day" label="Expected on" hint="2026-12-24" rules={[DAY]} />
        )}
      </Form>
    </Modal>
  );
}

const DAY = {
  validator: (_: unknown, text: string | undefined) =>
    (text ?? '').trim() === '' || (/^\d{4}-\d\d-\d\d$/.test(text!.trim()) && !Number.isNaN(Date.parse(text!.trim())))
      ? Promise.resolve()
      : Promise.reject(new Error('A day as year-month-day, such as 2026-12-24, or nothing.')),
};
