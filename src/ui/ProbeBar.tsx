'use client';
import { Tag } from 'antd';
import { type KeyboardEvent, type RefObject, useEffect, useMemo } from 'react';
import { expectationText, type LastVerdict, lastVerdict, type Phase } from '@/core/loop';
import { type KitState, meterOf } from '@/core/kit';
import { uncertaintyOf } from '@/core/meter';
import { type MeterMode } from '@/core/vocabulary';
import { parseDisplay, UNIT_SYMBOL } from '@/core/quantity';
import { conformity, type Verdict } from '@/core/verdict';
import { useBench } from '@/store/bench';
import { type Loop } from './useLoop';
import { useWindows } from './useWindows';
import { VerdictMark } from './VerdictMark';
import { WindowGauge } from './WindowGauge';

interface Props {
  readonly kit: KitState;
  readonly phase: Phase;
  readonly loop: Loop;
  readonly field: RefObject<HTMLInputElement | null>;
  readonly nothing: string;
  /** Opens the marking reader; null where nothing is printed on the target. */
  readonly readMarking: (() => void) | null;
}

/** Always at the same place: target, entry, expectation, last verdict. */
export function ProbeBar({ kit, phase, loop, field, nothing, readMarking }: Props) {
  const windows = useWindows(kit);
  const last = useMemo(() => lastVerdict(kit, windows), [kit, windows]);
  const notSaved = useBench((s) => s.unsaved.length > 0);
  return (
    <footer className="probe-bar" aria-label="Probe bar">
      <section>
        <h2 className="label">{phase === 'unpack' ? 'In the hand' : phase === 'fit' ? 'Next to fit' : 'Under the probes'}</h2>
        <TargetZone loop={loop} nothing={nothing} />
      </section>
      <section>
        <EntryZone kit={kit} phase={phase} loop={loop} field={field} readMarking={readMarking} />
      </section>
      <section className="expected-zone">
        <h2 className="label">Expected</h2>
        <ExpectedZone kit={kit} loop={loop} />
      </section>
      <section aria-live="polite">
        <h2 className="label">Last verdict</h2>
        <VerdictZone last={last} notSaved={notSaved} />
      </section>
    </footer>
  );
}

function TargetZone({ loop, nothing }: { loop: Loop; nothing: string }) {
  const { card } = loop;
  if (!card) return <p style={{ fontSize: 17, color: 'var(--ink)' }}>{nothing}</p>;
  return (
    <>
      <h3>
        {card.title} <span>{card.rest}</span>
      </h3>
      <p>{card.setting}</p>
      {card.red !== null && (
        <p>
          <span className="probe" style={{ background: 'var(--red-probe)' }} />
          <span className="sr-only">red probe: </span>
          {card.red}
          <br />
          <span className="probe" style={{ background: 'var(--black-probe)' }} />
          <span className="sr-only">black probe: </span>
          {card.black}
        </p>
      )}
      {card.note !== null && <p style={{ fontSize: 14 }}>{card.note}</p>}
    </>
  );
}

function EntryZone({ kit, phase, loop, field, readMarking }: Omit<Props, 'nothing'>) {
  const { card, target } = loop;
  const id = target?.id ?? '';
  useEffect(() => {
    field.current?.focus({ preventScroll: true });
  }, [id, field]);
  const practice = kit.settings.standIn !== null && target !== null && target.kind !== 'fit';
  if (card?.entry === 'confirm') return <ConfirmZone loop={loop} practice={practice} fitting={target?.kind === 'fit'} />;

  const onKeyDown = (e: KeyboardEvent<HTMLInputElement>) => {
    if (e.key === 'Enter') {
      // A held key enters once.
      if (!e.repeat) loop.take();
    } else if (e.key === 'Escape') loop.setText('');
    else if (loop.text === '' && !e.ctrlKey && !e.metaKey && !e.altKey && shortcut(e.key)) e.preventDefault();
  };
  const shortcut = (key: string): boolean => {
    if (key === 's' || key === 'S') loop.skip();
    else if ((key === 'm' || key === 'M') && practice) loop.readMeter();
    else if ((key === 'o' || key === 'O') && card?.entry === 'reading') loop.setText('OL');
    else return false;
    return true;
  };
  const counting = card?.entry === 'count';
  return (
    <>
      <h2 className="label">
        <label htmlFor="entry">{counting ? 'How many lie there' : 'Meter shows'}</label>
      </h2>
      <div className={`entry ${target ? '' : 'idle'}`}>
        <input
          id="entry"
          ref={field}
          value={loop.text}
          onChange={(e) => {
            loop.setText(e.target.value);
          }}
          onKeyDown={onKeyDown}
          disabled={!target}
          placeholder={counting && target?.kind === 'count' ? String(target.line.quantity) : ''}
          autoComplete="off"
          inputMode={counting ? 'numeric' : 'text'}
          spellCheck={false}
          maxLength={40}
          aria-invalid={loop.error !== null}
          aria-describedby="entry-error"
        />
        <span className="unit">{card?.unit ? UNIT_SYMBOL[card.unit] : ''}</span>
        <button type="button" className="plain" onClick={loop.take} disabled={!target}>
          <kbd>Enter</kbd> take it
        </button>
      </div>
      <div id="entry-error" role="alert" className={loop.error ? 'entry-error' : ''}>
        {loop.error}
      </div>
      {!loop.error && (
        <div className="keys">
          {practice && <Key k="M" text={loop.measuring ? 'measuring…' : 'read from the meter'} run={loop.readMeter} />}
          {readMarking && <Key k="B" text="read its marking" run={readMarking} />}
          {target && !counting && (
            <Key
              k="O"
              text="over-range"
              run={() => {
                loop.setText('OL');
              }}
            />
          )}
          {target && target.kind !== 'loose' && <Key k="S" text={phase === 'fault' ? 'can’t reach it, next best' : 'skip'} run={loop.skip} />}
          {phase === 'unpack' && (
            <Key
              k="L"
              text={loop.pileKind ? 'count packets' : 'loose pile'}
              run={() => {
                loop.setPileKind(loop.pileKind ? null : 'R');
              }}
            />
          )}
          {target && target.kind !== 'loose' && (
            <Key
              k="/"
              text="jump to a part"
              run={() => {
                loop.setText('/');
                field.current?.focus();
              }}
            />
          )}
          <Key
            k="Ctrl Z"
            text="withdraw"
            run={() => {
              void useBench.getState().undo();
            }}
          />
        </div>
      )}
    </>
  );
}

const Key = ({ k, text, run }: { k: string; text: string; run: () => void }) => (
  <button type="button" onClick={run}>
    <kbd>{k}</kbd> {text}
  </button>
);

function ConfirmZone({ loop, practice, fitting }: { loop: Loop; practice: boolean; fitting: boolean }) {
  return (
    <>
      <h2 className="label">{fitting ? 'Tick it off' : 'What do you see'}</h2>
      <div className="row" style={{ flexWrap: 'nowrap' }}>
        <button
          type="button"
          className="choice first"
          data-confirm="yes"
          onClick={() => {
            loop.confirm(true);
          }}
        >
          <kbd>Enter</kbd> {fitting ? 'fitted' : 'as expected'}
        </button>
        {!fitting && (
          <button
            type="button"
            className="choice"
            data-confirm="no"
            onClick={() => {
              loop.confirm(false);
            }}
          >
            <kbd>N</kbd> not so
          </button>
        )}
      </div>
      <div className="keys">
        {practice && <Key k="M" text={loop.measuring ? 'looking…' : 'look at the simulated board'} run={loop.readMeter} />}
        <Key k="S" text="skip" run={loop.skip} />
        <Key
          k="Ctrl Z"
          text="withdraw"
          run={() => {
            void useBench.getState().undo();
          }}
        />
      </div>
    </>
  );
}

function ExpectedZone({ kit, loop }: { kit: KitState; loop: Loop }) {
  const { card, target } = loop;
  if (!card || !target) return <p>—</p>;
  if (!card.expected) return <p style={{ fontSize: 16, color: 'var(--ink)' }}>{card.why}</p>;
  const { low, high, middle, over, from } = card.expected;
  const typed = card.unit ? parseDisplay(loop.text, card.unit) : null;
  const reading = typed?.ok && typed.kind === 'value' ? typed.value : null;
  const mode = modeOf(target);
  const halfWidth = reading === null || !mode ? 0 : (uncertaintyOf(meterOf(kit), mode, reading)?.halfWidth ?? 0);
  const verdict: Verdict = reading === null ? 'none' : conformity(reading, 0, low, high, 'simple').verdict;
  const text = expectationText(card);
  return (
    <>
      {over ? (
        <p style={{ fontSize: 20, color: 'var(--ink)' }}>over-range</p>
      ) : (
        <WindowGauge low={low} high={high} middle={middle} reading={reading} uncertainty={halfWidth} verdict={verdict} text={`expected ${text}`} />
      )}
      <p style={{ fontSize: 14 }}>
        <span className="num">{text}</span> &nbsp;{from}
      </p>
    </>
  );
}

function modeOf(target: NonNullable<Loop['target']>): MeterMode | null {
  if (target.kind === 'piece') return target.expected.mode;
  if (target.kind === 'probe') return 'dcv';
  return target.kind === 'check' && target.check.what === 'measure' ? target.check.mode : null;
}

function VerdictZone({ last, notSaved }: { last: LastVerdict | null; notSaved: boolean }) {
  if (!last) return <p>Nothing entered yet.</p>;
  return (
    <>
      <div className={`verdict-line v-${last.verdict}`}>
        <VerdictMark verdict={last.verdict} size={24} /> <span>{last.title}</span>
      </div>
      {notSaved && <Tag color="warning">not saved yet</Tag>}
      <p style={{ fontSize: 14 }}>{last.detail}</p>
      {last.reckoning.length > 0 && (
        <details className="reckoning">
          <summary>How this was reckoned</summary>
          <ul>
            {last.reckoning.map((r) => (
              <li key={r}>{r}</li>
            ))}
          </ul>
        </details>
      )}
    </>
  );
}
