'use client';
import { useState } from 'react';
import { choiceOn, type KitState, type Line, type LineKind, meetsNeed, type Need, type Owned, put, remove, withDependents } from '@/core/kit';
import { factsOf } from '@/core/vocabulary';
import { newId } from '@/store/stamps';
import { readFreeLine, readNeed, expandRefs } from '@/core/partslist';
import { printNominal, printTolerance } from '@/core/quantity';
import { useBench } from '@/store/bench';
import { QuantityField, TextField } from './Field';
import { TakeBackSheet } from './TakeBackSheet';
import { TypeCards } from './TypeCards';
import { VerdictMark } from './VerdictMark';

/** What should be: lines, what the kit needs besides, options, type cards. */
export function SheetView({ kit }: { kit: KitState }) {
  return (
    <div className="zones halves">
      <section className="card" aria-label="Lines">
        <Lines kit={kit} />
        <AddLine kit={kit} />
      </section>
      <section className="card" aria-label="Needs and cards">
        <Needs kit={kit} />
        <Options kit={kit} />
        <TypeCards kit={kit} />
      </section>
    </div>
  );
}

function Lines({ kit }: { kit: KitState }) {
  const append = useBench((s) => s.append);
  return (
    <>
      <div className="row" style={{ justifyContent: 'space-between' }}>
        <h2 className="label">
          {kit.sheet.lines.length} lines, {kit.sheet.lines.reduce((n, l) => n + l.refs.length, 0)} positions
        </h2>
        <TakeBackSheet kit={kit} />
      </div>
      {kit.sheet.lines.length === 0 && <p>No lines yet. Add them below, or make a new kit from a pasted list.</p>}
      <table className="shown sheet-lines">
        <thead>
          <tr>
            <th scope="col">line</th>
            <th scope="col">positions</th>
            <th scope="col">count</th>
            <th scope="col">
              <span className="sr-only">change</span>
            </th>
          </tr>
        </thead>
        <tbody>
          {kit.sheet.lines.map((l) => (
            <tr key={l.id} className={l.notFitted ? 'soft' : ''}>
              <th scope="row">
                {l.label} <small className="soft">{facts(l)}</small>
              </th>
              <td className="num">{l.refs.join(' ') || '–'}</td>
              <td className="num">{l.quantity}</td>
              <td>
                <button
                  type="button"
                  className="chip"
                  aria-label={`Remove ${l.label}`}
                  onClick={() => {
                    void append((k) => {
                      const gone = remove(k, 'lines', l.id);
                      return gone && withDependents(k, gone);
                    });
                  }}
                >
                  Remove
                </button>
              </td>
            </tr>
          ))}
        </tbody>
      </table>
    </>
  );
}

function facts(l: Line): string {
  const { unit, word } = factsOf(l.kind);
  const tolerance = l.tolerance ? printTolerance(l.tolerance) : '';
  return [
    word,
    l.value !== null ? printNominal(l.value, unit) : (l.type ?? ''),
    tolerance,
    l.rating?.volts ? `${l.rating.volts} V` : '',
    l.rating?.watts ? `${l.rating.watts} W` : '',
    l.package ?? '',
    l.notFitted ? 'not fitted' : '',
    l.option ? `only with ${l.option.split('=')[0]!}` : '',
    l.amendment ? `amended: ${l.amendment}` : '',
  ]
    .filter(Boolean)
    .join(', ');
}

/** A line typed as sellers print it; a slip that amends the list, wire links and needs go in here as well. */
function AddLine({ kit }: { kit: KitState }) {
  const append = useBench((s) => s.append);
  const [text, setText] = useState('');
  const [slip, setSlip] = useState('');
  const [message, setMessage] = useState('');
  const add = () => {
    const need = readNeed(text, `need-${newId().slice(0, 8)}`);
    if (need) {
      void append((k) => put(k, 'needs', need));
      setMessage(`Added to the needs: ${need.text}`);
      setText('');
      return;
    }
    const links = /^(?:wire )?links?\s+(.+)$/i.exec(text.trim());
    const line = links ? linkLine(links[1]!) : freeLine(text);
    if (!line) {
      setMessage('Write what it is, its value and its positions, such as: Resistor 10k R30. Or: links LK1-LK3.');
      return;
    }
    const taken = line.refs.filter((r) => kit.sheet.lines.some((l) => l.refs.includes(r)));
    if (taken.length > 0) {
      setMessage(`${taken.join(', ')} stands in another line already. Remove it there first.`);
      return;
    }
    const id = `line-${newId().slice(0, 8)}`;
    void append((k) => put(k, 'lines', { ...line, id, ...(slip.trim() ? { amendment: slip.trim() } : {}) }));
    setMessage(`Added ${line.label}.`);
    setText('');
  };
  return (
    <form
      className="inline-form"
      style={{ marginTop: 12 }}
      onSubmit={(e) => {
        e.preventDefault();
        add();
      }}
    >
      <TextField label="Add a line" value={text} change={setText} hint="Resistor 10k 1% R30, or: links LK1-LK3" width={320} />
      <TextField label="From a slip that amends the list" value={slip} change={setSlip} hint="a resistor is missing on the board" width={230} />
      <button type="submit" className="plain">
        Add
      </button>
      <p role="status" className="soft" style={{ flexBasis: '100%' }}>
        {message}
      </p>
    </form>
  );
}

const COARSE: Readonly<Record<string, LineKind>> = {
  R: 'resistor',
  C: 'capacitor',
  L: 'inductor',
  D: 'diode',
  LED: 'led',
  Q: 'npn',
  XTAL: 'crystal',
  IC: 'ic',
  PCB: 'mechanical',
};

function freeLine(text: string): Omit<Line, 'id'> | null {
  const free = readFreeLine(text);
  const kind = COARSE[free.kind];
  if (!kind) return null;
  const value = typeof free.value === 'number' ? free.value : null;
  const shown = value !== null ? printNominal(value, factsOf(kind).unit) : String(free.value ?? text);
  return {
    kind,
    label: kind === 'led' ? `LED ${shown}` : shown,
    value,
    tolerance: null,
    quantity: free.quantity,
    refs: free.refs,
    ...(typeof free.value === 'string' && kind !== 'led' ? { type: free.value } : {}),
    ...(kind === 'led' && typeof free.value === 'string' ? { colour: free.value } : {}),
  };
}

/** Links are bent from cut-off legs: they have positions and no pieces in the bag. */
function linkLine(text: string): Omit<Line, 'id'> | null {
  const refs = expandRefs(text);
  return refs && refs.length > 0 ? { kind: 'link', label: 'Wire links', value: null, tolerance: null, quantity: 0, refs } : null;
}

function Needs({ kit }: { kit: KitState }) {
  return (
    <>
      <h2 className="label">Needed, not supplied</h2>
      {kit.sheet.needs.length === 0 && <p className="soft">Nothing is noted. Add a line such as “12 V adapter 500 mA 5.5/2.1 mm centre plus, not included”.</p>}
      {kit.sheet.needs.map((n) => (
        <NeedRow key={n.id} kit={kit} need={n} />
      ))}
    </>
  );
}

function NeedRow({ kit, need }: { kit: KitState; need: Need }) {
  const append = useBench((s) => s.append);
  const noted = kit.owned.get(need.id)?.at(-1)?.owned;
  const [owned, setOwned] = useState<Owned>(noted ?? {});
  const [open, setOpen] = useState(false);
  const set = (key: 'volts' | 'amperes' | 'ohms' | 'watts') => (v: number | null) => {
    setOwned((o) => {
      const rest = Object.fromEntries(Object.entries(o).filter(([k]) => k !== key)) as Owned;
      return v === null ? rest : { ...rest, [key]: v };
    });
  };
  const verdict = noted ? meetsNeed(need, noted) : null;
  return (
    <div className="need">
      <p>
        {verdict && <VerdictMark verdict={verdict.meets ? 'in' : 'out'} size={16} />} <b>{need.text}</b>
      </p>
      {verdict && <p className="soft">What you own: {verdict.reasons.join('; ')}.</p>}
      {open ? (
        <form
          className="inline-form"
          onSubmit={(e) => {
            e.preventDefault();
            void append({ kind: 'owned', need: need.id, owned });
            setOpen(false);
          }}
        >
          {(need.volts !== undefined || need.kind === 'supply' || need.kind === 'battery') && (
            <QuantityField label="Volts" unit="V" value={owned.volts ?? null} change={set('volts')} width={90} />
          )}
          {(need.amperes !== undefined || need.kind === 'supply') && (
            <QuantityField label="Amperes" unit="A" value={owned.amperes ?? null} change={set('amperes')} width={90} />
          )}
          {need.ohms !== undefined && <QuantityField label="Ohms" unit="ohm" value={owned.ohms ?? null} change={set('ohms')} width={90} />}
          {need.watts !== undefined && <QuantityField label="Watts" unit="W" value={owned.watts ?? null} change={set('watts')} width={90} />}
          {need.plug !== undefined && (
            <TextField
              label="Plug"
              value={owned.plug ?? ''}
              change={(plug) => {
                setOwned((o) => ({ ...o, plug }));
              }}
              hint={need.plug}
              width={100}
            />
          )}
          {need.polarity !== undefined && (
            <span className="field" style={{ width: 130 }}>
              <label htmlFor={`polarity-${need.id}`}>Polarity</label>
              <select
                id={`polarity-${need.id}`}
                value={owned.polarity ?? ''}
                onChange={(e) => {
                  const polarity = e.target.value;
                  if (polarity === 'centre-plus' || polarity === 'centre-minus') setOwned((o) => ({ ...o, polarity }));
                }}
              >
                <option value="">?</option>
                <option value="centre-plus">centre plus</option>
                <option value="centre-minus">centre minus</option>
              </select>
            </span>
          )}
          <button type="submit" className="plain">
            Does it do?
          </button>
        </form>
      ) : (
        <button
          type="button"
          className="chip"
          onClick={() => {
            setOpen(true);
          }}
        >
          Does what I own meet it?
        </button>
      )}
    </div>
  );
}

function Options({ kit }: { kit: KitState }) {
  const append = useBench((s) => s.append);
  if (kit.sheet.options.length === 0) return null;
  return (
    <>
      <h2 className="label">Edition and options</h2>
      {kit.sheet.options.map((o) => (
        <div key={o.id} className="row" style={{ marginBottom: 8 }}>
          <span>
            {o.text}
            {choiceOn(kit, o.id, kit.board) === undefined && <small className="soft"> not decided: counts as fitted</small>}
          </span>
          {o.choices.map((choice) => (
            <button
              key={choice}
              type="button"
              className="chip"
              aria-pressed={choiceOn(kit, o.id, kit.board) === choice}
              onClick={() => {
                void append({ kind: 'modified', change: { what: 'strap', option: o.id, choice } });
              }}
            >
              {choice}
            </button>
          ))}
        </div>
      ))}
    </>
  );
}
