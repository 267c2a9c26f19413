import type { Line, Ref, Sheet } from '@/core/kit';
import type { Package } from '@/core/vocabulary';
import { type Marks, marksOf } from '../drawn/marks';

/** A rectangle by its middle, millimetres. */
export interface Box {
  readonly x: number;
  readonly y: number;
  readonly width: number;
  readonly height: number;
}

export interface PlacedPart extends Box {
  readonly ref: Ref;
  readonly line: Line;
  readonly marks: Marks;
  /** Degrees, clockwise as the screen counts. */
  readonly rotation: number;
}

export interface PlacedLabel extends Box {
  readonly id: string;
  readonly text: string;
}

/** Height of a letter and its mean width, millimetres. */
export const LETTER = 2.6;
const LETTER_WIDTH = 1.62;
const GAP = 0.9;
const EDGE = 6;

export const overlaps = (a: Box, b: Box, by = 0) => Math.abs(a.x - b.x) < (a.width + b.width) / 2 - by && Math.abs(a.y - b.y) < (a.height + b.height) / 2 - by;

/** Room of a body with its pads, as it lies turned. */
function roomOf(body: Package, rotation: number): { width: number; height: number } {
  const width = 2 * Math.max(body.width / 2, ...body.pads.map((p) => Math.abs(p.x) + 0.9));
  const height = 2 * Math.max(body.height / 2, ...body.pads.map((p) => Math.abs(p.y) + 0.9));
  return Math.round(rotation / 90) % 2 === 0 ? { width, height } : { width: height, height: width };
}

/** Parts at the places that the kit tells; without any, in rows in the order of the list. */
export function placeParts(sheet: Sheet): PlacedPart[] {
  const lineOf = new Map(sheet.lines.flatMap((l) => l.refs.map((r) => [r, l] as const)));
  const part = (ref: Ref, x: number, y: number, rotation: number): PlacedPart[] => {
    const line = lineOf.get(ref);
    if (!line) return [];
    const marks = marksOf(line);
    return [{ ref, line, marks, x, y, rotation, ...roomOf(marks.body, rotation) }];
  };
  const placed = sheet.placement.flatMap((p) => part(p.ref, p.x, p.y, p.rotation));
  const known = new Set(placed.map((p) => p.ref));
  // A socket lies under its chip; what else has no place yet stands in rows beneath.
  const rest = [...lineOf].flatMap(([ref, line]) => (known.has(ref) || (placed.length > 0 && marksOf(line).body.shape === 'socket') ? [] : part(ref, 0, 0, 0)));
  const bottom = Math.max(0, ...placed.map((p) => p.y + p.height / 2 + LETTER));
  return [...placed, ...inRows(rest).map((p) => ({ ...p, y: p.y + bottom }))];
}

export type Place = Sheet['placement'][number];

/** Where a part is drawn, as its record would say it. */
export function placeAs({ ref, x, y, rotation }: PlacedPart, known: readonly Place[]): Place {
  const side = known.find((p) => p.ref === ref)?.side;
  return { ref, x, y, rotation, ...(side ? { side } : {}) };
}

/** Outline of a board by its upper left corner, millimetres. */
export interface Outline {
  readonly board: string;
  readonly x: number;
  readonly y: number;
  readonly width: number;
  readonly height: number;
}

const boardOf = (ref: Ref) => (ref.includes(':') ? ref.split(':')[0]! : '');

/** One outline a board where boards lie beside one another on the drawing; a single one where they do not. */
export function outlinesOf(parts: readonly PlacedPart[], whole: { readonly width: number; readonly height: number }): Outline[] {
  const single = [{ board: '', x: 0, y: 0, ...whole }];
  const boards = [...new Set(parts.map((p) => boardOf(p.ref)))];
  if (boards.length < 2) return single;
  const outlines = boards.map((board): Outline => {
    const own = parts.filter((p) => boardOf(p.ref) === board);
    const [left, right] = [Math.min(...own.map((p) => p.x - p.width / 2)) - EDGE, Math.max(...own.map((p) => p.x + p.width / 2)) + EDGE];
    const bottom = Math.max(...own.map((p) => p.y + p.height / 2)) + EDGE;
    return { board, x: Math.max(0, left), y: 0, width: right - Math.max(0, left), height: bottom };
  });
  const apart = (a: Outline, b: Outline) => a.x + a.width <= b.x || b.x + b.width <= a.x;
  return outlines.every((a, i) => outlines.slice(i + 1).every((b) => apart(a, b))) ? outlines : single;
}

/** Shelves: as many in a row as make the board about four to three. */
function inRows(parts: readonly PlacedPart[]): PlacedPart[] {
  const area = parts.reduce((sum, p) => sum + (p.width + 4) * (p.height + LETTER + 4), 0);
  const most = Math.max(40, Math.sqrt(area * 1.5));
  let [x, y, tallest] = [EDGE, EDGE + LETTER, 0];
  return parts.map((p) => {
    if (x + p.width > most && x > EDGE) {
      y += tallest + LETTER + 3;
      [x, tallest] = [EDGE, 0];
    }
    const placed = { ...p, x: x + p.width / 2, y: y + p.height / 2 };
    x += p.width + 4;
    tallest = Math.max(tallest, p.height);
    return placed;
  });
}

export interface Wanted {
  readonly id: string;
  readonly text: string;
  /** What the label belongs to. */
  readonly around: Box;
}

/**
 * Labels beside their things without covering one another where there is room: above, below, right, left, then inside. The
 * place that covers least is taken, one label after another.
 */
export function placeLabels(wanted: readonly Wanted[], taken: readonly Box[]): PlacedLabel[] {
  const placed: PlacedLabel[] = [];
  for (const { id, text, around } of wanted) {
    const width = text.length * LETTER_WIDTH;
    const [dx, dy] = [(around.width + width) / 2 + GAP, (around.height + LETTER) / 2 + GAP];
    const candidates = [
      [0, -dy],
      [0, dy],
      [dx, 0],
      [-dx, 0],
      [dx * 0.75, -dy],
      [-dx * 0.75, -dy],
      [dx * 0.75, dy],
      [-dx * 0.75, dy],
      [0, 0],
    ].map(([x, y]) => ({ x: around.x + x!, y: around.y + y!, width, height: LETTER }));
    const covered = (c: Box) => [...taken, ...placed].reduce((sum, b) => sum + (overlaps(c, b) ? common(c, b) : 0), 0);
    let best = candidates[0]!;
    let least = Infinity;
    for (const c of candidates) {
      const cost = covered(c);
      if (cost < least) [best, least] = [c, cost];
      if (cost === 0) break;
    }
    placed.push({ id, text, ...best });
  }
  return placed;
}

const common = (a: Box, b: Box) => Math.max(0, (a.width + b.width) / 2 - Math.abs(a.x - b.x)) * Math.max(0, (a.height + b.height) / 2 - Math.abs(a.y - b.y));
