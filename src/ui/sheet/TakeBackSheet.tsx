import { UndoOutlined } from '@ant-design/icons';
import { Button } from 'antd';
import { isOfMaking, type KitState, stands } from '@/core/kit';
import { useBench } from '@/store/bench';

/** Takes back the last change of the sheet (lines, needs, circuit, cards), whenever it was made; nothing while there is none. */
export function TakeBackSheet({ kit }: { kit: KitState }) {
  const append = useBench((s) => s.append);
  const last = [...kit.log].reverse().find((e) => e.kind === 'changed' && stands(kit, e) && !isOfMaking(kit, e));
  if (!last) return null;
  return (
    <Button
      size="small"
      icon={<UndoOutlined />}
      onClick={() => {
        void append(last.batch === undefined ? { kind: 'withdrawn', entry: last.id } : { kind: 'withdrawn', ofBatch: last.batch });
      }}
    >
      Take back the last change
    </Button>
  );
}
