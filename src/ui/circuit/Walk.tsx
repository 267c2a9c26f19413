import { Alert, Button, Flex, Input, Progress, Segmented } from 'antd';
import { useState } from 'react';
import { isLoose, type WalkPart, type WalkPin } from '@/core/draft';
import type { Line } from '@/core/kit';
import { parseQuantity } from '@/core/quantity';
import { Nothing } from '../drawn/Nothing';
import zones from '../shell/zones.module.css';
import { useWalk, type Walking } from './useWalk';
import styles from './Walk.module.css';
import { WalkedDrawing } from './WalkedDrawing';
import { Question } from './WalkQuestion';

const FINDINGS_SHOWN = 6;

/** Walks the printed drawing with a finger: the program asks, pin by pin, where it goes. */
export function Walk({ lines, deck, change }: { lines: readonly Line[]; deck: string; change: (deck: string) => void }) {
  const walk = useWalk(lines, deck, change);
  if (lines.length === 0 && walk.parts.length === 0) return <Nothing say="The walk goes through your parts list. Enter the list first." />;
  const hasSupply = walk.parts.some((p) => /^V/i.test(p.ref));
  return (
    <div className={styles.walk}>
      <div>
        <Progress percent={Math.round((100 * walk.asked) / Math.max(1, walk.total))} size="small" showInfo={false} aria-label="Pins answered" />
        <p className="soft">
          {walk.asked} of {walk.total} pins of {walk.parts.length} parts
        </p>
        {hasSupply ? <Question walk={walk} /> : <FirstSupply walk={walk} />}
        <ul className={zones.remarks} aria-label="Still open">
          {walk.findings.slice(0, FINDINGS_SHOWN).map((f) => (
            <li key={f}>{f}</li>
          ))}
          {walk.findings.length > FINDINGS_SHOWN && <li>and {walk.findings.length - FINDINGS_SHOWN} more</li>}
        </ul>
      </div>
      <div>
        <div className={styles.drawing}>
          <WalkedDrawing lines={lines} deck={deck} inHand={walk.pin?.ref ?? null} />
        </div>
        <h3 className={zones.label}>All pins: choose one to answer it again</h3>
        <ul className={styles.parts} aria-label="Parts and their pins">
          {walk.parts.map((p) => (
            <PartPins key={p.ref} part={p} walk={walk} />
          ))}
        </ul>
      </div>
    </div>
  );
}

const netName = (net: string) => (net === '0' ? 'ground' : isLoose(net) ? '?' : net);

/** How the board is powered comes first: the walk begins at its supply. */
function FirstSupply({ walk }: { walk: Walking }) {
  const [kind, setKind] = useState<'dc' | 'winding'>('dc');
  const [volts, setVolts] = useState('9 V');
  const [wrong, setWrong] = useState<string | null>(null);
  return (
    <>
      <h3 className={styles.ask}>How is the board powered?</h3>
      <Flex vertical gap="small">
        <Segmented
          aria-label="Kind of supply"
          value={kind}
          options={[
            { value: 'dc', label: 'Battery or DC supply' },
            { value: 'winding', label: 'AC winding' },
          ]}
          onChange={setKind}
        />
        <Input
          aria-label="Volts of the supply"
          className={styles.field ?? ''}
          value={volts}
          status={wrong === null ? '' : 'error'}
          onChange={(e) => {
            setVolts(e.target.value);
            setWrong(null);
          }}
          onPressEnter={() => {
            const read = parseQuantity(volts, 'V');
            if (read.ok && read.value > 0) walk.addSupply({ ref: 'V1', volts: read.value, kind });
            else setWrong(read.ok ? 'A supply has more than zero volts.' : `${read.message}.`);
          }}
        />
        {wrong !== null && <Alert type="error" title={wrong} />}
        <p className="soft">Enter confirms. A second supply is added in the table of connections or as a block.</p>
      </Flex>
    </>
  );
}

const stateWord = (p: WalkPin) => (p.state === 'todo' ? '?' : p.state === 'nowhere' ? 'nowhere' : netName(p.net));

function PartPins({ part, walk }: { part: WalkPart; walk: Walking }) {
  return (
    <li>
      <b>{part.ref}</b>{' '}
      {part.pins.map((p) => (
        <Button
          key={p.index}
          size="small"
          type={p.state === 'todo' ? 'dashed' : 'text'}
          className={walk.pin?.ref === p.ref && walk.pin.index === p.index ? (styles.here ?? '') : ''}
          aria-label={`${p.ref} ${p.name}, ${stateWord(p) === '?' ? 'not answered' : stateWord(p)}`}
          onClick={() => {
            walk.choose(p);
          }}
        >
          {p.name} {stateWord(p)}
        </Button>
      ))}
    </li>
  );
}
