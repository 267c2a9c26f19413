import { withHoldingLimits } from './limitsKey';
import { ROOM_NAMES, type RoomName } from './schema/names';
import type { RecordOf } from './schema/records';
import { type Check, type CircuitSheet, DEFAULT_SETTINGS, EMPTY_SHEET, type KitSettings, type Sheet, type Stage } from './sheet';

/** A record as it stands, with the entry that left it so. */
export interface Held<R extends RoomName = RoomName> {
  readonly value: RecordOf<R>;
  /** Fractional index; null when it stands where it was written. */
  readonly order: string | null;
  readonly entry: string;
}

export type Room<R extends RoomName = RoomName> = ReadonlyMap<string, Held<R>>;
export type Rooms = { readonly [R in RoomName]: Room<R> };

export const emptyRooms = (): Rooms => Object.fromEntries(ROOM_NAMES.map((name) => [name, new Map()])) as unknown as Rooms;

/** Id of a record within its room, by the rules of the file format. */
export function recordId<R extends RoomName>(room: R, value: RecordOf<R>): string {
  const any = value as RecordOf<RoomName>;
  switch (room) {
    case 'about':
    case 'circuit':
    case 'functions':
      return room;
    case 'settings':
      return (any as RecordOf<'settings'>).name;
    case 'checks':
      return `${(any as RecordOf<'checks'>).stage}/${(any as RecordOf<'checks'>).id}`;
    case 'placement':
    case 'symbols':
      return (any as RecordOf<'placement' | 'symbols'>).ref;
    case 'pads':
      return `${(any as RecordOf<'pads'>).ref}.${(any as RecordOf<'pads'>).pin}`;
    case 'typeCards':
      return (any as RecordOf<'typeCards'>).type;
    case 'neighbours':
      return [...(any as RecordOf<'neighbours'>).nets].sort().join(' ');
    default:
      return (any as { readonly id: string }).id;
  }
}

/** Records with a place of their own by it, the others behind them as they were written. */
export function inOrder<R extends RoomName>(room: Room<R>): RecordOf<R>[] {
  const held = [...room.values()];
  const placed = held.filter((h) => h.order !== null).sort((a, b) => (a.order! < b.order! ? -1 : a.order! > b.order! ? 1 : 0));
  return [...placed, ...held.filter((h) => h.order === null)].map((h) => h.value);
}

const one = <R extends RoomName>(room: Room<R>): RecordOf<R> | null => [...room.values()][0]?.value ?? null;

function stagesOf(rooms: Rooms): Stage[] {
  const checks = new Map<string, Check[]>();
  for (const { stage, ...check } of inOrder(rooms.checks)) checks.set(stage, [...(checks.get(stage) ?? []), check]);
  return inOrder(rooms.stages).map((s) => ({ ...s, checks: checks.get(s.id) ?? [] }));
}

function circuitOf(rooms: Rooms): CircuitSheet | null {
  const circuit = one(rooms.circuit);
  return circuit && { ...circuit, neighbours: inOrder(rooms.neighbours).map((n) => n.nets) };
}

/** Parts of the sheet by the rooms that they are read from. */
const PARTS: readonly { readonly from: readonly RoomName[]; readonly read: (rooms: Rooms) => Partial<Sheet> }[] = [
  { from: ['stages', 'checks'], read: (r) => ({ stages: stagesOf(r) }) },
  { from: ['circuit', 'neighbours'], read: (r) => ({ circuit: circuitOf(r) }) },
  { from: ['functions'], read: (r) => ({ functions: one(r.functions) }) },
  { from: ['boards'], read: (r) => ({ boards: inOrder(r.boards) }) },
  { from: ['lines'], read: (r) => ({ lines: inOrder(r.lines) }) },
  { from: ['needs'], read: (r) => ({ needs: inOrder(r.needs) }) },
  { from: ['options'], read: (r) => ({ options: inOrder(r.options) }) },
  { from: ['testPoints'], read: (r) => ({ testPoints: inOrder(r.testPoints) }) },
  { from: ['placement'], read: (r) => ({ placement: inOrder(r.placement) }) },
  { from: ['symbols'], read: (r) => ({ symbols: inOrder(r.symbols) }) },
  { from: ['pads'], read: (r) => ({ pads: inOrder(r.pads) }) },
  { from: ['claims'], read: (r) => ({ claims: inOrder(r.claims) }) },
  { from: ['typeCards'], read: (r) => ({ typeCards: inOrder(r.typeCards) }) },
  { from: ['photos'], read: (r) => ({ photos: inOrder(r.photos) }) },
  { from: ['constraints'], read: (r) => ({ constraints: inOrder(r.constraints) }) },
  { from: ['differences'], read: (r) => ({ differences: inOrder(r.differences) }) },
];

/** The sheet after some rooms changed: what did not change keeps its identity. */
export function sheetOf(rooms: Rooms, before: Sheet = EMPTY_SHEET, touched: ReadonlySet<RoomName> = new Set(ROOM_NAMES)): Sheet {
  const parts = PARTS.filter((p) => p.from.some((r) => touched.has(r))).map((p) => p.read(rooms));
  const { title, maker, edition, note, ...rest } = before;
  const about = touched.has('about') ? (one(rooms.about) ?? { title: EMPTY_SHEET.title }) : { title, maker, edition, note };
  const sheet = Object.assign({}, rest, about, ...parts) as Sheet;
  const follows = LIMITS_FOLLOW.some((r) => touched.has(r));
  return follows && hasSimulatedLimits(rooms) ? { ...sheet, stages: withHoldingLimits(sheet, stagesOf(rooms)) } : sheet;
}

/** What simulated limits follow from. */
const LIMITS_FOLLOW: readonly RoomName[] = ['stages', 'checks', 'lines', 'needs', 'circuit'];
const hasSimulatedLimits = (rooms: Rooms): boolean => [...rooms.checks.values()].some(({ value }) => 'window' in value && value.window?.from === 'simulated');

export function settingsOf(rooms: Rooms): KitSettings {
  const chosen = Object.fromEntries(inOrder(rooms.settings).map((s) => [s.name, s.value]));
  return { ...DEFAULT_SETTINGS, ...chosen, meters: inOrder(rooms.meters) };
}

/** Rooms that a sheet with its settings amounts to, record by record, in the order of a new kit. */
export function recordsOf(sheet: Sheet, settings: KitSettings): { readonly [R in RoomName]: readonly RecordOf<R>[] } {
  const { title, maker, edition, note } = sheet;
  const about = Object.fromEntries(Object.entries({ title, maker, edition, note }).filter(([, v]) => v !== undefined)) as unknown as RecordOf<'about'>;
  const { meter, school, measure, fitting, order, firstPower, sitting, efforts, standIn } = settings;
  return {
    about: [about],
    boards: sheet.boards,
    options: sheet.options,
    lines: sheet.lines,
    needs: sheet.needs,
    circuit: sheet.circuit ? [{ deck: sheet.circuit.deck, ...(sheet.circuit.elements ? { elements: sheet.circuit.elements } : {}) }] : [],
    neighbours: (sheet.circuit?.neighbours ?? []).map((nets) => ({ nets })),
    functions: sheet.functions ? [sheet.functions] : [],
    testPoints: sheet.testPoints,
    placement: sheet.placement,
    symbols: sheet.symbols,
    pads: sheet.pads,
    stages: sheet.stages.map((stage) => Object.fromEntries(Object.entries(stage).filter(([k]) => k !== 'checks')) as unknown as RecordOf<'stages'>),
    checks: sheet.stages.flatMap((s) => s.checks.map((c) => ({ stage: s.id, ...c }))),
    claims: sheet.claims,
    typeCards: sheet.typeCards,
    photos: sheet.photos,
    constraints: sheet.constraints,
    differences: sheet.differences,
    meters: settings.meters,
    settings: [
      { name: 'meter', value: meter },
      { name: 'school', value: school },
      { name: 'measure', value: measure },
      // What was never chosen is no record: kits of before stay as they were.
      ...(fitting === null ? [] : [{ name: 'fitting' as const, value: fitting }]),
      ...(order.length === 0 ? [] : [{ name: 'order' as const, value: [...order] }]),
      ...(firstPower === null ? [] : [{ name: 'firstPower' as const, value: firstPower }]),
      ...(sitting === DEFAULT_SETTINGS.sitting ? [] : [{ name: 'sitting' as const, value: sitting }]),
      ...(efforts.moving === DEFAULT_SETTINGS.efforts.moving && efforts.cold === DEFAULT_SETTINGS.efforts.cold
        ? []
        : [{ name: 'efforts' as const, value: efforts }]),
      { name: 'standIn', value: standIn },
    ],
  };
}
