import { Button } from 'antd';
import dynamic from 'next/dynamic';
import { type ReactNode, useState } from 'react';
import { useBench } from '@/store/bench';
import styles from './LoadDesk.module.css';
import type { Drawn, Said } from './sum';

const Chart = dynamic(() => import('../drawn/Chart').then((m) => m.Chart), { ssr: false });

interface Props {
  readonly title: string;
  readonly said: readonly Said[];
  readonly drawn: Drawn | undefined;
  /** What the answer is held against. */
  readonly children?: ReactNode;
}

/** What came out: said, drawn, and saved to the logbook if that is wanted. */
export function Answered({ title, said, drawn, children }: Props) {
  const append = useBench((s) => s.append);
  const [kept, setKept] = useState(false);
  return (
    <section aria-label={`${title}: the answer`} className={styles.answer}>
      {said.map((s) => (
        <p key={s.text} className={s.tone === 'plain' ? '' : `v-${s.tone}`}>
          {s.text}
        </p>
      ))}
      {drawn && <Chart {...drawn} />}
      <Button
        size="small"
        disabled={kept}
        onClick={() => {
          void append({ kind: 'noted', text: `${title}: ${said.map((s) => s.text).join(' ')}` }).then(() => {
            setKept(true);
          });
        }}
      >
        {kept ? 'Saved in the logbook' : 'Save to the logbook'}
      </Button>
      {children}
    </section>
  );
}
