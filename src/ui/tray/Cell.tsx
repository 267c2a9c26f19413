import { Button } from 'antd';
import { memo } from 'react';
import { type Compartment, expectationOf, type Line } from '@/core/kit';
import { lineTitle, sellerWords } from '@/core/loop';
import { print, printWindow } from '@/core/quantity';
import type { Verdict } from '@/core/verdict';
import { PartBody } from '../drawn/Body';
import { VerdictMark } from '../drawn/VerdictMark';
import { isShort } from './rows';
import styles from './Tray.module.css';

interface CellProps {
  readonly c: Compartment;
  readonly phase: 'unpack' | 'check';
  readonly now: boolean;
  /** The one that the Tab key reaches; arrows go on from there. */
  readonly tab: boolean;
  readonly choose: (line: Line) => void;
}

/** One compartment: the line in our words, its positions, the part as drawn, what was found. */
export const Cell = memo(function Cell({ c, phase, now, tab, choose }: CellProps) {
  const short = isShort(c);
  const verdict: Verdict = phase === 'unpack' ? (c.counted === null ? 'none' : short ? 'out' : 'in') : c.verdict === 'none' && short ? 'out' : c.verdict;
  const tone = verdict === 'out' || verdict === 'doubtful' ? styles[verdict] : '';
  const said = sellerWords(c.line);
  const refs = c.line.refs.join(' ');
  return (
    <Button
      type="text"
      className={[styles.cell, tone, now ? styles.now : '', c.counted === 0 ? styles.empty : ''].join(' ')}
      aria-current={now ? 'true' : undefined}
      tabIndex={tab ? 0 : -1}
      data-line={c.line.id}
      onClick={() => {
        choose(c.line);
      }}
    >
      <span className={styles.top}>
        <b>{lineTitle(c.line)}</b>
        <small className="num">
          {c.counted ?? '–'}/{c.line.quantity}
        </small>
      </span>
      <small className="num">{refs || (said ?? 'no place on the board')}</small>
      {said !== null && refs !== '' && (
        <small className={styles.said} title={said}>
          {said}
        </small>
      )}
      <span className={styles.body}>
        <PartBody line={c.line} />
      </span>
      <span className={styles.foot}>
        <VerdictMark verdict={verdict} size={15} />
        <span className="num">{footText(c, phase)}</span>
      </span>
    </Button>
  );
});

function footText(c: Compartment, phase: 'unpack' | 'check'): string {
  if (phase === 'unpack' || !expectationOf(c.line)) {
    if (c.counted === null) return phase === 'unpack' ? 'not counted' : 'count only';
    const off = c.counted - c.line.quantity;
    return off === 0 ? 'all here' : off < 0 ? `${-off} missing` : `${off} spare`;
  }
  const unit = expectationOf(c.line)!.unit;
  const values = c.pieces.flatMap((p) => (p.reckoning ? [p.reckoning.corrected] : []));
  if (values.length === 0) return c.pieces.some((p) => p.entry) ? 'over-range' : c.counted === 0 ? 'none here' : 'not measured';
  const [least, most] = [Math.min(...values), Math.max(...values)];
  const shown = print(least, unit, 3) === print(most, unit, 3) ? print(least, unit, 3) : printWindow(least, most, unit, 3);
  return values.length < c.pieces.length ? `${shown.replace(' – ', '–')} ${values.length}/${c.pieces.length}` : shown;
}

/** A compartment for what has no place of its own: what is short, what belongs to no line. */
export function Apart({ title, note, names }: { title: string; note: string; names: readonly string[] }) {
  if (names.length === 0) return null;
  return (
    <div className={`${styles.cell} ${styles.out}`} role="group" aria-label={title}>
      <span className={styles.top}>
        <b>{title}</b>
        <small className="num">{names.length}</small>
      </span>
      <small>{note}</small>
      <span className={styles.body}>{names.slice(0, 3).join(', ')}</span>
      <span className={styles.foot}>
        <VerdictMark verdict="out" size={15} />
        <span>{names.length > 3 ? `and ${names.length - 3} more` : 'kept apart'}</span>
      </span>
    </div>
  );
}
