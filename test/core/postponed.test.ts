/** “I have no programmer” is an answer: what depends on it waits, the rest goes on, and nothing is forgotten at the end. */
import { meetsNeed, newKit, type KitState, remove, type Stage, withDependents } from '@/core/kit';
import { EMPTY_SHEET } from '@/core/kit/sheet';
import { currentStage, deriveStages, entryText, openMatters } from '@/core/loop';
import { shoppingList } from '@/core/report';
import { fittedAt, setupOf } from '@/core/stage';
import { at, log } from '../support/kits';

const stage = (id: string, more: Partial<Stage> = {}): Stage => ({
  id,
  title: id,
  kind: 'power',
  fits: [],
  supplies: [{ source: 'V1', volts: 5, limit: 0.1 }],
  checks: [{ id: 'v', what: 'measure', title: 'rail', mode: 'dcv', red: { net: 'v' }, black: { net: '0' }, window: { low: 4.75, high: 5.25 } }],
  ...more,
});
const kit = (): KitState =>
  newKit(
    {
      ...EMPTY_SHEET,
      needs: [
        { id: 'prog', kind: 'tool', text: 'programmer' },
        { id: 'psu', kind: 'supply', text: '5 V supply', volts: 5 },
      ],
      stages: [stage('rails'), stage('chip', { needs: ['prog'], fits: ['U1'] }), stage('keys')],
    },
    at(0),
  );
const none = { kind: 'owned', need: 'prog', owned: { none: true } } as const;
const read = (id: string, reading = 5) => ({ kind: 'read', stage: id, check: 'v', reading, meter: 'handheld' }) as const;
const statuses = (k: KitState) => deriveStages(k, {}).map((s) => s.status);

test('until it is answered nothing is held up', () => {
  expect(statuses(kit())).toEqual(['current', 'waiting', 'waiting']);
  expect(statuses(log(kit(), read('rails')))).toEqual(['passed', 'current', 'waiting']);
});
test('there is none: that stage waits with its reason, and the next one is open', () => {
  const k = log(kit(), none, read('rails'));
  expect(statuses(k)).toEqual(['passed', 'postponed', 'current']);
  expect(deriveStages(k, {})[1]!.reason).toBe('programmer');
  expect(currentStage(deriveStages(k, {}))!.stage.id).toBe('keys');
});
test('a stage above that fails holds it up all the same', () => {
  expect(statuses(log(kit(), none, read('rails', 3)))).toEqual(['failed', 'waiting', 'waiting']);
});
test('read in spite of it, it speaks for itself: passed or failed, not postponed', () => {
  expect(statuses(log(kit(), none, read('rails'), read('chip')))).toEqual(['passed', 'passed', 'current']);
  expect(statuses(log(kit(), none, read('rails'), read('chip', 2)))).toEqual(['passed', 'failed', 'waiting']);
});
test('when it has come, the stage is open again; taken back, it was never said', () => {
  const k = log(kit(), none, read('rails'), { kind: 'owned', need: 'prog', owned: {} });
  expect(statuses(k)).toEqual(['passed', 'current', 'waiting']);
  const said = log(kit(), none, read('rails'));
  const entry = said.log.find((e) => e.kind === 'owned')!.id;
  expect(statuses(log(said, { kind: 'withdrawn', entry }))).toEqual(['passed', 'current', 'waiting']);
});
test('it is named before the kit is called finished, in the logbook and among what is to be bought', () => {
  const k = log(kit(), none, read('rails'), read('keys'));
  expect(openMatters(k, {})).toEqual(['“chip” waits for: programmer']);
  expect(
    entryText(
      k,
      k.log.find((e) => e.kind === 'owned')!,
    ),
  ).toBe('Not available for now: “programmer”');
  expect(shoppingList(k).map((i) => [i.text, i.why])).toContainEqual(['programmer', 'what you own does not fit: there is none for now']);
});
test('a tool that is simply there meets its need; a supply of which nothing is known does not', () => {
  const [tool, supply] = kit().sheet.needs;
  expect(meetsNeed(tool!, {})).toEqual({ meets: true, reasons: ['it is there'] });
  expect(meetsNeed(supply!, {}).meets).toBe(false);
  expect(meetsNeed(supply!, { volts: 5 }).meets).toBe(true);
});
test('a need that is taken off the sheet leaves no stage that waits for it', () => {
  const k = log(kit(), none, read('rails'));
  const gone = log(k, ...withDependents(k, remove(k, 'needs', 'prog')!));
  expect(gone.sheet.stages.map((s) => s.needs)).toEqual([undefined, undefined, undefined]);
  expect(statuses(gone)).toEqual(['passed', 'current', 'waiting']);
});
test('stages behind it are reckoned without what it would have fitted, until that is in', () => {
  const inKeys = (k: KitState) => fittedAt(setupOf(k), k.sheet.stages[2]!).has('U1');
  expect(inKeys(kit())).toBe(true);
  expect(inKeys(log(kit(), none))).toBe(false);
  expect(inKeys(log(kit(), none, { kind: 'fitted', refs: ['U1'] }))).toBe(true);
  expect(inKeys(log(kit(), none, { kind: 'owned', need: 'prog', owned: {} }))).toBe(true);
});
test('it has come: the logbook says so', () => {
  const k = log(kit(), none, { kind: 'owned', need: 'prog', owned: {} });
  expect(k.log.filter((e) => e.kind === 'owned').map((e) => entryText(k, e))).toEqual(['Not available for now: “programmer”', 'Available now: “programmer”']);
});
