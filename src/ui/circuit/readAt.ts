import type { KitState } from '@/core/kit';
import { voltsNetOf } from './netOfPoint';

/** Last reading at each net in a stage, volts against ground; nets in small letters. */
export function readAt(kit: KitState, stageId: string | null): ReadonlyMap<string, number> {
  const stage = kit.sheet.stages.find((s) => s.id === stageId);
  const found = new Map<string, number>();
  for (const { entry: e } of [...kit.readings.values()].flat()) {
    if (e.kind === 'observed' || e.stage !== stageId || typeof e.reading !== 'number') continue;
    const check = e.kind === 'read' ? stage?.checks.find((c) => c.id === e.check) : undefined;
    const net =
      e.kind === 'probed'
        ? kit.sheet.testPoints.find((t) => t.id === e.testPoint)?.net.toLowerCase()
        : check?.what === 'measure'
          ? voltsNetOf(kit, check)
          : null;
    if (net) found.set(net, e.reading);
  }
  return found;
}
