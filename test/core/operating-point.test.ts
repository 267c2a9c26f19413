/** Operating points against the general-purpose simulator in the dev dependencies, and against closed forms. */
import fc from 'fast-check';
import { readDeck } from '@/core/circuit/deck/read';
import { GROUND } from '@/core/circuit/netlist';
import { operatingPoint, UnsolvableError } from '@/core/circuit/operatingPoint';
import { CIRCUITS } from '../support/circuits';
import { referenceOp } from '../support/simulator';

const solve = (deck: string) => {
  const { circuit, diagnostics } = readDeck(deck);
  expect(diagnostics.filter((d) => d.severity === 'error')).toEqual([]);
  return operatingPoint(circuit);
};

describe('against the reference simulator: 1 mV or 0.1 %', () => {
  test.each(CIRCUITS)(
    '%s',
    async (_, deck) => {
      const reference = await referenceOp(deck);
      const { nodes, branches } = solve(deck);
      let compared = 0;
      for (const [net, volts] of Object.entries(nodes)) {
        const wanted = reference.get(net.toLowerCase()) ?? reference.get(`v(${net.toLowerCase()})`);
        if (wanted === undefined) continue;
        compared++;
        expect(Math.abs(volts - wanted)).toBeLessThan(Math.max(1e-3, 1e-3 * Math.abs(wanted)));
      }
      expect(compared).toBe(Object.keys(nodes).length);
      for (const [source, amperes] of Object.entries(branches)) {
        const wanted = reference.get(`i(${source.toLowerCase()})`) ?? reference.get(`${source.toLowerCase()}#branch`);
        if (wanted !== undefined) expect(Math.abs(amperes - wanted)).toBeLessThan(Math.max(1e-6, 2e-3 * Math.abs(wanted)));
      }
    },
    60_000,
  );
});

describe('closed forms', () => {
  test('divider: V R2/(R1 + R2)', () => {
    fc.assert(
      fc.property(fc.double({ min: 1, max: 1e6, noNaN: true }), fc.double({ min: 1, max: 1e6, noNaN: true }), (r1, r2) => {
        const { nodes } = solve(`t\nV1 a 0 10\nR1 a b ${r1}\nR2 b 0 ${r2}`);
        expect(nodes['b']).toBeCloseTo((10 * r2) / (r1 + r2), 5);
      }),
      { numRuns: 40 },
    );
  });

  test('diode equation: I = IS (e^(V/N VT) − 1) with N VT at 27 °C', () => {
    const { nodes, branches } = solve('t\nV1 a 0 0.65\nD1 a 0 DX\n.model DX D(IS=1e-12 N=1.5)');
    const vt = (1.38064852e-23 * 300.15) / 1.6021766208e-19;
    expect(-branches['V1']!).toBeCloseTo(1e-12 * Math.expm1(nodes['a']! / (1.5 * vt)), 8);
  });

  test('adjustable reference as the data sheet has it: 1.25 V (1 + R2/R1) with an ideal reference', () => {
    const { nodes } = solve('t\nV1 ref adj 1.25\nE1 out 0 ref out 1e7\nR1 out adj 240\nR2 adj 0 1680');
    expect(nodes['out']).toBeCloseTo(1.25 * (1 + 1680 / 240), 3);
  });
});

describe('laws on random circuits', () => {
  const resistorNet = fc.record({
    count: fc.integer({ min: 3, max: 12 }),
    picks: fc.array(fc.tuple(fc.nat(), fc.nat(), fc.integer({ min: 1, max: 1_000_000 })), { minLength: 4, maxLength: 30 }),
  });

  test('currents at every net add up to nothing; power delivered equals power burnt', () => {
    fc.assert(
      fc.property(resistorNet, ({ count, picks }) => {
        const net = (i: number) => (i % count === 0 ? '0' : `n${i % count}`);
        const parts = picks.map(([a, b, ohms], i) => ({ name: `R${i}`, a: net(a), b: net(b), ohms })).filter((p) => p.a !== p.b);
        const deck = ['random', 'V1 n1 0 9', ...parts.map((p) => `${p.name} ${p.a} ${p.b} ${p.ohms}`)].join('\n');
        const { nodes, branches } = solve(deck);
        const v = (n: string) => (n === GROUND ? 0 : nodes[n]!);
        const sums = new Map<string, number>([['n1', branches['V1']!]]);
        let burnt = 0;
        for (const p of parts) {
          const i = (v(p.a) - v(p.b)) / p.ohms;
          burnt += i * (v(p.a) - v(p.b));
          sums.set(p.a, (sums.get(p.a) ?? 0) + i);
          sums.set(p.b, (sums.get(p.b) ?? 0) - i);
        }
        for (const [n, sum] of sums) if (n !== '0') expect(Math.abs(sum)).toBeLessThan(1e-9);
        expect(-branches['V1']! * 9).toBeCloseTo(burnt, 6);
      }),
      { numRuns: 60 },
    );
  });
});

describe('circuits that cannot be solved name the place', () => {
  test.each([
    ['two sources in parallel', 't\nV1 a 0 5\nV2 a 0 6\nR1 a 0 1k', /V2 closes a loop/],
    ['a shorted source', 't\nV1 a a 5\nR1 a 0 1k', /V1 has both ends on net a/],
  ])('%s', (_, deck, message) => {
    expect(() => solve(deck)).toThrow(UnsolvableError);
    expect(() => solve(deck)).toThrow(message);
  });

  test('a net on which nothing hangs has a voltage and breaks nothing', () => {
    const { nodes } = solve('t\nV1 a 0 5\nR1 a b 1k\nC1 b c 1u\nR2 b 0 1k');
    expect(nodes['b']).toBeCloseTo(2.5, 4);
    expect(Number.isFinite(nodes['c'])).toBe(true);
  });
});
