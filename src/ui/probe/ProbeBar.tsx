'use client';
import { ArrowLeftOutlined } from '@ant-design/icons';
import { Button } from 'antd';
import { lazy, type RefObject, Suspense, useMemo } from 'react';
import { lastVerdict, type Phase, type Target } from '@/core/loop';
import type { KitState } from '@/core/kit';
import { useWindows } from '../results/useWindows';
import { useLink } from '@/store/instrument';
import { useComfort } from '../theme/comfort';
import { ConfirmZone } from './ConfirmZone';
import { EntryZone } from './EntryZone';
import { ExpectedZone } from './ExpectedZone';
import styles from './ProbeBar.module.css';
import { TargetZone } from './TargetZone';
import type { Loop } from './useLoop';
import { VerdictLine, VerdictZone } from './VerdictZone';

const LiveMeter = lazy(() => import('../live/LiveMeter').then((m) => ({ default: m.LiveMeter })));
const HandsFree = lazy(() => import('./HandsFree').then((m) => ({ default: m.HandsFree })));

interface Props {
  readonly kit: KitState;
  readonly phase: Phase;
  readonly loop: Loop;
  readonly fieldRef: RefObject<HTMLInputElement | null>;
  /** What is said while nothing is asked. */
  readonly nothing: string;
  /** Where the work goes on, when it does so elsewhere. */
  readonly back: { readonly text: string; readonly go: () => void } | null;
  /** Opens the marking reader; null where nothing is printed on the target. */
  readonly readMarking: (() => void) | null;
}

/** Always at the same place: target, entry, expectation, last verdict. One line where nothing is asked. */
export function ProbeBar({ kit, phase, loop, fieldRef, nothing, back, readMarking }: Props) {
  const windows = useWindows(kit);
  const last = useMemo(() => lastVerdict(kit, windows), [kit, windows]);
  const linked = useLink((s) => s.session !== null);
  const { speak, tones, awake, far } = useComfort();
  const spoken = (speak || tones || awake || far) && (
    <Suspense fallback={null}>
      <HandsFree last={last} card={loop.card} />
    </Suspense>
  );
  if (!loop.target)
    return (
      <footer className={`${styles.line} ${phase === 'fault' && kit.sheet.circuit && kit.readings.size > 0 ? styles.tall : ''}`} aria-label="Probe bar">
        {spoken}
        <span>{nothing}</span>
        {back && (
          <Button icon={<ArrowLeftOutlined />} onClick={back.go}>
            {back.text}
          </Button>
        )}
        <span className={styles.lastInLine} aria-live="polite">
          {last && <VerdictLine last={last} size={18} />}
        </span>
      </footer>
    );
  const title = titleOf(phase, loop.target);
  return (
    <footer className={styles.bar} aria-label="Probe bar" data-tour="probe">
      {spoken}
      <section className={styles.target} aria-label={title}>
        <h2 className={styles.label}>{title}</h2>
        {loop.card && <TargetZone card={loop.card} />}
      </section>
      <section className={styles.entry} aria-label="Entry">
        {loop.card?.entry === 'confirm' ? (
          <ConfirmZone kit={kit} loop={loop} kind={confirmKind(loop.target)} />
        ) : (
          <>
            <EntryZone kit={kit} phase={phase} loop={loop} fieldRef={fieldRef} readMarking={readMarking} />
            {linked && (
              <Suspense fallback={null}>
                <LiveMeter kit={kit} target={loop.target} setText={loop.setText} take={loop.take} />
              </Suspense>
            )}
          </>
        )}
      </section>
      <section className={styles.expected} aria-label="Expected">
        <h2 className={styles.label}>Expected</h2>
        <ExpectedZone kit={kit} loop={loop} />
      </section>
      <section className={styles.verdict} aria-label="Last verdict" aria-live="polite">
        <h2 className={styles.label}>Last verdict</h2>
        <VerdictZone last={last} />
      </section>
    </footer>
  );
}

function titleOf(phase: Phase, target: Target): string {
  if (target.kind === 'fit') return 'Next to fit';
  if (target.kind === 'inspect') return 'To look at';
  if (target.kind === 'prepare') return 'Before this stage';
  return phase === 'unpack' ? 'In the hand' : 'Under the probes';
}

const confirmKind = ({ kind }: Target) => (kind === 'fit' || kind === 'inspect' || kind === 'trace' || kind === 'prepare' ? kind : 'check');
