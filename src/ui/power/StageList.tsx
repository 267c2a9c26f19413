import { Button, Steps } from 'antd';
import { Fragment } from 'react';
import { Channels } from './Channels';
import { type CheckProgress, checkTargetsOf, isMeasure, isPrepared, type StageProgress } from '@/core/loop';
import type { KitState } from '@/core/kit';
import { print } from '@/core/quantity';
import { type Verdict, VERDICT_WORDS } from '@/core/verdict';
import { unitOf } from '@/core/vocabulary';
import { VerdictMark } from '../drawn/VerdictMark';
import type { Loop } from '../probe/useLoop';
import zones from '../shell/zones.module.css';
import styles from './StageList.module.css';

const STATUS_VERDICT: Readonly<Record<StageProgress['status'], Verdict>> = {
  passed: 'in',
  overridden: 'doubtful',
  postponed: 'none',
  doubtful: 'doubtful',
  failed: 'out',
  current: 'none',
  waiting: 'none',
};

/** The ladder with counts, and the checks of the stage in hand. */
export function StageList({ kit, stages, here, loop }: { kit: KitState; stages: readonly StageProgress[]; here: StageProgress; loop: Loop }) {
  return (
    <>
      <h2 className={zones.label}>Stages of this build</h2>
      <Steps
        orientation="vertical"
        size="small"
        current={stages.indexOf(here)}
        onChange={(i) => {
          const chosen = stages[i];
          const first = chosen && checkTargetsOf(chosen)[0];
          // What has to be set comes before what is read.
          if (chosen && first) loop.choose(...(isPrepared(kit, chosen.stage) ? [] : [`prepare:${chosen.stage.id}`]), first.target.id);
        }}
        items={stages.map((s) => ({
          key: s.stage.id,
          title: <span className={s === here ? styles.here : ''}>{s.stage.title}</span>,
          icon: <VerdictMark verdict={STATUS_VERDICT[s.status]} />,
          content:
            s.status === 'overridden'
              ? `continued: ${s.reason ?? ''}`
              : s.status === 'postponed'
                ? `waits for: ${s.reason ?? ''}`
                : s === here
                  ? stageText(s)
                  : `${s.checks.length} ${s.checks.length === 1 ? 'check' : 'checks'}`,
        }))}
      />
      <h2 className={`${zones.label} ${zones.section}`}>Checks here</h2>
      {here.checks.map((c) => (
        <Fragment key={c.check.id}>
          <CheckRow c={c} here={here} loop={loop} />
          {!isMeasure(c) && c.results.length > 1 && <Channels c={c} here={here} loop={loop} />}
        </Fragment>
      ))}
    </>
  );
}

function stageText(s: StageProgress): string {
  const verdicts = s.checks.map((c) => c.verdict);
  const count = (v: Verdict) => verdicts.filter((x) => x === v).length;
  if (s.status === 'passed') return `${verdicts.length} of ${verdicts.length} done`;
  return [
    count('in') && `${count('in')} ${VERDICT_WORDS.in}`,
    count('doubtful') && `${count('doubtful')} ${VERDICT_WORDS.doubtful}`,
    count('out') && `${count('out')} ${VERDICT_WORDS.out}`,
    `${count('none')} to go`,
  ]
    .filter(Boolean)
    .join(' · ');
}

export const nameOf = (c: CheckProgress) => (isMeasure(c) && 'testPoint' in c.check.red ? c.check.red.testPoint : '');

function CheckRow({ c, here, loop }: { c: CheckProgress; here: StageProgress; loop: Loop }) {
  const target = checkTargetsOf(here).find((t) => t.target.kind === 'check' && t.target.check.id === c.check.id);
  const now = loop.target?.kind === 'check' && loop.target.check.id === c.check.id;
  return (
    <Button
      type="text"
      block
      className={`${styles.check} ${now ? styles.now : ''}`}
      aria-current={now ? 'true' : undefined}
      onClick={() => {
        if (target) loop.choose(target.target.id);
      }}
    >
      <VerdictMark verdict={c.verdict} size={15} />
      <span className="num">{nameOf(c)}</span>
      <span className={styles.title}>{c.check.title}</span>
      <span className="num">{shown(c)}</span>
    </Button>
  );
}

function shown(c: CheckProgress): string {
  if (!isMeasure(c)) return c.results.every((r) => r.entry?.asExpected) ? 'yes' : c.verdict === 'out' ? 'not so' : '–';
  if (!c.entry) return '–';
  return c.entry.reading === 'over' ? 'OL' : print(c.entry.reading, unitOf(c.check.mode));
}
