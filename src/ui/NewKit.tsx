'use client';
import Link from 'next/link';
import { useRouter } from 'next/navigation';
import { type ChangeEvent, useDeferredValue, useMemo, useRef, useState } from 'react';
import { type Draft, suggestedNets } from '@/core/draft';
import { describe } from '@/core/circuit';
import { type Columns } from '@/core/partslist';
import { readListFile } from '@/store/listText';
import { askFree } from '@/store/results';
import { createKit } from '@/store/shelf';
import { ListPreview } from './ListPreview';
import { useAnswer } from './useResult';

const LIST_EXAMPLE =
  'refs,kind,value,tolerance,qty\n"R1,R2",resistor,10k,5%,2\n\nor free lines in any of ten languages:\nR1-R4,R7 10k 1/4W x5\nC1、C2 瓷片电容 104\n2x 100 µF/25V electrolítico\n12 V adapter 500 mA, not included';
const DECK_EXAMPLE = 'My board\nV1 in 0 9\nR1 in led 470\nD1 led 0 LRED\n.model LRED D(IS=7.7E-18 N=2 RS=2)\n.end';
const MOST_CHARACTERS = 2_000_000;

const NOTHING_READ: Draft = {
  rows: [],
  lines: [],
  list: { lines: [], needs: [], options: [], remarks: [], way: 'free', columns: [], heading: -1 },
  circuit: null,
  deckRemarks: [],
  nets: [],
  mismatches: [],
  unsolvable: null,
};

export function NewKit() {
  const router = useRouter();
  const [title, setTitle] = useState('');
  const [list, setList] = useState('');
  const [deck, setDeck] = useState('');
  const [chosen, setChosen] = useState<ReadonlySet<string> | null>(null);
  const [message, setMessage] = useState<string | null>(null);
  const slowList = useDeferredValue(list);
  const slowDeck = useDeferredValue(deck);
  const [columns, setColumns] = useState<Columns | null>(null);
  const [note, setNote] = useState('');
  const file = useRef<HTMLInputElement>(null);
  const asked = useMemo(() => ({ list: slowList, deck: slowDeck, columns }), [slowList, slowDeck, columns]);
  const answer = useAnswer('readDraft', asked);
  const draft = answer.value ?? NOTHING_READ;
  const { rows } = draft;
  const pickList = async (e: ChangeEvent<HTMLInputElement>) => {
    const chosenFile = e.target.files?.[0];
    e.target.value = '';
    if (!chosenFile) return;
    const { text, encoding } = await readListFile(chosenFile);
    setList(text.slice(0, MOST_CHARACTERS).replace(/\r\n?/g, '\n'));
    setColumns(null);
    setMessage(null);
    setNote(`${chosenFile.name}, read as ${encoding}.`);
  };
  const nets = chosen ?? new Set(suggestedNets(draft));

  const make = () => {
    askFree('readDraft', { list, deck, columns })
      .then((read) => {
        const blocked = problemOf(read, list, deck);
        if (blocked !== null) throw new Error(blocked);
        const reach = chosen ?? new Set(suggestedNets(read));
        return createKit(
          title.trim() || read.circuit?.title || 'My kit',
          read,
          deck,
          read.nets.filter((n) => reach.has(n)),
        );
      })
      .then(
        (id) => {
          router.push(`/bench/?kit=${encodeURIComponent(id)}`);
        },
        (error: unknown) => {
          setMessage((error as Error).message);
        },
      );
  };
  const toggle = (net: string) => {
    const next = new Set(nets);
    if (!next.delete(net)) next.add(net);
    setChosen(next);
  };

  return (
    <main className="page">
      <h1>New kit</h1>
      <p style={{ margin: '6px 0 16px' }}>
        Paste what you have. The list tells what should be in the bag, the deck what every point should measure. Either alone works too.
      </p>
      <label className="label" htmlFor="title">
        Name of the kit
      </label>
      <input
        id="title"
        type="text"
        value={title}
        onChange={(e) => {
          setTitle(e.target.value);
        }}
        placeholder={draft.circuit?.title || 'My kit'}
        maxLength={120}
        style={{ marginBottom: 16 }}
      />
      <div className="form-grid">
        <div>
          <label className="label" htmlFor="list">
            Parts list, as the seller prints it
          </label>
          <textarea
            id="list"
            value={list}
            onChange={(e) => {
              // A field that was filled from a file reports a change once more when it loses the focus.
              if (e.target.value === list) return;
              setList(e.target.value);
              setColumns(null);
              setNote('');
            }}
            placeholder={LIST_EXAMPLE}
            spellCheck={false}
            maxLength={MOST_CHARACTERS}
          />
          <p className="soft" role="status">
            {draft.lines.length > 0
              ? `${draft.lines.length} lines, ${draft.lines.reduce((n, l) => n + l.refs.length, 0)} positions${list.trim() === '' ? ', made from the deck' : ''}.`
              : answer.state === 'working'
                ? 'Reading the list…'
                : 'No lines yet.'}
          </p>
          <div className="row">
            <button
              type="button"
              className="plain"
              onClick={() => {
                file.current?.click();
              }}
            >
              Open a list file
            </button>
            <span className="soft">CSV, TSV, XLSX or text, in any usual encoding. {note}</span>
            <input
              ref={file}
              type="file"
              accept=".csv,.tsv,.txt,.xlsx,text/*"
              className="sr-only"
              aria-label="List file"
              tabIndex={-1}
              onChange={(e) => {
                pickList(e).catch((error: unknown) => {
                  setMessage((error as Error).message);
                });
              }}
            />
          </div>
          <ul className="remarks">
            {draft.list.remarks.slice(0, 30).map((r, i) => (
              <li key={i} className={r.severity}>
                <b>Line {r.line}:</b> {r.message}. {r.remedy}
              </li>
            ))}
          </ul>
        </div>
        <div>
          <label className="label" htmlFor="deck">
            Circuit (SPICE deck, first line is its title)
          </label>
          <textarea
            id="deck"
            value={deck}
            onChange={(e) => {
              setDeck(e.target.value);
              setChosen(null);
            }}
            placeholder={DECK_EXAMPLE}
            spellCheck={false}
            maxLength={MOST_CHARACTERS}
          />
          <p className="soft" role="status">
            {draft.circuit && draft.circuit.parts.length > 0
              ? `${draft.circuit.parts.length} parts, ${draft.nets.length} nets.`
              : 'No circuit yet: parts can be counted and checked, but no voltages computed.'}
          </p>
          <ul className="remarks">
            {draft.deckRemarks.slice(0, 30).map((d, i) => (
              <li key={i} className={d.severity}>
                {describe(d)}
              </li>
            ))}
            {draft.unsolvable !== null && <li className="error">{draft.unsolvable}</li>}
            {draft.list.remarks.length === 0 && draft.mismatches.slice(0, 12).map((m) => <li key={m}>{m}</li>)}
          </ul>
        </div>
      </div>
      {rows.length > 0 && <ListPreview rows={rows} list={draft.list} setColumns={setColumns} />}
      {draft.nets.length > 0 && (
        <fieldset style={{ border: '1px solid var(--line)', borderRadius: 10, margin: '16px 0', padding: '10px 16px' }}>
          <legend className="label" style={{ margin: 0 }}>
            Which nets can you reach with a probe? These become test points.
          </legend>
          <div className="net-pick">
            {draft.nets.map((n) => (
              <label key={n}>
                <input
                  type="checkbox"
                  checked={nets.has(n)}
                  onChange={() => {
                    toggle(n);
                  }}
                />{' '}
                <span className="num">{n}</span>
              </label>
            ))}
          </div>
        </fieldset>
      )}
      {message !== null && (
        <p role="alert" className="entry-error" style={{ margin: '10px 0' }}>
          {message}
        </p>
      )}
      <div className="row" style={{ marginTop: 16 }}>
        <button type="button" className="zest" onClick={make}>
          Make the kit
        </button>
        <Link className="plain" href="/">
          Back to the shelf
        </Link>
      </div>
    </main>
  );
}

/** Why no kit can be made of this yet; null when it can. */
function problemOf(draft: Draft, list: string, deck: string): string | null {
  if (list.trim() === '' && deck.trim() === '') return 'Paste a parts list or a deck first.';
  if (draft.deckRemarks.some((d) => d.severity === 'error'))
    return 'The deck has errors: mend the lines named above, or clear the field to make a kit without a circuit.';
  if (draft.unsolvable !== null) return draft.unsolvable;
  if (list.trim() !== '' && draft.lines.length === 0) return 'No line of the list was understood: see the remarks above.';
  return null;
}
