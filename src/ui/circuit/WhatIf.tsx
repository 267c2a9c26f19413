import { useState } from 'react';
import { type Consequence, type ConsequenceText, observableName, type Shift } from '@/core/consequence';
import { type KitDocument, KIND_FACTS } from '@/core/kit';
import { parseQuantity, print, type Unit } from '@/core/quantity';
import { Cancelled, circuitQuestions, useBench } from '@/store/bench';
import { TextField } from '../Field';
import { VerdictMark } from '../VerdictMark';

const SHIFT_UNIT: Readonly<Record<Shift['mode'], Unit>> = { dcv: 'V', dca: 'A', ohms: 'ohm', diode: 'V' };
/** An open place, as ohms that no check can tell from nothing at all. */
const REMOVED_OHMS = 1e12;

/** A value supposed, a control turned, a part taken out: what every stage would read then. */
export function WhatIf({ kit }: { kit: KitDocument }) {
  const windows = useBench((s) => s.windows);
  const supplies = [...new Set(kit.sheet.stages.flatMap((s) => s.supplies.map((x) => x.source)))];
  const parts = kit.sheet.lines.flatMap((l) => (['ohm', 'V'].includes(KIND_FACTS[l.kind].unit ?? '') && l.value !== null ? l.refs : []));
  const refs = [...parts, ...supplies];
  const [ref, setRef] = useState(refs[0] ?? '');
  const [value, setValue] = useState('');
  const [answer, setAnswer] = useState<{ consequence: Consequence; text: ConsequenceText } | null>(null);
  const [error, setError] = useState('');
  if (!kit.sheet.circuit || refs.length === 0) return <p>A circuit and a part with a value are needed first.</p>;
  const line = kit.sheet.lines.find((l) => l.refs.includes(ref));
  const ask = (removed: boolean) => {
    const unit = line ? KIND_FACTS[line.kind].unit : 'V';
    const parsed = removed ? { ok: true as const, value: REMOVED_OHMS } : parseQuantity(value, unit);
    if (!parsed.ok) {
      setError(`${parsed.message}.`);
      return;
    }
    setError('');
    circuitQuestions.whatIf(kit, windows, { [ref]: parsed.value }).then(setAnswer, (e: unknown) => {
      if (!(e instanceof Cancelled)) setError((e as Error).message);
    });
  };
  return (
    <>
      <form
        className="inline-form"
        onSubmit={(e) => {
          e.preventDefault();
          ask(false);
        }}
      >
        <span className="field" style={{ width: 130 }}>
          <label htmlFor="what-if-ref">If this part</label>
          <select
            id="what-if-ref"
            value={ref}
            onChange={(e) => {
              setRef(e.target.value);
              setAnswer(null);
            }}
          >
            {refs.map((r) => (
              <option key={r}>{r}</option>
            ))}
          </select>
        </span>
        <TextField label={line ? `had, instead of ${line.label}` : 'were set to'} value={value} change={setValue} hint="33k" width={160} />
        <button type="submit" className="plain">
          Solve it
        </button>
        <button
          type="button"
          className="plain"
          onClick={() => {
            ask(true);
          }}
          disabled={!line}
        >
          Take it out
        </button>
        <p className="field-error" role="status" style={{ flexBasis: '100%' }}>
          {error}
        </p>
      </form>
      {answer && <Answer kit={kit} {...answer} />}
    </>
  );
}

const SHOWN = 14;

function Answer({ kit, consequence, text }: { kit: KitDocument; consequence: Consequence; text: ConsequenceText }) {
  const moved = [...consequence.shifts].filter((s) => s.share > 1e-4).sort((a, b) => Number(b.leaves) - Number(a.leaves) || b.share - a.share);
  const show = (v: number | 'over', s: Shift) => (v === 'over' ? 'over-range' : print(v, SHIFT_UNIT[s.mode], 4));
  return (
    <div role="status">
      <div className={`verdict-line v-${text.usable ? 'in' : 'out'}`} style={{ fontSize: 18 }}>
        <VerdictMark verdict={text.usable ? 'in' : 'out'} size={20} /> {text.title}
      </div>
      <p style={{ margin: '4px 0 10px' }}>{text.detail}</p>
      {moved.length > 0 && (
        <table className="shown">
          <thead>
            <tr>
              <th scope="col">check</th>
              <th scope="col">stage</th>
              <th scope="col">now</th>
              <th scope="col">then</th>
            </tr>
          </thead>
          <tbody>
            {moved.slice(0, SHOWN).map((s) => (
              <tr key={s.observable}>
                <th scope="row">{observableName(kit, s.observable)}</th>
                <td>{kit.sheet.stages.find((x) => x.id === s.stage)?.title}</td>
                <td className="num">{show(s.before, s)}</td>
                <td className={`num ${s.leaves ? 'no' : 'fit'}`}>{show(s.after, s)}</td>
              </tr>
            ))}
          </tbody>
        </table>
      )}
    </div>
  );
}
