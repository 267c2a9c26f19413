import { Button, Space } from 'antd';
import { useMemo, useState } from 'react';
import type { KitState } from '@/core/kit';
import { LOOSE_UNMARKED, unmarkedRefs, whichAnswered, whichItem, whichPad, type WhichWay as Way } from '@/core/trace';
import { useBench } from '@/store/bench';
import { Choose } from '../form/Choose';
import zones from '../shell/zones.module.css';
import styles from './Plan.module.css';

const LOOSE_WORDS: Readonly<Record<Way['unmarked'], string>> = {
  pads: '',
  led: 'a loose LED without marks',
  jack: 'a power jack',
  lead: 'a lead bought in a shop',
};

/** Which end is which where nothing is printed: tried with the tester, remembered until the part goes in. */
export function WhichWay({ kit }: { kit: KitState }) {
  const ways = useMemo(() => [...unmarkedRefs(kit).flatMap((ref) => whichPad(kit, ref) ?? []), ...LOOSE_UNMARKED], [kit]);
  const [chosen, setChosen] = useState<string | null>(null);
  const way = ways.find((w) => whichItem(w) === chosen);
  return (
    <section aria-label="Which way round" className={zones.section}>
      <h2 className={zones.label}>Nothing printed: which way round?</h2>
      <Choose<string | null>
        aria-label="Part without a mark"
        className={styles.which ?? ''}
        value={chosen}
        placeholder="pads of a part, an LED, a jack, a lead…"
        allowClear
        options={ways.map((w) => ({ value: whichItem(w), label: w.ref === null ? LOOSE_WORDS[w.unmarked] : `the two pads of ${w.ref}` }))}
        onChange={(id) => {
          setChosen(id ?? null);
        }}
      />
      {way && <Tried key={whichItem(way)} kit={kit} way={way} />}
    </section>
  );
}

function Tried({ kit, way }: { kit: KitState; way: Way }) {
  const append = useBench((s) => s.append);
  const found = kit.inspected.get(whichItem(way))?.entry;
  return (
    <>
      <p className="soft">{way.setting}.</p>
      <ol className={styles.steps}>
        {way.steps.map((s) => (
          <li key={s}>{s}</li>
        ))}
      </ol>
      <Space wrap>
        {way.answers.map((a) => (
          <Button
            key={a.id}
            size="small"
            type={found?.title === a.meaning ? 'primary' : 'default'}
            onClick={() => {
              void append(whichAnswered(way, a));
            }}
          >
            {a.label}
          </Button>
        ))}
      </Space>
      {found && (
        <p role="status" className={found.good ? zones.note : zones.caution}>
          {found.title}
        </p>
      )}
    </>
  );
}
