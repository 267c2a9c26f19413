/**
 * The records of a kit's rooms: the only place where their fields are told. Types, the published schema, the compiled
 * validators and the table in `docs/formats.md` all come from here. All values are SI.
 */
import { type TSchema, Type } from '@sinclair/typebox';
import { MeterShape } from '../../meter/schema';
import { CHECK_MODES, LINE_KINDS } from '../../vocabulary';
import type { RoomName } from './names';
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
const OptionRecord = Shape('option', {
  id: Id,
  text: Text,
  choices: List(Text, 100),
  /** Nets that a choice connects: a jumper or a strap in that position. */
  links: Optional(List(Shape('link of a choice', { choice: Text, nets: Pair(Id) }), 100)),
});

const CircuitRecord = Shape('circuit', {
  /** SPICE deck. */
  deck: Type.String({ maxLength: 2000000 }),
  /** Element of the deck for a ref, where the two names differ. */
  elements: Optional(Type.Record(Type.String(), Id)),
});

/** A board round chips, as its instructions say it: what is wired where, and what does what, one sentence a line. */
const FunctionsRecord = Shape('functions', { sentences: Type.String({ maxLength: 200000 }) });

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
const PlacementRecord = Shape('place of a part', { ref: Id, x: Num, y: Num, rotation: Num, side: Optional(OneOf('top', 'bottom')) });

const GridStep = Type.Integer({ minimum: -20_000, maximum: 20_000 });
/** Where a symbol of the schematic was put by hand, on the drawing's grid, y downwards. */
const SymbolRecord = Shape('symbol of the schematic', {
  ref: Id,
  x: GridStep,
  y: GridStep,
  rotation: Type.Unsafe<0 | 90 | 180 | 270>({ type: 'number', enum: [0, 90, 180, 270] }),
  mirror: Optional(Flag),
});

/** Place of one pin, millimetres, and the net it lies on where that is known. */
const PadRecord = Shape('pad', { ref: Id, pin: Id, x: Num, y: Num, net: Optional(Id) });

/** Position or value to set: a control at 0..1, a jumper, a condition such as a sensor's ohms. */
const SettingOfStage = Shape('setting of a stage', { ref: Id, value: Num, text: Text });

const StageRecord = Shape('stage', {
  id: Id,
  title: Text,
  kind: OneOf('look', 'cold', 'power', 'adjust', 'load', 'run'),
  note: Optional(Text),
  /** Refs fitted before this stage, beyond those of the stages above. */
  fits: Refs,
  /** Refs taken out or unplugged for this stage only. */
  without: Optional(Refs),
  /** Positions and values to set. */
  settings: Optional(List(SettingOfStage, 200)),
  /** Sources of the deck with the volts (RMS of a winding) and the current limit to set, amperes. */
  supplies: List(
    Shape('supply of a stage', {
      source: Id,
      volts: Num,
      limit: Positive,
      /** Power source: a bench supply or adapter, a winding of a transformer, a battery. As the deck has it when left out. */
      feed: Optional(OneOf('dc', 'winding', 'battery')),
      /** Inner resistance of a winding or battery, ohms. */
      ohms: Optional(Num),
      /** Of a winding, hertz. */
      hertz: Optional(Positive),
    }),
    20,
  ),
  /** How a stage without supplies is dead: its supply taken off (when left out), or connected and switched off. */
  power: Optional(OneOf('unplugged', 'off')),
  cautions: Optional(List(Text, 20)),
  /** Needs without which it cannot be done, such as a programmer. */
  needs: Optional(List(Id, 20)),
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
  /**
   * What the kit's own instructions give, or `from` simulated healthy boards, where the drawing alone would mislead; `of` tells the
   * state of the kit that those follow from. Without an upper limit over-range is in as well.
   */
  window: Optional(Shape('typed window', { low: Nullable(Num), high: Nullable(Num), from: Optional(OneOf('simulated', 'usual')), of: Optional(Text) })),
  /** The control that is turned until the reading lies in its window, or is the least or the most that it can be. */
  adjust: Optional(Id),
  aim: Optional(OneOf('window', 'least', 'most')),
  /** What is set for this check only. */
  settings: Optional(List(SettingOfStage, 50)),
};
const observeFields = {
  id: Id,
  what: Type.Literal('observe'),
  title: Text,
  note: Optional(Text),
  action: Text,
  expect: Text,
  channels: Optional(List(Text, 200)),
  /** The control that is turned until it happens: a tone that just stops, a wave that takes its shape. */
  adjust: Optional(Id),
  /** What shows it in the circuit: this part carries at least (or, when negative, less than) so many amperes. */
  sign: Optional(Shape('sign in the circuit', { ref: Id, amperes: Num })),
  /** What is set for this check only. */
  settings: Optional(List(SettingOfStage, 50)),
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

const SpanShape = Pair(Positive);
/** Parts of known value, or of one between two, that set a frequency. */
const OscillatorShape = Type.Union([
  Shape('RC oscillator', { form: Type.Literal('rc-2.3'), r: SpanShape, c: SpanShape }),
  Shape('timer oscillator', { form: Type.Literal('555-astable'), ra: SpanShape, rb: SpanShape, c: SpanShape }),
  Shape('two-transistor oscillator', { form: Type.Literal('two-transistor'), r1: SpanShape, c1: SpanShape, r2: SpanShape, c2: SpanShape }),
]);
/** What a claim amounts to, with what it depends on: supply, load, circuit, references. SI throughout. */
const ClaimMeansShape = Type.Union([
  Shape('claimed power', {
    kind: Type.Literal('power'),
    topology: OneOf('single-ended', 'bridge', 'split'),
    outputClass: OneOf('ab', 'd'),
    supplyVolts: Positive,
    supplyAmps: Nullable(Positive),
    loadOhms: Positive,
    saturationVolts: Num,
    claimedWatts: Positive,
    claimedAs: OneOf('rms', 'peak'),
  }),
  Shape('claimed range', {
    kind: Type.Literal('range'),
    vref: Positive,
    iadj: Num,
    rTop: Positive,
    rBottom: Pair(Num),
    inputVolts: Positive,
    dropout: Num,
    claimed: Limits,
  }),
  Shape('claimed frequency', { kind: Type.Literal('frequency'), of: OscillatorShape, stages: Count, claimed: Limits }),
  Shape('claimed current', {
    kind: Type.Literal('current'),
    volts: Positive,
    amps: Positive,
    inputVolts: Positive,
    junctionToAmbient: Positive,
    ambient: Num,
    junction: Num,
  }),
  Shape('claimed drop-out', { kind: Type.Literal('dropout'), volts: Positive, inputVolts: Positive, dropout: Num }),
]);
/** Something the kit promises, such as `output 1.25 to 15 V`. */
const ClaimRecord = Shape('claim', { id: Id, text: Text, means: Optional(ClaimMeansShape), check: Optional(Id) });

/** A data sheet, typed once. Each figure with its source. */
const TypeCardRecord = Shape('type card', {
  type: Id,
  pins: Type.Record(Type.String(), List(Text, 200)),
  figures: List(Shape('figure of a type card', { name: Text, value: Num, unit: Text, source: Text }), 200),
});

/**
 * Where a photo lies on the map: its width in millimetres, turned clockwise about its upper left corner, which lies there. A
 * photo of the copper side is mirrored about that corner first.
 */
const PhotoOnMapShape = Shape('photo on the map', { width: Positive, turn: Num, x: Num, y: Num, side: Optional(Type.Literal('bottom')) });

/** A photo; its bytes are stored once by their SHA-256 and stand under `attachments` in a file. */
const PhotoRecord = Shape('photo', {
  id: Id,
  name: Text,
  hash: Id,
  type: Text,
  size: Count,
  /** Parts and test points on it, counted in widths of the photo from its upper left corner. */
  pins: Optional(List(Shape('pin on a photo', { ref: Id, x: Num, y: Num }))),
  onMap: Optional(PhotoOnMapShape),
});

/** Two nets whose pads lie side by side. */
const NeighbourRecord = Shape('neighbouring nets', { nets: Pair(Id) });

/** A rule of fitting order: `ref` goes in before `before`. */
const ConstraintRecord = Shape('constraint of the order', { id: Id, ref: Id, before: Id, why: Text });

/** Papers and boards that can say different things. */
const SOURCES = ['list', 'print', 'diagram', 'board'] as const;
/** What settles which of them is right. */
const SETTLED_BY = ['data sheet', 'tracing', 'calculation', 'looking'] as const;
/** Sources that say different things of one place, side by side, and how it was settled. */
const DifferenceRecord = Shape('difference of sources', {
  id: Id,
  about: Text,
  list: Optional(Text),
  print: Optional(Text),
  diagram: Optional(Text),
  board: Optional(Text),
  right: Optional(OneOf(...SOURCES)),
  by: Optional(OneOf(...SETTLED_BY)),
  why: Optional(Text),
});

const MEASURING_SCHOOLS = ['matters', 'all', 'unreadable', 'one-per-packet'] as const;
/** Lowest first, down the list, block by block with a test after each, least harm first, heavy things first, or by one's own order. */
const FITTING_SCHOOLS = ['lowest', 'list', 'blocks', 'least-harm', 'heavy', 'own'] as const;
const StandInShape = Shape('simulated board', {
  seed: Type.Integer(),
  /** Fault (or several) on the simulated board, base64 of its JSON so that a glance at the file gives nothing away. */
  fault: Text,
  /** Fault of a board built around chips, which its functions show; written in the same way. */
  functionFault: Optional(Text),
  /** Pieces in the simulated bag that differ from their line: line id → values. */
  pieces: Type.Record(Type.String(), List(Num, 1000)),
  /** Ohms that the meter's bad leads add. */
  leads: Optional(Num),
  /** The round is over: what was hidden may be shown. */
  over: Optional(Flag),
});

/** One setting each, under its name. */
const SettingRecord = Type.Union([
  Shape('meter in use', { name: Type.Literal('meter'), value: Id }),
  Shape('school of judging', { name: Type.Literal('school'), value: OneOf('simple', 'guarded') }),
  Shape('school of measuring', { name: Type.Literal('measure'), value: OneOf(...MEASURING_SCHOOLS) }),
  /** Null: as advised for the kit. */
  Shape('school of fitting', { name: Type.Literal('fitting'), value: Nullable(OneOf(...FITTING_SCHOOLS)) }),
  Shape('own order of fitting', { name: Type.Literal('order'), value: Refs }),
  /** What a board gets its first power from; null: not asked yet. */
  Shape('first power', {
    name: Type.Literal('firstPower'),
    value: Nullable(
      Type.Union([
        Shape('bench supply', { by: Type.Literal('bench') }),
        Shape('USB meter or protected port', { by: Type.Literal('usb') }),
        Shape('weak battery', { by: Type.Literal('battery'), volts: Positive, ohms: Positive }),
        Shape('lamp in series', { by: Type.Literal('lamp'), volts: Positive, watts: Positive }),
        Shape('fused lead', { by: Type.Literal('fuse') }),
      ]),
    ),
  }),
  Shape('length of a sitting, minutes', { name: Type.Literal('sitting'), value: Positive }),
  Shape('effort of a reading', {
    name: Type.Literal('efforts'),
    /** Against a DC reading, which counts one: what moves (AC, frequency, least and most), and what wants the supply off. */
    value: Shape('efforts', { moving: Positive, cold: Positive }),
  }),
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
  functions: FunctionsRecord,
  testPoints: TestPointRecord,
  placement: PlacementRecord,
  symbols: SymbolRecord,
  pads: PadRecord,
  stages: StageRecord,
  checks: CheckRecord,
  claims: ClaimRecord,
  typeCards: TypeCardRecord,
  photos: PhotoRecord,
  constraints: ConstraintRecord,
  differences: DifferenceRecord,
  meters: MeterShape,
  settings: SettingRecord,
} as const satisfies Readonly<Record<RoomName, TSchema>>;

export type RecordOf<R extends RoomName> = Of<(typeof ROOM_SCHEMAS)[R]>;
