'use client';
import { Alert, Button, Flex, Tag } from 'antd';
import { useState } from 'react';
import { documentOf, type Entry, isOfMaking, type KitFinding, type KitState, kitFindings, stands, type UnknownEntry } from '@/core/kit';
import { entryText } from '@/core/loop';
import { toCsv } from '@/core/partslist';
import { logRows } from '@/core/report';
import { useBench } from '@/store/bench';
import { adoptCards } from '@/store/shelf';
import { CorrectReading, isCorrectable } from './CorrectReading';
import { saveFile } from './files';

type Logged = Entry | UnknownEntry;

/** Entries that were written as one step, newest first. */
interface Step {
  readonly id: string;
  readonly at: string;
  readonly entries: readonly Logged[];
}

const SHOWN_AT_ONCE = 50;

function stepsOf(log: readonly Logged[]): Step[] {
  const steps = new Map<string, Logged[]>();
  for (const e of log) {
    if (e.kind === 'withdrawn' && e.batch === undefined) continue;
    const id = e.batch ?? e.id;
    const known = steps.get(id);
    if (known) known.push(e);
    else steps.set(id, [e]);
  }
  return [...steps].map(([id, entries]) => ({ id, at: entries[0]!.at, entries })).reverse();
}

/** All entries, newest first. Nothing is deleted: a step is taken back, stays readable, and can be put back. */
export function LogView({ kit }: { kit: KitState }) {
  const { append, unsaved } = useBench();
  const [note, setNote] = useState('');
  const [shown, setShown] = useState(SHOWN_AT_ONCE);
  const [correcting, setCorrecting] = useState<Entry | null>(null);
  const steps = stepsOf(kit.log);
  const work = steps.filter((s) => !isOfMaking(kit, s.entries[0]!));
  const gone = work.filter((s) => s.entries.every((e) => kit.gone.has(e.id))).length;
  const notSaved = new Set(unsaved.map((e) => e.id));
  const exportKit = async () => {
    const cards = await adoptCards(kit);
    if (cards.length > 0) await append(cards);
    const now = useBench.getState().kit ?? kit;
    saveFile(`${fileName(kit.sheet.title)}.zesty.json`, JSON.stringify(documentOf(now, useBench.getState().attachments), null, 1));
  };
  return (
    <div className="zones">
      <section className="card" aria-label="Log">
        <div className="row" style={{ justifyContent: 'space-between', marginBottom: 10 }}>
          <h2 className="label" style={{ margin: 0 }}>
            {work.length} entries, {gone} withdrawn
          </h2>
          <form
            className="row"
            onSubmit={(e) => {
              e.preventDefault();
              if (note.trim() !== '') void append({ kind: 'noted', text: note.trim() });
              setNote('');
            }}
          >
            <input
              type="text"
              aria-label="Note"
              placeholder="A note for later"
              value={note}
              maxLength={500}
              onChange={(e) => {
                setNote(e.target.value);
              }}
              style={{
                width: 260,
                padding: '8px 12px',
                border: '1px solid var(--line)',
                borderRadius: 9,
                background: 'var(--field)',
                color: 'var(--ink)',
                font: 'inherit',
              }}
            />
            <button type="submit" className="plain">
              Add note
            </button>
            <button
              type="button"
              className="plain"
              onClick={() => {
                saveFile(`${fileName(kit.sheet.title)}-log.csv`, toCsv(logRows(kit)), 'text/csv');
              }}
            >
              Readings as CSV
            </button>
            <button type="button" className="zest" onClick={() => void exportKit()}>
              Export the kit
            </button>
          </form>
        </div>
        <FindingList findings={kitFindings(kit).filter((f) => f.code !== 'conflict')} />
        {work.length === 0 && <p>Nothing has happened yet. Counting in Unpack makes the first entries.</p>}
        {steps.slice(0, shown).map((step) => (
          <StepRow key={step.id} kit={kit} step={step} notSaved={step.entries.some((e) => notSaved.has(e.id))} correct={setCorrecting} />
        ))}
        {steps.length > shown && (
          <Button
            onClick={() => {
              setShown(shown + SHOWN_AT_ONCE);
            }}
          >
            Show {Math.min(SHOWN_AT_ONCE, steps.length - shown)} older steps
          </Button>
        )}
      </section>
      {correcting && isCorrectable(correcting) && (
        <CorrectReading
          kit={kit}
          entry={correcting}
          close={() => {
            setCorrecting(null);
          }}
        />
      )}
    </div>
  );
}

function FindingList({ findings }: { findings: readonly KitFinding[] }) {
  return findings.map((f) => <Alert key={f.text} type="info" title={f.text} style={{ marginBottom: 8 }} />);
}

interface RowProps {
  readonly kit: KitState;
  readonly step: Step;
  readonly notSaved: boolean;
  readonly correct: (entry: Entry) => void;
}

function StepRow({ kit, step, notSaved, correct }: RowProps) {
  const append = useBench((s) => s.append);
  const isGone = step.entries.every((e) => kit.gone.has(e.id));
  const [first] = step.entries;
  const makesKit = first !== undefined && isOfMaking(kit, first);
  const batch = first?.batch;
  const takeBack = () => {
    void append(batch === undefined ? { kind: 'withdrawn', entry: step.id } : { kind: 'withdrawn', ofBatch: batch });
  };
  const putBack = () => {
    const by = withdrawalOf(kit, step);
    if (by) void append({ kind: 'withdrawn', entry: by.id });
  };
  const correctable = !isGone && step.entries.length === 1 && first && stands(kit, first) && isCorrectable(first) ? first : null;
  return (
    <div className="log-row">
      <span className="num soft">{when(step.at)}</span>
      <span aria-hidden="true">{SIGN[first?.kind ?? ''] ?? '·'}</span>
      <span className={isGone ? 'gone' : ''}>
        {stepText(kit, step, makesKit)} {notSaved && <Tag color="warning">not saved yet</Tag>}
      </span>
      <Flex gap="small">
        {correctable && (
          <Button
            size="small"
            onClick={() => {
              correct(correctable);
            }}
          >
            Correct
          </Button>
        )}
        {isGone ? (
          <Button size="small" onClick={putBack}>
            Put back
          </Button>
        ) : (
          !makesKit && (
            <Button size="small" onClick={takeBack}>
              Withdraw
            </Button>
          )
        )}
      </Flex>
    </div>
  );
}

function stepText(kit: KitState, step: Step, makesKit: boolean): string {
  if (makesKit) return `The kit was made: ${step.entries.length} records of its sheet`;
  const telling = step.entries.filter((e) => e.kind !== 'withdrawn');
  const texts = (telling.length > 0 ? telling : step.entries).map((e) => entryText(kit, e));
  const corrected = step.entries.some((e) => e.kind === 'withdrawn') && telling.length > 0 ? 'Corrected: ' : '';
  return `${corrected}${texts.slice(0, 3).join('; ')}${texts.length > 3 ? ` and ${texts.length - 3} more` : ''}`;
}

/** The standing withdrawal that took a step back. */
const withdrawalOf = (kit: KitState, step: Step) => {
  const ids = new Set(step.entries.map((e) => e.id));
  return kit.log.find(
    (e) =>
      e.kind === 'withdrawn' &&
      !kit.gone.has(e.id) &&
      (ids.has((e as { entry?: string }).entry ?? '') || (e as { ofBatch?: string }).ofBatch === step.id) &&
      !ids.has(e.id),
  );
};

const SIGN: Readonly<Record<string, string>> = {
  counted: '#',
  measured: '≈',
  fitted: '+',
  removed: '−',
  read: '≈',
  probed: '≈',
  observed: '◉',
  found: '!',
  repaired: '✓',
  noted: '“',
  changed: '→',
};

const when = (at: string) => {
  const date = new Date(at);
  return Number.isNaN(date.getTime()) ? at : new Intl.DateTimeFormat(undefined, { dateStyle: 'short', timeStyle: 'medium' }).format(date);
};

const fileName = (title: string) =>
  title
    .toLowerCase()
    .replace(/[^\p{L}\p{N}]+/gu, '-')
    .replace(/^-|-$/g, '') || 'kit';
