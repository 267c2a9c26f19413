'use client';
import { useState } from 'react';
import { entryText } from '@/core/bench/logText';
import { type KitDocument, standing } from '@/core/kit';
import { logRows } from '@/core/report';
import { useBench } from '@/store/bench';
import { toCsv } from '@/store/listText';
import { saveFile } from './files';

/** All entries, newest first. Nothing is deleted: an entry is withdrawn and stays readable. */
export function LogView({ kit }: { kit: KitDocument }) {
  const append = useBench((s) => s.append);
  const [note, setNote] = useState('');
  const counting = new Set(standing(kit.log).map((e) => e.id));
  const rows = kit.log.filter((e) => e.kind !== 'withdrawn').reverse();
  return (
    <div className="zones">
      <section className="card" aria-label="Log">
        <div className="row" style={{ justifyContent: 'space-between', marginBottom: 10 }}>
          <h2 className="label" style={{ margin: 0 }}>
            {rows.length} entries, {rows.length - counting.size} withdrawn
          </h2>
          <form
            className="row"
            onSubmit={(e) => {
              e.preventDefault();
              if (note.trim() !== '') append({ kind: 'noted', text: note.trim() });
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
            <button
              type="button"
              className="zest"
              onClick={() => {
                saveFile(`${fileName(kit.sheet.title)}.zesty.json`, JSON.stringify(kit, null, 1));
              }}
            >
              Export the kit
            </button>
          </form>
        </div>
        {rows.length === 0 && <p>Nothing has happened yet. Counting in Unpack makes the first entries.</p>}
        {rows.map((e) => (
          <div key={e.id} className={`log-row ${counting.has(e.id) ? '' : 'gone'}`}>
            <span className="num soft">{when(e.at)}</span>
            <span aria-hidden="true">{SIGN[e.kind] ?? '·'}</span>
            <span>{entryText(kit, e)}</span>
            {counting.has(e.id) ? (
              <button
                type="button"
                className="plain"
                onClick={() => {
                  append({ kind: 'withdrawn', entry: e.id });
                }}
              >
                Withdraw
              </button>
            ) : (
              <span className="soft">withdrawn</span>
            )}
          </div>
        ))}
      </section>
    </div>
  );
}

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
