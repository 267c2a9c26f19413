import { Form } from 'antd';
import { type KitState, meterOf } from '@/core/kit';
import { judgeMeterCheck } from '@/core/meter';
import { useBench } from '@/store/bench';
import { VerdictMark } from '../drawn/VerdictMark';
import { InlineForm } from '../form/InlineForm';
import { QuantityItem, TextItem } from '../form/Items';
import { displayRule, readDisplay, readQuantity } from '../form/rules';
import zones from '../shell/zones.module.css';

interface Values {
  readonly together?: string;
  readonly apart?: string;
  readonly nominal?: string;
  readonly reads?: string;
}

/** Tolerance that a part is taken to have which somebody calls known (common practice, no source). */
const KNOWN_PERCENT = 1;

/** Thirty seconds that tell whether the meter itself can be trusted. */
export function MeterCheck({ kit }: { kit: KitState }) {
  const append = useBench((s) => s.append);
  const [form] = Form.useForm<Values>();
  const typed = (Form.useWatch((values: Values) => values, form) as Values | undefined) ?? {};
  const meter = meterOf(kit);
  const together = readDisplay(typed.together, 'ohm');
  const apart = readDisplay(typed.apart, 'ohm');
  const nominal = readQuantity(typed.nominal, 'ohm');
  const reads = readDisplay(typed.reads, 'ohm');
  const part = nominal !== null && reads !== null ? { nominal, percent: KNOWN_PERCENT, reading: reads } : null;
  const verdict = together === null || apart === null ? null : judgeMeterCheck(meter, together, apart, part);
  const last = kit.checkedMeters.get(kit.settings.meter);
  return (
    <>
      <h2 className={zones.label}>Thirty seconds for the meter</h2>
      <p className="soft">
        On ohms.{' '}
        {last ? `Done on ${last.at.slice(0, 10)} with this meter; its leads count as ${meter.leadResistance} Ω from then on.` : 'Not done yet with this meter.'}
      </p>
      <InlineForm<Values>
        name="meter-check"
        form={form}
        submit="Note it"
        disabled={verdict === null}
        done={() => {
          if (together !== null && apart !== null) void append({ kind: 'meter-checked', meter: kit.settings.meter, together, apart, known: part });
        }}
      >
        <TextItem name="together" label="Probes together" hint="0.2" rules={[displayRule('ohm')]} />
        <TextItem name="apart" label="Probes apart" hint="OL" rules={[displayRule('ohm')]} />
        <QuantityItem name="nominal" label="A known 1 % part" unit="ohm" hint="10k" wide="m" />
        <TextItem name="reads" label="It reads" hint="10.02k" wide="s" rules={[displayRule('ohm')]} />
      </InlineForm>
      {verdict && (
        <div className={`${zones.verdict} v-${verdict.sound ? 'in' : 'out'}`} role="status">
          <VerdictMark verdict={verdict.sound ? 'in' : 'out'} size={20} />
          <span>
            {verdict.sound
              ? `The meter is sound; ${typeof together === 'number' ? `${together} Ω of leads will be subtracted` : ''}.`
              : verdict.findings.join(' ')}
          </span>
        </div>
      )}
    </>
  );
}
