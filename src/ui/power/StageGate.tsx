import { Button, Form, Input, Modal } from 'antd';
import { useState } from 'react';
import type { StageProgress } from '@/core/loop';
import { useBench } from '@/store/bench';
import { required } from '../form/rules';
import zones from '../shell/zones.module.css';

type Way = 'on' | 'again';

const ASKED: Readonly<Record<Way, { readonly title: string; readonly ok: string; readonly about: string }>> = {
  on: {
    title: 'Continue anyway',
    ok: 'Go on',
    about: 'The next stages are then measured on a board that failed this one: the same fault will show there. Your reason goes into the logbook.',
  },
  again: { title: 'Do this stage again', ok: 'From the start', about: 'Earlier readings of this stage stay in the logbook but no longer count.' },
};

/** A stage that failed, is doubtful or is left out stops the next ones, unless somebody says why not; any can be done again. */
export function StageGate({ here }: { here: StageProgress }) {
  const append = useBench((s) => s.append);
  const [way, setWay] = useState<Way | null>(null);
  const [form] = Form.useForm<{ reason: string }>();
  const { stage, status, checks } = here;
  const read = checks.some((c) => c.verdict !== 'none');
  const words = status === 'failed' ? 'Continue anyway' : status === 'doubtful' ? 'Accept it' : 'Skip this stage';
  if (status === 'waiting') return null;
  return (
    <div className={`${zones.row} ${zones.section}`}>
      {(status === 'failed' || status === 'doubtful' || status === 'current') && (
        <Button
          size="small"
          onClick={() => {
            setWay('on');
          }}
        >
          {words}
        </Button>
      )}
      {read && (
        <Button
          size="small"
          onClick={() => {
            setWay('again');
          }}
        >
          Do it again
        </Button>
      )}
      <Modal
        open={way !== null}
        title={way && ASKED[way].title}
        okText={way && ASKED[way].ok}
        onCancel={() => {
          setWay(null);
        }}
        onOk={() => {
          form.submit();
        }}
        destroyOnHidden
      >
        <p>{way && ASKED[way].about}</p>
        <Form<{ reason: string }>
          form={form}
          layout="vertical"
          requiredMark={false}
          preserve={false}
          onFinish={({ reason }) => {
            if (way) void append({ kind: 'gated', stage: stage.id, go: way, reason: reason.trim() });
            setWay(null);
          }}
        >
          <Form.Item name="reason" label="Because" rules={[required('Give a reason in a few words.')]}>
            <Input maxLength={160} autoComplete="off" />
          </Form.Item>
        </Form>
      </Modal>
    </div>
  );
}
