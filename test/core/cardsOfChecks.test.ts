/** What a check says it expects, in one line, wherever its window comes from; what was changed on the board, in words. */
import { type Check, type Modification, type MeasureCheck, sheetWith, type Stage } from '@/core/kit';
import { cardOf, expectationText, expectedOfCheck, modificationText } from '@/core/loop';
import { targetOfObservable } from '@/core/loop';
import type { Windows } from '@/core/stage';
import { kitOf } from '../support/kits';

const check = (more: Partial<MeasureCheck> = {}): MeasureCheck => ({
  id: 'c',
  what: 'measure',
  title: 'rail',
  mode: 'dcv',
  red: { net: 'a' },
  black: { net: '0' },
  ...more,
});
const stage = (c: Check): Stage => ({ id: 's', title: 's', kind: 'power', fits: [], supplies: [], checks: [c] });
const kitWith = (c: Check) => kitOf(sheetWith({ title: 'x', stages: [stage(c)] }));
const said = (c: Check, windows: Windows | null) => expectedOfCheck(kitWith(c), stage(c), c, windows);
const computed = (low: number, high: number, over = false) => ({ 's/c': { low, middle: (low + Math.min(high, 1e9)) / 2, high, meter: 0.01, over } });

describe('what a check expects', () => {
  test.each<[string, Check, Windows | null, RegExp]>([
    ['a computed window', check(), computed(4.75, 5.25), /^4\.750 – 5\.250 V$/],
    ['over-range', check({ mode: 'ohms' }), computed(4e7, Infinity, true), /^over-range/],
    ['a typed window', check({ window: { low: 4, high: 6 } }), {}, /^4\.000 – 6\.000 V$/],
    ['one without an upper end', check({ mode: 'ohms', window: { low: 1000, high: null } }), {}, /^at least 1\.000 kΩ$/],
    ['one without a lower end', check({ window: { low: null, high: 0.05 } }), {}, /^at most 50\.00 mV$/],
    ['one that the circuit contradicts', check({ window: { low: 4, high: 6 } }), computed(9, 10), /circuit says otherwise/],
    ['none yet', check(), null, /Working out/],
    ['none, with its reason', check(), { 's/c': { none: 'U3 has no model.' } }, /U3 has no model/],
    ['none, for want of a circuit', check(), {}, /no circuit/],
    ['an observation', { id: 'c', what: 'observe', title: 'LED', action: 'look', expect: 'lit' }, {}, /^lit$/],
    ['AC volts', check({ mode: 'acv' }), computed(11.5, 12.5), /V$/],
    ['a duty cycle', check({ mode: 'duty' }), computed(45, 55), /%$/],
  ])('%s', (_, c, windows, words) => {
    expect(said(c, windows)).toMatch(words);
  });
  test('the probe bar says the same as the list of checks', () => {
    for (const c of [check(), check({ window: { low: null, high: 0.05 } }), check({ window: { low: 1, high: null } })]) {
      const kit = kitWith(c);
      const windows = computed(0.01, 0.04);
      const card = cardOf(kit, targetOfObservable(kit, 's/c')!, windows);
      expect(said(c, windows)).toContain(expectationText(card));
    }
  });
});

describe('changes of the board in words', () => {
  test.each<[Modification, RegExp]>([
    [{ what: 'link', nets: ['a', 'b'] }, /link from a to b/],
    [{ what: 'unplugged', refs: ['U1', 'U2'] }, /U1, U2 unplugged/],
    [{ what: 'track-cut', ref: 'R1', pin: '2' }, /track cut at R1, pin 2/],
    [{ what: 'part-added', name: 'R30', kind: 'R', value: 4700, nets: ['a', 'b'] }, /R30 \(4\.7.* kΩ\) added between a and b/],
    [{ what: 'strap', option: 'jp1', choice: 'high' }, /jp1: high/],
  ])('%j', (change, words) => {
    expect(modificationText(kitWith(check()), change)).toMatch(words);
  });
});
