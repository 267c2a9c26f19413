import { CheckOutlined, ThunderboltOutlined } from '@ant-design/icons';
import { Alert, Button, Select } from 'antd';
import { useMemo, useState } from 'react';
import { type EntryBody, type FittingSchool, isSeenTo, type KitState, put } from '@/core/kit';
import { deriveStages, lineTitle, minutesUnlisted, passedStages, type Phase } from '@/core/loop';
import { advisedSchool, derivePlan, type PlanStep, scheduleOf, SCHOOLS } from '@/core/plan';
import { useBench } from '@/store/bench';
import { Choose } from '../form/Choose';
import type { Loop } from '../probe/useLoop';
import { useWindows } from '../results/useWindows';
import { Sortable } from '../sheet/records/Sortable';
import zones from '../shell/zones.module.css';
import styles from './Plan.module.css';

const SITTINGS = [20, 30, 45, 60, 90, 120, 180].map((value) => ({ value, label: `${value} min` }));

/** The order in which everything goes in, by the school in force, with the time that is left. */
export function PlanPanel({ kit, loop, go }: { kit: KitState; loop: Loop; go: (phase: Phase) => void }) {
  const append = useBench((s) => s.append);
  const plan = derivePlan(kit);
  const advice = useMemo(() => advisedSchool(kit.sheet), [kit.sheet]);
  const here = loop.target?.id ?? null;
  const chosen = kit.settings.fitting;
  const [all, setAll] = useState(false);
  const done = plan.steps.filter((s) => isFitted(kit, s)).length;
  const rows = useMemo(() => rowsOf(plan.steps, loop.states), [plan.steps, loop.states]);
  return (
    <section aria-label="Plan">
      <Choose<FittingSchool | 'advised'>
        aria-label="Order of fitting"
        className={styles.school ?? ''}
        value={chosen ?? 'advised'}
        options={[
          { value: 'advised', label: `Recommended: ${SCHOOLS[advice.school].title.toLowerCase()}` },
          ...(Object.keys(SCHOOLS) as FittingSchool[]).map((value) => ({ value, label: SCHOOLS[value].title })),
        ]}
        onChange={(value) => {
          void append((k) => put(k, 'settings', { name: 'fitting', value: value === 'advised' ? null : value }));
        }}
      />
      <p className="soft">{chosen === null ? advice.why : SCHOOLS[plan.school].consequence}</p>
      {plan.contradictions.map((text) => (
        <Alert key={text} type="error" title={text} className={styles.alert ?? ''} />
      ))}
      {plan.remarks.length > 0 && (
        <ul className={zones.remarks}>
          {plan.remarks.map((text) => (
            <li key={text}>{text}</li>
          ))}
        </ul>
      )}
      <TimeLeft kit={kit} />
      {done > 0 && (
        <Button
          type="link"
          size="small"
          onClick={() => {
            setAll(!all);
          }}
        >
          {all ? 'Hide fitted parts' : `Show ${done} fitted`}
        </Button>
      )}
      <Sortable
        label="Steps"
        items={all ? rows : rows.filter((s) => !isFitted(kit, s))}
        idOf={(s) => s.id}
        nameOf={nameOf}
        here={(s) => s.id === here}
        fixed={(s) => s.kind !== 'fit'}
        move={(id, before) => {
          // What has no position stays where it is: a step that is dropped before it stands before the next step of the plan.
          const at = rows.findIndex((r) => r.id === before);
          const next = before === null ? null : (rows.slice(at).find((r) => r.kind !== 'extra')?.id ?? null);
          void append((k) => moved(k, plan.steps, id, next));
        }}
      >
        {(step) => <Step kit={kit} step={step} loop={loop} go={go} />}
      </Sortable>
      <p className="soft">Drag a step by its grip, or pick it up with the space bar and move it with the arrow keys. That starts your own order.</p>
    </section>
  );
}

/** A step of the plan, or something without a position that goes in between. */
type Row = PlanStep | { readonly kind: 'extra'; readonly id: string; readonly title: string; readonly done: boolean };

/** The plan with what has no position on the list, each before the step that waits for it. */
function rowsOf(steps: readonly PlanStep[], states: Loop['states']): Row[] {
  const before = new Map<string | null, Row[]>();
  states.forEach(({ target, done }, i) => {
    if (target.kind !== 'inspect') return;
    const next = states.slice(i + 1).find((s) => s.target.kind === 'fit')?.target.id ?? null;
    before.set(next, [...(before.get(next) ?? []), { kind: 'extra', id: target.id, title: target.item.title, done }]);
  });
  return [...steps.flatMap((s): Row[] => [...(before.get(s.id) ?? []), s]), ...(before.get(null) ?? [])];
}

const isFitted = (kit: KitState, s: Row): boolean => (s.kind === 'extra' ? s.done : s.kind === 'fit' && s.refs.every((r) => isSeenTo(kit.board, r)));
function nameOf(s: Row): string {
  switch (s.kind) {
    case 'fit':
      return s.refs.join(' ');
    case 'stage':
      return s.stage.title;
    case 'rails':
      return 'Rails at the empty sockets';
    case 'extra':
      return s.title;
  }
}

/** One's own order: the refs as they stand now, with one step moved. */
function moved(kit: KitState, steps: readonly PlanStep[], id: string, before: string | null): EntryBody[] {
  const rest = steps.filter((s) => s.id !== id);
  const at = before === null ? rest.length : rest.findIndex((s) => s.id === before);
  const order = [...rest.slice(0, at), steps.find((s) => s.id === id)!, ...rest.slice(at)];
  const refs = order.flatMap((s) => (s.kind === 'fit' ? [...s.refs] : []));
  return [put(kit, 'settings', { name: 'order', value: refs }), put(kit, 'settings', { name: 'fitting', value: 'own' })];
}

function Step({ kit, step, loop, go }: { kit: KitState; step: Row; loop: Loop; go: (phase: Phase) => void }) {
  if (step.kind === 'stage')
    return (
      <Button
        type="text"
        size="small"
        icon={<ThunderboltOutlined />}
        className={styles.stage ?? ''}
        onClick={() => {
          go('power');
        }}
      >
        {step.stage.title}
      </Button>
    );
  if (step.kind === 'rails') return <span className={styles.stage}>Volts at the empty sockets of {step.chips.join(', ')}</span>;
  const done = isFitted(kit, step);
  const what =
    step.kind === 'extra' ? (
      <>{step.title}</>
    ) : (
      <>
        <b>{step.refs.join(' ')}</b> <small className="soft">{lineTitle(step.line)}</small>
      </>
    );
  return (
    <Button
      type="text"
      size="small"
      className={`${styles.step} ${done ? styles.done : ''}`}
      onClick={() => {
        loop.choose(step.id);
      }}
    >
      {done && <CheckOutlined aria-label="fitted" />} {what}
    </Button>
  );
}

const minutes = (m: number) => (m < 1 ? 'less than a minute' : m < 90 ? `${Math.round(m)} min` : `${(m / 60).toFixed(1)} h`);

/** What is left, at one's own pace, in sittings that end at a sensible point. */
function TimeLeft({ kit }: { kit: KitState }) {
  const append = useBench((s) => s.append);
  const windows = useWindows(kit);
  const schedule = useMemo(() => {
    return scheduleOf(kit, derivePlan(kit), passedStages(deriveStages(kit, windows)));
  }, [kit, windows]);
  const [now, ...later] = schedule.sittings;
  if (!now) return <p>Everything is fitted and has passed.</p>;
  const last = now.steps.at(-1)!;
  return (
    <>
      <p>
        About <b>{minutes(schedule.minutesLeft + minutesUnlisted(kit))}</b> left
        {schedule.pace === null ? ', by usual times.' : `, at your pace (${schedule.pace.toFixed(1)} × the usual time).`}{' '}
        {later.length > 0 &&
          `${schedule.sittings.length} sittings; this one ends ${now.ends === 'stage passed' ? 'when' : 'with'} “${nameOf(last)}”${now.ends === 'stage passed' ? ' passed' : ''}, after ${minutes(now.minutes)}.`}
      </p>
      <label className={zones.row}>
        <span className="soft">I sit</span>
        <Select
          size="small"
          aria-label="Length of a sitting"
          value={kit.settings.sitting}
          options={SITTINGS}
          onChange={(value) => {
            void append((k) => put(k, 'settings', { name: 'sitting', value }));
          }}
        />
        <span className="soft">at a time</span>
      </label>
    </>
  );
}
