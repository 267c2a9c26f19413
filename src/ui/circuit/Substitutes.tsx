import { Form } from 'antd';
import { useEffect, useState } from 'react';
import { consequenceText, type Spare, type Substitute } from '@/core/consequence';
import type { KitState } from '@/core/kit';
import { parseQuantity, print, printNominal } from '@/core/quantity';
import { ask, Cancelled, stopAsking } from '@/store/results';
import { loadDrawer, saveDrawer } from '@/store/storage';
import { VerdictMark } from '../drawn/VerdictMark';
import { InlineForm } from '../form/InlineForm';
import { TextItem } from '../form/Items';
import { Working } from '../form/Working';
import { useWindows } from '../results/useWindows';
import zones from '../shell/zones.module.css';
import styles from './Circuit.module.css';
import { Choose } from '../form/Choose';

interface Values {
  readonly ref: string;
  readonly drawer?: string;
}

/** Spares as people note them: `1k 2k2 4.7k/0.5W`. What cannot be read is named. */
function readSpares(text: string): { readonly spares: readonly Spare[]; readonly unknown: readonly string[] } {
  const spares: Spare[] = [];
  const unknown: string[] = [];
  for (const word of text.split(/[\s,;]+/).filter(Boolean)) {
    const [value = '', watts] = word.split('/');
    const parsed = parseQuantity(value, 'ohm');
    const power = watts === undefined ? null : parseQuantity(watts, 'W');
    if (!parsed.ok || parsed.value <= 0 || (power && !power.ok)) unknown.push(word);
    else spares.push({ value: parsed.value, ...(power?.ok ? { watts: power.value } : {}) });
  }
  return { spares, unknown };
}

const NAMED = 5;

/** What one's own drawer offers in place of a missing resistor, solved in the circuit. */
export function Substitutes({ kit }: { kit: KitState }) {
  const windows = useWindows(kit) ?? {};
  const refs = kit.sheet.lines.flatMap((l) => (l.kind === 'resistor' ? l.refs : []));
  const [form] = Form.useForm<Values>();
  const drawer = Form.useWatch<string | undefined>('drawer', form) ?? '';
  const [found, setFound] = useState<readonly Substitute[] | null>(null);
  const [message, setMessage] = useState('');
  const [busy, setBusy] = useState(false);
  useEffect(() => {
    loadDrawer().then(
      (text) => {
        form.setFieldValue('drawer', text);
      },
      () => undefined,
    );
  }, [form]);
  const { spares, unknown } = readSpares(drawer);
  if (!kit.sheet.circuit || refs.length === 0) return <p>Substitutes need a circuit with resistors.</p>;
  const look = ({ ref }: Values) => {
    void saveDrawer(drawer).catch(() => undefined);
    setMessage('');
    setBusy(true);
    ask('substitutes', kit, { windows, ref, spares })
      .then(setFound, (error: unknown) => {
        if (!(error instanceof Cancelled)) setMessage((error as Error).message);
      })
      .finally(() => {
        setBusy(false);
      });
  };
  return (
    <>
      <InlineForm<Values>
        name="substitutes"
        form={form}
        submit="Find substitutes"
        disabled={spares.length === 0}
        initial={{ ref: refs[0] ?? '' }}
        changed={() => {
          setFound(null);
        }}
        done={look}
        said={<span className="v-out">{unknown.length > 0 ? `Not understood: ${unknown.slice(0, NAMED).join(' ')}` : message}</span>}
      >
        <Form.Item name="ref" label="In place of" className={styles.pick ?? ''}>
          <Choose options={refs.map((value) => ({ value }))} />
        </Form.Item>
        <TextItem name="drawer" label="My drawer holds (ohms, watts if you know them)" hint="1k 2k2 4.7k/0.5W" wide="l" />
      </InlineForm>
      {busy && (
        <Working
          say="Trying every pair of spares"
          stop={() => {
            stopAsking('substitutes');
          }}
        />
      )}
      {found?.length === 0 && <p>Nothing in the drawer is close, alone, in series or in parallel.</p>}
      <ul className={zones.plainList} aria-label="Substitutes">
        {found?.map((s) => (
          <SubstituteRow key={s.how + s.spares.map((x) => x.value).join('+')} kit={kit} s={s} />
        ))}
      </ul>
    </>
  );
}

/** Below this share no check is said to move (choice of this product). */
const STILL = 5e-4;

function SubstituteRow({ kit, s }: { kit: KitState; s: Substitute }) {
  const effect = !s.usable
    ? consequenceText(kit, s.consequence).detail || 'a spare would get too hot'
    : s.worst < STILL
      ? 'no check moves'
      : `every check stays within its limits; the most affected one changes by ${(100 * s.worst).toFixed(1)} %`;
  return (
    <li>
      <VerdictMark verdict={s.usable ? 'in' : 'out'} size={16} />{' '}
      <b className="num">
        {s.spares.map((x) => printNominal(x.value, 'ohm')).join(s.how === 'series' ? ' + ' : ' ∥ ')}
        {s.how !== 'single' ? ` = ${print(s.value, 'ohm', 3)}` : ''}
      </b>
      : {effect}
    </li>
  );
}
