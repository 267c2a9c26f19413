import { isSeenTo, type KitState } from '../kit';
import { derivePlan } from '../plan';
import type { TargetState } from './target';

/** What goes in, in the order of the plan. */
export function fitTargets(kit: KitState): TargetState[] {
  return derivePlan(kit).steps.flatMap((step): TargetState[] => {
    if (step.kind !== 'fit') return [];
    const { id, stage, line, refs } = step;
    return [{ target: { kind: 'fit', id, stage, line, refs }, done: refs.every((r) => isSeenTo(kit.board, r)) }];
  });
}
