import { Checkbox } from 'antd';
import { Nothing } from '../drawn/Nothing';
import styles from './NewKit.module.css';
import type { useNewKit } from './useNewKit';

/** Which nets a probe can reach: they become test points. */
export function ReachStep({ kit }: { kit: ReturnType<typeof useNewKit> }) {
  const { draft, begun } = kit;
  if (draft.nets.length === 0) return <Nothing say="Without a circuit there are no nets yet. Test points can be added later, on the Sheet." />;
  return (
    <>
      <p className={styles.buys}>Which nets can you reach with a probe? These become test points: each gets a window, and the fault finder may ask for it.</p>
      <Checkbox.Group
        className={styles.nets ?? ''}
        aria-label="Nets within reach"
        value={[...kit.nets]}
        options={draft.nets.map((n) => ({
          value: n,
          label: (
            <>
              <span className="num">{n}</span> {begun.beside.where[n] && <span className="soft">{begun.beside.where[n]}</span>}
            </>
          ),
        }))}
        onChange={(nets) => {
          kit.set({ nets });
        }}
      />
    </>
  );
}
