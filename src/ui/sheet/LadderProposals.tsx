import { Button, Flex } from 'antd';
import { useMemo, useState } from 'react';
import { acceptStage, diffStages, isBuiltLadder, type StageDifference } from '@/core/draft';
import type { KitState, Stage } from '@/core/kit';
import { useBench } from '@/store/bench';
import { useResult } from '../results/useResult';
import zones from '../shell/zones.module.css';
import styles from './records/Records.module.css';

/** The ladder that follows from what is known now; written over nothing that the builder has edited: each difference is taken over by itself. */
export function LadderProposals({ kit }: { kit: KitState }) {
  const append = useBench((s) => s.append);
  const [shown, setShown] = useState(false);
  const { value, state, progress } = useResult('kitStages', kit, isBuiltLadder(kit.sheet.stages), shown || kit.sheet.stages.length === 0);
  const proposed = value ?? NONE_YET;
  const differences = useMemo(() => diffStages(kit, proposed), [kit, proposed]);
  const take = (d: StageDifference) => {
    void append((k) => acceptStage(k, d, proposed));
  };
  const takeAll = () => {
    void append((k) => diffStages(k, proposed).flatMap((d) => acceptStage(k, d, proposed)));
  };
  if (!shown && kit.sheet.stages.length > 0)
    return (
      <Button
        size="small"
        onClick={() => {
          setShown(true);
        }}
      >
        Compare with the proposed stages
      </Button>
    );
  return (
    <section aria-label="Proposed stages">
      <div className={styles.head}>
        <h2 className={zones.label}>
          {kit.sheet.circuit ? 'Proposed from circuit and list' : 'Proposed from the list'}
          {differences.length === 0 ? ': nothing differs' : `: ${differences.length} to look at`}
        </h2>
        {differences.length > 0 && (
          <Button type={kit.sheet.stages.length === 0 ? 'primary' : 'default'} size="small" onClick={takeAll}>
            Take all over
          </Button>
        )}
      </div>
      {state === 'working' && <p className="soft">Reading simulated healthy and faulty boards: {Math.round(100 * progress)} %</p>}
      {state === 'fresh' && proposed.length === 0 && <p className="soft">Nothing can be proposed yet: add the lines of the parts list first.</p>}
      <ul className={styles.list}>
        {differences.map((d, i) => (
          <li key={i} className={styles.item}>
            <span className={styles.words}>{words(d)}</span>
            <Button
              size="small"
              onClick={() => {
                take(d);
              }}
            >
              Take
            </Button>
          </li>
        ))}
      </ul>
      {shown && (
        <Flex>
          <Button
            size="small"
            type="text"
            onClick={() => {
              setShown(false);
            }}
          >
            Dismiss
          </Button>
        </Flex>
      )}
    </section>
  );
}

const NONE_YET: readonly Stage[] = [];

const FIELD_WORDS = {
  title: 'title',
  kind: 'kind',
  note: 'note',
  fits: 'what it fits',
  supplies: 'supplies',
  cautions: 'cautions',
  power: 'how it is dead',
} as const;

function words(d: StageDifference) {
  switch (d.what) {
    case 'new stage':
      return (
        <>
          <b>{d.stage.title}</b> <small className="soft">a stage with {d.stage.checks.map((c) => c.title).join(', ') || 'no checks'}</small>
        </>
      );
    case 'new check':
      return (
        <>
          <b>{d.check.title}</b> <small className="soft">a check of “{d.stage.title}” that is not here</small>
        </>
      );
    case 'other check':
      return (
        <>
          <b>{d.before.title}</b> <small className="soft">of “{d.stage.title}” differs from the proposal</small>
        </>
      );
    case 'other stage':
      return (
        <>
          <b>{d.before.title}</b> <small className="soft">{d.fields.map((f) => FIELD_WORDS[f]).join(', ')} differs from the proposal</small>
        </>
      );
  }
}
