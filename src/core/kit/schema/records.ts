/**
 * The records of a kit's rooms: the only place where their fields are told. Types, the published schema, the compiled
 * validators and the table in `docs/formats.md` all come from here. All values are SI.
 */
import { type TSchema, Type } from '@sinclair/typebox';
import { MeterShape } from '../../meter/schema';
import { CHECK_MODES, LINE_KINDS } from '../../vocabulary';
import { type RoomName } from './names';
import { Count, Flag, Id, List, Nullable, Num, type Of, OneOf, Pair, Positive, Refs, Shape, Text, Optional } from '../../vocabulary/schema';

const Limits = Pair(Num);
const Polarity = OneOf('centre-plus', 'centre-minus');

const About = Shape('what the kit is', {
  title: Type.String({ minLength: 1, maxLength: 200 }),
  maker: Optional(Text),
  edition: Optional(Text),
  note: Optional(Text),
});

const Board = Shape('board', { id: Id, name: Text, revision: Optional(Text) });

/** What should be on one row of the parts list. */
const LineRecord = Shape('line of the parts list', {
  id: Id,
  kind: OneOf(...LINE_KINDS),
  /** As the list prints it: `10k 1 %`, `1N4148`, `LED green 5 mm`. */
  label: Text,
  /** Nominal value in the SI unit of the kind; null for parts known by type only. */
  value: Nullable(Num),
  /** Relative limits such as −0.05 and 0.05; null when the list gives none. */
  tolerance: Nullable(Limits),
  quantity: Count,
  refs: Refs,
  /** Type number: `1N4148`. */
  type: Optional(Text),
  package: Optional(Text),
  colour: Optional(Text),
  /** hFE, or threshold volts of a field-effect transistor, among good parts. */
  range: Optional(Limits),
  rating: Optional(Type.Object({ volts: Optional(Num), watts: Optional(Num), amperes: Optional(Num) }, { additionalProperties: false })),
  /** `option=choice`: only fitted with this choice. */
  option: Optional(Text),
  /** A place on the board that stays empty. */
  notFitted: Optional(Flag),
  /** Slip or message that changed the printed list, in words. */
  amendment: Optional(Text),
  note: Optional(Text),
});

/** Wanted but not supplied. */
const NeedRecord = Shape('need', {
  id: Id,
  kind: OneOf('supply', 'load', 'battery', 'firmware', 'lead', 'tool', 'other'),
  text: Text,
  volts: Optional(Num),
  amperes: Optional(Num),
  ohms: Optional(Num),
  watts: Optional(Num),
  plug: Optional(Text),
  polarity: Optional(Polarity),
});

/** An edition, a strap or an extra that changes what is fitted. */
const OptionRecord = Shape('option', { id: Id, text: Text, choices: List(Text, 100) });

const CircuitRecord = Shape('circuit', {
  /** SPICE deck. */
  deck: Type.String({ maxLength: 2000000 }),
  /** Element of the deck for a ref, where the two names differ. */
  elements: Optional(Type.Record(Type.String(), Id)),
});

const TestPointRecord = Shape('test point', {
  id: Id,
  net: Id,
  /** Where to find it: `lead of R11 next to U1`. */
  where: Text,
  /** Place on the drawing of the board, millimetres. */
  x: Optional(Num),
  y: Optional(Num),
});

/** Place of a part on the drawing of its board, millimetres and degrees. */
const PlacementRecord = Shape('place of a part', { ref: Id, x: Num, y: Num, rotation: Num });

/** Place of one pin, millimetres, and the net it lies on where that is known. */
const PadRecord = Shape('pad', { ref: Id, pin: Id, x: Num, y: Num, net: Optional(Id) });

const StageRecord = Shape('stage', {
  id: Id,
  title: Text,
  kind: OneOf('look', 'cold', 'power', 'adjust', 'load', 'run'),
  note: Optional(Text),
  /** Refs fitted before this stage, beyond those of the stages above. */
  fits: Refs,
  /** Refs taken out or unplugged for this stage only. */
  without: Optional(Refs),
  /** Positions and values to set: a control at 0..1, a jumper, a condition such as a sensor's ohms. */
  settings: Optional(List(Shape('setting of a stage', { ref: Id, value: Num, text: Text }), 200)),
  /** Voltage sources of the deck, volts and current limit to set, amperes. */
  supplies: List(Shape('supply of a stage', { source: Id, volts: Num, limit: Positive }), 20),
  cautions: Optional(List(Text, 20)),
});

/** Where a probe goes. */
export const ProbePointShape = Type.Union([
  Type.Object({ testPoint: Id }, { additionalProperties: false }),
  Type.Object({ net: Id }, { additionalProperties: false }),
  Type.Object({ ref: Id, pin: Id }, { additionalProperties: false }),
]);

const measureFields = {
  id: Id,
  what: Type.Literal('measure'),
  title: Text,
  note: Optional(Text),
  mode: OneOf(...CHECK_MODES),
  red: ProbePointShape,
  black: ProbePointShape,
  /** `dca`: the supply whose display is read. */
  source: Optional(Id),
  /** Only when the kit's own instructions give one. */
  window: Optional(Shape('typed window', { low: Num, high: Num })),
};
const observeFields = {
  id: Id,
  what: Type.Literal('observe'),
  title: Text,
  note: Optional(Text),
  action: Text,
  expect: Text,
  channels: Optional(List(Text, 200)),
  /** What shows it in the circuit: this part carries at least (or, when negative, less than) so many amperes. */
  sign: Optional(Shape('sign in the circuit', { ref: Id, amperes: Num })),
};
/** A measurement with its two points. */
export const MeasureCheckShape = Shape('measurement', measureFields);
/** Do this, expect that; with channels each is tried by itself. */
export const ObserveCheckShape = Shape('observation', observeFields);
/** A check as it is stored: it names its stage. */
const CheckRecord = Type.Union([
  Shape('measurement of a stage', { stage: Id, ...measureFields }),
  Shape('observation of a stage', { stage: Id, ...observeFields }),
]);

/** Something the kit promises, such as `output 1.25 to 15 V`. */
const ClaimRecord = Shape('claim', { id: Id, text: Text, check: Optional(Id) });

/** A data sheet, typed once. Each figure with its source. */
const TypeCardRecord = Shape('type card', {
  type: Id,
  pins: Type.Record(Type.String(), List(Text, 200)),
  figures: List(Shape('figure of a type card', { name: Text, value: Num, unit: Text, source: Text }), 200),
});

/** A photo; its bytes are stored once by their SHA-256 and stand under `attachments` in a file. */
const PhotoRecord = Shape('photo', {
  id: Id,
  name: Text,
  hash: Id,
  type: Text,
  size: Count,
  pins: Optional(List(Shape('pin on a photo', { ref: Id, x: Num, y: Num }))),
});

/** Two nets whose pads lie side by side. */
const NeighbourRecord = Shape('neighbouring nets', { nets: Pair(Id) });

/** A rule of fitting order: `ref` goes in before `before`. */
const ConstraintRecord = Shape('constraint of the order', { id: Id, ref: Id, before: Id, why: Text });

const MEASURING_SCHOOLS = ['matters', 'all', 'unreadable', 'one-per-packet'] as const;
const StandInShape = Shape('simulated board', {
  seed: Type.Integer(),
  /** Fault on the simulated board, base64 of its JSON so that a glance at the file gives nothing away. */
  fault: Text,
  /** Pieces in the simulated bag that differ from their line: line id → values. */
  pieces: Type.Record(Type.String(), List(Num, 1000)),
});

/** One setting each, under its name. */
const SettingRecord = Type.Union([
  Shape('meter in use', { name: Type.Literal('meter'), value: Id }),
  Shape('school of judging', { name: Type.Literal('school'), value: OneOf('simple', 'guarded') }),
  Shape('school of measuring', { name: Type.Literal('measure'), value: OneOf(...MEASURING_SCHOOLS) }),
  Shape('practice', { name: Type.Literal('standIn'), value: Nullable(StandInShape) }),
]);

/** What a record of each room holds. */
export const ROOM_SCHEMAS = {
  about: About,
  boards: Board,
  options: OptionRecord,
  lines: LineRecord,
  needs: NeedRecord,
  circuit: CircuitRecord,
  neighbours: NeighbourRecord,
  testPoints: TestPointRecord,
  placement: PlacementRecord,
  pads: PadRecord,
  stages: StageRecord,
  checks: CheckRecord,
  claims: ClaimRecord,
  typeCards: TypeCardRecord,
  photos: PhotoRecord,
  constraints: ConstraintRecord,
  meters: MeterShape,
  settings: SettingRecord,
} as const satisfies Readonly<Record<RoomName, TSchema>>;

export type RecordOf<R extends RoomName> = Of<(typeof ROOM_SCHEMAS)[R]>;
