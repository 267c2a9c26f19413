import { rateOf } from '@/core/loop';
import { print } from '@/core/quantity';
import { useTaps } from './taps';

/** How often a key was tapped along with a blink or beep, and what rate that makes. */
export function TapCount({ id }: { id: string }) {
  const { target, taps } = useTaps();
  if (target !== id || taps.length === 0) return null;
  const rate = rateOf(taps);
  return (
    <p role="status" className="soft">
      <b className="num">{taps.length}</b> {taps.length === 1 ? 'tap' : 'taps'}
      {rate === null ? ': go on' : `, ${print(rate, 'Hz', 3)}: one every ${print(1 / rate, 's', 3)}`}
    </p>
  );
}
