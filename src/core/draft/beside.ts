import { type ChangedBody, type KitState, putAll } from '../kit';
import type { Beside } from './newKit';
import { withLooks } from './newKit';

/** What a circuit brings along into a kit that is there already: test points for nets that have none, looks for its last stage under power. */
export function besideChanges(kit: KitState, beside: Beside): ChangedBody[] {
  const { testPoints, stages } = kit.sheet;
  const have = new Set(testPoints.map((t) => t.net.toLowerCase()));
  const taken = new Set(testPoints.map((t) => t.id));
  const points = Object.entries(beside.where)
    .filter(([net]) => !have.has(net.toLowerCase()))
    .map(([net, where]) => {
      const id = freeId(taken);
      taken.add(id);
      return { id, net, where };
    });
  const checks = withLooks(stages, beside.looks).flatMap((s, i) => s.checks.slice(stages[i]!.checks.length).map((c) => ({ stage: s.id, ...c })));
  return [...putAll(kit, 'testPoints', points), ...putAll(kit, 'checks', checks)];
}

function freeId(taken: ReadonlySet<string>): string {
  let k = 1;
  while (taken.has(`TP${k}`)) k++;
  return `TP${k}`;
}
