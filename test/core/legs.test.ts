/** Which pin of the circuit a leg of a body is: orders of legs as the type cards have them (data sheets, from memory). */
import { readCheckSentence } from '@/core/draft';
import { drawableOf } from '@/core/draw';
import type { Line } from '@/core/kit';
import { circuitOf, legOf, netAtPin } from '@/core/stage';

const line = (l: Pick<Line, 'id' | 'refs' | 'kind' | 'label'> & Partial<Line>): Line => ({ value: null, tolerance: null, quantity: 1, ...l });
const ADJUSTABLE = '.subckt ADJUSTABLE vin adj vout\nR1 vin vout 1k\nR2 vout adj 1k\n.ends';
const OPAMP = '.subckt OPAMP inp inn vp vn out\nR1 inp inn 1meg\nG1 0 out inp inn 1\nR2 vp vn 1k\nR3 out 0 1k\n.ends';
const deck = (...cards: string[]) => ['t', 'V1 in 0 12', ...cards, ADJUSTABLE, OPAMP, '.end'].join('\n');
const sheet = (text: string) => ({ circuit: { deck: text, neighbours: [] }, typeCards: [] });
const regulator: Line = line({ id: 'u1', refs: ['U1'], kind: 'regulator', label: 'LM317', type: 'LM317' });
const supply = sheet(deck('XU1 in a out ADJUSTABLE', 'R1 out a 240', 'R2 a 0 2.2k', 'Q1 in a out M', '.model M NPN'));

test.each([
  ['1', 'adjust', 'a'],
  ['2', 'out', 'out'],
  ['3', 'in', 'in'],
  ['OUT', 'out', 'out'],
])('leg %s of the adjustable regulator is its pin %s, though its model begins with the input', (leg, pin, net) => {
  expect(legOf(supply, regulator, 'U1', leg)).toEqual({ pin });
  expect(netAtPin(supply, circuitOf(supply), 'U1', pin)).toBe(net);
});

test('a sentence names the leg as one counts it on the body; the check keeps the pin by name', () => {
  const places = { ...supply, testPoints: [], lines: [regulator], nets: ['in', 'a', 'out'], sources: ['V1'] };
  expect(readCheckSentence('U1.3 to ground 11-13 V', places)).toMatchObject({ ok: true, check: { red: { ref: 'U1', pin: 'in' } } });
});

test('a number that nothing tells is asked, never taken for the place in the model', () => {
  const amplifier: Line = line({ id: 'u2', refs: ['U2'], kind: 'opamp', label: 'dual amplifier', type: 'XY9' });
  const on = sheet(deck('XU2 p n vcc 0 o OPAMP', 'R1 p n 1k', 'R2 vcc o 1k'));
  expect(legOf(on, amplifier, 'U2', '3')).toEqual({ called: ['IN+', 'IN-', 'V+', 'V-', 'out'] });
  const reading = readCheckSentence('U2.3 5 V', { ...on, testPoints: [], lines: [amplifier], nets: ['vcc'], sources: [] });
  expect(reading).toMatchObject({ ok: false, message: expect.stringContaining('Write U2.IN+') as string });
});

test('pins of transistors by name, two-poles by number, a model of numbered pins by its numbers', () => {
  const q = line({ id: 'q1', refs: ['Q1'], kind: 'npn', label: 'BC547' });
  expect(legOf(supply, q, 'Q1', 'emitter')).toEqual({ pin: 'E' });
  expect(netAtPin(supply, circuitOf(supply), 'Q1', 'E')).toBe('out');
  expect(netAtPin(supply, circuitOf(supply), 'Q1', '3')).toBe('out');
  // The deck begins with the collector, the body of this type with the emitter; the kit's own card goes before the common ones.
  const other = line({ id: 'q1', refs: ['Q1'], kind: 'npn', label: '2N3904' });
  expect(legOf(supply, other, 'Q1', '1')).toEqual({ pin: 'E' });
  expect(legOf({ ...supply, typeCards: [{ type: '2N3904', pins: { 'TO-92': ['B', 'C', 'E'] }, figures: [] }] }, other, 'Q1', '1')).toEqual({ pin: 'B' });
  expect(legOf(supply, line({ id: 'q1', refs: ['Q1'], kind: 'npn', label: 'XY1' }), 'Q1', '1')).toEqual({ called: ['C', 'B', 'E'] });
  expect(legOf(supply, line({ id: 'r1', refs: ['R1'], kind: 'resistor', label: '240' }), 'R1', '2')).toEqual({ pin: '2' });
  const chip = line({ id: 'u3', refs: ['U3'], kind: 'ic', label: 'decoder' });
  const on = sheet('t\nV1 a 0 5\nXU3 a b c BOX\nR1 b 0 1k\nR2 c 0 1k\n.subckt BOX p1 p2 p3\nR1 p1 p2 1k\nR2 p2 p3 1k\n.ends');
  expect(legOf(on, chip, 'U3', '2')).toEqual({ pin: '2' });
});

test('the common pin of an array is no ground', () => {
  const array = line({ id: 'u4', refs: ['U4'], kind: 'ic', label: 'array' });
  const deck = 't\nV1 a 0 5\nXU4 a 0 b c ARR\nR1 b 0 1k\nR2 c 0 1k\n.subckt ARR in1 gnd com out1\nR1 in1 gnd 1k\nR2 com out1 1k\n.ends';
  const on = sheet(deck);
  const { parts } = drawableOf({ ...on, lines: [array], boards: [] })!;
  expect(parts.find((p) => p.ref === 'U4')!.net).toMatchObject({ gnd: '0', com: 'b' });
});

test('the schematic names the pins of a model by what they do, not by their place in it', () => {
  const { parts } = drawableOf({ ...supply, lines: [regulator], boards: [] })!;
  expect(parts.find((p) => p.ref === 'U1')).toMatchObject({ kind: 'regulator', net: { IN: 'in', OUT: 'out', COM: 'a' } });
});
