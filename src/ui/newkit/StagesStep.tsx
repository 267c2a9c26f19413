import { useMemo } from 'react';
import { useAnswer } from '../results/useResult';
import { Nothing } from '../drawn/Nothing';
import styles from './NewKit.module.css';
import { needsOf, type useNewKit } from './useNewKit';

/** The ladder of stages that the kit would get. */
export function StagesStep({ kit }: { kit: ReturnType<typeof useNewKit> }) {
  const { asked, nets, begun } = kit;
  const { beside, built, feeds } = begun;
  const inputs = useMemo(() => ({ ...asked, nets, beside, built, needs: needsOf(asked.deck, feeds) }), [asked, nets, beside, built, feeds]);
  const { value, state, progress } = useAnswer('draftStages', inputs);
  const stages = value ?? [];
  return (
    <>
      <p className={styles.buys}>
        In this order the board is brought to life: each stage is passed before the next. All of it can be changed later on the Sheet.
      </p>
      {stages.length === 0 ? (
        <Nothing say={state === 'working' ? workingWords(progress) : 'No stages yet: they come from the list and the circuit.'} />
      ) : (
        <ol className={styles.stages} aria-label="Proposed stages">
          {stages.map((s) => (
            <li key={s.id}>
              <b>{s.title}</b>{' '}
              <span className="soft">
                {s.checks.length} {s.checks.length === 1 ? 'check' : 'checks'}:{' '}
                {s.checks
                  .slice(0, 4)
                  .map((c) => c.title)
                  .join(', ')}
                {s.checks.length > 4 ? '…' : ''}
              </span>
            </li>
          ))}
        </ol>
      )}
    </>
  );
}

const workingWords = (done: number) => `Reading simulated healthy and faulty boards: ${Math.round(100 * done)} %`;
