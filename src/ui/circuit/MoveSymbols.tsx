import { DndContext, type DragEndEvent, PointerSensor, useDraggable, useSensor, useSensors } from '@dnd-kit/core';
import { CSS } from '@dnd-kit/utilities';
import { Button } from 'antd';
import { type KeyboardEvent, useRef } from 'react';
import type { Drawing } from '@/core/draw';
import { type KitState, put, type RecordOf, remove } from '@/core/kit';
import { useBench } from '@/store/bench';
import zones from '../shell/zones.module.css';
import styles from './Schematic.module.css';
import { onSheet, stepsAcross } from './SchematicSheet';

type Drawn = Drawing['symbols'][number];
type SymbolPlace = RecordOf<'symbols'>;

/** Where a symbol was put, or where the drawing has it. */
const placeOf = (kit: KitState, { ref, x, y, rotation, mirror }: Drawn): SymbolPlace =>
  kit.sheet.symbols.find((s) => s.ref === ref) ?? { ref, x, y, rotation, ...(mirror ? { mirror } : {}) };

const turned = (p: SymbolPlace): SymbolPlace => ({ ...p, rotation: ((p.rotation + 90) % 360) as SymbolPlace['rotation'] });
const mirrored = ({ mirror, ...p }: SymbolPlace): SymbolPlace => (mirror ? p : { ...p, mirror: true });

const STEPS: Readonly<Record<string, readonly [number, number]>> = { ArrowLeft: [-1, 0], ArrowRight: [1, 0], ArrowUp: [0, -1], ArrowDown: [0, 1] };

interface Props {
  readonly kit: KitState;
  readonly drawing: Drawing;
  readonly chosen: string | null;
  readonly choose: (ref: string) => void;
}

/** Every symbol as something to drag; the arrow keys move it, R turns it, M mirrors it, Delete puts it back. */
export function MoveSymbols({ kit, drawing, chosen, choose }: Props) {
  const append = useBench((s) => s.append);
  const frame = useRef<HTMLDivElement>(null);
  const sensors = useSensors(useSensor(PointerSensor, { activationConstraint: { distance: 4 } }));
  const to = (place: SymbolPlace) => void append((k) => [put(k, 'symbols', place)]);
  const end = ({ active, delta }: DragEndEvent) => {
    const symbol = drawing.symbols.find((s) => s.ref === active.id);
    const step = (frame.current?.getBoundingClientRect().width ?? 0) / stepsAcross(drawing);
    if (!symbol || step === 0) return;
    const [dx, dy] = [Math.round(delta.x / step), Math.round(delta.y / step)];
    if (dx === 0 && dy === 0) return;
    choose(symbol.ref);
    to({ ...placeOf(kit, symbol), x: symbol.x + dx, y: symbol.y + dy });
  };
  const key = (symbol: Drawn) => (e: KeyboardEvent) => {
    const place = placeOf(kit, symbol);
    const step = STEPS[e.key];
    const way = e.key.toLowerCase();
    if (step) to({ ...place, x: place.x + step[0], y: place.y + step[1] });
    else if (way === 'r') to(turned(place));
    else if (way === 'm') to(mirrored(place));
    else if (e.key === 'Delete' || e.key === 'Backspace') void append((k) => remove(k, 'symbols', symbol.ref) ?? []);
    else return;
    e.preventDefault();
    e.stopPropagation();
  };
  return (
    <div ref={frame} className={styles.over}>
      <DndContext sensors={sensors} onDragEnd={end}>
        {drawing.symbols.map((s) => (
          <Movable key={s.ref} drawing={drawing} symbol={s} chosen={s.ref === chosen} choose={choose} onKey={key(s)} />
        ))}
      </DndContext>
    </div>
  );
}

interface MovableProps extends Pick<Props, 'drawing' | 'choose'> {
  readonly symbol: Drawn;
  readonly chosen: boolean;
  readonly onKey: (e: KeyboardEvent) => void;
}

function Movable({ drawing, symbol, chosen, choose, onKey }: MovableProps) {
  const { attributes, listeners, setNodeRef, transform } = useDraggable({ id: symbol.ref });
  return (
    <Button
      ref={setNodeRef}
      type="text"
      className={`${styles.movable} ${chosen ? styles.chosen : ''}`}
      style={{ ...onSheet(drawing, symbol.box), ...(transform ? { transform: CSS.Translate.toString(transform) } : {}) }}
      {...attributes}
      {...listeners}
      aria-label={`Move ${symbol.ref}`}
      onKeyDown={onKey}
      onFocus={() => {
        choose(symbol.ref);
      }}
    />
  );
}

/** What else can be done with the symbol in hand, and how. */
export function MoveSymbolTools({ kit, chosen }: Pick<Props, 'kit' | 'chosen'>) {
  const append = useBench((s) => s.append);
  const { symbols } = kit.sheet;
  const isPlaced = symbols.some((s) => s.ref === chosen);
  return (
    <div className={`${zones.row} ${styles.tools}`} role="group" aria-label="Moving symbols">
      <span className="soft">
        {chosen === null ? (
          'Drag a symbol, or go to it with Tab and use the arrow keys. The wires follow.'
        ) : (
          <>
            <b>{chosen}</b>: arrow keys move it, <kbd>R</kbd> turns it, <kbd>M</kbd> mirrors it, <kbd>Delete</kbd> puts it back.
          </>
        )}
      </span>
      {chosen !== null && (
        <Button size="small" disabled={!isPlaced} onClick={() => void append((k) => remove(k, 'symbols', chosen) ?? [])}>
          Put {chosen} back
        </Button>
      )}
      <Button
        size="small"
        disabled={symbols.length === 0}
        onClick={() => void append((k) => k.sheet.symbols.flatMap((s) => remove(k, 'symbols', s.ref) ?? []))}
      >
        Put all back
      </Button>
    </div>
  );
}
