import { Flex, Form } from 'antd';
import { useMemo, useState } from 'react';
import { type Circuit, GROUND, neighbourhood, netsOf } from '@/core/circuit';
import type { KitState } from '@/core/kit';
import { useResult } from '../results/useResult';
import styles from './Circuit.module.css';
import { NeighbourDrawing } from './NeighbourDrawing';
import { readAt } from './readAt';
import { Choose } from '../form/Choose';

const NO_VOLTS: Readonly<Record<string, number>> = {};

/** The parts around one net, with what each net should carry and what was read there. */
export function NeighbourMap({ kit, circuit, around: asked }: { kit: KitState; circuit: Circuit; around: string | null }) {
  const nets = netsOf(circuit).filter((n) => n !== GROUND && !n.includes('.'));
  const [centre, setCentre] = useState(asked ?? kit.sheet.testPoints[0]?.net ?? nets[0] ?? GROUND);
  const powered = kit.sheet.stages.filter((s) => s.supplies.length > 0);
  const [stage, setStage] = useState<string | null>(powered[powered.length - 1]?.id ?? null);
  const { state, value } = useResult('netVolts', kit, stage);
  const volts = state === 'fresh' ? value : NO_VOLTS;
  const around = useMemo(() => neighbourhood(circuit, centre), [circuit, centre]);
  const seen = useMemo(() => readAt(kit, stage), [kit, stage]);
  return (
    <>
      <Form layout="vertical" component="div">
        <Flex gap="small" wrap>
          <Form.Item label="Around net" htmlFor="centre" className={styles.pick ?? ''}>
            <Choose id="centre" value={centre} options={nets.map((net) => ({ value: net }))} onChange={setCentre} />
          </Form.Item>
          {powered.length > 0 && (
            <Form.Item label="In stage" htmlFor="around-stage" className={styles.pickWide ?? ''}>
              <Choose id="around-stage" value={stage} options={powered.map((s) => ({ value: s.id, label: s.title }))} onChange={setStage} />
            </Form.Item>
          )}
        </Flex>
      </Form>
      <NeighbourDrawing around={around} volts={volts} seen={seen} go={setCentre} />
      <p className="soft">Each net shows its computed volts, with your reading of that stage below. Choose a net to put it in the middle.</p>
    </>
  );
}
