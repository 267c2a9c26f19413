import { Button, Drawer } from 'antd';
import { useMemo, useState } from 'react';
import { doubtfulLines } from '@/core/genuine';
import type { KitState } from '@/core/kit';
import { lineTitle } from '@/core/loop';
import { Choose } from '../form/Choose';
import { Genuine } from './Genuine';
import styles from './Genuine.module.css';

/** Parts that look doubtful: which one, and what was found on it. */
export function Doubtful({ kit, close }: { kit: KitState; close: () => void }) {
  const doubtful = useMemo(() => doubtfulLines(kit), [kit]);
  const [opened, setOpened] = useState<string | null>(null);
  const line = kit.sheet.lines.find((l) => l.id === opened);
  return (
    <Drawer open size="large" title="Genuine or not?" onClose={close}>
      <Choose<string | null>
        aria-label="Part that looks doubtful"
        placeholder="Which part looks doubtful?"
        className={styles.choice ?? ''}
        value={opened}
        options={kit.sheet.lines.map((l) => ({ value: l.id, label: `${lineTitle(l)} ${l.refs.slice(0, 4).join(' ')}` }))}
        onChange={setOpened}
      />
      {!line && doubtful.length === 0 && (
        <p className="soft">Chips, transistors and large electrolytics are copied most. Choose one: it says what to look for, and what each sign is worth.</p>
      )}
      {!line &&
        doubtful.map((d) => (
          <p key={d.line.id}>
            <Button
              type="link"
              size="small"
              onClick={() => {
                setOpened(d.line.id);
              }}
            >
              {lineTitle(d.line)}
            </Button>{' '}
            <span className="num">{Math.round(100 * d.fake)} %</span> a copy
          </p>
        ))}
      {line && <Genuine key={line.id} kit={kit} line={line} />}
    </Drawer>
  );
}
