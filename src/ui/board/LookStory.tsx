import { CheckOutlined, CloseOutlined, MinusOutlined } from '@ant-design/icons';
import { Button, Progress } from 'antd';
import { useEffect } from 'react';
import type { KitState } from '@/core/kit';
import { bareBoardItems, lookFindings, type LookItem, lookTargets, secondLookItems } from '@/core/loop';
import { useBench } from '@/store/bench';
import { Nothing } from '../drawn/Nothing';
import { PhotoOf } from '../form/PhotoOf';
import type { Loop } from '../probe/useLoop';
import zones from '../shell/zones.module.css';
import styles from './Plan.module.css';

const ABOUT = {
  bare: 'Look before you solder: a fault found now takes minutes to fix, later hours.',
  look: 'The likeliest and most harmful come first. Look with a lens, against the light, before you switch anything on.',
};

/** The bare board, or a second look at what was fitted: what is asked, what was answered, what the records say. */
export function LookStory({ kit, loop, mode }: { kit: KitState; loop: Loop; mode: 'bare' | 'look' }) {
  const { offer } = loop;
  useEffect(() => {
    offer(lookTargets(kit, mode === 'bare' ? bareBoardItems(kit) : secondLookItems(kit)));
  }, [kit, mode, offer]);
  const items = loop.states.flatMap((s) => (s.target.kind === 'inspect' ? [{ item: s.target.item, id: s.target.id }] : []));
  const inHand = loop.target?.kind === 'inspect' ? loop.target.item : null;
  const done = items.filter(({ item }) => kit.inspected.has(item.id)).length;
  if (items.length === 0) return <Nothing say="Nothing is ticked as fitted yet. Tick parts off as they go in: the second look then knows what to check." />;
  return (
    <>
      <h2 className={zones.label}>{mode === 'bare' ? 'The bare board' : 'A second look'}</h2>
      <p>{ABOUT[mode]}</p>
      <Progress percent={Math.round((100 * done) / items.length)} format={() => `${done} of ${items.length}`} aria-label="Looked at" />
      {inHand && (
        <p className={zones.row}>
          <span>{inHand.title}</span> <PhotoOf about={inHand.title} />
        </p>
      )}
      {mode === 'look' && <Records kit={kit} />}
      <ul className={styles.given}>
        {items.map(({ item, id }) => (
          <li key={id}>
            <Answer kit={kit} item={item} />
            <Button
              type="text"
              size="small"
              className={`${styles.step} ${kit.inspected.has(item.id) ? styles.done : ''}`}
              onClick={() => {
                loop.choose(id);
              }}
            >
              {item.title}
            </Button>
          </li>
        ))}
      </ul>
    </>
  );
}

function Answer({ kit, item }: { kit: KitState; item: LookItem }) {
  const seen = kit.inspected.get(item.id);
  if (!seen) return <MinusOutlined className="soft" aria-label="not looked at yet" />;
  return seen.entry.good ? <CheckOutlined className="v-in" aria-label="good" /> : <CloseOutlined className="v-out" aria-label="not good" />;
}

/** What was counted, measured and ticked, held against one another. */
function Records({ kit }: { kit: KitState }) {
  const append = useBench((s) => s.append);
  const found = lookFindings(kit);
  if (found.length === 0) return null;
  return (
    <ul className={zones.remarks} aria-label="From your records">
      {found.map((f) => (
        <li key={f.id}>
          {f.text}{' '}
          {f.id.startsWith('empty/') && (
            <Button
              size="small"
              onClick={() => {
                void append({ kind: 'fitted', refs: [...f.refs] });
              }}
            >
              Tick it as fitted {f.refs[0]}
            </Button>
          )}
        </li>
      ))}
    </ul>
  );
}
