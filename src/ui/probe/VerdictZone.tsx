import { Button, Popover, Tag } from 'antd';
import { memo } from 'react';
import type { LastVerdict } from '@/core/loop';
import { useBench } from '@/store/bench';
import { VerdictMark } from '../drawn/VerdictMark';
import styles from './ProbeBar.module.css';

/** The verdict in one line: shape, colour and words. */
export const VerdictLine = ({ last, size }: { last: LastVerdict; size: number }) => (
  <span className={`${styles.verdictLine} v-${last.verdict}`}>
    <VerdictMark verdict={last.verdict} size={size} /> <span>{last.title}</span>
  </span>
);

/** What the last entry was found to be, why, and how that was reckoned. */
export const VerdictZone = memo(function VerdictZone({ last }: { last: LastVerdict | null }) {
  const append = useBench((s) => s.append);
  const notSaved = useBench((s) => s.unsaved.length > 0);
  if (!last) return <p className={styles.said}>Nothing entered yet.</p>;
  return (
    <>
      <VerdictLine last={last} size={24} />
      {notSaved && <Tag color="warning">not saved yet</Tag>}
      <p className={styles.detail}>{last.detail}</p>
      {last.instead && (
        <Button
          size="small"
          onClick={() => {
            void append(last.instead!.entries);
          }}
        >
          {last.instead.text}
        </Button>
      )}
      {last.reckoning.length > 0 && (
        <Popover
          trigger="click"
          placement="topRight"
          title="How this was calculated"
          content={
            <ul className={styles.reckoning}>
              {last.reckoning.map((r) => (
                <li key={r}>{r}</li>
              ))}
            </ul>
          }
        >
          <Button type="text" size="small" className={styles.key ?? ''}>
            How this was calculated
          </Button>
        </Popover>
      )}
    </>
  );
});
