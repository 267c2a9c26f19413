'use client';
import { useState } from 'react';
import { type KitState, type KitSettings, type MeasuringSchool, meterOf, put, type RecordOf, type ReadingValue } from '@/core/kit';
import { agreement, judgeMeterCheck, type MeterProfile, type MeterRange, TYPICAL_METERS, uncertaintyOf, verifyInstrument } from '@/core/meter';
import { parseDisplay, print, type Unit } from '@/core/quantity';
import { useBench } from '@/store/bench';
import { newId } from '@/store/stamps';
import { QuantityField, TextField } from './Field';
import { VerdictMark } from './VerdictMark';

const MEASURE: readonly (readonly [MeasuringSchool, string])[] = [
  ['matters', 'What matters most first (recommended: the circuit tells which wrong part does most harm)'],
  ['all', 'Everything, down the list (slowest, misses nothing)'],
  ['unreadable', 'Only what cannot be read by eye (quick; misses a lot whose print is right and value wrong)'],
  ['one-per-packet', 'One of each packet (quickest; misses the single stray)'],
];
const SCHOOLS: readonly (readonly [KitSettings['school'], string])[] = [
  ['simple', 'Simple: compare the number with the limits (quick; near a limit the meter may be what is off)'],
  ['guarded', 'Guarded: allow for the meter; near a limit the verdict is “doubtful” (recommended with a good meter)'],
];

/** One's meters: which is in use, whether it is sound, whether two agree, and how readings are judged. */
export function InstrumentsView({ kit }: { kit: KitState }) {
  return (
    <div className="zones halves">
      <section className="card" aria-label="Meters">
        <MeterList kit={kit} />
        <h2 className="label">Judging loose parts</h2>
        <Choices kit={kit} name="school" options={SCHOOLS} />
        <h2 className="label">What to measure</h2>
        <Choices kit={kit} name="measure" options={MEASURE} />
      </section>
      <section className="card" aria-label="Tests of the meter">
        <MeterCheck kit={kit} />
        <Comparison kit={kit} />
      </section>
    </div>
  );
}

function Choices<K extends 'school' | 'measure'>({ kit, name, options }: { kit: KitState; name: K; options: readonly (readonly [KitSettings[K], string])[] }) {
  const append = useBench((s) => s.append);
  return (
    <fieldset className="choices">
      <legend className="sr-only">{name}</legend>
      {options.map(([value, text]) => (
        <label key={value}>
          <input
            type="radio"
            name={name}
            checked={kit.settings[name] === value}
            onChange={() => {
              void append((k) => put(k, 'settings', { name, value } as RecordOf<'settings'>));
            }}
          />
          <span>{text}</span>
        </label>
      ))}
    </fieldset>
  );
}

const accuracy = (ranges: readonly MeterRange[] | undefined) => (ranges?.[0] ? `±(${ranges[0].percent} % + ${ranges[0].counts})` : 'none');

function MeterList({ kit }: { kit: KitState }) {
  const append = useBench((s) => s.append);
  const [adding, setAdding] = useState(false);
  return (
    <>
      <h2 className="label">The meter in use</h2>
      <fieldset className="choices">
        <legend className="sr-only">meter</legend>
        {[...TYPICAL_METERS, ...kit.settings.meters].map((m) => (
          <label key={m.id}>
            <input
              type="radio"
              name="meter"
              checked={kit.settings.meter === m.id}
              onChange={() => {
                void append((k) => put(k, 'settings', { name: 'meter', value: m.id }));
              }}
            />
            <span>
              <b>{m.name}</b>{' '}
              <span className="soft num">
                volts {accuracy(m.ranges.dcv)}, ohms {accuracy(m.ranges.ohms)}, leads {meterOf(kit, m.id).leadResistance} Ω
              </span>
            </span>
          </label>
        ))}
      </fieldset>
      {adding ? (
        <OwnMeter
          kit={kit}
          done={() => {
            setAdding(false);
          }}
        />
      ) : (
        <button
          type="button"
          className="plain"
          onClick={() => {
            setAdding(true);
          }}
        >
          Add my own meter
        </button>
      )}
    </>
  );
}

/** A meter of one's own: a copy of the meter in use with the figures of its manual. */
function OwnMeter({ kit, done }: { kit: KitState; done: () => void }) {
  const append = useBench((s) => s.append);
  const base = meterOf(kit);
  const [name, setName] = useState('');
  const [figures, setFigures] = useState({
    dcv: base.ranges.dcv?.[0]?.percent ?? 0.5,
    dcvCounts: base.ranges.dcv?.[0]?.counts ?? 2,
    ohms: base.ranges.ohms?.[0]?.percent ?? 0.8,
    ohmsCounts: base.ranges.ohms?.[0]?.counts ?? 3,
    capacitance: base.ranges.capacitance?.[0]?.percent ?? 4,
    capacitanceCounts: base.ranges.capacitance?.[0]?.counts ?? 5,
    leads: base.leadResistance,
    input: base.inputResistance,
    zero: base.capacitanceZero,
  });
  const set = (key: keyof typeof figures) => (v: number | null) => {
    if (v !== null) setFigures((f) => ({ ...f, [key]: v }));
  };
  const make = () => {
    const ranges = { ...base.ranges };
    for (const mode of ['dcv', 'ohms', 'capacitance'] as const)
      if (ranges[mode]) ranges[mode] = ranges[mode].map((r) => ({ ...r, percent: figures[mode], counts: figures[`${mode}Counts`] }));
    const meter: MeterProfile = {
      ...base,
      id: newId(),
      name: name.trim() || 'My meter',
      ranges,
      leadResistance: figures.leads,
      inputResistance: figures.input,
      capacitanceZero: figures.zero,
    };
    void append((k) => [put(k, 'meters', meter), put(k, 'settings', { name: 'meter', value: meter.id })]);
    done();
  };
  return (
    <form
      className="inline-form"
      onSubmit={(e) => {
        e.preventDefault();
        make();
      }}
    >
      <TextField label="Name" value={name} change={setName} hint="My meter" width={170} />
      <QuantityField label="Volts, %" unit={null} value={figures.dcv} change={set('dcv')} width={84} />
      <QuantityField label="+ counts" unit={null} value={figures.dcvCounts} change={set('dcvCounts')} width={84} />
      <QuantityField label="Ohms, %" unit={null} value={figures.ohms} change={set('ohms')} width={84} />
      <QuantityField label="+ counts" unit={null} value={figures.ohmsCounts} change={set('ohmsCounts')} width={84} />
      <QuantityField label="Farads, %" unit={null} value={figures.capacitance} change={set('capacitance')} width={84} />
      <QuantityField label="+ counts" unit={null} value={figures.capacitanceCounts} change={set('capacitanceCounts')} width={84} />
      <QuantityField label="Leads" unit="ohm" value={figures.leads} change={set('leads')} width={84} />
      <QuantityField label="Input" unit="ohm" value={figures.input} change={set('input')} width={96} />
      <QuantityField label="Zero, farads" unit="F" value={figures.zero} change={set('zero')} width={96} />
      <button type="submit" className="plain">
        Use it
      </button>
      <p className="soft" style={{ flexBasis: '100%' }}>
        Figures from its manual; its ranges are those of {base.name.split(',')[0]}.
      </p>
    </form>
  );
}

function readDisplay(text: string, unit: Unit): ReadingValue | null {
  const parsed = parseDisplay(text, unit);
  return parsed.ok ? (parsed.kind === 'over' ? 'over' : parsed.value) : null;
}

/** Thirty seconds that tell whether the meter itself can be trusted. */
function MeterCheck({ kit }: { kit: KitState }) {
  const append = useBench((s) => s.append);
  const [together, setTogether] = useState('');
  const [apart, setApart] = useState('');
  const [known, setKnown] = useState('');
  const [nominal, setNominal] = useState<number | null>(null);
  const meter = meterOf(kit);
  const a = readDisplay(together, 'ohm');
  const b = readDisplay(apart, 'ohm');
  const c = readDisplay(known, 'ohm');
  const part = nominal !== null && c !== null ? { nominal, percent: 1, reading: c } : null;
  const verdict = a === null || b === null ? null : judgeMeterCheck(meter, a, b, part);
  const last = kit.checkedMeters.get(kit.settings.meter);
  return (
    <>
      <h2 className="label">Thirty seconds for the meter</h2>
      <p className="soft">
        On ohms.{' '}
        {last ? `Done on ${last.at.slice(0, 10)} with this meter; its leads count as ${meter.leadResistance} Ω from then on.` : 'Not done yet with this meter.'}
      </p>
      <form
        className="inline-form"
        onSubmit={(e) => {
          e.preventDefault();
          if (a !== null && b !== null) void append({ kind: 'meter-checked', meter: kit.settings.meter, together: a, apart: b, known: part });
        }}
      >
        <TextField label="Probes together" value={together} change={setTogether} hint="0.2" width={130} />
        <TextField label="Probes apart" value={apart} change={setApart} hint="OL" width={120} />
        <QuantityField label="A known 1 % part" unit="ohm" value={null} change={setNominal} hint="10k" width={130} />
        <TextField label="It reads" value={known} change={setKnown} hint="10.02k" width={120} />
        <button type="submit" className="plain" disabled={verdict === null}>
          Note it
        </button>
      </form>
      {verdict && (
        <div className={`verdict-line v-${verdict.sound ? 'in' : 'out'}`} style={{ fontSize: 17 }} role="status">
          <VerdictMark verdict={verdict.sound ? 'in' : 'out'} size={20} />
          <span>
            {verdict.sound ? `The meter is sound; ${typeof a === 'number' ? `${a} Ω of leads will be subtracted` : ''}.` : verdict.findings.join(' ')}
          </span>
        </div>
      )}
    </>
  );
}

const MODES = [
  ['ohms', 'ohms', 'ohm'],
  ['dcv', 'volts', 'V'],
  ['capacitance', 'farads', 'F'],
] as const;

/** Two instruments on one part, or a home-built one against parts that are known: do they agree? */
function Comparison({ kit }: { kit: KitState }) {
  const append = useBench((s) => s.append);
  const [mode, setMode] = useState<'ohms' | 'dcv' | 'capacitance'>('ohms');
  const [instrument, setInstrument] = useState('');
  const [reading, setReading] = useState('');
  const [other, setOther] = useState('');
  const [percent, setPercent] = useState('');
  const unit = MODES.find(([m]) => m === mode)![2];
  const mine = readDisplay(reading, unit);
  const theirs = readDisplay(other, unit);
  const ready = typeof mine === 'number' && typeof theirs === 'number';
  const known = percent.trim() !== '' && Number(percent) >= 0;
  const done = kit.compared;
  const points = done.flatMap((e) =>
    'value' in e.against && e.mode === mode && e.instrument === (instrument || 'second instrument') ? [{ known: e.against.value, reading: e.reading }] : [],
  );
  const fit = verifyInstrument(points);
  return (
    <>
      <h2 className="label" style={{ marginTop: 18 }}>
        Do two instruments agree? Is a home-built one right?
      </h2>
      <p className="soft">
        One part, read with both. Or parts of known value (their tolerance typed) read with the one to be verified: three or more, spread over its range.
      </p>
      <form
        className="inline-form"
        onSubmit={(e) => {
          e.preventDefault();
          if (!ready) return;
          void append({
            kind: 'compared',
            mode,
            instrument: instrument || 'second instrument',
            reading: mine,
            against: known ? { value: theirs, percent: Number(percent) } : { meter: kit.settings.meter, reading: theirs },
          });
          setReading('');
          setOther('');
        }}
      >
        <span className="field" style={{ width: 100 }}>
          <label htmlFor="compare-mode">Mode</label>
          <select
            id="compare-mode"
            value={mode}
            onChange={(e) => {
              setMode(e.target.value as typeof mode);
            }}
          >
            {MODES.map(([m, name]) => (
              <option key={m} value={m}>
                {name}
              </option>
            ))}
          </select>
        </span>
        <TextField label="Instrument" value={instrument} change={setInstrument} hint="second instrument" width={150} />
        <TextField label="It reads" value={reading} change={setReading} hint="9.96k" width={100} />
        <TextField label={known ? 'Known value' : 'The meter in use reads'} value={other} change={setOther} hint="10.01k" width={150} />
        <TextField label="Known to ±%" value={percent} change={setPercent} hint="1" width={96} />
        <button type="submit" className="plain" disabled={!ready}>
          Note it
        </button>
      </form>
      <ul className="plain-list" aria-label="Comparisons">
        {done
          .slice(-6)
          .reverse()
          .map((e) => (
            <ComparisonRow key={e.id} kit={kit} e={e} />
          ))}
      </ul>
      {fit && (
        <p>
          Over {points.length} known parts it reads <b>{(100 * fit.gain).toFixed(2)} %</b> {fit.gain < 0 ? 'low' : 'high'} and is off by{' '}
          <b>{print(fit.offset, unit, 3)}</b> at zero.
        </p>
      )}
    </>
  );
}

function ComparisonRow({ kit, e }: { kit: KitState; e: Extract<KitState['log'][number], { kind: 'compared' }> }) {
  const unit = MODES.find(([m]) => m === e.mode)?.[2] ?? null;
  const meter = meterOf(kit);
  // An instrument without figures of its own is taken to be no better than the meter in use.
  const own = uncertaintyOf(meter, e.mode, e.reading)?.standard ?? 0;
  const other =
    'value' in e.against
      ? { value: e.against.value, standard: (e.against.percent / 100 / Math.sqrt(3)) * e.against.value }
      : { value: e.against.reading, standard: uncertaintyOf(meterOf(kit, e.against.meter), e.mode, e.against.reading)?.standard ?? 0 };
  const result = agreement({ value: e.reading, standard: own }, other);
  return (
    <li>
      <VerdictMark verdict={result.agrees ? 'in' : 'out'} size={16} /> <b>{e.instrument}</b> {print(e.reading, unit)} against {print(other.value, unit)}:{' '}
      {result.agrees ? 'agree' : 'do not agree'}, difference {print(result.difference, unit, 3)} of ±{print(result.expanded, unit, 2)} allowed
    </li>
  );
}
