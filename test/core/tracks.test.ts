/** Broken tracks: where a board's map allows them, what they do to the circuit, and that they are found. */
import fc from 'fast-check';
import { operatingPoint } from '@/core/circuit';
import { writeDeck } from '@/core/circuit/deck/write';
import { diagnoserOf, findSuspects } from '@/core/diagnose';
import { applyFault, describeFault, type Fault, faultKey, listBenchFaults } from '@/core/fault';
import { type KitState, type Line, type Sheet, sheetWith } from '@/core/kit';
import { boardOf, circuitOf, setupOf, tracksOf } from '@/core/stage';
import { investigationOf, kitOf, log } from '../support/kits';
import { referenceOp } from '../support/simulator';

const line = (ref: string, ohms: number): Line => ({ id: ref, refs: [ref], kind: 'resistor', value: ohms, tolerance: [-0.01, 0.01], label: ref, quantity: 1 });
// Net p runs from R1 and R2 on the left to R3 and R4 on the right, with its test point on the left.
const DECK = `A long track
V1 vcc 0 9
R1 vcc p 1k
R2 p 0 4.7k
R3 p q 2.2k
R4 p r 3.3k
R5 q 0 1.5k
R6 r 0 6.8k
.end`;
const LINES = [line('R1', 1000), line('R2', 4700), line('R3', 2200), line('R4', 3300), line('R5', 1500), line('R6', 6800)];
const at = (ref: string, x: number, y: number) => ({ ref, x, y, rotation: 0 });
const PLACES = [at('R1', 0, 0), at('R2', 0, 5), at('R3', 60, 0), at('R4', 60, 5), at('R5', 90, 0), at('R6', 90, 10)];
const NETS = ['vcc', 'p', 'q', 'r'];
const sheet = (over: Partial<Sheet> = {}) =>
  sheetWith({
    title: 'a long track',
    lines: LINES,
    circuit: { deck: DECK, neighbours: [] },
    placement: PLACES,
    testPoints: [{ id: 'TP1', net: 'p', where: 'beside R1', x: 5, y: 0 }],
    stages: [
      {
        id: 'on',
        title: 'On',
        kind: 'power',
        fits: LINES.map((l) => l.id),
        supplies: [{ source: 'V1', volts: 9, limit: 0.2 }],
        checks: NETS.map((net) => ({ id: net, what: 'measure', title: net, mode: 'dcv', red: { net }, black: { net: '0' } })),
      },
    ],
    ...over,
  });
const tracks = (s: Sheet) => tracksOf(s, circuitOf(s));
const BROKEN: Fault = { kind: 'track', parts: [], detail: { net: 'p', beyond: ['R3', 'R4'] } };

test('the long track of p may break on either side of its test point, the longest way first; what would cut one part off is its joint', () => {
  expect(tracks(sheet()).map(({ net, beyond }) => [net, beyond])).toEqual([
    ['p', ['R3', 'R4']],
    ['p', ['R1', 'R2']],
  ]);
  // Ground has three parts: one of two sides would be a single one.
  expect(tracks(sheet()).map((t) => t.net)).not.toContain('0');
});
test('the side with the test point keeps the net’s name', () => {
  const right = sheet({ testPoints: [{ id: 'TP1', net: 'p', where: 'beside R4', x: 65, y: 5 }] });
  expect(tracks(right).map((t) => t.beyond)).toEqual([['R1', 'R2']]);
});
test('a pad that a file tells counts with its own place; without places there are no tracks', () => {
  const near = sheet({ pads: ['R3', 'R4'].map((ref) => ({ ref, pin: '1', x: 1, y: ref === 'R3' ? 1 : 6, net: 'p' })) });
  expect(tracks(near).length).toBeGreaterThan(0);
  expect(tracks(sheet({ placement: [] }))).toEqual([]);
});
test('each break leaves two parts or more on both sides, and names every end beyond it (property)', () => {
  fc.assert(
    fc.property(fc.array(fc.tuple(fc.integer({ min: 0, max: 100 }), fc.integer({ min: 0, max: 100 })), { minLength: 6, maxLength: 6 }), (places) => {
      const s = sheet({ placement: places.map(([x, y], i) => at(`R${i + 1}`, x, y)), testPoints: [] });
      const { parts } = circuitOf(s);
      for (const { net, beyond, ends } of tracks(s)) {
        const on = parts.filter((p) => p.kind === 'R' && p.nodes.includes(net)).map((p) => p.name);
        expect(beyond.length).toBeGreaterThanOrEqual(2);
        expect(on.length - beyond.length).toBeGreaterThanOrEqual(2);
        expect(ends.map((e) => e.element).sort()).toEqual([...beyond]);
        for (const e of ends) expect(parts.find((p) => p.name === e.element)!.nodes[e.node]).toBe(net);
      }
    }),
  );
});

describe('on a board', () => {
  const kit = () => kitOf(sheet());
  const board = () => {
    const setup = setupOf(kit());
    return { ...boardOf(setup, circuitOf(setup.sheet)), tracks: tracks(sheet()) };
  };
  const suspected = (fault: Fault, k: KitState = kit()) => {
    const { nodes } = operatingPoint(applyFault(circuitOf(k.sheet), board(), fault).circuit);
    const read = log(k, ...NETS.map((net) => ({ kind: 'read', stage: 'on', check: net, reading: nodes[net]!, meter: 'handheld' }) as const));
    const investigation = investigationOf(read)!;
    return findSuspects(investigation, diagnoserOf(investigation)).suspects.map((s) => ({ key: s.faults.map(faultKey).join(), probability: s.probability }));
  };

  test('the general-purpose simulator has the same volts', async () => {
    const { circuit } = applyFault(circuitOf(sheet()), board(), BROKEN);
    const { nodes } = operatingPoint(circuit);
    const theirs = await referenceOp(
      writeDeck(circuit),
      Object.keys(nodes).map((n) => n.replace(/\W/g, '_')),
    );
    // By Ohm's law: R1 over R2 alone, nothing beyond the break.
    expect(nodes['p']).toBeCloseTo((9 * 4.7) / 5.7, 3);
    expect(theirs.get('v(p)') ?? theirs.get('p')).toBeCloseTo(nodes['p']!, 3);
    expect(Math.abs(nodes['q']!)).toBeLessThan(1e-3);
  }, 60_000);
  test('the broken one stands first where it is broken, and says where to look', () => {
    const [first] = suspected(BROKEN);
    expect(first!.key).toBe(faultKey(BROKEN));
    expect(describeFault(BROKEN)).toMatchObject({
      title: 'Broken track at p, before R3, R4',
      remedy: expect.stringContaining('Measure ohms from R3') as string,
    });
  });
  test('of many parts beyond a break three are named', () => {
    const many: Fault = { kind: 'track', parts: [], detail: { net: '0', beyond: ['C1', 'C2', 'R1', 'R2', 'U1'] } };
    expect(describeFault(many).title).toBe('Broken track at ground, before C1, C2, R1 and 2 more');
  });
  test('on a healthy board, with a joint open, and on a kit without a map it does not', () => {
    for (const fault of [
      { kind: 'healthy', parts: [], detail: {} },
      { kind: 'open', parts: ['R3'], detail: {} },
    ] as const) {
      const own = suspected(fault).find((s) => s.key === faultKey(BROKEN));
      expect(own?.probability ?? 0).toBeLessThan(0.05);
    }
    expect(suspected(BROKEN, kitOf(sheet({ placement: [] }))).map((s) => s.key)).not.toContain(faultKey(BROKEN));
  });
  test('on a board that runs it is not thought of: a run for each crack would cost more than it tells', () => {
    const of = (s: Sheet) => listBenchFaults(circuitOf(s), board()).filter((f) => f.kind === 'track');
    expect(of(sheet())).toHaveLength(2);
    expect(of(sheet({ circuit: { deck: DECK.replace('V1 vcc 0 9', 'V1 vcc 0 SIN(0 9 50)'), neighbours: [] } }))).toEqual([]);
  });
});
