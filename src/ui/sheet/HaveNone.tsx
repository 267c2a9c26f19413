import { Button } from 'antd';
import type { KitState, Need } from '@/core/kit';
import { useBench } from '@/store/bench';

/** “I have none” is an answer: what depends on it waits, and the rest goes on. Taken back when it has come. */
export function HaveNone({ kit, need }: { kit: KitState; need: Need }) {
  const append = useBench((s) => s.append);
  const none = kit.owned.get(need.id)?.at(-1)?.owned.none === true;
  return (
    <Button
      size="small"
      onClick={() => {
        void append({ kind: 'owned', need: need.id, owned: none ? {} : { none: true } });
      }}
    >
      {none ? 'I have it now' : 'I have none'}
    </Button>
  );
}
