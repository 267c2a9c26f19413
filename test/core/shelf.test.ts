/** What the shelf does with whole kits: another name, a second copy, a copy to practise on, the archive. */
import { backupDue } from '@/store/backup';
import { checkKit, documentOf, type EntryBody, foldDocument, isOfMaking, type KitState, remove } from '@/core/kit';
import { describeFault, type Fault } from '@/core/fault';
import { duplicateKit, kitForOthers, practiceCopy, renameKit } from '@/store/shelf';
import { archiveKit, noteStanding, type ShelfItem, takeOff } from '@/store/shelfItems';
import { listKits } from '@/store/shelfList';
import { createKit, loadKit, summaryOf } from '@/store/storage';
import { hideFault, hideTrouble } from '@/stand-in';
import { demo, log, setupOf } from '../support/kits';

const NOTHING_HIDDEN = { seed: 1, fault: hideFault(), pieces: {} };
const COUNT: EntryBody = { kind: 'counted', line: 'r-680', quantity: 1 };
const kit = (id: string): KitState => log({ ...demo(), id }, COUNT);
const stored = async (id: string) => {
  const found = await loadKit(id);
  if (!found?.ok) throw new Error('not stored');
  return foldDocument(found.kit);
};
const work = (k: KitState) => k.log.filter((e) => !isOfMaking(k, e)).map((e) => e.kind);

test('another name is one entry of the log, and can be taken back', async () => {
  await createKit(documentOf(kit('name')));
  await renameKit('name', 'Cold frame');
  const renamed = await stored('name');
  expect(renamed.sheet.title).toBe('Cold frame');
  expect(work(renamed)).toEqual(['counted', 'changed']);
  const back = log(renamed, { kind: 'withdrawn', ofBatch: renamed.log.at(-1)!.batch! });
  expect(back.sheet.title).toBe('Frost sentinel');
  await expect(renameKit('name', '  ')).rejects.toThrow('needs a name');
  await expect(renameKit('nowhere', 'x')).rejects.toThrow('not here any more');
});

test('a second one of the same kit: the sheet for another bag, or all of it; the first stays as it is', async () => {
  const first = kit('twin');
  await createKit({ ...documentOf(first), attachments: { aa: 'AAAA' } });
  const sheetOnly = await stored(await duplicateKit('twin', false));
  expect(sheetOnly.id).not.toBe('twin');
  expect(work(sheetOnly)).toEqual([]);
  expect({ ...sheetOnly.sheet, title: '' }).toEqual({ ...first.sheet, title: '' });
  expect(sheetOnly.settings.standIn).toBeNull();
  const whole = await stored(await duplicateKit('twin', true));
  expect(work(whole)).toEqual(['counted', 'changed']);
  expect(whole.tallies).toEqual(first.tallies);
  expect(await stored('twin')).toEqual(foldDocument(documentOf(first)));
});

test('a copy to practise on hides one fault that the board can have, and takes nothing of the log', async () => {
  const faults = new Set<string>();
  for (let seed = 1; seed < 7; seed++) {
    const copy = await stored(await practiceCopy(kit('real'), hideTrouble(setupOf(kit('real')), { trouble: 'fault', difficulty: 'fair', seed }), false));
    expect(copy.sheet.title).toBe('Frost sentinel, practice');
    expect(work(copy)).toEqual([]);
    const fault = JSON.parse(atob(copy.settings.standIn!.fault)) as Fault;
    expect(fault.kind).not.toBe('healthy');
    expect(fault.parts.every((ref) => copy.sheet.lines.some((l) => l.refs.includes(ref)))).toBe(true);
    faults.add(describeFault(fault).title);
  }
  expect(faults.size).toBeGreaterThan(1);
}, 60_000);

test('a kit without a circuit cannot be practised on, and says why', () => {
  const k = kit('bare');
  const bare = log(k, remove(k, 'circuit', [...k.rooms.circuit.keys()][0]!)!);
  expect(() => hideTrouble(setupOf(bare), { trouble: 'fault', difficulty: 'fair', seed: 1 })).toThrow('No fault can be hidden');
});

test('an archived kit stays on the list, marked; the mark goes off again', async () => {
  await createKit(documentOf(kit('old')));
  const item = async () => (await listKits()).find((i) => i.id === 'old')!;
  expect((await item()).standing).toMatchObject({ phase: 'unpack', last: 'Counted 1 × 680 Ω' });
  await archiveKit(await item(), true);
  expect((await item()).archived).toBe(true);
  await archiveKit(await item(), false);
  expect((await item()).archived).toBe(false);
});

test('a note names its photos by their hash; one without a name is no note', () => {
  const photo = { name: 'joint.jpg', hash: 'ab', type: 'image/jpeg' };
  const noted = log(kit('n'), { kind: 'noted', text: 'grey joint', photos: [photo] });
  expect(checkKit(documentOf(noted)).ok).toBe(true);
  const bad = { ...documentOf(noted), log: documentOf(noted).log.map((e) => (e.kind === 'noted' ? { ...e, photos: [{ hash: 'ab' }] } : e)) };
  const refused = checkKit(bad);
  expect(refused.ok ? refused.damaged.length : 1).toBeGreaterThan(0);
});

test('what was done on the shelf stays so when the kit is noted anew: archived by an entry or a rename, taken off by a late note', async () => {
  const k = kit('kept');
  await createKit(documentOf(k));
  const item = async () => (await listKits()).find((i) => i.id === 'kept');
  await archiveKit((await item())!, true);
  await renameKit('kept', 'Another name');
  expect(await item()).toMatchObject({ title: 'Another name', archived: true });
  // The note of an entry that was made before the kit was taken off comes late.
  await takeOff((await item())!);
  await noteStanding(summaryOf(await stored('kept')));
  expect(await item()).toBeUndefined();
  // An entry after that brings it back: somebody works on it.
  const later = log(await stored('kept'), COUNT);
  await noteStanding({ ...summaryOf(later), lastAt: new Date(Date.now() + 1000).toISOString() });
  expect(await item()).toBeDefined();
});

test('a title as long as it may be leaves its copies whole: they open again', async () => {
  const k = { ...demo(), id: 'long' };
  await createKit(documentOf(k));
  await renameKit('long', 'x'.repeat(200));
  await expect(renameKit('long', 'x'.repeat(201))).rejects.toThrow('at most 200');
  for (const id of [await duplicateKit('long', false), await duplicateKit('long', true), await practiceCopy(await stored('long'), NOTHING_HIDDEN, false)]) {
    const copy = await stored(id);
    expect(copy.sheet.title).toHaveLength(200);
    expect(copy.sheet.title).toMatch(/, (another one|copy|practice)$/);
    expect(checkKit(documentOf(copy)).ok).toBe(true);
  }
});

test('photos of notes stay with their log: a second one of the kit does not carry them', async () => {
  await createKit({ ...documentOf(kit('photos')), attachments: { ofANote: 'AAAA' } });
  const found = await loadKit(await duplicateKit('photos', false));
  expect(found?.ok && found.kit.attachments).toBeUndefined();
  const whole = await loadKit(await duplicateKit('photos', true));
  expect(whole?.ok && whole.kit.attachments).toEqual({ ofANote: 'AAAA' });
});

test('a kit for others holds its sheet, and nothing of the log or of the meters in use', async () => {
  const worked = log(demo(), { kind: 'counted', line: demo().sheet.lines[0]!.id, quantity: 1 });
  await createKit({ ...documentOf(worked), id: 'mine' });
  const given = foldDocument(await kitForOthers('mine'));
  expect(given.sheet).toEqual(worked.sheet);
  expect(work(given)).toEqual([]);
  expect(given.id).not.toBe('mine');
});

test('a round whose fault is on the board finds it soldered, but for what a later stage puts in', async () => {
  const copy = await stored(await practiceCopy({ ...demo(), id: 'bench' }, NOTHING_HIDDEN, true));
  const later = copy.sheet.stages
    .filter((s) => s.supplies.length > 0)
    .slice(1)
    .flatMap((s) => s.fits);
  expect(copy.board.fitted.has('R1')).toBe(true);
  expect(later.length).toBeGreaterThan(0);
  for (const ref of later) expect(copy.board.fitted.has(ref)).toBe(false);
});

describe('a word about what no file holds', () => {
  const item = (entries: number): ShelfItem => ({ id: `k${entries}`, title: 'Kit', maker: '', entries, lastAt: '2026-03-01T10:00:00.000Z', damaged: null });
  const now = Date.parse('2026-03-20T10:00:00.000Z');

  it('comes with an evening’s work that was never saved, not before', () => {
    expect(backupDue([item(12), item(40)], null, now)).toBeNull();
    expect(backupDue([item(12), item(60)], null, now)).toBe(72);
  });

  it('counts from the last file, and waits a week', () => {
    expect(backupDue([item(200)], { at: '2026-03-18T10:00:00.000Z', entries: 100 }, now)).toBeNull();
    expect(backupDue([item(200)], { at: '2026-03-02T10:00:00.000Z', entries: 100 }, now)).toBe(100);
    expect(backupDue([item(200)], { at: '2026-03-02T10:00:00.000Z', entries: 190 }, now)).toBeNull();
  });
});
