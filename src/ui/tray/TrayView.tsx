'use client';
import { deriveTray, type KitState } from '@/core/kit';
import type { Phase } from '@/core/loop';
import { lazy, Suspense } from 'react';
import type { Loop } from '../probe/useLoop';
import zones from '../shell/zones.module.css';
import { CountStory } from './CountStory';
import { Tray } from './Tray';

const CheckStory = lazy(() => import('./CheckStory').then((m) => ({ default: m.CheckStory })));
const PileView = lazy(() => import('./PileView').then((m) => ({ default: m.PileView })));

interface Props {
  readonly kit: KitState;
  readonly phase: 'unpack' | 'check';
  readonly loop: Loop;
  readonly go: (phase: Phase) => void;
}

/** Unpack and Check: the sorting tray, and what it tells. */
export function TrayView({ kit, phase, loop, go }: Props) {
  const tray = deriveTray(kit);
  if (phase === 'unpack' && loop.pileKind) return <PileView kit={kit} loop={loop} />;
  const left = loop.states.filter((s) => !s.done).length;
  return (
    <div className={`${zones.zones} ${zones.thingWhy}`}>
      <Tray kit={kit} tray={tray} phase={phase} loop={loop} go={go} />
      <aside className={`${zones.card} ${zones.why}`} aria-label="Why" data-tour="why">
        {phase === 'unpack' ? (
          <CountStory kit={kit} tray={tray} left={left} go={go} loop={loop} />
        ) : (
          <Suspense>
            <CheckStory kit={kit} tray={tray} left={left} go={go} loop={loop} />
          </Suspense>
        )}
      </aside>
    </div>
  );
}
