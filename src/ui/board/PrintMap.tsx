import { Alert, Modal, Switch } from 'antd';
import { useState } from 'react';
import type { KitState } from '@/core/kit';
import type { Verdict } from '@/core/verdict';
import zones from '../shell/zones.module.css';
import { BoardMap } from './BoardMap';
import styles from './BoardMap.module.css';

const NO_REFS: ReadonlySet<string> = new Set();
const NO_VERDICTS: ReadonlyMap<string, Verdict> = new Map();
/** Long enough to be held against a ruler, short enough for every sheet of paper, millimetres. */
const BAR = 50;

/** The map as large as the board, for paper. */
export function PrintMap({ kit, close }: { kit: KitState; close: () => void }) {
  const [copper, setCopper] = useState(false);
  return (
    <Modal
      open
      onCancel={close}
      width="min(80rem, 96vw)"
      title="The board at 1:1"
      okText="Print"
      onOk={() => {
        print();
      }}
      cancelText="Close"
      footer={(buttons) => <span className="no-print">{buttons}</span>}
    >
      <div className={`${zones.row} no-print`}>
        <Alert type="info" title={`Print at 100 %, without “fit to page”, and hold the bar against a ruler: it is ${BAR} mm long.`} />
        <label className={zones.row}>
          <Switch size="small" checked={copper} onChange={setCopper} aria-label="From the copper side" /> copper side
        </label>
      </div>
      <div className={`print-alone ${styles.paper} ${copper ? styles.copper : ''}`}>
        <BoardMap
          sheet={kit.sheet}
          present={kit.board.fitted}
          marked={NO_REFS}
          points={kit.sheet.testPoints}
          verdicts={NO_VERDICTS}
          red={null}
          black={null}
          trueSize
        />
      </div>
      <div className={styles.bar} style={{ width: `${BAR}mm` }} role="img" aria-label={`Bar of ${BAR} mm`} />
      <p className="soft">
        {kit.sheet.title}, {copper ? 'copper side' : 'from above'}. The bar is {BAR} mm long.
      </p>
    </Modal>
  );
}
