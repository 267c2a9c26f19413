import { InputNumber, Modal } from 'antd';
import { useMemo, useState } from 'react';
import { type KitState, putAll } from '@/core/kit';
import { neighboursOnMap } from '@/core/place';
import { useBench } from '@/store/bench';
import zones from '../shell/zones.module.css';

/** Pads this near count as neighbours at first, millimetres: where a bridge is likely by hand (own figure). */
export const NEAR = 1.5;
const MOST_SHOWN = 8;

/** Pairs of nets that lie side by side on the map: where a bridge can come. */
export function NeighboursDialog({ kit, close }: { kit: KitState; close: () => void }) {
  const append = useBench((s) => s.append);
  const [near, setNear] = useState(NEAR);
  const found = useMemo(() => neighboursOnMap(kit, near), [kit, near]);
  const fresh = found.filter((n) => !kit.rooms.neighbours.has(n.nets.join(' ')));
  return (
    <Modal
      open
      title="Neighbours from the map"
      onCancel={close}
      okText={`Take ${fresh.length} pairs`}
      okButtonProps={{ disabled: fresh.length === 0 }}
      onOk={() => {
        void append((k) => putAll(k, 'neighbours', fresh)).then(close);
      }}
    >
      <p>Two nets with pads this close count as neighbours: the fault finder then considers a bridge between them, and tracing asks about it.</p>
      <label className={zones.row}>
        within{' '}
        <InputNumber
          aria-label="Neighbours within"
          min={0.1}
          max={10}
          step={0.1}
          value={near}
          suffix="mm"
          onChange={(v) => {
            setNear(v ?? NEAR);
          }}
        />
      </label>
      <p role="status">
        {found.length === 0
          ? 'No two nets come that close.'
          : `${found.length} ${found.length === 1 ? 'pair' : 'pairs'}, ${fresh.length} of them new: ${fresh
              .slice(0, MOST_SHOWN)
              .map((n) => n.nets.map((net) => (net === '0' ? 'ground' : net)).join(' and '))
              .join('; ')}${fresh.length > MOST_SHOWN ? '; …' : ''}`}
      </p>
    </Modal>
  );
}
