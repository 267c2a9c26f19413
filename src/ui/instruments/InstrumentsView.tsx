'use client';
import { InputNumber, Radio } from 'antd';
import { type KitSettings, type KitState, type MeasuringSchool, put, type RecordOf } from '@/core/kit';
import { useBench } from '@/store/bench';
import zones from '../shell/zones.module.css';
import { Comparison } from './Comparison';
import styles from './Instruments.module.css';
import { MeterCheck } from './MeterCheck';
import { MeterList } from './MeterList';
import { Connect } from '../live/Connect';
import { ConnectSupply } from '../live/ConnectSupply';

const MEASURE: readonly (readonly [MeasuringSchool, string])[] = [
  ['matters', 'What matters most first (recommended: the circuit tells which wrong part does most harm)'],
  ['all', 'Everything, down the list (slowest, misses nothing)'],
  ['unreadable', 'Only what cannot be read by eye (quick; misses a lot whose print is right and value wrong)'],
  ['one-per-packet', 'One of each packet (quickest; misses the single stray)'],
];
const SCHOOLS: readonly (readonly [KitSettings['school'], string])[] = [
  ['simple', 'Simple: compare the number with the limits (quick; near a limit the meter may be what is off)'],
  ['guarded', 'Guarded: allow for the meter; near a limit the verdict is “borderline” (recommended with a good meter)'],
];

/** One's meters: which is in use, whether it is sound, whether two agree, and how readings are judged. */
export function InstrumentsView({ kit }: { kit: KitState }) {
  return (
    <div className={`${zones.zones} ${zones.halves}`}>
      <section className={zones.card} aria-label="Meters">
        <MeterList kit={kit} />
        <Connect kit={kit} />
        <ConnectSupply kit={kit} />
        <h2 className={`${zones.label} ${zones.section}`}>Judging loose parts</h2>
        <Choices kit={kit} name="school" options={SCHOOLS} />
        <h2 className={`${zones.label} ${zones.section}`}>What to measure</h2>
        <Choices kit={kit} name="measure" options={MEASURE} />
        <Efforts kit={kit} />
      </section>
      <section className={zones.card} aria-label="Tests of the meter">
        <MeterCheck kit={kit} />
        <Comparison kit={kit} />
      </section>
    </div>
  );
}

const EFFORTS = [
  ['moving', 'AC volts, a frequency, the least or the most'],
  ['cold', 'ohms or a diode test, with the supply off'],
] as const;

/** What a reading costs on one's own bench: the fault finder weighs what a reading tells against it. */
function Efforts({ kit }: { kit: KitState }) {
  const append = useBench((s) => s.append);
  const { efforts } = kit.settings;
  return (
    <section aria-label="Effort of a reading">
      <h2 className={`${zones.label} ${zones.section}`}>Effort of a reading</h2>
      <p className="soft">DC volts count 1. The fault finder asks for the most informative reading for its effort.</p>
      {EFFORTS.map(([name, words]) => (
        <label key={name} className={zones.row}>
          <InputNumber
            size="small"
            aria-label={`Effort of ${words}`}
            min={0.1}
            max={50}
            step={0.5}
            value={efforts[name]}
            onChange={(v) => {
              if (v !== null) void append((k) => put(k, 'settings', { name: 'efforts', value: { ...k.settings.efforts, [name]: v } }));
            }}
          />{' '}
          {words}
        </label>
      ))}
    </section>
  );
}

interface ChoicesProps<K extends 'school' | 'measure'> {
  readonly kit: KitState;
  readonly name: K;
  readonly options: readonly (readonly [KitSettings[K], string])[];
}

function Choices<K extends 'school' | 'measure'>({ kit, name, options }: ChoicesProps<K>) {
  const append = useBench((s) => s.append);
  return (
    <Radio.Group
      vertical
      className={styles.choices ?? ''}
      aria-label={name}
      value={kit.settings[name]}
      options={options.map(([value, label]) => ({ value, label }))}
      onChange={(e) => {
        void append((k) => put(k, 'settings', { name, value: e.target.value as KitSettings[K] } as RecordOf<'settings'>));
      }}
    />
  );
}
