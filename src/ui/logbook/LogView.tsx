'use client';
import { Alert, Button, Timeline } from 'antd';
import { useDeferredValue, useMemo, useState } from 'react';
import { type Entry, type KitState, kitFindings } from '@/core/kit';
import { chooseSteps, type LogChoice, type LogStep, logSteps } from '@/core/loop';
import { useBench } from '@/store/bench';
import zones from '../shell/zones.module.css';
import { CorrectReading, isCorrectable } from './CorrectReading';
import { LogTools } from './LogTools';
import styles from './Logbook.module.css';
import { NoteForm } from './NoteForm';
import { StepRow } from './StepRow';
import { StepIcon } from './StepIcon';
import { Nothing } from '../drawn/Nothing';

const SHOWN_AT_ONCE = 50;

/** All that happened, by day, newest first. Nothing is deleted: a step is taken back, stays readable, and can be put back. */
export function LogView({ kit }: { kit: KitState }) {
  const [choice, setChoice] = useState<LogChoice>({ topics: [], search: '', withGone: true });
  const [shown, setShown] = useState(SHOWN_AT_ONCE);
  const [correcting, setCorrecting] = useState<Entry | null>(null);
  const unsaved = useBench((s) => s.unsaved);
  const slow = useDeferredValue(choice);
  const steps = logSteps(kit);
  const fitting = useMemo(() => chooseSteps(steps, slow), [steps, slow]);
  const notSaved = new Set(unsaved.map((e) => e.id));
  const days = byDay(fitting.slice(0, shown));
  return (
    <div className={`${zones.zones} ${zones.one}`}>
      <section className={zones.card} aria-label="Log">
        <LogTools kit={kit} choice={choice} setChoice={setChoice} />
        <NoteForm />
        {kitFindings(kit)
          .filter((f) => f.code !== 'conflict')
          .map((f) => (
            <Alert key={f.text} type="info" title={f.text} className={styles.finding ?? ''} />
          ))}
        {fitting.length === 0 && (
          <Nothing say={steps.length <= 1 ? 'Nothing has happened yet. Counting in Unpack makes the first entries.' : 'No entry fits this choice.'} />
        )}
        {days.map(({ day, steps: ofDay }) => (
          <section key={day} aria-label={day} className={styles.days}>
            <h3 className={styles.day}>{day}</h3>
            <Timeline
              items={ofDay.map((step) => ({
                key: step.id,
                icon: <StepIcon step={step} />,
                content: <StepRow kit={kit} step={step} notSaved={step.entries.some((e) => notSaved.has(e.id))} correct={setCorrecting} />,
              }))}
            />
          </section>
        ))}
        {fitting.length > shown && (
          <Button
            onClick={() => {
              setShown(shown + SHOWN_AT_ONCE);
            }}
          >
            Show {Math.min(SHOWN_AT_ONCE, fitting.length - shown)} older steps
          </Button>
        )}
      </section>
      {correcting && isCorrectable(correcting) && (
        <CorrectReading
          kit={kit}
          entry={correcting}
          close={() => {
            setCorrecting(null);
          }}
        />
      )}
    </div>
  );
}

const dayFormat = new Intl.DateTimeFormat('en', { weekday: 'long', day: 'numeric', month: 'long', year: 'numeric' });

function byDay(steps: readonly LogStep[]): { day: string; steps: LogStep[] }[] {
  const days: { day: string; steps: LogStep[] }[] = [];
  for (const step of steps) {
    const date = new Date(step.at);
    const day = Number.isNaN(date.getTime()) ? step.at : dayFormat.format(date);
    const last = days[days.length - 1];
    if (last?.day === day) last.steps.push(step);
    else days.push({ day, steps: [step] });
  }
  return days;
}
