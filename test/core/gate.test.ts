/** What follows a stage that failed, is doubtful, or is left out. Windows are typed, so that no circuit has a say. */
import { type EntryBody, type KitState, sheetWith } from '@/core/kit';
import { checkTargets, currentStage, deriveStages, phaseProgress } from '@/core/loop';
import { kitOf, log } from '../support/kits';

const measure = (id: string) =>
  ({ id, what: 'measure', title: id, mode: 'dcv', red: { net: 'a' }, black: { net: '0' }, window: { low: 4.75, high: 5.25 } }) as const;
const stage = (id: string) => ({ id, title: id, kind: 'power', fits: [], supplies: [], checks: [measure('v')] }) as const;
const base = (): KitState => kitOf(sheetWith({ title: 'gate', lines: [], circuit: null, stages: [stage('one'), stage('two'), stage('three')] }));
const read = (id: string, reading: number): EntryBody => ({ kind: 'read', stage: id, check: 'v', reading, meter: 'handheld' });
const gate = (id: string, go: 'on' | 'again', reason = 'the lead is short'): EntryBody => ({ kind: 'gated', stage: id, go, reason });
const statuses = (kit: KitState) => deriveStages(kit, {}).map((s) => s.status);

describe('a stage', () => {
  it('that fails stops the next ones; going on wants a reason and is said', () => {
    const failed = log(base(), read('one', 3));
    expect(statuses(failed)).toEqual(['failed', 'waiting', 'waiting']);
    const on = log(failed, gate('one', 'on'));
    expect(statuses(on)).toEqual(['overridden', 'current', 'waiting']);
    expect(deriveStages(on, {})[0]!.reason).toBe('the lead is short');
    expect(currentStage(deriveStages(on, {}))!.stage.id).toBe('two');
    expect(phaseProgress(on, {}).power).toMatchObject({ left: 2 });
  });

  it('that was gone on behind speaks for itself again once it is read again', () => {
    const on = log(base(), read('one', 3), gate('one', 'on'));
    expect(statuses(log(on, read('one', 5)))[0]).toBe('passed');
    expect(statuses(log(on, read('one', 2)))[0]).toBe('failed');
  });

  it('that was gone on behind is asked for again once the board was repaired', () => {
    const on = log(base(), read('one', 3), gate('one', 'on'), { kind: 'repaired', refs: ['R1'], note: 'soldered' });
    expect(statuses(on)).toEqual(['current', 'waiting', 'waiting']);
  });

  it('that is doubtful does not pass silently', () => {
    // The typical handheld reads 5 V within some 30 mV: just outside is within its error.
    const doubtful = log(base(), read('one', 5.26));
    expect(statuses(doubtful)).toEqual(['doubtful', 'waiting', 'waiting']);
    expect(statuses(log(doubtful, gate('one', 'on', 'the meter is old')))).toEqual(['overridden', 'current', 'waiting']);
    expect(statuses(log(doubtful, read('one', 5.2)))[0]).toBe('passed');
  });

  it('can be left out, and be done again from the start', () => {
    expect(statuses(log(base(), gate('one', 'on')))[0]).toBe('overridden');
    const again = log(base(), read('one', 5), read('two', 5), gate('one', 'again', 'the regulator was changed'));
    expect(statuses(again)).toEqual(['current', 'waiting', 'waiting']);
    // The bench is made ready anew as well, before the reading.
    expect(checkTargets(again, {}).map((t) => [t.target.kind, t.done])).toEqual([
      ['prepare', false],
      ['check', false],
    ]);
    const done = log(again, read('one', 5.1));
    expect(statuses(done)).toEqual(['passed', 'passed', 'current']);
  });

  it('taken back, a word on a stage is as if it had not been said', () => {
    const on = log(base(), read('one', 3), gate('one', 'on'));
    expect(statuses(log(on, { kind: 'withdrawn', entry: on.log.at(-1)!.id }))).toEqual(['failed', 'waiting', 'waiting']);
  });
});
