import { useCallback, useMemo } from 'react';
import type { KitState } from '@/core/kit';
import { deriveStages, isMeasure } from '@/core/loop';
import { fittedAt, setupOf } from '@/core/stage';
import { worst } from '@/core/verdict';
import { checkObservableId, probeObservableId } from '@/core/vocabulary';
import { BoardMap, type LaidOut } from '../board/BoardMap';
import map from '../board/BoardMap.module.css';
import { MapPoints } from '../board/MapPoints';
import { pointOf } from '../board/pointOf';
import { useMapSheet } from '../board/useMapSheet';
import type { Loop } from '../probe/useLoop';
import { useWindows } from '../results/useWindows';
import styles from './Fault.module.css';

const NO_REFS: ReadonlySet<string> = new Set();

/** The board while a fault is looked for: any point can be pressed and is read next, whatever is advised. */
export function FaultMap({ kit, loop, next }: { kit: KitState; loop: Loop; next: string | null }) {
  const { sheet } = useMapSheet(kit);
  const windows = useWindows(kit);
  const stage = kit.sheet.stages.find((s) => s.id === kit.lastStage) ?? kit.sheet.stages.find((s) => s.supplies.length > 0);
  const progress = useMemo(() => deriveStages(kit, windows).find((s) => s.stage === stage), [kit, windows, stage]);
  const { choose } = loop;
  const points = useMemo(() => {
    if (!stage) return new Map<string, never>();
    const checkAt = (id: string) => stage.checks.find((c) => c.what === 'measure' && 'testPoint' in c.red && c.red.testPoint === id);
    return new Map(
      kit.sheet.testPoints.map((t) => {
        const check = checkAt(t.id);
        const advised = next === (check ? checkObservableId(stage.id, check.id) : probeObservableId(stage.id, t.id));
        return [
          t.id,
          {
            title: `Read ${t.id}${advised ? ', which tells most' : ''}`,
            press: () => {
              choose(check ? `check:${stage.id}:${check.id}` : `probe:${probeObservableId(stage.id, t.id)}`);
            },
          },
        ] as const;
      }),
    );
  }, [kit.sheet.testPoints, stage, next, choose]);
  const verdicts = useMemo(() => {
    const checks = (progress?.checks ?? []).filter(isMeasure);
    const at = (id: string) => checks.filter((c) => 'testPoint' in c.check.red && c.check.red.testPoint === id).map((c) => c.verdict);
    return new Map(kit.sheet.testPoints.map((t) => [t.id, worst(at(t.id))]));
  }, [progress, kit.sheet.testPoints]);
  const present = useMemo(() => (stage ? fittedAt(setupOf(kit), stage) : kit.board.fitted), [kit, stage]);
  const over = useCallback((laid: LaidOut) => <MapPoints map={laid} points={points} />, [points]);
  const { target } = loop;
  const check = target?.kind === 'check' && target.check.what === 'measure' ? target.check : null;
  const red = target?.kind === 'probe' ? target.testPoint.id : check ? pointOf(check.red) : null;
  const black = target?.kind === 'probe' ? 'GND' : check && check.mode !== 'dca' ? pointOf(check.black) : null;
  return (
    <section aria-label="Read at the map" className={`${map.frame} ${styles.whole}`}>
      <BoardMap sheet={sheet} present={present} marked={NO_REFS} points={kit.sheet.testPoints} verdicts={verdicts} red={red} black={black} over={over} />
    </section>
  );
}
