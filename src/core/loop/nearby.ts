import type { KitState, MeasureCheck, Stage } from '../kit';
import { print } from '../quantity';
import { computedWindow } from '../stage';
import { checkObservableId, probeObservableId } from '../vocabulary';
import type { KnownWindows } from './progress';

/** A slipping tip bridges so many millimetres; from so many volts on that is dangerous for board and tip (own figures). */
const SLIP = 4;
const DANGEROUS = 20;

/** What stands so close to the red probe that a slip would hurt, in words; null where nothing does. */
export function dangerNear(kit: KitState, stage: Stage, check: MeasureCheck, windows: KnownWindows): string | null {
  if (stage.supplies.length === 0 || !('testPoint' in check.red)) return null;
  const { testPoint } = check.red;
  const here = kit.sheet.testPoints.find((t) => t.id === testPoint);
  if (here?.x === undefined || here.y === undefined) return null;
  const voltsAt = (id: string) => computedWindow(windows?.[probeObservableId(stage.id, id)])?.middle ?? voltsOfCheck(stage, id, windows);
  const own = voltsAt(here.id) ?? 0;
  const close = kit.sheet.testPoints.flatMap((t) => {
    if (t.id === here.id || t.x === undefined || t.y === undefined || Math.hypot(t.x - here.x!, t.y - here.y!) > SLIP) return [];
    const volts = voltsAt(t.id);
    return volts !== null && Math.abs(volts - own) >= DANGEROUS ? [{ id: t.id, volts }] : [];
  });
  const worst = close.sort((a, b) => Math.abs(b.volts - own) - Math.abs(a.volts - own))[0];
  return worst ? `Next to it ${worst.id} carries ${print(worst.volts, 'V', 2)}: hold the probe still.` : null;
}

/** Where a check reads a point, the point has no reading of its own. */
function voltsOfCheck(stage: Stage, testPoint: string, windows: KnownWindows): number | null {
  const check = stage.checks.find((c) => c.what === 'measure' && c.mode === 'dcv' && 'testPoint' in c.red && c.red.testPoint === testPoint);
  return check ? (computedWindow(windows?.[checkObservableId(stage.id, check.id)])?.middle ?? null) : null;
}
