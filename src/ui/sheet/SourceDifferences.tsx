import { Alert, Button, Descriptions, Input, Select } from 'antd';
import { useMemo, useState } from 'react';
import { type Difference, foundDifferences, pinSaid, settleDifference, type SettledBy, type Source, valueSaid } from '@/core/draft';
import type { KitState } from '@/core/kit';
import { useBench } from '@/store/bench';
import { newId } from '@/store/stamps';
import { Choose } from '../form/Choose';
import zones from '../shell/zones.module.css';
import styles from './Sheet.module.css';
import { RoomList } from './records/RoomList';
import { DIFFERENCES } from './records/specs';

const WORDS: Readonly<Record<Source, string>> = { list: 'List', print: 'Print on the board', diagram: 'Diagram', board: 'The board itself' };
const BY: readonly { readonly value: SettledBy; readonly label: string }[] = [
  { value: 'data sheet', label: 'by the data sheet' },
  { value: 'tracing', label: 'by tracing the board' },
  { value: 'calculation', label: 'by calculation' },
  { value: 'looking', label: 'by looking at the part' },
];

/** List, print, diagram and board side by side where they differ, until one says which is right and why. */
export function SourceDifferences({ kit }: { kit: KitState }) {
  const found = useMemo(() => foundDifferences(kit), [kit]);
  const open = [...kit.sheet.differences.filter((d) => d.right === undefined), ...found];
  return (
    <section className={`${zones.card} ${styles.across}`} aria-label="Sources that differ">
      {open.map((d) => (
        <OpenDifference key={d.id} kit={kit} difference={d} found={d.id.startsWith('found-')} />
      ))}
      <div className={open.length > 0 ? zones.section : undefined}>
        <RoomList kit={kit} spec={DIFFERENCES} />
      </div>
    </section>
  );
}

function OpenDifference({ kit, difference, found }: { kit: KitState; difference: Difference; found: boolean }) {
  const append = useBench((s) => s.append);
  const sources = (Object.keys(WORDS) as Source[]).filter((s) => difference[s] !== undefined);
  const [right, setRight] = useState<Source | null>(null);
  const [by, setBy] = useState<SettledBy>('data sheet');
  const [why, setWhy] = useState('');
  const value = right !== null && valueSaid(kit, difference, right) !== null;
  const pin = right === null ? null : pinSaid(kit, difference, right);
  return (
    <Alert
      type="warning"
      className={zones.section ?? ''}
      title={`${difference.about}: ${found ? 'list and diagram do not say the same' : 'the sources do not say the same'}`}
      description={
        <>
          <Descriptions
            size="small"
            bordered
            column={sources.length}
            layout="vertical"
            items={sources.map((s) => ({ key: s, label: WORDS[s], children: difference[s] }))}
          />
          <p>
            What was in the bag settles nothing. A data sheet, tracing the board with a tester, or a calculation of what the circuit needs does; where none can,
            ask the seller.
          </p>
          <div className={zones.row}>
            <Choose<Source | null>
              aria-label={`Which is right about ${difference.about}`}
              value={right}
              placeholder="which is right?"
              options={sources.map((s) => ({ value: s, label: `${WORDS[s]}: ${difference[s] ?? ''}` }))}
              onChange={setRight}
            />
            <Select aria-label="How it was settled" value={by} options={[...BY]} onChange={setBy} />
            <Input
              aria-label="Why"
              placeholder="why, in a few words"
              value={why}
              onChange={(e) => {
                setWhy(e.target.value);
              }}
            />
            <Button
              type="primary"
              disabled={right === null}
              onClick={() => {
                if (right === null) return;
                const id = found ? `differs-${newId().slice(0, 8)}` : difference.id;
                void append((k) => settleDifference(k, { ...difference, id }, { right, by, why }, () => `line-${newId().slice(0, 8)}`));
              }}
            >
              Settle it
            </Button>
          </div>
          {right !== null && (
            <p className="soft">
              {value
                ? 'Corrects list and circuit, with the reason; limits and suspects follow.'
                : pin
                  ? `The circuit then has ${difference.about} on ${pin.to === '0' ? 'ground' : pin.to}; a part with two pins is turned round for it. Limits and suspects follow.`
                  : 'This is saved with its reason. Correct list or circuit yourself where they differ. Only a pin (D3.K) with nets of the circuit is corrected for you.'}
            </p>
          )}
        </>
      }
    />
  );
}
