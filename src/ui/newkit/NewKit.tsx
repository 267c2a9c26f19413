'use client';
import { Alert, Button, Input, Steps } from 'antd';
import { useRouter } from 'next/navigation';
import { useEffect } from 'react';
import { ForeignFace } from '../theme/ForeignFace';
import shelf from '../shelf/Shelf.module.css';
import { WholeWindowDrop } from '../shelf/WholeWindowDrop';
import { CircuitStep } from './CircuitStep';
import { ListStep } from './ListStep';
import styles from './NewKit.module.css';
import { PowerStep } from './PowerStep';
import { ReachStep } from './ReachStep';
import { StagesStep } from './StagesStep';
import { useNewKit } from './useNewKit';

const STEPS = ['List', 'Circuit', 'Probe', 'Power', 'Stages'] as const;

/** A kit from what one has, step by step; every step can be left out, and the path can be left and gone on with. */
export function NewKit() {
  const router = useRouter();
  const kit = useNewKit((id, built) => {
    router.push(`/bench/?kit=${encodeURIComponent(id)}${built ? '#power' : ''}`);
  });
  const { begun, set, message } = kit;
  const at = Math.min(begun.step, STEPS.length - 1);
  const go = (step: number) => {
    set({ step: Math.max(0, Math.min(STEPS.length - 1, step)) });
  };
  useEffect(() => {
    const keys = (e: KeyboardEvent) => {
      if (!e.altKey || e.ctrlKey || (e.key !== 'ArrowRight' && e.key !== 'ArrowLeft')) return;
      e.preventDefault();
      go(at + (e.key === 'ArrowRight' ? 1 : -1));
    };
    window.addEventListener('keydown', keys);
    return () => {
      window.removeEventListener('keydown', keys);
    };
  });
  return (
    <main className={shelf.page}>
      <ForeignFace text={begun.list} />
      <WholeWindowDrop take={kit.takeFile} />
      <h1>New kit</h1>
      {kit.restored && (
        <Alert
          type="info"
          title="This kit was begun before: go on where you left it."
          action={
            <Button size="small" onClick={kit.anew}>
              Begin anew
            </Button>
          }
        />
      )}
      <Input
        aria-label="Name of the kit"
        size="large"
        value={begun.title}
        placeholder={kit.draft.circuit?.title || 'Name of the kit'}
        maxLength={120}
        onChange={(e) => {
          set({ title: e.target.value });
        }}
      />
      <div className={styles.step}>
        <Steps size="small" current={at} onChange={go} items={STEPS.map((title) => ({ title }))} responsive={false} aria-label="Steps to the kit" />
        <section aria-label={STEPS[at]} className={styles.step}>
          {at === 0 && <ListStep kit={kit} />}
          {at === 1 && <CircuitStep kit={kit} />}
          {at === 2 && <ReachStep kit={kit} />}
          {at === 3 && <PowerStep kit={kit} />}
          {at === 4 && <StagesStep kit={kit} />}
        </section>
      </div>
      {message !== null && <Alert type="error" role="alert" title={message} className={styles.preview ?? ''} />}
      <div className={styles.foot}>
        <Button
          size="large"
          disabled={at === 0}
          onClick={() => {
            go(at - 1);
          }}
        >
          Back
        </Button>
        <Button
          size="large"
          type={at === STEPS.length - 1 ? 'default' : 'primary'}
          disabled={at === STEPS.length - 1}
          onClick={() => {
            go(at + 1);
          }}
        >
          Next
        </Button>
        <span className="soft">Alt → and Alt ← go through the steps; each can be left empty.</span>
        <Button
          size="large"
          type={at === STEPS.length - 1 ? 'primary' : 'default'}
          className={styles.push ?? ''}
          loading={kit.making !== null}
          onClick={kit.make}
        >
          {kit.making === null ? 'Make the kit' : `Making the kit: ${Math.round(100 * kit.making)} %`}
        </Button>
        {kit.making !== null && (
          <Button size="large" onClick={kit.stopMaking}>
            Stop
          </Button>
        )}
        <Button
          size="large"
          onClick={() => {
            router.push('/');
          }}
        >
          Back to the shelf
        </Button>
      </div>
    </main>
  );
}
