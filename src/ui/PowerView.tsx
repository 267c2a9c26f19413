'use client';
import { type CheckProgress, checkTargetsOf, currentStage, deriveStages, isMeasure, type Phase, type StageProgress } from '@/core/loop';
import { type KitState } from '@/core/kit';
import { print } from '@/core/quantity';
import { fittedAt, setupOf } from '@/core/stage';
import { unitOf } from '@/core/vocabulary';
import { type Verdict } from '@/core/verdict';
import { BoardMap, type MapPoint } from './BoardMap';
import { type Loop } from './useLoop';
import { useWindows } from './useWindows';
import { VerdictMark } from './VerdictMark';

const STATUS_VERDICT: Readonly<Record<StageProgress['status'], Verdict>> = { passed: 'in', failed: 'out', current: 'none', waiting: 'none' };

export function PowerView({ kit, loop, go }: { kit: KitState; loop: Loop; go: (phase: Phase) => void }) {
  const windows = useWindows(kit);
  const stages = deriveStages(kit, windows);
  const here = currentStage(stages) ?? stages[stages.length - 1];
  if (!here)
    return (
      <div className="zones">
        <section className="card">
          This kit has no stages. They are made from its circuit when the kit is new: make one from the shelf with a parts list and a deck.
        </section>
      </div>
    );
  return (
    <div className="zones stages-map-why">
      <section className="card" aria-label="Stages">
        <h2 className="label">Stages of this build</h2>
        {stages.map((s) => (
          <div key={s.stage.id} className={`stage ${s === here ? 'now' : ''}`}>
            <VerdictMark verdict={STATUS_VERDICT[s.status]} />
            <div>
              <b>{s.stage.title}</b>
              {s === here && <small>{stageText(s)}</small>}
            </div>
          </div>
        ))}
        <h2 className="label" style={{ marginTop: 14 }}>
          Checks here
        </h2>
        <Checks here={here} loop={loop} />
      </section>
      <section className="card map" aria-label="Board map">
        <Map kit={kit} here={here} loop={loop} />
      </section>
      <aside className="card why" aria-label="Why">
        <Story here={here} go={go} />
      </aside>
    </div>
  );
}

function stageText(s: StageProgress): string {
  const verdicts = s.checks.map((c) => c.verdict);
  const count = (v: Verdict) => verdicts.filter((x) => x === v).length;
  if (s.status === 'passed') return `${verdicts.length} of ${verdicts.length} seen to`;
  return [
    count('in') && `${count('in')} in`,
    count('doubtful') && `${count('doubtful')} doubtful`,
    count('out') && `${count('out')} out`,
    `${count('none')} to go`,
  ]
    .filter(Boolean)
    .join(' · ');
}

const nameOf = (c: CheckProgress) => (isMeasure(c) && 'testPoint' in c.check.red ? c.check.red.testPoint : '');

function Checks({ here, loop }: { here: StageProgress; loop: Loop }) {
  const targets = checkTargetsOf(here);
  return (
    <>
      {here.checks.map((c) => {
        const target = targets.find((t) => t.target.kind === 'check' && t.target.check.id === c.check.id);
        const now = loop.target?.kind === 'check' && loop.target.check.id === c.check.id;
        return (
          <button
            key={c.check.id}
            type="button"
            className={`check-row ${now ? 'now' : ''}`}
            onClick={() => {
              if (target) loop.choose(target.target.id);
            }}
          >
            <VerdictMark verdict={c.verdict} size={15} />
            <span className="num">{nameOf(c)}</span>
            <span>{c.check.title}</span>
            <span className="num">{shown(c)}</span>
          </button>
        );
      })}
    </>
  );
}

function shown(c: CheckProgress): string {
  if (!isMeasure(c)) return c.results.every((r) => r.entry?.asExpected) ? 'yes' : c.verdict === 'out' ? 'not so' : '–';
  if (!c.entry) return '–';
  return c.entry.reading === 'over' ? 'OL' : print(c.entry.reading, unitOf(c.check.mode));
}

function Map({ kit, here, loop }: { kit: KitState; here: StageProgress; loop: Loop }) {
  const present = fittedAt(setupOf(kit), here.stage);
  const points = kit.sheet.testPoints.map((t): MapPoint => ({
    id: t.id,
    net: t.net,
    verdict: here.checks.find((c) => nameOf(c) === t.id)?.verdict ?? 'none',
    x: t.x,
    y: t.y,
  }));
  const check = loop.target?.kind === 'check' && loop.target.check.what === 'measure' ? loop.target.check : null;
  const red = check && 'testPoint' in check.red ? check.red.testPoint : null;
  return <BoardMap sheet={kit.sheet} present={present} marked={new Set()} points={points} red={red} black={check && check.mode !== 'dca' ? 'GND' : null} />;
}

function Story({ here, go }: { here: StageProgress; go: (phase: Phase) => void }) {
  const { stage, status, checks } = here;
  const out = checks.filter((c) => c.verdict === 'out');
  return (
    <>
      <h2 className="label">{status === 'failed' ? 'Stop here' : 'This stage'}</h2>
      {status === 'failed' ? (
        <>
          <p>
            <b>{out.map((c) => nameOf(c) || c.check.title).join(', ')}</b> {out.length === 1 ? 'is' : 'are'} not as a healthy board would read.
          </p>
          <p>Fit nothing further. Supply off before you touch a part.</p>
          <p className="note-box">
            <b>Next:</b> take the other readings of this stage if the board stays cool, then look who could have done it.
          </p>
          <button
            type="button"
            className="zest"
            onClick={() => {
              go('fault');
            }}
          >
            Find the fault
          </button>
        </>
      ) : (
        <>
          {stage.note && <p>{stage.note}</p>}
          {stage.supplies.map((s) => (
            <p key={s.source}>
              Supply <span className="num">{s.source}</span>: <b className="num">{print(s.volts, 'V', 3)}</b>, current limit{' '}
              <b className="num">{print(s.limit, 'A', 3)}</b>.
            </p>
          ))}
          {(stage.settings ?? []).map((s) => (
            <p key={s.ref}>{s.text}.</p>
          ))}
          {stage.fits.length > 0 && stage.kind === 'power' && <p>In for this stage: {stage.fits.join(', ')}.</p>}
        </>
      )}
      {(stage.cautions ?? []).map((c, i) => (
        <p key={c} className="caution" style={i === 0 ? { marginTop: 16 } : undefined}>
          {c}
        </p>
      ))}
      {status === 'passed' && (
        <p>
          <b>All stages have passed.</b> Let it run for a while and touch-test: nothing should get hot.
        </p>
      )}
      {status !== 'failed' && (
        <p className="soft">
          Windows come from the circuit as fitted here, with the values that you measured, tolerances, other makers’ semiconductors and your meter.
        </p>
      )}
    </>
  );
}
