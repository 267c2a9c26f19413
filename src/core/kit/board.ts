import type { Modification, Ref } from './sheet';

/** The board as it was at some moment: what the log says beyond the plan of the stages. Shared by all readings that met it. */
export interface BoardState {
  /** Counts the changes of the board; equal numbers within one kit mean the same board. */
  readonly number: number;
  readonly fitted: ReadonlySet<Ref>;
  readonly removed: ReadonlySet<Ref>;
  readonly set: ReadonlyMap<Ref, number>;
  /** Changes that stand on the board, in the order in which they were made. */
  readonly modifications: readonly Made[];
  /** Straps as they stand on the board, by option. */
  readonly straps: ReadonlyMap<string, string>;
  /** Refs whose piece was exchanged or repaired, with the place in the log: what was measured before says nothing of the new one. */
  readonly renewed: ReadonlyMap<Ref, number>;
  /** Values that were put in place of the listed ones, SI. */
  readonly values: ReadonlyMap<Ref, number>;
}

/** A change of the board, and the entry that says so. */
export interface Made {
  readonly entry: string;
  readonly change: Modification;
  /** There for a test only. */
  readonly temporary: boolean;
  readonly why: string | null;
}

export const BARE_BOARD: BoardState = {
  number: 0,
  fitted: new Set(),
  removed: new Set(),
  set: new Map(),
  modifications: [],
  straps: new Map(),
  renewed: new Map(),
  values: new Map(),
};

/** Whether a place was seen to: its part is in, or was left out on purpose. */
export const isSeenTo = (board: BoardState, ref: Ref): boolean => board.fitted.has(ref) || board.removed.has(ref);

const without = <T>(set: ReadonlySet<T>, gone: readonly T[]) => new Set([...set].filter((v) => !gone.includes(v)));
const changed = (board: BoardState, by: Partial<BoardState>): BoardState => ({ ...board, ...by, number: board.number + 1 });

export const withFitted = (board: BoardState, refs: readonly Ref[]) =>
  changed(board, { fitted: new Set([...board.fitted, ...refs]), removed: without(board.removed, refs) });

export const withRemoved = (board: BoardState, refs: readonly Ref[]) =>
  changed(board, { fitted: without(board.fitted, refs), removed: new Set([...board.removed, ...refs]) });

export const withSet = (board: BoardState, ref: Ref, value: number) => changed(board, { set: new Map(board.set).set(ref, value) });

/** A stage's own settings take the place of positions that were noted before it. */
export const withUnset = (board: BoardState, refs: readonly Ref[]): BoardState =>
  refs.some((r) => board.set.has(r)) ? changed(board, { set: new Map([...board.set].filter(([r]) => !refs.includes(r))) }) : board;

export const withRepaired = (board: BoardState, refs: readonly Ref[], at: number) =>
  changed(board, { renewed: new Map([...board.renewed, ...refs.map((r) => [r, at] as const)]) });

/** A modification of the board itself; an option's first strap is knowledge and is kept apart by the caller. */
export function withModification(board: BoardState, made: Made, at: number): BoardState {
  const { change } = made;
  if (change.what === 'strap') return changed(board, { straps: new Map(board.straps).set(change.option, change.choice) });
  const modifications = [...board.modifications, made];
  if (change.what !== 'value-replaced') return changed(board, { modifications });
  return changed(board, { modifications, renewed: new Map(board.renewed).set(change.ref, at), values: valuesOf(modifications) });
}

/** The board without a change that stood on it. What was put in place of a part goes with it: a part like the listed one is there again. */
export function withRestored(board: BoardState, entry: string, at: number): BoardState {
  const made = board.modifications.find((m) => m.entry === entry);
  if (!made) return board;
  const modifications = board.modifications.filter((m) => m !== made);
  const renewed = made.change.what === 'value-replaced' ? new Map(board.renewed).set(made.change.ref, at) : board.renewed;
  return changed(board, { modifications, renewed, values: valuesOf(modifications) });
}

const valuesOf = (modifications: readonly Made[]): ReadonlyMap<Ref, number> =>
  new Map(modifications.flatMap(({ change }) => (change.what === 'value-replaced' ? [[change.ref, change.value] as const] : [])));
