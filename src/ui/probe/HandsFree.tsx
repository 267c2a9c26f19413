import { useEffect, useRef } from 'react';
import type { LastVerdict, TargetCard } from '@/core/loop';
import type { Verdict } from '@/core/verdict';
import { useWakeLock } from '../shell/useWakeLock';
import { useComfort } from '../theme/comfort';
import styles from './ProbeBar.module.css';

interface Props {
  readonly last: LastVerdict | null;
  readonly card: TargetCard | null;
}

/** For hands that hold probes: verdict and next target spoken or as a tone, the screen kept on, figures for two metres. */
export function HandsFree({ last, card }: Props) {
  const { speak, tones, awake, far } = useComfort();
  useWakeLock(awake);
  const said = useRef(last);
  useEffect(() => {
    if (last === null || last === said.current) return;
    said.current = last;
    if (tones) tone(last.verdict);
    if (speak) say([last.title, card ? `Next: ${card.title} ${card.rest}` : ''].filter(Boolean).join('. '));
  }, [last, card, speak, tones]);
  if (!far) return null;
  return (
    <div className={styles.far} role="status" aria-label="Seen from afar">
      {last && <b className={`v-${last.verdict}`}>{last.title}</b>}
      {card && <span>{`${card.title} ${card.rest}`}</span>}
    </div>
  );
}

function say(text: string): void {
  if (!('speechSynthesis' in window)) return;
  window.speechSynthesis.cancel();
  const words = new SpeechSynthesisUtterance(text);
  words.lang = 'en';
  window.speechSynthesis.speak(words);
}

/** Hertz and seconds: high and short is good, low and long is not (own choice). */
const TONES: Readonly<Record<Verdict, readonly [number, number]>> = { in: [880, 0.12], doubtful: [440, 0.25], out: [220, 0.6], none: [660, 0.06] };
const LOUDNESS = 0.15;

function tone(verdict: Verdict): void {
  const context = new AudioContext();
  const [hertz, seconds] = TONES[verdict];
  const source = context.createOscillator();
  const volume = context.createGain();
  volume.gain.value = LOUDNESS;
  source.frequency.value = hertz;
  source.connect(volume).connect(context.destination);
  source.onended = () => {
    void context.close();
  };
  source.start();
  source.stop(context.currentTime + seconds);
}
