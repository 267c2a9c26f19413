/** The bench's own faults, and a leaky capacitor: where each ranks first, and where it must not. Readings by Ohm's law. */
import { diagnoserOf, findSuspects } from '@/core/diagnose';
import type { FaultKind } from '@/core/fault';
import { type KitState, type Line, sheetWith } from '@/core/kit';
import { investigationOf, kitOf, log } from '../support/kits';

const DECK = `A divider with a capacitor
V1 vcc 0 9
R1 vcc a 10k
R2 a 0 10k
C1 a 0 10u
.end`;
const line = (id: string, kind: Line['kind'], value: number): Line => ({ id, refs: [id], kind, value, tolerance: null, label: id, quantity: 1 });
const volts = (net: string) => ({ id: net, what: 'measure', title: net, mode: 'dcv', red: { net }, black: { net: '0' } }) as const;
const kit = (): KitState =>
  kitOf(
    sheetWith({
      title: 'a divider',
      lines: [line('R1', 'resistor', 1e4), line('R2', 'resistor', 1e4), line('C1', 'electrolytic', 1e-5)],
      circuit: { deck: DECK, neighbours: [] },
      stages: [
        {
          id: 'on',
          title: 'power on',
          kind: 'power',
          fits: ['R1', 'R2', 'C1'],
          supplies: [{ source: 'V1', volts: 9, limit: 0.1 }],
          checks: [
            volts('vcc'),
            volts('a'),
            { id: 'i', what: 'measure', title: 'current', mode: 'dca', red: { net: 'vcc' }, black: { net: '0' }, source: 'V1' },
          ],
        },
      ],
    }),
  );
const read = (check: string, reading: number) => ({ kind: 'read', stage: 'on', check, reading, meter: 'handheld' }) as const;
const find = (vcc: number, a: number, i: number) => {
  const investigation = investigationOf(log(kit(), read('vcc', vcc), read('a', a), read('i', i)))!;
  return findSuspects(investigation, diagnoserOf(investigation));
};

test.each<[string, [number, number, number], FaultKind, string]>([
  ['nothing anywhere: the supply does not reach the board', [0, 0, 0], 'no-supply', 'V1'],
  // 9 V x 0.75 behind 20 ohm, loaded by 20 kohm.
  ['everything too low alike: the supply sags', [6.743, 3.372, 0.000337], 'low-supply', 'V1'],
  // 10 k || 4.7 k = 3.2 k below 10 k.
  ['one net pulled down by kilohms: the capacitor on it leaks', [9, 2.18, 0.000682], 'leaky', 'C1'],
])('%s', (_, [vcc, a, i], kind, part) => {
  const [first] = find(vcc, a, i).suspects;
  expect(first!.faults[0]).toMatchObject({ kind, parts: [part] });
});

test('on a healthy board, and with R1 open, none of them is suspected', () => {
  for (const [vcc, a, i] of [[9, 4.5, 0.00045] as const, [9, 0, 0] as const]) {
    const { suspects } = find(vcc, a, i);
    const bench = suspects.filter((s) => s.faults.some((f) => f.kind === 'no-supply' || f.kind === 'low-supply' || f.kind === 'leaky'));
    expect(bench.reduce((sum, s) => sum + s.probability, 0)).toBeLessThan(0.1);
  }
});
