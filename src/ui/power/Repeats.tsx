import type { KitState, MeasureCheck, Stage } from '@/core/kit';
import { freshTaken, seriesOf } from '@/core/loop';
import { print } from '@/core/quantity';
import { unitOf } from '@/core/vocabulary';

/** A check that was read more than once: how far its readings lie apart, and whether they drift. */
export function Repeats({ kit, stage, check }: { kit: KitState; stage: Stage; check: MeasureCheck }) {
  const series = seriesOf(freshTaken(kit, stage, check.id), check.mode);
  if (!series) return null;
  const unit = unitOf(check.mode);
  const { count, low, high, drift } = series;
  return (
    <p role="note" aria-label="Read more than once">
      Read {count} times: {low === high ? `always ${print(low, unit)}` : `${print(low, unit)} to ${print(high, unit)}`}.{' '}
      {drift !== null &&
        low !== high &&
        `It ${drift.perMinute > 0 ? 'rises' : 'falls'} by ${print(Math.abs(drift.perMinute), unit, 2)} a minute${
          drift.told
            ? ': borderline until it has settled. If it never does, feel for a hot part, supply off.'
            : ', no more than your meter and hand explain, or too few readings to say.'
        }`}
    </p>
  );
}
