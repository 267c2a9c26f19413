/** The entries of a kit's log: the only place where their fields are told. Readings are SI. */
import { type TSchema, Type } from '@sinclair/typebox';
import { PART_MODES, PIECE_KINDS } from '../../vocabulary';
import { Count, Flag, Id, Instant, List, Nullable, Num, type Of, OneOf, Pair, Positive, Refs, Shape, Text, Optional } from '../../vocabulary/schema';
import { type Fault, FAULT_KINDS } from '../../fault';
import { type HappenedKind, ROOM_NAMES, type RoomName } from './names';
import { type RecordOf, ROOM_SCHEMAS } from './records';

/** What a meter showed. */
const ReadingShape = Type.Union([Num, Type.Literal('over')], { title: 'Reading' });
/** A meter's id; the meter itself is a record of the room `meters`, or a typical one. */
const Meter = Id;

const FaultShape = Type.Unsafe<Fault>({
  type: 'object',
  properties: { kind: { type: 'string', enum: FAULT_KINDS }, parts: { type: 'array', items: { type: 'string' }, maxItems: 2 }, detail: { type: 'object' } },
  required: ['kind', 'parts', 'detail'],
  additionalProperties: false,
});

/** A change of the board itself. */
const ModificationShape = Type.Union([
  Shape('part added', { what: Type.Literal('part-added'), name: Id, kind: OneOf('R', 'C', 'L', 'D'), value: Nullable(Num), nets: Pair(Id) }),
  Shape('track cut', { what: Type.Literal('track-cut'), ref: Id, pin: Id }),
  Shape('value replaced', { what: Type.Literal('value-replaced'), ref: Id, value: Positive }),
  Shape('link', { what: Type.Literal('link'), nets: Pair(Id) }),
  Shape('strap', { what: Type.Literal('strap'), option: Id, choice: Text }),
  Shape('unplugged', { what: Type.Literal('unplugged'), refs: Refs }),
  /** What no circuit knows: new firmware, another lead, a cleaned contact. Names of at least one letter. */
  Shape('something else', { what: Type.Literal('other'), text: Id }),
]);

const OwnedShape = Shape('something owned', {
  volts: Optional(Num),
  amperes: Optional(Num),
  ohms: Optional(Num),
  watts: Optional(Num),
  polarity: Optional(OneOf('centre-plus', 'centre-minus')),
  plug: Optional(Text),
  /** It is not to be had for now: what cannot be done without it waits. */
  none: Optional(Type.Literal(true)),
});

/** What happened, by kind: fields beside `kind`, `id`, `at` and `batch`. */
export const HAPPENED = {
  counted: { line: Id, quantity: Count },
  /** Pieces that came later, in another parcel; those with these numbers are put aside for them. */
  received: { line: Id, quantity: Count, instead: Optional(List(Count, 1000)) },
  measured: { line: Id, piece: Count, ref: Optional(Id), mode: OneOf(...PART_MODES), reading: ReadingShape, meter: Meter },
  /** A further figure of a loose piece: a reading, or whether what was looked at or listened to was good. */
  figured: { line: Id, piece: Count, ref: Optional(Id), figure: Id, reading: Nullable(ReadingShape), good: Optional(Flag), meter: Meter },
  marked: { line: Id, piece: Count, text: Text },
  /** A piece of the loose pile; `reading` is null when it was only looked at. */
  loose: {
    part: OneOf(...PIECE_KINDS),
    reading: Nullable(ReadingShape),
    marking: Type.Union([Text, List(Id, 6), Type.Null()]),
    polarity: Nullable(OneOf('NPN', 'PNP')),
    meter: Meter,
    /** It belongs to no line: it came in place of one, or (null) of none. */
    instead: Optional(Nullable(Id)),
  },
  sorted: { pieces: List(Shape('piece of a sorted pile', { loose: Id, line: Nullable(Id) })) },
  /** The short test of the meter itself: probes together, apart, and a known part. Ohms. */
  'meter-checked': {
    meter: Meter,
    together: ReadingShape,
    apart: ReadingShape,
    known: Nullable(Shape('part of known value', { nominal: Positive, percent: Num, reading: ReadingShape })),
  },
  /** One part read with two instruments, or with one whose truth is known. */
  compared: {
    mode: OneOf('ohms', 'capacitance', 'inductance', 'diode', 'hfe', 'dcv'),
    instrument: Text,
    reading: Num,
    against: Type.Union([Shape('other meter', { meter: Meter, reading: Num }), Shape('known value', { value: Num, percent: Num })]),
  },
  owned: { need: Id, owned: OwnedShape },
  skipped: { target: Id, reason: Optional(Text) },
  fitted: { refs: Refs },
  removed: { refs: Refs },
  set: { ref: Id, value: Num },
  read: { stage: Id, check: Id, reading: ReadingShape, meter: Meter },
  probed: { stage: Id, testPoint: Id, reading: ReadingShape, meter: Meter },
  /** The same check on a board that is known to be good: the other channel, a finished kit, the maker's table. Null takes it off. */
  referenced: { stage: Id, check: Id, reading: Nullable(ReadingShape), meter: Meter },
  observed: { stage: Id, check: Id, channel: Optional(Text), asExpected: Flag, note: Optional(Text) },
  /** A function that was tried: what each lamp, digit or sounder showed, in the words of the program, or volts. */
  tried: { check: Text, saw: List(Shape('seen at a try', { of: Id, saw: Type.Union([Type.String({ maxLength: 40 }), Num]) }), 200), asExpected: Flag },
  /** A look at the bare or the fitted board: whether it was good. */
  inspected: { item: Id, title: Optional(Text), good: Flag, note: Optional(Text) },
  /** Two pads (`ref.pin`) under a continuity tester, the nets that they are drawn on, and whether the drawing joins them. */
  traced: { pads: Pair(Id), nets: Optional(Pair(Id)), drawn: Optional(Flag), beep: Flag },
  /** Going on behind a stage all the same, or doing it again from the start: always with its reason. */
  gated: { stage: Id, go: OneOf('on', 'again'), reason: Text },
  /** Before a stage was begun: what was set and taken care of, as it was confirmed. */
  prepared: { stage: Id, confirmed: Text, open: Optional(List(Shape('open before power', { kind: Id, refs: Refs }), 50)) },
  /** A suspect that was looked at, and is not to blame. */
  'ruled-out': { fault: FaultShape, note: Optional(Text) },
  /** What the board does as a whole, for the guide that needs no circuit: seen, or seen not to be so. */
  symptom: { symptom: Id, title: Text, seen: Flag },
  /** A doubtful part was examined: a sign that was looked for, a figure against its data sheet, or where it was bought. */
  examined: {
    line: Id,
    sign: Id,
    title: Text,
    seen: Flag,
    figure: Optional(Shape('figure against its data sheet', { reading: Num, low: Nullable(Num), high: Nullable(Num), standard: Num })),
  },
  found: { fault: FaultShape, probability: Num },
  repaired: { refs: Refs, note: Text },
  /** A change of the board; a temporary one is there for a test and has to be taken back. */
  modified: { change: ModificationShape, temporary: Optional(Flag), why: Optional(Text) },
  /** From here on the board is without a change that was made to it. */
  restored: { modification: Id },
  /** The kit is finished; what stays open is named. */
  finished: { open: List(Text, 100) },
  /** A note; the bytes of its photos are attachments of the file, by their hash. */
  noted: { text: Text, photos: Optional(List(Shape('photo of a note', { name: Text, hash: Id, type: Text }), 20)) },
  waiting: { reason: Text, until: Optional(Text) },
  resumed: { waited: Id },
  /** Takes back an entry, or all entries of a batch; taken back itself, it does nothing. */
  withdrawn: { entry: Optional(Id), ofBatch: Optional(Id) },
} as const satisfies Readonly<Record<HappenedKind, Readonly<Record<string, TSchema>>>>;

type Happened = typeof HAPPENED;

/** Who and when ride beside the change; entries that belong together share a batch. */
export const STAMP_FIELDS = { id: Id, at: Instant, batch: Optional(Id) };

export const entrySchema = (kind: HappenedKind) => Shape(`entry “${kind}”`, { kind: Type.Literal(kind), ...STAMP_FIELDS, ...HAPPENED[kind] });

/** One record of a room put, changed or removed: what all rooms share. `order` is its place among the records (fractional index). */
export const ChangedShape = Shape('Changed', {
  kind: Type.Literal('changed'),
  ...STAMP_FIELDS,
  room: OneOf(...ROOM_NAMES),
  record: Id,
  before: Type.Unknown(),
  after: Type.Unknown(),
  order: Optional(Text),
});
/** What a room holds before and after a change. */
export const changedIn = (room: RoomName) =>
  Type.Object({ room: Type.Literal(room), before: Nullable(ROOM_SCHEMAS[room]), after: Nullable(ROOM_SCHEMAS[room]) });

/** A record that was put, changed or removed: the sheet and the settings are folded from these. */
export type ChangedBody = {
  readonly [R in RoomName]: {
    readonly kind: 'changed';
    readonly room: R;
    readonly record: string;
    readonly before: RecordOf<R> | null;
    readonly after: RecordOf<R> | null;
    readonly order?: string | undefined;
  };
}[RoomName];

type HappenedBody = { readonly [K in HappenedKind]: { readonly kind: K } & Of<ReturnType<typeof Type.Object<Happened[K]>>> }[HappenedKind];

/** What an entry says. */
export type EntryBody = HappenedBody | ChangedBody;
export type EntryKind = EntryBody['kind'];

/** Given by the caller: the core has no clock. `at`: ISO 8601 instant; order in the log is by (at, id). */
export interface Stamp {
  readonly id: string;
  readonly at: string;
}

/** One line of the log. Never changed once written; `withdrawn` takes an earlier one back. */
export type Entry = EntryBody & Stamp & { readonly batch?: string | undefined };
export type EntryOf<K extends EntryKind> = Extract<Entry, { kind: K }>;

/** An entry that a newer program wrote: kept as it is, and counted for nothing. */
export interface UnknownEntry extends Stamp {
  readonly kind: string;
  readonly batch?: string | undefined;
}
