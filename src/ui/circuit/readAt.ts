import type { KitState } from '@/core/kit';

/** Last reading at each net in a stage, volts. */
export function readAt(kit: KitState, stageId: string | null): ReadonlyMap<string, number> {
  const stage = kit.sheet.stages.find((s) => s.id === stageId);
  const netOf = (tp: string) => kit.sheet.testPoints.find((t) => t.id === tp)?.net;
  const found = new Map<string, number>();
  for (const { entry: e } of [...kit.readings.values()].flat()) {
    if (e.kind === 'observed' || e.stage !== stageId || typeof e.reading !== 'number') continue;
    const check = e.kind === 'read' ? stage?.checks.find((c) => c.id === e.check) : undefined;
    if (check && (check.what !== 'measure' || check.mode !== 'dcv')) continue;
    const net = e.kind === 'probed' ? netOf(e.testPoint) : check?.what === 'measure' && 'testPoint' in check.red ? netOf(check.red.testPoint) : undefined;
    if (net !== undefined) found.set(net, e.reading);
  }
  return found;
}
