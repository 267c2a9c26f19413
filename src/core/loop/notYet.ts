import type { KitState } from '../kit';
import { derivePlan, testsBefore } from '../plan';
import { deriveStages, type KnownWindows, passedStages } from './progress';

/** What has to pass before a step of the plan, in words; null where nothing does. */
export function notYet(kit: KitState, step: string, windows: KnownWindows): string | null {
  const tests = testsBefore(derivePlan(kit), step, passedStages(deriveStages(kit, windows)));
  if (tests.length === 0) return null;
  const words = tests.map((t) =>
    t.kind === 'stage' ? `“${t.stage.title}”` : `the supply volts at the empty ${t.chips.length === 1 ? 'socket' : 'sockets'} of ${t.chips.join(', ')}`,
  );
  return `Not yet: ${words.join(', then ')} first. A fault there is easier to find without this part.`;
}
