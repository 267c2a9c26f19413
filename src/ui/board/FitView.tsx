'use client';
import { Segmented, Skeleton, Slider, Switch, Tabs } from 'antd';
import { lazy, Suspense, useMemo, useState } from 'react';
import type { KitState } from '@/core/kit';
import type { Phase } from '@/core/loop';
import { useBench } from '@/store/bench';
import type { FitMode, Loop } from '../probe/useLoop';
import type { CommandId } from '../shell/commands';
import zones from '../shell/zones.module.css';
import { BoardChanges } from './BoardChanges';
import { BoardMap } from './BoardMap';
import styles from './BoardMap.module.css';
import { FitStory } from './FitStory';
import { ZoomFrame } from './ZoomFrame';

const PlanPanel = lazy(() => import('./PlanPanel').then((m) => ({ default: m.PlanPanel })));
const LookStory = lazy(() => import('./LookStory').then((m) => ({ default: m.LookStory })));
const TraceStory = lazy(() => import('./TraceStory').then((m) => ({ default: m.TraceStory })));
const Places = lazy(() => import('./Places').then((m) => ({ default: m.Places })));

interface Props {
  readonly kit: KitState;
  readonly loop: Loop;
  readonly go: (phase: Phase) => void;
  readonly run: (id: CommandId) => void;
}

const NO_REFS: readonly string[] = [];
const NO_POINTS: readonly never[] = [];
const NO_VERDICTS: ReadonlyMap<string, never> = new Map<string, never>();

const MODES: readonly { readonly value: FitMode; readonly label: string }[] = [
  { value: 'bare', label: 'Bare board' },
  { value: 'fit', label: 'Fit' },
  { value: 'look', label: 'Second look' },
  { value: 'trace', label: 'Trace' },
];

/** Fit: the board filling up and what goes in next; before it the bare board, after it a second look; a tester for what is unsure. */
export function FitView({ kit, loop, go, run }: Props) {
  const [copper, setCopper] = useState(false);
  const [drawing, setDrawing] = useState(0.5);
  const attachments = useBench((s) => s.attachments);
  const mapped = kit.sheet.photos.find((p) => p.onMap && attachments[p.hash]);
  const photo = useMemo(
    () => (mapped?.onMap ? { picture: `data:${mapped.type};base64,${attachments[mapped.hash]!}`, onMap: mapped.onMap, drawing } : null),
    [mapped, attachments, drawing],
  );
  const { target, fitMode } = loop;
  const refs = target?.kind === 'fit' ? target.refs : target?.kind === 'inspect' ? target.item.refs : NO_REFS;
  const points = useMemo(() => (target?.kind === 'trace' ? target.pads.map((id, i) => ({ id, net: '', ...target.places?.[i] })) : NO_POINTS), [target]);
  return (
    <div className={`${zones.zones} ${zones.thingWhy}`}>
      <section className={`${zones.card} ${styles.board}`} aria-label="Board">
        <header className={`${zones.row} ${zones.between} ${styles.head}`}>
          <Segmented<FitMode> aria-label="What is done at the board" value={fitMode} options={[...MODES]} onChange={loop.setFitMode} />
          <div className={zones.row}>
            <label className={zones.row}>
              <Switch size="small" checked={copper} onChange={setCopper} aria-label="From the copper side" /> copper side
            </label>
            {photo && (
              <Slider
                className={styles.slider ?? ''}
                min={0}
                max={100}
                value={100 * drawing}
                tooltip={{ formatter: (v) => `drawing ${v ?? 0} %` }}
                ariaLabelForHandle="Drawing over the photo"
                onChange={(v) => {
                  setDrawing(v / 100);
                }}
              />
            )}
            <Suspense>
              <Places kit={kit} />
            </Suspense>
          </div>
        </header>
        {kit.sheet.placement.length === 0 && <p className={`soft ${styles.rows}`}>No part has a place yet: they lie in rows, not to scale.</p>}
        <ZoomFrame className={`${styles.frame} ${copper ? styles.copper : ''}`}>
          <BoardMap
            photo={photo}
            sheet={kit.sheet}
            present={kit.board.fitted}
            marked={new Set(refs)}
            points={points}
            verdicts={NO_VERDICTS}
            red={target?.kind === 'trace' ? target.pads[0] : null}
            black={target?.kind === 'trace' ? target.pads[1] : null}
          />
        </ZoomFrame>
      </section>
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
