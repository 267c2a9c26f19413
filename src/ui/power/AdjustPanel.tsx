import { Slider } from 'antd';
import { useMemo } from 'react';
import type { KitState, MeasureCheck, ObserveCheck } from '@/core/kit';
import { extremeOf, freshTaken, isMeasure, type MeasureProgress, type StageProgress } from '@/core/loop';
import { type Adjustment, shareAt } from '@/core/power';
import { print } from '@/core/quantity';
import { checkObservableId, unitOf } from '@/core/vocabulary';
import { useBench } from '@/store/bench';
import { useResult } from '../results/useResult';
import zones from '../shell/zones.module.css';

const MULTI_TURN = /(\d{2})\s*-?\s*turn/i;

/** Turn a control until a reading is right: which way, how far, whether it can be had at all. */
export function AdjustPanel({ kit, here, check }: { kit: KitState; here: StageProgress; check: MeasureCheck }) {
  const ref = check.adjust!;
  const progress = here.checks.find((c): c is MeasureProgress => isMeasure(c) && c.check.id === check.id);
  const asked = useMemo(() => ({ stage: here.stage.id, check: check.id, limits: limitsOf(here) }), [here, check.id]);
  const forecast = useResult('adjustment', kit, asked);
  const known = forecast.state === 'fresh' ? forecast.value : null;
  const window = progress?.window ?? null;
  const taken = freshTaken(kit, here.stage, check.id).flatMap(({ entry }) => (entry.kind === 'read' && entry.reading !== 'over' ? [entry.reading] : []));
  const unit = unitOf(check.mode);
  const extreme = check.aim === 'least' || check.aim === 'most' ? check.aim : null;
  return (
    <section aria-label="Adjusting">
      <h2 className={zones.label}>Turn {ref}</h2>
      {extreme && <Extreme aim={extreme} taken={taken} print={(v) => print(v, unit)} />}
      <p hidden={extreme !== null}>
        {window
          ? `Until it reads ${print(window.low, unit)} to ${print(window.high, unit)}. Read, turn, read again: each reading is entered.`
          : 'Set limits for this check first, so that there is a target to turn to.'}
      </p>
      {known && window && extreme === null && <Way adjustment={known} kit={kit} last={taken.at(-1) ?? null} holds={progress?.verdict === 'in'} />}
      {forecast.state === 'fresh' && known === null && (
        <p className="soft">Where {ref} should be set cannot be computed here: watch the reading, and turn slowly.</p>
      )}
      {stuck(taken) && progress?.verdict !== 'in' && (
        <p className={zones.caution}>
          The reading does not change while you turn: the wiper or a joint of {ref} is open, the probe is at the wrong point, or the stage behind it is dead.
        </p>
      )}
      {known && <Position kit={kit} adjustment={known} />}
    </section>
  );
}

/** To the least or the most: past it, and back. */
function Extreme({ aim, taken, print }: { aim: 'least' | 'most'; taken: readonly number[]; print: (v: number) => string }) {
  const { best, there, passed } = extremeOf(taken, aim);
  return (
    <p>
      {best === null
        ? `Until it reads the ${aim}. Read, turn a little, read again: each reading is entered. Go past it until it gets worse, then turn back.`
        : there
          ? `It reads the ${aim}: ${print(best)}.`
          : `The ${aim} so far is ${print(best)}. ${passed ? 'It got worse: turn back.' : 'Go on the same way until it gets worse.'}`}
    </p>
  );
}

/** Turned until something happens: seen, heard, or as a wave looks. */
export function EventPanel({ check }: { check: ObserveCheck }) {
  return (
    <section aria-label="Adjusting">
      <h2 className={zones.label}>Turn {check.adjust}</h2>
      <p>
        Begin at its lower end and turn slowly. <b>Enter</b> as soon as it is so: {check.expect} <b>N</b> only when it does not happen over the whole way: that
        is evidence against {check.adjust}, its joints, or what follows it.
      </p>
    </section>
  );
}

/** What the adjusting checks of a stage are turned into. */
const limitsOf = (here: StageProgress) =>
  Object.fromEntries(
    here.checks.flatMap((c) =>
      isMeasure(c) && c.check.adjust !== undefined && c.window
        ? [[checkObservableId(here.stage.id, c.check.id), { low: c.window.low, high: c.window.high }] as const]
        : [],
    ),
  );

/** Three readings in a row that agree within this share did not move (choice of this product). */
const STILL = 0.002;
const stuck = (taken: readonly number[]): boolean => {
  const last = taken.slice(-3);
  return last.length === 3 && Math.max(...last) - Math.min(...last) <= STILL * Math.max(...last.map(Math.abs));
};

const share = (s: number) => `${Math.round(100 * s)} %`;

function Way({ adjustment, kit, last, holds }: { adjustment: Adjustment; kit: KitState; last: number | null; holds: boolean }) {
  const { control, course, at, because, rounds, movedBy } = adjustment;
  const [from, to] = [course[0]!, course.at(-1)!];
  const line = kit.sheet.lines.find((l) => l.refs.includes(control));
  const turns = Number(MULTI_TURN.exec(`${line?.label ?? ''} ${line?.type ?? ''} ${line?.note ?? ''}`)?.[1] ?? 0);
  const way = (s: number) => (turns > 0 ? `${(s * turns).toFixed(1)} turns` : share(s));
  const stands = last === null ? null : shareAt(course, last);
  const more = stands === null || at === null ? null : at - stands;
  return (
    <>
      <p className="soft">
        A healthy board reads {print(from, 'V', 3)} at its lower end and {print(to, 'V', 3)} at its upper end.
      </p>
      {at === null ? (
        <p className={zones.caution}>
          With this circuit it cannot be reached
          {because.length > 0
            ? `, because of what ${because.join(', ')} measured: with ${because.length === 1 ? 'its' : 'their'} listed value it could. Replace ${because.length === 1 ? 'it' : 'one'} first.`
            : '. Compare the window with the circuit: one of them is wrong, or a part that was not measured.'}
        </p>
      ) : holds ? (
        <p>It holds.</p>
      ) : more === null ? (
        <p>
          Expected setting: about <b>{way(at)}</b>
          {turns > 0 ? ' from its lower end' : ' of its way'}.{last !== null && ' This reading is beyond both ends: the setting is not what is wrong.'}
        </p>
      ) : (
        <p>
          Turn towards its <b>{more > 0 ? 'upper' : 'lower'} end</b>, by about <b>{way(Math.abs(more))}</b>
          {turns > 0 ? '' : ' of its way'}.
        </p>
      )}
      {movedBy.length > 0 && (
        <p className="soft">
          {movedBy.join(' and ')} {movedBy.length === 1 ? 'moves' : 'move'} this reading too: turn one after the other{' '}
          {rounds === null
            ? 'as long as it gets better; by this circuit they never hold together.'
            : `until all hold, in about ${rounds} ${rounds === 1 ? 'round' : 'rounds'}.`}
        </p>
      )}
    </>
  );
}

/** Where the control stands, as far as it is known: later windows follow it. */
function Position({ kit, adjustment: { control, now, track } }: { kit: KitState; adjustment: Adjustment }) {
  const append = useBench((s) => s.append);
  return (
    <>
      <p className="soft">Its setting now; later limits follow{kit.settings.standIn ? ', and so does the simulated board' : ''}:</p>
      <Slider
        key={now}
        ariaLabelForHandle={`Position of ${control}, percent of its way`}
        defaultValue={Math.round(100 * now)}
        tooltip={{ formatter: (v) => `${v ?? 0} %` }}
        onChangeComplete={(v) => {
          void append({ kind: 'set', ref: control, value: (v / 100) * (track ?? 1) });
        }}
      />
    </>
  );
}
