/**
 * Made-up healthy boards and the windows drawn from them: held against boards that this test makes up by itself and the
 * general-purpose simulator of the dev dependencies solves, and against the spreads as the methods state them.
 */
import fc from 'fast-check';
import { readDeck } from '@/core/circuit/deck/read';
import type { Circuit, Part, Semiconductor, Source, TwoTerminal } from '@/core/circuit/netlist';
import { Newton } from '@/core/circuit/solve/newton';
import { System } from '@/core/circuit/solve/system';
import type { Board, BoardPart } from '@/core/fault/board';
import { HANDHELD } from '@/core/meter';
import { HealthyBoards } from '@/core/specimen';
import { piecesOf, withOffsets } from '@/core/specimen/pieces';
import { computedWindow } from '@/core/stage';
import { windowsOf } from '@/core/stage/windows';
import { hypercube, randomStream } from '@/core/statistics';
import { part } from '../support/boards';
import { referenceOp } from '../support/simulator';

const boardWith = (...parts: BoardPart[]): Board => ({ parts, neighbours: [] });
const circuitOf = (lines: string): Circuit => readDeck(`t\n${lines}\n.end`).circuit;

describe('a Latin hypercube', () => {
  test('law: every dimension has one point in each stratum, and the seed makes it repeatable', () => {
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 6 }), fc.integer({ min: 1, max: 40 }), fc.nat(1000), (dimensions, count, seed) => {
        const points = hypercube(dimensions, count, seed);
        for (let d = 0; d < dimensions; d++)
          expect(points.map((p) => Math.floor(p[d]! * count)).sort((a, b) => a - b)).toEqual(Array.from({ length: count }, (_, i) => i));
        expect(hypercube(dimensions, count, seed)).toEqual(points);
      }),
      { numRuns: 40 },
    );
  });
});

describe('how far good parts differ', () => {
  /** The extremes of one number of a part over many boards. */
  const extremes = (circuit: Circuit, board: Board, name: string, read: (p: Part) => number): [number, number] => {
    const values = new HealthyBoards(circuit, board).draw(400, 7).map((parts) => read(parts.find((p) => p.name === name)!));
    return [Math.min(...values), Math.max(...values)];
  };
  const valueOf = (p: Part) => (p as TwoTerminal).value;
  const param = (key: string) => (p: Part) => (p as Semiconductor).model.params[key]!;
  const near = ([low, high]: [number, number], [wantedLow, wantedHigh]: [number, number]) => {
    const width = Math.abs(wantedHigh - wantedLow);
    expect(low).toBeGreaterThanOrEqual(wantedLow - 1e-9 * Math.abs(wantedLow));
    expect(high).toBeLessThanOrEqual(wantedHigh + 1e-9 * Math.abs(wantedHigh));
    expect(low - wantedLow).toBeLessThan(0.1 * width);
    expect(wantedHigh - high).toBeLessThan(0.1 * width);
  };
  test('a resistor fills its tolerance', () => {
    near(extremes(circuitOf('V1 a 0 5\nR1 a 0 1k'), boardWith(part('R1', 'resistor', { value: 1000 })), 'R1', valueOf), [950, 1050]);
  });
  test('an electrolytic fills its own, which is not symmetrical', () => {
    near(
      extremes(circuitOf('V1 a 0 5\nC1 a 0 100u\nR1 a 0 1k'), boardWith(part('C1', 'electrolytic', { tolerance: [-0.2, 0.8] })), 'C1', valueOf),
      [80e-6, 180e-6],
    );
  });
  test('a measured piece is where the meter says, within its error (rectangular, JCGM 100)', () => {
    const standard = 10 / Math.sqrt(3);
    near(extremes(circuitOf('V1 a 0 5\nR1 a 0 1k'), boardWith(part('R1', 'resistor', { measured: { value: 1020, standard } })), 'R1', valueOf), [1010, 1030]);
  });
  test('both halves of a control share one track', () => {
    const circuit = circuitOf('V1 a 0 5\nRRV1a a w 3k\nRRV1b w 0 7k');
    const board = boardWith(part('RV1', 'resistor', { elements: ['RRV1a', 'RRV1b'], tolerance: [-0.2, 0.2] }));
    for (const parts of new HealthyBoards(circuit, board).draw(30, 3)) {
      const [upper, lower] = ['RRV1a', 'RRV1b'].map((name) => valueOf(parts.find((p) => p.name === name)!));
      expect(upper! / lower!).toBeCloseTo(3 / 7, 9);
    }
  });
  test('gain lies anywhere in the list’s range; the threshold of a MOSFET within half a volt of its middle', () => {
    const q = circuitOf('V1 a 0 5\nR1 a c 1k\nQ1 c a 0 N\n.model N NPN(IS=1e-14 BF=200)');
    near(extremes(q, boardWith(part('Q1', 'npn', { range: [110, 450] })), 'Q1', param('BF')), [110, 450]);
    const m = circuitOf('V1 a 0 5\nR1 a d 1k\nM1 d a 0 0 MN\n.model MN NMOS(VTO=2 KP=0.1)');
    const [low, high] = extremes(m, boardWith(part('M1', 'nmos', { range: [1, 3] })), 'M1', param('VTO'));
    expect(low).toBeGreaterThanOrEqual(1.5);
    expect(high).toBeLessThanOrEqual(2.5);
    expect(high - low).toBeGreaterThan(0.7);
  });
  test('parts of one model are of one lot: they differ less from one another than from another maker’s', () => {
    const circuit = circuitOf('V1 a 0 5\nR1 a b 1k\nD1 b c DX\nD2 c 0 DX\n.model DX D(IS=4e-9 N=1.9)');
    for (const parts of new HealthyBoards(circuit, boardWith(part('D1', 'diode'), part('D2', 'diode'))).draw(60, 5)) {
      const [one, other] = ['D1', 'D2'].map((name) => param('IS')(parts.find((p) => p.name === name)!));
      expect(Math.max(one!, other!) / Math.min(one!, other!)).toBeLessThanOrEqual(1.25 ** 2 + 1e-9);
    }
  });
  test('a supply moves all its levels together, a wave keeps its shape', () => {
    const circuit = circuitOf('V1 a 0 SIN(0 17 50)\nR1 a 0 1k');
    for (const parts of new HealthyBoards(circuit, boardWith(part('V1', 'supply', { tolerance: [-0.02, 0.02] }))).draw(20, 5)) {
      const { wave } = parts[0] as Source;
      expect(wave).toMatchObject({ shape: 'sin', frequency: 50, offset: 0 });
      expect(Math.abs((wave as { amplitude: number }).amplitude / 17 - 1)).toBeLessThanOrEqual(0.02);
    }
  });
  test('an op-amp is given an offset at its + input and limits that move; a part on no line stays as it is', () => {
    const circuit = circuitOf(
      'V1 v 0 9\nR1 v p 1k\nR2 p 0 1k\nR9 v 0 1meg\nXU1 p o v 0 o OP\n.subckt OP a b c d e\nRI a b 5MEG\nG1 0 x a b 2E-5\nRX x 0 2E9\nEH hr 0 c 0 1\nVH hr hl 1.3\nDH x hl DL\nEL lr 0 d 0 1\nVL ll lr 0.1\nDL ll x DL\nEB bb 0 x 0 1\nRO bb e 60\n.model DL D(IS=1e-14)\n.ends',
    );
    const board = boardWith(part('U1', 'opamp', { element: 'XU1' }), part('R1', 'resistor'), part('R2', 'resistor'));
    const whole = withOffsets(circuit, board);
    const varied = piecesOf(whole, board).map((piece) => piece(() => 1));
    const of = (name: string) => varied.find((p) => p.name === name) as Source;
    expect(of('XU1.~offset').dc).toBeCloseTo(0.005, 9);
    expect(of('XU1.VH').dc).toBeCloseTo(1.7, 9);
    expect(of('XU1.VL').dc).toBeCloseTo(0.5, 9);
    expect(varied.some((p) => p.name === 'R9')).toBe(false);
    // The offset lies between the net and the input, not in the net: R2 still hangs on p.
    expect(whole.parts.find((p) => p.name === 'R2')!.nodes).toEqual(['p', '0']);
    expect(whole.parts.find((p) => p.name === 'XU1.RI')!.nodes).toContain('XU1.~offset');
  });
});

describe('another piece put into a compiled circuit', () => {
  const DECK =
    'V1 v 0 9\nR1 v b 47k\nR2 b 0 10k\nR3 v c 2.2k\nR4 e 0 470\nQ1 c b e N\nD1 v d DX\nR5 d 0 1k\nM1 m g 0 0 MN\nR6 v m 1k\nR7 v g 10k\nR8 g 0 10k\nJ1 v 0 s JN\nR9 s 0 1k\n.model N NPN(IS=1e-14 BF=200 RC=1 RE=0.2 VAF=80)\n.model DX D(IS=4e-9 N=1.9 RS=0.6)\n.model MN NMOS(VTO=2 KP=0.05)\n.model JN NJF(VTO=-2 BETA=1e-3)';
  const circuit = circuitOf(DECK);
  const board = boardWith(
    part('V1', 'supply'),
    ...['R1', 'R2', 'R3', 'R4', 'R5', 'R6', 'R7', 'R8', 'R9'].map((r) => part(r, 'resistor')),
    part('Q1', 'npn', { range: [110, 450] }),
    part('D1', 'diode'),
    part('M1', 'nmos', { range: [1.5, 2.5] }),
    part('J1', 'njf', { range: [-2.5, -1.5] }),
  );
  test('law: it solves as a circuit that was compiled with that piece', () => {
    const system = new System(circuit);
    const newton = new Newton(system);
    for (const parts of new HealthyBoards(circuit, board).draw(25, 11)) {
      for (const p of parts) system.take(p);
      const taken = newton.solve(null);
      const fresh = new System({ ...circuit, parts: circuit.parts.map((p) => parts.find((q) => q.name === p.name) ?? p) });
      const compiled = new Newton(fresh).solve(null);
      expect(taken.converged && compiled.converged).toBe(true);
      system.unknowns.forEach((name, i) => {
        expect(taken.x[i]).toBeCloseTo(compiled.x[fresh.unknowns.indexOf(name)]!, 5);
      });
    }
  });
});

/** Circuits of which this test makes up healthy boards by itself; what varies is written into the deck. */
const KITS: readonly { readonly name: string; readonly deck: (r: () => number) => string; readonly board: Board; readonly nets: readonly string[] }[] = [
  {
    name: 'a loaded divider',
    deck: (u) =>
      `t\nV1 v 0 ${12 * around(u, 0.02)}\nR1 v a ${10e3 * around(u, 0.05)}\nR2 a 0 ${4.7e3 * around(u, 0.05)}\nR3 a 0 ${22e3 * around(u, 0.01)}\n.end`,
    board: boardWith(
      part('V1', 'supply', { tolerance: [-0.02, 0.02] }),
      part('R1', 'resistor'),
      part('R2', 'resistor'),
      part('R3', 'resistor', { tolerance: [-0.01, 0.01] }),
    ),
    nets: ['a'],
  },
  {
    name: 'an emitter follower behind a divider',
    deck: (u) =>
      `t\nV1 v 0 ${12 * around(u, 0.02)}\nR1 v b ${10e3 * around(u, 0.05)}\nR2 b 0 ${10e3 * around(u, 0.05)}\nR3 e 0 ${1e3 * around(u, 0.05)}\nQ1 v b e N\n.model N NPN(IS=${1.5e-14 * 8 ** (2 * u() - 1) * 1.25 ** (2 * u() - 1)} BF=${110 + 340 * u()} NF=${0.98 + 0.07 * u()} VAF=${80 * 0.5 * 4 ** u()} BR=4 RC=${0.5 * 0.3 * 10 ** u()} RE=${0.1 * 0.3 * 10 ** u()})\n.end`,
    board: boardWith(
      part('V1', 'supply', { tolerance: [-0.02, 0.02] }),
      part('R1', 'resistor'),
      part('R2', 'resistor'),
      part('R3', 'resistor'),
      part('Q1', 'npn', { range: [110, 450], model: 'N' }),
    ),
    nets: ['b', 'e'],
  },
  {
    name: 'a zener rail with its LED',
    deck: (u) =>
      `t\nV1 v 0 ${9 * around(u, 0.02)}\nR1 v z ${330 * around(u, 0.05)}\nD1 0 z Z5\nR2 z l ${1e3 * around(u, 0.05)}\nD2 l 0 LR\n.model Z5 D(IS=${1e-14 * 0.5 * 4 ** u()} N=1.1 RS=${9 * 0.5 * 6 ** u()} BV=${5.1 * (1 + 0.05 * (2 * u() - 1) + 0.02 * (2 * u() - 1))} IBV=5E-3)\n.model LR D(IS=${7.7e-18 * Math.exp((0.22 * (2 * u() - 1) + 0.03 * (2 * u() - 1)) / (2 * 0.025865))} N=2 RS=2)\n.end`,
    board: boardWith(
      part('V1', 'supply', { tolerance: [-0.02, 0.02] }),
      part('R1', 'resistor'),
      part('R2', 'resistor'),
      part('D1', 'zener', { model: 'Z5' }),
      part('D2', 'led', { model: 'LR' }),
    ),
    nets: ['z', 'l'],
  },
];
const around = (u: () => number, share: number) => 1 + share * (2 * u() - 1);

describe('windows against healthy boards that somebody else made up and solved', () => {
  test.each(KITS)(
    '$name: at least 58 of 60 inside, and no more than twice as wide as they spread',
    async ({ deck, board, nets }) => {
      const nominal = readDeck(deck(() => 0.5)).circuit;
      const windows = windowsOf(
        { circuit: nominal, observables: nets.map((net) => ({ id: net, mode: 'dcv' as const, red: net, black: '0' })) },
        board,
        HANDHELD,
      );
      const u = randomStream(4242);
      const solved: ReadonlyMap<string, number>[] = [];
      for (let i = 0; i < 60; i++) solved.push(await referenceOp(deck(u)));
      for (const net of nets) {
        const { low, high } = computedWindow(windows.get(net))!;
        const volts = solved.map((s) => s.get(`v(${net})`) ?? s.get(net)!);
        expect(volts.filter((v) => v >= low && v <= high).length).toBeGreaterThanOrEqual(58);
        const spread = Math.max(...volts) - Math.min(...volts);
        expect(high - low).toBeLessThan(2 * spread + 0.05);
      }
    },
    60_000,
  );
});
