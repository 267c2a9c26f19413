import type { Target, TargetState } from './target';

/** What is skipped waits at the end of its group: a stage's parts and checks among themselves, everything else together. */
const groupOf = (target: Target): string => ('stage' in target ? (target.stage?.id ?? '') : '');

/** The targets with the skipped ones at the end of their group, in the order in which they were skipped. Nothing is lost, nothing comes twice. */
export function postponed(states: readonly TargetState[], skipped: readonly string[]): readonly TargetState[] {
  if (skipped.length === 0) return states;
  const groups = new Map<string, TargetState[]>();
  for (const s of states) groups.set(groupOf(s.target), [...(groups.get(groupOf(s.target)) ?? []), s]);
  return [...groups.values()].flatMap((group) => {
    const later = skipped.flatMap((id) => group.filter((s) => s.target.id === id && !s.done));
    return [...group.filter((s) => !later.includes(s)), ...later];
  });
}

/** Skipped once more, a target goes behind the other skipped ones. */
export const skippedAfter = (skipped: readonly string[], id: string): readonly string[] => [...skipped.filter((s) => s !== id), id];
