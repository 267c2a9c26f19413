import { Alert, Button } from 'antd';
import { type FirstPowerBy, isPowered, type KitState, put, type Stage } from '@/core/kit';
import { cautionsOf, firstPower, firstPowerUnknown, limitFor, type StageForecast, starvedBy } from '@/core/power';
import { print } from '@/core/quantity';
import { useBench } from '@/store/bench';
import { Choose } from '../form/Choose';
import { InlineForm } from '../form/InlineForm';
import { QuantityItem } from '../form/Items';
import { readQuantity, required } from '../form/rules';
import { useResult } from '../results/useResult';
import zones from '../shell/zones.module.css';
import styles from './FirstPower.module.css';

const WAYS: Readonly<Record<FirstPowerBy['by'], { readonly label: string; readonly usual: FirstPowerBy }>> = {
  bench: { label: 'a bench supply with a current limit', usual: { by: 'bench' } },
  usb: { label: 'a USB meter or a protected port', usual: { by: 'usb' } },
  battery: { label: 'a weak battery', usual: { by: 'battery', volts: 9, ohms: 5 } },
  lamp: { label: 'a lamp in series', usual: { by: 'lamp', volts: 12, watts: 5 } },
  fuse: { label: 'a lead with a fuse', usual: { by: 'fuse' } },
};

/** What switching this stage on should do, what to watch, when to switch off; by what one owns, which is asked once. */
export function FirstPowerCard({ kit, stage }: { kit: KitState; stage: Stage }) {
  const append = useBench((s) => s.append);
  const asked = kit.sheet.circuit !== null && stage.supplies.length > 0;
  const forecast = useResult('stageForecast', kit, stage.id, asked);
  const known = forecast.state === 'fresh' ? forecast.value : null;
  const computing = asked && forecast.state !== 'fresh' && forecast.state !== 'failed';
  const by = kit.settings.firstPower;
  const write = (value: FirstPowerBy) => {
    void append((k) => put(k, 'settings', { name: 'firstPower', value }));
  };
  return (
    <>
      {isPowered(stage) && (
        <section aria-label="Switching on" className={styles.card}>
          <h2 className={`${zones.label} ${zones.section}`}>Switching on</h2>
          <Choose<FirstPowerBy['by']>
            aria-label="Power source"
            className={styles.way ?? ''}
            placeholder="How will you power it?"
            {...(by ? { value: by.by } : {})}
            options={(Object.keys(WAYS) as FirstPowerBy['by'][]).map((value) => ({ value, label: WAYS[value].label }))}
            onChange={(value) => {
              write(WAYS[value].usual);
            }}
          />
          {by && <OwnFigures key={by.by} by={by} write={write} />}
          {by && computing && <p className="soft">Working out what it should draw…</p>}
          {by && !computing && <Numbers by={by} forecast={known} stage={stage} />}
        </section>
      )}
      {cautionsOf(kit, stage, known).map((c) => (
        <p key={c} className={zones.caution}>
          {c}
        </p>
      ))}
    </>
  );
}

/** Figures of one's own battery or lamp. */
function OwnFigures({ by, write }: { by: FirstPowerBy; write: (value: FirstPowerBy) => void }) {
  if (by.by !== 'battery' && by.by !== 'lamp') return null;
  const second =
    by.by === 'battery'
      ? { value: `${by.ohms} Ω`, label: 'Inner resistance', unit: 'ohm' as const }
      : { value: `${by.watts} W`, label: 'Power', unit: 'W' as const };
  const wanted = required('Enter a number.');
  return (
    <InlineForm<{ volts: string; second: string }>
      name={`own-${by.by}`}
      submit="Take it"
      initial={{ volts: `${by.volts} V`, second: second.value }}
      done={(given) => {
        const [volts, other] = [readQuantity(given.volts, 'V'), readQuantity(given.second, second.unit)];
        if (volts === null || other === null || volts <= 0 || other <= 0) return;
        write(by.by === 'battery' ? { by: 'battery', volts, ohms: other } : { by: 'lamp', volts, watts: other });
      }}
    >
      <QuantityItem name="volts" label="Volts" unit="V" rules={[wanted, positive('V')]} />
      <QuantityItem name="second" label={second.label} unit={second.unit} rules={[wanted, positive(second.unit)]} />
    </InlineForm>
  );
}

const positive = (unit: 'V' | 'W' | 'ohm') => ({
  validator: (_: unknown, text: string | undefined) =>
    (readQuantity(text, unit) ?? 1) > 0 ? Promise.resolve() : Promise.reject(new Error('Enter a value above zero.')),
});

function Numbers({ by, forecast, stage }: { by: FirstPowerBy; forecast: StageForecast | null; stage: Stage }) {
  const { set, watch, off, against } = forecast ? firstPower(by, forecast) : firstPowerUnknown(by);
  return (
    <>
      {forecast === null && <p className="soft">The expected current is unknown here (no circuit, or an oscillating one). Start with the lowest limit.</p>}
      {[...against, ...(by.by === 'bench' && forecast ? starvedBy(forecast, stage) : [])].map((text) => (
        <Alert key={text} type="warning" title={text} className={styles.against ?? ''} />
      ))}
      <Points title="Set" of={set} />
      {by.by === 'bench' && forecast && <TakeLimits forecast={forecast} stage={stage} />}
      <Points title="In the first ten seconds" of={watch} />
      <Points title="Switch off at once" of={off} />
    </>
  );
}

function Points({ title, of }: { title: string; of: readonly string[] }) {
  if (of.length === 0) return null;
  return (
    <>
      <h3 className={styles.title}>{title}</h3>
      <ul className={styles.points}>
        {of.map((text) => (
          <li key={text}>{text}</li>
        ))}
      </ul>
    </>
  );
}

/** The stage has other limits than this board needs: they can be taken over. */
function TakeLimits({ forecast, stage }: { forecast: StageForecast; stage: Stage }) {
  const append = useBench((s) => s.append);
  const limits = new Map(forecast.supplies.filter((s) => !s.winding).map((s) => [s.source.toLowerCase(), limitFor(s)]));
  const wrong = stage.supplies.filter((s) => (limits.get(s.source.toLowerCase()) ?? s.limit) !== s.limit);
  if (wrong.length === 0) return null;
  return (
    <p>
      The stage says {wrong.map((s) => print(s.limit, 'A', 2)).join(', ')}.{' '}
      <Button
        size="small"
        onClick={() => {
          void append((k) => {
            const { checks: _, ...record } = k.sheet.stages.find((s) => s.id === stage.id) ?? stage;
            return put(k, 'stages', { ...record, supplies: record.supplies.map((s) => ({ ...s, limit: limits.get(s.source.toLowerCase()) ?? s.limit })) });
          });
        }}
      >
        Take this limit
      </Button>
    </p>
  );
}
