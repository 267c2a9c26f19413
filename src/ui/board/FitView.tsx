'use client';
import { Skeleton, Tabs } from 'antd';
import { lazy, Suspense } from 'react';
import type { KitState } from '@/core/kit';
import type { Phase } from '@/core/loop';
import type { Loop } from '../probe/useLoop';
import type { CommandId } from '../shell/commands';
import zones from '../shell/zones.module.css';
import { BoardChanges } from './BoardChanges';
import { FitBoard } from './FitBoard';
import { FitStory } from './FitStory';

const PlanPanel = lazy(() => import('./PlanPanel').then((m) => ({ default: m.PlanPanel })));
const LookStory = lazy(() => import('./LookStory').then((m) => ({ default: m.LookStory })));
const TraceStory = lazy(() => import('./TraceStory').then((m) => ({ default: m.TraceStory })));

interface Props {
  readonly kit: KitState;
  readonly loop: Loop;
  readonly go: (phase: Phase) => void;
  readonly run: (id: CommandId) => void;
}

/** Fit: the board filling up and what goes in next; before it the bare board, after it a second look; a tester for what is unsure. */
export function FitView({ kit, loop, go, run }: Props) {
  const { fitMode } = loop;
  return (
    <div className={`${zones.zones} ${zones.thingWhy}`}>
      <FitBoard kit={kit} loop={loop} />
      <aside className={`${zones.card} ${zones.why}`} aria-label="Why">
        <Suspense fallback={<Skeleton active />}>
          {fitMode === 'fit' && (
            <Tabs
              size="small"
              items={[
                { key: 'hand', label: 'In the hand', children: <FitStory kit={kit} loop={loop} go={go} /> },
                { key: 'plan', label: 'Plan', children: <PlanPanel kit={kit} loop={loop} go={go} /> },
              ]}
            />
          )}
          {(fitMode === 'bare' || fitMode === 'look') && <LookStory kit={kit} loop={loop} mode={fitMode} />}
          {fitMode === 'trace' && <TraceStory kit={kit} loop={loop} />}
        </Suspense>
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
