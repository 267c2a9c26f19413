import { BgColorsOutlined } from '@ant-design/icons';
import { Button } from 'antd';
import { setComfort, useDim } from '../theme/comfort';
import styles from './Shelf.module.css';

/** The name of the thing, drawn: a probe's tip on a pad. */
export function ShelfHead() {
  const dim = useDim();
  return (
    <header className={styles.head}>
      <h1>
        <svg viewBox="0 0 40 40" className={styles.sign ?? ''} aria-hidden="true">
          <circle cx="14" cy="27" r="10" fill="var(--board)" />
          <circle cx="14" cy="27" r="5.500" fill="var(--copper)" />
          <path d="M14 27l5-12 6 6z" fill="var(--ink)" />
          <path d="M22 18l13-14" stroke="var(--zest)" strokeWidth="7" strokeLinecap="round" />
        </svg>
        Zesty Bench
      </h1>
      <Button
        type="text"
        icon={<BgColorsOutlined />}
        onClick={() => {
          setComfort({ theme: dim ? 'light' : 'dim' });
        }}
      >
        {dim ? 'Light' : 'Dim'}
      </Button>
    </header>
  );
}
