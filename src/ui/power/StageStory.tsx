import { Button } from 'antd';
import { lazy, Suspense, useMemo } from 'react';
import { adjustmentsDue, changedSince, type CheckProgress, entryText, isMeasure, type Phase, type StageProgress } from '@/core/loop';
import type { KitState, Stage } from '@/core/kit';
import { print } from '@/core/quantity';
import zones from '../shell/zones.module.css';
import { BeforePower } from './BeforePower';
import { StageGate } from './StageGate';
import { nameOf } from './StageList';
import { StageNeeds } from './StageNeeds';

const FirstPowerCard = lazy(() => import('./FirstPowerCard').then((m) => ({ default: m.FirstPowerCard })));

const names = (checks: readonly CheckProgress[]) => checks.map((c) => nameOf(c) || c.check.title).join(', ');

/** What this stage wants set, what to take care of, and what to do when it fails. */
export function StageStory({ kit, here, go }: { kit: KitState; here: StageProgress; go: (phase: Phase) => void }) {
  const { stage, status, checks, reason } = here;
  const drifting = checks.filter((c) => isMeasure(c) && c.drifts);
  const doubtful = checks.filter((c) => c.verdict === 'doubtful' && !drifting.includes(c));
  const out = checks.filter((c) => c.verdict === 'out');
  return (
    <>
      <h2 className={zones.label}>{status === 'failed' ? 'Stop here' : 'This stage'}</h2>
      {status === 'failed' ? (
        <>
          <p>
            <b>{names(out)}</b> {out.length === 1 ? 'is' : 'are'} out of range.
          </p>
          <p>Fit nothing further. Supply off before you touch a part.</p>
          <p className={zones.note}>
            <b>Next:</b> take the other readings of this stage if the board stays cool, then see which part could cause this.
          </p>
          <Button
            type="primary"
            onClick={() => {
              go('fault');
            }}
          >
            Find the fault
          </Button>
        </>
      ) : (
        <>
          {status === 'overridden' && <p className={zones.note}>Continued anyway: {reason}. What is read here again speaks for itself.</p>}
          {status === 'doubtful' && (
            <p className={zones.note}>
              {doubtful.length > 0 && (
                <>
                  <b>{names(doubtful)}</b> is just outside its limits, by less than the meter’s error. Read it again on a better range or with another
                  meter.{' '}
                </>
              )}
              {drifting.length > 0 && (
                <>
                  <b>{names(drifting)}</b> is within its limits but drifting. Read it again once it has settled.{' '}
                </>
              )}
              Or accept it with a reason.
            </p>
          )}
          <Changed kit={kit} stage={stage} />
          <StageNeeds kit={kit} stage={stage} />
          {status === 'waiting' && <p className={zones.note}>Earlier stages have not passed. Look ahead, but do not power this one yet.</p>}
          {stage.note && <p>{stage.note}</p>}
          {stage.supplies.map((s) => (
            <p key={s.source}>
              Supply <span className="num">{s.source}</span>: <b className="num">{print(s.volts, 'V', 3)}</b>
              {s.feed === 'winding' ? (
                ' AC.'
              ) : (
                <>
                  , current limit <b className="num">{print(s.limit, 'A', 3)}</b>.
                </>
              )}
            </p>
          ))}
          {(stage.settings ?? []).map((s) => (
            <p key={s.ref}>{s.text}.</p>
          ))}
          {stage.fits.length > 0 && stage.kind === 'power' && <p>Fitted for this stage: {stage.fits.join(', ')}.</p>}
        </>
      )}
      {status !== 'failed' && status !== 'waiting' && <BeforePower kit={kit} stage={stage} go={go} />}
      {status !== 'failed' && (
        <Suspense>
          <FirstPowerCard key={stage.id} kit={kit} stage={stage} />
        </Suspense>
      )}
      {status === 'passed' && (
        <p>
          <b>All stages have passed.</b> Let it run for a while and touch-test: nothing should get hot.
        </p>
      )}
      {status !== 'failed' && kit.sheet.circuit !== null && (
        <p className="soft">
          Expected values come from the circuit as fitted here: your measured values, tolerances, other makers’ semiconductors, your meter.
        </p>
      )}
      <StageGate here={here} />
    </>
  );
}

/** Changes told by name; of more the number. */
const MOST_TOLD = 3;

/** What was changed on the board since this stage was last read, and which of its controls are due again. */
function Changed({ kit, stage }: { kit: KitState; stage: Stage }) {
  const changes = useMemo(() => changedSince(kit, stage), [kit, stage]);
  const due = useMemo(() => adjustmentsDue(kit).filter((d) => d.stage === stage), [kit, stage]);
  if (changes.length === 0 && due.length === 0) return null;
  return (
    <div role="note" aria-label="Changed since it was read" className={zones.note}>
      {changes.length > 0 && (
        <p>
          Changed since it was read:{' '}
          {changes
            .slice(-MOST_TOLD)
            .map((e) => entryText(kit, e))
            .join('; ')}
          {changes.length > MOST_TOLD && ` and ${changes.length - MOST_TOLD} more`}.
        </p>
      )}
      {due.length > 0 && (
        <p>
          <b>Due again:</b> {due.map((d) => `${d.control} (${d.title})`).join(', ')}. Select its check and read it again.
        </p>
      )}
    </div>
  );
}
