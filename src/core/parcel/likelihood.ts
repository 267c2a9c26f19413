import { type MeterRange, type Uncertainty, uncertaintyIn } from '../meter';
import { matchTypes } from '../vocabulary';
import { markingValues, type MarkingValues } from './marking';
import type { LoosePiece, ParcelLine, ParcelMeter } from './model';
import { typicalFigures } from './typicalTypes';

/** Log probabilities of what is printed, given what the piece is (choices of this product, tuned on the public parcels). */
const MARKING = { right: Math.log(0.9), oneColourOff: Math.log(0.01), other: Math.log(1e-5), otherType: Math.log(1e-3) } as const;
/** Share of pieces that come from a lot worse than claimed, and how far such pieces lie, relative. */
const CHEAP = { share: 0.12, resistor: 0.028, other: 0.11 } as const;
/** Good pieces lie inside their tolerance, about normally with this share of it as standard deviation. */
const GOOD_SHARE = 1 / 2.5;
/** Prior of a stranger, and its density per unit of ln(value) when nothing is known of it. */
const STRANGER = { prior: Math.log(0.02), density: Math.log(0.06) } as const;
/** A stranger's value differs from every line by at least this (share for R, factors for C and L). */
const APART = { R: 0.08, small: Math.log(1.45), large: Math.log(2.4) } as const;
const LARGE_CAPACITANCE = 1e-6;

/** A piece with everything derived from it that does not depend on a line. */
export interface WeighedPiece {
  readonly piece: LoosePiece;
  /** Reading less the leads; null when over range or nothing. */
  readonly y: number | null;
  readonly u: Uncertainty | null;
  readonly marking: MarkingValues | null;
  /** Says nothing on the meter although it should: assigned by its marking. */
  readonly dead: boolean;
}

function rangeOf(meter: ParcelMeter, piece: LoosePiece): MeterRange | null {
  const ranges = meter.accuracy[piece.quantity];
  if (!ranges || piece.value === null) return null;
  return ranges.find((r) => piece.value! <= r.upTo) ?? ranges[ranges.length - 1] ?? null;
}

export function weigh(piece: LoosePiece, meter: ParcelMeter): WeighedPiece {
  const range = rangeOf(meter, piece);
  const marking = piece.marking !== null && ['R', 'C', 'L'].includes(piece.kind) ? markingValues(piece.kind, piece.marking) : null;
  const u = range && piece.value !== null ? uncertaintyIn(range, piece.value) : null;
  const y = piece.value === null ? null : piece.value - (piece.quantity === 'resistance' ? meter.leadResistance : 0);
  return { piece, y, u, marking, dead: isDead(piece, u, marking, meter) };
}

/** Over range, or zero on a capacitor whose marking is far above what the meter resolves. */
function isDead(piece: LoosePiece, u: Uncertainty | null, marking: MarkingValues | null, meter: ParcelMeter): boolean {
  const marked = marking?.asRead[0];
  if (marked === undefined) return false;
  if (piece.kind === 'R') return piece.value === null && marked < 0.9 * Math.max(...(meter.accuracy.resistance ?? []).map((r) => r.upTo));
  return piece.kind === 'C' && piece.value !== null && u !== null && piece.value < 0.1 * marked && marked > 10 * u.halfWidth && piece.value <= u.halfWidth;
}

const logNormal = (x: number, sd: number) => -0.5 * (x / sd) ** 2 - Math.log(sd * Math.sqrt(2 * Math.PI));
const logSum = (a: number, b: number) => Math.max(a, b) + Math.log1p(Math.exp(-Math.abs(a - b)));
const near = (a: number, b: number) => Math.abs(a - b) <= 1e-6 * Math.abs(b);

/** Log likelihood that a piece belongs to a line whose lot lies off by `bias` (relative); −Infinity when it cannot. */
export function logLine(w: WeighedPiece, line: ParcelLine, bias: number): number {
  if (w.piece.kind !== line.kind) return -Infinity;
  if (line.value === null) return logType(w, line);
  const printed = logMarking(w, line.value);
  if (w.dead || w.y === null || !w.u) return printed + (w.dead ? 0 : -20);
  return printed + logReading(w.y, w.u, line, line.value * (1 + bias)) - beyondAnyLot(w.y, w.u, line);
}

function logMarking(w: WeighedPiece, value: number): number {
  if (!w.marking || w.marking.asRead.length === 0) return w.piece.marking === null ? 0 : MARKING.other / 2;
  if (w.marking.asRead.some((v) => near(v, value))) return MARKING.right;
  return w.marking.oneColourOff.some((v) => near(v, value)) ? MARKING.oneColourOff : MARKING.other;
}

/** Cheap lots end somewhere: farthest a piece of the line lies off, relative, before the meter's error (public parcels). */
const FARTHEST = { R: 0.055, other: 0.2 } as const;
const BEYOND_SCALE = 0.004;

/** Penalty for a deviation that neither tolerance nor a cheap lot nor the meter explains. */
function beyondAnyLot(y: number, u: Uncertainty, line: ParcelLine): number {
  const nominal = line.value!;
  const [low, high] = (line.tolerance ?? [-20, 20]).map((p) => p / 100) as [number, number];
  const farthest = line.kind === 'R' ? FARTHEST.R : FARTHEST.other;
  const off = (y - nominal) / nominal;
  const allowed = off < 0 ? Math.max(farthest, -low) : Math.max(farthest, high);
  return 0.5 * Math.min(60, Math.max(0, Math.abs(off) - allowed - u.halfWidth / nominal) / BEYOND_SCALE) ** 2;
}

/** Common unit of the densities of types, so that wide and narrow types compare: hFE, volts. */
const TYPE_SPAN = { hfe: 200, vf: 0.3 } as const;

/** Density over ln(value), so that lines of all sizes and the stranger compare. */
function logReading(y: number, u: Uncertainty, line: ParcelLine, nominal: number): number {
  const [low, high] = line.tolerance ?? [-20, 20];
  const middle = nominal * (1 + (low + high === 0 ? 0 : 0.12));
  const meter = u.standard / Math.max(y, u.standard);
  const good = ((Math.min(high, 40) - Math.max(low, -20)) / 200) * GOOD_SHARE * (low + high === 0 ? 1 : 1.1);
  const cheap = line.kind === 'R' ? Math.max(CHEAP.resistor, good) : Math.max(CHEAP.other, good);
  // A reading below the meter's own step says only "small".
  const z = (y - middle) / Math.max(y, middle);
  const floor = u.halfWidth / Math.max(y, middle);
  const sd = (s: number) => Math.hypot(s, meter, floor / Math.sqrt(3));
  return logSum(Math.log(1 - CHEAP.share) + logNormal(z, sd(good)), Math.log(CHEAP.share) + logNormal(z, sd(cheap)));
}

function logType(w: WeighedPiece, line: ParcelLine): number {
  const type = line.type ?? '';
  const figures = typicalFigures(type);
  const polarity = line.polarity ?? figures?.polarity;
  const { piece } = w;
  const marked = typeof piece.marking === 'string' ? piece.marking : null;
  const printed = marked === null ? 0 : { same: MARKING.right, grade: MARKING.oneColourOff, other: MARKING.otherType }[matchTypes(marked, type)];
  const wrongPolarity = polarity && piece.polarity && polarity !== piece.polarity.toUpperCase() ? -30 : 0;
  const range = (piece.quantity === 'hfe' ? figures?.hfe : figures?.vf) ?? line.limits;
  if (!range || w.y === null || !w.u) return printed + wrongPolarity - (w.y === null ? 3 : 0);
  const [low, high] = range;
  const outside = Math.max(0, low - w.y, w.y - high) / Math.max(w.u.standard, 1e-9);
  return printed + wrongPolarity - Math.log((high - low) / TYPE_SPAN[piece.quantity === 'hfe' ? 'hfe' : 'vf']) - 0.5 * Math.min(outside, 40) ** 2;
}

/** Whether a reading lies in the usual range of a type (widened by the meter's own error); false for unknown types. */
export function fitsType(w: WeighedPiece, type: string): boolean {
  const figures = typicalFigures(type);
  const range = w.piece.quantity === 'hfe' ? figures?.hfe : figures?.vf;
  if (!range || w.y === null || !w.u) return false;
  return w.y >= range[0] - w.u.halfWidth && w.y <= range[1] + w.u.halfWidth;
}

/** Log likelihood that a piece belongs to no line. */
export function logStranger(w: WeighedPiece, lines: readonly ParcelLine[]): number {
  const own = lines.filter((l) => l.kind === w.piece.kind);
  if (w.dead) return -Infinity;
  if (!['R', 'C', 'L'].includes(w.piece.kind)) return strangerType(w, own);
  const printed = strangerMarking(w, own);
  if (w.y === null || w.y <= 0) return STRANGER.prior + printed - 4;
  const gap = Math.min(Infinity, ...own.map((l) => Math.abs(Math.log(w.y! / l.value!))));
  return STRANGER.prior + STRANGER.density + printed + gapPenalty(w, gap);
}

/** Near a line there are no strangers, unless the marking itself says one. */
function gapPenalty(w: WeighedPiece, gap: number): number {
  const apart = w.piece.kind === 'R' ? APART.R : w.piece.kind === 'C' && w.y! >= LARGE_CAPACITANCE ? APART.large : APART.small;
  const share = gap / apart;
  return share >= 1 ? 0 : -12 * (1 - share) ** 2 - (share < 0.45 ? 8 : 0);
}

function strangerMarking(w: WeighedPiece, own: readonly ParcelLine[]): number {
  if (w.piece.marking === null) return 0;
  const values = w.marking?.asRead ?? [];
  const agrees = (v: number) => w.y !== null && Math.abs(Math.log(w.y / v)) < (w.piece.kind === 'R' ? 0.08 : 0.3);
  if (values.some((v) => agrees(v) && !own.some((l) => near(l.value!, v)))) return MARKING.right;
  if (w.marking?.oneColourOff.some((v) => agrees(v) && !own.some((l) => near(l.value!, v)))) return MARKING.oneColourOff;
  return MARKING.other;
}

function strangerType(w: WeighedPiece, own: readonly ParcelLine[]): number {
  const marked = typeof w.piece.marking === 'string' ? w.piece.marking : null;
  if (marked !== null) return STRANGER.prior + (own.some((l) => l.type !== null && matchTypes(marked, l.type) !== 'other') ? MARKING.other : MARKING.right);
  return STRANGER.prior - 1;
}
