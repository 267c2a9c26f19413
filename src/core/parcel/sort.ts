import { assign, type Assignment, regret } from './assign';
import { fitsType, logLine, logStranger, weigh, type WeighedPiece } from './likelihood';
import { judgeLot } from './lots';
import type { LoosePiece, ParcelLine, ParcelMeter, Sorted, Sureness } from './model';

/** Cost of a place on the list that stays empty, and of a piece beyond the list (log odds of shortage and spare). */
const EMPTY = 2.2;
const BEYOND = 2.2;
const IMPOSSIBLE = 1e6;
/** Lots are off by a common amount; it is estimated from the pieces and the assignment repeated. */
const ROUNDS = 3;
/** A lot's bias shrinks towards zero as if this many unbiased pieces were added. */
const SHRINK = 1.5;
const MOST_BIAS = 0.05;

/**
 * The most likely assignment of all pieces of a bag to all lines at once: surplus pieces, shortages and strangers are
 * priced alternatives, so nothing is forced.
 */
export function sortParcel(pieces: readonly LoosePiece[], lines: readonly ParcelLine[], meter: ParcelMeter): Sorted {
  const weighed = pieces.map((p) => weigh(p, meter));
  let bias = new Map<number, number>();
  let placed: (number | null)[] = [];
  for (let round = 0; round < ROUNDS; round++) {
    placed = placesOf(layOut(weighed, lines, bias));
    bias = biases(weighed, lines, placed);
  }
  return summary(weighed, lines, followStrangers(weighed, lines, placed));
}

/** How sure each place is, for those that are not beyond doubt: what the whole would cost more if the piece went elsewhere. */
export function sureness(pieces: readonly LoosePiece[], lines: readonly ParcelLine[], meter: ParcelMeter, sorted: Sorted): Sureness[] {
  const weighed = pieces.map((p) => weigh(p, meter));
  const placed = pieces.map((p) => sorted.assignment[p.id] ?? null);
  const layout = layOut(weighed, lines, biases(weighed, lines, placed));
  if (layout === null) return [];
  return weighed.flatMap((w, i): Sureness[] => {
    const mine = placesOf(layout)[i] ?? null;
    const { cost, instead } = regret(layout.cost, weighed.length, layout.width, layout.assignment, i, (j) => lineAt(layout, i, j) === mine);
    const other = secondFallback(w, lines, layout.fits[i]!, mine);
    const direct = other.cost - layout.cost[i * layout.width + layout.assignment.columnOf[i]!]!;
    const least = Math.min(cost, direct);
    if (least > SURE) return [];
    return [{ piece: w.piece.id, probability: 1 / (1 + Math.exp(-least)), instead: direct < cost ? other.line : lineAt(layout, i, instead) }];
  });
}

/** Differences in log likelihood above this are beyond doubt. */
const SURE = 5;

/** A place that a piece can take without crowding out another: surplus of a line, or with the strangers. */
interface Fallback {
  readonly line: number | null;
  readonly cost: number;
}

/** The whole assignment problem and its solution; null without pieces. */
interface Sorting {
  readonly lines: readonly ParcelLine[];
  readonly fits: readonly (readonly number[])[];
  /** Index of the line that each shared column stands for; each piece's own fallback column follows behind. */
  readonly places: readonly number[];
  readonly fallbacks: readonly Fallback[];
  readonly width: number;
  readonly cost: Float64Array;
  readonly assignment: Assignment;
}

function layOut(weighed: readonly WeighedPiece[], lines: readonly ParcelLine[], bias: ReadonlyMap<number, number>): Sorting | null {
  const n = weighed.length;
  if (n === 0) return null;
  const fits = weighed.map((w) => lines.map((l) => logLine(w, l, bias.get(l.number) ?? 0)));
  // Surplus is unlimited, so beyond the places on the list nobody crowds anybody out.
  const places = lines.flatMap((l, k) => Array.from({ length: Math.min(l.quantity, n) }, () => k));
  const width = places.length + n;
  const cost = new Float64Array(n * width).fill(IMPOSSIBLE);
  const fallbacks = weighed.map((w, i) => fallbackOf(w, lines, fits[i]!));
  weighed.forEach((_, i) => {
    places.forEach((k, j) => {
      const log = fits[i]![k]!;
      if (log > -IMPOSSIBLE) cost[i * width + j] = -EMPTY - log;
    });
    cost[i * width + places.length + i] = fallbacks[i]!.cost;
  });
  return { lines, fits, places, fallbacks, width, cost, assignment: assign(cost, n, width) };
}

/** Line number that a column means for a piece; null for the strangers. */
function lineAt(s: Sorting, piece: number, column: number): number | null {
  return column < s.places.length ? s.lines[s.places[column]!]!.number : s.fallbacks[piece]!.line;
}

/** Line number of every piece, or null. */
const placesOf = (s: Sorting | null) => (s ? [...s.assignment.columnOf].map((j, i) => lineAt(s, i, j)) : []);

function fallbackOf(w: WeighedPiece, lines: readonly ParcelLine[], fits: readonly number[]): Fallback {
  const stranger = logStranger(w, lines);
  let best: Fallback = { line: null, cost: Number.isFinite(stranger) ? -stranger : IMPOSSIBLE / 2 };
  lines.forEach((l, k) => {
    const cost = BEYOND - fits[k]!;
    if (cost < best.cost) best = { line: l.number, cost };
  });
  return best;
}

/** The best place outside the list that is not `mine`. */
function secondFallback(w: WeighedPiece, lines: readonly ParcelLine[], fits: readonly number[], mine: number | null): Fallback {
  if (mine === null) return fallbackOf({ ...w, dead: true }, lines, fits);
  return fallbackOf(
    w,
    lines,
    fits.map((f, k) => (lines[k]!.number === mine ? -Infinity : f)),
  );
}

/**
 * A whole line supplied in another type: when pieces that are marked as a stranger's type stand in for a short line,
 * its unmarked pieces that fit that type too belong to them (one event explains more than several).
 */
function followStrangers(weighed: readonly WeighedPiece[], lines: readonly ParcelLine[], placed: readonly (number | null)[]): (number | null)[] {
  const next = [...placed];
  for (const line of lines) {
    if (line.type === null) continue;
    const here = weighed.flatMap((_, i) => (placed[i] === line.number ? [i] : []));
    if (here.length === 0 || here.some((i) => weighed[i]!.piece.marking !== null)) continue;
    const marked = weighed.filter((w, i) => placed[i] === null && w.piece.kind === line.kind && typeof w.piece.marking === 'string');
    const types = new Set(marked.map((w) => String(w.piece.marking)));
    const [type] = types;
    if (types.size !== 1 || type === undefined || marked.length + here.length !== line.quantity) continue;
    if (here.every((i) => fitsType(weighed[i]!, type))) for (const i of here) next[i] = null;
  }
  return next;
}

/** Common relative offset of each line's pieces. */
function biases(weighed: readonly WeighedPiece[], lines: readonly ParcelLine[], placed: readonly (number | null)[]): Map<number, number> {
  const found = new Map<number, number>();
  for (const line of lines) {
    if (line.kind !== 'R' || line.value === null) continue;
    const own = weighed.filter((w, i) => placed[i] === line.number && !w.dead && w.y !== null);
    if (own.length < 2) continue;
    const sum = own.reduce((s, w) => s + (w.y! - line.value!) / line.value!, 0);
    found.set(line.number, Math.max(-MOST_BIAS, Math.min(MOST_BIAS, sum / (own.length + SHRINK))));
  }
  return found;
}

function summary(weighed: readonly WeighedPiece[], lines: readonly ParcelLine[], placed: readonly (number | null)[]): Sorted {
  const missing: Record<string, number> = {};
  const surplus: Record<string, number> = {};
  const lots = [];
  for (const line of lines) {
    const own = weighed.filter((_, i) => placed[i] === line.number);
    if (own.length < line.quantity) missing[line.number] = line.quantity - own.length;
    if (own.length > line.quantity) surplus[line.number] = own.length - line.quantity;
    const lot = judgeLot(line, own);
    if (lot) lots.push(lot);
  }
  return {
    assignment: Object.fromEntries(weighed.map((w, i) => [w.piece.id, placed[i] ?? null])),
    missing,
    surplus,
    strangers: weighed.filter((_, i) => placed[i] === null).map((w) => w.piece.id),
    lots,
    dead: weighed.filter((w) => w.dead).map((w) => w.piece.id),
  };
}
