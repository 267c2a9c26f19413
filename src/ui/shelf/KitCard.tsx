import { MoreOutlined } from '@ant-design/icons';
import { Button, Dropdown, Flex } from 'antd';
import { lazy, Suspense, useState } from 'react';
import type { ShelfItem } from '@/store/shelfItems';
import { titleOf } from '../shell/commands';
import styles from './Shelf.module.css';
import type { ShelfActs } from './useShelf';

/** Fields are fetched when one is needed: the shelf opens with little. */
const Rename = lazy(() => import('./fields').then((m) => ({ default: m.Rename })));

/** A kit on the shelf: where one was, and the way back in. */
export function KitCard({ item, shelf }: { item: ShelfItem; shelf: ShelfActs }) {
  const [renaming, setRenaming] = useState(false);
  const whole = item.damaged === null;
  return (
    <article className={styles.kit} aria-label={item.title}>
      <Flex justify="space-between" align="start">
        {renaming ? (
          <Suspense fallback={<h3 className={styles.title}>{item.title}</h3>}>
            <Rename
              title={item.title}
              done={(title) => {
                setRenaming(false);
                if (title !== null && title.trim() !== '' && title !== item.title) shelf.rename(item.id, title);
              }}
            />
          </Suspense>
        ) : (
          <h3 className={styles.title}>{item.title}</h3>
        )}
        <Dropdown
          trigger={['click']}
          menu={{
            items: [
              ...(whole
                ? [
                    {
                      key: 'rename',
                      label: 'Rename',
                      onClick: () => {
                        setRenaming(true);
                      },
                    },
                    {
                      key: 'another',
                      label: 'Another one of the same kit (sheet only)',
                      onClick: () => {
                        shelf.duplicate(item.id, false);
                      },
                    },
                    {
                      key: 'others',
                      label: 'Export for others (nothing of your log)',
                      onClick: () => {
                        shelf.exportForOthers(item);
                      },
                    },
                    {
                      key: 'copy',
                      label: 'Copy with its whole log',
                      onClick: () => {
                        shelf.duplicate(item.id, true);
                      },
                    },
                    {
                      key: 'archive',
                      label: item.archived ? 'Out of the archive' : 'Archive',
                      onClick: () => {
                        shelf.archive(item);
                      },
                    },
                  ]
                : []),
              {
                key: 'remove',
                danger: true,
                label: 'Take off the shelf',
                onClick: () => {
                  shelf.remove(item);
                },
              },
            ],
          }}
        >
          <Button type="text" size="small" icon={<MoreOutlined />} aria-label={`More about ${item.title}`} />
        </Dropdown>
      </Flex>
      <Where item={item} />
      <Flex gap="small" className={styles.acts ?? ''}>
        {whole && (
          <Button
            onClick={() => {
              shelf.open(item.id);
            }}
          >
            Open
          </Button>
        )}
        <Button
          type="text"
          onClick={() => {
            shelf.exportKit(item);
          }}
        >
          {whole ? 'Export' : 'Save what is there'}
        </Button>
      </Flex>
    </article>
  );
}

function Where({ item }: { item: ShelfItem }) {
  if (item.damaged !== null) return <p className="v-out">{item.damaged}</p>;
  const { standing } = item;
  return (
    <>
      <p className="soft">{item.maker || 'own kit'}</p>
      {standing?.last && <p className={styles.line}>Last: {standing.last}</p>}
      {standing && (
        <p className={styles.line}>
          Next: <b>{titleOf(standing.phase)}</b>, {standing.next}
        </p>
      )}
      {standing?.waiting && <p className={styles.line}>Waiting: {standing.waiting}</p>}
      <p className="soft">
        {item.entries} entries, last {item.lastAt.slice(0, 10)}
      </p>
    </>
  );
}
