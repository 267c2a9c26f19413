import { Button } from 'antd';
import { shelfDemos } from '@/store/shelfItems';
import styles from './Shelf.module.css';

/** Boards of other kinds to try one's hand on. */
export function MoreDemos({ open }: { open: (slug: string) => void }) {
  return (
    <section aria-label="More demos">
      <h2 className={styles.label}>More demos, each with a simulated meter and a hidden fault</h2>
      <div className={styles.demos}>
        {shelfDemos.slice(1).map((d) => (
          <div key={d.slug} className={styles.demo}>
            <b>{d.title}</b>
            <span className="soft">{d.about}</span>
            <Button
              onClick={() => {
                open(d.slug);
              }}
            >
              Open {d.title}
            </Button>
          </div>
        ))}
      </div>
    </section>
  );
}
