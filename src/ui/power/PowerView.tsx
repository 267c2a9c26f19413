'use client';
import { Button, Segmented } from 'antd';
import { lazy, Suspense, useState } from 'react';
import { currentStage, deriveStages, type Phase } from '@/core/loop';
import type { KitState } from '@/core/kit';
import map from '../board/BoardMap.module.css';
import type { Loop } from '../probe/useLoop';
import { useWindows } from '../results/useWindows';
import zones from '../shell/zones.module.css';
import styles from './PowerView.module.css';
import { StageList } from './StageList';
import { StageMap } from './StageMap';
import { StageStory } from './StageStory';
import { BoardChanges } from '../board/BoardChanges';
import { useSupply } from '@/store/instrument';
import { useSheetTab } from '../sheet/sheetTab';
import type { CommandId } from '../shell/commands';
import { Nothing } from '../drawn/Nothing';

const StageSchematic = lazy(() => import('../circuit/StageSchematic').then((m) => ({ default: m.StageSchematic })));
const AdjustPanel = lazy(() => import('./AdjustPanel').then((m) => ({ default: m.AdjustPanel })));
const EventPanel = lazy(() => import('./AdjustPanel').then((m) => ({ default: m.EventPanel })));
const Repeats = lazy(() => import('./Repeats').then((m) => ({ default: m.Repeats })));
const SoakPanel = lazy(() => import('./SoakPanel').then((m) => ({ default: m.SoakPanel })));
const RepairStory = lazy(() => import('../fault/RepairStory').then((m) => ({ default: m.RepairStory })));
const FinishCard = lazy(() => import('./FinishCard').then((m) => ({ default: m.FinishCard })));
const SupplyPanel = lazy(() => import('../live/SupplyPanel').then((m) => ({ default: m.SupplyPanel })));
const LoadDesk = lazy(() => import('../load/LoadDesk').then((m) => ({ default: m.LoadDesk })));

interface Props {
  readonly kit: KitState;
  readonly loop: Loop;
  readonly go: (phase: Phase) => void;
  readonly run: (id: CommandId) => void;
}

/** Power up: the ladder of stages, the board with its points, what this stage wants. */
export function PowerView({ kit, loop, go, run }: Props) {
  const [shown, setShown] = useState<'map' | 'schematic'>('map');
  const windows = useWindows(kit);
  const supplied = useSupply((s) => s.session !== null || s.said !== '');
  const stages = deriveStages(kit, windows);
  const inHand = loop.target?.kind === 'check' || loop.target?.kind === 'prepare' ? loop.target.stage.id : null;
  const here = stages.find((s) => s.stage.id === inHand) ?? currentStage(stages) ?? stages[stages.length - 1];
  if (!here)
    return (
      <div className={`${zones.zones} ${zones.one}`}>
        <section className={zones.card} aria-label="Stages">
          <Nothing say="This kit has no stages yet. A test order is proposed from the circuit, or from the list alone. Or write the stages yourself.">
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
      <section className={`${zones.card} ${map.frame} ${zones.map} ${styles.stacked}`} aria-label="Board map">
        {kit.sheet.circuit !== null && (
          <Segmented
            size="small"
            aria-label="What is shown"
            className={styles.shown ?? ''}
            value={shown}
            onChange={setShown}
            options={[
              { value: 'map', label: 'Board map' },
              { value: 'schematic', label: 'Schematic' },
            ]}
          />
        )}
        <div className={styles.area}>
          {shown === 'schematic' ? (
            <Suspense>
              <StageSchematic kit={kit} here={here} loop={loop} />
            </Suspense>
          ) : (
            <StageMap kit={kit} here={here} loop={loop} />
          )}
        </div>
      </section>
      <aside className={`${zones.card} ${zones.why}`} aria-label="Why">
        {turning && (
          <Suspense>
            <AdjustPanel key={turning.id} kit={kit} here={here} check={turning} />
          </Suspense>
        )}
        {inHandCheck?.what === 'measure' && turning === null && (
          <Suspense>
            <Repeats kit={kit} stage={here.stage} check={inHandCheck} />
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
        {supplied && (
          <Suspense>
            <SupplyPanel
              key={here.stage.id}
              kit={kit}
              stage={here.stage}
              early={here.status === 'waiting'}
              target={loop.target}
              setText={loop.setText}
              take={loop.take}
            />
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
          {kit.sheet.functions !== null && (
            <Button
              size="small"
              onClick={() => {
                go('functions');
              }}
            >
              Try its functions
            </Button>
          )}
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
      {primary ? 'See the proposed stages' : 'Edit stages and checks'}
    </Button>
  );
}
