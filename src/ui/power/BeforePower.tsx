import { Button } from 'antd';
import type { KitState, Stage } from '@/core/kit';
import { openBeforePower, type OpenPoint, type Phase } from '@/core/loop';
import { useBench } from '@/store/bench';
import zones from '../shell/zones.module.css';
import styles from './BeforePower.module.css';

/** Where the points that are settled elsewhere are settled. */
const ELSEWHERE: Readonly<Partial<Record<OpenPoint['kind'], { readonly phase: Phase; readonly label: string }>>> = {
  'bad-piece': { phase: 'check', label: 'To Check' },
  empty: { phase: 'fit', label: 'To Fit' },
  hardware: { phase: 'fit', label: 'To Fit' },
  'left-out': { phase: 'fit', label: 'To Fit' },
  look: { phase: 'fit', label: 'Look it over' },
};

/** The one stop before power: what is still open, the most harmful first. Nothing where nothing is open. */
export function BeforePower({ kit, stage, go }: { kit: KitState; stage: Stage; go: (phase: Phase) => void }) {
  const append = useBench((s) => s.append);
  const points = openBeforePower(kit, stage);
  if (points.length === 0) return null;
  return (
    <section aria-label="Before you switch on">
      <h2 className={`${zones.label} ${zones.section}`}>Before you switch on</h2>
      <ol className={styles.points}>
        {points.map(({ kind, text, advice, done }) => {
          const elsewhere = ELSEWHERE[kind];
          return (
            <li key={text}>
              <b>{text.charAt(0).toUpperCase() + text.slice(1)}.</b> {advice}
              {done && (
                <Button
                  size="small"
                  onClick={() => {
                    void append([...done.entries]);
                  }}
                >
                  {done.label}
                </Button>
              )}
              {!done && elsewhere && (
                <Button
                  size="small"
                  onClick={() => {
                    go(elsewhere.phase);
                  }}
                >
                  {elsewhere.label}
                </Button>
              )}
            </li>
          );
        })}
      </ol>
    </section>
  );
}
