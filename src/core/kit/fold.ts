import { dequal } from 'dequal';
import { BARE_BOARD, withFitted, withModification, withRemoved, withRepaired, withRestored, withSet, withUnset } from './board';
import { compareEntries, isOrdered, unite, withdrawals } from './log';
import { meterOf } from './meters';
import { emptyRooms, type Held, settingsOf, sheetOf } from './rooms';
import { checkObservableId, LOOSE_FACTS, probeObservableId } from '../vocabulary';
import { isKnown } from './schema/known';
import type { Entry, EntryOf, UnknownEntry } from './schema/entries';
import type { RoomName } from './schema/names';
import { DEFAULT_SETTINGS, EMPTY_SHEET } from './sheet';
import type { Conflict, KitState, MeasuredPiece, Tally } from './state';

type Logged = Entry | UnknownEntry;
type Mutable = { -readonly [K in keyof KitState]: KitState[K] };
type MapKey = { [K in keyof KitState]: KitState[K] extends ReadonlyMap<string, unknown> ? K : never }[keyof KitState];
type ValueOf<K extends MapKey> = KitState[K] extends ReadonlyMap<string, infer V> ? V : never;

/** A kit about which nothing has been written. */
const emptyState = (id: string, created: string): KitState => ({
  id,
  created,
  log: [],
  gone: new Set(),
  targets: new Set(),
  rooms: emptyRooms(),
  sheet: EMPTY_SHEET,
  settings: DEFAULT_SETTINGS,
  conflicts: [],
  written: new Map(),
  changedBy: new Map(),
  tallies: new Map(),
  skipped: new Set(),
  loose: new Map(),
  readings: new Map(),
  lastStage: null,
  board: BARE_BOARD,
  choices: new Map(),
  change: null,
  leads: new Map(),
  owned: new Map(),
  compared: [],
  checkedMeters: new Map(),
  repaired: new Set(),
  inspected: new Map(),
  tried: new Map(),
  reference: new Map(),
  traced: [],
  gates: new Map(),
  prepared: new Map(),
  ruledOut: [],
  symptoms: new Map(),
  examined: new Map(),
  finished: null,
  waiting: [],
});

/**
 * The state that a log amounts to. Pure: the same entries give the same state, in whatever order they come.
 * Folding all entries, or extending by one after another, is the same.
 */
export function fold(id: string, created: string, entries: readonly Logged[]): KitState {
  const log = isOrdered(entries) ? [...entries] : unite(entries).log;
  const writer = new Writer({ ...emptyState(id, created), ...withdrawals(log) });
  for (const entry of log) writer.append(entry);
  return writer.done();
}

/** The state with further entries. What stands at the end of the log costs little; an entry that belongs between others is folded in. */
export function extend(state: KitState, ...entries: readonly Logged[]): KitState {
  let current = state;
  for (const entry of entries) current = extendByOne(current, entry);
  return current;
}

function extendByOne(state: KitState, entry: Logged): KitState {
  const last = state.log[state.log.length - 1];
  const isLast = last === undefined || compareEntries(last, entry) < 0;
  const takesBack = entry.kind === 'withdrawn' || state.targets.has(entry.id) || (entry.batch !== undefined && state.targets.has(entry.batch));
  if (takesBack && isLast) return replayed(state, entry) ?? fold(state.id, state.created, [...state.log, entry]);
  if (!isLast) return fold(state.id, state.created, unite(state.log, [entry]).log);
  const writer = new Writer({ ...state });
  writer.append(entry);
  return remember(writer.done(), state);
}

/** The states that the newest ones were made of: taking back a recent step starts there instead of at the beginning. */
const ancestors = new WeakMap<KitState, KitState>();
const remembered: KitState[] = [];
const MOST_REMEMBERED = 64;

function remember(state: KitState, before: KitState): KitState {
  ancestors.set(state, before);
  remembered.push(state);
  if (remembered.length > MOST_REMEMBERED) ancestors.delete(remembered.shift()!);
  return state;
}

/** The state with an entry that takes something recent back; null when it reaches farther back than is remembered. */
function replayed(state: KitState, entry: Logged): KitState | null {
  const log = [...state.log, entry];
  const { gone, targets } = withdrawals(log);
  for (let from = ancestors.get(state); from; from = ancestors.get(from)) {
    if (!isSameFate(from, gone)) continue;
    const writer = new Writer({ ...from, gone, targets });
    for (const e of log.slice(from.log.length)) writer.append(e);
    return remember(writer.done(), from);
  }
  return null;
}

/** Whether of the entries that a state has the same ones are gone. */
function isSameFate(state: KitState, gone: ReadonlySet<string>): boolean {
  for (const id of state.gone) if (!gone.has(id)) return false;
  const fresh = new Set([...gone].filter((id) => !state.gone.has(id)));
  return fresh.size === 0 || !state.log.some((e) => fresh.has(e.id));
}

const NO_TALLY: Tally = { total: null, fromPile: [], pieces: new Map(), figures: new Map(), markings: new Map(), loose: new Map() };

/** Writes entries into a state that nobody else has seen yet: the only place where a state is changed. */
class Writer {
  /** Parts of the state that were copied already and may be written to. */
  private readonly own = new Set<keyof KitState>();
  private readonly touched = new Set<RoomName>();
  private readonly ownRooms = new Set<RoomName>();
  private settingsStale = false;

  constructor(private readonly s: Mutable) {}

  done(): KitState {
    if (this.touched.size > 0) this.s.sheet = sheetOf(this.s.rooms, this.s.sheet, this.touched);
    this.refreshSettings();
    return this.s;
  }

  private refreshSettings(): void {
    if (this.settingsStale) this.s.settings = settingsOf(this.s.rooms);
    this.settingsStale = false;
  }

  private map<K extends MapKey>(key: K): Map<string, ValueOf<K>> {
    if (!this.own.has(key)) (this.s as Record<MapKey, unknown>)[key] = new Map(this.s[key] as ReadonlyMap<string, ValueOf<K>>);
    this.own.add(key);
    return this.s[key] as unknown as Map<string, ValueOf<K>>;
  }

  append(entry: Logged): void {
    if (!this.own.has('log')) this.s.log = [...this.s.log];
    this.own.add('log');
    (this.s.log as Logged[]).push(entry);
    if (!isKnown(entry)) return;
    if (entry.kind === 'changed') this.change(entry, !this.s.gone.has(entry.id));
    else if (!this.s.gone.has(entry.id)) this.happen(entry, this.s.log.length - 1);
  }

  /** The meter of an entry as it was known then. */
  private meter(id: string) {
    this.refreshSettings();
    return meterOf(this.s, id);
  }

  private happen(e: Exclude<Entry, EntryOf<'changed'>>, at: number): void {
    switch (e.kind) {
      case 'counted':
        this.tally(e.line, { total: e.quantity, fromPile: [] });
        break;
      case 'received':
        this.receive(e);
        break;
      case 'measured':
        this.measure(e.line, e.piece, { entry: e, meter: this.meter(e.meter), at });
        break;
      case 'figured': {
        const { figures } = this.tallyOf(e.line);
        this.tally(e.line, { figures: new Map(figures).set(e.piece, new Map(figures.get(e.piece)).set(e.figure, e)) });
        break;
      }
      case 'marked':
        this.tally(e.line, { markings: new Map(this.tallyOf(e.line).markings).set(e.piece, e.text) });
        break;
      case 'loose':
        this.map('loose').set(e.id, { entry: e, meter: this.meter(e.meter), line: e.instead === undefined ? undefined : null });
        break;
      case 'sorted':
        for (const p of e.pieces) this.sort(p.loose, p.line, at);
        break;
      case 'meter-checked':
        if (typeof e.together === 'number') this.map('leads').set(e.meter, e.together);
        this.map('checkedMeters').set(e.meter, e);
        break;
      case 'compared':
        this.s.compared = [...this.s.compared, e];
        break;
      case 'owned':
        this.map('owned').set(e.need, [...(this.s.owned.get(e.need) ?? []), e]);
        break;
      case 'skipped':
        this.s.skipped = new Set(this.s.skipped).add(e.target);
        break;
      case 'fitted':
        this.s.board = withFitted(this.s.board, e.refs);
        break;
      case 'removed':
        this.s.board = withRemoved(this.s.board, e.refs);
        break;
      case 'set':
        this.s.board = withSet(this.s.board, e.ref, e.value);
        break;
      case 'read':
      case 'observed':
        this.take(checkObservableId(e.stage, e.check), e, at);
        break;
      case 'probed':
        this.take(probeObservableId(e.stage, e.testPoint), e, at);
        break;
      case 'repaired':
        this.s.board = withRepaired(this.s.board, e.refs, at);
        this.s.repaired = new Set([...this.s.repaired, ...e.refs]);
        this.s.change = { at, stage: this.s.lastStage };
        this.s.symptoms = new Map();
        break;
      case 'modified':
        this.modify(e, at);
        break;
      case 'restored':
        this.s.board = withRestored(this.s.board, e.modification, at);
        this.s.change = { at, stage: this.s.lastStage };
        break;
      case 'referenced':
        this.map('reference').set(checkObservableId(e.stage, e.check), e);
        break;
      case 'tried':
        this.map('tried').set(e.check, { entry: e, at });
        break;
      case 'inspected':
        this.map('inspected').set(e.item, { entry: e, at });
        break;
      case 'gated':
        this.map('gates').set(e.stage, { entry: e, at });
        break;
      case 'prepared':
        this.map('prepared').set(e.stage, { entry: e, at });
        this.s.board = withUnset(this.s.board, this.s.rooms.stages.get(e.stage)?.value.settings?.map((s) => s.ref) ?? []);
        break;
      case 'ruled-out':
        this.s.ruledOut = [...this.s.ruledOut, { entry: e, at }];
        break;
      case 'symptom':
        this.map('symptoms').set(e.symptom, e.seen);
        break;
      case 'examined':
        this.examine(e);
        break;
      case 'traced':
        this.s.traced = [...this.s.traced, { entry: e, board: this.s.board, at }];
        break;
      case 'finished':
        this.s.finished = { entry: e, at };
        break;
      case 'waiting':
        this.s.waiting = [...this.s.waiting, e];
        break;
      case 'resumed':
        this.s.waiting = this.s.waiting.filter((w) => w.id !== e.waited);
        break;
      case 'found':
      case 'noted':
      case 'withdrawn':
        break;
    }
  }

  /** An option's first strap says what was always so; a later one changes the board from then on. */
  private modify(e: EntryOf<'modified'>, at: number): void {
    const { change } = e;
    if (change.what === 'strap' && !this.s.choices.has(change.option)) {
      this.map('choices').set(change.option, change.choice);
      return;
    }
    this.s.board = withModification(this.s.board, { entry: e.id, change, temporary: e.temporary ?? false, why: e.why ?? null }, at);
    this.s.change = { at, stage: this.s.lastStage };
  }

  private take(observable: string, entry: EntryOf<'read' | 'probed' | 'observed'>, at: number): void {
    const meter = this.meter(entry.kind === 'observed' ? this.s.settings.meter : entry.meter);
    this.map('readings').set(observable, [...(this.s.readings.get(observable) ?? []), { entry, met: { board: this.s.board, meter, at } }]);
    this.s.lastStage = entry.stage;
  }

  /** The last word on each sign counts; a part has one origin. */
  private examine(e: EntryOf<'examined'>): void {
    const isOrigin = (sign: string) => sign.startsWith('origin/');
    const known = [...(this.s.examined.get(e.line) ?? [])].filter(([sign]) => sign !== e.sign && !(isOrigin(sign) && isOrigin(e.sign)));
    this.map('examined').set(e.line, new Map([...known, [e.sign, e]]));
  }

  private tallyOf = (line: string): Tally => this.s.tallies.get(line) ?? NO_TALLY;

  private tally(line: string, by: Partial<Tally>): void {
    this.map('tallies').set(line, { ...this.tallyOf(line), ...by });
  }

  /** A later parcel adds to what there is; what it replaces is put aside, and its numbers are free for the new pieces. */
  private receive({ line, quantity, instead = [] }: EntryOf<'received'>): void {
    const tally = this.tallyOf(line);
    const aside = new Set(instead);
    const without = <V>(map: ReadonlyMap<number, V>) => new Map([...map].filter(([piece]) => !aside.has(piece)));
    // Piece for piece before anybody counted: then how many there are is still not known.
    const counted = tally.total ?? (aside.size === quantity ? null : this.knownPieces(tally));
    this.tally(line, {
      total: counted === null ? null : counted - aside.size + quantity,
      pieces: without(tally.pieces),
      figures: without(tally.figures),
      markings: without(tally.markings),
    });
  }

  private measure(line: string, piece: number, reading: MeasuredPiece): void {
    this.tally(line, { pieces: new Map(this.tallyOf(line).pieces).set(piece, reading) });
  }

  private knownPieces = ({ total, pieces, figures, markings }: Tally): number =>
    Math.max(total ?? 0, ...[pieces, figures, markings].flatMap((m) => [...m.keys()].map((k) => k + 1)));

  /** A loose piece joins those that a line has already; one that was sorted before moves over. Nothing is counted twice. */
  private sort(looseId: string, line: string | null, at: number): void {
    const piece = this.s.loose.get(looseId);
    if (!piece || piece.line === line) return;
    if (typeof piece.line === 'string') this.takeOut(looseId, piece.line);
    this.map('loose').set(looseId, { ...piece, line });
    if (line === null) return;
    const tally = this.tallyOf(line);
    const known = this.knownPieces(tally);
    const { entry } = piece;
    const markings = typeof entry.marking === 'string' ? new Map(tally.markings).set(known, entry.marking) : tally.markings;
    this.tally(line, { total: known + 1, fromPile: [...tally.fromPile, looseId], loose: new Map(tally.loose).set(looseId, known), markings });
    if (entry.reading === null) return;
    const { mode } = LOOSE_FACTS[entry.part];
    const { reading, meter, id, at: when } = entry;
    this.measure(line, known, { entry: { kind: 'measured', line, piece: known, mode, reading, meter, id, at: when }, meter: piece.meter, at });
  }

  private takeOut(looseId: string, line: string): void {
    const tally = this.tallyOf(line);
    const number = tally.loose.get(looseId);
    const drop = <V>(map: ReadonlyMap<number, V>) => new Map([...map].filter(([k]) => k !== number));
    const loose = new Map(tally.loose);
    loose.delete(looseId);
    this.tally(line, {
      total: tally.total === null ? null : Math.max(0, tally.total - 1),
      fromPile: tally.fromPile.filter((id) => id !== looseId),
      loose,
      pieces: drop(tally.pieces),
      figures: drop(tally.figures),
      markings: drop(tally.markings),
    });
  }

  /**
   * A record put, changed or removed. Its `before` should be what stands there, or what stood there when nothing was taken
   * back; else somebody changed the record at the same time, without knowing of this.
   */
  private change(e: EntryOf<'changed'>, stands: boolean): void {
    const key = `${e.room}/${e.record}`;
    if (stands) {
      const held = this.s.rooms[e.room].get(e.record);
      const knew = dequal(e.before, held?.value ?? null) || (this.s.written.has(key) && dequal(e.before, this.s.written.get(key)));
      const same = dequal(e.after, held?.value ?? null);
      this.noteConflict(e, knew || same, this.s.changedBy.get(key) ?? null);
      this.put(e);
      this.map('changedBy').set(key, e.id);
    }
    this.map('written').set(key, e.after);
  }

  private put(e: EntryOf<'changed'>): void {
    if (!this.own.has('rooms')) this.s.rooms = { ...this.s.rooms };
    this.own.add('rooms');
    const rooms = this.s.rooms as Record<RoomName, Map<string, Held>>;
    if (!this.ownRooms.has(e.room)) rooms[e.room] = new Map(rooms[e.room]);
    this.ownRooms.add(e.room);
    if (e.room === 'settings' || e.room === 'meters') this.settingsStale = true;
    else this.touched.add(e.room);
    if (e.after === null) rooms[e.room].delete(e.record);
    else rooms[e.room].set(e.record, { value: e.after, order: e.order ?? rooms[e.room].get(e.record)?.order ?? null, entry: e.id });
  }

  /** A change that did not know its predecessor makes a conflict, or a larger one; one that did settles it. */
  private noteConflict(e: EntryOf<'changed'>, knew: boolean, predecessor: string | null): void {
    const isThis = (c: Conflict) => c.room === e.room && c.record === e.record;
    const open = this.s.conflicts.find(isThis);
    if (knew && !open) return;
    const others = this.s.conflicts.filter((c) => !isThis(c));
    if (knew) this.s.conflicts = others;
    else this.s.conflicts = [...others, { room: e.room, record: e.record, entries: [...(open?.entries ?? (predecessor ? [predecessor] : [])), e.id] }];
  }
}
