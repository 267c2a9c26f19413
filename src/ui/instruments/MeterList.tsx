import { Button, Radio } from 'antd';
import { useState } from 'react';
import { type KitState, meterOf, put } from '@/core/kit';
import { type MeterRange, TYPICAL_METERS } from '@/core/meter';
import { useBench } from '@/store/bench';
import zones from '../shell/zones.module.css';
import styles from './Instruments.module.css';
import { OwnMeter } from './OwnMeter';

const accuracy = (ranges: readonly MeterRange[] | undefined) => (ranges?.[0] ? `±(${ranges[0].percent} % + ${ranges[0].counts})` : 'none');

/** The meter in use, and a new one of one's own. */
export function MeterList({ kit }: { kit: KitState }) {
  const append = useBench((s) => s.append);
  const [adding, setAdding] = useState(false);
  return (
    <>
      <h2 className={zones.label}>The meter in use</h2>
      <Radio.Group
        vertical
        className={styles.choices ?? ''}
        aria-label="meter"
        value={kit.settings.meter}
        onChange={(e) => {
          void append((k) => put(k, 'settings', { name: 'meter', value: e.target.value as string }));
        }}
        options={[...TYPICAL_METERS, ...kit.settings.meters].map((m) => ({
          value: m.id,
          label: (
            <>
              <b>{m.name}</b>{' '}
              <span className="soft num">
                volts {accuracy(m.ranges.dcv)}, ohms {accuracy(m.ranges.ohms)}, leads {meterOf(kit, m.id).leadResistance} Ω
              </span>
            </>
          ),
        }))}
      />
      <p className={styles.add}>
        <Button
          onClick={() => {
            setAdding(true);
          }}
        >
          Add my own meter
        </Button>
      </p>
      {adding && (
        <OwnMeter
          kit={kit}
          close={() => {
            setAdding(false);
          }}
        />
      )}
    </>
  );
}
