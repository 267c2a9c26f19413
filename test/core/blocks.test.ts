/** Building blocks against the formulas that they stand for; editing, writing and drawing of decks. */
import fc from 'fast-check';
import { type Block, BLOCKS, insertBlock, thermistorOhms } from '@/core/circuit/blocks';
import { connectionsOf, editConnection, removeConnection } from '@/core/circuit/deck/connections';
import { readDeck } from '@/core/circuit/deck/read';
import { writeDeck } from '@/core/circuit/deck/write';
import { neighbourhood } from '@/core/circuit/neighbourhood';
import { operatingPoint } from '@/core/circuit/operatingPoint';
import { combinations, ConsequenceSolver, substitutes } from '@/core/consequence';
import { checkPlaces } from '@/core/stage/placesCheck';
import { DEMOS } from '@/stand-in';
import { CIRCUITS } from '../support/circuits';
import { referenceOp } from '../support/simulator';
import { setupOf, windowsOfKit } from '../support/kits';

const block = (id: string): Block => BLOCKS.find((b) => b.id === id)!;
const initial = (b: Block) => Object.fromEntries(b.fields.map((f) => [f.key, f.initial]));
const deckOf = (id: string, around: string, values: Record<string, string | number> = {}) =>
  insertBlock(`t\n${around}`, block(id).build({ ...initial(block(id)), ...values }));
const solve = (deck: string) => {
  const { circuit, diagnostics } = readDeck(deck);
  expect(diagnostics).toEqual([]);
  return operatingPoint(circuit);
};

/** A running circuit's operating point at rest says nothing. */
const RUNNING = new Set(['flasher', 'rc-oscillator', 'timer', 'rectifier']);

describe('every block, as it is proposed, is a deck that is read without a remark and solved', () => {
  const around =
    'V9 vcc 0 12\nV8 in 0 5\nV7 raw 0 18\nV6 v5 0 5\nV5 in1 0 5\nV4 in2 0 5\nV3 vz 0 3\nV2 half 0 6\nR9 out 0 10k\nRA a 0 10k\nRB vout 0 1k\nV1X ref 0 6';
  const own: Readonly<Record<string, string>> = {
    'guarded-supply': 'R9 vcc 0 1k',
    battery: 'R9 vcc 0 100',
    rectifier: 'R9 raw 0 1k',
    'fixed-regulator': 'V7 raw 0 18\nR9 v5 0 100',
  };
  test.each(BLOCKS.map((b) => [b.id, b] as const))('%s', (id, b) => {
    const { nodes } = solve(insertBlock(`t\n${own[id] ?? around}`, b.build(initial(b))));
    expect(Object.values(nodes).every(Number.isFinite)).toBe(true);
  });

  test.each(BLOCKS.filter((b) => !RUNNING.has(b.id)).map((b) => [b.id, b] as const))(
    '%s agrees with the reference simulator: 1 mV or 0.1 %',
    async (id, b) => {
      const deck = insertBlock(`t\n${own[id] ?? around}`, b.build(initial(b)));
      const { circuit } = readDeck(deck);
      const reference = await referenceOp(writeDeck(circuit));
      let compared = 0;
      for (const [net, volts] of Object.entries(operatingPoint(circuit).nodes)) {
        const wanted = reference.get(net.toLowerCase()) ?? reference.get(`v(${net.toLowerCase()})`);
        if (net.includes('.') || wanted === undefined) continue;
        compared++;
        expect(Math.abs(volts - wanted)).toBeLessThan(Math.max(1e-3, 1e-3 * Math.abs(wanted)));
      }
      expect(compared).toBeGreaterThan(0);
    },
    60_000,
  );
});

describe('blocks do what their formula says', () => {
  test('adjustable regulator: 1.25 (1 + R2/R1) + Iadj R2 (data sheet, from memory)', () => {
    fc.assert(
      fc.property(fc.integer({ min: 240, max: 3000 }), (r2) => {
        const { nodes } = solve(deckOf('adjustable-regulator', 'V9 raw 0 30\nR9 vout 0 470', { ohms2: r2 }));
        expect(nodes['vout']! / (1.25 * (1 + r2 / 240) + 50e-6 * r2)).toBeCloseTo(1, 2);
      }),
      { numRuns: 20 },
    );
  });
  test('unloaded, it drifts up: 10 k in place of 240 ohm does not draw its least load', () => {
    const values = { ohms1: 10_000, ohms2: 62_500 };
    const bare = solve(deckOf('adjustable-regulator', 'V9 raw 0 30', values)).nodes['vout']!;
    const loaded = solve(deckOf('adjustable-regulator', 'V9 raw 0 30\nR9 vout 0 470', values)).nodes['vout']!;
    expect(bare).toBeGreaterThan(loaded + 3);
  });
  test('fixed regulator: its nominal, or the input less its drop-out; never more than its limit', () => {
    expect(solve(deckOf('fixed-regulator', 'V7 raw 0 12\nR9 v5 0 100')).nodes['v5']).toBeCloseTo(5, 1);
    expect(solve(deckOf('fixed-regulator', 'V7 raw 0 6\nR9 v5 0 100')).nodes['v5']).toBeCloseTo(4, 1);
    expect(solve(deckOf('fixed-regulator', 'V7 raw 0 12\nR9 v5 0 1')).nodes['v5']).toBeCloseTo(1.5, 1);
  });
  test('shunt reference: 2.495 (1 + R1/R2); half supply; divider; thermistor at 25 °C', () => {
    expect(solve(deckOf('shunt-reference', 'V9 vcc 0 12')).nodes['vref']).toBeCloseTo(4.99, 1);
    expect(solve(deckOf('half-supply', 'V9 vcc 0 9')).nodes['half']).toBeCloseTo(4.5, 4);
    expect(solve(deckOf('divider', 'V9 vcc 0 10', { ohms1: 3000, ohms2: 1000 })).nodes['mid']).toBeCloseTo(2.5, 4);
    expect(thermistorOhms(10_000, 3950, 25)).toBeCloseTo(10_000, 6);
  });
  test('op-amps: follower, −R2/R1 around the reference, 1 + R2/R1', () => {
    expect(solve(deckOf('op-amp-follower', 'V9 vcc 0 12\nV8 in 0 3')).nodes['out']).toBeCloseTo(3, 3);
    expect(solve(deckOf('op-amp-inverting', 'V9 vcc 0 12\nV8 in 0 5.9\nV7 half 0 6')).nodes['out']).toBeCloseTo(7, 2);
    expect(solve(deckOf('op-amp-non-inverting', 'V9 vcc 0 12\nV8 in 0 2')).nodes['out']).toBeCloseTo(4, 2);
  });
  test('LED: about (V − Vf)/R; current sink: about (V − 0.65)/R', () => {
    const { branches } = solve(deckOf('led', 'V9 vcc 0 9', { ohms: 470, colour: 'green' }));
    expect(-branches['V9']!).toBeCloseTo((9 - 2.2) / 470, 3);
    const sink = solve(deckOf('current-sink', 'V9 vcc 0 12\nV8 vz 0 3\nR9 vcc out 100'));
    expect((12 - sink.nodes['out']!) / 100).toBeCloseTo((3 - 0.68) / 470, 3);
  });
  test('a model that the deck has already is not written twice', () => {
    const once = deckOf('led', 'V9 vcc 0 9');
    const twice = insertBlock(once, block('led').build({ ...initial(block('led')), r: 'R2', d: 'LED2' }));
    expect(twice.match(/\.model LEDRED/g)).toHaveLength(1);
    expect(solve(twice).nodes['LED2_a']).toBeCloseTo(solve(twice).nodes['LED1_a']!, 6);
  });
});

describe('decks written back', () => {
  test.each(CIRCUITS)('%s reads back to the same voltages', (_, deck) => {
    const first = readDeck(deck).circuit;
    const again = operatingPoint(readDeck(writeDeck(first)).circuit).nodes;
    for (const [net, volts] of Object.entries(operatingPoint(first).nodes)) expect(again[net]).toBeCloseTo(volts, 6);
  });
  test('the demo, sub-circuit and all, is read by the reference simulator to the same voltages', async () => {
    const { circuit } = readDeck(DEMOS[0]!.kit({ id: 'x', at: '2026-01-01T00:00:00Z' }).sheet.circuit!.deck);
    const reference = await referenceOp(writeDeck(circuit));
    const { nodes } = operatingPoint(circuit);
    for (const net of ['vcc', 'v5', 'ts', 'rf', 'p', 'k'])
      expect(Math.abs(nodes[net]! - (reference.get(net) ?? reference.get(`v(${net})`)!))).toBeLessThan(Math.max(1e-3, 1e-3 * Math.abs(nodes[net]!)));
  }, 60_000);
});

describe('connections as a table', () => {
  const deck = 't\nV1 a 0 9\nR1 a b\n+ 1k\nQ1 c b 0 N\nX1 a 0 c REG v=5\n.model N NPN(BF=100)\n.subckt REG i g o v=3\nR1 i o 1k\n.ends\n.end';
  test('pins, nets and values of every part; chips by the names of their ports', () => {
    expect(connectionsOf(deck).map((c) => [c.name, c.pins.map((p) => `${p.pin}=${p.net}`).join(' '), c.rest])).toEqual([
      ['V1', '+=a -=0', '9'],
      ['R1', '1=a 2=b', '1k'],
      ['Q1', 'C=c B=b E=0', 'N'],
      ['X1', 'i=a g=0 o=c', 'REG v=5'],
    ]);
  });
  test('a changed net or value is written in place; the rest stays as it was', () => {
    const moved = editConnection(deck, 'R1', { pin: 1, net: 'd' });
    expect(moved.split('\n')[2]).toBe('R1 a d 1k');
    expect(moved.split('\n')).toHaveLength(deck.split('\n').length - 1);
    expect(editConnection(deck, 'X1', { rest: 'REG v=12' })).toContain('X1 a 0 c REG v=12');
    expect(removeConnection(deck, 'Q1')).not.toContain('Q1');
    expect(editConnection(deck, 'R99', { rest: '1' })).toBe(deck);
  });
});

test('the neighbourhood of a net: its parts, their other nets, chips as one part', () => {
  const { circuit } = readDeck('t\nV1 a 0 9\nR1 a b 1k\nR2 b 0 2k\nX1 b 0 c OA\nR3 c 0 1k\n.subckt OA i g o\nR1 i o 1k\nR2 i g 1k\n.ends');
  const { parts, nets } = neighbourhood(circuit, 'b');
  expect(parts.map((p) => [p.name, p.label])).toEqual([
    ['R1', '1k'],
    ['R2', '2k'],
    ['X1', 'chip'],
  ]);
  expect(nets).toEqual(['a', 'b', 'c', '0']);
});

describe('list against circuit', () => {
  const kit = DEMOS[0]!.kit({ id: 'x', at: '2026-01-01T00:00:00Z' });
  const { circuit } = readDeck(kit.sheet.circuit!.deck);
  test('the demo meets itself', () => {
    expect(checkPlaces(kit.sheet, circuit).filter((f) => f.severity === 'warning')).toEqual([]);
  });
  test('another value, a part without a place, an open pin', () => {
    const lines = kit.sheet.lines.map((l) => (l.id === 'r-3k3' ? { ...l, value: 33_000 } : l));
    const texts = checkPlaces(
      { ...kit.sheet, lines: [...lines, { ...lines[0]!, id: 'new', refs: ['R77'] }] },
      { ...circuit, parts: [...circuit.parts, { name: 'R88', kind: 'R', nodes: ['vcc', 'lonely'], value: 1 }] },
    ).map((f) => f.text);
    expect(texts).toEqual(
      expect.arrayContaining([
        expect.stringMatching(/^R5: the list says 33 kΩ, the circuit 3.3 kΩ/),
        expect.stringMatching(/^R77 .* not in the circuit/),
        expect.stringMatching(/^R88 is in the circuit but/),
        expect.stringMatching(/^Net lonely: only R88/),
      ]),
    );
  });
});

describe('substitutes', () => {
  test('combinations: series adds, parallel is product over sum, the nearest first', () => {
    const found = combinations([{ value: 2200 }, { value: 1100 }, { value: 10_000 }], 3300);
    expect(found[0]).toMatchObject({ how: 'series', value: 3300 });
    expect(found.every((c) => Math.abs(Math.log(c.value / 3300)) < Math.log(1.6))).toBe(true);
  });
  test('2.2 k + 1.1 k does for the missing 3.3 k; 4.7 k does not; a spare that gets too hot is refused', () => {
    const kit = DEMOS[0]!.kit({ id: 'x', at: '2026-01-01T00:00:00Z' });
    const windows = windowsOfKit(kit);
    const solver = new ConsequenceSolver(setupOf(kit));
    const [best, ...others] = substitutes(solver, 'R5', [{ value: 2200 }, { value: 1100 }, { value: 4700 }], windows);
    expect(best).toMatchObject({ how: 'series', value: 3300, usable: true });
    expect(others.find((s) => s.how === 'single' && s.value === 4700)!.usable).toBe(false);
    const hot = substitutes(solver, 'R1', [{ value: 1500, watts: 0.02 }], windows);
    expect(hot[0]!.usable).toBe(false);
  });
});
