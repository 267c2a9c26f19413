import { useMemo, useState } from 'react';
import { type Consequence, type ConsequenceText, observableName, type Shift, type Supposition, type Swept } from '@/core/consequence';
import { type KitState, type Line } from '@/core/kit';
import { factsOf, unitOf as unitOfMode } from '@/core/vocabulary';
import { parseQuantity, print, type Unit } from '@/core/quantity';
import { circuitOf, controlOf } from '@/core/stage';
import { ask as askWorker, Cancelled } from '@/store/results';
import { useWindows } from '../useWindows';
import { TextField } from '../Field';
import { VerdictMark } from '../VerdictMark';

const CHANGES = {
  value: 'has another value',
  removed: 'is taken out',
  round: 'sits the wrong way round',
  exchanged: 'is exchanged with',
  swept: 'goes through a range',
} as const;
type Change = keyof typeof CHANGES;

/** Steps of a sweep, ends included. */
const STEPS = 9;
const VALUED: readonly (Unit | null)[] = ['ohm', 'F', 'H'];
const POLARISED: readonly Line['kind'][] = ['diode', 'zener', 'led', 'electrolytic'];
const THREE_LEGGED: readonly Line['kind'][] = ['npn', 'pnp', 'nmos', 'pmos', 'njf', 'pjf'];

type Answered =
  { readonly consequence: Consequence; readonly text: ConsequenceText } | { readonly values: readonly number[]; readonly swept: readonly Swept[] };

/** A value supposed, a control turned, a part out, round or elsewhere: what every stage would read then. */
export function WhatIf({ kit }: { kit: KitState }) {
  const windows = useWindows(kit) ?? {};
  const lines = kit.sheet.lines.filter((l) => factsOf(l.kind).board !== null || l.kind === 'opamp' || l.kind === 'ic');
  const supplies = [...new Set(kit.sheet.stages.flatMap((s) => s.supplies.map((x) => x.source)))];
  const refs = [...lines.flatMap((l) => l.refs), ...supplies];
  const [ref, setRef] = useState(refs[0] ?? '');
  const [change, setChange] = useState<Change>('value');
  const [value, setValue] = useState('');
  const [upTo, setUpTo] = useState('');
  const [other, setOther] = useState('');
  const [answer, setAnswer] = useState<Answered | null>(null);
  const [error, setError] = useState('');
  const line = kit.sheet.lines.find((l) => l.refs.includes(ref));
  const circuit = useMemo(() => circuitOf(kit.sheet), [kit.sheet]);
  const control = controlOf(circuit, ref) !== null;
  if (!kit.sheet.circuit || refs.length === 0) return <p>A circuit and a part with a value are needed first.</p>;
  const unit = unitOf(line, control);
  const possible = changesOf(line, control);
  const partners = line ? refs.filter((r) => r !== ref && lines.find((l) => l.refs.includes(r))?.kind === line.kind) : [];

  const choose = (to: string) => {
    const chosen = kit.sheet.lines.find((l) => l.refs.includes(to));
    setRef(to);
    setAnswer(null);
    setError('');
    const allowed = changesOf(chosen, controlOf(circuit, to) !== null);
    if (!allowed.includes(change)) setChange(allowed[0]!);
    setOther('');
  };
  const show = (found: Promise<Answered>) => {
    setError('');
    found.then(setAnswer, (e: unknown) => {
      if (!(e instanceof Cancelled)) setError((e as Error).message);
    });
  };
  const number = (text: string): number | null => {
    const parsed =
      unit === 'ratio'
        ? { ok: text.trim() !== '' && Number.isFinite(Number(text)), value: Number(text), message: 'A position is a number from 0 to 1' }
        : parseQuantity(text, unit);
    if (parsed.ok) return parsed.value;
    setError(`${parsed.message}.`);
    return null;
  };
  const ask = () => {
    if (change === 'swept') {
      const [from, to] = [number(value), number(upTo)];
      if (from === null || to === null) return;
      const values = stepsBetween(from, to);
      show(askWorker('sweep', kit, { ref, values }).then((swept) => ({ values, swept })));
      return;
    }
    const supposed = change === 'value' ? number(value) : 0;
    if (supposed === null) return;
    const supposition = suppositionOf(change, ref, line, supposed, other || (partners[0] ?? ''));
    show(askWorker('whatIf', kit, { windows, supposition }));
  };
  return (
    <>
      <form
        className="inline-form"
        onSubmit={(e) => {
          e.preventDefault();
          ask();
        }}
      >
        <Choice id="what-if-ref" label="If this part" width={110} value={ref} options={refs.map((r) => [r, r])} change={choose} />
        <Choice
          id="what-if-change"
          label={`(${line ? line.label : 'supply'})`}
          width={250}
          value={change}
          options={possible.map((c) => [c, c === 'value' && !line ? 'is set to' : CHANGES[c]])}
          change={(c) => {
            setChange(c as Change);
            setAnswer(null);
          }}
        />
        {(change === 'value' || change === 'swept') && (
          <TextField
            label={change === 'swept' ? 'from' : control ? 'position 0 to 1' : 'namely'}
            value={value}
            change={setValue}
            hint={HINTS[unit] ?? ''}
            width={120}
          />
        )}
        {change === 'swept' && <TextField label="to" value={upTo} change={setUpTo} hint={HINTS[unit] ?? ''} width={120} />}
        {change === 'exchanged' && (
          <Choice id="what-if-other" label="with" width={110} value={other || (partners[0] ?? '')} options={partners.map((r) => [r, r])} change={setOther} />
        )}
        <button type="submit" className="plain" disabled={change === 'exchanged' && partners.length === 0}>
          Solve it
        </button>
        <p className="field-error" role="status" style={{ flexBasis: '100%' }}>
          {error}
        </p>
      </form>
      {answer && ('swept' in answer ? <Range kit={kit} unit={unit} {...answer} /> : <Answer kit={kit} {...answer} />)}
    </>
  );
}

const HINTS: Readonly<Partial<Record<Unit, string>>> = { ohm: '33k', F: '100n', H: '10m', V: '9', ratio: '0.5' };

const unitOf = (line: Line | undefined, control: boolean): Unit => (control ? 'ratio' : line ? (factsOf(line.kind).unit ?? 'ohm') : 'V');

/** What can be supposed of a part of this kind. */
function changesOf(line: Line | undefined, control: boolean): Change[] {
  if (!line || control) return ['value', 'swept'];
  const valued: Change[] = VALUED.includes(factsOf(line.kind).unit) ? ['value', 'swept'] : [];
  const round: Change[] = POLARISED.includes(line.kind) || THREE_LEGGED.includes(line.kind) ? ['round'] : [];
  const exchanged: Change[] = line.kind === 'opamp' || line.kind === 'ic' ? [] : ['exchanged'];
  return [...valued, 'removed', ...round, ...exchanged];
}

function suppositionOf(change: Exclude<Change, 'swept'>, ref: string, line: Line | undefined, value: number, other: string): Supposition {
  switch (change) {
    case 'value':
      return { values: { [ref]: value } };
    case 'removed':
      return { removed: [ref] };
    case 'round':
      return { fault: { kind: line && THREE_LEGGED.includes(line.kind) ? 'turned' : 'reversed', parts: [ref], detail: {} } };
    case 'exchanged':
      return { fault: { kind: 'swapped', parts: [ref, other], detail: {} } };
  }
}

/** Even steps; in equal ratios where the range spans more than a decade. */
function stepsBetween(from: number, to: number): number[] {
  const wide = from > 0 && to > 0 && Math.max(from / to, to / from) > 10;
  return Array.from({ length: STEPS }, (_, i) => {
    const share = i / (STEPS - 1);
    return wide ? from * (to / from) ** share : from + (to - from) * share;
  });
}

function Choice({
  id,
  label,
  width,
  value,
  options,
  change,
}: {
  id: string;
  label: string;
  width: number;
  value: string;
  options: readonly (readonly [string, string])[];
  change: (to: string) => void;
}) {
  return (
    <span className="field" style={{ width }}>
      <label htmlFor={id}>{label}</label>
      <select
        id={id}
        value={value}
        onChange={(e) => {
          change(e.target.value);
        }}
      >
        {options.map(([key, text]) => (
          <option key={key} value={key}>
            {text}
          </option>
        ))}
      </select>
    </span>
  );
}

const SHOWN = 14;
const LEFT = { textAlign: 'left' } as const;
const reading = (v: number | 'over' | null, mode: Shift['mode']) => (v === null ? 'no solution' : v === 'over' ? 'over-range' : print(v, unitOfMode(mode), 4));

function Answer({ kit, consequence, text }: { kit: KitState; consequence: Consequence; text: ConsequenceText }) {
  const moved = [...consequence.shifts].filter((s) => s.share > 1e-4).sort((a, b) => Number(b.leaves) - Number(a.leaves) || b.share - a.share);
  return (
    <div role="status">
      <div className={`verdict-line v-${text.usable ? 'in' : 'out'}`} style={{ fontSize: 18 }}>
        <VerdictMark verdict={text.usable ? 'in' : 'out'} size={20} /> {text.title}
      </div>
      <p style={{ margin: '4px 0 10px' }}>{text.detail}</p>
      {moved.length > 0 && (
        <ChecksTable
          kit={kit}
          columns={['now', 'then']}
          rows={moved.slice(0, SHOWN).map((s) => ({
            ...s,
            cells: [{ text: reading(s.before, s.mode) }, { text: reading(s.after, s.mode), no: s.leaves }],
          }))}
        />
      )}
    </div>
  );
}

interface CheckRow {
  readonly observable: string;
  readonly stage: string;
  readonly cells: readonly { readonly text: string; readonly no?: boolean }[];
}

/** What some checks read, a line each. */
function ChecksTable({ kit, columns, rows }: { kit: KitState; columns: readonly string[]; rows: readonly CheckRow[] }) {
  return (
    <table className="shown">
      <thead>
        <tr>
          <th scope="col">check</th>
          <th scope="col" style={LEFT}>
            stage
          </th>
          {columns.map((c, i) => (
            <th key={i} scope="col">
              {c}
            </th>
          ))}
        </tr>
      </thead>
      <tbody>
        {rows.map((row) => (
          <tr key={row.observable}>
            <th scope="row">{observableName(kit, row.observable)}</th>
            <td style={LEFT}>{kit.sheet.stages.find((x) => x.id === row.stage)?.title}</td>
            {row.cells.map((cell, i) => (
              <td key={i} className={`num ${cell.no ? 'no' : ''}`}>
                {cell.text}
              </td>
            ))}
          </tr>
        ))}
      </tbody>
    </table>
  );
}

/** A sweep: what each check reads at the ends and in the middle, and over which range it goes. */
function Range({ kit, unit, values, swept }: { kit: KitState; unit: Unit; values: readonly number[]; swept: readonly Swept[] }) {
  const middle = values.length >> 1;
  const at = (i: number) => (unit === 'ratio' ? values[i]!.toFixed(2) : print(values[i]!, unit, 3));
  if (swept.length === 0)
    return (
      <p role="status">
        No check moves by more than 1 % between {at(0)} and {at(values.length - 1)}.
      </p>
    );
  const span = (s: Swept) => {
    const numbers = s.readings.filter((r): r is number => typeof r === 'number');
    return numbers.length === 0 ? '' : `${reading(Math.min(...numbers), s.mode)} to ${reading(Math.max(...numbers), s.mode)}`;
  };
  const ends = [0, middle, values.length - 1];
  return (
    <div role="status">
      <ChecksTable
        kit={kit}
        columns={[...ends.map((i) => `at ${at(i)}`), 'range']}
        rows={swept.slice(0, 2 * SHOWN).map((s) => ({
          ...s,
          cells: [...ends.map((i) => ({ text: reading(s.readings[i]!, s.mode) })), { text: span(s) }],
        }))}
      />
    </div>
  );
}
