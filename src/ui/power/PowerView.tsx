'use client';
import { Button } from 'antd';
import { lazy, Suspense, useCallback, useMemo, useState } from 'react';
import { currentStage, deriveStages, type Phase, type StageProgress } from '@/core/loop';
import type { KitState, MeasureCheck } from '@/core/kit';
import { fittedAt, setupOf } from '@/core/stage';
import { type Verdict, worst } from '@/core/verdict';
import { BoardMap, type LaidOut } from '../board/BoardMap';
import { MapPoints } from '../board/MapPoints';
import { useMapSheet } from '../board/useMapSheet';
import map from '../board/BoardMap.module.css';
import type { Loop } from '../probe/useLoop';
import { useWindows } from '../results/useWindows';
import zones from '../shell/zones.module.css';
import { nameOf, StageList } from './StageList';
import { StageStory } from './StageStory';
import { BoardChanges } from '../board/BoardChanges';
import { useSheetTab } from '../sheet/sheetTab';
import type { CommandId } from '../shell/commands';
import { Nothing } from '../drawn/Nothing';

const AdjustPanel = lazy(() => import('./AdjustPanel').then((m) => ({ default: m.AdjustPanel })));
const EventPanel = lazy(() => import('./AdjustPanel').then((m) => ({ default: m.EventPanel })));
const SoakPanel = lazy(() => import('./SoakPanel').then((m) => ({ default: m.SoakPanel })));
const RepairStory = lazy(() => import('../fault/RepairStory').then((m) => ({ default: m.RepairStory })));
const FinishCard = lazy(() => import('./FinishCard').then((m) => ({ default: m.FinishCard })));
const LoadDesk = lazy(() => import('../load/LoadDesk').then((m) => ({ default: m.LoadDesk })));

interface Props {
  readonly kit: KitState;
  readonly loop: Loop;
  readonly go: (phase: Phase) => void;
  readonly run: (id: CommandId) => void;
}

/** Power up: the ladder of stages, the board with its points, what this stage wants. */
export function PowerView({ kit, loop, go, run }: Props) {
  const windows = useWindows(kit);
  const stages = deriveStages(kit, windows);
  const inHand = loop.target?.kind === 'check' || loop.target?.kind === 'prepare' ? loop.target.stage.id : null;
  const here = stages.find((s) => s.stage.id === inHand) ?? currentStage(stages) ?? stages[stages.length - 1];
  if (!here)
    return (
      <div className={`${zones.zones} ${zones.one}`}>
        <section className={zones.card} aria-label="Stages">
          <Nothing say="This kit has no stages yet. A ladder is proposed from its circuit, or from its list alone; or write the stages yourself.">
            <EditStages go={go} primary />
          </Nothing>
        </section>
      </div>
    );
  const inHandCheck = loop.target?.kind === 'check' ? loop.target.check : null;
  const turning = inHandCheck?.what === 'measure' && inHandCheck.adjust !== undefined ? inHandCheck : null;
  return (
    <div className={`${zones.zones} ${zones.listThingWhy}`}>
      <section className={zones.card} aria-label="Stages">
        <StageList kit={kit} stages={stages} here={here} loop={loop} />
      </section>
      <section className={`${zones.card} ${map.frame} ${zones.map}`} aria-label="Board map">
        <StageMap kit={kit} here={here} loop={loop} />
      </section>
      <aside className={`${zones.card} ${zones.why}`} aria-label="Why">
        {turning && (
          <Suspense>
            <AdjustPanel key={turning.id} kit={kit} here={here} check={turning} />
          </Suspense>
        )}
        {inHandCheck?.what === 'observe' && inHandCheck.adjust !== undefined && (
          <Suspense>
            <EventPanel check={inHandCheck} />
          </Suspense>
        )}
        {inHandCheck?.what === 'observe' && (
          <Suspense>
            <SoakPanel kit={kit} check={inHandCheck} />
          </Suspense>
        )}
        <Suspense>{kit.change !== null && <RepairStory kit={kit} loop={loop} go={go} />}</Suspense>
        <StageStory kit={kit} here={here} go={go} />
        {currentStage(stages) === null && (
          <Suspense>
            <FinishCard
              kit={kit}
              wait={() => {
                run('wait');
              }}
            />
          </Suspense>
        )}
        <div className={`${zones.row} ${zones.section}`}>
          <EditStages go={go} />
          <OpenLoadDesk kit={kit} loop={loop} />
        </div>
        <BoardChanges
          kit={kit}
          change={() => {
            run('modify');
          }}
        />
      </aside>
    </div>
  );
}

/** What is reckoned beside the readings. */
function OpenLoadDesk({ kit, loop }: { kit: KitState; loop: Loop }) {
  const [open, setOpen] = useState(false);
  return (
    <>
      <Button
        size="small"
        onClick={() => {
          setOpen(true);
        }}
      >
        Load, heat, waveforms, claims
      </Button>
      <Suspense>
        {open && (
          <LoadDesk
            kit={kit}
            choose={(target) => {
              setOpen(false);
              loop.choose(target);
            }}
            close={() => {
              setOpen(false);
            }}
          />
        )}
      </Suspense>
    </>
  );
}

/** Leads to the stages of the sheet. */
function EditStages({ go, primary = false }: { go: (phase: Phase) => void; primary?: boolean }) {
  const open = useSheetTab((s) => s.open);
  return (
    <Button
      type={primary ? 'primary' : 'default'}
      size={primary ? 'middle' : 'small'}
      onClick={() => {
        open('stages');
        go('sheet');
      }}
    >
      {primary ? 'Look at the proposed ladder' : 'Edit stages and checks'}
    </Button>
  );
}

function StageMap({ kit, here, loop }: { kit: KitState; here: StageProgress; loop: Loop }) {
  const present = useMemo(() => fittedAt(setupOf(kit), here.stage), [kit, here.stage]);
  const verdicts = useMemo(() => verdictsAt(here), [here]);
  const check = loop.target?.kind === 'check' && loop.target.check.what === 'measure' ? loop.target.check : null;
  const { choose } = loop;
  const { sheet } = useMapSheet(kit);
  const pressable = useMemo(() => {
    const open = here.checks.filter((c) => c.verdict === 'none');
    // What is still to be read comes before what is read again.
    const inOrder = [...here.checks.filter((c) => c.verdict !== 'none'), ...open.reverse()];
    return new Map(
      inOrder.map((c) => [
        nameOf(c),
        {
          title: `${nameOf(c)}: ${c.check.title}`,
          press: () => {
            choose(`check:${here.stage.id}:${c.check.id}`);
          },
        },
      ]),
    );
  }, [here, choose]);
  const over = useCallback((laid: LaidOut) => <MapPoints map={laid} points={pressable} />, [pressable]);
  return (
    <BoardMap
      sheet={sheet}
      present={present}
      marked={NOTHING}
      points={kit.sheet.testPoints}
      verdicts={verdicts}
      red={check ? pointOf(check.red) : null}
      black={check && check.mode !== 'dca' ? pointOf(check.black) : null}
      over={over}
    />
  );
}

/** Where a probe is drawn: at a point, at a part, at ground; null where its net has no point. */
const pointOf = (at: MeasureCheck['red']): string | null => ('testPoint' in at ? at.testPoint : 'ref' in at ? at.ref : at.net === '0' ? 'GND' : null);

/** The worst that was found at each point. */
const verdictsAt = ({ checks }: StageProgress): ReadonlyMap<string, Verdict> =>
  new Map([...new Set(checks.map(nameOf))].map((name) => [name, worst(checks.filter((c) => nameOf(c) === name).map((c) => c.verdict))]));

const NOTHING: ReadonlySet<string> = new Set();
