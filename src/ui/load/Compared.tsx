import { Button, Progress, Select, Table } from 'antd';
import dynamic from 'next/dynamic';
import { useMemo, useState } from 'react';
import { GROUND, netsOf } from '@/core/circuit';
import type { KitState } from '@/core/kit';
import { asSeenBy, compareFigures, type ComparedFigure, type Instrument, movedOnto, notSeen, type Recorded, type Recording, waveformOf } from '@/core/load';
import { circuitOf } from '@/core/stage';
import { Choose } from '../form/Choose';
import { useCourse } from '../results/useCourse';
import zones from '../shell/zones.module.css';

const Chart = dynamic(() => import('../drawn/Chart').then((m) => m.Chart), { ssr: false });

const INSTRUMENTS: readonly { readonly value: Instrument; readonly label: string }[] = [
  { value: 'dc', label: 'oscilloscope, DC' },
  { value: 'ac', label: 'oscilloscope on AC, sound card' },
  { value: 'meter', label: 'multimeter' },
];
/** A circuit needs this many times the recording until it has settled. */
const SETTLING = 3;
/** From here on a figure is called another one (own figure). */
const FAR = 0.2;

/** A recording over what the circuit should do at a net, with the figures of both. */
export function Compared({ kit, recorded }: { kit: KitState; recorded: Recorded }) {
  const circuit = useMemo(() => circuitOf(kit.sheet), [kit.sheet]);
  const nets = netsOf(circuit).filter((n) => n !== GROUND && !n.includes('.'));
  const [net, setNet] = useState<string | null>(null);
  const [instrument, setInstrument] = useState<Instrument>('dc');
  const { found, progress, message, run, stop } = useCourse(kit.sheet.circuit?.deck ?? '');
  const seconds = recorded.curve.t.at(-1)! - recorded.curve.t[0]!;
  return (
    <section aria-label="Against the circuit" className={zones.section}>
      <h3 className={zones.label}>Against what the circuit should do</h3>
      <div className={zones.row}>
        <Choose<string | null>
          aria-label="Net that was recorded"
          placeholder="which net?"
          value={net}
          options={nets.map((value) => ({ value, label: value }))}
          onChange={(chosen) => {
            setNet(chosen);
            if (chosen !== null) run(chosen, SETTLING * seconds);
          }}
        />
        <Select<Instrument> aria-label="Recorded with" value={instrument} options={[...INSTRUMENTS]} onChange={setInstrument} />
        {progress !== null && (
          <>
            <Progress percent={Math.round(100 * progress)} size="small" steps={10} showInfo={false} aria-label="Running the circuit" />
            <Button size="small" onClick={stop}>
              Stop
            </Button>
          </>
        )}
      </div>
      {message !== '' && <p className="v-out">{message}</p>}
      {found && found.net === net && (
        <Side recorded={recorded} instrument={instrument} course={{ t: Float64Array.from(found.course.times), v: Float64Array.from(found.course.volts) }} />
      )}
    </section>
  );
}

function Side({ recorded, instrument, course }: { recorded: Recorded; instrument: Instrument; course: Recording }) {
  const recording = recorded.curve;
  const seconds = recording.t.at(-1)! - recording.t[0]!;
  const { t, v } = recording;
  const [x, y] = useMemo(() => [Array.from(t), Array.from(v)], [t, v]);
  const { drawn, figures, unseen } = useMemo(() => {
    // The first two thirds are its start.
    const from = course.t.findIndex((t) => t >= course.t.at(-1)! * (1 - 1 / SETTLING));
    const settled = { t: course.t.slice(from), v: course.v.slice(from) };
    const predicted = waveformOf(settled);
    const shown = movedOnto(recording, asSeenBy(instrument, settled));
    return {
      drawn: within(shown, recording.t[0]!, seconds),
      figures: compareFigures(recorded.figures, waveformOf(shown), instrument),
      unseen: notSeen(instrument, predicted),
    };
  }, [course, recorded, recording, instrument, seconds]);
  return (
    <>
      <Chart x={x} y={y} beside={drawn} xTitle="seconds" yTitle="volts" label="The recording, and dashed what the circuit should do" />
      {unseen !== null && <p className={zones.note}>{unseen}</p>}
      <Table<ComparedFigure>
        size="small"
        pagination={false}
        rowKey="name"
        dataSource={figures}
        columns={[
          { title: '', dataIndex: 'name' },
          { title: 'recorded', dataIndex: 'recorded' },
          { title: 'predicted', dataIndex: 'predicted' },
          {
            title: 'apart',
            dataIndex: 'off',
            render: (off: number | null) =>
              off === null ? '' : <span className={Math.abs(off) > FAR ? 'v-out' : ''}>{`${off > 0 ? '+' : ''}${(100 * off).toFixed(0)} %`}</span>,
          },
        ]}
      />
      <p className="soft">From the circuit as it is drawn, with nominal parts: capacitors of 20 % move a frequency by as much.</p>
    </>
  );
}

const within = ({ t, v }: Recording, from: number, seconds: number) => {
  const inside = Array.from(t.keys()).filter((i) => t[i]! >= from && t[i]! <= from + seconds);
  return { x: inside.map((i) => t[i]!), y: inside.map((i) => v[i]!) };
};
