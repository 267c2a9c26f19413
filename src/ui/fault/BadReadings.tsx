import { Alert, Button } from 'antd';
import type { Findings } from '@/core/diagnose';
import type { KitState } from '@/core/kit';
import { targetOfObservable } from '@/core/loop';
import { percent, rowTitle } from './words';

/** From here on a reading is doubted aloud (choice of this product). */
export const DOUBTED = 0.3;

type Bad = Findings['badReadings'][number];

/** Readings that contradict all others, with what probably went wrong; reading them again settles it. */
export function BadReadings({ kit, findings, again }: { kit: KitState; findings: Findings; again: (target: string) => void }) {
  const doubted = findings.badReadings
    .filter((b) => b.probability >= DOUBTED)
    .map((b) => {
      const target = targetOfObservable(kit, b.id);
      return (
        <Alert
          key={b.id}
          type="warning"
          role="status"
          title={`${rowTitle(kit, b.id, findings.rows)} contradicts everything else (${percent(b.probability)}): ${words(kit, findings, b)}. Read it again.`}
          action={
            target && (
              <Button
                size="small"
                onClick={() => {
                  again(target.id);
                }}
              >
                Read it again
              </Button>
            )
          }
        />
      );
    });
  return (
    <>
      {findings.bench && <Alert type="warning" role="status" title={commonCause(findings.bench)} />}
      {doubted}
    </>
  );
}

/** One cause on the bench for all readings, and what to do about it. */
function commonCause({ what, factor, probability }: NonNullable<Findings['bench']>): string {
  const off = `${Math.abs(100 * (factor - 1)).toFixed(0)} % ${factor > 1 ? 'high' : 'low'}`;
  return what === 'meter-gain'
    ? `All volts read ${off} (${percent(probability)} likely): suspect the meter. Replace its battery or compare it with another one. The suspects below allow for it.`
    : `All readings fit a supply that is ${off} (${percent(probability)} likely). Measure the supply at its terminals, with the board connected.`;
}

function words(kit: KitState, findings: Findings, { why, as }: Bad): string {
  switch (why) {
    case 'sign':
      return 'with the probes swapped it would fit';
    case 'other-point':
      return `read at ${as === null ? 'another point' : rowTitle(kit, as, findings.rows)} it would fit`;
    case 'decimal':
      return 'with the decimal point elsewhere it would fit';
    case 'no-contact':
      return 'the probe probably had no contact, or the meter was on AC';
  }
}
