import { RotateRightOutlined } from '@ant-design/icons';
import { Button, InputNumber } from 'antd';
import { type EntryBody, type KitState, remove, type Ref } from '@/core/kit';
import { partPlaced } from '@/core/place';
import { useBench } from '@/store/bench';
import zones from '../shell/zones.module.css';
import styles from './BoardMap.module.css';
import { type Place, placeAs, type PlacedPart } from './layout';

interface Props {
  readonly kit: KitState;
  readonly shown: readonly PlacedPart[];
  readonly chosen: Ref | null;
  readonly done: () => void;
}

/** Figures of the part that is being moved: what dragging does, by keys. */
export function MoveTools({ kit, shown, chosen, done }: Props) {
  const append = useBench((s) => s.append);
  const known = kit.sheet.placement;
  const part = shown.find((p) => p.ref === chosen);
  const place = part && placeAs(part, known);
  const say = (to: Place) => {
    void append((k): EntryBody[] =>
      partPlaced(
        k,
        to,
        shown.map((p) => placeAs(p, known)),
      ),
    );
  };
  return (
    <div className={`${zones.row} ${styles.rows}`} role="group" aria-label="Moving parts">
      {!place ? (
        <span className="soft">Drag a part to where it sits on your board, or go to it with Tab, press Enter and use the arrow keys.</span>
      ) : (
        <>
          <b>{place.ref}</b>
          {(['x', 'y'] as const).map((axis) => (
            <InputNumber
              key={axis}
              size="small"
              aria-label={`${place.ref}, ${axis === 'x' ? 'from the left' : 'from the top'}`}
              step={0.5}
              min={0}
              max={1000}
              value={Math.round(place[axis] * 10) / 10}
              suffix="mm"
              onChange={(v) => {
                if (v !== null) say({ ...place, [axis]: v });
              }}
            />
          ))}
          <Button
            size="small"
            icon={<RotateRightOutlined />}
            onClick={() => {
              say({ ...place, rotation: place.rotation + 90 });
            }}
          >
            Turn
          </Button>
          <Button
            size="small"
            onClick={() => {
              const { side: _, ...above } = place;
              say(place.side === 'bottom' ? above : { ...place, side: 'bottom' });
            }}
          >
            {place.side === 'bottom' ? 'To the upper side' : 'To the copper side'}
          </Button>
          {known.some((p) => p.ref === place.ref) && (
            <Button
              size="small"
              onClick={() => {
                void append((k) => remove(k, 'placement', place.ref) ?? []);
              }}
            >
              Off the map
            </Button>
          )}
        </>
      )}
      <Button size="small" type="primary" onClick={done}>
        Done
      </Button>
    </div>
  );
}
