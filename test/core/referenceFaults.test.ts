/** Every fault of two boards, put into the deck and solved by the general-purpose simulator of the dev dependencies. */
import { readDeck } from '@/core/circuit/deck/read';
import { writeDeck } from '@/core/circuit/deck/write';
import type { Circuit } from '@/core/circuit/netlist';
import { operatingPoint } from '@/core/circuit/operatingPoint';
import { applyFault } from '@/core/fault/apply';
import type { Board, BoardPart } from '@/core/fault/board';
import type { BoardKind } from '@/core/vocabulary';
import type { Fault } from '@/core/fault/fault';
import { listBenchFaults } from '@/core/fault';
import { describeFault } from '@/core/fault/words';
import { part } from '../support/boards';
import { PROGRAMMED, ROWS_OF_PINS } from '../support/decks';
import { referenceOp } from '../support/simulator';

const KINDS: Readonly<Record<string, BoardKind>> = {
  R: 'resistor',
  D: 'diode',
  Z: 'zener',
  L: 'led',
  Q: 'npn',
  P: 'pnp',
  M: 'nmos',
  J: 'njf',
  V: 'supply',
  C: 'capacitor',
};

function boardOf(circuit: Circuit, kinds: Readonly<Record<string, keyof typeof KINDS>>): Board {
  const parts = circuit.parts.flatMap((p): BoardPart[] => {
    const kind = KINDS[kinds[p.name] ?? p.name[0]!];
    if (!kind) return [];
    const value = p.kind === 'R' ? p.value : null;
    return [
      { ref: p.name, element: p.name, kind, value, model: 'model' in p ? p.model.name : null, tolerance: [-0.05, 0.05], range: null, measured: undefined },
    ];
  });
  return { parts, neighbours: [['a', 'b']] };
}

const BOARDS: readonly (readonly [string, string, Readonly<Record<string, keyof typeof KINDS>>])[] = [
  ['a series regulator', 'V1 in 0 15\nD1 in p DX\nR1 p a 680\nD2 0 a ZX\nQ1 p a b QX\nR2 b 0 1k\nC1 b 0 10u\nR3 b l 1k\nD3 l 0 LX', { D2: 'Z', D3: 'L' }],
  [
    'a two-stage switch',
    'V1 vc 0 9\nR1 vc a 47k\nR2 a 0 22k\nQ1 b a e QX\nR3 vc b 10k\nR4 e 0 1k\nR5 b g 1k\nQ2 d g vc PX\nR6 d 0 470\nR7 d l 680\nD1 l 0 LX',
    { D1: 'L', Q2: 'P' },
  ],
  [
    'field-effect transistors',
    'V1 vc 0 12\nR1 vc a 10k\nR2 a 0 47k\nM1 d a 0 0 MX\nR3 vc d 470\nJ1 vc b s JX\nR4 b 0 1MEG\nR5 s 0 1k\nR6 s m 10k\nR7 m 0 10k\nD1 d k LX\nR8 k 0 1k',
    { D1: 'L' },
  ],
];
// Without series resistances: inner nodes would have shunts of their own.
const MODELS = `.model DX D(IS=4E-9 N=1.9)
.model ZX D(IS=1E-14 N=1.1 BV=6.2 IBV=5E-3)
.model MX NMOS(LEVEL=1 VTO=2 KP=0.05 LAMBDA=0.01)
.model JX NJF(VTO=-2.5 BETA=1.2E-3 LAMBDA=0.005)
.model LX D(IS=1E-17 N=2)
.model QX NPN(IS=1E-14 BF=200 BR=4 VAF=80)
.model PX PNP(IS=1E-14 BF=180 BR=4 VAF=60)`;

/** A net as a written deck spells it. */
const written = (net: string) => net.replace(/[^A-Za-z0-9_+-]/g, '_');

/** How many nets both know; each within 2 mV or 0.2 %. */
function agreeing(mine: Readonly<Record<string, number>>, theirs: ReadonlyMap<string, number>): number {
  let compared = 0;
  for (const [net, volts] of Object.entries(mine)) {
    const name = written(net).toLowerCase();
    const reference = theirs.get(`v(${name})`) ?? theirs.get(name);
    if (reference === undefined) continue;
    compared++;
    expect([net, Math.abs(volts - reference) <= 2e-3 + 2e-3 * Math.abs(reference)]).toEqual([net, true]);
  }
  return compared;
}

describe('networks, tracks, chips in two rows and supplies: 2 mV or 0.2 %', () => {
  const { circuit } = readDeck(ROWS_OF_PINS);
  const board: Board = {
    parts: [
      part('V1', 'supply'),
      part('RN1', 'resistor', { element: 'RN1a', elements: ['RN1a', 'RN1b', 'RN1c'], body: 'network' }),
      part('RV1', 'resistor', { element: 'RV1a', elements: ['RV1a', 'RV1b'], body: 'control' }),
      part('W1', 'contact', { element: 'RW1' }),
      part('S1', 'contact', { element: 'RS1' }),
      part('U1', 'chip', { element: 'XU1', model: 'CHIP' }),
      part('U2', 'chip', { element: 'XU2', model: 'OTHER' }),
    ],
    neighbours: [],
  };
  const faults = listBenchFaults(circuit, board).slice(1);

  test('turned, exchanged, a leg loose, the wrong way round: each is thought of once', () => {
    const named = faults.map((f) => describeFault(f).title);
    for (const title of [
      'RN1 is back to front',
      'RV1 is back to front',
      'U1 is back to front',
      'U1 and U2 are swapped',
      'RN1: pin 3 has an open joint',
      'RV1: pin 1 has an open joint',
    ])
      expect(named.filter((n) => n === title)).toEqual([title]);
    expect(named).toContain('V1 is connected backwards');
    expect(new Set(named).size).toBe(named.length);
  });
  test.each(faults.map((f): [string, Fault] => [describeFault(f).title, f]))('%s', async (_, fault) => {
    const faulty = applyFault(circuit, board, fault).circuit;
    const mine = operatingPoint(faulty).nodes;
    const theirs = await referenceOp(writeDeck(faulty), Object.keys(mine).map(written));
    expect(agreeing(mine, theirs)).toBeGreaterThan(3);
  });
  test('a network turned: its common pin is where its last one was (worked by hand)', () => {
    const { parts } = applyFault(circuit, board, { kind: 'turned', parts: ['RN1'], detail: {} }).circuit;
    expect(parts.filter((p) => p.name.startsWith('RN1')).map((p) => p.nodes)).toEqual([
      ['q3', 'q2'],
      ['q3', 'q1'],
      ['q3', 'p'],
    ]);
  });
  test('a chip turned has pin 1 where pin 5 was (worked by hand)', () => {
    const { parts } = applyFault(circuit, board, { kind: 'turned', parts: ['U1'], detail: {} }).circuit;
    // R1 of the chip lies between its pins 8 and 2: now in the holes of 4 and 6.
    expect(parts.find((p) => p.name.toLowerCase() === 'xu1.r1')!.nodes).toEqual(['0', 'd']);
  });
});

describe('a programmed chip: 2 mV or 0.2 %', () => {
  const { circuit } = readDeck(PROGRAMMED);
  const board: Board = {
    parts: [
      part('V1', 'supply'),
      ...['R1', 'R2', 'R3', 'R4', 'R5'].map((ref) => part(ref, 'resistor')),
      part('U1', 'chip', { element: 'XU1', model: 'CONTROLLER', programmed: true }),
    ],
    neighbours: [],
  };
  const faults = listBenchFaults(circuit, board).slice(1);

  test('blank, and each output stuck at either level: its supply, its ground and its input are no outputs', () => {
    const named = faults.filter((f) => f.kind === 'blank' || f.kind === 'stuck').map((f) => describeFault(f).title);
    expect(named).toEqual(['U1 is not programmed', 'U1: pin 4 is stuck high', 'U1: pin 4 is stuck low', 'U1: pin 5 is stuck high', 'U1: pin 5 is stuck low']);
  });
  test.each(faults.map((f): [string, Fault] => [describeFault(f).title, f]))('%s', async (_, fault) => {
    const faulty = applyFault(circuit, board, fault).circuit;
    const mine = operatingPoint(faulty).nodes;
    const theirs = await referenceOp(writeDeck(faulty), Object.keys(mine).map(written));
    expect(agreeing(mine, theirs)).toBeGreaterThan(3);
  });
  test('blank: dividers hang on nothing, the input is still held up (Ohm’s law)', () => {
    const { nodes } = operatingPoint(applyFault(circuit, board, { kind: 'blank', parts: ['U1'], detail: {} }).circuit);
    expect([nodes['a'], nodes['b']].every((v) => Math.abs(v!) < 1e-3)).toBe(true);
    expect(nodes['in']).toBeCloseTo((5 * 1e6) / (1e6 + 1e4), 3);
  });
  test('an output stuck low pulls its divider down through a tenth of an ohm', () => {
    const low: Fault = { kind: 'stuck', parts: ['U1'], detail: { pin: '4', level: 'low' } };
    expect(Math.abs(operatingPoint(applyFault(circuit, board, low).circuit).nodes['high']!)).toBeLessThan(0.02);
  });
});

describe.each(BOARDS)('%s, one fault after another: 2 mV or 0.2 %', (title, lines, kinds) => {
  const { circuit } = readDeck(`${title}\n${lines}\n${MODELS}`);
  const board = boardOf(circuit, kinds);
  const faults = listBenchFaults(circuit, board).slice(1);

  const some = faults.map((f): [string, Fault] => [describeFault(f).title, f]);

  test('there are faults of many kinds', () => {
    expect(new Set(faults.map((f) => f.kind)).size).toBeGreaterThan(7);
    expect(some.length).toBeGreaterThan(20);
  });
  test.each(some)('%s', async (_, fault) => {
    const faulty = applyFault(circuit, board, fault).circuit;
    const mine = operatingPoint(faulty).nodes;
    const theirs = await referenceOp(writeDeck(faulty), Object.keys(mine).map(written));
    expect(agreeing(mine, theirs)).toBeGreaterThan(3);
  });
});
