import { createSelector } from 'reselect';
import { isOrphan } from './dependents';
import type { Held } from './rooms';
import { isKnown } from './schema/known';
import type { RoomName } from './schema/names';
import type { ProbePoint } from './sheet';
import type { KitState } from './state';
import { stands } from './views/views';
import { meterIsTypical } from '../meter';

/** Something about a kit that wants a look: what, where, and what to do. */
export interface KitFinding {
  readonly code: 'conflict' | 'dangling' | 'orphans' | 'unknown' | 'undecided';
  readonly text: string;
  readonly room?: RoomName | undefined;
  readonly record?: string | undefined;
  /** The entries that it is about. */
  readonly entries: readonly string[];
}

/** Everything about a kit that wants a look, conflicts first. */
export const kitFindings = createSelector([(kit: KitState) => kit], (kit): KitFinding[] => [
  ...kit.conflicts.map((c): KitFinding => ({
    code: 'conflict',
    text: `${c.room} “${c.record}” was changed in two places at once. The later change counts: keep it, or take the other.`,
    ...c,
  })),
  ...dangling(kit),
  ...orphans(kit),
  ...unknown(kit),
  ...undecided(kit),
]);

const names = <R extends RoomName>(kit: KitState, room: R) => [...kit.rooms[room].values()] as readonly Held<R>[];

/** References to records that are not there. */
function dangling(kit: KitState): KitFinding[] {
  const refs = new Set(kit.sheet.lines.flatMap((l) => l.refs));
  const found: KitFinding[] = [];
  const say = (room: RoomName, record: string, text: string) => found.push({ code: 'dangling', room, record, text, entries: [] });
  for (const s of kit.sheet.stages) {
    const strange = [...s.fits, ...(s.without ?? []), ...(s.settings ?? []).map((x) => x.ref)].filter((r) => !refs.has(r) && refs.size > 0);
    if (strange.length > 0)
      say('stages', s.id, `Stage “${s.title}” names ${[...new Set(strange)].join(', ')}, which no line of the list has. Correct the stage or the list.`);
    for (const c of s.checks) {
      if (c.what !== 'measure') continue;
      const point = [c.red, c.black].map((p) => missingPoint(kit, refs, p)).find((t) => t !== null);
      if (point) say('checks', `${s.id}/${c.id}`, `Check “${c.title}” probes ${point}, which is not there. Choose another point for it.`);
    }
  }
  for (const { value: c } of names(kit, 'checks'))
    if (!kit.rooms.stages.has(c.stage))
      say('checks', `${c.stage}/${c.id}`, `Check “${c.title}” belongs to a stage that is gone. Remove it, or put the stage back (Logbook).`);
  for (const { value: c } of names(kit, 'claims'))
    if (c.check !== undefined && !kit.rooms.checks.has(c.check)) say('claims', c.id, `The claim “${c.text}” names a check that is gone. Choose another.`);
  for (const l of kit.sheet.lines) {
    const option = l.option?.split('=')[0];
    if (option !== undefined && !kit.rooms.options.has(option))
      say('lines', l.id, `${l.label} depends on an option “${option}” that is not there. It counts as fitted.`);
  }
  const { meter } = kit.settings;
  if (!meterIsTypical(meter) && !kit.rooms.meters.has(meter))
    say('settings', 'meter', 'The meter in use is not described: an everyday one is taken. Choose one under Instruments.');
  return found;
}

function missingPoint(kit: KitState, refs: ReadonlySet<string>, p: ProbePoint): string | null {
  if ('testPoint' in p) return kit.rooms.testPoints.has(p.testPoint) ? null : `test point ${p.testPoint}`;
  return 'ref' in p && !refs.has(p.ref) && refs.size > 0 ? p.ref : null;
}

const KEPT = new Set(['counted', 'received', 'figured', 'measured', 'marked', 'read', 'probed', 'observed']);

function orphans(kit: KitState): KitFinding[] {
  const entries = kit.log.filter((e) => KEPT.has(e.kind) && stands(kit, e) && isOrphan(kit, e as Parameters<typeof isOrphan>[1]));
  return entries.length === 0
    ? []
    : [
        {
          code: 'orphans',
          text: `${entries.length} ${entries.length === 1 ? 'entry belongs' : 'entries belong'} to lines or checks that are gone. They are kept in the Logbook and judge nothing.`,
          entries: entries.map((e) => e.id),
        },
      ];
}

function unknown(kit: KitState): KitFinding[] {
  const entries = kit.log.filter((e) => !isKnown(e));
  return entries.length === 0
    ? []
    : [
        {
          code: 'unknown',
          text: `${entries.length} ${entries.length === 1 ? 'entry was' : 'entries were'} written by a newer program. They are kept and count for nothing here.`,
          entries: entries.map((e) => e.id),
        },
      ];
}

function undecided(kit: KitState): KitFinding[] {
  const used = new Set(kit.sheet.lines.flatMap((l) => l.option?.split('=')[0] ?? []));
  return kit.sheet.options
    .filter((o) => used.has(o.id) && !kit.choices.has(o.id))
    .map((o) => ({
      code: 'undecided',
      text: `“${o.text}” is not decided: its parts count as fitted. Choose on the Sheet.`,
      room: 'options',
      record: o.id,
      entries: [],
    }));
}
