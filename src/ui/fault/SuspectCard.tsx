import { ArrowLeftOutlined } from '@ant-design/icons';
import { Button } from 'antd';
import { lazy, Suspense, useMemo } from 'react';
import { faultySuspects, type Findings, workOf, workReasons } from '@/core/diagnose';
import { describeFaults, type Fault } from '@/core/fault';
import { namingOf } from '@/core/loop';
import type { KitState } from '@/core/kit';
import { circuitOf } from '@/core/stage';
import { useBench } from '@/store/bench';
import { VerdictMark } from '../drawn/VerdictMark';
import zones from '../shell/zones.module.css';
import { evidenceOf, type Told } from './evidence';
import styles from './Fault.module.css';
import { keyOf, percent } from './words';

const Around = lazy(() => import('./Around').then((m) => ({ default: m.Around })));

interface Props {
  readonly kit: KitState;
  readonly findings: Findings;
  readonly opened: string;
  readonly close: () => void;
  readonly found: (faults: readonly Fault[], probability: number, note: string) => void;
}

/** One suspect looked at closely: what speaks for it and against it, where it sits, and what one found there. */
export function SuspectCard({ kit, findings, opened, close, found }: Props) {
  const append = useBench((s) => s.append);
  const work = useMemo(() => workOf(kit), [kit]);
  const all = faultySuspects(findings.suspects);
  const at = all.findIndex((s) => keyOf(s.faults) === opened);
  const suspect = all[at];
  const back = (
    <Button size="small" icon={<ArrowLeftOutlined />} onClick={close}>
      Compare all suspects
    </Button>
  );
  if (!suspect)
    return (
      <div className={styles.card}>
        <p>The readings nearly rule it out.</p>
        {back}
      </div>
    );
  const words = describeFaults(suspect.faults, namingOf(kit));
  const { speaksFor, against } = evidenceOf(kit, findings, at);
  const reasons = suspect.faults.flatMap((f) => workReasons(f, work));
  const looked = kit.ruledOut.filter((r) => suspect.faults.some((f) => keyOf([f]) === keyOf([r.entry.fault])));
  return (
    <section className={styles.card} aria-label="The suspect">
      <div className={`${zones.row} ${zones.between}`}>
        <h2>
          {words.title} <span className="soft num">{percent(suspect.probability)}</span>
        </h2>
        {back}
      </div>
      <div className={styles.sides}>
        <div>
          <p>
            Usual cause: {words.cause}. <b>{words.remedy}</b>
          </p>
          <Evidence title="Evidence for" of={speaksFor} mark="in" none="No reading sets it apart from a healthy board." />
          <Evidence title="Evidence against" of={against} mark="out" none="Nothing so far." />
          {reasons.length > 0 && (
            <>
              <h3 className={zones.label}>From your work</h3>
              <ul className={styles.evidence}>
                {reasons.map((r) => (
                  <li key={r.why}>
                    {Number((r.factor < 1 ? 1 / r.factor : r.factor).toPrecision(2))} times {r.factor < 1 ? 'less' : 'more'} likely: {r.why}.
                  </li>
                ))}
              </ul>
            </>
          )}
          <div className={zones.row}>
            <Button
              type="primary"
              onClick={() => {
                found(suspect.faults, suspect.probability, words.title);
              }}
            >
              Found and repaired
            </Button>
            {looked.length === 0 ? (
              <Button
                onClick={() => {
                  void append(suspect.faults.map((fault) => ({ kind: 'ruled-out' as const, fault })));
                }}
              >
                I looked: not this
              </Button>
            ) : (
              <Button
                onClick={() => {
                  void append(looked.map((r) => ({ kind: 'withdrawn' as const, entry: r.entry.id })));
                }}
              >
                Look again: it may be this after all
              </Button>
            )}
          </div>
        </div>
        <div>
          <Suspense>
            <Around kit={kit} circuit={circuitOf(kit.sheet)} faults={suspect.faults} />
          </Suspense>
        </div>
      </div>
    </section>
  );
}

function Evidence({ title, of, mark, none }: { title: string; of: readonly Told[]; mark: 'in' | 'out'; none: string }) {
  return (
    <>
      <h3 className={`${zones.label} ${zones.section}`}>{title}</h3>
      {of.length === 0 ? (
        <p className="soft">{none}</p>
      ) : (
        <ul className={styles.evidence}>
          {of.map((t) => (
            <li key={t.title}>
              <VerdictMark verdict={mark} size={14} /> <b>{t.title}</b>: seen {t.seen}, it would show {t.shows}
              {t.healthy !== null && <span className="soft">; a healthy board {t.healthy}</span>}
            </li>
          ))}
        </ul>
      )}
    </>
  );
}
