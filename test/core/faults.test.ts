/** Every kind of fault put into a small circuit, and the two ways of solving it held against each other. */
import { readDeck } from '@/core/circuit/deck/read';
import { findPart, type Circuit } from '@/core/circuit/netlist';
import { operatingPoint } from '@/core/circuit/operatingPoint';
import type { EliminationOrder } from '@/core/circuit/solve/pivotSearch';
import type { OrderCache } from '@/core/circuit/solve/sparseLu';
import { FaultSampler } from '@/core/specimen/predict';
import { MODEL_SPREADS, type Problem } from '@/core/specimen/problem';
import { applyFault } from '@/core/fault/apply';
import type { Board, BoardPart } from '@/core/fault/board';
import { type Fault, faultKey, HEALTHY } from '@/core/fault/fault';
import { listFaults } from '@/core/fault/list';
import { betweenStates } from '@/core/fault/latch';
import { carryOver, FaultLayouts } from '@/core/fault/layouts';
import { describeFault } from '@/core/fault/words';
import { HANDHELD } from '@/core/meter';

const DECK = `Everything once
V1 vcc 0 12
R1 vcc a 1k
R2 a 0 2.2k
D1 a l LR
R3 l 0 470
D2 0 z Z5
R4 vcc z 680
Q1 c a e NS
R5 vcc c 3.3k
R6 e 0 1k
Q2 0 c f PS
R7 vcc f 4.7k
M1 d c 0 0 NM
R8 vcc d 1k
C1 vcc 0 100u
XU1 a z vcc 0 o OPAMP
R9 o 0 10k
.subckt OPAMP inp inn vp vn out
Rin inp inn 5MEG
Rq vp vn 12k
G1 0 x inp inn 1E-3
Rx x 0 1E8
Eh hr 0 vp 0 1
Vh hr hl 1.5
Dh x hl DLIM
El lr 0 vn 0 1
Dl lr x DLIM
Eb bb 0 x 0 1
Ro bb out 100
.model DLIM D(IS=1E-12 N=0.05)
.ends
.model LR D(IS=7.7E-18 N=2 RS=2)
.model Z5 D(IS=1E-14 N=1.1 RS=6 BV=5.1 IBV=5E-3)
.model NS NPN(IS=1.5E-14 BF=250 VAF=80 RC=0.5 RE=0.1)
.model PS PNP(IS=2E-14 BF=220 VAF=60 RC=0.5 RE=0.1)
.model NM NMOS(LEVEL=1 VTO=2 KP=0.2)
.end`;

const { circuit } = readDeck(DECK);
const part = (ref: string, kind: BoardPart['kind'], value: number | null, range: [number, number] | null = null): BoardPart => ({
  ref,
  element: ref === 'U1' ? 'XU1' : ref,
  kind,
  value,
  model: null,
  tolerance: [-0.05, 0.05],
  range,
});
const board: Board = {
  parts: [
    part('V1', 'supply', 12),
    ...(
      [
        ['R1', 1e3],
        ['R2', 2.2e3],
        ['R3', 470],
        ['R4', 680],
        ['R5', 3.3e3],
        ['R6', 1e3],
        ['R7', 4.7e3],
        ['R8', 1e3],
        ['R9', 1e4],
      ] as const
    ).map(([ref, v]) => part(ref, 'resistor', v)),
    part('D1', 'led', null),
    part('D2', 'zener', 5.1),
    part('Q1', 'npn', null, [110, 450]),
    part('Q2', 'pnp', null, [110, 450]),
    part('M1', 'nmos', null, [1.6, 2.4]),
    part('C1', 'electrolytic', 1e-4),
    part('U1', 'opamp', null),
  ],
  neighbours: [
    ['a', 'c'],
    ['z', '0'],
  ],
};
const faults = listFaults(circuit, board);
const volts = (fault: Fault, net: string) => operatingPoint(applyFault(circuit, board, fault).circuit).nodes[net] ?? 0;
const one = (kind: Fault['kind'], ref: string, detail: object = {}): Fault => ({ kind, parts: [ref], detail }) as Fault;

describe('the list of faults', () => {
  test('begins with healthy, holds no fault twice, and every fault changes the circuit or is known to be silent', () => {
    expect(faults[0]).toEqual(HEALTHY);
    expect(new Set(faults.map(faultKey)).size).toBe(faults.length);
    const unchanged = faults.slice(1).filter((f) => applyFault(circuit, board, f).circuit === circuit);
    expect(unchanged).toEqual([]);
  });
  test.each([
    ['open', 12],
    ['short', 12],
    ['open-pin', 3 * 3 + 5],
    ['short-pins', 9],
    ['turned', 3],
    ['reversed', 3],
    ['stuck', 2],
    ['bridge', 2],
    ['weak', 4],
    ['wrong-type', 3],
  ] as const)('%s: %d', (kind, count) => {
    expect(faults.filter((f) => f.kind === kind)).toHaveLength(count);
  });
  test('values closer than a factor of 1.25 are no wrong values, and equal resistors are not swapped', () => {
    for (const f of faults) {
      if (f.kind !== 'wrong-value') continue;
      const right = board.parts.find((p) => p.ref === f.parts[0])!.value!;
      expect(Math.max(f.detail.value / right, right / f.detail.value)).toBeGreaterThanOrEqual(1.25);
    }
    expect(faults.some((f) => f.kind === 'swapped' && f.parts.join() === 'R1,R6')).toBe(false);
  });
  test('a part that is not fitted yet has no faults', () => {
    const without: Circuit = { ...circuit, parts: circuit.parts.filter((p) => p.name !== 'R3') };
    expect(listFaults(without, board).some((f) => (f.parts as readonly string[]).includes('R3'))).toBe(false);
  });
});

describe('what faults do (Ohm and Kirchhoff)', () => {
  test('open and short of a divider', () => {
    expect(volts(one('open', 'R3'), 'l')).toBeGreaterThan(volts(HEALTHY, 'l'));
    expect(volts(one('short', 'R3'), 'l')).toBeLessThan(0.01);
    expect(volts(one('short', 'R4'), 'z')).toBeGreaterThan(volts(HEALTHY, 'z'));
  });
  test('a reversed zener is a diode, a weak one holds 60 %', () => {
    expect(volts(one('reversed', 'D2'), 'z')).toBeLessThan(1.2);
    expect(volts(one('weak', 'D2'), 'z')).toBeCloseTo(0.6 * 5.1, 0);
  });
  test('an open base turns the transistor off; collector to emitter shorted pulls the two together', () => {
    expect(volts(one('open-pin', 'Q1', { pin: 'B' }), 'e')).toBeLessThan(0.01);
    expect(Math.abs(volts(one('short-pins', 'Q1', { pins: ['C', 'E'] }), 'c') - volts(one('short-pins', 'Q1', { pins: ['C', 'E'] }), 'e'))).toBeLessThan(0.01);
  });
  test('a bridge makes one net of two', () => {
    const bridged: Fault = { kind: 'bridge', parts: [], detail: { nets: ['a', 'c'] } };
    expect(Math.abs(volts(bridged, 'a') - volts(bridged, 'c'))).toBeLessThan(0.01);
  });
  test('a stuck chip sits at a rail whatever its inputs say', () => {
    expect(volts(one('stuck', 'U1', { level: 'high' }), 'o')).toBeGreaterThan(9);
    expect(volts(one('stuck', 'U1', { level: 'low' }), 'o')).toBeLessThan(0.5);
  });
  test('exchanged parts carry their values along', () => {
    const swapped = applyFault(circuit, board, { kind: 'swapped', parts: ['R1', 'R2'], detail: {} });
    expect(findPart(swapped.circuit, 'R1')).toMatchObject({ value: 2200 });
    expect(findPart(swapped.circuit, 'R2')).toMatchObject({ value: 1000 });
    expect(swapped.pieceAt.get('R1')).toBe('R2');
  });
  test('a transistor turned round has emitter and collector exchanged; a MOSFET takes its bulk along', () => {
    expect(findPart(applyFault(circuit, board, one('turned', 'Q1')).circuit, 'Q1')!.nodes).toEqual(['e', 'a', 'c']);
    expect(findPart(applyFault(circuit, board, one('turned', 'M1')).circuit, 'M1')!.nodes).toEqual(['0', 'c', 'd', 'd']);
  });
});

/** Without one of its rails this model's ideal clamps meet with no resistance between them: no currents that a board can have. */
const clampsFight = (fault: Fault) => fault.kind === 'open-pin' && ['V+', 'V-'].includes(fault.detail.pin);

describe('faults in borrowed layouts', () => {
  const layouts = new FaultLayouts(circuit, board, [], new Map());
  const { newton, system } = layouts.main;
  const healthy = newton.solve(null);
  const shared = faults.slice(1).flatMap((fault) => {
    const borrowed = layouts.borrow([fault], applyFault(circuit, board, fault).circuit);
    return borrowed ? [{ fault, ...borrowed }] : [];
  });

  test('only a field-effect transistor turned round needs a layout of its own', () => {
    const own = faults.slice(1).filter((f) => !shared.some((s) => s.fault === f));
    expect(own.map((f) => [f.kind, ...f.parts])).toEqual([['turned', 'M1']]);
  });
  test.each([
    ['a transistor that is missing', { kind: 'open', parts: ['Q1'], detail: {} }, true],
    ['a transistor turned', { kind: 'turned', parts: ['Q1'], detail: {} }, true],
    ['a collector loose behind its lead', { kind: 'open-pin', parts: ['Q1'], detail: { pin: 'C' } }, true],
    ['a loose base', { kind: 'open-pin', parts: ['Q2'], detail: { pin: 'B' } }, false],
    ['a loose pin of a chip', { kind: 'open-pin', parts: ['U1'], detail: { pin: 'V-' } }, false],
    ['a chip stuck high', { kind: 'stuck', parts: ['U1'], detail: { level: 'high' } }, true],
    ['a diode the wrong way round', { kind: 'reversed', parts: ['D1'], detail: {} }, true],
    ['a zener the wrong way round', { kind: 'reversed', parts: ['D2'], detail: {} }, true],
  ] as const)('%s borrows a layout', (_, fault, main) => {
    const borrowed = layouts.borrow([fault], applyFault(circuit, board, fault).circuit);
    expect(borrowed?.layout === layouts.main).toBe(main);
    expect(borrowed).not.toBeNull();
  });
  test('few elimination orders serve all that share a layout: pivots stay good when transistors switch', () => {
    const orders: OrderCache = new Map();
    const fresh = new FaultLayouts(circuit, board, [], orders);
    const start = fresh.main.newton.solve(null);
    for (const fault of faults.slice(1)) {
      const borrowed = fresh.borrow([fault], applyFault(circuit, board, fault).circuit);
      if (borrowed?.layout !== fresh.main) continue;
      borrowed.change.enter(1);
      expect(fresh.main.newton.solve(start.x).converged).toBe(true);
      borrowed.change.leave();
    }
    expect([...orders.values()].flat().length).toBeLessThanOrEqual(3);
  });
  test('law: solved in a borrowed layout or in one of its own, a fault reads the same', () => {
    for (const { fault, layout, change } of shared) {
      change.enter(1);
      const mine = layout.newton.solve(carryOver(healthy.x, system, layout.system, layout.linked));
      change.leave();
      if (clampsFight(fault)) continue;
      expect([fault.kind, ...fault.parts, mine.converged]).toEqual([fault.kind, ...fault.parts, true]);
      const own = operatingPoint(applyFault(circuit, board, fault).circuit).nodes;
      for (const net of ['a', 'l', 'z', 'c', 'e', 'f', 'd', 'o']) {
        if (own[net] === undefined) continue;
        expect(Math.abs(mine.x[layout.system.unknownOf(net)]! - own[net])).toBeLessThan(1e-3 + 1e-4 * Math.abs(own[net]));
      }
    }
  });
  test('law: entering and leaving every fault leaves the healthy board as it was', () => {
    for (const { change } of shared) {
      change.enter(1);
      change.leave();
    }
    for (const layout of new Set(shared.map((s) => s.layout))) {
      const again = layout.newton.solve(null);
      carryOver(healthy.x, system, layout.system, layout.linked).forEach((v, i) => {
        if (layout.system.unknowns[i]?.startsWith('I(')) return;
        expect(again.x[i]).toBeCloseTo(v, 6);
      });
    }
  });
  test('law: specimens drawn in a shared layout equal those drawn in one of their own', () => {
    const problem: Problem = {
      board,
      scenes: [{ circuit, observables: ['a', 'z', 'c', 'd', 'o'].map((net) => ({ id: net, mode: 'dcv' as const, red: net, black: '0' })) }],
      meter: HANDHELD,
    };
    const orders: OrderCache = new Map();
    const sampler = new FaultSampler(problem, [], orders, null);
    for (const { fault } of shared.filter((_, i) => i % 7 === 0)) {
      const mine = new FaultSampler(problem, [fault], orders, sampler).draw(0, 3, MODEL_SPREADS[1]!);
      const own = new FaultSampler(problem, [fault], new Map<string, EliminationOrder[]>(), null).draw(0, 3, MODEL_SPREADS[1]!);
      expect(mine.rows).toBe(own.rows);
      mine.values.forEach((v, i) => {
        expect(Math.abs(v - own.values[i]!)).toBeLessThan(5e-3);
      });
    }
  });
});

describe('loops that latch', () => {
  const deck = (rc2: string) => `t\nV1 v 0 9\nR1 v a 1k\nR2 v b ${rc2}\nR3 a f 10k\nR4 b e 10k\nQ1 a e 0 N\nQ2 b f 0 N\n.model N NPN(IS=1E-14 BF=100 BR=2)`;
  const both = (rc2: string) => {
    const layout = new FaultLayouts(readDeck(deck(rc2)).circuit, { parts: [], neighbours: [] }, [], new Map()).main;
    const from = (a: number, b: number) => {
      const start = layout.newton.zeros();
      start[layout.system.unknownOf('a')] = a;
      start[layout.system.unknownOf('f')] = a > b ? 0.7 : 0;
      start[layout.system.unknownOf('b')] = b;
      start[layout.system.unknownOf('e')] = b > a ? 0.7 : 0;
      return layout.newton.solve(start).x;
    };
    return { layout, one: from(8, 0.05), two: from(0.05, 8) };
  };
  test('two transistors that hold each other: the state between is the one in which they are equal (symmetry)', () => {
    const { layout, one, two } = both('1k');
    const at = (x: Float64Array, net: string) => x[layout.system.unknownOf(net)]!;
    expect(at(one, 'a') - at(one, 'b')).toBeGreaterThan(3);
    expect(at(two, 'b') - at(two, 'a')).toBeGreaterThan(3);
    const between = betweenStates(layout, one, two)!;
    expect(at(between.x, 'a')).toBeCloseTo(at(between.x, 'b'), 3);
    expect(at(between.x, 'e')).toBeCloseTo(at(between.x, 'f'), 3);
  });
  test('unequal loads move it, and looking for it leaves the circuit as it was', () => {
    const { layout, one, two } = both('1.5k');
    const between = betweenStates(layout, one, two)!;
    expect(between.converged).toBe(true);
    const again = layout.newton.solve(one).x;
    one.forEach((v, i) => {
      expect(again[i]).toBeCloseTo(v, 4);
    });
  });
  test('where there is but one state, there is none between', () => {
    const { layout, one } = both('1k');
    expect(betweenStates(layout, one, one)).toBeNull();
  });
});

test('every fault has a title, a cause and a remedy in plain words', () => {
  for (const fault of faults) {
    const { title, cause, remedy } = describeFault(fault);
    expect(title.length).toBeGreaterThan(5);
    expect(cause.length).toBeGreaterThan(5);
    expect(remedy).toMatch(/\.$/);
    expect(`${title}${cause}${remedy}`).not.toMatch(/undefined|NaN|\[object/);
  }
});
