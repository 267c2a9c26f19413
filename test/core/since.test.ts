/** What was changed since a stage was read, and controls that are due again by it. */
import type { EntryBody, KitState, Stage } from '@/core/kit';
import { newKit } from '@/core/kit';
import { EMPTY_SHEET } from '@/core/kit/sheet';
import { adjustmentsDue, changedSince, entryText, openMatters } from '@/core/loop';
import { at, log } from '../support/kits';

const window = { low: 4, high: 6 };
const stage = (id: string, check: Stage['checks'][number]): Stage => ({ id, title: id, kind: 'power', fits: [], supplies: [], checks: [check] });
const measure = (id: string, adjust?: string): Stage['checks'][number] => ({
  id,
  what: 'measure',
  title: id,
  mode: 'dcv',
  red: { net: 'a' },
  black: { net: '0' },
  window,
  ...(adjust === undefined ? {} : { adjust }),
});
const stages = [stage('set', measure('half', 'VR1')), stage('run', measure('out'))];
const kit = (): KitState => newKit({ ...EMPTY_SHEET, stages }, at(0));
const read = (s: string, check: string): EntryBody => ({ kind: 'read', stage: s, check, reading: 5, meter: 'handheld' });
const link: EntryBody = { kind: 'modified', change: { what: 'link', nets: ['a', 'b'] } };
const due = (k: KitState) => adjustmentsDue(k).map((d) => d.control);
const changes = (k: KitState, s = stages[0]!) => changedSince(k, s).map((e) => entryText(k, e));

test('nothing read, or nothing changed: nothing is told', () => {
  expect(changes(log(kit(), link))).toEqual([]);
  expect(due(log(kit(), link))).toEqual([]);
  const both = log(kit(), read('set', 'half'), read('run', 'out'));
  expect([changes(both), due(both)]).toEqual([[], []]);
});
test('a change of the board after the reading is told for every stage that was read before it, and its control is due', () => {
  const k = log(kit(), read('set', 'half'), link, read('run', 'out'));
  expect(changes(k)).toEqual(['Board changed: link from a to b']);
  expect(changes(k, stages[1])).toEqual([]);
  expect(due(k)).toEqual(['VR1']);
  expect(openMatters(k, {})).toContain('VR1 is due again (“half”): the board was changed since');
});
test.each<[string, EntryBody[]]>([
  ['a repair', [{ kind: 'repaired', refs: ['R1'], note: 'soldered' }]],
  ['new firmware', [{ kind: 'modified', change: { what: 'other', text: 'firmware 1.2' } }]],
  ['a part taken out', [{ kind: 'removed', refs: ['R1'] }]],
])('%s makes it due as well', (_, bodies) => {
  expect(due(log(kit(), read('set', 'half'), ...bodies))).toEqual(['VR1']);
});
test('read once more it is no longer due; neither where the change was withdrawn', () => {
  const k = log(kit(), read('set', 'half'), link);
  expect(due(log(k, read('set', 'half')))).toEqual([]);
  expect(due(log(k, { kind: 'withdrawn', entry: k.log.at(-1)!.id }))).toEqual([]);
});
