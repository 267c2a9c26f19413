import { Button } from 'antd';
import type { EntryOf } from '@/core/kit';
import type { FunctionTry } from '@/core/logic';
import { VerdictMark } from '../drawn/VerdictMark';
import zones from '../shell/zones.module.css';
import styles from './Functions.module.css';

interface Props {
  readonly tries: readonly FunctionTry[];
  readonly tried: ReadonlyMap<string, EntryOf<'tried'>>;
  readonly here: string | null;
  readonly choose: (check: string) => void;
}

/** All tries of a board, each with what came of it. */
export function TryList({ tries, tried, here, choose }: Props) {
  const done = tries.filter((t) => tried.has(t.check)).length;
  return (
    <>
      <h2 className={zones.label}>
        Functions: {done} of {tries.length} tried
      </h2>
      <ul className={styles.tries}>
        {tries.map(({ check }) => {
          const entry = tried.get(check);
          return (
            <li key={check}>
              <Button
                type="text"
                block
                aria-current={check === here ? 'true' : undefined}
                className={`${styles.try ?? ''} ${check === here ? (styles.here ?? '') : ''}`}
                icon={<VerdictMark verdict={entry ? (entry.asExpected ? 'in' : 'out') : 'none'} />}
                onClick={() => {
                  choose(check);
                }}
              >
                {check}
              </Button>
            </li>
          );
        })}
      </ul>
    </>
  );
}
