import { Button, Tooltip } from 'antd';
import { memo, useEffect, useRef } from 'react';
import { type Phase, type PhaseProgress, PHASES, type WorkPhase } from '@/core/loop';
import { COMMANDS, titleOf } from './commands';
import styles from './PhasePath.module.css';

interface Props {
  readonly phase: Phase;
  readonly progress: Readonly<Record<WorkPhase, PhaseProgress>>;
  readonly go: (phase: Phase) => void;
}

/** The work as a path: where one stands, what is done, what is left in numbers. */
export function PhasePath({ phase, progress, go }: Props) {
  const path = useRef<HTMLElement>(null);
  // On a small screen the path scrolls: where one stands stays in sight.
  useEffect(() => {
    path.current?.querySelector('[aria-current]')?.scrollIntoView({ block: 'nearest', inline: 'center' });
  }, [phase]);
  return (
    <nav ref={path} className={styles.path} aria-label="Phases">
      {PHASES.map((p) => (
        <Step key={p} phase={p} here={p === phase} {...progress[p]} go={go} />
      ))}
    </nav>
  );
}

interface StepProps extends PhaseProgress {
  readonly phase: WorkPhase;
  readonly here: boolean;
  readonly go: (phase: Phase) => void;
}

const Step = memo(function Step({ phase, here, state, left, text, go }: StepProps) {
  return (
    <Tooltip title={`${text ? `${text} · ` : ''}${COMMANDS[phase].shown}`}>
      <Button
        type="text"
        className={[styles.step, styles[state], here ? styles.here : ''].join(' ')}
        aria-current={here ? 'step' : undefined}
        onClick={() => {
          go(phase);
        }}
      >
        <Milestone state={state} here={here} />
        <span>{titleOf(phase)}</span>
        {left > 0 && state !== 'nothing' && <small className="num">{state === 'stopped' ? '!' : left}</small>}
        <span className="sr-only">{text && ` (${text})`}</span>
      </Button>
    </Tooltip>
  );
});

/** Ring: open; filled with a tick: done; dashed: nothing to do; square: stopped. */
function Milestone({ state, here }: { state: PhaseProgress['state']; here: boolean }) {
  return (
    <svg className={styles.mark ?? ''} viewBox="0 0 16 16" aria-hidden="true">
      {state === 'done' ? (
        <>
          <circle cx="8" cy="8" r="7" fill="var(--in)" />
          <path d="M4.5 8.4l2.4 2.4 4.6-5" fill="none" stroke="var(--ground)" strokeWidth="2" />
        </>
      ) : state === 'stopped' ? (
        <rect x="1.5" y="1.5" width="13" height="13" rx="2" fill="var(--out)" />
      ) : (
        <circle cx="8" cy="8" r="6.4" fill="none" stroke="currentColor" strokeWidth="2" strokeDasharray={state === 'nothing' ? '2.6 2.4' : 'none'} />
      )}
      {here && <circle cx="8" cy="8" r="3.2" fill="var(--zest)" />}
    </svg>
  );
}
