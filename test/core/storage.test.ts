/** Storage in a browser's database (simulated): nothing that was entered is lost, whatever comes between. */
import localforage from 'localforage';
import { documentOf, type EntryBody, foldDocument, type KitDocument, type KitState, patch } from '@/core/kit';
import { NOTHING_BESIDE, readDraft } from '@/core/draft';
import { createKit as makeKit, openDemo, previewFile, takeIn } from '@/store/shelf';
import { putBack, takeOff } from '@/store/shelfItems';
import { listKits } from '@/store/shelfList';
import { appendEntries, createKit, listCards, loadDraft, loadDrawer, loadKit, rawKit, saveCard, saveDraft, saveDrawer } from '@/store/storage';
import { stampAfter } from '@/store/stamps';
import { append, at, demo } from '../support/kits';

const kit = (id: string): KitState => ({ ...demo(), id });
const note = (k: KitState, n: number): KitState => append(k, { kind: 'noted', text: `note ${n}` } satisfies EntryBody, at(n));
const last = (k: KitState) => [k.log[k.log.length - 1]!];
const stored = async (id: string): Promise<KitDocument> => {
  const found = await loadKit(id);
  if (!found?.ok) throw new Error('not stored');
  return found.kit;
};
const base = (id: string) => localforage.createInstance({ name: `zesty-kit-${id}`, storeName: 'log' });
const oldKits = localforage.createInstance({ name: 'zesty-bench', storeName: 'kits' });
const file = (name: string, text: string) => ({ name, text: () => Promise.resolve(text) }) as unknown as File;
const fileOf = (k: KitState) => file('x.json', JSON.stringify(documentOf(k)));

test('a kit comes back as it was stored', async () => {
  const one = note(kit('same'), 1);
  await createKit(documentOf(one));
  expect(await stored('same')).toEqual(documentOf(one));
  expect(await loadKit('never')).toBeNull();
});

test('attachments stay with their kit, through storage and union', async () => {
  const doc = { ...documentOf(kit('photo')), attachments: { aa: 'AAAA' } };
  await createKit(doc);
  expect(await stored('photo')).toEqual(doc);
  await takeIn({ ...documentOf(note(kit('photo'), 1)), attachments: { bb: 'BBBB' } });
  expect((await stored('photo')).attachments).toEqual({ aa: 'AAAA', bb: 'BBBB' });
});

test('two tabs that write at the same time lose nothing: each entry is a put of its own', async () => {
  const start = kit('tabs');
  await createKit(documentOf(start));
  const [left, right] = [note(start, 3), note(start, 2)];
  const renamed = append(start, patch(start, 'about', 'about', { title: 'Renamed' })!, at(4));
  await Promise.all([appendEntries(left, last(left)), appendEntries(right, last(right)), appendEntries(renamed, last(renamed))]);
  const all = await stored('tabs');
  expect(all.log.slice(-3).map((e) => e.id)).toEqual(['e2', 'e3', 'e4']);
  expect(foldDocument(all).sheet.title).toBe('Renamed');
});

test('many single entries are packed into chunks; what the log says stays the same', async () => {
  let k = kit('packed');
  await createKit(documentOf(k));
  for (let n = 1; n <= 450; n++) {
    k = note(k, n);
    await appendEntries(k, last(k));
  }
  const before = await stored('packed');
  expect(before).toEqual(documentOf(k));
  // Reading has packed what was old.
  await new Promise((done) => setTimeout(done, 300));
  const keys = await base('packed').keys();
  expect(keys.filter((key) => key.startsWith('e:')).length).toBe(200);
  expect(await stored('packed')).toEqual(before);
});

test('a damaged record is set aside, the rest opens, and nothing of it is thrown away', async () => {
  const k = note(kit('hurt'), 1);
  await createKit(documentOf(k));
  await base('hurt').setItem('e:bad', { kind: 'counted', id: 'bad', at: '2026-01-01T00:00:09.000Z', line: 'r-680', quantity: 'many' });
  const found = await loadKit('hurt');
  if (!found?.ok) throw new Error('did not open');
  expect(found.kit).toEqual(documentOf(k));
  expect(found.damaged).toEqual([expect.objectContaining({ why: expect.stringMatching(/entry bad .*quantity/) as string })]);
  expect(await base('hurt').getItem('e:bad')).toMatchObject({ quantity: 'many' });
});

test('a kit of a newer program opens for looking and is left as it is', async () => {
  await createKit(documentOf(kit('newer')));
  await base('newer').setItem('~kit', { format: 'zesty-bench-kit', version: 9, id: 'newer', created: at(0).at });
  expect(await loadKit('newer')).toMatchObject({ ok: true, readOnly: true });
  expect(await base('newer').getItem('~kit')).toMatchObject({ version: 9 });
});

test('a storage that was cleared meanwhile is written anew from what the tab still has', async () => {
  const k = note(kit('cleared'), 1);
  await createKit(documentOf(k));
  await base('cleared').clear();
  const next = note(k, 2);
  expect(await appendEntries(k, last(next))).toBe('rewritten');
  expect(await stored('cleared')).toEqual(documentOf(next));
});

test('a kit that was cut off while it was stored is said to be, and can be saved as it is', async () => {
  await base('cut').setItem('e:x', { kind: 'noted', id: 'x', at: at(1).at, text: 'alone' });
  expect(await loadKit('cut')).toMatchObject({ ok: false, message: expect.stringMatching(/beginning of this kit is missing/) as string });
  expect(await rawKit('cut')).toMatchObject({ log: [{ text: 'alone' }] });
});

describe('kits that an older program stored as one record', () => {
  test('are brought up to the present and move into a database of their own', async () => {
    const text = (await import('node:fs')).readFileSync('test/fixtures/kit-v3-own.json', 'utf8');
    await oldKits.setItem('v3-divider', JSON.parse(text));
    const item = (await listKits()).find((k) => k.id === 'v3-divider')!;
    expect(item).toMatchObject({ title: 'Divider board', damaged: null });
    expect((await stored('v3-divider')).version).toBe(4);
    expect(await oldKits.getItem('v3-divider')).toBeNull();
  });
  test('stay where they are when they are damaged; put back, they are what they were', async () => {
    const raw = { format: 'zesty-bench-kit', version: 3, id: 'broken' };
    await oldKits.setItem('broken', raw);
    const item = (await listKits()).find((k) => k.id === 'broken')!;
    expect(item.damaged).toMatch(/does not fit its schema/);
    await takeOff(item);
    expect((await listKits()).some((k) => k.id === 'broken')).toBe(false);
    await putBack(item);
    expect((await listKits()).find((k) => k.id === 'broken')!.damaged).toBe(item.damaged);
    expect(await rawKit('broken')).toEqual(raw);
  });
});

test('what stands in the entry field, one’s cards and one’s drawer are kept', async () => {
  await saveDraft('k', { target: 'piece:x:0', text: '9.6' });
  expect(await loadDraft('k')).toEqual({ target: 'piece:x:0', text: '9.6' });
  await saveCard({ type: 'XY1', pins: {}, figures: [] });
  await saveCard({ type: 'AB1', pins: {}, figures: [] });
  expect((await listCards()).map((c) => c.type)).toEqual(['AB1', 'XY1']);
  expect(await loadDrawer()).toBe('');
  await saveDrawer('1k 2k2');
  expect(await loadDrawer()).toBe('1k 2k2');
});

describe('the shelf', () => {
  test('a demo, a kit of one’s own, and a file end up on it', async () => {
    const shown = await openDemo('frost-sentinel');
    const own = await makeKit({
      title: 'Own',
      draft: readDraft('ref;value\nR1;10k', ''),
      deck: '',
      nets: [],
      beside: NOTHING_BESIDE,
      built: false,
      stages: [],
    });
    const preview = await previewFile(fileOf(kit('from-file')));
    const opened = preview.kind === 'new' ? await takeIn(preview.doc) : '';
    const ids = (await listKits()).map((k) => k.id);
    expect(ids).toEqual(expect.arrayContaining([shown, own, opened]));
    expect(foldDocument(await stored(own)).sheet.lines).toHaveLength(1);
  });
  test('a shelf that was lost is found again from the databases', async () => {
    await createKit(documentOf(kit('lost')));
    await localforage.createInstance({ name: 'zesty-shelf', storeName: 'kits' }).clear();
    expect((await listKits()).find((k) => k.id === 'lost')).toMatchObject({ title: 'Frost sentinel', damaged: null });
  });
  test('one’s own type cards that fit the lines come along into a new kit', async () => {
    await saveCard({ type: 'XQ77', pins: {}, figures: [{ name: 'power', value: 0.3, unit: 'W', source: 'typed' }] });
    const own = await makeKit({
      title: 'Cards',
      draft: readDraft('ref;kind;value\nQ1;npn;XQ77', ''),
      deck: '',
      nets: [],
      beside: NOTHING_BESIDE,
      built: false,
      stages: [],
    });
    expect(foldDocument(await stored(own)).sheet.typeCards.map((c) => c.type)).toEqual(['XQ77']);
  });
  test('a kit that is built already has everything fitted', async () => {
    const draft = readDraft('ref;value\nR1,R2;10k', '');
    const built = await makeKit({ title: 'Dead', draft, deck: '', nets: [], beside: NOTHING_BESIDE, built: true, stages: [] });
    expect([...foldDocument(await stored(built)).board.fitted].sort()).toEqual(['R1', 'R2']);
  });
  test('a file of a kit that is here says what it would add before it is united; the other way round it adds nothing', async () => {
    const here = note(kit('twice'), 1);
    await createKit(documentOf(here));
    const there = note(kit('twice'), 2);
    const preview = await previewFile(fileOf(there));
    expect(preview).toMatchObject({ kind: 'adds', count: 1, texts: ['note 2'], conflicts: 0 });
    expect((await stored('twice')).log.at(-1)!.id).toBe('e1');
    if (preview.kind === 'adds') await takeIn(preview.doc);
    expect((await stored('twice')).log.slice(-2).map((e) => e.id)).toEqual(['e1', 'e2']);
    expect(await previewFile(fileOf(here))).toMatchObject({ kind: 'same', id: 'twice' });
  });
  test('records changed on both sides are announced', async () => {
    const start = kit('sides');
    await createKit(documentOf(append(start, patch(start, 'lines', 'r-680', { label: 'here' })!, at(2))));
    const there = append(start, patch(start, 'lines', 'r-680', { label: 'there' })!, at(3));
    expect(await previewFile(fileOf(there))).toMatchObject({ kind: 'adds', conflicts: 1 });
  });
  test('a file beside a damaged kit of the same id gets an id of its own', async () => {
    await base('clash').setItem('e:x', { kind: 'noted', id: 'x', at: at(1).at, text: 'alone' });
    const preview = await previewFile(fileOf(kit('clash')));
    if (preview.kind !== 'new') throw new Error(preview.kind);
    expect(preview.doc.id).not.toBe('clash');
    await takeIn(preview.doc);
    expect(await rawKit('clash')).toMatchObject({ log: [{ text: 'alone' }] });
  });
  test('a foreign file is refused by name and changes nothing; of a damaged one the rest is offered', async () => {
    const before = (await listKits()).length;
    expect(await previewFile(file('photo.json', '{"a":1}'))).toMatchObject({
      kind: 'refused',
      message: expect.stringMatching(/photo\.json: This file is no Zesty Bench kit/) as string,
      rest: null,
    });
    const doc = documentOf(kit('partly'));
    const hurt = { ...doc, log: [...doc.log, { kind: 'counted', id: 'bad', at: at(1).at, line: 'x', quantity: -1 }] };
    expect(await previewFile(file('hurt.json', JSON.stringify(hurt)))).toMatchObject({ kind: 'refused', damaged: 1, rest: { log: doc.log } });
    expect((await listKits()).length).toBe(before);
  });
});

test('a stamp sorts behind what stands there, whatever the clock says', () => {
  const future = '2099-01-01T00:00:00.000Z';
  expect(stampAfter(future).at).toBe('2099-01-01T00:00:00.001Z');
  expect(stampAfter(undefined).at <= new Date().toISOString()).toBe(true);
});
