import { readFileSync } from 'node:fs';
import fc from 'fast-check';
import {
  checkKit,
  compareEntries,
  deriveMeasuredValues,
  deriveStrangers,
  deriveTray,
  deriveWaiting,
  documentOf,
  type Entry,
  type EntryBody,
  extend,
  fold,
  foldDocument,
  inBatch,
  kitFindings,
  type KitState,
  lastRedoable,
  lastUndoable,
  mergeDocuments,
  move,
  newKit,
  openKit,
  patch,
  put,
  remove,
  withDependents,
} from '@/core/kit';
import { schemaText, validatorSource } from '../../scripts/generate';
import { formatsText } from '../../scripts/formats';
import { append, at, demo, log } from '../support/kits';

const measured = (line: string, piece: number, ref: string, reading: number | 'over', meter = 'handheld'): EntryBody => ({
  kind: 'measured',
  line,
  piece,
  ref,
  mode: 'ohms',
  reading,
  meter,
});
const loose = (reading: number): EntryBody => ({ kind: 'loose', part: 'R', reading, marking: null, polarity: null, meter: 'handheld' });
const cell = (kit: KitState, line: string) => deriveTray(kit).find((c) => c.line.id === line)!;
const batch = (kit: KitState, id: string, second: number, ...bodies: EntryBody[]) => extend(kit, ...inBatch(bodies, { id, at: at(second).at }));
/** Two states that hold the same: identity of their parts aside. */
const same = (a: KitState, b: KitState) => {
  expect(a).toEqual(b);
};

describe('the log', () => {
  test('nothing is overwritten: a withdrawn entry stays readable and counts for nothing', () => {
    const kit = log(
      demo(),
      { kind: 'counted', line: 'r-680', quantity: 1 },
      { kind: 'counted', line: 'r-680', quantity: 3 },
      { kind: 'withdrawn', entry: 'e2' },
    );
    expect(kit.log.filter((e) => e.kind === 'counted')).toHaveLength(2);
    expect(cell(kit, 'r-680').counted).toBe(1);
    expect(lastUndoable(kit)!.id).toBe('e1');
  });

  test('a withdrawal that is itself withdrawn does nothing: that is how redo works, and it survives a reload', () => {
    const undone = log(demo(), { kind: 'counted', line: 'r-680', quantity: 1 }, { kind: 'withdrawn', entry: 'e1' });
    expect(cell(undone, 'r-680').counted).toBeNull();
    expect(lastRedoable(undone)!.id).toBe('e2');
    const redone = log(undone, { kind: 'withdrawn', entry: 'e2' });
    const reloaded = foldDocument(documentOf(redone));
    expect(cell(reloaded, 'r-680').counted).toBe(1);
    expect(lastRedoable(reloaded)).toBeNull();
    expect(lastUndoable(reloaded)!.id).toBe('e1');
  });

  test('what made the kit is no step that undo takes back', () => {
    expect(lastUndoable(demo())).toBeNull();
  });

  test('a batch is one step: one withdrawal takes all of it, one more brings it back', () => {
    const kit = batch(demo(), 'b', 5, { kind: 'noted', text: 'a' }, put(demo(), 'needs', { id: 'n', kind: 'tool', text: 'lens' }));
    expect(kit.sheet.needs.map((n) => n.id)).toContain('n');
    const undone = append(kit, { kind: 'withdrawn', ofBatch: 'b' }, at(9));
    expect(undone.sheet).toEqual(demo().sheet);
    same(append(undone, { kind: 'withdrawn', entry: 'e9' }, at(10)).sheet as never, kit.sheet as never);
  });

  test('a mistyped reading is corrected or moved: one taken back, one entered, in one step', () => {
    const wrong = log(demo(), measured('r-10k', 0, 'R4', 101500));
    const kit = batch(wrong, 'fix', 8, { kind: 'withdrawn', entry: 'e1' }, measured('r-10k', 1, 'R7', 10150, 'bench'));
    expect(cell(kit, 'r-10k').pieces.map((p) => p.entry?.reading ?? null)).toEqual([null, 10150, null, null]);
    expect(cell(kit, 'r-10k').pieces[1]!.entry!.meter).toBe('bench');
    const undone = append(kit, { kind: 'withdrawn', ofBatch: 'fix' }, at(11));
    expect(cell(undone, 'r-10k').pieces[0]!.entry!.reading).toBe(101500);
  });
});

/** Bodies that touch every part of the state. */
const anyBody: fc.Arbitrary<(n: number, kit: KitState) => EntryBody | null> = fc.oneof(
  fc.record({ line: fc.constantFrom('r-4k7', 'r-10k', 'gone'), quantity: fc.nat({ max: 5 }) }).map((v) => () => ({ kind: 'counted' as const, ...v })),
  fc.tuple(fc.constantFrom('r-4k7', 'r-10k'), fc.nat({ max: 3 }), fc.integer({ min: 1, max: 1e6 })).map(
    ([line, piece, r]) =>
      () =>
        measured(line, piece, 'R4', r),
  ),
  fc.integer({ min: 100, max: 1e5 }).map((r) => () => loose(r)),
  fc.constantFrom('r-2k2', 'r-10k', null).map((line) => (_: number, k: KitState): EntryBody | null => {
    const some = [...k.loose.keys()].slice(0, 2);
    return some.length === 0 ? null : { kind: 'sorted', pieces: some.map((id) => ({ loose: id, line })) };
  }),
  fc
    .constantFrom<EntryBody>(
      { kind: 'fitted', refs: ['R1', 'R2'] },
      { kind: 'removed', refs: ['R2'] },
      { kind: 'repaired', refs: ['R9'], note: '' },
      { kind: 'modified', change: { what: 'value-replaced', ref: 'R5', value: 5600 } },
      { kind: 'modified', change: { what: 'strap', option: 'case', choice: 'no' } },
      { kind: 'skipped', target: 'x' },
      { kind: 'meter-checked', meter: 'handheld', together: 0.4, apart: 'over', known: null },
      { kind: 'waiting', reason: 'parts' },
    )
    .map((b) => () => b),
  fc.integer({ min: 1, max: 1e4 }).map((value) => () => ({ kind: 'set' as const, ref: 'VR1', value })),
  fc.double({ min: 0, max: 12, noNaN: true }).map((reading) => () => ({ kind: 'read' as const, stage: 'warm', check: 'tp5', reading, meter: 'handheld' })),
  fc.nat({ max: 60 }).map((i) => (n: number, k: KitState): EntryBody | null => {
    const target = k.log[k.log.length - 1 - (i % Math.min(k.log.length, n + 1))];
    return target && !target.batch ? { kind: 'withdrawn', entry: target.id } : null;
  }),
  fc.tuple(fc.constantFrom('r-680', 'r-10k', 'c-100n'), fc.nat({ max: 9 })).map(
    ([id, quantity]) =>
      (_: number, k: KitState) =>
        patch(k, 'lines', id, { quantity }),
  ),
  fc.constantFrom('pocket', 'bench', 'handheld').map((value) => (_: number, k: KitState) => put(k, 'settings', { name: 'meter', value })),
);
const anyLog = fc.array(anyBody, { maxLength: 25 }).map((makers) =>
  makers.reduce((k, make, n) => {
    const body = make(n, k);
    return body === null ? k : append(k, body, { id: `x${n}`, at: at(n + 1).at });
  }, demo()),
);

describe('laws of the fold', () => {
  test('folding all is extending one by one, in whatever order the entries come', () => {
    fc.assert(
      fc.property(anyLog, fc.infiniteStream(fc.nat()), (kit, random) => {
        same(fold(kit.id, kit.created, kit.log), kit);
        const shuffled = kit.log.map((e) => ({ e, r: random.next().value as number })).sort((a, b) => a.r - b.r);
        same(extend(fold(kit.id, kit.created, []), ...shuffled.map((s) => s.e)), kit);
      }),
      { numRuns: 40 },
    );
  });

  test('undo restores what was before, redo what was undone; views agree', () => {
    const seen = (k: KitState) => [k.sheet, k.settings, k.board, k.tallies, [...k.readings], k.loose, deriveTray(k), [...deriveMeasuredValues(k, k.board)]];
    fc.assert(
      fc.property(anyLog, anyBody, (kit, make) => {
        const body = make(3, kit);
        if (body === null || body.kind === 'withdrawn') return;
        const next = append(kit, body, { id: 'y', at: at(100).at });
        const undone = append(next, { kind: 'withdrawn', entry: 'y' }, { id: 'u', at: at(101).at });
        expect(seen(undone)).toEqual(seen(kit));
        expect(seen(append(undone, { kind: 'withdrawn', entry: 'u' }, { id: 'r', at: at(102).at }))).toEqual(seen(next));
      }),
      { numRuns: 60 },
    );
  });

  test('merging is commutative, associative and idempotent, and loses no entry', () => {
    const branch = (k: KitState, name: string, bodies: readonly ((n: number, kit: KitState) => EntryBody | null)[]) =>
      documentOf(
        bodies.reduce((s, make, n) => {
          const body = make(n, s);
          return body === null ? s : append(s, body, { id: `${name}${n}`, at: at(50 + n * 2 + (name === 'a' ? 1 : 0)).at });
        }, k),
      );
    const bodies = fc.array(anyBody, { maxLength: 8 });
    fc.assert(
      fc.property(anyLog, bodies, bodies, bodies, (kit, one, two, three) => {
        const [a, b, c] = [branch(kit, 'a', one), branch(kit, 'b', two), branch(kit, 'c', three)];
        const all = mergeDocuments([a, b, c]);
        expect(mergeDocuments([c, b, a])).toEqual(all);
        expect(mergeDocuments([mergeDocuments([a, b]), c])).toEqual(all);
        expect(mergeDocuments([a, mergeDocuments([b, c])])).toEqual(all);
        expect(mergeDocuments([all, all, a])).toEqual(all);
        expect(new Set(all.log.map((e) => e.id))).toEqual(new Set([...a.log, ...b.log, ...c.log].map((e) => e.id)));
        expect([...all.log].sort(compareEntries)).toEqual(all.log);
        same(extend(foldDocument(a), ...b.log.filter((e) => !a.log.some((x) => x.id === e.id))), foldDocument(mergeDocuments([a, b])));
      }),
      { numRuns: 40 },
    );
  });

  test('what did not change keeps its identity: a reading touches neither sheet nor board nor tray', () => {
    const kit = log(demo(), { kind: 'counted', line: 'r-680', quantity: 1 });
    const next = log(kit, { kind: 'read', stage: 'warm', check: 'tp5', reading: 3.7, meter: 'handheld' });
    expect([next.sheet, next.settings, next.board, next.tallies, deriveTray(next)]).toEqual([kit.sheet, kit.settings, kit.board, kit.tallies, deriveTray(kit)]);
    expect(next.sheet).toBe(kit.sheet);
    expect(next.board).toBe(kit.board);
    expect(deriveTray(next)).toBe(deriveTray(kit));
  });
});

describe('one record changed in two places at once', () => {
  const base = demo();
  const left = append(base, patch(base, 'lines', 'r-680', { label: 'left' })!, { id: 'left', at: at(10).at });
  const right = append(base, patch(base, 'lines', 'r-680', { quantity: 7 })!, { id: 'right', at: at(11).at });
  const both = foldDocument(mergeDocuments([documentOf(left), documentOf(right)]));
  test('the later change stands, and the conflict is a finding that names both', () => {
    expect(both.sheet.lines[0]).toMatchObject({ label: '680 Ω', quantity: 7 });
    expect(both.conflicts).toEqual([{ room: 'lines', record: 'r-680', entries: ['left', 'right'] }]);
    expect(kitFindings(both)[0]).toMatchObject({ code: 'conflict', record: 'r-680' });
  });
  test('a change that knows of it settles it; so does taking one of the two back', () => {
    expect(append(both, patch(both, 'lines', 'r-680', { label: 'left' })!, at(20)).conflicts).toEqual([]);
    expect(append(both, { kind: 'withdrawn', entry: 'right' }, at(20)).conflicts).toEqual([]);
  });
  test('different records, or the same change twice, are none', () => {
    const other = append(base, patch(base, 'lines', 'r-10k', { quantity: 9 })!, { id: 'other', at: at(12).at });
    expect(foldDocument(mergeDocuments([documentOf(left), documentOf(other)])).conflicts).toEqual([]);
    const twin = append(base, patch(base, 'lines', 'r-680', { label: 'left' })!, { id: 'twin', at: at(12).at });
    expect(foldDocument(mergeDocuments([documentOf(left), documentOf(twin)])).conflicts).toEqual([]);
  });
  test('removed here and changed there is one; both are named', () => {
    const gone = append(base, remove(base, 'lines', 'r-680')!, { id: 'gone', at: at(9).at });
    const merged = foldDocument(mergeDocuments([documentOf(gone), documentOf(right)]));
    expect(merged.conflicts[0]!.entries).toEqual(['gone', 'right']);
    expect(merged.sheet.lines.some((l) => l.id === 'r-680')).toBe(true);
  });
  test('taking back a change that others were built on is none', () => {
    const two = append(left, patch(left, 'lines', 'r-680', { label: 'left, again' })!, at(12));
    expect(append(two, { kind: 'withdrawn', entry: 'left' }, at(13)).conflicts).toEqual([]);
  });
});

describe('order of records, and what hangs on them', () => {
  test('a moved record stands where it was put, whatever is added behind it', () => {
    const kit = demo();
    const ids = (k: KitState) => k.sheet.stages.map((s) => s.id);
    const moved = log(kit, ...move(kit, 'stages', ids(kit)[3]!, ids(kit)[1]!));
    expect(ids(moved).slice(0, 3)).toEqual([ids(kit)[0], ids(kit)[3], ids(kit)[1]]);
    expect(ids(moved).sort()).toEqual([...ids(kit)].sort());
    const [last] = [...ids(kit)].reverse();
    expect(ids(log(kit, ...move(kit, 'stages', ids(kit)[0]!, null))).at(-1)).toBe(ids(kit)[0]);
    expect(last).toBe('release');
  });
  test('a stage goes with its checks, in one step; its readings stay and are named', () => {
    const kit = log(demo(), { kind: 'read', stage: 'warm', check: 'tp5', reading: 3.7, meter: 'handheld' });
    const gone = batch(kit, 'b', 9, ...withDependents(kit, remove(kit, 'stages', 'warm')!));
    expect([...gone.rooms.checks.keys()].some((id) => id.startsWith('warm/'))).toBe(false);
    expect(kitFindings(gone)).toContainEqual(expect.objectContaining({ code: 'orphans', entries: ['e1'] }));
    expect(gone.log.some((e) => e.id === 'e1')).toBe(true);
    expect(append(gone, { kind: 'withdrawn', ofBatch: 'b' }, at(12)).sheet).toEqual(kit.sheet);
  });
  test('a renamed ref is followed everywhere: place, stage, settings', () => {
    const kit = demo();
    const line = kit.sheet.lines.find((l) => l.refs.includes('VR1'))!;
    const renamed = batch(kit, 'b', 9, ...withDependents(kit, patch(kit, 'lines', line.id, { refs: ['VR9'] })!));
    expect(renamed.sheet.placement.map((p) => p.ref)).toContain('VR9');
    expect(renamed.sheet.placement.map((p) => p.ref)).not.toContain('VR1');
    expect(renamed.sheet.stages.some((s) => s.fits.includes('VR9'))).toBe(true);
    expect(renamed.sheet.stages.flatMap((s) => s.settings ?? []).map((s) => s.ref)).not.toContain('VR1');
    expect(kitFindings(renamed).filter((f) => f.code === 'dangling')).toEqual([]);
  });
  test('what was left dangling is reported with its remedy', () => {
    const kit = demo();
    const broken = log(kit, remove(kit, 'testPoints', 'TP4')!);
    expect(kitFindings(broken).map((f) => f.text)).toContainEqual(expect.stringMatching(/probes test point TP4, which is not there\. Choose another/));
  });
});

describe('what follows from the log', () => {
  test('measured pieces: verdict, and the value that replaces the printed one; a piece that is out is not expected on the board', () => {
    const kit = log(demo(), measured('r-10k', 0, 'R4', 10150), measured('r-4k7', 1, 'R6', 46800), measured('r-10k', 1, 'R7', 'over'));
    expect(cell(kit, 'r-10k').pieces.map((p) => p.verdict)).toEqual(['in', 'out', 'none', 'none']);
    expect(cell(kit, 'r-4k7').verdict).toBe('out');
    const values = deriveMeasuredValues(kit, kit.board);
    expect([...values.keys()]).toEqual(['R4']);
    // Lead resistance of the handheld, 0.2 Ω, is subtracted.
    expect(values.get('R4')!.value).toBeCloseTo(10149.8, 6);
  });

  test('the board as it was at a moment, and as it is', () => {
    const kit = log(
      demo(),
      { kind: 'fitted', refs: ['R1', 'R2'] },
      { kind: 'read', stage: 'warm', check: 'tp5', reading: 1, meter: 'handheld' },
      { kind: 'set', ref: 'VR1', value: 4000 },
      { kind: 'removed', refs: ['R2'] },
      { kind: 'modified', change: { what: 'link', nets: ['a', 'b'] } },
    );
    expect([...kit.readings.get('warm/tp5')![0]!.met.board.fitted]).toEqual(['R1', 'R2']);
    expect([...kit.board.fitted]).toEqual(['R1']);
    expect([...kit.board.removed]).toEqual(['R2']);
    expect(kit.board.set.get('VR1')).toBe(4000);
    expect(kit.board.modifications).toHaveLength(1);
  });

  test('waiting and resuming', () => {
    const waiting = log(demo(), { kind: 'waiting', reason: 'a 100 nF is on its way' });
    expect(deriveWaiting(waiting)!.reason).toMatch(/100 nF/);
    expect(deriveWaiting(log(waiting, { kind: 'resumed', waited: 'e1' }))).toBeNull();
  });

  test('a count, a sorted pile and a second pile add up; nothing is counted twice or forgotten', () => {
    let kit = log(demo(), { kind: 'counted', line: 'r-10k', quantity: 1 }, loose(9990), loose(10020), loose(4700));
    kit = log(kit, { kind: 'sorted', pieces: ['e2', 'e3'].map((id) => ({ loose: id, line: 'r-10k' })) });
    expect(cell(kit, 'r-10k').counted).toBe(3);
    kit = log(kit, loose(10010));
    // The second pile names a piece of the first once more: it is there already.
    kit = log(kit, {
      kind: 'sorted',
      pieces: [
        { loose: 'e6', line: 'r-10k' },
        { loose: 'e2', line: 'r-10k' },
        { loose: 'e4', line: null },
      ],
    });
    expect(cell(kit, 'r-10k').counted).toBe(4);
    expect(cell(kit, 'r-10k').pieces.map((p) => p.entry?.reading ?? null)).toEqual([null, 9990, 10020, 10010]);
    expect(deriveStrangers(kit).map((p) => p.entry.id)).toEqual(['e4']);
    // Sorted elsewhere after all: it leaves one line and joins the other.
    kit = log(kit, { kind: 'sorted', pieces: [{ loose: 'e3', line: 'r-4k7' }] });
    expect([cell(kit, 'r-10k').counted, cell(kit, 'r-4k7').counted]).toEqual([3, 1]);
    // A new count by hand says how many there are in all.
    expect(cell(log(kit, { kind: 'counted', line: 'r-10k', quantity: 4 }), 'r-10k').counted).toBe(4);
  });
});

describe('the kit file at every door', () => {
  test('out and in again is the identity', () => {
    const kit = documentOf(
      log(demo(), measured('r-10k', 0, 'R4', 10150), { kind: 'found', fault: { kind: 'bridge', parts: [], detail: { nets: ['a', 'b'] } }, probability: 0.9 }),
    );
    expect(openKit(JSON.stringify(kit))).toMatchObject({ ok: true, kit, migratedFrom: null, findings: [], damaged: [], readOnly: false });
  });

  const fixture = (name: string) => readFileSync(`test/fixtures/${name}.json`, 'utf8');
  test.each([
    ['kit-v1', 1],
    ['kit-v2', 2],
    ['kit-v3-practice', 3],
    ['kit-v3-own', 3],
  ])('%s (version %d) opens: every record of its sheet, its settings and its log are there', (name, version) => {
    const old = JSON.parse(fixture(name)) as { sheet: KitState['sheet']; log: Entry[]; settings?: KitState['settings']; meter?: string };
    const opened = openKit(fixture(name));
    if (!opened.ok) throw new Error(opened.message);
    expect(opened.migratedFrom).toBe(version);
    const kit = foldDocument(opened.kit);
    const { revision: _, photos, circuit, ...sheet } = old.sheet as KitState['sheet'] & { revision: number };
    expect(kit.sheet).toMatchObject({ ...sheet, circuit });
    expect(kit.sheet.photos).toHaveLength(photos.length);
    // What made it stands first, whatever the clock said when it was made.
    expect(kit.log.slice(-old.log.length)).toEqual(old.log);
    expect(kit.settings.meter).toBe(old.settings?.meter ?? old.meter);
    expect(kit.settings.school).toBe(old.settings?.school ?? 'simple');
    expect(kit.conflicts).toEqual([]);
    // Opened once more it is what it was: nothing is migrated twice.
    expect(openKit(JSON.stringify(opened.kit))).toMatchObject({ ok: true, kit: opened.kit, migratedFrom: null });
  });

  test('two copies of one old kit unite without doubling, and differ where they differ', () => {
    const text = fixture('kit-v3-practice');
    const other = JSON.parse(text) as { sheet: { title: string } };
    other.sheet.title = 'Renamed elsewhere';
    const docs = [openKit(text), openKit(text), checkKit(other)].map((o) => (o.ok ? o.kit : null)!);
    expect(mergeDocuments(docs.slice(0, 2))).toEqual(docs[0]);
    expect(foldDocument(mergeDocuments(docs)).conflicts).toEqual([expect.objectContaining({ room: 'about' })]);
  });

  test('a photo’s bytes move to the attachments, its record keeps their hash', () => {
    const opened = openKit(fixture('kit-v3-own'));
    if (!opened.ok) throw new Error(opened.message);
    const [photo] = foldDocument(opened.kit).sheet.photos;
    expect(photo).toMatchObject({ id: 'p', name: 'top', type: 'image/png', pins: [{ ref: 'R1', x: 1, y: 2 }] });
    expect(opened.kit.attachments![photo!.hash]).toBe('iVBORw0KGgo=');
  });

  test('a newer version is shown as far as it is understood, and never to be written over', () => {
    const kit = documentOf(demo());
    const opened = checkKit({ ...kit, version: 5, colour: 'new', log: [...kit.log, { kind: 'hummed', id: 'h', at: 'z', pitch: 440 }] });
    expect(opened).toMatchObject({ ok: true, readOnly: true, findings: [{ code: 'newer' }, { code: 'unknown-entry' }] });
  });

  test('entries of unknown kinds are kept, and said', () => {
    const kit = documentOf(demo());
    const strange = { kind: 'hummed', id: 'h', at: '2026-01-02T00:00:00.000Z', pitch: 440 };
    const opened = checkKit({ ...kit, log: [...kit.log, strange] });
    if (!opened.ok) throw new Error(opened.message);
    expect(opened.kit.log).toContainEqual(strange);
    expect(opened.findings).toEqual([expect.objectContaining({ code: 'unknown-entry', record: 'h' })]);
    expect(kitFindings(foldDocument(opened.kit)).some((f) => f.code === 'unknown')).toBe(true);
  });

  test('doubled entries count once; two that share an id and differ are said', () => {
    const kit = documentOf(log(demo(), { kind: 'noted', text: 'a' }));
    const again = checkKit({ ...kit, log: [...kit.log, ...kit.log] });
    expect(again).toMatchObject({ ok: true, kit, findings: [] });
    const forged = { ...kit.log.at(-1)!, text: 'b' };
    expect(checkKit({ ...kit, log: [...kit.log, forged] })).toMatchObject({ ok: true, findings: [{ code: 'duplicate', record: 'e1' }] });
  });

  test.each([
    ['truncated', JSON.stringify(documentOf(demo())).slice(0, 5000), /not a whole JSON file \(line 1, column \d+\)/],
    ['foreign', '{"parts":[]}', /no Zesty Bench kit/],
    ['no object', '[1,2]', /no Zesty Bench kit/],
    ['no version', JSON.stringify({ ...documentOf(demo()), version: 'x' }), /no readable version/],
    [
      'wrong type inside',
      JSON.stringify({ ...documentOf(demo()), log: [{ kind: 'counted', id: 'a', at: 'b', line: 'c', quantity: -1 }] }),
      /entry a \(counted of “c”\): quantity .*Nothing was changed/,
    ],
    ['unknown field', JSON.stringify({ ...documentOf(demo()), extra: 1 }), /does not fit its schema: extra/],
    [
      'a record under another name',
      JSON.stringify({ ...documentOf(demo()), log: [{ ...put(demo(), 'needs', { id: 'n', kind: 'tool', text: 'x' }), record: 'm', id: 'a', at: 'b' }] }),
      /change of “m” in needs.*calls itself “n”/,
    ],
    [
      'a line with a wrong field',
      JSON.stringify({
        ...documentOf(demo()),
        log: [{ kind: 'changed', id: 'a', at: 'b', room: 'lines', record: 'x', before: null, after: { id: 'x', kind: 'spoon' } }],
      }),
      /change of “x” in lines \(entry a\)/,
    ],
    [
      'an old sheet that is none',
      JSON.stringify({ format: 'zesty-bench-kit', version: 3, id: 'a', created: 'b', sheet: { title: 't', lines: 5 }, log: [], settings: {} }),
      /sheet\.lines must be a list/,
    ],
    ['prototype games', '{"__proto__":{"format":"zesty-bench-kit"}}', /no Zesty Bench kit/],
  ])('%s is refused with place and remedy', (_, text, message) => {
    const opened = openKit(text);
    expect(opened.ok).toBe(false);
    if (!opened.ok) expect(opened.message).toMatch(message);
  });

  test('whatever JSON comes, it is answered and never thrown', () => {
    fc.assert(
      fc.property(fc.jsonValue(), (value) => {
        expect(checkKit(value).ok).toBe(false);
      }),
    );
  });

  test('the published schema, its description and the compiled validator are those of the source', () => {
    expect(readFileSync('docs/kit.schema.json', 'utf8')).toBe(schemaText());
    expect(readFileSync('docs/formats.md', 'utf8')).toBe(formatsText());
    expect(readFileSync('src/core/kit/generated/validateEntry.js', 'utf8')).toBe(validatorSource());
  });
});

describe('mutated kit files: 5 000 of them', () => {
  const sources = ['kit-v1', 'kit-v2', 'kit-v3-practice', 'kit-v3-own'].map((n) => readFileSync(`test/fixtures/${n}.json`, 'utf8'));
  sources.push(
    JSON.stringify(documentOf(log(demo(), measured('r-10k', 0, 'R4', 10150), loose(4700), { kind: 'sorted', pieces: [{ loose: 'e2', line: null }] }))),
  );
  const values = [null, 0, -1, 1e308, '', 'x'.repeat(5000), [], {}, true, '__proto__', [[[[]]]], { length: 3 }];
  type Node = { at: object; key: string };
  const nodes = (v: unknown, out: Node[] = []): Node[] => {
    if (typeof v === 'object' && v !== null)
      for (const key of Object.keys(v)) {
        out.push({ at: v, key });
        nodes((v as Record<string, unknown>)[key], out);
      }
    return out;
  };
  const answers = (text: string) => {
    const opened = openKit(text);
    if (opened.ok) {
      expect(checkKit(JSON.parse(JSON.stringify(opened.kit))).ok).toBe(true);
      foldDocument(opened.kit);
    } else expect(opened.message.length).toBeGreaterThan(20);
  };
  test('bytes: cut, doubled, replaced', () => {
    fc.assert(
      fc.property(fc.constantFrom(...sources), fc.nat(), fc.nat({ max: 200 }), fc.string({ maxLength: 3 }), (text, from, length, by) => {
        const at = from % text.length;
        answers(text.slice(0, at) + by + text.slice(at + length));
      }),
      { numRuns: 1500 },
    );
  });
  test('fields: another type, removed, renamed, doubled, moved', () => {
    const parsed = sources.map((s) => JSON.parse(s) as object);
    const places = parsed.map((p) => nodes(p).length);
    fc.assert(
      fc.property(fc.nat({ max: sources.length - 1 }), fc.nat(), fc.nat({ max: values.length + 3 }), (which, where, how) => {
        const copy = JSON.parse(sources[which]!) as object;
        const node = nodes(copy)[where % places[which]!]!;
        const record = node.at as Record<string, unknown>;
        if (how < values.length) record[node.key] = values[how];
        else if (how === values.length) Reflect.deleteProperty(record, node.key);
        else if (how === values.length + 1) {
          record[`${node.key}x`] = record[node.key];
          Reflect.deleteProperty(record, node.key);
        } else if (Array.isArray(node.at) && how === values.length + 2) node.at.push(record[node.key]);
        else if (Array.isArray(node.at)) node.at.reverse();
        answers(JSON.stringify(copy));
      }),
      { numRuns: 3500 },
    );
  });
  test('hostile: deep, wide and long ones are answered: nothing grows without bound, no stack runs over', () => {
    const head = '{"format":"zesty-bench-kit","version":4,"id":"a","created":"b","log":';
    const hostile = [
      '['.repeat(4e6),
      `${head}[${'{},'.repeat(1e6)}{}]}`,
      `${head}[${Array.from({ length: 60000 }, (_, i) => `{"kind":"withdrawn","id":"w${i}","at":"t","entry":"w${i - 1}"}`).join()}]}`,
      `${head}"${'x'.repeat(8e6)}"}`,
      `{"format":"zesty-bench-kit","version":3,"id":"a","created":"b","sheet":{"title":"t","lines":[${'{},'.repeat(50000)}{}]},"settings":{},"log":[]}`,
    ];
    for (const text of hostile) {
      const opened = openKit(text);
      if (opened.ok) foldDocument(opened.kit);
      else expect(opened.message.length).toBeGreaterThan(20);
    }
  }, 60_000);
});

test('a sheet about which nothing was written is empty, and says so nowhere by crashing', () => {
  const kit = newKit({ ...demo().sheet, lines: [], stages: [], circuit: null, testPoints: [], placement: [] }, at(0));
  expect(deriveTray(kit)).toEqual([]);
  expect(kitFindings(kit).filter((f) => f.code === 'dangling')).toEqual([]);
});
