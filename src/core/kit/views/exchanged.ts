import { createSelector } from 'reselect';
import { factsOf } from '../../vocabulary';
import type { Line, Ref } from '../sheet';
import { deriveTray } from './tray';

/** A piece that was measured, and the place it is meant for. */
export interface PlacedPiece {
  readonly line: Line;
  readonly ref: Ref;
  readonly reading: number;
}

/** A reading counts as a value when it lies within this share of it, or twice its tolerance. */
const NEAR = 0.1;
const fits = (reading: number, { value, kind }: Line) => value !== null && Math.abs(reading / value - 1) <= Math.max(NEAR, 2 * factsOf(kind).tolerance[1]);

/** Pairs of pieces of which each was measured as the other's value. */
export const deriveExchanged = createSelector([deriveTray], (tray): (readonly [PlacedPiece, PlacedPiece])[] => {
  const misplaced = tray.flatMap(({ line, pieces }) =>
    pieces.flatMap((p): PlacedPiece[] =>
      p.ref !== null && p.entry !== null && typeof p.entry.reading === 'number' && !fits(p.entry.reading, line)
        ? [{ line, ref: p.ref, reading: p.entry.reading }]
        : [],
    ),
  );
  return misplaced.flatMap((a, i) =>
    misplaced
      .slice(i + 1)
      .filter((b) => a.line.kind === b.line.kind && a.line.value !== b.line.value && fits(a.reading, b.line) && fits(b.reading, a.line))
      .map((b) => [a, b] as const),
  );
});
