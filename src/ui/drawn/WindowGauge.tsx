import type { Verdict } from '@/core/verdict';

interface Props {
  readonly low: number;
  readonly high: number;
  readonly middle: number | null;
  readonly reading: number | null;
  /** Half-width of the meter's error at the reading. */
  readonly uncertainty: number;
  readonly verdict: Verdict;
  /** Said to screen readers in place of the drawing. */
  readonly text: string;
}

const WIDTH = 280;
const HEIGHT = 58;
const EDGE = 8;

/** The expected window, the reading and its uncertainty on one small scale: the same drawing everywhere. */
export function WindowGauge({ low, high, middle, reading, uncertainty, verdict, text }: Props) {
  const span = Math.max(high - low, Math.abs(high) * 1e-6, 1e-15);
  const ends = [low, high, ...(reading === null ? [] : [reading])];
  const from = Math.min(...ends) - 0.5 * span;
  const to = Math.max(...ends) + 0.5 * span;
  const x = (v: number) => EDGE + ((v - from) / (to - from)) * (WIDTH - 2 * EDGE);
  return (
    <svg width="100%" height={HEIGHT} viewBox={`0 0 ${WIDTH} ${HEIGHT}`} role="img" aria-label={text} preserveAspectRatio="xMinYMid meet">
      <rect x={x(low)} y="22" width={Math.max(2, x(high) - x(low))} height="22" rx="4" fill="var(--in-wash)" stroke="var(--in)" strokeWidth="1.5" />
      {middle !== null && <path d={`M${x(middle)} 22v22`} stroke="var(--in)" strokeDasharray="2 3" />}
      <path d={`M${EDGE} 44h${WIDTH - 2 * EDGE}`} stroke="var(--soft)" />
      {Array.from({ length: 11 }, (_, i) => (
        <path key={i} d={`M${EDGE + (i * (WIDTH - 2 * EDGE)) / 10} 44v${i % 5 ? 4 : 8}`} stroke="var(--soft)" />
      ))}
      {reading !== null && (
        <g className={`v-${verdict}`}>
          <rect
            x={x(reading - uncertainty)}
            y="26"
            width={Math.max(4, x(reading + uncertainty) - x(reading - uncertainty))}
            height="14"
            rx="7"
            fill="currentColor"
          />
          <path d={`M${x(reading) - 6} 6h12l-6 14z`} fill="currentColor" />
        </g>
      )}
    </svg>
  );
}
