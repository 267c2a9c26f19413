import { DndContext, type DragEndEvent, KeyboardSensor, PointerSensor, useDraggable, useSensor, useSensors } from '@dnd-kit/core';
import { CSS } from '@dnd-kit/utilities';
import { Button } from 'antd';
import { useRef } from 'react';
import type { Ref } from '@/core/kit';
import { type LaidOut, standsOver, widthOfView } from './BoardMap';
import styles from './BoardMap.module.css';
import type { PlacedPart } from './layout';
import { GRIP } from './ZoomFrame';

/** What an arrow key moves a part by, and to what its place is rounded, millimetres. */
const STEP = 0.5;
const FINE = 0.1;

interface Props {
  readonly map: LaidOut;
  /** The drawing is shown from the copper side. */
  readonly mirrored: boolean;
  readonly chosen: Ref | null;
  readonly choose: (ref: Ref) => void;
  readonly move: (part: PlacedPart, x: number, y: number) => void;
}

/** Every part of the map as something to drag, by hand or with Enter and the arrow keys. */
export function MoveParts({ map, mirrored, chosen, choose, move }: Props) {
  const frame = useRef<HTMLDivElement>(null);
  /** Pixels of one millimetre as it is now zoomed. */
  const pixels = () => (frame.current?.getBoundingClientRect().width ?? 1) / widthOfView(map);
  const sensors = useSensors(
    useSensor(PointerSensor, { activationConstraint: { distance: 4 } }),
    useSensor(KeyboardSensor, {
      coordinateGetter: (event, { currentCoordinates: { x, y } }) => {
        const by = STEP * pixels();
        const [dx, dy] = { ArrowLeft: [-by, 0], ArrowRight: [by, 0], ArrowUp: [0, -by], ArrowDown: [0, by] }[event.code] ?? [0, 0];
        if (dx !== 0 || dy !== 0) event.preventDefault();
        return { x: x + dx!, y: y + dy! };
      },
    }),
  );
  const end = ({ active, delta }: DragEndEvent) => {
    const part = map.parts.find((p) => p.ref === active.id);
    if (!part || (delta.x === 0 && delta.y === 0)) return;
    const by = pixels();
    const fine = (v: number) => Math.round(v / FINE) * FINE;
    move(part, fine(part.x + ((mirrored ? -1 : 1) * delta.x) / by), fine(part.y + delta.y / by));
  };
  return (
    <div ref={frame} className={styles.movable}>
      <DndContext sensors={sensors} onDragEnd={end}>
        {map.parts.map((p) => (
          <Movable key={p.ref} map={map} part={p} mirrored={mirrored} chosen={p.ref === chosen} choose={choose} frame={frame} />
        ))}
      </DndContext>
    </div>
  );
}

interface MovableProps extends Pick<Props, 'map' | 'mirrored' | 'choose'> {
  readonly part: PlacedPart;
  readonly chosen: boolean;
  readonly frame: React.RefObject<HTMLDivElement | null>;
}

function Movable({ map, part, mirrored, chosen, choose, frame }: MovableProps) {
  const { attributes, listeners, setNodeRef, transform } = useDraggable({ id: part.ref });
  const box = frame.current;
  // The drawing is zoomed as a whole: what the hand moves on the screen is less on the drawing.
  const zoom = transform && box ? box.getBoundingClientRect().width / Math.max(1, box.offsetWidth) : 1;
  const moved = transform ? CSS.Translate.toString({ ...transform, x: ((mirrored ? -1 : 1) * transform.x) / zoom, y: transform.y / zoom }) : '';
  return (
    <Button
      ref={setNodeRef}
      type="text"
      className={`${GRIP} ${styles.press} ${styles.move} ${chosen ? styles.chosen : ''}`}
      style={{ ...standsOver(map, part), transform: `translate(-50%, -50%) ${moved ?? ''}` }}
      {...attributes}
      {...listeners}
      aria-label={`Move ${part.ref}`}
      onClick={() => {
        choose(part.ref);
      }}
    />
  );
}
