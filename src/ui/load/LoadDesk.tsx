import { Alert, Drawer, Form, Input } from 'antd';
import { useState } from 'react';
import type { KitState } from '@/core/kit';
import { Choose } from '../form/Choose';
import { InlineForm } from '../form/InlineForm';
import { QuantityItem } from '../form/Items';
import { required } from '../form/rules';
import zones from '../shell/zones.module.css';
import { Answered } from './Answered';
import { givenOf, type Values } from './given';
import { Claims } from './Claims';
import { KeepClaim } from './KeepClaim';
import { PredictedLoad } from './PredictedLoad';
import type { Answer, Sum, SumField } from './sum';
import { SUMS } from './sums';
import { Waveform } from './Waveform';
import styles from './LoadDesk.module.css';

const WAVEFORM = 'wave';

/** What is reckoned beside the readings: heat, load, recordings, a lamp in series, what the seller claims. */
export function LoadDesk({ kit, close, choose }: { kit: KitState; close: () => void; choose: (target: string) => void }) {
  const [id, setId] = useState(SUMS[0]!.id);
  return (
    <Drawer open size="large" title="Load, heat, waveforms, claims" onClose={close}>
      <Claims kit={kit} choose={choose} />
      <Choose<string>
        aria-label="Calculation"
        className={`${styles.choice} ${styles.desk}`}
        value={id}
        options={[...SUMS.map((sum) => ({ value: sum.id, label: sum.title })), { value: WAVEFORM, label: 'Waveform' }]}
        onChange={setId}
      />
      {id === WAVEFORM ? <Waveform kit={kit} /> : <OneSum key={id} kit={kit} sum={SUMS.find((sum) => sum.id === id)!} />}
    </Drawer>
  );
}

type Outcome = Answer | { readonly error: string } | null;

function OneSum({ kit, sum }: { kit: KitState; sum: Sum }) {
  const [outcome, setOutcome] = useState<Outcome>(null);
  const run = (values: Values) => {
    try {
      setOutcome(sum.run(givenOf(sum, values)));
    } catch (error) {
      setOutcome({ error: (error as Error).message });
    }
  };
  return (
    <>
      <p className={zones.section}>{sum.about}</p>
      <InlineForm<Values> name={`sum-${sum.id}`} submit="Calculate" initial={Object.fromEntries(sum.fields.map((f) => [f.key, f.initial ?? '']))} done={run}>
        {sum.fields.map((f) => (
          <SumItem key={f.key} field={f} />
        ))}
      </InlineForm>
      {outcome && 'error' in outcome && <Alert type="error" title={outcome.error} className={styles.answer ?? ''} />}
      {outcome && 'said' in outcome && (
        <Answered key={JSON.stringify(outcome.said)} title={sum.title} said={outcome.said} drawn={outcome.drawn}>
          {outcome.loaded && kit.sheet.circuit && <PredictedLoad kit={kit} loaded={outcome.loaded} />}
          {outcome.means && <KeepClaim key={JSON.stringify(outcome.means)} kit={kit} means={outcome.means} />}
        </Answered>
      )}
    </>
  );
}

function SumItem({ field }: { field: SumField }) {
  if (field.rows !== undefined)
    return (
      <Form.Item name={field.key} label={field.label} className={styles.rows ?? ''} rules={[required('Write at least a few rows.')]}>
        <Input.TextArea rows={6} placeholder={field.rows} spellCheck={false} />
      </Form.Item>
    );
  if (field.choices)
    return (
      <Form.Item name={field.key} label={field.label} className={styles.choice ?? ''}>
        <Choose options={field.choices.map(([value, label]) => ({ value, label }))} />
      </Form.Item>
    );
  return (
    <QuantityItem
      name={field.key}
      label={field.label}
      unit={field.unit ?? null}
      wide="m"
      {...(field.optional ? {} : { rules: [required('Enter a number.')] })}
    />
  );
}
