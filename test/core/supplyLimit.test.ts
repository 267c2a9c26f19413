/** Supplies with a current limit: volts up to the limit, amperes from there on. Worked by Ohm's law and the diode equation. */
import fc from 'fast-check';
import { type Circuit, operatingPoint, readDeck, withoutLimits } from '@/core/circuit';
import { diagnoserOf, findSuspects } from '@/core/diagnose';
import { investigationOf, kitOf, log, windowsOfKit } from '../support/kits';
import { type KitState, sheetWith } from '@/core/kit';

const limited = (deck: string, limits: Readonly<Record<string, number>>): Circuit => {
  const { circuit } = readDeck(deck);
  return { ...circuit, parts: circuit.parts.map((p) => (p.kind === 'V' && limits[p.name] !== undefined ? { ...p, limit: limits[p.name] } : p)) };
};

describe('a bench supply', () => {
  test('holds its volts within its limit, and its amperes beyond it', () => {
    fc.assert(
      fc.property(fc.double({ min: 0.1, max: 1e5, noNaN: true }), fc.double({ min: 1e-3, max: 3, noNaN: true }), (ohms, limit) => {
        const { nodes, branches } = operatingPoint(limited(`t\nV1 a 0 12\nR1 a 0 ${ohms}`, { V1: limit }));
        const volts = Math.min(12, limit * ohms);
        expect(nodes['a']! / volts).toBeCloseTo(1, 6);
        expect(-branches['V1']! / (volts / ohms)).toBeCloseTo(1, 6);
      }),
    );
  });
  test('of negative volts, and one of two rails, limits too; the other rail stays', () => {
    const { nodes } = operatingPoint(limited('t\nVP p 0 15\nVN n 0 -15\nR1 p 0 1k\nR2 n 0 50', { VP: 0.1, VN: 0.1 }));
    expect(nodes['p']).toBeCloseTo(15, 6);
    expect(nodes['n']).toBeCloseTo(-5, 6);
  });
  test('across a junction has a solution: the forward voltage at the limit', () => {
    // U = N VT ln(I / IS + 1), VT = 25.8649 mV at 27 °C
    const { nodes } = operatingPoint(limited('t\nV1 a 0 12\nD1 a 0 DX\n.model DX D(IS=1e-14 N=1)', { V1: 0.02 }));
    expect(nodes['a']).toBeCloseTo(0.0258649 * Math.log(0.02 / 1e-14 + 1), 3);
  });
  test('without its limit gives what is asked', () => {
    expect(operatingPoint(withoutLimits(limited('t\nV1 a 0 12\nR1 a 0 1', { V1: 0.1 }))).branches['V1']).toBeCloseTo(-12, 6);
  });
});

const DECK = `A lamp behind a transistor
V1 vcc 0 12
R1 vcc b 10k
RL vcc c 1k
Q1 c b 0 N1
R2 vcc m 1k
R3 m 0 1k
.model N1 NPN(IS=1e-14 BF=200)
.end`;
const volts = (net: string) => ({ id: net, what: 'measure', title: net, mode: 'dcv', red: { net }, black: { net: '0' } }) as const;
const resistor = (ref: string, value: number) =>
  ({ id: ref, refs: [ref], kind: 'resistor', value, tolerance: [-0.01, 0.01], label: ref, quantity: 1 }) as const;
const bench = (feed?: 'battery'): KitState =>
  kitOf(
    sheetWith({
      title: 'a switch and a divider',
      lines: [
        resistor('R1', 1e4),
        resistor('RL', 1e3),
        resistor('R2', 1e3),
        resistor('R3', 1e3),
        { id: 'Q1', refs: ['Q1'], kind: 'npn', value: null, tolerance: null, label: 'Q1', quantity: 1 },
      ],
      circuit: { deck: DECK, neighbours: [['vcc', '0']] },
      stages: [
        {
          id: 'on',
          title: 'power on',
          kind: 'power',
          fits: ['R1', 'RL', 'R2', 'R3', 'Q1'],
          supplies: [{ source: 'V1', volts: 12, limit: 0.05, ...(feed ? { feed } : {}) }],
          checks: [
            volts('vcc'),
            volts('c'),
            volts('m'),
            { id: 'i', what: 'measure', title: 'current', mode: 'dca', red: { net: 'vcc' }, black: { net: '0' }, source: 'V1' },
          ],
        },
      ],
    }),
  );
const read = (check: string, reading: number) => ({ kind: 'read', stage: 'on', check, reading, meter: 'handheld' }) as const;
const suspectsOf = (kit: KitState) => {
  const investigation = investigationOf(kit)!;
  return findSuspects(investigation, diagnoserOf(investigation)).suspects;
};

test('a dead short stands in the limit on the bench: the bridge is found, not a weak supply', () => {
  // 50 mA through a bridge of 80 mΩ: 4 mV on the rail and behind RL, half of it at the divider.
  const [first] = suspectsOf(log(bench(), read('vcc', 0.004), read('c', 0.0041), read('m', 0.002), read('i', 0.0503)));
  expect(first!.faults[0]).toMatchObject({ kind: 'bridge', detail: { nets: ['vcc', '0'] } });
  expect(first!.probability).toBeGreaterThan(0.5);
});

test('a healthy board never reaches it, and its windows are what they were', () => {
  const [a, b] = [windowsOfKit(bench()), windowsOfKit(bench('battery'))];
  expect(Object.keys(a).length).toBeGreaterThan(3);
  // The limit is drawn too, so the other draws are not the same ones.
  for (const [id, { low, high }] of Object.entries(a) as [string, { low: number; high: number }][]) {
    const other = b[id] as { low: number; high: number };
    expect(low / other.low).toBeCloseTo(1, 1);
    expect(high / other.high).toBeCloseTo(1, 1);
  }
});
