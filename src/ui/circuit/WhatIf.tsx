import { Form } from 'antd';
import type { KitState } from '@/core/kit';
import { lineTitle } from '@/core/loop';
import { parseQuantity, type Unit } from '@/core/quantity';
import { Nothing } from '../drawn/Nothing';
import { Choose } from '../form/Choose';
import { InlineForm } from '../form/InlineForm';
import { TextItem } from '../form/Items';
import { required } from '../form/rules';
import { Working } from '../form/Working';
import styles from './Circuit.module.css';
import { CHANGES, numberOf, useWhatIf, type WhatIfValues } from './useWhatIf';
import { SweepTable, WhatIfAnswer } from './WhatIfAnswer';

/** A value supposed, a control turned, a part out, round or elsewhere: what every stage would read then. */
export function WhatIf({ kit, start }: { kit: KitState; start: string | null }) {
  const what = useWhatIf(kit);
  const { form, part, answer } = what;
  if (!kit.sheet.circuit || what.refs.length === 0) return <Nothing say="What if needs a circuit and a part with a value." />;
  const { line, control, unit, possible, partners, change } = part;
  const asksValue = change === 'value' || change === 'swept';
  return (
    <>
      <InlineForm<WhatIfValues>
        name="what-if"
        form={form}
        submit="Solve it"
        disabled={change === 'exchanged' && partners.length === 0}
        initial={{ ref: start !== null && what.refs.includes(start) ? start : what.refs[0]!, change: 'value' }}
        changed={what.changed}
        done={what.ask}
        said={<span className="v-out">{what.error}</span>}
      >
        <Form.Item name="ref" label="If this part" className={styles.pick ?? ''}>
          <Choose options={what.refs.map((value) => ({ value }))} />
        </Form.Item>
        <Form.Item name="change" label={`(${line ? lineTitle(line) : 'supply'})`} className={styles.pickWide ?? ''}>
          <Choose options={possible.map((c) => ({ value: c, label: c === 'value' && !line ? 'is set to' : CHANGES[c] }))} />
        </Form.Item>
        {asksValue && (
          <TextItem
            name="value"
            label={change === 'swept' ? 'from' : control ? 'position 0 to 1' : 'namely'}
            hint={HINTS[unit] ?? ''}
            wide="s"
            rules={[required('Which value?'), valueRule(unit)]}
          />
        )}
        {change === 'swept' && <TextItem name="upTo" label="to" hint={HINTS[unit] ?? ''} wide="s" rules={[required('Up to which?'), valueRule(unit)]} />}
        {change === 'exchanged' && (
          <Form.Item name="other" label="with" className={styles.pick ?? ''}>
            <Choose options={partners.map((value) => ({ value }))} {...(partners[0] ? { placeholder: partners[0] } : {})} />
          </Form.Item>
        )}
      </InlineForm>
      {what.stop && <Working say="Solving every stage" stop={what.stop} />}
      {answer && ('swept' in answer ? <SweepTable kit={kit} {...answer} /> : <WhatIfAnswer kit={kit} {...answer} />)}
    </>
  );
}

const HINTS: Readonly<Partial<Record<Unit, string>>> = { ohm: '33k', F: '100n', H: '10m', V: '9', ratio: '0.5' };

const valueRule = (unit: Unit) => ({
  validator: (_: unknown, text: string | undefined) => {
    if ((text ?? '').trim() === '' || numberOf(text!, unit) !== null) return Promise.resolve();
    const parsed = parseQuantity(text!, unit);
    return Promise.reject(new Error(unit === 'ratio' || parsed.ok ? 'A position is a number from 0 to 1.' : `${parsed.message}.`));
  },
});
