import { expectationText } from '@/core/loop';
import { type KitState, meterOf } from '@/core/kit';
import { uncertaintyOf } from '@/core/meter';
import { parseDisplay } from '@/core/quantity';
import { conformity, type Verdict } from '@/core/verdict';
import type { MeterMode } from '@/core/vocabulary';
import { WindowGauge } from '../drawn/WindowGauge';
import { useEntryField } from './entryField';
import styles from './ProbeBar.module.css';
import type { Loop } from './useLoop';

/** The window that a reading should fall into, and where what is being typed would fall. */
export function ExpectedZone({ kit, loop }: { kit: KitState; loop: Loop }) {
  const text = useEntryField((s) => s.text);
  const { card, target } = loop;
  if (!card || !target) return null;
  if (!card.expected) return <p className={styles.said}>{card.why}</p>;
  const { low, high, middle, over, from, computed } = card.expected;
  const typed = card.unit ? parseDisplay(text, card.unit) : null;
  const reading = typed?.ok && typed.kind === 'value' ? typed.value : null;
  const mode = modeOf(target);
  const halfWidth = reading === null || !mode ? 0 : (uncertaintyOf(meterOf(kit), mode, reading)?.halfWidth ?? 0);
  const verdict: Verdict = reading === null ? 'none' : conformity(reading, 0, low, high, 'simple').verdict;
  const window = expectationText(card);
  return (
    <>
      {over && computed ? (
        <p className={styles.over}>over-range</p>
      ) : Number.isFinite(low) && Number.isFinite(high) ? (
        <WindowGauge low={low} high={high} middle={middle} reading={reading} uncertainty={halfWidth} verdict={verdict} text={`expected ${window}`} />
      ) : null}
      <p className={styles.window}>
        <b className="num">{window}</b> {from}
      </p>
    </>
  );
}

function modeOf(target: NonNullable<Loop['target']>): MeterMode | null {
  if (target.kind === 'piece') return target.expected.mode;
  if (target.kind === 'probe') return 'dcv';
  return target.kind === 'check' && target.check.what === 'measure' ? target.check.mode : null;
}
