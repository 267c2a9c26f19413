import { useCallback, useMemo } from 'react';
import type { KitState } from '@/core/kit';
import type { StageProgress } from '@/core/loop';
import { fittedAt, setupOf } from '@/core/stage';
import { type Verdict, worst } from '@/core/verdict';
import { BoardMap, type LaidOut } from '../board/BoardMap';
import { MapPoints } from '../board/MapPoints';
import { pointOf } from '../board/pointOf';
import { useMapSheet } from '../board/useMapSheet';
import type { Loop } from '../probe/useLoop';
import { nameOf } from './StageList';

/** The board at a stage: what is fitted then, what was found where; a point that is pressed brings its check into the hand. */
export function StageMap({ kit, here, loop }: { kit: KitState; here: StageProgress; loop: Loop }) {
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

/** The worst that was found at each point. */
const verdictsAt = ({ checks }: StageProgress): ReadonlyMap<string, Verdict> =>
  new Map([...new Set(checks.map(nameOf))].map((name) => [name, worst(checks.filter((c) => nameOf(c) === name).map((c) => c.verdict))]));

const NOTHING: ReadonlySet<string> = new Set();
