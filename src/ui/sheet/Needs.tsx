import { Button, Flex, Form } from 'antd';
import { HaveNone } from './HaveNone';
import { useState } from 'react';
import { type KitState, meetsNeed, type Need, type Owned } from '@/core/kit';
import { printNominal, type Unit } from '@/core/quantity';
import { useBench } from '@/store/bench';
import { VerdictMark } from '../drawn/VerdictMark';
import { InlineForm } from '../form/InlineForm';
import { QuantityItem, TextItem } from '../form/Items';
import { readQuantity } from '../form/rules';
import zones from '../shell/zones.module.css';
import styles from './Needs.module.css';
import { Choose } from '../form/Choose';

/** What the kit is dead without and the bag does not hold. */
export function Needs({ kit }: { kit: KitState }) {
  return (
    <>
      <h2 className={zones.label}>Needed, not supplied</h2>
      {kit.sheet.needs.length === 0 && <p className="soft">No needs noted. Add a line such as “12 V adapter 500 mA 5.5/2.1 mm centre plus, not included”.</p>}
      {kit.sheet.needs.map((n) => (
        <NeedRow key={n.id} kit={kit} need={n} />
      ))}
    </>
  );
}

interface Values {
  readonly volts?: string;
  readonly amperes?: string;
  readonly ohms?: string;
  readonly watts?: string;
  readonly plug?: string;
  readonly polarity?: 'centre-plus' | 'centre-minus';
}

const FIGURES = [
  ['volts', 'Volts', 'V'],
  ['amperes', 'Amperes', 'A'],
  ['ohms', 'Ohms', 'ohm'],
  ['watts', 'Watts', 'W'],
] as const satisfies readonly (readonly [keyof Owned, string, Unit])[];

/** Figures that tell whether what one owns meets a need. */
const asksFor = (need: Need, figure: (typeof FIGURES)[number][0]) =>
  need[figure] !== undefined || (figure === 'volts' && ['supply', 'battery'].includes(need.kind)) || (figure === 'amperes' && need.kind === 'supply');

function NeedRow({ kit, need }: { kit: KitState; need: Need }) {
  const append = useBench((s) => s.append);
  const [open, setOpen] = useState(false);
  const noted = kit.owned.get(need.id)?.at(-1)?.owned;
  const verdict = noted ? meetsNeed(need, noted) : null;
  const note = (values: Values) => {
    const figures = Object.fromEntries(
      FIGURES.flatMap(([key, , unit]) => {
        const value = readQuantity(values[key], unit);
        return value === null ? [] : [[key, value]];
      }),
    );
    const owned: Owned = {
      ...figures,
      ...(values.plug?.trim() ? { plug: values.plug.trim() } : {}),
      ...(values.polarity ? { polarity: values.polarity } : {}),
    };
    void append({ kind: 'owned', need: need.id, owned });
    setOpen(false);
  };
  const shown = (key: (typeof FIGURES)[number][0], unit: Unit) => (noted?.[key] === undefined ? '' : printNominal(noted[key], unit));
  return (
    <div className={styles.need}>
      <p>
        {verdict && <VerdictMark verdict={verdict.meets ? 'in' : 'out'} size={16} />} <b>{need.text}</b>
      </p>
      {verdict && <p className="soft">What you own: {verdict.reasons.join('; ')}.</p>}
      {open ? (
        <InlineForm<Values>
          name={`need-${need.id}`}
          submit="Does it do?"
          done={note}
          initial={{
            ...Object.fromEntries(FIGURES.map(([key, , unit]) => [key, shown(key, unit)])),
            plug: noted?.plug ?? '',
            ...(noted?.polarity ? { polarity: noted.polarity } : {}),
          }}
        >
          {FIGURES.filter(([key]) => asksFor(need, key)).map(([key, label, unit]) => (
            <QuantityItem key={key} name={key} label={label} unit={unit} />
          ))}
          {need.plug !== undefined && <TextItem name="plug" label="Plug" hint={need.plug} />}
          {need.polarity !== undefined && (
            <Form.Item name="polarity" label="Polarity" className={styles.polarity ?? ''}>
              <Choose
                options={[
                  { value: 'centre-plus', label: 'centre plus' },
                  { value: 'centre-minus', label: 'centre minus' },
                ]}
              />
            </Form.Item>
          )}
        </InlineForm>
      ) : (
        <Flex gap="small" wrap>
          <Button
            size="small"
            onClick={() => {
              setOpen(true);
            }}
          >
            Does what I own meet it?
          </Button>
          <HaveNone kit={kit} need={need} />
        </Flex>
      )}
    </div>
  );
}
