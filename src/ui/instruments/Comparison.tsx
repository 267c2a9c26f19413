import { Form } from 'antd';
import { type EntryOf, type KitState, meterOf } from '@/core/kit';
import { agreement, uncertaintyOf, verifyInstrument } from '@/core/meter';
import { print } from '@/core/quantity';
import { useBench } from '@/store/bench';
import { VerdictMark } from '../drawn/VerdictMark';
import { InlineForm } from '../form/InlineForm';
import { TextItem } from '../form/Items';
import { displayRule, quantityRule, readDisplay } from '../form/rules';
import zones from '../shell/zones.module.css';
import styles from './Instruments.module.css';
import { Choose } from '../form/Choose';

const MODES = [
  ['ohms', 'ohms', 'ohm'],
  ['dcv', 'volts', 'V'],
  ['capacitance', 'farads', 'F'],
] as const;
type Mode = (typeof MODES)[number][0];

interface Values {
  readonly mode: Mode;
  readonly instrument?: string;
  readonly reading?: string;
  readonly other?: string;
  readonly percent?: string;
}

const UNNAMED = 'second instrument';
const SHOWN = 6;

/** Two instruments on one part, or a home-built one against parts that are known: do they agree? */
export function Comparison({ kit }: { kit: KitState }) {
  const append = useBench((s) => s.append);
  const [form] = Form.useForm<Values>();
  const typed = (Form.useWatch((values: Values) => values, form) as Partial<Values> | undefined) ?? {};
  const mode = typed.mode ?? 'ohms';
  const unit = MODES.find(([m]) => m === mode)![2];
  const instrument = typed.instrument?.trim() || UNNAMED;
  const mine = readDisplay(typed.reading, unit);
  const theirs = readDisplay(typed.other, unit);
  const ready = typeof mine === 'number' && typeof theirs === 'number';
  const percent = typed.percent?.trim() ?? '';
  const known = percent !== '' && Number(percent) >= 0;
  const points = kit.compared.flatMap((e) =>
    'value' in e.against && e.mode === mode && e.instrument === instrument ? [{ known: e.against.value, reading: e.reading }] : [],
  );
  const fit = verifyInstrument(points);
  const note = () => {
    if (!ready) return;
    const against = known ? { value: theirs, percent: Number(percent) } : { meter: kit.settings.meter, reading: theirs };
    void append({ kind: 'compared', mode, instrument, reading: mine, against });
    form.resetFields(['reading', 'other']);
  };
  return (
    <>
      <h2 className={`${zones.label} ${zones.section}`}>Do two instruments agree? Is a home-built one right?</h2>
      <p className="soft">
        One part, read with both. Or parts of known value (their tolerance typed) read with the one to be verified: three or more, spread over its range.
      </p>
      <InlineForm<Values> name="comparison" form={form} submit="Note it" disabled={!ready} done={note} initial={{ mode: 'ohms' }}>
        <Form.Item name="mode" label="Mode" className={styles.mode ?? ''}>
          <Choose options={MODES.map(([value, label]) => ({ value, label }))} />
        </Form.Item>
        <TextItem name="instrument" label="Instrument" hint={UNNAMED} />
        <TextItem name="reading" label="It reads" hint="9.96k" wide="s" rules={[displayRule(unit)]} />
        <TextItem name="other" label={known ? 'Known value' : 'The meter in use reads'} hint="10.01k" rules={[displayRule(unit)]} />
        <TextItem name="percent" label="Known to ±%" hint="1" wide="s" rules={[quantityRule(null)]} />
      </InlineForm>
      <ul className={zones.plainList} aria-label="Comparisons">
        {kit.compared
          .slice(-SHOWN)
          .reverse()
          .map((e) => (
            <ComparisonRow key={e.id} kit={kit} e={e} />
          ))}
      </ul>
      {fit && (
        <p>
          Over {points.length} known parts it reads <b>{(100 * fit.gain).toFixed(2)} %</b> {fit.gain < 0 ? 'low' : 'high'} and is off by{' '}
          <b>{print(fit.offset, unit, 3)}</b> at zero.
        </p>
      )}
    </>
  );
}

function ComparisonRow({ kit, e }: { kit: KitState; e: EntryOf<'compared'> }) {
  const unit = MODES.find(([m]) => m === e.mode)?.[2] ?? null;
  const meter = meterOf(kit);
  // An instrument without figures of its own is taken to be no better than the meter in use.
  const own = uncertaintyOf(meter, e.mode, e.reading)?.standard ?? 0;
  const other =
    'value' in e.against
      ? { value: e.against.value, standard: (e.against.percent / 100 / Math.sqrt(3)) * e.against.value }
      : { value: e.against.reading, standard: uncertaintyOf(meterOf(kit, e.against.meter), e.mode, e.against.reading)?.standard ?? 0 };
  const result = agreement({ value: e.reading, standard: own }, other);
  return (
    <li>
      <VerdictMark verdict={result.agrees ? 'in' : 'out'} size={16} /> <b>{e.instrument}</b> {print(e.reading, unit)} against {print(other.value, unit)}:{' '}
      {result.agrees ? 'agree' : 'do not agree'}, difference {print(result.difference, unit, 3)} of ±{print(result.expanded, unit, 2)} allowed
    </li>
  );
}
