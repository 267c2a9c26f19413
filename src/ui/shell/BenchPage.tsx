'use client';
import { Button, Skeleton } from 'antd';
import { useRouter, useSearchParams } from 'next/navigation';
import { useEffect } from 'react';
import { useShallow } from 'zustand/react/shallow';
import { useBench } from '@/store/bench';
import { Nothing } from '../drawn/Nothing';
import { Bench } from './Bench';
import styles from './Bench.module.css';

/** Opens the kit named in the address and shows its bench. */
export function BenchPage() {
  const id = useSearchParams().get('kit');
  const router = useRouter();
  const { status, kit, alarm, open } = useBench(useShallow(({ status: s, kit: k, alarm: a, open: o }) => ({ status: s, kit: k, alarm: a, open: o })));
  useEffect(() => {
    if (id) void open(id);
    return () => {
      useBench.getState().settle();
    };
  }, [id, open]);
  if (id === null || status === 'missing')
    return (
      <main className={styles.waiting}>
        <Nothing say={alarm ?? 'It may have been cleared, or it lives in another browser.'}>
          <h1 className={styles.missing}>This kit is not on the shelf</h1>
          <Button
            type="primary"
            onClick={() => {
              router.push('/');
            }}
          >
            To the shelf
          </Button>
        </Nothing>
      </main>
    );
  return kit ? <Bench kit={kit} /> : <BenchShell />;
}

/** The frame while the kit is on its way: everything stands where it will stand. */
export function BenchShell() {
  return (
    <div className={styles.bench} aria-busy="true">
      <header className={styles.header}>
        <span className={styles.kitName}>
          Opening the kit…<small>one moment</small>
        </span>
      </header>
      <main className={styles.view}>
        <div className={styles.waiting}>
          <Skeleton active paragraph={{ rows: 8 }} />
        </div>
      </main>
      <div className={styles.probePlace} />
    </div>
  );
}
