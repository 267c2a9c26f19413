import { Table } from 'antd';
import dynamic from 'next/dynamic';
import { useMemo, useState } from 'react';
import { GROUND, netsOf } from '@/core/circuit';
import type { KitState } from '@/core/kit';
import { print } from '@/core/quantity';
import { circuitOf } from '@/core/stage';
import { Choose } from '../form/Choose';
import { useResult } from '../results/useResult';
import zones from '../shell/zones.module.css';

const Chart = dynamic(() => import('../drawn/Chart').then((m) => m.Chart), { ssr: false });

interface Loaded {
  readonly amps: readonly number[];
  readonly volts: readonly number[];
}
/** From here on a reading is called apart from what a healthy board puts out (own figure). */
const FAR = 0.05;

/** A load test over what a healthy board should put out at the same currents. */
export function PredictedLoad({ kit, loaded }: { kit: KitState; loaded: Loaded }) {
  const powered = kit.sheet.stages.filter((s) => s.supplies.length > 0);
  const [stage, setStage] = useState(powered.findLast((s) => s.kind === 'load')?.id ?? powered.at(-1)?.id ?? null);
  const [net, setNet] = useState<string | null>(null);
  const nets = useMemo(() => netsOf(circuitOf(kit.sheet)).filter((n) => n !== GROUND && !n.includes('.')), [kit.sheet]);
  return (
    <section aria-label="Against a healthy board" className={zones.section}>
      <h3 className={zones.label}>Against what a healthy board puts out</h3>
      <div className={zones.row}>
        <Choose<string | null>
          aria-label="Stage of the load test"
          value={stage}
          options={powered.map((s) => ({ value: s.id, label: s.title }))}
          onChange={setStage}
        />
        <Choose<string | null>
          aria-label="Net of the output"
          placeholder="which net is the output?"
          value={net}
          options={nets.map((value) => ({ value, label: value }))}
          onChange={setNet}
        />
      </div>
      {stage !== null && net !== null && <Beside kit={kit} loaded={loaded} stage={stage} net={net} />}
    </section>
  );
}

function Beside({ kit, loaded, stage, net }: { kit: KitState; loaded: Loaded; stage: string; net: string }) {
  const asked = useMemo(() => ({ stage, net, amps: loaded.amps }), [stage, net, loaded.amps]);
  const { state, value } = useResult('loadCurve', kit, asked);
  if (state !== 'fresh') return <p className="soft">Working out what a healthy board puts out…</p>;
  if (!value || value.volts.every((v) => v === null))
    return <p className="soft">It cannot be worked out here: the circuit runs (a winding, an oscillator), or {net} is not in the circuit of this stage.</p>;
  const rows = loaded.amps.map((amps, i) => ({ key: i, amps, read: loaded.volts[i]!, healthy: value.volts[i] ?? null }));
  const known = rows.filter((r) => r.healthy !== null);
  return (
    <>
      <Chart
        x={loaded.amps}
        y={loaded.volts}
        beside={{ x: known.map((r) => r.amps), y: known.map((r) => r.healthy!) }}
        marks={{ x: loaded.amps, y: loaded.volts }}
        xTitle="amperes"
        yTitle="volts"
        label="Output over load, and dashed that of a healthy board"
      />
      <Table<(typeof rows)[number]>
        size="small"
        pagination={false}
        dataSource={rows}
        columns={[
          { title: 'load', dataIndex: 'amps', render: (a: number) => print(a, 'A', 3) },
          { title: 'read', dataIndex: 'read', render: (v: number) => print(v, 'V', 3) },
          { title: 'healthy', dataIndex: 'healthy', render: (v: number | null) => (v === null ? 'none found' : print(v, 'V', 3)) },
          {
            title: 'apart',
            key: 'apart',
            render: (_: unknown, r) =>
              r.healthy === null || Math.abs(r.healthy) < 1e-3 ? (
                ''
              ) : (
                <span className={Math.abs(r.read / r.healthy - 1) > FAR ? 'v-out' : ''}>{`${(100 * (r.read / r.healthy - 1)).toFixed(1)} %`}</span>
              ),
          },
        ]}
      />
    </>
  );
}
