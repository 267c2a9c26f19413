/** Turning a control: where it has to stand, what cannot be reached and why, two controls in turn. */
import { type MeasureCheck, newKit, type Sheet } from '@/core/kit';
import { EMPTY_SHEET } from '@/core/kit/sheet';
import { forecastAdjustment, shareAt } from '@/core/power';
import { setupOf } from '@/core/stage';
import { at, log } from '../support/kits';

const check = (id: string, net: string, adjust: string, window: { low: number; high: number }): MeasureCheck => ({
  id,
  what: 'measure',
  title: id,
  mode: 'dcv',
  red: { net },
  black: { net: '0' },
  adjust,
  window,
});
const line = (ref: string, value: number, kind: 'resistor' | 'trimmer' = 'resistor') => ({
  id: ref,
  kind,
  label: `${value}`,
  value,
  tolerance: [-0.01, 0.01] as [number, number],
  quantity: 1,
  refs: [ref],
});
const kitOf = (deck: string, checks: readonly MeasureCheck[], lines: Sheet['lines'] = []) =>
  newKit(
    {
      ...EMPTY_SHEET,
      lines,
      circuit: { deck, neighbours: [] },
      stages: [{ id: 's', title: 'Adjust', kind: 'adjust', fits: [], supplies: [{ source: 'V1', volts: 10, limit: 0.1 }], checks: [...checks] }],
    },
    at(0),
  );
const forecast = (kit: ReturnType<typeof kitOf>, id: string) =>
  forecastAdjustment(
    setupOf(kit),
    's',
    id,
    Object.fromEntries(
      kit.sheet.stages[0]!.checks.flatMap((c) => (c.what === 'measure' ? [[`s/${c.id}`, { low: c.window!.low!, high: c.window!.high! }]] : [])),
    ),
  );

describe('a 10 k control across 10 V', () => {
  // The wiper of an unloaded divider stands at its share of the supply.
  const deck = 'pot\nV1 in 0 10\nRV1a in w 5k\nRV1b w 0 5k\n.end';
  test('stands where its share of the supply is wanted', () => {
    const found = forecast(kitOf(deck, [check('c', 'w', 'RV1', { low: 2.9, high: 3.1 })]), 'c')!;
    expect(found.at).toBeCloseTo(0.3, 3);
    expect(found.now).toBeCloseTo(0.5, 9);
    expect(found.course[0]).toBeCloseTo(0, 2);
    expect(found.course.at(-1)).toBeCloseTo(10, 2);
    expect(found).toMatchObject({ because: [], rounds: 1, movedBy: [] });
  });
  test('a target beyond the supply cannot be reached, and no part is to blame', () => {
    expect(forecast(kitOf(deck, [check('c', 'w', 'RV1', { low: 11, high: 12 })]), 'c')).toMatchObject({ at: null, because: [], rounds: null });
  });
  test('a check that reads no volts, or names no control, has no forecast', () => {
    const kit = kitOf(deck, [check('c', 'w', 'R7', { low: 1, high: 2 }), { ...check('d', 'w', 'RV1', { low: 1, high: 2 }), mode: 'frequency' }]);
    expect(forecast(kit, 'c')).toBeNull();
    expect(forecast(kit, 'd')).toBeNull();
    expect(forecast(kit, 'nowhere')).toBeNull();
    const winding = deck.replace('V1 in 0 10', 'V1 in 0 SIN(0 10 50)');
    expect(forecast(kitOf(winding, [check('c', 'w', 'RV1', { low: 1, high: 2 })]), 'c')).toBeNull();
  });
});

describe('a part within a wide tolerance keeps the target out of reach', () => {
  // 10 V over R1 and a 1 k control: with R1 = 1 k the control reaches 0 to 5 V, with 9 k only 0 to 1 V (divider formula).
  const deck = 'rheostat\nV1 in 0 10\nR1 in x 1k\nRV1 x 0 1k\n.end';
  const kit = kitOf(deck, [check('c', 'x', 'RV1', { low: 3.9, high: 4.1 })], [{ ...line('R1', 1000), tolerance: [-0.5, 10] }, line('RV1', 1000, 'trimmer')]);
  test('it is named; with the listed value all is well', () => {
    expect(forecast(kit, 'c')).toMatchObject({ because: [], at: expect.closeTo(2 / 3, 2) as number });
    const wrong = log(kit, { kind: 'measured', line: 'R1', piece: 0, ref: 'R1', mode: 'ohms', reading: 9000, meter: 'handheld' });
    expect(forecast(wrong, 'c')).toMatchObject({ at: null, because: ['R1'] });
  });
});

describe('two controls in turn', () => {
  // Two dividers joined by a resistor: each moves the other, the less the larger the resistor.
  const deck = (join: string) => `two\nV1 in 0 10\nRV1a in a 5k\nRV1b a 0 5k\nRV2a in b 5k\nRV2b b 0 5k\nR9 a b ${join}\n.end`;
  const both = (low: number, high: number) => [
    check('a', 'a', 'RV1', { low: low - 0.05, high: low + 0.05 }),
    check('b', 'b', 'RV2', { low: high - 0.05, high: high + 0.05 }),
  ];
  test('that hardly move each other hold after one round', () => {
    expect(forecast(kitOf(deck('10meg'), both(3, 7)), 'a')).toMatchObject({ rounds: 1, movedBy: [] });
  });
  test('that move each other hold after some rounds', () => {
    const found = forecast(kitOf(deck('4.7k'), both(4, 6)), 'a')!;
    expect(found.movedBy).toEqual(['RV2']);
    expect(found.rounds).toBeGreaterThan(1);
  });
  test('that are tied together can never hold two different voltages', () => {
    expect(forecast(kitOf(deck('1'), both(2, 8)), 'a')!.rounds).toBeNull();
  });
});

test('a course is read backwards by straight lines between its points', () => {
  expect(shareAt([0, 1, 4], 2.5)).toBeCloseTo(0.75, 9);
  expect(shareAt([4, 1, 0], 4)).toBe(0);
  expect(shareAt([2, 2], 2)).toBe(0);
  expect(shareAt([0, 1], 2)).toBeNull();
});
