import { type Verdict, VERDICT_WORDS } from '@/core/verdict';
import styles from './VerdictMark.module.css';

/** in: filled disc with a tick; doubtful: half-filled lozenge; out: filled square with a bar; none: dashed ring. Readable without colour. */
export function VerdictMark({ verdict, size = 18 }: { verdict: Verdict; size?: number }) {
  return (
    <svg className={`${styles.mark} v-${verdict}`} width={size} height={size} viewBox="0 0 20 20" role="img" aria-label={VERDICT_WORDS[verdict]}>
      <MarkShape verdict={verdict} />
    </svg>
  );
}

/** The bare shape, 20 × 20, for use inside other drawings. */
export function MarkShape({ verdict }: { verdict: Verdict }) {
  const cut = { fill: 'none', stroke: 'var(--sheet)' };
  switch (verdict) {
    case 'in':
      return (
        <>
          <circle cx="10" cy="10" r="9" fill="currentColor" />
          <path d="M5.5 10.5l3 3 6-7" {...cut} strokeWidth="2.4" />
        </>
      );
    case 'doubtful':
      return (
        <>
          <path d="M10 1l9 9-9 9-9-9z" fill="none" stroke="currentColor" strokeWidth="2.2" />
          <path d="M10 1v18l-9-9z" fill="currentColor" />
        </>
      );
    case 'out':
      return (
        <>
          <rect x="1.5" y="1.5" width="17" height="17" rx="2" fill="currentColor" />
          <path d="M5 10h10" {...cut} strokeWidth="3" />
        </>
      );
    case 'none':
      return <circle cx="10" cy="10" r="8" fill="none" stroke="currentColor" strokeWidth="2" strokeDasharray="3 3" />;
  }
}
