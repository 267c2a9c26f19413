'use client';
import { Button, Flex, Segmented, Skeleton } from 'antd';
import dynamic from 'next/dynamic';
import { useCallback, useDeferredValue, useMemo, useState } from 'react';
import { describe, insertBlock } from '@/core/circuit';
import { type Beside, besideChanges, NOTHING_BESIDE } from '@/core/draft';
import { type KitState, put } from '@/core/kit';
import { useBench } from '@/store/bench';
import { useAnswer } from '../results/useResult';
import zones from '../shell/zones.module.css';
import { Blocks } from './Blocks';
import styles from './Circuit.module.css';
import { Connections } from './Connections';
import { DeckNames } from './DeckNames';
import { Findings } from './Findings';
import { InTime } from './InTime';
import { LikeThis } from './LikeThis';
import { NeighbourMap } from './NeighbourMap';
import { Substitutes } from './Substitutes';
import { Walk } from './Walk';
import { WhatIf } from './WhatIf';
import { Nothing } from '../drawn/Nothing';

const Schematic = dynamic(() => import('./Schematic').then((m) => m.Schematic), { ssr: false, loading: () => <Skeleton active /> });
const DeckEditor = dynamic(() => import('./DeckEditor').then((m) => m.DeckEditor), { ssr: false, loading: () => <Skeleton active /> });

const TOOLS = ['Schematic', 'Connections', 'Walk', 'Like this one', 'Blocks', 'Around', 'What if', 'Substitutes', 'In time', 'Findings'] as const;
type Tool = (typeof TOOLS)[number];
const REMARKS_SHOWN = 6;

/** What should be, electrically: the deck, and what can be asked of it. */
export function CircuitView({ kit, around }: { kit: KitState; around: { readonly name: string } | null }) {
  const [tool, setTool] = useState<Tool>(around === null ? 'Connections' : 'Around');
  const [goneTo, setGoneTo] = useState(around);
  const [visits, setVisits] = useState(0);
  // Asked for a net from elsewhere: the drawing opens around it.
  if (around !== goneTo) {
    setGoneTo(around);
    setVisits(visits + 1);
    if (around !== null) setTool('Around');
  }
  const [supposed, setSupposed] = useState<string | null>(null);
  const suppose = useCallback((ref: string) => {
    setSupposed(ref);
    setTool('What if');
  }, []);
  const draft = useDeck(kit);
  const { deck, setDeck, slow, read } = draft;
  return (
    <div className={`${zones.zones} ${tool === 'Schematic' ? zones.one : zones.halves}`}>
      {tool !== 'Schematic' && <DeckCard draft={draft} />}
      <section className={zones.card} aria-label="Circuit tools">
        <div className={styles.tools}>
          <Segmented options={[...TOOLS]} value={tool} onChange={setTool} aria-label="Tool" />
        </div>
        <div className={styles.tool}>
          {tool === 'Schematic' && <Schematic kit={kit} suppose={suppose} />}
          {tool === 'Connections' && <Connections deck={slow} change={setDeck} />}
          {tool === 'Walk' && <Walk lines={kit.sheet.lines} deck={deck} change={setDeck} />}
          {tool === 'Like this one' && <LikeThis lines={kit.sheet.lines} deck={deck} insert={draft.take} />}
          {tool === 'Blocks' && (
            <Blocks
              lines={kit.sheet.lines}
              circuit={read?.circuit ?? null}
              insert={(block) => {
                setDeck(insertBlock(deck, block));
              }}
            />
          )}
          {tool === 'Around' && (read ? <NeighbourMap key={visits} kit={kit} circuit={read.circuit} around={around?.name ?? null} /> : <NoCircuit />)}
          {tool === 'What if' && <WhatIf key={supposed ?? ''} kit={kit} start={supposed} />}
          {tool === 'Substitutes' && <Substitutes kit={kit} />}
          {tool === 'In time' && (read ? <InTime deck={slow} circuit={read.circuit} /> : <NoCircuit />)}
          {tool === 'Findings' && (
            <>
              <Findings kit={kit} findings={read?.places ?? []} />
              {read && <DeckNames kit={kit} circuit={read.circuit} />}
            </>
          )}
        </div>
      </section>
    </div>
  );
}

const NoCircuit = () => <Nothing say="No circuit yet. Walk the printed drawing, take a circuit like this one, add a block, or paste a deck at the left." />;

/** The deck as it is being written, and what a worker reads in it. */
function useDeck(kit: KitState) {
  const stored = kit.sheet.circuit?.deck ?? '';
  const [deck, setDeck] = useState(stored);
  // Points and looks that came with a circuit join the sheet when it is used.
  const [beside, setBeside] = useState(NOTHING_BESIDE);
  const append = useBench((s) => s.append);
  const slow = useDeferredValue(deck);
  const { lines, circuit } = kit.sheet;
  const asked = useMemo(() => ({ deck: slow, lines, elements: circuit?.elements }), [slow, lines, circuit?.elements]);
  const answer = useAnswer('checkDeck', asked);
  return {
    deck,
    setDeck,
    slow,
    read: slow.trim() === '' ? null : answer.value,
    // Remarks on an older text would point at the wrong lines: they wait for their own.
    current: answer.state === 'fresh' && slow === deck,
    dirty: deck !== stored,
    take: (text: string, more: Beside) => {
      setDeck(text);
      setBeside({ where: { ...beside.where, ...more.where }, looks: [...beside.looks, ...more.looks] });
    },
    putBack: () => {
      setDeck(stored);
      setBeside(NOTHING_BESIDE);
    },
    use: () => {
      void append((k) => [
        put(k, 'circuit', { deck, ...(k.sheet.circuit?.elements ? { elements: k.sheet.circuit.elements } : {}) }),
        ...besideChanges(k, beside),
      ]);
      setBeside(NOTHING_BESIDE);
    },
  };
}

function DeckCard({ draft }: { draft: ReturnType<typeof useDeck> }) {
  const { deck, setDeck, slow, read, current, dirty } = draft;
  const usable = dirty && current && !(read?.diagnostics ?? []).some((d) => d.severity === 'error');
  return (
    <section className={`${zones.card} ${styles.card}`} aria-label="Deck">
      <Flex justify="space-between" align="center" gap="small" wrap>
        <h2 className={`${zones.label} ${styles.heading}`}>
          {read ? `${read.circuit.parts.length} parts` : slow.trim() === '' ? 'No circuit yet' : 'Reading…'}
          {dirty ? ', changed' : ''}
        </h2>
        <Flex gap="small">
          {dirty && <Button onClick={draft.putBack}>Put it back</Button>}
          <Button type={usable ? 'primary' : 'default'} disabled={!usable} onClick={draft.use}>
            Use this circuit
          </Button>
        </Flex>
      </Flex>
      <DeckEditor deck={deck} change={setDeck} diagnostics={current ? (read?.diagnostics ?? []) : []} />
      <ul className={zones.remarks} aria-label="Remarks on the deck">
        {read?.diagnostics.slice(0, REMARKS_SHOWN).map((d) => (
          <li key={describe(d)} className={d.severity === 'error' ? zones.error : ''}>
            {describe(d)}
          </li>
        ))}
      </ul>
      {slow.trim() === '' && (
        <p className="soft">Paste a SPICE deck, walk the printed drawing, or start on the right with a circuit like this one or a block.</p>
      )}
    </section>
  );
}
