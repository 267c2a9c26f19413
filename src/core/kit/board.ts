import { type Modification, type Ref } from './sheet';

/** The board as it was at some moment: what the log says beyond the plan of the stages. Shared by all readings that met it. */
export interface BoardState {
  /** Counts the changes of the board; equal numbers within one kit mean the same board. */
  readonly number: number;
  readonly fitted: ReadonlySet<Ref>;
  readonly removed: ReadonlySet<Ref>;
  readonly set: ReadonlyMap<Ref, number>;
  readonly modifications: readonly Modification[];
  /** Straps as they stand on the board, by option. */
  readonly straps: ReadonlyMap<string, string>;
  /** Refs whose piece was exchanged or repaired, with the place in the log: what was measured before says nothing of the new one. */
  readonly renewed: ReadonlyMap<Ref, number>;
  /** Values that were put in place of the listed ones, SI. */
  readonly values: ReadonlyMap<Ref, number>;
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

const without = <T>(set: ReadonlySet<T>, gone: readonly T[]) => new Set([...set].filter((v) => !gone.includes(v)));
const changed = (board: BoardState, by: Partial<BoardState>): BoardState => ({ ...board, ...by, number: board.number + 1 });

export const withFitted = (board: BoardState, refs: readonly Ref[]) =>
  changed(board, { fitted: new Set([...board.fitted, ...refs]), removed: without(board.removed, refs) });

export const withRemoved = (board: BoardState, refs: readonly Ref[]) =>
  changed(board, { fitted: without(board.fitted, refs), removed: new Set([...board.removed, ...refs]) });

export const withSet = (board: BoardState, ref: Ref, value: number) => changed(board, { set: new Map(board.set).set(ref, value) });

export const withRepaired = (board: BoardState, refs: readonly Ref[], at: number) =>
  changed(board, { renewed: new Map([...board.renewed, ...refs.map((r) => [r, at] as const)]) });

/** A modification of the board itself; an option's first strap is knowledge and is kept apart by the caller. */
export function withModification(board: BoardState, change: Modification, at: number): BoardState {
  if (change.what === 'strap') return changed(board, { straps: new Map(board.straps).set(change.option, change.choice) });
  const modifications = [...board.modifications, change];
  if (change.what !== 'value-replaced') return changed(board, { modifications });
  return changed(board, {
    modifications,
    renewed: new Map(board.renewed).set(change.ref, at),
    values: new Map(board.values).set(change.ref, change.value),
  });
}
