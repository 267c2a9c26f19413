import { Button, Flex } from 'antd';
import { lazy, Suspense, useState } from 'react';
import type { KitState } from '@/core/kit';
import { mayComplain } from '@/core/report';
import styles from './Papers.module.css';

const Labels = lazy(() => import('./Sheets').then((m) => ({ default: m.Labels })));
const Letter = lazy(() => import('./Sheets').then((m) => ({ default: m.Letter })));
const Doubtful = lazy(() => import('./Doubtful').then((m) => ({ default: m.Doubtful })));

/** What goes out of the tray: packet labels, a letter about what is short, wrong or a copy, and the way to find out what is a copy. */
export function Papers({ kit }: { kit: KitState }) {
  const [open, setOpen] = useState<'labels' | 'letter' | 'doubtful' | null>(null);
  const close = () => {
    setOpen(null);
  };
  if (kit.sheet.lines.length === 0) return null;
  return (
    <Flex gap="small" wrap className={styles.papers ?? ''}>
      <Button
        onClick={() => {
          setOpen('labels');
        }}
      >
        Packet labels
      </Button>
      {mayComplain(kit) && (
        <Button
          onClick={() => {
            setOpen('letter');
          }}
        >
          Write to the seller
        </Button>
      )}
      <Button
        onClick={() => {
          setOpen('doubtful');
        }}
      >
        Genuine or not?
      </Button>
      <Suspense>
        {open === 'labels' && <Labels kit={kit} close={close} />}
        {open === 'letter' && <Letter kit={kit} close={close} />}
        {open === 'doubtful' && <Doubtful kit={kit} close={close} />}
      </Suspense>
    </Flex>
  );
}
