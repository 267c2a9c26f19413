import { Button } from 'antd';
import type { TryItem } from '@/core/logic';
import styles from './Functions.module.css';

interface Props {
  readonly item: TryItem;
  readonly saw: string | number;
  /** Its key; null beyond nine. */
  readonly number: number | null;
  readonly turn: () => void;
  readonly set: (value: string) => void;
}

/** A lamp, a sounder or a digit as it is seen; pressed, it shows the next state. */
export function Indicator({ item, saw, number, turn, set }: Props) {
  const differs = saw !== item.expected;
  if (item.what === 'digit') return <Digit item={item} saw={String(saw)} differs={differs} set={set} />;
  const word =
    item.what === 'blink' ? (saw === 'no' ? 'does not blink' : saw === 'normal' ? 'blinks' : `blinks ${saw === 'slow' ? 'slowly' : 'fast'}`) : String(saw);
  return (
    <Button className={`${styles.indicator ?? ''} ${differs ? (styles.differs ?? '') : ''}`} aria-label={`${item.of} ${word}`} onClick={turn}>
      <svg viewBox="0 0 40 40" width="40" height="40" aria-hidden="true">
        <Glow what={item.what} saw={String(saw)} />
      </svg>
      <b>{item.of}</b>
      <small>{word}</small>
      {number !== null && <kbd>{number}</kbd>}
    </Button>
  );
}

function Glow({ what, saw }: { what: TryItem['what']; saw: string }) {
  const on = saw !== 'dark' && saw !== 'off' && saw !== 'no';
  if (what === 'sound')
    return (
      <>
        <path d="M8 16h6l8-7v22l-8-7H8z" fill="currentColor" />
        {on && <path d="M26 14q5 6 0 12M30 10q9 10 0 20" fill="none" stroke="currentColor" strokeWidth="2.4" />}
      </>
    );
  return (
    <>
      <circle cx="20" cy="20" r="10" className={saw === 'dim' ? styles.dim : on ? styles.lit : styles.dark} />
      {on && saw !== 'dim' && (
        <path d="M20 3v5M20 32v5M3 20h5M32 20h5M8 8l3.500 3.500M28.500 28.500l3.500 3.500M32 8l-3.500 3.500M8 32l3.500-3.500" className={styles.rays} />
      )}
    </>
  );
}

/** Segments of a digit, each one end to end. */
const SEGMENT: Readonly<Record<string, string>> = {
  a: 'M12 6h20',
  b: 'M34 8v20',
  c: 'M34 32v20',
  d: 'M12 54h20',
  e: 'M10 32v20',
  f: 'M10 8v20',
  g: 'M12 30h20',
};

function Digit({ item, saw, differs, set }: { item: TryItem; saw: string; differs: boolean; set: (value: string) => void }) {
  const toggle = (segment: string) => {
    set(saw.includes(segment) ? saw.replace(segment, '') : Array.from(`${saw}${segment}`).sort().join(''));
  };
  return (
    <div className={`${styles.digit} ${differs ? styles.differs : ''}`}>
      <svg viewBox="0 0 44 60" width="66" height="90" role="img" aria-label={`${item.of} shows ${saw === '' ? 'nothing' : `segments ${saw}`}`}>
        {Object.entries(SEGMENT).map(([segment, d]) => (
          <path key={segment} d={d} className={saw.includes(segment) ? styles.segmentOn : styles.segmentOff} />
        ))}
      </svg>
      <b>{item.of}</b>
      <span>
        {Object.keys(SEGMENT).map((segment) => (
          <Button
            key={segment}
            size="small"
            type={saw.includes(segment) ? 'primary' : 'default'}
            aria-pressed={saw.includes(segment)}
            aria-label={`${item.of} segment ${segment}`}
            onClick={() => {
              toggle(segment);
            }}
          >
            {segment}
          </Button>
        ))}
      </span>
    </div>
  );
}
