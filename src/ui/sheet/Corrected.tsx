import { Button, Form, Input } from 'antd';
import { useDeferredValue, useMemo, useState } from 'react';
import { compareDecks, type DeckDifference, readDeck, describe, takeDifference } from '@/core/circuit';
import { acceptDifference, diffLines, type LineDifference } from '@/core/draft';
import type { KitState } from '@/core/kit';
import { patch, put } from '@/core/kit';
import { lineTitle } from '@/core/loop';
import { readList } from '@/core/partslist';
import { printNominal, printTolerance } from '@/core/quantity';
import { factsOf } from '@/core/vocabulary';
import { useBench } from '@/store/bench';
import { newId } from '@/store/stamps';
import { readListFile } from '@/store/listText';
import { FileButton } from '../form/FileButton';
import zones from '../shell/zones.module.css';
import { SourceDifferences } from './SourceDifferences';
import styles from './records/Records.module.css';

const MOST_CHARACTERS = 2_000_000;
const ROWS = 8;

/** A corrected list or deck beside what the kit has: each difference is taken over by itself, nothing else is touched. */
export function Corrected({ kit }: { kit: KitState }) {
  return (
    <div className={`${zones.zones} ${zones.halves}`}>
      <SourceDifferences kit={kit} />
      <section className={zones.card} aria-label="Corrected list">
        <CorrectedList kit={kit} />
      </section>
      <section className={zones.card} aria-label="Corrected circuit">
        <CorrectedDeck kit={kit} />
      </section>
    </div>
  );
}

function CorrectedList({ kit }: { kit: KitState }) {
  const append = useBench((s) => s.append);
  const [text, setText] = useState('');
  const slow = useDeferredValue(text);
  const read = useMemo(() => (slow.trim() === '' ? null : readList(slow, null)), [slow]);
  const differences = useMemo(() => (read && read.lines.length > 0 ? diffLines(kit, read.lines) : []), [kit, read]);
  const take = (all: readonly LineDifference[]) => {
    void append((k) => all.flatMap((d) => acceptDifference(k, d, () => `line-${newId().slice(0, 8)}`)));
  };
  return (
    <>
      <Form layout="vertical" component="div">
        <Form.Item label="The corrected list, as it is printed" htmlFor="corrected-list">
          <Input.TextArea
            id="corrected-list"
            rows={ROWS}
            value={text}
            maxLength={MOST_CHARACTERS}
            spellCheck={false}
            onChange={(e) => {
              setText(e.target.value);
            }}
          />
        </Form.Item>
      </Form>
      <FileButton
        text="Open a list file"
        accept=".csv,.tsv,.txt,.xlsx,text/*"
        take={(file) => {
          readListFile(file).then(
            (f) => {
              setText(f.text.slice(0, MOST_CHARACTERS));
            },
            () => {
              setText('');
            },
          );
        }}
      />
      {read && (
        <p role="status">
          {read.lines.length === 0
            ? 'No line was understood. Paste the list as the seller prints it.'
            : differences.length === 0
              ? `${read.lines.length} lines read: nothing differs.`
              : `${differences.length} differences.`}
        </p>
      )}
      {differences.length > 0 && (
        <Differences
          items={differences.map((d) => ({ words: lineWords(d), take: () => take([d]) }))}
          takeAll={() => {
            take(differences);
          }}
        />
      )}
      {(read?.remarks ?? []).slice(0, 12).map((r, i) => (
        <p key={i} className={zones.caution}>
          <b>Line {r.line}:</b> {r.message}. {r.remedy}
        </p>
      ))}
    </>
  );
}

function lineWords(d: LineDifference) {
  if (d.what === 'new') return { strong: lineTitle(d.line), rest: `new: ${d.line.quantity} pieces${d.line.refs.length ? `, ${d.line.refs.join(' ')}` : ''}` };
  if (d.what === 'gone')
    return {
      strong: lineTitle(d.line),
      rest: `is not on the corrected list${d.entries > 0 ? `; ${d.entries} of your entries belong to it and would be kept in the Logbook only` : ''}`,
    };
  const field = (f: (typeof d.fields)[number], l: typeof d.before): string => {
    const v = l[f];
    if (v === null || v === undefined) return 'nothing';
    if (f === 'value') return printNominal(l.value!, factsOf(l.kind).unit);
    if (f === 'tolerance') return printTolerance(l.tolerance!);
    return Array.isArray(v) ? v.join(' ') || 'nothing' : typeof v === 'object' ? JSON.stringify(v) : String(v);
  };
  return { strong: lineTitle(d.before), rest: d.fields.map((f) => `${f}: ${field(f, d.before)} → ${field(f, d.after)}`).join('; ') };
}

function CorrectedDeck({ kit }: { kit: KitState }) {
  const append = useBench((s) => s.append);
  const [text, setText] = useState('');
  const slow = useDeferredValue(text);
  const { circuit } = kit.sheet;
  const diagnostics = useMemo(() => (slow.trim() === '' ? [] : readDeck(slow).diagnostics.filter((d) => d.severity === 'error')), [slow]);
  const differences = useMemo(
    () => (slow.trim() === '' || diagnostics.length > 0 ? [] : compareDecks(circuit?.deck ?? '', slow)),
    [circuit, slow, diagnostics],
  );
  const take = (all: readonly DeckDifference[]) => {
    void append((k) =>
      k.sheet.circuit ? patch(k, 'circuit', 'circuit', { deck: all.reduce(takeDifference, k.sheet.circuit.deck) }) : put(k, 'circuit', { deck: slow }),
    );
  };
  return (
    <>
      <Form layout="vertical" component="div">
        <Form.Item label="The corrected circuit (SPICE deck)" htmlFor="corrected-deck">
          <Input.TextArea
            id="corrected-deck"
            rows={ROWS}
            value={text}
            maxLength={MOST_CHARACTERS}
            spellCheck={false}
            onChange={(e) => {
              setText(e.target.value);
            }}
          />
        </Form.Item>
      </Form>
      {slow.trim() !== '' && diagnostics.length === 0 && (
        <p role="status">{differences.length === 0 ? 'Nothing differs.' : `${differences.length} differences.`}</p>
      )}
      {diagnostics.map((d, i) => (
        <p key={i} className={zones.caution}>
          {describe(d)}
        </p>
      ))}
      {differences.length > 0 && (
        <Differences
          items={differences.map((d) => ({ words: deckWords(d), take: () => take([d]) }))}
          takeAll={() => {
            take(differences);
          }}
        />
      )}
    </>
  );
}

function deckWords(d: DeckDifference) {
  switch (d.what) {
    case 'new part':
      return { strong: d.name, rest: `new: ${d.card}` };
    case 'gone part':
      return { strong: d.name, rest: 'is not in the corrected circuit' };
    case 'other part':
      return { strong: d.name, rest: `${d.before} → ${d.card}` };
    case 'model':
      return { strong: d.name, rest: 'model or sub-circuit, new or otherwise' };
  }
}

function Differences({
  items,
  takeAll,
}: {
  items: readonly { readonly words: { readonly strong: string; readonly rest: string }; readonly take: () => void }[];
  takeAll: () => void;
}) {
  return (
    <>
      <ul className={styles.list} aria-label="Differences">
        {items.map(({ words, take }, i) => (
          <li key={i} className={styles.item}>
            <span className={styles.words}>
              <b>{words.strong}</b> <small className="soft">{words.rest}</small>
            </span>
            <Button size="small" onClick={take} aria-label={`Take over: ${words.strong}`}>
              Take over
            </Button>
          </li>
        ))}
      </ul>
      <Button onClick={takeAll}>Take all over</Button>
    </>
  );
}
