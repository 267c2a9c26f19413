/** The entries of a kit's log: the only place where their fields are told. Readings are SI. */
import { type TSchema, Type } from '@sinclair/typebox';
import { LOOSE_KINDS, PART_MODES } from '../../vocabulary';
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
]);

const OwnedShape = Shape('something owned', {
  volts: Optional(Num),
  amperes: Optional(Num),
  ohms: Optional(Num),
  watts: Optional(Num),
  polarity: Optional(OneOf('centre-plus', 'centre-minus')),
  plug: Optional(Text),
});

/** What happened, by kind: fields beside `kind`, `id`, `at` and `batch`. */
export const HAPPENED = {
  counted: { line: Id, quantity: Count },
  measured: { line: Id, piece: Count, ref: Optional(Id), mode: OneOf(...PART_MODES), reading: ReadingShape, meter: Meter },
  marked: { line: Id, piece: Count, text: Text },
  /** A piece of the loose pile; `reading` is null when it was only looked at. */
  loose: {
    part: OneOf(...LOOSE_KINDS),
    reading: Nullable(ReadingShape),
    marking: Type.Union([Text, List(Id, 6), Type.Null()]),
    polarity: Nullable(OneOf('NPN', 'PNP')),
    meter: Meter,
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
  observed: { stage: Id, check: Id, channel: Optional(Text), asExpected: Flag, note: Optional(Text) },
  found: { fault: FaultShape, probability: Num },
  repaired: { refs: Refs, note: Text },
  modified: { change: ModificationShape },
  noted: { text: Text },
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
