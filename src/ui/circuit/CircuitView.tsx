'use client';
import { Segmented } from 'antd';
import dynamic from 'next/dynamic';
import { useDeferredValue, useMemo, useState } from 'react';
import { describe, insertBlock } from '@/core/circuit';
import { type KitState, put } from '@/core/kit';
import { useBench } from '@/store/bench';
import { useAnswer } from '../useResult';
import { Blocks } from './Blocks';
import { Connections } from './Connections';
import { Findings } from './Findings';
import { InTime } from './InTime';
import { NeighbourMap } from './NeighbourMap';
import { Substitutes } from './Substitutes';
import { WhatIf } from './WhatIf';

const DeckEditor = dynamic(() => import('./DeckEditor').then((m) => m.DeckEditor), { ssr: false, loading: () => <p className="soft">Opening the editor…</p> });

const TOOLS = ['Connections', 'Blocks', 'Around', 'What if', 'Substitutes', 'In time', 'Findings'] as const;
type Tool = (typeof TOOLS)[number];

/** What should be, electrically: the deck, and what can be asked of it. */
export function CircuitView({ kit }: { kit: KitState }) {
  const stored = kit.sheet.circuit?.deck ?? '';
  const [deck, setDeck] = useState(stored);
  const [tool, setTool] = useState<Tool>('Connections');
  const append = useBench((s) => s.append);
  const slow = useDeferredValue(deck);
  const { lines, circuit } = kit.sheet;
  const asked = useMemo(() => ({ deck: slow, lines, elements: circuit?.elements }), [slow, lines, circuit?.elements]);
  const answer = useAnswer('checkDeck', asked);
  const read = slow.trim() === '' ? null : answer.value;
  // Remarks on an older text would point at the wrong lines: they wait for their own.
  const current = answer.state === 'fresh' && slow === deck;
  const errors = read?.diagnostics.filter((d) => d.severity === 'error') ?? [];
  const dirty = deck !== stored;
  const findings = read?.places ?? [];
  const use = () => {
    void append((k) => put(k, 'circuit', { deck, ...(k.sheet.circuit?.elements ? { elements: k.sheet.circuit.elements } : {}) }));
  };
  return (
    <div className="zones halves">
      <section className="card circuit-card" aria-label="Deck">
        <div className="row" style={{ justifyContent: 'space-between' }}>
          <h2 className="label" style={{ margin: 0 }}>
            {read ? `${read.circuit.parts.length} parts` : slow.trim() === '' ? 'No circuit yet' : 'Reading…'}
            {dirty ? ', changed' : ''}
          </h2>
          <span className="row">
            {dirty && (
              <button
                type="button"
                className="plain"
                onClick={() => {
                  setDeck(stored);
                }}
              >
                Put it back
              </button>
            )}
            <button
              type="button"
              className={dirty && current && errors.length === 0 ? 'zest' : 'plain'}
              disabled={!dirty || !current || errors.length > 0}
              onClick={use}
            >
              Use this circuit
            </button>
          </span>
        </div>
        <DeckEditor deck={deck} change={setDeck} diagnostics={current ? (read?.diagnostics ?? []) : []} />
        <ul className="remarks" aria-label="Remarks on the deck">
          {read?.diagnostics.slice(0, 6).map((d) => (
            <li key={describe(d)} className={d.severity}>
              {describe(d)}
            </li>
          ))}
        </ul>
        {slow.trim() === '' && <p className="soft">Paste a SPICE deck, or start with a block on the right: a supply, a divider, a regulator.</p>}
      </section>
      <section className="card" aria-label="Circuit tools">
        <Segmented
          options={[...TOOLS]}
          value={tool}
          onChange={(v) => {
            setTool(v);
          }}
        />
        <div style={{ marginTop: 12 }}>
          {tool === 'Connections' && <Connections deck={slow} change={setDeck} />}
          {tool === 'Blocks' && (
            <Blocks
              kit={kit}
              circuit={read?.circuit ?? null}
              insert={(block) => {
                setDeck(insertBlock(deck, block));
              }}
            />
          )}
          {tool === 'Around' && read && <NeighbourMap kit={kit} circuit={read.circuit} />}
          {tool === 'What if' && <WhatIf kit={kit} />}
          {tool === 'Substitutes' && <Substitutes kit={kit} />}
          {tool === 'In time' && read && <InTime deck={slow} circuit={read.circuit} />}
          {tool === 'Findings' && <Findings kit={kit} findings={findings} />}
        </div>
      </section>
    </div>
  );
}
