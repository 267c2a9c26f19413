import { Button, Form, Input, Segmented, Skeleton } from 'antd';
import dynamic from 'next/dynamic';
import { describe, insertBlock } from '@/core/circuit';
import type { Begun } from '@/store/storage';
import zones from '../shell/zones.module.css';
import styles from './NewKit.module.css';
import { MOST_CHARACTERS, type useNewKit } from './useNewKit';

const loading = () => <Skeleton active />;
const Walk = dynamic(() => import('../circuit/Walk').then((m) => m.Walk), { ssr: false, loading });
const Blocks = dynamic(() => import('../circuit/Blocks').then((m) => m.Blocks), { ssr: false, loading });
const LikeThis = dynamic(() => import('../circuit/LikeThis').then((m) => m.LikeThis), { ssr: false, loading });

type Kit = ReturnType<typeof useNewKit>;

const DECK_EXAMPLE = 'My board\nV1 in 0 9\nR1 in led 470\nD1 led 0 LRED\n.model LRED D(IS=7.7E-18 N=2 RS=2)\n.end';
const ROWS = 12;
const SHOWN = 30;

const WAYS: readonly { readonly value: Begun['way']; readonly label: string }[] = [
  { value: 'none', label: 'Nothing yet' },
  { value: 'like', label: 'A circuit like this one' },
  { value: 'walk', label: 'Walk the drawing' },
  { value: 'blocks', label: 'Blocks' },
  { value: 'deck', label: 'A deck' },
];

/** What should be, electrically: by any of the ways that one has. */
export function CircuitStep({ kit }: { kit: Kit }) {
  const { draft, begun } = kit;
  const { circuit } = draft;
  return (
    <>
      <p className={styles.buys}>
        With a circuit every reading gets a window of its own, every deviation its consequence, and a board that fails its suspects. Without one there are typed
        windows and the rules of the trade.
      </p>
      <div className={styles.ways}>
        <Segmented
          aria-label="Way to the circuit"
          value={begun.way}
          options={[...WAYS]}
          onChange={(way) => {
            kit.set({ way });
          }}
        />
      </div>
      {begun.way === 'none' && (
        <>
          <p>
            {circuit && circuit.parts.length > 0
              ? `A circuit of ${circuit.parts.length} parts is there already. It stays unless you clear it.`
              : 'Parts can be counted and checked, but no voltages computed. A circuit can be added later, in the view Circuit.'}
          </p>
          {begun.deck !== '' && (
            <Button
              onClick={() => {
                kit.setDeck('');
              }}
            >
              Clear the circuit
            </Button>
          )}
        </>
      )}
      {begun.way === 'like' && <LikeThis lines={draft.lines} deck={begun.deck} insert={kit.setDeck} />}
      {begun.way === 'walk' && <Walk lines={draft.lines} deck={begun.deck} change={kit.setDeck} />}
      {begun.way === 'blocks' && (
        <Blocks
          lines={draft.lines}
          circuit={circuit}
          insert={(block) => {
            kit.setDeck(insertBlock(begun.deck, block));
          }}
        />
      )}
      {begun.way === 'deck' && <DeckField kit={kit} />}
      {begun.way !== 'deck' && begun.way !== 'walk' && <DeckRemarks kit={kit} />}
    </>
  );
}

function DeckField({ kit }: { kit: Kit }) {
  return (
    <>
      <Form layout="vertical" component="div">
        <Form.Item label="Circuit (SPICE deck, first line is its title)" htmlFor="deck">
          <Input.TextArea
            id="deck"
            value={kit.begun.deck}
            placeholder={DECK_EXAMPLE}
            rows={ROWS}
            spellCheck={false}
            maxLength={MOST_CHARACTERS}
            onChange={(e) => {
              kit.setDeck(e.target.value);
            }}
          />
        </Form.Item>
      </Form>
      <DeckRemarks kit={kit} />
    </>
  );
}

function DeckRemarks({ kit: { draft } }: { kit: Kit }) {
  return (
    <>
      <p className="soft" role="status">
        {draft.circuit && draft.circuit.parts.length > 0
          ? `${draft.circuit.parts.length} parts, ${draft.nets.length} nets.`
          : 'No circuit yet: parts can be counted and checked, but no voltages computed.'}
      </p>
      <ul className={zones.remarks} aria-label="Remarks on the deck">
        {draft.deckRemarks.slice(0, SHOWN).map((d, i) => (
          <li key={i} className={d.severity === 'error' ? zones.error : ''}>
            {describe(d)}
          </li>
        ))}
        {draft.unsolvable !== null && <li className={zones.error}>{draft.unsolvable}</li>}
        {draft.list.remarks.length === 0 && draft.mismatches.slice(0, 12).map((m) => <li key={m}>{m}</li>)}
      </ul>
    </>
  );
}
