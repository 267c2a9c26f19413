import { Button, Form, Radio } from 'antd';
import { useState } from 'react';
import { type KitState, meterOf, put } from '@/core/kit';
import { type MeterProfile, type MeterRange, TYPICAL_METERS } from '@/core/meter';
import { printNominal, type Unit } from '@/core/quantity';
import { useBench } from '@/store/bench';
import { newId } from '@/store/stamps';
import { InlineForm } from '../form/InlineForm';
import { QuantityItem, TextItem } from '../form/Items';
import { readQuantity } from '../form/rules';
import zones from '../shell/zones.module.css';
import styles from './Instruments.module.css';

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
      {adding ? (
        <OwnMeter
          kit={kit}
          done={() => {
            setAdding(false);
          }}
        />
      ) : (
        <p className={styles.add}>
          <Button
            onClick={() => {
              setAdding(true);
            }}
          >
            Add my own meter
          </Button>
        </p>
      )}
    </>
  );
}

const FIGURES = [
  ['dcv', 'Volts, %', null],
  ['dcvCounts', '+ counts', null],
  ['ohms', 'Ohms, %', null],
  ['ohmsCounts', '+ counts', null],
  ['capacitance', 'Farads, %', null],
  ['capacitanceCounts', '+ counts', null],
  ['leads', 'Leads', 'ohm'],
  ['input', 'Input', 'ohm'],
  ['zero', 'Zero, farads', 'F'],
] as const satisfies readonly (readonly [string, string, Unit | null])[];
type Figure = (typeof FIGURES)[number][0];
type Values = Readonly<Partial<Record<Figure, string>>> & { readonly name?: string };

const figuresOf = (m: MeterProfile): Record<Figure, number> => ({
  dcv: m.ranges.dcv?.[0]?.percent ?? 0.5,
  dcvCounts: m.ranges.dcv?.[0]?.counts ?? 2,
  ohms: m.ranges.ohms?.[0]?.percent ?? 0.8,
  ohmsCounts: m.ranges.ohms?.[0]?.counts ?? 3,
  capacitance: m.ranges.capacitance?.[0]?.percent ?? 4,
  capacitanceCounts: m.ranges.capacitance?.[0]?.counts ?? 5,
  leads: m.leadResistance,
  input: m.inputResistance,
  zero: m.capacitanceZero,
});

/** A meter of one's own: a copy of the meter in use with the figures of its manual. */
function OwnMeter({ kit, done }: { kit: KitState; done: () => void }) {
  const append = useBench((s) => s.append);
  const [form] = Form.useForm<Values>();
  const base = meterOf(kit);
  const initial = figuresOf(base);
  const make = (values: Values) => {
    const f = Object.fromEntries(FIGURES.map(([key, , unit]) => [key, readQuantity(values[key], unit) ?? initial[key]])) as Record<Figure, number>;
    const ranges = { ...base.ranges };
    for (const mode of ['dcv', 'ohms', 'capacitance'] as const)
      if (ranges[mode]) ranges[mode] = ranges[mode].map((r) => ({ ...r, percent: f[mode], counts: f[`${mode}Counts`] }));
    const meter: MeterProfile = {
      ...base,
      id: newId(),
      name: values.name?.trim() || 'My meter',
      ranges,
      leadResistance: f.leads,
      inputResistance: f.input,
      capacitanceZero: f.zero,
    };
    void append((k) => [put(k, 'meters', meter), put(k, 'settings', { name: 'meter', value: meter.id })]);
    done();
  };
  return (
    <InlineForm<Values>
      name="own-meter"
      form={form}
      submit="Use it"
      done={make}
      initial={Object.fromEntries(FIGURES.map(([key, , unit]) => [key, printNominal(initial[key], unit)]))}
      said={`Figures from its manual; its ranges are those of ${base.name.split(',')[0]!}.`}
    >
      <TextItem name="name" label="Name" hint="My meter" />
      {FIGURES.map(([key, label, unit]) => (
        <QuantityItem key={key} name={key} label={label} unit={unit} />
      ))}
    </InlineForm>
  );
}
