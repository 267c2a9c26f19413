import type { WeighedPiece } from './likelihood';
import type { Lot, ParcelLine } from './model';

/** Classes that a lot can really keep, percent. */
const CLASSES = [0.1, 0.25, 0.5, 1, 2, 5, 10, 20, 30, 50, 80, 100];
/** Guard band in standard uncertainties (JCGM 106, guarded rejection). */
const GUARD = 2;

/** Whether the pieces of a line are worse than claimed, beyond what the meter can explain; null when they are not. */
export function judgeLot(line: ParcelLine, pieces: readonly WeighedPiece[]): Lot | null {
  const { value: nominal, tolerance } = line;
  if (nominal === null || !tolerance) return null;
  const readings = pieces.flatMap((w) => (w.dead || w.y === null || !w.u ? [] : [{ y: w.y, guard: GUARD * w.u.standard }]));
  const [low, high] = tolerance.map((p) => nominal * (1 + p / 100)) as [number, number];
  if (!readings.some(({ y, guard }) => y < low - guard || y > high + guard)) return null;
  const worst = Math.max(...readings.map(({ y, guard }) => (100 * (Math.abs(y - nominal) - guard)) / nominal));
  return { line: line.number, claimed: Math.max(Math.abs(tolerance[0]), Math.abs(tolerance[1])), actual: CLASSES.find((c) => c >= worst) ?? 100 };
}
