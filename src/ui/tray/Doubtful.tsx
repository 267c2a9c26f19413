import { Button, Drawer } from 'antd';
import { useMemo, useState } from 'react';
import { doubtfulLines, wholeKit } from '@/core/genuine';
import type { KitState } from '@/core/kit';
import { lineTitle } from '@/core/loop';
import { Choose } from '../form/Choose';
import { Genuine } from './Genuine';
import zones from '../shell/zones.module.css';
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
        <p className="soft">Chips, transistors and large electrolytics are copied most. Choose one to see what to look for and what each sign is worth.</p>
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
      {!line && <Whole kit={kit} />}
      {line && <Genuine key={line.id} kit={kit} line={line} />}
    </Drawer>
  );
}

/** What the examined parts say of the rest of the parcel. */
function Whole({ kit }: { kit: KitState }) {
  const whole = useMemo(() => wholeKit(kit), [kit]);
  if (!whole) return null;
  return (
    <section aria-label="The kit as a whole" className={zones.note}>
      <b>The kit as a whole.</b> {whole.copies} of {whole.examined} examined parts are probably copies. Parts of one parcel come from one hand: the next chip of
      it is one with <span className="num">{Math.round(100 * whole.next)} %</span>.{' '}
      {whole.next >= 0.5
        ? 'Examine every chip before it goes in, and write to the seller about the kit.'
        : whole.copies > 0
          ? 'Examine the others that matter as well.'
          : 'The parcel looks right so far.'}
    </section>
  );
}
