import { createSelector, weakMapMemoize } from 'reselect';
import { type MeterProfile, rangeFor } from '../../meter';
import type { PartMode } from '../../vocabulary';
import { judgePart, type PartVerdict, type Verdict, worst } from '../../verdict';
import { figuresOf, judgeFigure, type PartFigure } from '../figures';
import { absentRefs, expectationOf, isWanted } from '../lines';
import { offsetOf } from '../meters';
import type { EntryOf } from '../schema/entries';
import type { KitSettings, Line, Ref } from '../sheet';
import type { KitState, MeasuredPiece, Tally } from '../state';
import type { BoardState } from '../board';

/** One piece of a line: its place and the last reading that stands. */
export interface Piece {
  readonly index: number;
  /** The ref it is meant for; null for spares. */
  readonly ref: Ref | null;
  readonly entry: EntryOf<'measured'> | null;
  /** Place in the log of its reading; −1 without one. */
  readonly at: number;
  readonly verdict: Verdict;
  /** Further figures that were taken, with their verdicts. */
  readonly figures: readonly { readonly figure: PartFigure; readonly entry: EntryOf<'figured'>; readonly verdict: Verdict }[];
  /** Null without a reading, or when it was over-range. */
  readonly reckoning: PartVerdict | null;
}

/** A compartment of the tray. */
export interface Compartment {
  readonly line: Line;
  /** Null until counted. */
  readonly counted: number | null;
  readonly pieces: readonly Piece[];
  readonly verdict: Verdict;
  readonly skipped: boolean;
  /** The last marking read on each piece, by its index. */
  readonly markings: ReadonlyMap<number, string>;
}

/** The tray: one compartment a line that this edition has, in the order of the sheet. */
export const deriveTray = createSelector(
  [
    (kit: KitState) => kit.sheet.lines,
    (kit: KitState) => kit.choices,
    (kit: KitState) => kit.board.straps,
    (kit: KitState) => kit.tallies,
    (kit: KitState) => kit.skipped,
    (kit: KitState) => kit.settings.school,
  ],
  (lines, choices, straps, tallies, skipped, school): Compartment[] =>
    lines
      .filter((line) => isWanted(line, { choices }, { straps }))
      .map((line) => compartment(line, tallies.get(line.id) ?? null, school, skipped.has(line.id))),
);

const NO_FIGURES: Piece['figures'] = [];
const NO_PIECES: ReadonlyMap<number, MeasuredPiece> = new Map();

const compartment = weakMapMemoize((line: Line, tally: Tally | null, school: KitSettings['school'], skipped: boolean): Compartment => {
  const measured = tally?.pieces ?? NO_PIECES;
  const counted = tally?.total ?? null;
  const listed = Math.max(line.quantity, line.kind === 'link' ? 0 : line.refs.length);
  const present = Math.max(counted === null ? listed : Math.min(counted, Math.max(listed, 1)), ...[...measured.keys()].map((k) => k + 1));
  const pieces = Array.from({ length: present }, (_, i) => piece(line, i, measured.get(i) ?? null, tally?.figures.get(i), school));
  return { line, counted, pieces, verdict: worst(pieces.map((p) => p.verdict)), skipped, markings: tally?.markings ?? new Map<number, string>() };
});

function piece(
  line: Line,
  index: number,
  measured: MeasuredPiece | null,
  taken: ReadonlyMap<string, EntryOf<'figured'>> | undefined,
  school: KitSettings['school'],
): Piece {
  const figures = taken
    ? figuresOf(line).flatMap((figure) => {
        const entry = taken.get(figure.id);
        return entry ? [{ figure, entry, verdict: judgeFigure(figure, entry) }] : [];
      })
    : NO_FIGURES;
  const entry = measured?.entry ?? null;
  const reckoning = measured && judgeMeasured(line, measured.entry, measured.meter, school);
  return {
    index,
    ref: line.refs[index] ?? null,
    entry,
    at: measured?.at ?? -1,
    figures,
    verdict: worst([...figures.map((f) => f.verdict), !entry ? 'none' : entry.reading === 'over' ? 'out' : (reckoning?.verdict ?? 'none')]),
    reckoning,
  };
}

/** The reckoning behind one measured piece; null for over-range or when the line has no limits. */
export function judgeMeasured(line: Line, entry: EntryOf<'measured'>, meter: MeterProfile, school: KitSettings['school']): PartVerdict | null {
  const expected = expectationOf(line);
  if (!expected || entry.reading === 'over') return null;
  const range = rangeFor(meter, expected.mode, entry.reading);
  if (!range) return null;
  return judgePart({ nominal: expected.nominal, tolerance: expected.tolerance, reading: entry.reading, range, offset: offsetOf(meter, expected.mode) }, school);
}

/** A measured value with its standard uncertainty, SI. */
export interface MeasuredValue {
  readonly value: number;
  readonly standard: number;
}

/** Modes that read what the circuit holds as the part's value. */
const OF_VALUE = new Set<PartMode>(['ohms', 'capacitance', 'inductance']);

/** Kinds whose value on the board is another one than out of circuit: it turns, warms or lights. */
const VARIES = new Set<Line['kind']>(['trimmer', 'potentiometer', 'loudspeaker', 'thermistor', 'ldr', 'lamp', 'network']);

interface PlacedValue extends MeasuredValue {
  readonly ref: Ref;
  readonly at: number;
}

const placedValues = createSelector([deriveTray], (tray): PlacedValue[] =>
  tray.flatMap(({ line, pieces }) => {
    const mode = expectationOf(line)?.mode;
    if (!mode || !OF_VALUE.has(mode) || VARIES.has(line.kind)) return [];
    return pieces.flatMap((p) =>
      p.ref && p.reckoning && p.verdict !== 'out' ? [{ ref: p.ref, value: p.reckoning.corrected, standard: p.reckoning.standard, at: p.at }] : [],
    );
  }),
);

/**
 * Values of measured pieces by the ref they are meant for, on a board. A piece that was judged out is expected to be replaced
 * and is left out, and so is what was measured before the part was renewed.
 */
export const deriveMeasuredValues = createSelector(
  [placedValues, (_: KitState, board: BoardState) => board.renewed],
  (values, renewed): ReadonlyMap<Ref, MeasuredValue> =>
    new Map(values.filter((v) => v.at > (renewed.get(v.ref) ?? -1)).map(({ ref, value, standard }) => [ref, { value, standard }])),
);

/** Refs whose places stay empty on the board as it is. */
export const deriveAbsent = createSelector(
  [(kit: KitState) => kit.sheet, (kit: KitState) => kit.choices, (kit: KitState) => kit.board.straps],
  (sheet, choices, straps) => absentRefs({ sheet, choices }, { straps }),
);
