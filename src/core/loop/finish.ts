import { isSeenTo, type KitState } from '../kit';
import { modificationText } from './logText';
import { deriveStages, isBehind, type KnownWindows } from './progress';
import { adjustmentsDue } from './since';
import { fitTargets } from './fitTargets';

/** What is open while a kit is to be finished: each in a few words. */
export function openMatters(kit: KitState, windows: KnownWindows): string[] {
  const stages = deriveStages(kit, windows);
  const unfitted = fitTargets(kit).flatMap(({ target }) => (target.kind === 'fit' ? target.refs.filter((r) => !isSeenTo(kit.board, r)) : []));
  return [
    ...kit.board.modifications.filter((m) => m.temporary).map((m) => `for a test: ${modificationText(kit, m.change)}`),
    ...kit.waiting.map((w) => `waiting: ${w.reason}`),
    ...stages.filter((s) => s.status === 'overridden').map((s) => `“${s.stage.title}” did not pass: ${s.reason ?? ''}`),
    ...stages.filter((s) => s.status === 'postponed').map((s) => `“${s.stage.title}” waits for: ${s.reason ?? ''}`),
    ...stages.filter((s) => !isBehind(s.status)).map((s) => `“${s.stage.title}” has not passed`),
    ...(kit.board.removed.size > 0 ? [`left out: ${[...kit.board.removed].join(', ')}`] : []),
    ...adjustmentsDue(kit).map((d) => `${d.control} is due again (“${d.title}”): the board was changed since`),
    ...kit.sheet.differences.filter((d) => d.right === undefined).map((d) => `sources differ on ${d.about}`),
    // Who never ticked anything ticks nothing.
    ...(kit.board.fitted.size > 0 && unfitted.length > 0 ? [`not ticked: ${unfitted.slice(0, 8).join(', ')}${unfitted.length > 8 ? ' …' : ''}`] : []),
  ];
}

/** Whether the kit was called finished, and nothing was changed on its board since. */
export const isFinished = (kit: KitState): boolean => kit.finished !== null && kit.finished.at > (kit.change?.at ?? -1);
