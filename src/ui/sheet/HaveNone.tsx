import { Button } from 'antd';
import type { KitState, Need } from '@/core/kit';
import { useBench } from '@/store/bench';

/** “I have none” is an answer: what depends on it waits, and the rest goes on. Taken back when it has come. */
export function HaveNone({ kit, need }: { kit: KitState; need: Need }) {
  const append = useBench((s) => s.append);
  const said = kit.owned.get(need.id)?.map((e) => e.owned) ?? [];
  const none = said.at(-1)?.none === true;
  // What was noted of it before counts again.
  const before = said.filter((o) => !o.none).at(-1) ?? {};
  return (
    <Button
      size="small"
      onClick={() => {
        void append({ kind: 'owned', need: need.id, owned: none ? before : { none: true } });
      }}
    >
      {none ? 'I have it now' : 'I have none'}
    </Button>
  );
}
