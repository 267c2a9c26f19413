import { Button } from 'antd';
import { useVirtualizer, type Virtualizer } from '@tanstack/react-virtual';
import { type KeyboardEvent, lazy, Suspense, useCallback, useDeferredValue, useEffect, useMemo, useRef, useState } from 'react';
import { type Compartment, deriveStrangers, type KitState, type Line } from '@/core/kit';
import { lineTitle, type Phase } from '@/core/loop';
import { print } from '@/core/quantity';
import { LOOSE_FACTS, unitOf } from '@/core/vocabulary';
import type { Loop } from '../probe/useLoop';
import { ForeignFace } from '../theme/ForeignFace';
import { Apart } from './Cell';
import { isShort, type Row, trayRows, type Choice } from './rows';
import styles from './Tray.module.css';
import { TrayRow } from './TrayRow';
import { useRoom } from './useRoom';
import { Nothing } from '../drawn/Nothing';

const TrayTools = lazy(() => import('./TrayTools').then((m) => ({ default: m.TrayTools })));

interface Props {
  readonly kit: KitState;
  readonly tray: readonly Compartment[];
  readonly phase: 'unpack' | 'check';
  readonly loop: Loop;
  readonly go: (phase: Phase) => void;
}

/** More lines than this are drawn only where they are in sight. */
const ALL_DRAWN = 60;
const OVERSCAN = 3;

/** The sorting tray: a compartment a line, filling up as pieces are counted and measured. */
export function Tray({ kit, tray, phase, loop, go }: Props) {
  // The compartments first: choosing among them comes a moment later, in the room that is kept for it.
  const painted = useDeferredValue(true, false);
  const [choice, setChoice] = useState<Choice>({ filter: 'all', search: '', byKind: false });
  const scroller = useRef<HTMLDivElement>(null);
  const room = useRoom(scroller);
  const rows = useMemo(() => trayRows(tray, phase, choice, room.columns), [tray, phase, choice, room.columns]);
  const target = loop.target;
  const inHand = target && 'line' in target ? target.line.id : null;
  const choose = useChoose(loop);
  // eslint-disable-next-line react-hooks/incompatible-library -- the package keeps its own state; nothing of it is memoised here
  const virtual = useVirtualizer({
    count: rows.length,
    getScrollElement: () => scroller.current,
    estimateSize: (i) => ('heading' in rows[i]! ? room.heading : room.row),
    overscan: tray.length > ALL_DRAWN ? OVERSCAN : rows.length,
  });
  const headings = rows.reduce((n, r) => n + ('heading' in r ? 1 : 0), 0);
  useEffect(() => {
    virtual.measure();
  }, [virtual, room.row, rows.length, headings]);
  const at = rows.findIndex((r) => 'cells' in r && r.cells.some((c) => c.line.id === inHand));
  useEffect(() => {
    if (at >= 0 && !inSight(virtual, at)) virtual.scrollToIndex(at, { align: 'auto' });
  }, [virtual, at, inHand]);
  const tabbed = at >= 0 ? inHand : (rows.find((r) => 'cells' in r)?.cells[0]?.line.id ?? null);

  if (tray.length === 0)
    return (
      <section className={styles.tray} aria-label="Tray">
        <Nothing say="This kit has no parts list yet.">
          <Button
            type="primary"
            onClick={() => {
              go('sheet');
            }}
          >
            Add lines in the Sheet
          </Button>
        </Nothing>
      </section>
    );
  return (
    <section className={styles.tray} aria-label="Tray" data-tour="tray">
      <ForeignFace text={tray.map((c) => c.line.label).join('')} />
      <div className={styles.tools}>
        <Suspense>
          {painted && (
            <TrayTools choice={choice} setChoice={setChoice} shown={rows.reduce((n, r) => n + ('cells' in r ? r.cells.length : 0), 0)} all={tray.length} />
          )}
        </Suspense>
      </div>
      <div ref={scroller} className={styles.scroller} onKeyDown={moveFocus(room.columns, rows, choose)}>
        <div className={styles.rows} style={{ height: virtual.getTotalSize() }}>
          {virtual.getVirtualItems().map((item) => (
            <TrayRow
              key={item.key}
              row={rows[item.index]!}
              start={item.start}
              columns={room.columns}
              phase={phase}
              inHand={inHand}
              tabbed={tabbed}
              choose={choose}
            />
          ))}
        </div>
        {rows.length === 0 && <p className={styles.none}>No line fits this choice. Clear the search or show all.</p>}
        <div className={styles.row} style={{ gridTemplateColumns: `repeat(${room.columns}, minmax(0, 1fr))` }}>
          <Apart
            title="Missing"
            note="look for a second packet"
            names={tray.filter(isShort).map((c) => `${c.line.quantity - c.counted!} × ${lineTitle(c.line)}`)}
          />
          <Apart title="Strangers" note="belong to no line" names={strangersOf(kit)} />
        </div>
      </div>
    </section>
  );
}

/** Whether a row is wholly to be seen; told from what is known, for looking it up would lay the page out anew. */
function inSight(virtual: Virtualizer<HTMLDivElement, Element>, row: number): boolean {
  const item = virtual.measurementsCache[row];
  const from = virtual.scrollOffset ?? 0;
  return item !== undefined && item.start >= from && item.end <= from + (virtual.scrollRect?.height ?? 0);
}

const strangersOf = (kit: KitState) =>
  deriveStrangers(kit).map(({ entry: e }) =>
    typeof e.reading === 'number' ? print(e.reading, unitOf(LOOSE_FACTS[e.part].mode), 3) : String(e.marking ?? 'over-range'),
  );

/** The same function for every drawing: of a large tray only what changed is drawn anew. */
function useChoose(loop: Loop): (line: Line) => void {
  const current = useRef(loop);
  useEffect(() => {
    current.current = loop;
  });
  return useCallback((line: Line) => {
    const states = current.current.states.filter((s) => 'line' in s.target && s.target.line.id === line.id);
    const first = states.find((s) => !s.done) ?? states[0];
    if (first) current.current.choose(first.target.id);
  }, []);
}

/** Arrows go from compartment to compartment; the one that is reached is taken into the hand. */
const moveFocus = (columns: number, rows: readonly Row[], choose: (line: Line) => void) => (e: KeyboardEvent<HTMLElement>) => {
  const step = { ArrowRight: 1, ArrowLeft: -1, ArrowDown: columns, ArrowUp: -columns }[e.key];
  const here = (e.target as HTMLElement).closest<HTMLElement>('[data-line]')?.dataset['line'];
  if (step === undefined || here === undefined) return;
  e.preventDefault();
  e.stopPropagation();
  const cells = rows.flatMap((r) => ('cells' in r ? r.cells : []));
  const next = cells[cells.findIndex((c) => c.line.id === here) + step];
  if (!next) return;
  choose(next.line);
  const frame = e.currentTarget;
  // The entry field takes the focus of a new target; it comes back to the compartment for the next arrow.
  setTimeout(() => frame.querySelector<HTMLElement>(`[data-line="${CSS.escape(next.line.id)}"]`)?.focus(), 0);
};
