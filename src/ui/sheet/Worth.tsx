import { Modal, Progress, Table } from 'antd';
import type { CheckWorth, Worth as Told } from '@/core/diagnose';
import { describeFault } from '@/core/fault';
import type { KitState } from '@/core/kit';
import { namingOf } from '@/core/loop';
import { useResult } from '../results/useResult';
import { useWindows } from '../results/useWindows';
import zones from '../shell/zones.module.css';
import styles from './Worth.module.css';

const NO_WINDOWS = {};
const percent = (part: number, of: number) => (of === 0 ? '–' : `${Math.round((100 * part) / of)} %`);
/** Faults that are named; the rest is a number. */
const MOST_NAMED = 15;

/** What a kit's test order catches: for its designer a test plan, for its builder the reason for every check. */
export function Worth({ kit, close }: { kit: KitState; close: () => void }) {
  const windows = useWindows(kit);
  const result = useResult('worth', kit, windows ?? NO_WINDOWS, windows !== null);
  const worth = result.state === 'fresh' ? result.value : null;
  return (
    <Modal
      open
      onCancel={close}
      width="min(64rem, 96vw)"
      title="Worth of this test order"
      okText="Print"
      okButtonProps={{ disabled: worth === null }}
      onOk={() => {
        print();
      }}
      cancelText="Close"
      footer={(buttons) => <span className="no-print">{buttons}</span>}
    >
      {result.state === 'failed' && <p role="alert">It could not be computed: {result.message}</p>}
      {worth ? (
        <WorthTold kit={kit} worth={worth} />
      ) : result.state === 'fresh' ? (
        <p>There is nothing to compute yet: it takes a circuit that comes to rest, and stages with checks that have limits.</p>
      ) : (
        result.state !== 'failed' && (
          <>
            <p className="soft">Reading boards with one usual fault each…</p>
            <Progress percent={Math.round(100 * result.progress)} aria-label="Reading faulty boards" />
          </>
        )
      )}
    </Modal>
  );
}

function WorthTold({ kit, worth }: { kit: KitState; worth: Told }) {
  const stageOf = (id: string) => kit.sheet.stages.find((s) => s.id === id);
  const title = (c: { stage: string; check: string }) => stageOf(c.stage)?.checks.find((x) => x.id === c.check)?.title ?? c.check;
  const naming = namingOf(kit);
  const missed = worth.missed.map((f) => describeFault(f, naming(f)).title);
  return (
    <div className={`print-alone ${styles.worth}`}>
      <p>
        <b>
          These {worth.checks.length} checks catch {percent(worth.caught, worth.faults)} of the usual faults
        </b>{' '}
        ({worth.caught} of {worth.faults}), {percent(worth.early, worth.caught)} of them at or before first power. Each fault is simulated alone; limits are
        those of the checks.
        {worth.uncounted > 0 && ` ${worth.uncounted === 1 ? 'One check is' : `${worth.uncounted} checks are`} not counted: no limits, or an oscillating board.`}
      </p>
      {worth.short.length < worth.checks.length && (
        <p>
          <b>
            Short of time? These {worth.short.length} of {worth.checks.length} catch nearly as much:
          </b>{' '}
          {worth.short.map(title).join('; ')}.
        </p>
      )}
      {worth.add.length > 0 && (
        <p>
          <b>A test point would add most at</b> {worth.add.map((a) => `${naming(HEALTHY_BOARD).net(a.net)} (net ${a.net}): ${a.catches} more`).join('; ')}. Read
          it in “{stageOf(worth.add[0]!.stage)?.title}”.
        </p>
      )}
      <Table<CheckWorth>
        size="small"
        rowKey={(c) => `${c.stage}/${c.check}`}
        dataSource={[...worth.checks]}
        pagination={false}
        columns={[
          { title: 'stage', key: 'stage', render: (_, c) => stageOf(c.stage)?.title },
          { title: 'check', key: 'check', rowScope: 'row', render: (_, c) => title(c) },
          { title: 'faults it catches', dataIndex: 'catches', align: 'right', className: 'num' },
          { title: 'not caught before it', dataIndex: 'first', align: 'right', className: 'num' },
        ]}
      />
      <h2 className={`${zones.label} ${zones.section}`}>What slips through</h2>
      <p>
        {missed.length === 0
          ? 'No usual fault passes all checks.'
          : `${missed.slice(0, MOST_NAMED).join('; ')}${missed.length > MOST_NAMED ? `; and ${missed.length - MOST_NAMED} more` : ''}.`}
      </p>
    </div>
  );
}

const HEALTHY_BOARD = { kind: 'healthy', parts: [], detail: {} } as const;
