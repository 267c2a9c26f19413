import { checkTaken, type Entry, type EntryKind, type KitState, type Stage, stands } from '../kit';

/** What makes the board another one than it was. */
const CHANGES: ReadonlySet<EntryKind> = new Set<EntryKind>(['repaired', 'modified', 'restored', 'removed']);

/** Place in the log of the last reading of a check; −1 without one. */
const lastRead = (kit: KitState, stage: Stage, check: string): number => Math.max(-1, ...checkTaken(kit, stage, check).map((t) => t.met.at));

/** Changes of the board after a place in the log, oldest first. */
function changesAfter(kit: KitState, at: number): Entry[] {
  return kit.log.slice(at + 1).flatMap((e) => (stands(kit, e) && CHANGES.has(e.kind) ? [e] : []));
}

/** What was changed on the board since a stage was last read; empty where it was never read. */
export function changedSince(kit: KitState, stage: Stage): Entry[] {
  const last = Math.max(-1, ...stage.checks.map((c) => lastRead(kit, stage, c.id)));
  return last < 0 ? [] : changesAfter(kit, last);
}

/** A control that was set right before the board was changed: it is due again. */
export interface DueAgain {
  readonly stage: Stage;
  readonly title: string;
  /** Ref of the control. */
  readonly control: string;
}

/** Adjustments that were made on the board as it was before its last change. */
export function adjustmentsDue(kit: KitState): DueAgain[] {
  return kit.sheet.stages.flatMap((stage) =>
    stage.checks.flatMap((check): DueAgain[] => {
      if (check.adjust === undefined) return [];
      const last = lastRead(kit, stage, check.id);
      return last >= 0 && changesAfter(kit, last).length > 0 ? [{ stage, title: check.title, control: check.adjust }] : [];
    }),
  );
}
