import { Button, Progress } from 'antd';
import { useMemo } from 'react';
import { type Findings, workOf, workReasons } from '@/core/diagnose';
import { describeFaults } from '@/core/fault';
import { namingOf } from '@/core/loop';
import type { KitState } from '@/core/kit';
import zones from '../shell/zones.module.css';
import styles from './Fault.module.css';
import { keyOf, percent } from './words';

const LEAST_SHOWN = 0.005;
const MUCH_UNEXPLAINED = 0.3;
const NEAREST = 3;

interface Props {
  readonly kit: KitState;
  readonly findings: Findings;
  /** The suspect that is looked at closely. */
  readonly opened: string | null;
  readonly open: (key: string) => void;
}

/** All faults that could have done it, by their probability. Each can be opened. */
export function SuspectList({ kit, findings, opened, open }: Props) {
  const work = useMemo(() => workOf(kit), [kit]);
  const lost = findings.unexplained > MUCH_UNEXPLAINED;
  const rows = findings.suspects
    .filter((s) => s.probability >= LEAST_SHOWN)
    .map((s) => ({
      key: s.faults.length === 0 ? null : keyOf(s.faults),
      ...describeFaults(s.faults, namingOf(kit)),
      probability: s.probability,
      reasons: s.faults.flatMap((f) => workReasons(f, work)),
    }));
  // Where nothing fits, what comes nearest is named all the same: its red cells say what does not fit.
  const nearest = lost ? findings.suspects.filter((s) => s.probability < LEAST_SHOWN).slice(0, NEAREST) : [];
  if (findings.unexplained >= LEAST_SHOWN)
    rows.push({
      key: null,
      title: 'An unknown fault',
      cause: 'no known fault explains all readings',
      remedy: '',
      probability: findings.unexplained,
      reasons: [],
    });
  return (
    <>
      <ol className={styles.suspects} aria-label="Suspects by probability">
        {rows.map((s) => (
          <li key={s.title} className={styles.suspect}>
            {s.key === null ? (
              <b>{s.title}</b>
            ) : (
              <Button
                type="link"
                className={styles.open ?? ''}
                aria-pressed={s.key === opened}
                onClick={() => {
                  open(s.key!);
                }}
              >
                {s.title}
              </Button>
            )}
            <b className="num">{percent(s.probability)}</b>
            <small>{[s.cause, ...s.reasons.map((r) => `${r.factor < 1 ? 'less' : 'more'} likely: ${r.why}`)].join('; ')}</small>
            <Progress className={styles.bar ?? ''} percent={100 * s.probability} showInfo={false} size="small" aria-hidden="true" />
          </li>
        ))}
      </ol>
      <p className="soft">
        Open a suspect to see what speaks for it and against it. The other {findings.faults - 1 - rows.filter((r) => r.key !== null).length} faults hardly fit.
      </p>
      {nearest.length > 0 && (
        <p>
          <b>Closest known faults:</b> {nearest.map((s) => describeFaults(s.faults, namingOf(kit)).title).join('; ')}. In the table beside, red cells are the
          readings that do not fit them.
        </p>
      )}
      {findings.alike.map((group) => (
        <p key={group.join()} className={zones.note}>
          <b>No reading here tells these apart:</b> {group.map((i) => describeFaults(findings.suspects[i]!.faults, namingOf(kit)).title).join('; ')}. Look at
          each joint, lift a leg and measure the part alone, or replace it with a known-good one.
        </p>
      ))}
      {findings.assumedBridges > 0 && (
        <p className="soft">
          Which nets are neighbours is not known here: {findings.assumedBridges} solder bridges were considered, those across a part first. Places of the parts
          make this sharper: Fit, Places.
        </p>
      )}
      {lost && <p className="soft">Repeat each odd reading: swapped probes, the next point or a wrong range look just like this.</p>}
    </>
  );
}
