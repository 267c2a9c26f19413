import type { Of } from '../vocabulary/schema';
import type { HAPPENED } from './schema/entries';
import type { MeasureCheckShape, ObserveCheckShape, ProbePointShape, RecordOf } from './schema/records';

/** A position on a board: `R7`, or `B:R7` when a kit has several boards. */
export type Ref = string;

export type Line = RecordOf<'lines'>;
export type { LineKind } from '../vocabulary';
export type Need = RecordOf<'needs'>;
export type KitOption = RecordOf<'options'>;
export type TestPoint = RecordOf<'testPoints'>;
export type Placement = RecordOf<'placement'>;
/** A symbol of the schematic that the builder put somewhere by hand. */
type SymbolPlace = RecordOf<'symbols'>;
export type Claim = RecordOf<'claims'>;
export type TypeCard = RecordOf<'typeCards'>;
export type Photo = RecordOf<'photos'>;
export type ProbePoint = Of<typeof ProbePointShape>;
export type MeasureCheck = Of<typeof MeasureCheckShape>;
export type ObserveCheck = Of<typeof ObserveCheckShape>;
export type Check = MeasureCheck | ObserveCheck;
export type Owned = Of<(typeof HAPPENED)['owned']['owned']>;
export type ReadingValue = Of<(typeof HAPPENED)['read']['reading']>;
export type Modification = Of<(typeof HAPPENED)['modified']['change']>;

/** A stage with its checks, in order. */
export type Stage = RecordOf<'stages'> & { readonly checks: readonly Check[] };
export type StageSupply = Stage['supplies'][number];

/** The circuit with the pairs of nets whose pads lie side by side. */
export type CircuitSheet = RecordOf<'circuit'> & { readonly neighbours: readonly (readonly [string, string])[] };

/** What should be, as folded from the records of its rooms. Equal rooms keep their identity from state to state. */
export interface Sheet extends Readonly<RecordOf<'about'>> {
  readonly boards: readonly RecordOf<'boards'>[];
  readonly lines: readonly Line[];
  readonly needs: readonly Need[];
  readonly options: readonly KitOption[];
  readonly circuit: CircuitSheet | null;
  /** A board round chips in sentences; null where it is none. */
  readonly functions: RecordOf<'functions'> | null;
  readonly testPoints: readonly TestPoint[];
  readonly placement: readonly Placement[];
  readonly symbols: readonly SymbolPlace[];
  readonly pads: readonly RecordOf<'pads'>[];
  readonly stages: readonly Stage[];
  readonly claims: readonly Claim[];
  readonly typeCards: readonly TypeCard[];
  readonly photos: readonly Photo[];
  readonly constraints: readonly RecordOf<'constraints'>[];
  readonly differences: readonly RecordOf<'differences'>[];
}

type Setting = RecordOf<'settings'>;
type SettingValue<N extends Setting['name']> = Extract<Setting, { name: N }>['value'];

/** The hidden truth behind the simulated meter of a practice kit. */
export type StandIn = NonNullable<SettingValue<'standIn'>>;
/** What matters most first, everything in list order, only what cannot be read, or one of each packet. */
export type MeasuringSchool = SettingValue<'measure'>;

/** What a board gets its first power from. */
export type FirstPowerBy = NonNullable<SettingValue<'firstPower'>>;

/** In which order parts go in; null: as advised. */
export type FittingSchool = NonNullable<SettingValue<'fitting'>>;

export interface KitSettings {
  /** Id of the meter in use. */
  readonly meter: string;
  readonly school: SettingValue<'school'>;
  /** Which pieces are worth measuring. */
  readonly measure: MeasuringSchool;
  readonly fitting: FittingSchool | null;
  /** One's own order of fitting, as far as it was given. */
  readonly order: readonly Ref[];
  /** Null until it was asked. */
  readonly firstPower: FirstPowerBy | null;
  /** Minutes that one sits at the bench at a time. */
  readonly sitting: number;
  /** Effort of a reading against one of DC volts, on one's own bench. */
  readonly efforts: SettingValue<'efforts'>;
  /** One's own meters, beside the typical ones. */
  readonly meters: readonly RecordOf<'meters'>[];
  readonly standIn: StandIn | null;
}

export const DEFAULT_SETTINGS: KitSettings = {
  meter: 'handheld',
  school: 'simple',
  measure: 'matters',
  fitting: null,
  order: [],
  firstPower: null,
  sitting: 60,
  // Common practice, no source: a frequency waits for its gate; ohms want supply off, capacitors empty, leads out.
  efforts: { moving: 1.5, cold: 4 },
  meters: [],
  standIn: null,
};
export const EMPTY_SHEET: Sheet = {
  title: 'Untitled kit',
  boards: [],
  lines: [],
  needs: [],
  options: [],
  circuit: null,
  functions: null,
  testPoints: [],
  placement: [],
  symbols: [],
  pads: [],
  stages: [],
  claims: [],
  typeCards: [],
  photos: [],
  constraints: [],
  differences: [],
};
