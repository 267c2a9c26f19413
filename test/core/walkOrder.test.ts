/** Checks in the order of least moving and least risk. */
import fc from 'fast-check';
import { type Check, newKit, type Stage } from '@/core/kit';
import { EMPTY_SHEET } from '@/core/kit/sheet';
import { checkTargets } from '@/core/loop';
import { at, windowsOfKit } from '../support/kits';

const volts = (id: string, more: Partial<Extract<Check, { what: 'measure' }>> = {}): Check => ({
  id,
  what: 'measure',
  title: id,
  mode: 'dcv',
  red: { testPoint: id },
  black: { net: '0' },
  window: { low: 0, high: 5 },
  ...more,
});
const look: Check = { id: 'look', what: 'observe', title: 'look', action: 'look', expect: 'lit' };
const kitOf = (places: Readonly<Record<string, readonly [number, number]>>, checks: readonly Check[]) => {
  const stage: Stage = { id: 's', title: 'On', kind: 'look', fits: [], supplies: [], checks };
  const testPoints = Object.entries(places).map(([id, [x, y]]) => ({ id, net: `net-${id}`, where: 'pad', x, y }));
  return newKit({ ...EMPTY_SHEET, testPoints: [...testPoints, { id: 'X', net: 'x', where: 'nobody knows' }], stages: [stage] }, at(0));
};
const order = (kit: ReturnType<typeof kitOf>) => checkTargets(kit, {}).flatMap(({ target }) => (target.kind === 'check' ? [target.check.id] : []));

test('from the first reading to the nearest next one', () => {
  const kit = kitOf({ A: [0, 0], B: [50, 0], C: [10, 0], D: [45, 5] }, [volts('A'), volts('B'), volts('C'), volts('D')]);
  expect(order(kit)).toEqual(['A', 'C', 'D', 'B']);
});

test('what is looked at, set, turned or has no place stays where its author put it', () => {
  const places: Record<string, readonly [number, number]> = { A: [0, 0], B: [50, 0], C: [1, 0], D: [2, 0], E: [40, 0] };
  expect(order(kitOf(places, [volts('A'), volts('B'), look, volts('C'), volts('D')]))).toEqual(['A', 'B', 'look', 'C', 'D']);
  expect(order(kitOf(places, [volts('A'), volts('B'), volts('X'), volts('C')]))).toEqual(['A', 'B', 'X', 'C']);
  expect(order(kitOf(places, [volts('A'), volts('B', { mode: 'acv' }), volts('C')]))).toEqual(['A', 'B', 'C']);
  expect(order(kitOf(places, [volts('A'), volts('E', { adjust: 'RV1' }), volts('D'), volts('B'), volts('C')]))).toEqual(['A', 'E', 'D', 'C', 'B']);
});

test('every check comes once, each step to the nearest of what is left (property)', () => {
  const coordinate = fc.integer({ min: 0, max: 100 });
  fc.assert(
    fc.property(fc.array(fc.tuple(coordinate, coordinate), { minLength: 1, maxLength: 8 }), (points) => {
      const places = Object.fromEntries(points.map(([x, y], i) => [`T${i}`, [x, y] as const]));
      const kit = kitOf(
        places,
        Object.keys(places).map((id) => volts(id)),
      );
      const walked = order(kit);
      expect([...walked].sort()).toEqual(Object.keys(places).sort());
      expect(walked[0]).toBe('T0');
      // Each step goes to the nearest of all that are left.
      const far = (a: string, b: string) => Math.hypot(places[a]![0] - places[b]![0], places[a]![1] - places[b]![1]);
      walked.slice(0, -1).forEach((here, i) => {
        const left = walked.slice(i + 1);
        expect(far(here, left[0]!)).toBeCloseTo(Math.min(...left.map((p) => far(here, p))), 9);
      });
    }),
  );
});

test('points beside which a slip would hurt come last, though they are nearer', () => {
  // 24 V at TP1, 3 mm beside TP2; TP3 and TP4 stand alone.
  const deck = 'x\nV1 vcc 0 24\nR1 vcc a 2.2k\nR2 a 0 220\nR3 a b 100k\nR4 b c 100k\nR5 c 0 100k\n.end';
  const point = (id: string, net: string, x: number) => ({ id, net, where: 'pad', x, y: 0 });
  const read = (id: string): Check => ({ id, what: 'measure', title: id, mode: 'dcv', red: { testPoint: id }, black: { net: '0' } });
  const kit = newKit(
    {
      ...EMPTY_SHEET,
      circuit: { deck, neighbours: [] },
      testPoints: [point('TP1', 'vcc', 0), point('TP2', 'a', 3), point('TP3', 'b', 20), point('TP4', 'c', 40)],
      stages: [
        {
          id: 's',
          title: 'On',
          kind: 'power',
          fits: [],
          supplies: [{ source: 'V1', volts: 24, limit: 0.05 }],
          checks: [read('TP3'), read('TP2'), read('TP4')],
        },
      ],
    },
    at(0),
  );
  const walked = checkTargets(kit, windowsOfKit(kit)).flatMap(({ target }) => (target.kind === 'check' ? [target.check.id] : []));
  expect(walked).toEqual(['TP3', 'TP4', 'TP2']);
  // While the windows are being worked out nobody knows of the danger: the nearest comes first.
  expect(checkTargets(kit, null).flatMap(({ target }) => (target.kind === 'check' ? [target.check.id] : []))).toEqual(['TP3', 'TP2', 'TP4']);
});
