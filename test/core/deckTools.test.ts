/** Tools on decks: the table of connections, edits in place, neighbours, writing a deck that reads back the same. */
import fc from 'fast-check';
import { connectionsOf, editConnection, removeConnection } from '@/core/circuit/deck/connections';
import { readDeck } from '@/core/circuit/deck/read';
import { writeDeck } from '@/core/circuit/deck/write';
import { addParts, ownerOf, removeParts, replacePart, setValues, withValue } from '@/core/circuit/edit';
import { currentThrough } from '@/core/circuit/current';
import { neighbourhood } from '@/core/circuit/neighbourhood';
import { type Circuit, findNet, findPart, GROUND, hasElement, netsOf } from '@/core/circuit/netlist';
import { operatingPoint } from '@/core/circuit/operatingPoint';

const DECK = `Small board
V1 vcc 0 9
R1 vcc a 10k
* a remark that stays
R2 a 0
+ 22k
Q1 c a e NS
R3 vcc c 2.2k
R4 e 0 1k
XU1 a c vcc 0 o AMP gain=3
.model NS NPN(IS=1E-14 BF=200)
.subckt AMP p n vp vn out gain=2
Rin p n 1MEG
E1 x 0 p n {gain}
Ro x out 100
.ends
.end`;

describe('the table of connections', () => {
  const rows = connectionsOf(DECK);
  test('one row for each part of the top level, a chip as one', () => {
    expect(rows.map((r) => r.name)).toEqual(['V1', 'R1', 'R2', 'Q1', 'R3', 'R4', 'XU1']);
  });
  test('pins by the names of the kind, a chip’s by its own', () => {
    expect(rows.find((r) => r.name === 'Q1')!.pins).toEqual([
      { pin: 'C', net: 'c' },
      { pin: 'B', net: 'a' },
      { pin: 'E', net: 'e' },
    ]);
    expect(rows.find((r) => r.name === 'XU1')!.pins.map((p) => p.pin)).toEqual(['p', 'n', 'vp', 'vn', 'out']);
  });
  test('what stands behind the pins, and the line it stands on', () => {
    expect(rows.find((r) => r.name === 'R2')).toMatchObject({ rest: '22k', line: 5 });
    expect(rows.find((r) => r.name === 'XU1')!.rest).toBe('AMP gain=3');
  });
});

describe('edits in place', () => {
  test('a pin moved: that card alone is written anew', () => {
    const edited = editConnection(DECK, 'r3', { pin: 1, net: 'o' });
    expect(edited).toContain('R3 vcc o 2.2k');
    expect(edited.replace('R3 vcc o 2.2k', 'R3 vcc c 2.2k')).toBe(DECK);
  });
  test('a value changed on a card with a continuation: the continuation goes, remarks stay', () => {
    const edited = editConnection(DECK, 'R2', { rest: '47k' });
    expect(edited).toContain('R2 a 0 47k');
    expect(edited).not.toContain('+ 22k');
    expect(edited).toContain('* a remark that stays');
    expect(findPart(readDeck(edited).circuit, 'R2')).toMatchObject({ value: 47_000 });
  });
  test('a part taken out', () => {
    const edited = removeConnection(DECK, 'R2');
    expect(findPart(readDeck(edited).circuit, 'R2')).toBeUndefined();
    expect(readDeck(edited).diagnostics).toEqual([]);
  });
  test('what is not there changes nothing', () => {
    expect(editConnection(DECK, 'R99', { rest: '1' })).toBe(DECK);
    expect(removeConnection(DECK, 'R99')).toBe(DECK);
  });
  test('law: writing every row as it is changes no voltage', () => {
    const again = connectionsOf(DECK).reduce((d, c) => editConnection(d, c.name, {}), DECK);
    const [before, after] = [DECK, again].map((d) => operatingPoint(readDeck(d).circuit).nodes);
    for (const [net, v] of Object.entries(before!)) expect(after![net]).toBeCloseTo(v, 9);
  });
});

describe('circuits as values', () => {
  const { circuit } = readDeck(DECK);
  test('owners, nets and parts in any case', () => {
    expect(ownerOf('XU1.E1')).toBe('XU1');
    expect(ownerOf('R1')).toBe('R1');
    expect(findNet(circuit, 'VCC')).toBe('vcc');
    expect(findNet(circuit, 'gnd')).toBe(GROUND);
    expect(findNet(circuit, 'nowhere')).toBeUndefined();
    expect(hasElement(circuit, 'xu1')).toBe(true);
    expect(hasElement(circuit, 'XU2')).toBe(false);
    expect(netsOf(circuit)).toEqual(expect.arrayContaining(['0', 'vcc', 'a', 'c', 'e', 'o']));
  });
  test('taking out a chip takes out all that is in it; a name that begins alike stays', () => {
    const more = addParts(circuit, [{ name: 'XU10.R1', kind: 'R', nodes: ['a', '0'], value: 1 }]);
    const left = removeParts(more, ['xu1']).parts.map((p) => p.name);
    expect(left.some((n) => n.startsWith('XU1.'))).toBe(false);
    expect(left).toContain('XU10.R1');
  });
  test('replacing keeps the order; an unknown name changes nothing', () => {
    const other = replacePart(circuit, 'R3', [{ name: 'R3', kind: 'R', nodes: ['vcc', 'c'], value: 1 }]);
    expect(other.parts.map((p) => p.name)).toEqual(circuit.parts.map((p) => p.name));
    expect(replacePart(circuit, 'R99', [])).toBe(circuit);
  });
  test('values of every kind that has one', () => {
    const set = setValues(circuit, { r1: 5, V1: 3 });
    expect(findPart(set, 'R1')).toMatchObject({ value: 5 });
    expect(findPart(set, 'V1')).toMatchObject({ dc: 3 });
    expect(withValue(findPart(circuit, 'R1')!, 0)).toMatchObject({ value: 1e-3 });
    expect(() => setValues(circuit, { R99: 1 })).toThrow(/no part is called R99/);
    expect(() => withValue(findPart(circuit, 'Q1')!, 1)).toThrow(/Q1 has a model/);
    expect(() => withValue(findPart(circuit, 'R1')!, NaN)).toThrow(/R1 needs a number/);
    expect(() => withValue({ name: 'C1', kind: 'C', nodes: ['a', '0'], value: 1 }, -1)).toThrow(/C1 cannot be -1/);
  });
  test('current through a part (Ohm): into its first pin', () => {
    const { nodes } = operatingPoint(circuit);
    expect(currentThrough(circuit, 'R4')).toBeCloseTo(nodes['e']! / 1000, 9);
    expect(currentThrough(circuit, 'Q1')).toBeCloseTo((9 - nodes['c']!) / 2200, 5);
    expect(currentThrough(circuit, 'R99')).toBe(0);
  });
});

describe('neighbours', () => {
  const { circuit } = readDeck(DECK);
  test('parts that meet at a net, and the nets one step further, ground last', () => {
    const around = neighbourhood(circuit, 'c');
    expect(around.parts.map((p) => p.name)).toEqual(['Q1', 'R3', 'XU1']);
    expect(around.nets).toEqual(expect.arrayContaining(['c', 'a', 'e', 'vcc']));
    expect(around.nets[around.nets.length - 1]).toBe(GROUND);
  });
  test('a part at the centre shows itself alone', () => {
    expect(neighbourhood(circuit, 'r3').parts.map((p) => [p.name, p.label])).toEqual([['R3', '2.2k']]);
  });
  test('a chip is one part, without the nets inside it', () => {
    const chip = neighbourhood(circuit, 'o').parts.find((p) => p.name === 'XU1')!;
    expect(chip.label).toBe('chip');
    expect(chip.pins.map((p) => p.net).some((n) => n.includes('.'))).toBe(false);
  });
});

/** Random resistor networks with a supply, some diodes and transistors: every net has a path to ground. */
const network = fc
  .record({
    nets: fc.integer({ min: 2, max: 6 }),
    resistors: fc.array(fc.tuple(fc.nat(20), fc.nat(20), fc.integer({ min: 1, max: 1_000_000 })), { minLength: 1, maxLength: 10 }),
    diodes: fc.array(fc.tuple(fc.nat(20), fc.nat(20)), { maxLength: 3 }),
    transistors: fc.array(fc.tuple(fc.nat(20), fc.nat(20), fc.nat(20)), { maxLength: 2 }),
    volts: fc.integer({ min: -20, max: 20 }),
  })
  .map(({ nets, resistors, diodes, transistors, volts }) => {
    const net = (i: number) => (i % (nets + 1) === 0 ? '0' : `n${i % (nets + 1)}`);
    return [
      'random',
      `V1 n1 0 ${volts}`,
      ...Array.from({ length: nets }, (_, i) => `RG${i} n${i + 1} 0 100k`),
      ...resistors.map(([a, b, ohms], i) => `R${i} ${net(a)} ${net(b)} ${ohms}`),
      ...diodes.map(([a, b], i) => `D${i} ${net(a)} ${net(b)} DX`),
      ...transistors.map(([a, b, c], i) => `Q${i} ${net(a)} ${net(b)} ${net(c)} QX`),
      '.model DX D(IS=1E-12 N=1.5 RS=1)',
      '.model QX NPN(IS=1E-14 BF=100 RB=10 RC=1 RE=1)',
    ].join('\n');
  });
const solved = (c: Circuit) => operatingPoint(c).nodes;

describe('laws of written decks', () => {
  test('a deck that was written reads back to the same voltages', () => {
    fc.assert(
      fc.property(network, (deck) => {
        const { circuit } = readDeck(deck);
        const back = readDeck(writeDeck(circuit));
        expect(back.diagnostics).toEqual([]);
        const [a, b] = [solved(circuit), solved(back.circuit)];
        for (const [net, v] of Object.entries(a)) expect(Math.abs(b[net]! - v)).toBeLessThan(1e-6 + 1e-6 * Math.abs(v));
      }),
      { numRuns: 60 },
    );
  });
  test('written twice it is the same text', () => {
    fc.assert(
      fc.property(network, (deck) => {
        const once = writeDeck(readDeck(deck).circuit);
        expect(writeDeck(readDeck(once).circuit)).toBe(once);
      }),
      { numRuns: 60 },
    );
  });
  test('the order of the parts changes no voltage', () => {
    fc.assert(
      fc.property(network, (deck) => {
        const { circuit } = readDeck(deck);
        const [a, b] = [solved(circuit), solved({ ...circuit, parts: [...circuit.parts].reverse() })];
        for (const [net, v] of Object.entries(a)) expect(Math.abs(b[net]! - v)).toBeLessThan(1e-5 + 1e-5 * Math.abs(v));
      }),
      { numRuns: 60 },
    );
  });
  test('a resistor in parallel with itself is one of half its value; a link of nothing joins two nets', () => {
    const two = solved(readDeck('t\nV1 a 0 5\nR1 a b 2k\nR2 a b 2k\nR3 b 0 1k').circuit);
    const one = solved(readDeck('t\nV1 a 0 5\nR1 a b 1k\nR3 b 0 1k').circuit);
    expect(two['b']).toBeCloseTo(one['b']!, 9);
    const joined = solved(readDeck('t\nV1 a 0 5\nR1 a b 1k\nR2 b c 0\nR3 c 0 1k').circuit);
    expect(joined['b']).toBeCloseTo(joined['c']!, 5);
  });
  test('superposition on linear networks: two sources together are the sum of each alone', () => {
    fc.assert(
      fc.property(fc.integer({ min: -15, max: 15 }), fc.integer({ min: -15, max: 15 }), fc.integer({ min: 10, max: 1e5 }), (u1, u2, ohms) => {
        const at = (a: number, b: number) =>
          solved(readDeck(`t\nV1 p 0 ${a}\nV2 q 0 ${b}\nR1 p m ${ohms}\nR2 q m 4.7k\nR3 m 0 2.2k\nR4 m n 1k\nR5 n 0 10k`).circuit)['n']!;
        expect(at(u1, u2)).toBeCloseTo(at(u1, 0) + at(0, u2), 6);
      }),
    );
  });
  test('reciprocity (Lorentz): the current at B from a source at A is the current at A from that source at B', () => {
    const net = 'R1 a m 1.5k\nR2 m 0 3.3k\nR3 m b 680\nR4 a b 10k';
    const ab = operatingPoint(readDeck(`t\nV1 a 0 7\nV2 b 0 0\n${net}`).circuit).branches['V2']!;
    const ba = operatingPoint(readDeck(`t\nV1 a 0 0\nV2 b 0 7\n${net}`).circuit).branches['V1']!;
    expect(ab).toBeCloseTo(ba, 9);
  });
});
