'use client';
import { App, Button, Skeleton } from 'antd';
import { useRouter } from 'next/navigation';
import { lazy, Suspense, useCallback, useState } from 'react';
import { type ShelfItem, shelfDemos } from '@/store/shelfItems';
import { FileButton } from '../form/FileButton';
import { MoreDemos } from './MoreDemos';
import styles from './Shelf.module.css';
import { ShelfHead } from './ShelfHead';
import { Story } from './Story';
import { useShelf } from './useShelf';
import { WholeWindowDrop } from './WholeWindowDrop';
import { Nothing } from '../drawn/Nothing';

const Blocked = lazy(() => import('./fields').then((m) => ({ default: m.Blocked })));
const KitCard = lazy(() => import('./KitCard').then((m) => ({ default: m.KitCard })));
const FileDialog = lazy(() => import('./FileDialog').then((m) => ({ default: m.FileDialog })));
const StorageMeter = lazy(() => import('./StorageMeter').then((m) => ({ default: m.StorageMeter })));
const ShelfSearch = lazy(() => import('./fields').then((m) => ({ default: m.ShelfSearch })));

const NO_ITEMS: readonly ShelfItem[] = [];
/** More kits than this are searched. */
const SEARCH_ABOVE = 10;

/** The first screen: kits on the shelf, a demo, a new kit, a file. */
export function Shelf() {
  const router = useRouter();
  const { message } = App.useApp();
  const shelf = useShelf(
    useCallback(
      (path: string) => {
        router.push(path);
      },
      [router],
    ),
    message,
  );
  const [search, setSearch] = useState('');
  const { items, blocked } = shelf;
  const wanted = search.trim().toLowerCase();
  const fitting = items?.filter((i) => `${i.title} ${i.maker}`.toLowerCase().includes(wanted)) ?? [];
  const shown = fitting.filter((i) => !i.archived);
  const archived = fitting.filter((i) => i.archived);
  return (
    <main className={styles.page}>
      <WholeWindowDrop take={shelf.takeFile} />
      <ShelfHead />
      <p className={styles.lead}>
        From a bag of loose parts to a working board, or to the one part that is wrong. It knows what every part and test point should measure and answers each
        reading with a verdict and the next step.
      </p>
      {blocked !== null && (
        <Suspense>
          <Blocked why={blocked} />
        </Suspense>
      )}
      <div className={styles.doors}>
        <Button
          type="primary"
          size="large"
          onClick={() => {
            shelf.demo(shelfDemos[0].slug);
          }}
        >
          Try the demo: {shelfDemos[0].title}
        </Button>
        <Button
          size="large"
          onClick={() => {
            router.push('/new/');
          }}
        >
          New kit
        </Button>
        <FileButton text="Open a kit file" accept=".json,application/json" take={shelf.takeFile} />
      </div>
      <section aria-label="Kits">
        <h2 className={styles.label}>On the shelf</h2>
        {items === null && <Skeleton active paragraph={{ rows: 3 }} />}
        {items?.length === 0 && (
          <Nothing say="The shelf is empty. Start with the demo: a simulated meter measures a board with a hidden fault, so you need no hardware." />
        )}
        {(items?.length ?? 0) > SEARCH_ABOVE && (
          <Suspense>
            <ShelfSearch search={search} setSearch={setSearch} />
          </Suspense>
        )}
        <Suspense fallback={<Skeleton active paragraph={{ rows: 3 }} />}>
          <div className={styles.kits}>
            {shown.map((item) => (
              <KitCard key={item.id} item={item} shelf={shelf} />
            ))}
          </div>
          {archived.length > 0 && (
            <>
              <h2 className={styles.label}>Archived</h2>
              <div className={styles.kits}>
                {archived.map((item) => (
                  <KitCard key={item.id} item={item} shelf={shelf} />
                ))}
              </div>
            </>
          )}
        </Suspense>
      </section>
      <MoreDemos open={shelf.demo} />
      <Story />
      <Suspense>
        <StorageMeter backup={shelf.backup} items={items ?? NO_ITEMS} />
        {shelf.preview && <FileDialog preview={shelf.preview} close={shelf.closePreview} take={shelf.takeDocument} takeShelf={shelf.takeShelf} />}
      </Suspense>
    </main>
  );
}
