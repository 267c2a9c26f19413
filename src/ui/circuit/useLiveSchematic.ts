import { useMemo } from 'react';
import type { KitState } from '@/core/kit';
import { isMeasure, type StageProgress } from '@/core/loop';
import { printWindow } from '@/core/quantity';
import { fittedAt, setupOf } from '@/core/stage';
import type { Loop } from '../probe/useLoop';
import type { LiveNet, LiveSchematic } from './live';
import { netOfPoint, voltsNetOf } from './netOfPoint';

const NONE: ReadonlySet<string> = new Set();

/** The schematic of a stage as the bench wants it: windows and verdicts at its nets, a press takes a check into the hand. */
export function useLiveSchematic(kit: KitState, here: StageProgress | null, loop: Loop, suspected: ReadonlySet<string> = NONE): LiveSchematic {
  const { choose, target } = loop;
  return useMemo(() => {
    const check = target?.kind === 'check' && target.check.what === 'measure' ? target.check : null;
    return {
      nets: here ? netsOf(kit, here, choose) : new Map<string, LiveNet>(),
      absent: here ? absentAt(kit, here) : NONE,
      suspected,
      red: check ? netOfPoint(kit, check.red) : null,
      black: check ? netOfPoint(kit, check.black) : null,
      pressPart: null,
    };
  }, [kit, here, choose, target, suspected]);
}

function netsOf(kit: KitState, here: StageProgress, choose: Loop['choose']): Map<string, LiveNet> {
  const found = new Map<string, LiveNet>();
  for (const c of here.checks) {
    if (!isMeasure(c)) continue;
    const net = voltsNetOf(kit, c.check);
    // What is still to be read comes before what is read again.
    if (net === null || (found.has(net) && c.verdict !== 'none')) continue;
    const window = c.window && !c.window.over ? printWindow(c.window.low, c.window.high, 'V', 3) : null;
    found.set(net, {
      title: `${c.check.title}: ${window ?? 'no limits'}. Select this check.`,
      window,
      verdict: c.verdict,
      press: () => {
        choose(`check:${here.stage.id}:${c.check.id}`);
      },
    });
  }
  return found;
}

/** Parts of the list that do not sit on the board at a stage. */
function absentAt(kit: KitState, here: StageProgress): ReadonlySet<string> {
  const present = fittedAt(setupOf(kit), here.stage);
  const planned = new Set(kit.sheet.stages.flatMap((s) => s.fits));
  return new Set([...planned, ...kit.board.removed].filter((r) => !present.has(r)));
}
