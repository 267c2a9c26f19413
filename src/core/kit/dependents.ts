import { patch, put, putAll, remove } from './changes';
import { recordId } from './rooms';
import type { RoomName } from './schema/names';
import type { ChangedBody, EntryOf } from './schema/entries';
import type { RecordOf } from './schema/records';
import type { ProbePoint, Ref } from './sheet';
import type { KitState } from './state';

type Line = RecordOf<'lines'>;

/**
 * A change with everything that hangs on it, as one batch: checks go with their stage, places, pads and stage lists follow
 * the refs of a line, claims and lines let go of what is removed. Readings stay: they are shown as what they are.
 */
export function withDependents(kit: KitState, change: ChangedBody): ChangedBody[] {
  switch (change.room) {
    case 'stages':
      return change.after === null ? [change, ...goneChecks(kit, (c) => c.stage === change.record)] : [change];
    case 'checks':
      return change.after === null ? [change, ...goneClaims(kit, [change.record])] : [change];
    case 'lines':
      return [change, ...followRefs(kit, renames(kit, change.record, change.before, change.after))];
    case 'testPoints':
      return change.after === null
        ? [change, ...goneChecks(kit, (c) => c.what === 'measure' && [c.red, c.black].some((p) => isPoint(p, change.record)))]
        : [change];
    case 'needs':
      return change.after === null ? [change, ...freeStages(kit, change.record)] : [change];
    case 'options':
      return change.after === null ? [change, ...freeLines(kit, change.record)] : [change];
    default:
      return [change];
  }
}

const isPoint = (p: ProbePoint, id: string) => 'testPoint' in p && p.testPoint === id;
const records = <R extends 'checks' | 'claims' | 'lines' | 'stages' | 'placement' | 'symbols' | 'pads' | 'photos' | 'constraints'>(kit: KitState, room: R) =>
  [...kit.rooms[room]].map(([id, held]) => [id, held.value as RecordOf<R>] as const);
const given = (bodies: readonly (ChangedBody | null)[]): ChangedBody[] => bodies.filter((b) => b !== null);

function goneChecks(kit: KitState, goes: (check: RecordOf<'checks'>) => boolean): ChangedBody[] {
  const ids = records(kit, 'checks').flatMap(([id, c]) => (goes(c) ? [id] : []));
  return given([...goneClaims(kit, ids), ...ids.map((id) => remove(kit, 'checks', id))]);
}

const goneClaims = (kit: KitState, checks: readonly string[]): ChangedBody[] =>
  given(
    records(kit, 'claims').flatMap(([id, c]) => (c.check !== undefined && checks.includes(c.check) ? [patch(kit, 'claims', id, { check: undefined })] : [])),
  );

const freeStages = (kit: KitState, need: string): ChangedBody[] =>
  given(
    records(kit, 'stages').flatMap(([id, s]) => {
      const needs = s.needs?.filter((n) => n !== need) ?? [];
      return s.needs?.includes(need) ? [patch(kit, 'stages', id, { needs: needs.length > 0 ? needs : undefined })] : [];
    }),
  );

const freeLines = (kit: KitState, option: string): ChangedBody[] =>
  given(records(kit, 'lines').flatMap(([id, l]) => (l.option?.split('=')[0] === option ? [patch(kit, 'lines', id, { option: undefined })] : [])));

/** A record as it was edited. Under another name it takes the place of the one before, and what named it follows. */
export function written<R extends RoomName>(kit: KitState, room: R, record: RecordOf<R>, was: string | null): ChangedBody[] {
  const [change] = putAll(kit, room, [record], was);
  const id = recordId(room, record);
  const gone = was === null || was === id ? null : remove(kit, room, was);
  if (!gone) return withDependents(kit, put(kit, room, record));
  const follow: Partial<Record<RoomName, (kit: KitState, from: string, to: string) => ChangedBody[]>> = { testPoints: followPoint, boards: followBoard };
  return [gone, change!, ...(follow[room]?.(kit, was!, id) ?? [])];
}

/** Designators carry the letter of their board in front: with another letter all that names them follows. */
function followBoard(kit: KitState, from: string, to: string): ChangedBody[] {
  const own = (ref: Ref) => ref.startsWith(`${from}:`);
  const other = (ref: Ref) => (own(ref) ? `${to}:${ref.slice(from.length + 1)}` : ref);
  const lines = records(kit, 'lines').filter(([, l]) => l.refs.some(own));
  const names = new Map(lines.flatMap(([, l]) => l.refs.filter(own).map((r) => [r, other(r)] as const)));
  return [
    ...given(lines.map(([id, l]) => patch(kit, 'lines', id, { refs: l.refs.map(other) }))),
    ...followRefs(kit, names).filter((c) => c.room !== 'circuit'),
    ...given(keptElements(kit, names)),
  ];
}

/** A deck goes on calling its elements as it did. */
function keptElements(kit: KitState, names: ReadonlyMap<Ref, Ref>): (ChangedBody | null)[] {
  const circuit = [...kit.rooms.circuit.values()][0]?.value;
  if (!circuit) return [];
  const known = circuit.elements ?? {};
  const elements = Object.fromEntries([...names].map(([was, is]) => [is, known[was] ?? was]));
  const rest = Object.fromEntries(Object.entries(known).filter(([r]) => !names.has(r)));
  return [patch(kit, 'circuit', 'circuit', { elements: { ...rest, ...elements } })];
}

/** Checks go on probing a test point that is called otherwise now. */
function followPoint(kit: KitState, from: string, to: string): ChangedBody[] {
  const point = (p: ProbePoint): ProbePoint => (isPoint(p, from) ? { testPoint: to } : p);
  return given(
    records(kit, 'checks').flatMap(([id, c]) =>
      c.what === 'measure' && (isPoint(c.red, from) || isPoint(c.black, from)) ? [patch(kit, 'checks', id, { red: point(c.red), black: point(c.black) })] : [],
    ),
  );
}

/** Where a ref of a line went: another name, or null for nowhere. */
function renames(kit: KitState, line: string, before: Line | null, after: Line | null): Map<Ref, Ref | null> {
  const others = new Set(records(kit, 'lines').flatMap(([id, l]) => (id === line ? [] : l.refs)));
  const lost = (before?.refs ?? []).filter((r) => !after?.refs.includes(r) && !others.has(r));
  const found = (after?.refs ?? []).filter((r) => !before?.refs.includes(r));
  // One ref left and one came: it was renamed. Anything else is parts that went and parts that came.
  const renamed = lost.length === 1 && found.length === 1 ? found[0]! : null;
  return new Map(lost.map((r) => [r, renamed]));
}

/** What names parts of a line follows them. */
function followRefs(kit: KitState, to: ReadonlyMap<Ref, Ref | null>): ChangedBody[] {
  if (to.size === 0) return [];
  const follow = (refs: readonly Ref[]) => refs.flatMap((r) => (to.has(r) ? (to.get(r) ?? []) : [r]));
  const hit = (refs: readonly Ref[] | undefined) => refs?.some((r) => to.has(r)) ?? false;
  const out: (ChangedBody | null)[] = [];
  for (const [id, s] of records(kit, 'stages')) {
    const settings = s.settings?.flatMap((x) => (to.has(x.ref) ? (to.get(x.ref) === null ? [] : [{ ...x, ref: to.get(x.ref)! }]) : [x]));
    if (hit(s.fits) || hit(s.without) || hit(s.settings?.map((x) => x.ref)))
      out.push(patch(kit, 'stages', id, { fits: follow(s.fits), ...(s.without ? { without: follow(s.without) } : {}), ...(settings ? { settings } : {}) }));
  }
  for (const room of ['placement', 'symbols'] as const)
    for (const [id, p] of records(kit, room))
      out.push(
        ...moved(
          kit,
          room,
          id,
          p,
          to.get(p.ref),
          (ref) => ({ ...p, ref }),
          (ref) => ref,
        ),
      );
  for (const [id, p] of records(kit, 'pads'))
    out.push(
      ...moved(
        kit,
        'pads',
        id,
        p,
        to.get(p.ref),
        (ref) => ({ ...p, ref }),
        (ref) => `${ref}.${p.pin}`,
      ),
    );
  for (const [id, c] of records(kit, 'checks')) {
    if (c.what === 'measure' && [c.red, c.black].some((p) => 'ref' in p && to.get(p.ref) === null))
      out.push(...goneClaims(kit, [id]), remove(kit, 'checks', id));
    else if (namesAny(c, to)) out.push(patch(kit, 'checks', id, renamed(c, to)));
  }
  for (const [id, c] of records(kit, 'constraints')) if (to.has(c.ref) || to.has(c.before)) out.push(constraint(kit, id, c, to));
  const circuit = [...kit.rooms.circuit.values()][0]?.value;
  if (circuit?.elements && hit(Object.keys(circuit.elements)))
    out.push(
      patch(kit, 'circuit', 'circuit', { elements: Object.fromEntries(Object.entries(circuit.elements).flatMap(([r, e]) => follow([r]).map((n) => [n, e]))) }),
    );
  return given(out);
}

type CheckFields = RecordOf<'checks'>;

const namesAny = (c: CheckFields, to: ReadonlyMap<Ref, Ref | null>): boolean =>
  [
    c.adjust,
    ...(c.settings ?? []).map((s) => s.ref),
    ...(c.what === 'measure' ? [c.red, c.black].map((p) => ('ref' in p ? p.ref : undefined)) : [c.sign?.ref]),
  ].some((r) => r !== undefined && to.has(r));

/** A check with the new names of its parts; what it says of a part that is gone is let go of. */
function renamed(c: CheckFields, to: ReadonlyMap<Ref, Ref | null>): Partial<CheckFields> {
  const name = (r: Ref): Ref | undefined => (to.has(r) ? (to.get(r) ?? undefined) : r);
  const point = (p: ProbePoint): ProbePoint => ('ref' in p ? { ...p, ref: name(p.ref) ?? p.ref } : p);
  const shared = {
    adjust: c.adjust === undefined ? undefined : name(c.adjust),
    ...(c.settings ? { settings: c.settings.flatMap((s) => (name(s.ref) === undefined ? [] : [{ ...s, ref: name(s.ref)! }])) } : {}),
  };
  if (c.what === 'measure') return { ...shared, red: point(c.red), black: point(c.black) };
  return { ...shared, sign: c.sign && name(c.sign.ref) !== undefined ? { ...c.sign, ref: name(c.sign.ref)! } : undefined };
}

function constraint(kit: KitState, id: string, c: RecordOf<'constraints'>, to: ReadonlyMap<Ref, Ref | null>): ChangedBody | null {
  const name = (r: Ref) => (to.has(r) ? to.get(r)! : r);
  return [c.ref, c.before].some((r) => to.get(r) === null)
    ? remove(kit, 'constraints', id)
    : patch(kit, 'constraints', id, { ref: name(c.ref), before: name(c.before) });
}

/** A record that is named after its ref goes with it: removed, and put under the new name. */
function moved<R extends 'placement' | 'symbols' | 'pads'>(
  kit: KitState,
  room: R,
  id: string,
  record: RecordOf<R>,
  to: Ref | null | undefined,
  renamed: (ref: Ref) => RecordOf<R>,
  newId: (ref: Ref) => string,
): (ChangedBody | null)[] {
  if (to === undefined) return [];
  const gone = remove(kit, room, id);
  const order = kit.rooms[room].get(id)?.order;
  return to === null
    ? [gone]
    : [gone, { kind: 'changed', room, record: newId(to), before: null, after: renamed(to), ...(order ? { order } : {}) } as unknown as ChangedBody];
}

/** Entries of a removed line, check or stage stand in the log and belong to nothing: they are named, never lost. */
export const isOrphan = (kit: KitState, e: EntryOf<'counted' | 'received' | 'figured' | 'measured' | 'marked' | 'read' | 'probed' | 'observed'>): boolean => {
  switch (e.kind) {
    case 'counted':
    case 'received':
    case 'figured':
    case 'measured':
    case 'marked':
      return !kit.rooms.lines.has(e.line);
    case 'probed':
      return !kit.rooms.stages.has(e.stage) || !kit.rooms.testPoints.has(e.testPoint);
    default:
      return !kit.rooms.checks.has(`${e.stage}/${e.check}`);
  }
};
