import { Button } from 'antd';
import type { KitState, ObserveCheck } from '@/core/kit';
import { isSoaking, soakMoments, soakStarted } from '@/core/loop';
import { useBench } from '@/store/bench';
import zones from '../shell/zones.module.css';

/** A long run with its touch tests: the clock rings for each, and each is answered by itself. */
export function SoakPanel({ kit, check }: { kit: KitState; check: ObserveCheck }) {
  const append = useBench((s) => s.append);
  const moments = soakMoments(check);
  if (moments.length === 0) return null;
  const running = isSoaking(kit, check);
  return (
    <section aria-label="Long run" className={zones.section}>
      <h2 className={zones.label}>Long run</h2>
      <p>
        At {moments.map((m) => m.channel.replace(/^after /, '')).join(', ')}: the back of a finger near regulators, chips, resistors and the transformer, never
        on mains. <b>Enter</b> when nothing is too hot to keep it there, <b>N</b> when something is. Take a reading again in between: what drifts shows.
      </p>
      <Button
        size="small"
        type={running ? 'default' : 'primary'}
        disabled={running}
        onClick={() => {
          void append(() => soakStarted(check, Date.now()));
        }}
      >
        {running ? 'The clock is running' : 'Start the clock'}
      </Button>
    </section>
  );
}
