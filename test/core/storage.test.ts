/** Storage in a browser's database (simulated): nothing that was entered is lost, whatever comes between. */
import { append, type EntryBody, type KitDocument } from '@/core/kit';
import { DEMOS } from '@/stand-in/demos';
import { createKit, openDemo, openFile } from '@/store/shelf';
import { listCards, listKits, loadDraft, loadDrawer, loadKit, rawKit, removeKit, saveCard, saveDraft, saveDrawer, saveKit, unite } from '@/store/storage';
import { readDraft } from '@/core/bench/newKit';
import { toRows } from '@/store/listText';
import localforage from 'localforage';

const at = (n: number) => ({ id: `e${n}`, at: new Date(Date.UTC(2026, 0, 1, 0, 0, n)).toISOString() });
const kit = (id: string): KitDocument => ({ ...DEMOS[0]!.kit(at(0)), id });
const note = (k: KitDocument, n: number): KitDocument => append(k, { kind: 'noted', text: `note ${n}` } satisfies EntryBody, at(n));
const stored = async (id: string): Promise<KitDocument> => {
  const found = await loadKit(id);
  if (!found?.ok) throw new Error('not stored');
  return found.kit;
};

test('a kit comes back as it was stored', async () => {
  const one = note(kit('same'), 1);
  await saveKit(one);
  expect(await stored('same')).toEqual(one);
  expect(await loadKit('never')).toBeNull();
});

test('two tabs that write at the same time lose nothing: entries are united by id, in the order of time', async () => {
  const base = kit('tabs');
  await saveKit(base);
  const [left, right] = [note(base, 3), note(note(base, 2), 4)];
  await Promise.all([saveKit(left), saveKit(right)]);
  expect((await stored('tabs')).log.map((e) => e.id)).toEqual(['e2', 'e3', 'e4']);
});

test('law: uniting is the same from either side, and with itself changes nothing', () => {
  const base = kit('law');
  const [a, b] = [note(note(base, 1), 4), note(base, 2)];
  expect(unite(a, b).log).toEqual(unite(b, a).log);
  expect(unite(a, a)).toEqual(a);
});

test('the newer sheet wins, whoever saves last', async () => {
  const base = kit('sheet');
  const newer = { ...base, sheet: { ...base.sheet, revision: 5, title: 'Renamed' } };
  await saveKit(newer);
  await saveKit(note(base, 1));
  expect((await stored('sheet')).sheet.title).toBe('Renamed');
  expect((await stored('sheet')).log).toHaveLength(1);
});

test('a damaged kit stays on the shelf with its reason, and can be saved as it is', async () => {
  await localforage.createInstance({ name: 'zesty-bench', storeName: 'kits' }).setItem('broken', { format: 'zesty-bench-kit', version: 3, id: 'broken' });
  const item = (await listKits()).find((k) => k.id === 'broken')!;
  expect(item.damaged).toMatch(/does not fit its schema/);
  expect(await rawKit('broken')).toMatchObject({ id: 'broken' });
  await removeKit('broken');
  expect((await listKits()).some((k) => k.id === 'broken')).toBe(false);
});

test('an older kit in the storage is brought up to the present when it is opened', async () => {
  const { measure, meters, ...settings } = kit('old').settings;
  expect([measure, meters.length]).toEqual(['matters', 0]);
  await localforage.createInstance({ name: 'zesty-bench', storeName: 'kits' }).setItem('old', { ...kit('old'), version: 2, settings });
  expect((await stored('old')).version).toBe(3);
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
  const file = (name: string, text: string) => ({ name, text: () => Promise.resolve(text) }) as unknown as File;
  test('a demo, a kit of one’s own, and a file end up on it', async () => {
    const demo = await openDemo('frost-sentinel');
    const own = await createKit('Own', readDraft(toRows('ref;value\nR1;10k'), ''), '', []);
    const opened = await openFile(file('x.json', JSON.stringify(kit('from-file'))));
    const ids = (await listKits()).map((k) => k.id);
    expect(ids).toEqual(expect.arrayContaining([demo, own, opened]));
    expect((await stored(own)).sheet.lines).toHaveLength(1);
  });
  test('a file of a kit that is there already is united with it, not put in its place', async () => {
    await saveKit(note(kit('twice'), 1));
    await openFile(file('x.json', JSON.stringify(note(kit('twice'), 2))));
    expect((await stored('twice')).log.map((e) => e.id)).toEqual(['e1', 'e2']);
  });
  test('a foreign file is refused by name and changes nothing', async () => {
    const before = (await listKits()).length;
    await expect(openFile(file('photo.json', '{"a":1}'))).rejects.toThrow(/photo\.json: This file is no Zesty Bench kit/);
    expect((await listKits()).length).toBe(before);
  });
});
