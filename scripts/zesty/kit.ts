import {
  checkKit,
  deriveTray,
  documentOf,
  type Entry,
  type EntryBody,
  entryProblem,
  foldDocument,
  inOrder,
  type KitDocument,
  type KitState,
  kitFindings,
  KNOWN_KINDS,
  KNOWN_ROOMS,
  mergeDocuments,
  openKit,
  put,
  ROOM_NAMES,
  type RoomName,
  type Stamp,
  type Taken,
  unite,
} from '../../src/core/kit';
import { judgeReading, windowFor, windowOfReading } from '../../src/core/loop/progress';
import { entryText } from '../../src/core/loop/logText';
import { fitTargets } from '../../src/core/loop/fitTargets';
import { countTargets } from '../../src/core/loop/targets';
import { sellerLetter } from '../../src/core/report';
import { allWindows, windowInputs, type Windows } from '../../src/core/stage/index';
import { fittedAt } from '../../src/core/stage/circuitAt';
import { setupOf } from '../../src/core/stage/setup';
import { placeOf } from '../../src/core/vocabulary';
import { arrayOf, objectAt, textAt } from './fields';
import type { Request } from './main';

/** The document without a browser: open, edit, undo, merge, view. */
export function kit(request: Request): object {
  const what = textAt(request, 'do');
  const act = ACTS[what];
  if (!act) throw new Error(`"do" must be one of ${Object.keys(ACTS).join(', ')}`);
  return act(request);
}

const ACTS: Readonly<Record<string, (request: Request) => object>> = {
  open: (r) => {
    const opened = openKit(textAt(r, 'text'));
    if (!opened.ok) return { ok: false, message: opened.message, ...(opened.at === undefined ? {} : { at: opened.at }) };
    const inside = kitFindings(foldDocument(opened.kit)).map(({ code, text, record }) => ({ code, text, ...(record === undefined ? {} : { record }) }));
    return {
      ok: true,
      migratedFrom: opened.migratedFrom,
      ...(opened.readOnly ? { readOnly: true } : {}),
      kit: opened.kit,
      findings: [...opened.findings, ...inside],
    };
  },
  edit: (r) => ({ kit: edited(documentAt(r), arrayOf(r, 'entries'), arrayOf(r, 'stamps').map(stampAt)) }),
  undo: (r) => ({ kit: undone(documentAt(r), r) }),
  merge: (r) => {
    const docs = arrayOf(r, 'kits').map((k, i) => checked(k, `kits[${i}]`));
    const ids = [...new Set(docs.map((d) => d.id))];
    if (ids.length !== 1) throw new Error(`"kits" must be copies of one kit; these are ${ids.join(' and ') || 'none'}`);
    const merged = mergeDocuments(docs);
    return { kit: merged, conflicts: foldDocument(merged).conflicts };
  },
  view: (r) => {
    const name = textAt(r, 'view');
    const view = VIEWS[name];
    if (!view) throw new Error(`"view" must be one of ${Object.keys(VIEWS).join(', ')}`);
    return { value: view(foldDocument(documentAt(r))) };
  },
};

export const documentAt = (r: Request) => checked(objectAt(r, 'kit'), 'kit');

function checked(raw: Request, name: string): KitDocument {
  const opened = checkKit(raw);
  if (!opened.ok) throw new Error(`"${name}": ${opened.message}`);
  if (opened.readOnly) throw new Error(`"${name}": ${opened.findings[0]!.text}`);
  return opened.kit;
}

const stampAt = (r: Request): Stamp => ({ id: textAt(r, 'id'), at: textAt(r, 'at') });

function edited(doc: KitDocument, bodies: readonly Request[], stamps: readonly Stamp[]): KitDocument {
  if (bodies.length !== stamps.length) throw new Error(`"stamps" must hold one stamp an entry: ${bodies.length} entries, ${stamps.length} stamps`);
  return bodies.reduce((d, body, i) => {
    const stamp = stamps[i]!;
    if (d.log.some((e) => e.id === stamp.id)) throw new Error(`entries[${i}]: the id ${stamp.id} is taken`);
    const entry = { ...(body['kind'] === 'changed' ? withBefore(d, body) : body), ...stamp } as Entry;
    if (!KNOWN_KINDS.has(String(body['kind']))) throw new Error(`entries[${i}]: the kind “${String(body['kind'])}” is not known`);
    const problem = entryProblem(entry);
    if (problem !== null) throw new Error(`entries[${i}]: ${problem}`);
    return documentOf({ ...d, log: unite(d.log, [entry]).log }, d.attachments);
  }, doc);
}

/** `before` may be left out of a change: it is what stands there. A new record goes to the end of its room. */
function withBefore(doc: KitDocument, body: Request): Request {
  const room = String(body['room']);
  const state = foldDocument(doc);
  if (!KNOWN_ROOMS.has(room)) return body;
  const held = state.rooms[room as RoomName].get(String(body['record']));
  const before = 'before' in body ? body['before'] : (held?.value ?? null);
  const after = body['after'];
  const isNew = !held && typeof after === 'object' && after !== null && !('order' in body);
  const order = isNew ? put(state, room as RoomName, after as never).order : undefined;
  return { ...body, before, ...(order === undefined ? {} : { order }) };
}

function undone(doc: KitDocument, r: Request): KitDocument {
  const stamp = stampAt(objectAt(r, 'stamp'));
  const named = 'batch' in r ? { ofBatch: textAt(r, 'batch') } : { entry: textAt(r, 'entry') };
  const there = doc.log.some((e) => ('ofBatch' in named ? e.batch === named.ofBatch : e.id === named.entry));
  if (!there) throw new Error('ofBatch' in named ? `"batch": no entry belongs to ${named.ofBatch}` : `"entry": there is no entry ${named.entry}`);
  const entry: Entry = { kind: 'withdrawn', ...named, ...stamp };
  const problem = entryProblem(entry);
  if (problem !== null) throw new Error(problem);
  return documentOf({ ...doc, log: unite(doc.log, [entry]).log }, doc.attachments);
}

const VIEWS: Readonly<Record<string, (state: KitState) => unknown>> = {
  sheet: (state) => Object.fromEntries(ROOM_NAMES.filter((n) => n !== 'settings' && n !== 'meters').map((name) => [name, inOrder(state.rooms[name] as never)])),
  settings: (state) => state.settings,
  count: (state) => countTargets(state).map(({ target }) => (target.kind === 'count' ? { line: target.line.id, want: target.line.quantity } : null)),
  pieces: (state) =>
    deriveTray(state).flatMap(({ line, pieces }) =>
      pieces.flatMap((p) =>
        p.entry ? [{ line: line.id, piece: p.index, ref: p.ref, reading: p.entry.reading, meter: p.entry.meter, verdict: p.verdict }] : [],
      ),
    ),
  fit: (state) =>
    fitTargets(state).flatMap(({ target }) =>
      target.kind === 'fit' ? target.refs.filter((ref) => !state.board.fitted.has(ref)).map((ref) => ({ ref, line: target.line.id })) : [],
    ),
  readings: (state) => readings(state),
  letter: (state) => sellerLetter(state) ?? '',
  log: (state) => state.log.map((e) => ({ id: e.id, at: e.at, text: entryText(state, e), stands: !state.gone.has(e.id) })),
};

type Reading = Taken<Extract<EntryBody & Stamp, { kind: 'read' | 'probed' }>>;

function readings(state: KitState): object[] {
  const inputs = windowInputs(state, true);
  const windows: Windows = inputs ? allWindows(inputs) : {};
  return [...state.readings]
    .flatMap(([observable, all]) => all.filter((t): t is Reading => t.entry.kind !== 'observed').map((taken) => ({ observable, taken })))
    .sort((a, b) => a.taken.met.at - b.taken.met.at)
    .map(({ observable, taken: { entry, met } }) => {
      const stage = state.sheet.stages.find((s) => s.id === entry.stage);
      const check = entry.kind === 'read' ? stage?.checks.find((c) => c.id === entry.check) : undefined;
      const computed = windowOfReading(windows, entry.id, observable);
      const window = check?.what === 'measure' ? windowFor(check, computed) : computed && { ...computed, source: 'computed' as const, conflict: false };
      const mode = check?.what === 'measure' ? check.mode : 'dcv';
      const { verdict } = judgeReading(entry.reading, mode, window, met.meter);
      const place = placeOf(observable);
      return {
        stage: entry.stage,
        check: place.check ?? `@${place.testPoint ?? ''}`,
        reading: entry.reading,
        meter: entry.meter,
        verdict: stage && (entry.kind === 'probed' || check) ? verdict : 'none',
        present: stage ? [...fittedAt(setupOf(state, met), stage)].sort() : [],
      };
    });
}
