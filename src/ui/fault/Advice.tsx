import { Button } from 'antd';
import type { ReactNode } from 'react';
import type { Findings, TableRow } from '@/core/diagnose';
import { describeFaults, type Fault } from '@/core/fault';
import type { KitState, Stage } from '@/core/kit';
import { observableOfTarget, targetOfObservable, namingOf } from '@/core/loop';
import { DOUBTED } from './BadReadings';
import { useElsewhere } from './elsewhere';
import styles from './Fault.module.css';
import { percent, rowTitle } from './words';

/** From here on the screen calls the case settled (choice of this product). */
const SETTLED = 0.8;

interface Props {
  readonly kit: KitState;
  readonly findings: Findings;
  /** Takes a reading into the hand. */
  readonly choose: (target: string) => void;
  readonly found: (faults: readonly Fault[], probability: number, note: string) => void;
  /** What else can be done. */
  readonly children: ReactNode;
}

/** The next reading, or the repair. */
export function Advice({ kit, findings, found, choose, children }: Props) {
  const top = findings.suspects[0];
  if (!top) return null;
  const words = describeFaults(top.faults, namingOf(kit));
  const settled = top.probability >= SETTLED && top.faults.length > 0 && findings.again === null;
  return (
    <div className={styles.advice}>
      <p>
        {findings.again !== null ? (
          <ReadAgain kit={kit} findings={findings} id={findings.again} choose={choose} />
        ) : settled ? (
          <>
            <b>{words.title}</b> ({percent(top.probability)}). Supply off. {words.remedy} Change one thing, then measure this stage again.
          </>
        ) : (
          <NextStep kit={kit} next={findings.next} rows={findings.rows} healthy={top.faults.length === 0} remedy={words.remedy} />
        )}
      </p>
      {top.faults.length > 0 && (
        <Button
          type={settled ? 'primary' : 'default'}
          onClick={() => {
            found(top.faults, top.probability, words.title);
          }}
        >
          I found it
        </Button>
      )}
      {children}
    </div>
  );
}

/** A reading that decides and may be wrong: before any conclusion it is taken again. */
function ReadAgain({ kit, findings, id, choose }: { kit: KitState; findings: Findings; id: string; choose: (target: string) => void }) {
  const target = targetOfObservable(kit, id);
  return (
    <>
      <b>Read {rowTitle(kit, id, findings.rows)} again first.</b> The ranking depends on this reading, and it may be wrong: check probes, range and ground.{' '}
      {target && !findings.badReadings.some((b) => b.id === id && b.probability >= DOUBTED) && (
        <Button
          size="small"
          onClick={() => {
            choose(target.id);
          }}
        >
          Read it again
        </Button>
      )}
    </>
  );
}

/** The stage that was read last. */
function stageInHand(kit: KitState): Stage | undefined {
  const last = [...kit.readings.values()].flatMap((all) => all.slice(-1)).sort((a, b) => b.met.at - a.met.at)[0];
  return kit.sheet.stages.find((s) => s.id === last?.entry.stage);
}

interface NextProps {
  readonly kit: KitState;
  readonly next: Findings['next'];
  readonly rows: readonly TableRow[];
  readonly healthy: boolean;
  readonly remedy: string;
}

function NextStep({ kit, next, rows, healthy, remedy }: NextProps) {
  const target = next && targetOfObservable(kit, next.id);
  const look = useElsewhere((s) => s.look);
  const elsewhere = useElsewhere((s) => s.kit === kit.id);
  const inHand = stageInHand(kit);
  const back = next && inHand && !next.id.startsWith(`${inHand.id}/`) ? kit.sheet.stages.find((s) => next.id.startsWith(`${s.id}/`)) : undefined;
  const cold = rows.some((r) => r.id === next?.id && (r.mode === 'ohms' || r.mode === 'diode'));
  if (next && target && observableOfTarget(target))
    return (
      <>
        <b>
          {back ? `Go back to “${back.title}”: ` : 'One more reading helps: '}
          {rowTitle(kit, next.id, rows)}.
        </b>{' '}
        It is the most informative reading for its effort ({next.bits.toFixed(1)} bits).{' '}
        {cold ? 'About a minute and a half: supply off and capacitors empty first.' : 'About 20 seconds, board live at low voltage.'}
      </>
    );
  return healthy ? (
    <>
      <b>Nothing stands out.</b> Every reading so far fits a healthy board.
    </>
  ) : (
    <>
      <b>No further reading {elsewhere ? '' : 'of this stage '}would separate these.</b> Next, in order of effort: {remedy} Resolder its joints. Then trace its
      pads with the tester (Fit, Trace), lift a leg and measure it alone, or replace it.{' '}
      {!elsewhere && inHand && kit.sheet.stages[0] !== inHand && (
        <Button
          size="small"
          onClick={() => {
            look(kit.id);
          }}
        >
          Ask the earlier stages too
        </Button>
      )}
    </>
  );
}
