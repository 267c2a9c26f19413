/** A drawing walked pin by pin gives the circuit that was drawn, whatever the order and the words of the answers. */
import * as fc from 'fast-check';
import { connectionsOf, findPart, operatingPoint, readDeck } from '@/core/circuit';
import { answerPin, isLoose, nextPin, suppliesIn, walkFindings, walkOf, type WalkPart, type WalkPin, type WalkSupply } from '@/core/draft';
import type { Line } from '@/core/kit';
import { controlOf, elementsOf, netAtPin, sharedNames, withPinCut } from '@/core/stage/elements';

const line = (ref: string, kind: Line['kind'], value: number | null, more: Partial<Line> = {}): Line => ({
  id: ref,
  refs: [ref],
  kind,
  value,
  tolerance: null,
  label: ref,
  quantity: 1,
  ...more,
});
const SUPPLY: WalkSupply = { ref: 'V1', volts: 9, kind: 'dc' };

/** One answer; throws what the walk says against it. */
function answer(deck: string, lines: readonly Line[], pin: string, text: string, how: 'move' | 'join' | null = null, supplies = [SUPPLY]): string {
  const parts = walkOf(lines, deck, supplies);
  const [ref, name] = pin.split('.');
  const from = parts.find((p) => p.ref === ref)!.pins.find((p) => p.name === name)!;
  const got = answerPin(deck, parts, from, text, how);
  if (got.ok === true) return got.deck;
  throw new Error(got.ok === 'two' ? `two nets: ${got.nets.join(', ')}` : got.why);
}
const walk = (lines: readonly Line[], steps: readonly (readonly [string, string])[], supplies = [SUPPLY]) =>
  steps.reduce((deck, [pin, text]) => answer(deck, lines, pin, text, null, supplies), '');

const LED = [line('R1', 'resistor', 680), line('D1', 'led', null, { colour: 'red' })];

test('an LED behind a resistor, walked in four answers, carries its current', () => {
  const deck = walk(LED, [
    ['V1.+', 'R1.1'],
    ['V1.-', 'ground'],
    ['R1.2', 'D1.A'],
    ['D1.K', 'gnd'],
  ]);
  const parts = walkOf(LED, deck, [SUPPLY]);
  expect(nextPin(parts)).toBeNull();
  expect(walkFindings(parts)).toEqual([]);
  const { circuit, diagnostics } = readDeck(deck);
  expect(diagnostics).toEqual([]);
  const { nodes } = operatingPoint(circuit);
  // A red LED drops about 1.9 V (common practice, no source): 9 V less that over 680 ohm.
  const drop = nodes[findPart(circuit, 'D1')!.nodes[0]!]!;
  expect(drop).toBeGreaterThan(1.7);
  expect(drop).toBeLessThan(2.1);
});

describe('what is answered wrongly is answered where it stands, and nothing is lost', () => {
  const begun = walk(LED, [['V1.+', 'R1.1']]);
  test.each([
    ['R1.2', '', 'Type where it goes'],
    ['R1.2', 'R1.2', 'this pin itself'],
    ['R1.2', 'V1', 'which one'],
    ['R1.2', 'D1.9', 'which one'],
    ['R1.2', 'what? ever', 'no part of the list'],
    ['R1.2', 'todo_x', 'kept for pins'],
  ])('%s to “%s”', (pin, text, says) => {
    expect(() => answer(begun, LED, pin, text)).toThrow(says);
  });
  test('a pin that goes to two nets: it is asked whether it moves or both are one', () => {
    const named = answer(answer(begun, LED, 'R1.2', 'led'), LED, 'D1.A', 'anode');
    expect(() => answer(named, LED, 'D1.A', 'led')).toThrow('two nets: anode, led');
    const joined = walkOf(LED, answer(named, LED, 'D1.A', 'led', 'join'), [SUPPLY]);
    expect(joined.flatMap((p) => p.pins).filter((p) => p.net === 'led')).toHaveLength(2);
    const third = answer(named, LED, 'D1.K', 'anode');
    const moved = walkOf(LED, answer(third, LED, 'D1.A', 'led', 'move'), [SUPPLY]);
    expect(
      moved
        .flatMap((p) => p.pins)
        .filter((p) => p.net === 'anode')
        .map((p) => `${p.ref}.${p.name}`),
    ).toEqual(['D1.K']);
  });
  test('left half way: the deck can be read, open ends are loose nets, and the walk goes on at the next pin', () => {
    const { diagnostics } = readDeck(begun);
    expect(diagnostics.filter((d) => d.severity === 'error')).toEqual([]);
    expect(
      connectionsOf(begun)
        .flatMap((c) => c.pins.map((p) => p.net))
        .filter(isLoose).length,
    ).toBe(2);
    expect(suppliesIn(begun)).toEqual([SUPPLY]);
    expect(nextPin(walkOf(LED, begun, suppliesIn(begun)))).toMatchObject({ ref: 'V1', name: '-' });
  });
});

describe('what does not close is said', () => {
  test('one end, nowhere, both ends on one net, no ground', () => {
    const deck = walk(LED, [
      ['V1.+', 'vcc'],
      ['R1.1', 'x'],
      ['R1.2', 'x'],
      ['D1.A', 'nowhere'],
    ]);
    const said = walkFindings(walkOf(LED, deck, [SUPPLY])).join(' ');
    for (const words of ['Nothing goes to ground', 'net vcc has one end', 'R1 has both ends', 'D1.A goes nowhere']) expect(said).toContain(words);
  });
  test('a chip without a model says so, its pins are kept; one without supply too', () => {
    const lines = [line('U1', 'ic', null, { label: 'melody chip', package: 'DIP-4' }), line('U2', 'opamp', null, { label: 'amp' })];
    const deck = walk(lines, [
      ['U1.1', 'vcc'],
      ['U1.2', 'out'],
      ['U1.3', 'ground'],
      ['U1.4', 'nowhere'],
      ['U2.V+', 'nowhere'],
    ]);
    expect(readDeck(deck).diagnostics.filter((d) => d.severity === 'error')).toEqual([]);
    const parts = walkOf(lines, deck, [SUPPLY]);
    expect(parts[1]!.pins.map((p) => p.state)).toEqual(['net', 'net', 'net', 'nowhere']);
    const said = walkFindings(parts).join(' ');
    expect(said).toContain('U1 (melody chip) has no model');
    expect(said).toContain('U2 has no supply: V+ goes nowhere');
  });
});

describe('networks, crystals and connectors have their pins too', () => {
  const lines = [
    line('RN1', 'network', 4700, { package: 'SIL-4' }),
    line('RN2', 'network', 1000, { package: 'SIL-4', label: '2 x 1k isolated' }),
    line('Y1', 'crystal', 4e6),
    line('J1', 'connector', null, { label: 'header 3 pins' }),
  ];
  const deck = walk(lines, [
    ['J1.1', 'vcc'],
    ['J1.2', 'sig'],
    ['J1.3', 'ground'],
    ['RN1.1', 'vcc'],
    ['RN1.2', 'a'],
    ['RN1.3', 'b'],
    ['RN1.4', 'sig'],
    ['RN2.1', 'a'],
    ['RN2.2', 'ground'],
    ['RN2.3', 'b'],
    ['RN2.4', 'ground'],
    ['Y1.1', 'a'],
    ['Y1.2', 'b'],
    ['V1.+', 'vcc'],
    ['V1.-', 'ground'],
  ]);
  test('a row from its first pin, or in pairs where the list says isolated; solved as drawn', () => {
    const { circuit, diagnostics } = readDeck(deck);
    expect(diagnostics.filter((d) => d.severity === 'error')).toEqual([]);
    const { nodes } = operatingPoint(circuit);
    // 4.7 k from 9 V into 1 k (divider); the crystal carries nothing at rest, the signal pin is held at the rail.
    expect(nodes['a']).toBeCloseTo(9 / 5.7, 4);
    expect(nodes['b']).toBeCloseTo(9 / 5.7, 4);
    expect(nodes['sig']).toBeCloseTo(9, 3);
  });
  test('the walk goes on where it was left, and nobody is told that a plug has no model', () => {
    const parts = walkOf(lines, deck, [SUPPLY]);
    expect(nextPin(parts)).toBeNull();
    expect(walkFindings(parts).join(' ')).not.toContain('no model');
    expect(nextPin(walkOf([...lines, line('RN3', 'network', 1e4, { package: 'SIL-3' })], deck, [SUPPLY]))).toMatchObject({ ref: 'RN3', name: '1' });
  });
  test('each is one part of the list for the rest of the program', () => {
    const { circuit } = readDeck(deck);
    const sheet = { circuit: { deck, neighbours: [] } };
    expect(elementsOf(sheet, circuit, 'RN1')).toHaveLength(3);
    expect(elementsOf(sheet, circuit, 'RN2')).toHaveLength(2);
    // Its pins are read and cut like those of any part; two sections that do not meet are no control.
    expect(['1', '2', '3', '4', '5'].map((pin) => netAtPin(sheet, circuit, 'RN1', pin))).toEqual(['vcc', 'a', 'b', 'sig', null]);
    expect(['1', '2', '3', '4'].map((pin) => netAtPin(sheet, circuit, 'RN2', pin))).toEqual(['a', '0', 'b', '0']);
    expect(controlOf(sheet, circuit, 'RN2')).toBeNull();
    const volts = (pin: string) => operatingPoint(withPinCut(sheet, circuit, 'RN1', pin)).nodes['a'];
    expect(volts('2')).toBeCloseTo(0, 6);
    expect(volts('3')).toBeCloseTo(9 / 5.7, 4);
    expect(volts('1')).toBeLessThan(0.01);
  });
  test('and may be called otherwise by the deck, all its elements by one name', () => {
    const { circuit } = readDeck('t\nV1 vcc 0 9\nRNB1a vcc a 1k\nRNB1b vcc b 1k\nRNB1c vcc 0 1k\nRPOTa vcc w 4k\nRPOTb w 0 6k\nR1 a 0 1k\nR2 b 0 1k');
    const sheet = { circuit: { deck: '', neighbours: [], elements: { RN7: 'RNB1', RV1: 'RPOT' } } };
    expect(sharedNames(circuit)).toEqual([
      { name: 'RNB1', elements: ['RNB1a', 'RNB1b', 'RNB1c'] },
      { name: 'RPOT', elements: ['RPOTa', 'RPOTb'] },
    ]);
    expect(elementsOf(sheet, circuit, 'RN7')).toEqual(['RNB1a', 'RNB1b', 'RNB1c']);
    expect(elementsOf({ circuit: { deck: '', neighbours: [] } }, circuit, 'RN7')).toEqual([]);
    expect(netAtPin(sheet, circuit, 'RN7', '3')).toBe('b');
    expect(controlOf(sheet, circuit, 'RV1')?.at(0.25)).toEqual([
      ['RPOTa', 7500],
      ['RPOTb', 2500],
    ]);
  });
});

test('a regulator behind a winding, and a dual op-amp, come with the models of their kind', () => {
  const lines = [line('U1', 'regulator', null, { label: '7805', type: '7805' }), line('U2', 'opamp', null, { label: 'LM358', type: 'LM358' })];
  const winding: WalkSupply = { ref: 'V1', volts: 9, kind: 'winding' };
  const deck = walk(
    lines,
    [
      ['U1.in', 'raw'],
      ['U1.ground', '0'],
      ['U1.out', 'v5'],
      ['V1.one end', 'raw'],
      ['V1.other end', '0'],
      ['U2.V+', 'v5'],
      ['U2.V−', '0'],
    ],
    [winding],
  );
  const { circuit, diagnostics } = readDeck(deck);
  expect(diagnostics.filter((d) => d.severity === 'error')).toEqual([]);
  expect(circuit.parts.some((p) => p.name.startsWith('XU2.xb') || p.name.startsWith('XU2.Xb'))).toBe(true);
  expect(suppliesIn(deck)).toEqual([winding]);
});
/** Random drawings: parts with their pins on some of a few nets. */
const KINDS = [
  ['R', 'resistor', 2],
  ['C', 'electrolytic', 2],
  ['D', 'diode', 2],
  ['Q', 'npn', 3],
  ['M', 'nmos', 3],
  ['RV', 'trimmer', 3],
  ['RN', 'network', 4],
  ['Y', 'crystal', 2],
  ['J', 'connector', 3],
] as const;
const BODIES: Readonly<Record<string, string>> = { network: 'SIL-4', connector: '3 pins' };
const drawing = fc.array(fc.record({ kind: fc.nat(KINDS.length - 1), nets: fc.array(fc.nat(6), { minLength: 4, maxLength: 4 }) }), {
  minLength: 1,
  maxLength: 12,
});

test('law: pin by pin, in any words, the netlist is the one that was drawn', () => {
  fc.assert(
    fc.property(drawing, fc.infiniteStream(fc.nat(2)), (parts, words) => {
      const lines = parts.map((p, i) => {
        const [letter, kind] = KINDS[p.kind]!;
        return line(`${letter}${i + 1}`, kind, 1000, BODIES[kind] ? { package: BODIES[kind] } : {});
      });
      const netOf = (pin: WalkPin) => (pin.ref === 'V1' ? [1, 0][pin.index]! : parts[lines.findIndex((l) => l.refs[0] === pin.ref)]!.nets[pin.index]!);
      let deck = '';
      const state = (): WalkPart[] => walkOf(lines, deck, [SUPPLY]);
      for (let pin = nextPin(state()); pin; pin = nextPin(state(), pin)) {
        const net = netOf(pin);
        const others = state()
          .flatMap((p) => p.pins)
          .filter((p) => netOf(p) === net && !(p.ref === pin.ref && p.index === pin.index));
        const one = others[words.next().value! % Math.max(1, others.length)];
        const text = net === 0 ? 'ground' : one && words.next().value !== 0 ? `${one.ref}.${one.name}` : `net${net}`;
        const got = answerPin(deck, state(), pin, text);
        // Two names met: they are one net, as on the drawing.
        const settled = got.ok === 'two' ? answerPin(deck, state(), pin, text, 'join') : got;
        if (settled.ok !== true) throw new Error(JSON.stringify(settled));
        deck = settled.deck;
      }
      // A net may still stand under two names where nobody has said that they are one: saying so joins them.
      for (const pin of state().flatMap((p) => p.pins)) {
        const first = state()
          .flatMap((p) => p.pins)
          .find((p) => netOf(p) === netOf(pin))!;
        const now = state()
          .flatMap((p) => p.pins)
          .find((p) => p.ref === pin.ref && p.index === pin.index)!;
        if (now.net === first.net) continue;
        const got = answerPin(deck, state(), now, `${first.ref}.${first.name}`, 'join');
        if (got.ok === true) deck = got.deck;
      }
      const pins = state().flatMap((p) => p.pins);
      const named = new Map<number, string>();
      for (const pin of pins) {
        expect(pin.state).toBe('net');
        const known = named.get(netOf(pin));
        if (known === undefined) named.set(netOf(pin), pin.net);
        else expect(pin.net).toBe(known);
      }
      expect(new Set(named.values()).size).toBe(named.size);
      expect(readDeck(deck).diagnostics.filter((d) => d.severity === 'error')).toEqual([]);
    }),
    { numRuns: 60 },
  );
});
