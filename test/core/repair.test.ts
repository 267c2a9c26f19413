/** What a repair explains, suspects ruled out by a look, and the guide by symptoms. */
import fc from 'fast-check';
import { rankCauses, SYMPTOMS, WORK_FACTORS, workOf, workReasons } from '@/core/diagnose';
import type { Fault } from '@/core/fault';
import type { EntryBody, KitState } from '@/core/kit';
import { EMPTY_SHEET } from '@/core/kit/sheet';
import { deriveRepair } from '@/core/loop';
import { kitOf, log } from '../support/kits';

const check = (id: string, low: number, high: number) => ({
  id,
  what: 'measure' as const,
  title: id,
  mode: 'dcv' as const,
  red: { net: id },
  black: { net: '0' },
  window: { low, high },
});
const seen = { id: 'lamp', what: 'observe' as const, title: 'lamp', action: 'look', expect: 'lit' };
const kit = (): KitState =>
  kitOf({
    ...EMPTY_SHEET,
    stages: [
      {
        id: 's',
        title: 'First power',
        kind: 'power',
        fits: [],
        supplies: [{ source: 'V1', volts: 9, limit: 0.1 }],
        checks: [check('a', 4, 6), check('b', 1, 2), seen],
      },
    ],
  });
const read = (id: string, reading: number): EntryBody => ({ kind: 'read', stage: 's', check: id, reading, meter: 'handheld' });
const lamp = (asExpected: boolean): EntryBody => ({ kind: 'observed', stage: 's', check: 'lamp', asExpected });
const repaired: EntryBody = { kind: 'repaired', refs: ['R1'], note: 'R1 soldered again' };

describe('a repair', () => {
  const before = () => log(kit(), read('a', 9), read('b', 1.5), lamp(false), repaired);
  test('asks for everything again that was made in its stage', () => {
    const repair = deriveRepair(before(), {})!;
    expect(repair).toMatchObject({ note: 'R1 soldered again', status: 'repeat' });
    expect(repair.rows.map((r) => [r.check.id, r.before, r.verdictBefore, r.after])).toEqual([
      ['a', 9, 'out', null],
      ['b', 1.5, 'in', null],
      ['lamp', false, 'out', null],
    ]);
  });
  test('explains all when all of it reads rightly', () => {
    expect(deriveRepair(log(before(), read('a', 5), read('b', 1.5), lamp(true)), {})!.status).toBe('explains');
  });
  test('does not explain what is still wrong, nor what has become wrong', () => {
    expect(deriveRepair(log(before(), read('a', 9)), {})!.status).toBe('fails');
    expect(deriveRepair(log(before(), read('a', 5), read('b', 3), lamp(true)), {})!.status).toBe('fails');
    expect(deriveRepair(log(before(), lamp(false)), {})!.status).toBe('fails');
  });
  test('that was taken back, or never made, is none; the last one counts', () => {
    expect(deriveRepair(kit(), {})).toBeNull();
    const taken = before();
    expect(deriveRepair(log(taken, { kind: 'withdrawn', entry: taken.log.at(-1)!.id }), {})).toBeNull();
    expect(deriveRepair(log(before(), read('a', 9), { ...repaired, note: 'R2 exchanged' }), {})!.note).toBe('R2 exchanged');
  });
});

describe('“I looked: not this”', () => {
  const fault: Fault = { kind: 'open', parts: ['R1'], detail: {} };
  const other: Fault = { kind: 'open', parts: ['R2'], detail: {} };
  test('takes the documented share from this fault alone', () => {
    const looked = workOf(log(kit(), { kind: 'ruled-out', fault }));
    expect(workReasons(fault, looked)).toEqual([{ factor: WORK_FACTORS.ruledOut, why: expect.stringContaining('looked') as string }]);
    expect(workReasons(other, looked)).toEqual([]);
  });
  test('taken back, or before the board was changed, it says nothing', () => {
    const looked = log(kit(), { kind: 'ruled-out', fault });
    expect(workReasons(fault, workOf(log(looked, { kind: 'withdrawn', entry: looked.log.at(-1)!.id })))).toEqual([]);
    expect(workReasons(fault, workOf(log(looked, repaired)))).toEqual([]);
  });
});

describe('the guide by symptoms', () => {
  const answered = (...answers: readonly (readonly [string, boolean])[]) =>
    log(kit(), ...answers.map(([symptom, yes]): EntryBody => ({ kind: 'symptom', symptom, title: symptom, seen: yes })));
  test('one symptom gives its causes by their weights', () => {
    // Weights of the table: supply 5, fuse 3, open rail joint 3, switch 2.
    const ranked = rankCauses(answered(['dead', true]));
    expect(ranked.map((c) => [c.id, Number((13 * c.share).toFixed(6))])).toEqual([
      ['supply', 5],
      ['fuse', 3],
      ['rail-joint', 3],
      ['switch', 2],
    ]);
  });
  test('what two symptoms share comes first: a bridge', () => {
    expect(rankCauses(answered(['limit', true], ['one-of-many', true]))[0]).toMatchObject({ id: 'bridge', because: [expect.any(String), expect.any(String)] });
  });
  test('a symptom that is not seen takes from its causes', () => {
    const share = (kitState: KitState, id: string) => rankCauses(kitState).find((c) => c.id === id)!.share;
    expect(share(answered(['stops', true], ['hums', false]), 'weak-supply')).toBeLessThan(share(answered(['stops', true]), 'weak-supply'));
  });
  test('causes for which the kit has no part are left out; a kit without a list may hold anything', () => {
    expect(rankCauses(answered(['chip-idle', true])).map((c) => c.id)).toContain('firmware');
    const resistors = kitOf({ ...EMPTY_SHEET, lines: [{ id: 'r', kind: 'resistor', label: '1k', value: 1000, tolerance: null, quantity: 1, refs: ['R1'] }] });
    expect(rankCauses(log(resistors, { kind: 'symptom', symptom: 'chip-idle', title: '', seen: true }))).toEqual([]);
    expect(rankCauses(log(resistors, { kind: 'symptom', symptom: 'limit', title: '', seen: true })).map((c) => c.id)).toEqual(['bridge']);
  });
  test('nothing is said before something was seen, and a repair asks anew', () => {
    expect(rankCauses(answered(['dead', false]))).toEqual([]);
    expect(log(answered(['dead', true]), repaired).symptoms.size).toBe(0);
  });
  test('shares are a distribution, whatever the answers and their order', () => {
    const answers = fc.uniqueArray(fc.tuple(fc.constantFrom(...SYMPTOMS.map((s) => s.id)), fc.boolean()), { selector: ([id]) => id, maxLength: 14 });
    fc.assert(
      fc.property(answers, (all) => {
        const ranked = rankCauses(answered(...all));
        const sum = ranked.reduce((s, c) => s + c.share, 0);
        expect(ranked.length === 0 || Math.abs(sum - 1) < 1e-9).toBe(true);
        expect(ranked.every((c, i) => i === 0 || c.share <= ranked[i - 1]!.share)).toBe(true);
        const turned = rankCauses(answered(...[...all].reverse()));
        expect(turned.map((c) => [c.id, c.share.toFixed(9)])).toEqual(ranked.map((c) => [c.id, c.share.toFixed(9)]));
      }),
      { numRuns: 60 },
    );
  });
});
