import { Checkbox, Form, Input, InputNumber, Modal, Select } from 'antd';
import { type KitState, meterOf, put } from '@/core/kit';
import { figuresOfMeter, type MeterFigures, meterFromFigures, type ModeFigures, RANGED_MODES, type RangedMode } from '@/core/meter';
import { printNominal, UNIT_SYMBOL, type Unit } from '@/core/quantity';
import { MODES, unitOf } from '@/core/vocabulary';
import { useBench } from '@/store/bench';
import { newId } from '@/store/stamps';
import { quantityRule, readQuantity, required } from '../form/rules';
import styles from './Instruments.module.css';

interface ModeFields {
  readonly has?: boolean;
  readonly from?: string;
  readonly to?: string;
  readonly percent?: number;
  readonly counts?: number;
}
interface Fields {
  readonly name: string;
  readonly displayCounts: number;
  readonly acResponse: MeterFigures['acResponse'];
  readonly inputResistance: string;
  readonly leadResistance: string;
  readonly capacitanceZero: string;
  readonly ohmsVoltage?: string;
  readonly diodeCurrent?: string;
  readonly diodeCompliance?: string;
  readonly modes: Readonly<Partial<Record<RangedMode, ModeFields>>>;
}

const ONE: Readonly<Partial<Record<RangedMode, ModeFigures>>> = {
  inductance: { from: 2e-3, to: 2, percent: 5, counts: 10 },
  frequency: { from: 40, to: 4e6, percent: 0.1, counts: 3 },
  duty: { from: 100, to: 100, percent: 1, counts: 3 },
  hfe: { from: 1000, to: 1000, percent: 5, counts: 5 },
};

const shown = (value: number | null, unit: Unit | null): string | undefined => (value === null ? undefined : printNominal(value, unit));

function fieldsOf(f: MeterFigures): Fields {
  const modes = Object.fromEntries(
    RANGED_MODES.map((mode) => {
      const one = f.modes[mode] ?? ONE[mode];
      const unit = unitOf(mode);
      return [
        mode,
        {
          has: f.modes[mode] !== undefined,
          ...(one ? { from: shown(one.from, unit), to: shown(one.to, unit), percent: one.percent, counts: one.counts } : {}),
        },
      ];
    }),
  );
  return {
    name: '',
    displayCounts: f.displayCounts,
    acResponse: f.acResponse,
    inputResistance: printNominal(f.inputResistance, 'ohm'),
    leadResistance: printNominal(f.leadResistance, 'ohm'),
    capacitanceZero: printNominal(f.capacitanceZero, 'F'),
    ...(f.ohmsVoltage === null ? {} : { ohmsVoltage: printNominal(f.ohmsVoltage, 'V') }),
    ...(f.diodeCurrent === null ? {} : { diodeCurrent: printNominal(f.diodeCurrent, 'A') }),
    ...(f.diodeCompliance === null ? {} : { diodeCompliance: printNominal(f.diodeCompliance, 'V') }),
    modes,
  };
}

/** What was typed as a meter's figures; a mode whose ranges are not both there it does not have. */
function figuresFrom(v: Fields): MeterFigures {
  const modes = Object.fromEntries(
    RANGED_MODES.flatMap((mode) => {
      const { has, from, to, percent = 1, counts = 1 } = v.modes[mode] ?? {};
      const [low, high] = [readQuantity(from, unitOf(mode)), readQuantity(to, unitOf(mode))];
      return has && low !== null && high !== null && low > 0 ? [[mode, { from: low, to: high, percent, counts }] as const] : [];
    }),
  );
  return {
    name: v.name.trim(),
    displayCounts: v.displayCounts,
    modes,
    acResponse: v.acResponse,
    inputResistance: readQuantity(v.inputResistance, 'ohm') ?? 1e7,
    leadResistance: readQuantity(v.leadResistance, 'ohm') ?? 0,
    capacitanceZero: readQuantity(v.capacitanceZero, 'F') ?? 0,
    ohmsVoltage: readQuantity(v.ohmsVoltage, 'V'),
    diodeCurrent: readQuantity(v.diodeCurrent, 'A'),
    diodeCompliance: readQuantity(v.diodeCompliance, 'V'),
  };
}

/** A meter of one's own, mode by mode from its manual; it begins with the figures of the meter in use. */
export function OwnMeter({ kit, close }: { kit: KitState; close: () => void }) {
  const append = useBench((s) => s.append);
  const [form] = Form.useForm<Fields>();
  const base = meterOf(kit);
  const make = (values: Fields) => {
    const meter = meterFromFigures(newId(), figuresFrom(values), base);
    void append((k) => [put(k, 'meters', meter), put(k, 'settings', { name: 'meter', value: meter.id })]);
    close();
  };
  const text = (name: keyof Fields, label: string, unit: Unit, hint: string) => (
    <Form.Item name={name} label={label} rules={[quantityRule(unit)]}>
      <Input placeholder={hint} autoComplete="off" />
    </Form.Item>
  );
  return (
    <Modal open title="My own meter" okText="Use it" cancelText="Cancel" width="min(60rem, 96vw)" onCancel={close} onOk={form.submit}>
      <Form<Fields> name="own-meter" form={form} layout="vertical" requiredMark={false} initialValues={fieldsOf(figuresOfMeter(base))} onFinish={make}>
        <div className={styles.figures}>
          <Form.Item name="name" label="Name" rules={[required('Give it a name.')]}>
            <Input placeholder="Attic meter" maxLength={80} autoComplete="off" />
          </Form.Item>
          <Form.Item name="displayCounts" label="Counts of the display">
            <InputNumber className={styles.figure ?? ''} min={200} max={2_000_000} precision={0} />
          </Form.Item>
          <Form.Item name="acResponse" label="AC volts">
            <Select
              options={[
                { value: 'average', label: 'average-responding' },
                { value: 'true-rms', label: 'true RMS' },
              ]}
            />
          </Form.Item>
          {text('inputResistance', 'Input on volts', 'ohm', '10M')}
          {text('leadResistance', 'Leads together', 'ohm', '0.2')}
          {text('capacitanceZero', 'Capacitance with nothing in it', 'F', '5p')}
        </div>
        <p className="soft">Ranges and accuracy as the manual gives them: ±(% of the reading + counts). Clear a mode that the meter lacks.</p>
        {RANGED_MODES.map((mode) => (
          <ModeRow key={mode} mode={mode} />
        ))}
        <p className="soft">
          What ohms and the diode test drive with. Left empty, junctions may read differently on your meter: such readings then weigh less in Find fault.
        </p>
        <div className={styles.figures}>
          {text('ohmsVoltage', 'Ohms: volts with the probes apart', 'V', '0.5')}
          {text('diodeCurrent', 'Diode test: current', 'A', '1m')}
          {text('diodeCompliance', 'Diode test: over-range from', 'V', '2.5')}
        </div>
      </Form>
    </Modal>
  );
}

function ModeRow({ mode }: { mode: RangedMode }) {
  const unit = unitOf(mode);
  const words = MODES[mode].words;
  return (
    <div className={styles.modeRow} role="group" aria-label={words}>
      <Form.Item name={['modes', mode, 'has']} valuePropName="checked">
        <Checkbox>
          {words} {UNIT_SYMBOL[unit] ? `(${UNIT_SYMBOL[unit]})` : ''}
        </Checkbox>
      </Form.Item>
      <Form.Item name={['modes', mode, 'from']} rules={[quantityRule(unit)]}>
        <Input aria-label={`${words}: smallest range`} prefix="from" autoComplete="off" />
      </Form.Item>
      <Form.Item name={['modes', mode, 'to']} rules={[quantityRule(unit)]}>
        <Input aria-label={`${words}: largest range`} prefix="to" autoComplete="off" />
      </Form.Item>
      <Form.Item name={['modes', mode, 'percent']}>
        <InputNumber className={styles.figure ?? ''} aria-label={`${words}: percent of the reading`} prefix="±" suffix="%" min={0} max={100} step={0.1} />
      </Form.Item>
      <Form.Item name={['modes', mode, 'counts']}>
        <InputNumber className={styles.figure ?? ''} aria-label={`${words}: counts`} prefix="+" suffix="counts" min={0} max={1000} precision={0} />
      </Form.Item>
    </div>
  );
}
