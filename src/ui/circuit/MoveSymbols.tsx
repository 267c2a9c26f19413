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

/** Symbols in the hand: those chosen together, or the one that has the focus. */
export interface InHand {
  readonly chosen: readonly string[];
  readonly focused: string | null;
}
export const NONE_IN_HAND: InHand = { chosen: [], focused: null };

/** What a key or a drag moves: all that were chosen, where it is one of them. */
const handOf = ({ chosen, focused }: InHand, ref = focused): readonly string[] => (ref === null ? chosen : chosen.includes(ref) ? chosen : [ref]);

const toggled = ({ chosen }: InHand, ref: string): InHand => ({
  focused: ref,
  chosen: chosen.includes(ref) ? chosen.filter((r) => r !== ref) : [...chosen, ref],
});

interface Props {
  readonly drawing: Drawing;
  readonly hand: InHand;
  readonly take: (hand: InHand) => void;
}

/** Every symbol as something to drag; the arrow keys move it, R turns it, M mirrors it, Delete puts it back; Space or Shift and a press take several. */
export function MoveSymbols({ drawing, hand, take }: Props) {
  const append = useBench((s) => s.append);
  const frame = useRef<HTMLDivElement>(null);
  const sensors = useSensors(useSensor(PointerSensor, { activationConstraint: { distance: 4 } }));
  const to = (refs: readonly string[], change: (place: SymbolPlace) => SymbolPlace) => {
    void append((k) => drawing.symbols.filter((s) => refs.includes(s.ref)).map((s) => put(k, 'symbols', change(placeOf(k, s)))));
  };
  const end = ({ active, delta }: DragEndEvent) => {
    const ref = String(active.id);
    const step = (frame.current?.getBoundingClientRect().width ?? 0) / stepsAcross(drawing);
    if (step === 0) return;
    const [dx, dy] = [Math.round(delta.x / step), Math.round(delta.y / step)];
    if (dx === 0 && dy === 0) return;
    to(handOf(hand, ref), (p) => ({ ...p, x: p.x + dx, y: p.y + dy }));
    take({ chosen: handOf(hand, ref), focused: ref });
  };
  const key = (ref: string) => (e: KeyboardEvent) => {
    const refs = handOf(hand, ref);
    const step = STEPS[e.key];
    const way = e.key.toLowerCase();
    if (step) to(refs, (p) => ({ ...p, x: p.x + step[0], y: p.y + step[1] }));
    else if (way === 'r') to(refs, turned);
    else if (way === 'm') to(refs, mirrored);
    else if (e.key === ' ') take(toggled(hand, ref));
    else if (e.key === 'Delete' || e.key === 'Backspace') void append((k) => refs.flatMap((r) => remove(k, 'symbols', r) ?? []));
    else return;
    e.preventDefault();
    e.stopPropagation();
  };
  return (
    <div ref={frame} className={styles.over}>
      <DndContext sensors={sensors} onDragEnd={end}>
        {drawing.symbols.map((s) => (
          <Movable
            key={s.ref}
            drawing={drawing}
            symbol={s}
            chosen={handOf(hand).includes(s.ref)}
            onKey={key(s.ref)}
            onFocus={() => {
              take({ ...hand, focused: s.ref });
            }}
            onPress={(withShift) => {
              take(withShift ? toggled(hand, s.ref) : { chosen: [s.ref], focused: s.ref });
            }}
          />
        ))}
      </DndContext>
    </div>
  );
}

interface MovableProps {
  readonly drawing: Drawing;
  readonly symbol: Drawn;
  readonly chosen: boolean;
  readonly onKey: (e: KeyboardEvent) => void;
  readonly onFocus: () => void;
  readonly onPress: (withShift: boolean) => void;
}

function Movable({ drawing, symbol, chosen, onKey, onFocus, onPress }: MovableProps) {
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
      aria-pressed={chosen}
      onKeyDown={onKey}
      onFocus={onFocus}
      onClick={(e) => {
        onPress(e.shiftKey);
      }}
    />
  );
}

/** What else can be done with the symbols in hand, and how. */
export function MoveSymbolTools({ kit, drawing, hand }: { readonly kit: KitState; readonly drawing: Drawing | null; readonly hand: InHand }) {
  const append = useBench((s) => s.append);
  const { symbols } = kit.sheet;
  const refs = handOf(hand);
  const placed = refs.filter((ref) => symbols.some((s) => s.ref === ref));
  const several = refs.length > 1;
  const lineUp = (along: 'x' | 'y') => () => {
    const own = drawing?.symbols.filter((s) => refs.includes(s.ref)) ?? [];
    const first = own.find((s) => s.ref === refs[0]);
    if (!first) return;
    void append((k) => own.map((s) => put(k, 'symbols', { ...placeOf(k, s), [along]: placeOf(k, first)[along] })));
  };
  return (
    <div className={`${zones.row} ${styles.tools}`} role="group" aria-label="Moving symbols">
      <span className="soft">
        {refs.length === 0 ? (
          'Drag a symbol, or go to it with Tab and use the arrow keys. The wires follow.'
        ) : (
          <>
            <b>{refs.join(', ')}</b>: arrow keys move {several ? 'them' : 'it'}, <kbd>R</kbd> turns, <kbd>M</kbd> mirrors, <kbd>Delete</kbd> puts back.{' '}
            <kbd>Space</kbd>, or <kbd>Shift</kbd> and a press, takes one more.
          </>
        )}
      </span>
      {several && (
        <>
          <Button size="small" onClick={lineUp('x')}>
            One column
          </Button>
          <Button size="small" onClick={lineUp('y')}>
            One row
          </Button>
        </>
      )}
      {refs.length > 0 && (
        <Button size="small" disabled={placed.length === 0} onClick={() => void append((k) => refs.flatMap((r) => remove(k, 'symbols', r) ?? []))}>
          Put {several ? 'these' : refs[0]} back
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
