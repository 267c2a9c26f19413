import { Button, Input } from 'antd';
import type { KitState } from '@/core/kit';
import { useBench } from '@/store/bench';
import { useEntryField } from './entryField';
import { KeyButton } from './KeyButton';
import styles from './ProbeBar.module.css';
import { TapCount } from './TapCount';
import { canTap, tap } from './taps';
import type { Loop } from './useLoop';

/** How an answer that needs no typing is asked for, and what Enter and N say. */
const WORDS = {
  fit: { asks: 'Tick it off', yes: 'fitted', no: null },
  inspect: { asks: 'What do you see', yes: 'good', no: 'not good' },
  prepare: { asks: 'Is it set', yes: 'all set', no: null },
  trace: { asks: 'What do you hear', yes: 'beeps', no: 'silent' },
  check: { asks: 'What do you see', yes: 'as expected', no: 'not so' },
} as const;

/** An answer that needs no typing: fitted, a look, a beep, or as expected or not. */
export function ConfirmZone({ kit, loop, kind }: { kit: KitState; loop: Loop; kind: keyof typeof WORDS }) {
  const { asks, yes, no } = WORDS[kind];
  const { target } = loop;
  const error = useEntryField((s) => s.error);
  return (
    <>
      <h2 className={styles.label}>{asks}</h2>
      {/* The field's style comes now: put in with the first reading it would lay out the whole page anew under the typing hand. */}
      <div hidden>
        <Input tabIndex={-1} aria-hidden />
      </div>
      <div className={styles.fieldRow}>
        <Button
          className={`${styles.choice} ${styles.first}`}
          data-confirm="yes"
          onClick={() => {
            loop.confirm(true);
          }}
        >
          <kbd>Enter</kbd> {yes}
        </Button>
        {no !== null && (
          <Button
            className={styles.choice ?? ''}
            data-confirm="no"
            onClick={() => {
              loop.confirm(false);
            }}
          >
            <kbd>N</kbd> {no}
          </Button>
        )}
      </div>
      {error !== null && (
        <p role="alert" className={styles.error}>
          {error}
        </p>
      )}
      {target && <TapCount id={target.id} />}
      <div className={styles.keys}>
        {kit.settings.standIn !== null && (kind === 'check' || kind === 'prepare') && (
          <KeyButton
            command="meter"
            text={kind === 'prepare' ? 'set the simulated bench' : loop.measuring ? 'looking…' : 'look at the simulated board'}
            run={loop.readMeter}
          />
        )}
        {target && canTap(target) && (
          <KeyButton
            command="tap"
            text="count by tapping"
            run={() => {
              tap(target.id, null);
            }}
          />
        )}
        <KeyButton command="skip" text="skip" run={loop.skip} />
        <KeyButton
          command="undo"
          text="undo"
          run={() => {
            void useBench.getState().undo();
          }}
        />
      </div>
    </>
  );
}
