import { createSelector } from 'reselect';
import {
  type BoardState,
  deriveMeasuredValues,
  derivePostponed,
  isWanted,
  type KitState,
  type Line,
  type MeasuredValue,
  meterOf,
  type Ref,
  type Sheet,
} from '../kit';
import type { MeterProfile } from '../meter';

/**
 * What the circuit of a kit follows from: what should be, the board as it is (or was), what the pieces measured, and the
 * meter on it. Plain data: equal setups have equal windows, wherever they are computed.
 */
export interface Setup {
  readonly sheet: Pick<Sheet, 'lines' | 'circuit' | 'testPoints' | 'stages' | 'typeCards' | 'options'>;
  readonly choices: ReadonlyMap<string, string>;
  /** Refs of stages that wait for something: planned, and not in yet. */
  readonly postponed: readonly Ref[];
  readonly board: BoardState;
  readonly measured: ReadonlyMap<Ref, MeasuredValue>;
  readonly meter: MeterProfile;
}

interface Moment {
  readonly board: BoardState;
  readonly meter: MeterProfile;
}

const assemble = createSelector(
  [
    (kit: KitState) => kit.sheet.lines,
    (kit: KitState) => kit.sheet.circuit,
    (kit: KitState) => kit.sheet.testPoints,
    (kit: KitState) => kit.sheet.stages,
    (kit: KitState) => kit.sheet.typeCards,
    (kit: KitState) => kit.sheet.options,
    (kit: KitState) => kit.choices,
    derivePostponed,
    (kit: KitState, m: Moment) => deriveMeasuredValues(kit, m.board),
    (_: KitState, m: Moment) => m.board,
    (_: KitState, m: Moment) => m.meter,
  ],
  (lines, circuit, testPoints, stages, typeCards, options, choices, postponed, measured, board, meter): Setup => ({
    sheet: { lines, circuit, testPoints, stages, typeCards, options },
    choices,
    postponed,
    board,
    measured,
    meter,
  }),
);

/** The setup as it is now, or as a reading met it. */
export const setupOf = (kit: KitState, moment: Moment = { board: kit.board, meter: meterOf(kit) }): Setup => assemble(kit, moment);

/** Lines whose parts this board has. */
export const wantedLines = (setup: Setup): Line[] => setup.sheet.lines.filter((l) => isWanted(l, setup, setup.board));
