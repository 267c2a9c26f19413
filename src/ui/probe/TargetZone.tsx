import { memo } from 'react';
import type { TargetCard } from '@/core/loop';
import styles from './ProbeBar.module.css';

/** What is in the hand or under the probes, what to set, where red and black go. */
export const TargetZone = memo(function TargetZone({ card }: { card: TargetCard }) {
  return (
    <>
      <h3 className={styles.title}>
        {card.title} <span>{card.rest}</span>
      </h3>
      <p className={styles.setting}>{card.setting}</p>
      {card.red !== null && (
        <p className={styles.probes}>
          <Tip colour="red" />
          {card.red}
          <br />
          <Tip colour="black" />
          {card.black}
        </p>
      )}
      {card.note !== null && <p className={styles.note}>{card.note}</p>}
    </>
  );
});

/** The tip of a probe: the icon set has none. */
const Tip = ({ colour }: { colour: 'red' | 'black' }) => (
  <svg className={styles.tip ?? ''} viewBox="0 0 16 16" role="img" aria-label={`${colour} probe:`}>
    <path d="M1 15l5-9 4 4-9 5z" fill={`var(--${colour}-probe)`} />
    <path d="M7.5 8.500l5.500-6" stroke={`var(--${colour}-probe)`} strokeWidth="4" strokeLinecap="round" />
  </svg>
);
