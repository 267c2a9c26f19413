import { closestCenter, DndContext, type DragEndEvent, KeyboardSensor, PointerSensor, useSensor, useSensors } from '@dnd-kit/core';
import { SortableContext, sortableKeyboardCoordinates, useSortable, verticalListSortingStrategy } from '@dnd-kit/sortable';
import { CSS } from '@dnd-kit/utilities';
import { HolderOutlined } from '@ant-design/icons';
import { Button } from 'antd';
import type { ReactNode } from 'react';
import styles from './Records.module.css';

interface Props<T> {
  /** What the rows are, for those who do not see them. */
  readonly label?: string;
  readonly items: readonly T[];
  readonly idOf: (item: T) => string;
  readonly nameOf: (item: T) => string;
  /** Moves an item to stand before another, or to the end. */
  readonly move: (id: string, before: string | null) => void;
  readonly children: (item: T) => ReactNode;
  readonly here?: (item: T) => boolean;
  /** Rows that stand where they stand. */
  readonly fixed?: (item: T) => boolean;
}

/** Rows that are dragged into another order, by hand or with space and the arrow keys at their grip. */
export function Sortable<T>({ label, items, idOf, nameOf, move, children, here, fixed }: Props<T>) {
  const sensors = useSensors(
    useSensor(PointerSensor, { activationConstraint: { distance: 5 } }),
    useSensor(KeyboardSensor, { coordinateGetter: sortableKeyboardCoordinates }),
  );
  const ids = items.map(idOf);
  const end = ({ active, over }: DragEndEvent) => {
    if (!over || active.id === over.id) return;
    const [from, to] = [ids.indexOf(String(active.id)), ids.indexOf(String(over.id))];
    move(String(active.id), (from < to ? ids[to + 1] : ids[to]) ?? null);
  };
  return (
    <DndContext sensors={sensors} collisionDetection={closestCenter} onDragEnd={end}>
      <SortableContext items={ids} strategy={verticalListSortingStrategy}>
        <ul className={styles.list} aria-label={label}>
          {items.map((item) => (
            <Row key={idOf(item)} id={idOf(item)} name={nameOf(item)} here={here?.(item) ?? false} fixed={fixed?.(item) ?? false}>
              {children(item)}
            </Row>
          ))}
        </ul>
      </SortableContext>
    </DndContext>
  );
}

function Row({ id, name, here, fixed, children }: { id: string; name: string; here: boolean; fixed: boolean; children: ReactNode }) {
  const { attributes, listeners, setNodeRef, setActivatorNodeRef, transform, transition } = useSortable({ id, disabled: { draggable: fixed } });
  return (
    <li ref={setNodeRef} className={`${styles.item} ${here ? styles.here : ''}`} style={{ transform: CSS.Transform.toString(transform), transition }}>
      {!fixed && (
        <Button
          ref={setActivatorNodeRef}
          type="text"
          size="small"
          icon={<HolderOutlined />}
          className={styles.grip ?? ''}
          {...attributes}
          {...listeners}
          aria-label={`Move ${name}`}
        />
      )}
      {children}
    </li>
  );
}
