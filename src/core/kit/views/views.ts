import { createSelector } from 'reselect';
import { checkObservableId } from '../../vocabulary';
import { isKnown } from '../schema/known';
import type { Entry, EntryOf, UnknownEntry } from '../schema/entries';
import type { Stage } from '../sheet';
import type { KitState, LoosePiece, Taken } from '../state';

export type CheckEntry = EntryOf<'read'> | EntryOf<'observed'>;

/** Whether an entry counts: known, not taken back and no withdrawal itself. */
export const stands = (kit: Pick<KitState, 'gone'>, e: Entry | UnknownEntry): e is Entry => isKnown(e) && e.kind !== 'withdrawn' && !kit.gone.has(e.id);

/** Readings and observations of a check, oldest first. */
export const checkTaken = (kit: KitState, stage: Stage, check: string) =>
  (kit.readings.get(checkObservableId(stage.id, check)) ?? []) as readonly Taken<CheckEntry>[];

/**
 * Whether a reading still counts: a repair or modification makes what was read in the stage that was worked on before it
 * history, since it showed the fault.
 */
export const isFresh = (kit: Pick<KitState, 'change'>, taken: Taken): boolean =>
  kit.change === null || taken.met.at > kit.change.at || taken.entry.stage !== kit.change.stage;

/** Tries of functions on the board as it is: a change of the board makes earlier ones history. By what was done. */
export const deriveTried = createSelector(
  [(kit: KitState) => kit.tried, (kit: KitState) => kit.change],
  (tried, change): ReadonlyMap<string, EntryOf<'tried'>> =>
    new Map([...tried].flatMap(([check, { entry, at }]) => (change === null || at > change.at ? [[check, entry] as const] : []))),
);

/** The last `waiting` that was not resumed: where the work stopped. */
export const deriveWaiting = (kit: KitState): EntryOf<'waiting'> | null => kit.waiting[kit.waiting.length - 1] ?? null;

/** Loose pieces that were sorted to no line. */
export const deriveStrangers = createSelector([(kit: KitState) => kit.loose], (loose): LoosePiece[] => [...loose.values()].filter((p) => p.line === null));

/** Loose pieces that were not sorted yet. */
export const derivePile = createSelector([(kit: KitState) => kit.loose], (loose): LoosePiece[] => [...loose.values()].filter((p) => p.line === undefined));

/** Whether an entry belongs to the step that made the kit: that is no step of the work, and undoing it would leave nothing. */
export function isOfMaking(kit: Pick<KitState, 'log'>, e: Entry | UnknownEntry): boolean {
  if (e.kind !== 'changed' || e.batch === undefined) return false;
  return e.batch === kit.log.find((x) => isKnown(x) && x.kind === 'changed')?.batch;
}

/** The entry that "undo" takes back: the newest that counts, with its batch; null when nothing is left but the kit's making. */
export function lastUndoable(kit: KitState): Entry | null {
  for (let i = kit.log.length - 1; i >= 0; i--) {
    const e = kit.log[i]!;
    if (!stands(kit, e)) continue;
    return isOfMaking(kit, e) ? null : e;
  }
  return null;
}

/** The withdrawal that "redo" takes back: the newest, when nothing but withdrawals came after it. */
export function lastRedoable(kit: KitState): EntryOf<'withdrawn'> | null {
  for (let i = kit.log.length - 1; i >= 0; i--) {
    const e = kit.log[i]!;
    if (e.kind !== 'withdrawn') return null;
    const own = e as EntryOf<'withdrawn'>;
    if (kit.gone.has(own.id)) continue;
    const aim = own.entry === undefined ? undefined : kit.log.find((x) => x.id === own.entry);
    // A withdrawal that took back a withdrawal is a redo itself.
    if (aim?.kind === 'withdrawn') continue;
    return own;
  }
  return null;
}

/** Traces that still hold: what was not as drawn may have been mended by the last change of the board. */
export const deriveTraced = createSelector([(kit: KitState) => kit.traced, (kit: KitState) => kit.change], (traced, change) =>
  traced.filter(({ entry, at }) => change === null || at > change.at || entry.drawn === entry.beep),
);
