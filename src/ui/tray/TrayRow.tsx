import type { Line } from '@/core/kit';
import { Cell } from './Cell';
import type { Row } from './rows';
import styles from './Tray.module.css';

interface RowProps {
  readonly row: Row;
  readonly start: number;
  readonly columns: number;
  readonly phase: 'unpack' | 'check';
  readonly inHand: string | null;
  readonly tabbed: string | null;
  readonly choose: (line: Line) => void;
}

/** A row of compartments, or the heading of a kind, at its place in the tray. */
export function TrayRow({ row, start, columns, phase, inHand, tabbed, choose }: RowProps) {
  if ('heading' in row)
    return (
      <h3 className={styles.heading} style={{ transform: `translateY(${start}px)` }}>
        {row.heading} <small className="num">{row.count}</small>
      </h3>
    );
  return (
    <div className={styles.placed} style={{ transform: `translateY(${start}px)`, gridTemplateColumns: `repeat(${columns}, minmax(0, 1fr))` }}>
      {row.cells.map((c) => (
        <Cell key={c.line.id} c={c} phase={phase} now={c.line.id === inHand} tab={c.line.id === tabbed} choose={choose} />
      ))}
    </div>
  );
}
