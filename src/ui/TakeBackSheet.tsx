import { isKnown, type KitState, stands } from '@/core/kit';
import { useBench } from '@/store/bench';

/** Takes back the last change of the sheet (lines, needs, circuit, cards), whenever it was made; nothing while there is none. */
export function TakeBackSheet({ kit }: { kit: KitState }) {
  const append = useBench((s) => s.append);
  const first = kit.log.find((e) => isKnown(e) && e.kind === 'changed')?.batch;
  const last = [...kit.log].reverse().find((e) => e.kind === 'changed' && stands(kit, e) && (e.batch === undefined || e.batch !== first));
  if (!last) return null;
  return (
    <button
      type="button"
      className="plain"
      onClick={() => {
        void append(last.batch === undefined ? { kind: 'withdrawn', entry: last.id } : { kind: 'withdrawn', ofBatch: last.batch });
      }}
    >
      Take back the last change
    </button>
  );
}
