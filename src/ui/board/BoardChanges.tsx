import { Button } from 'antd';
import type { KitState } from '@/core/kit';
import { modificationText } from '@/core/loop';
import { useBench } from '@/store/bench';
import zones from '../shell/zones.module.css';
import records from '../sheet/records/Records.module.css';

/** What was changed on the board and stands; what is there for a test has to go again. */
export function BoardChanges({ kit, change }: { kit: KitState; change: () => void }) {
  const append = useBench((s) => s.append);
  const made = kit.board.modifications;
  return (
    <section aria-label="Changes of the board">
      <h2 className={`${zones.label} ${zones.section}`}>Changes of the board</h2>
      {made.length === 0 && <p className="soft">No changes. Note another value, an added part, a cut track or something unplugged for a test here.</p>}
      <ul className={records.list}>
        {made.map((m) => (
          <li key={m.entry} className={records.item}>
            <span className={records.words}>
              {modificationText(kit, m.change)} <small className="soft">{[m.temporary ? 'for a test' : '', m.why ?? ''].filter(Boolean).join(' · ')}</small>
            </span>
            <Button
              size="small"
              aria-label={`Put back: ${modificationText(kit, m.change)}`}
              onClick={() => {
                void append({ kind: 'restored', modification: m.entry });
              }}
            >
              Taken back
            </Button>
          </li>
        ))}
      </ul>
      <Button size="small" onClick={change}>
        Change the board
      </Button>
    </section>
  );
}
