import { useEffect, useState } from 'react';
import { consequenceText, type Spare, type Substitute } from '@/core/consequence';
import { type KitState } from '@/core/kit';
import { parseQuantity, print, printNominal } from '@/core/quantity';
import { useWindows } from '../useWindows';
import { ask, Cancelled } from '@/store/results';
import { loadDrawer, saveDrawer } from '@/store/storage';
import { VerdictMark } from '../VerdictMark';

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

/** What one's own drawer offers in place of a missing resistor, solved in the circuit. */
export function Substitutes({ kit }: { kit: KitState }) {
  const windows = useWindows(kit) ?? {};
  const refs = kit.sheet.lines.flatMap((l) => (l.kind === 'resistor' ? l.refs : []));
  const [ref, setRef] = useState(refs[0] ?? '');
  const [drawer, setDrawer] = useState('');
  const [found, setFound] = useState<readonly Substitute[] | null>(null);
  const [message, setMessage] = useState('');
  useEffect(() => {
    loadDrawer().then(setDrawer, () => undefined);
  }, []);
  const { spares, unknown } = readSpares(drawer);
  if (!kit.sheet.circuit || refs.length === 0) return <p>A circuit with resistors is needed first.</p>;
  return (
    <>
      <form
        className="inline-form"
        onSubmit={(e) => {
          e.preventDefault();
          void saveDrawer(drawer).catch(() => undefined);
          setMessage('');
          ask('substitutes', kit, { windows, ref, spares }).then(setFound, (error: unknown) => {
            if (!(error instanceof Cancelled)) setMessage((error as Error).message);
          });
        }}
      >
        <span className="field" style={{ width: 110 }}>
          <label htmlFor="substitute-ref">In place of</label>
          <select
            id="substitute-ref"
            value={ref}
            onChange={(e) => {
              setRef(e.target.value);
              setFound(null);
            }}
          >
            {refs.map((r) => (
              <option key={r}>{r}</option>
            ))}
          </select>
        </span>
        <span className="field" style={{ width: 330 }}>
          <label htmlFor="drawer">My drawer holds (ohms, watts if you know them)</label>
          <input
            id="drawer"
            type="text"
            value={drawer}
            placeholder="1k 2k2 1.1k 4.7k/0.5W 10k"
            maxLength={2000}
            onChange={(e) => {
              setDrawer(e.target.value);
            }}
          />
        </span>
        <button type="submit" className="plain" disabled={spares.length === 0}>
          What would do?
        </button>
        <p className="field-error" role="status" style={{ flexBasis: '100%' }}>
          {unknown.length > 0 ? `Not understood: ${unknown.slice(0, 5).join(' ')}` : message}
        </p>
      </form>
      {found?.length === 0 && <p>Nothing in the drawer comes near, alone, in series or in parallel.</p>}
      <ul className="plain-list" aria-label="Substitutes">
        {found?.map((s) => (
          <li key={s.how + s.spares.map((x) => x.value).join('+')} className="need">
            <VerdictMark verdict={s.usable ? 'in' : 'out'} size={16} />{' '}
            <b className="num">
              {s.spares.map((x) => printNominal(x.value, 'ohm')).join(s.how === 'series' ? ' + ' : ' ∥ ')}
              {s.how !== 'single' ? ` = ${print(s.value, 'ohm', 3)}` : ''}
            </b>
            :{' '}
            {s.usable
              ? s.worst < 5e-4
                ? 'no check moves'
                : `every check stays in its window; the one that moves most moves by ${(100 * s.worst).toFixed(1)} %`
              : consequenceText(kit, s.consequence).detail || 'a spare would get too hot'}
          </li>
        ))}
      </ul>
    </>
  );
}
