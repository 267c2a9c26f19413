/** Two faults at once: found where no single one explains the readings, and nowhere else. Readings from the operating point of the board with both. */
import { operatingPoint, readDeck } from '@/core/circuit';
import { answer, boardFor, diagnoserFor, type DiagnoseRequest } from '@/core/diagnose/request';
import { applyFaults, describeFaults, PLAIN_NAMING, type Fault, faultKey } from '@/core/fault';

const DECK = `Two dividers, a follower and a lamp
V1 vcc 0 12
R1 vcc a 10k
R2 a 0 10k
R3 vcc b 22k
R4 b 0 10k
Q1 vcc a e QN
R5 e 0 1k
R6 e f 4.7k
R7 f 0 4.7k
Q2 c g 0 QN
R8 b g 100k
R9 vcc c 2.2k
Q3 c2 g2 0 QP
.model QN NPN(IS=1.5E-14 BF=250 VAF=80 BR=4)
.model QP PNP(IS=1.5E-14 BF=250 VAF=80 BR=4)
R10 vcc g2 100k
R11 g2 0 10k
R12 c2 0 1k
.end`;
const row = (ref: string, kind: string, value: string, tolerance: string, note = '') => ({ ref, kind, value, tolerance, note });
const RESISTORS = ['R1:10k', 'R2:10k', 'R3:22k', 'R4:10k', 'R5:1k', 'R6:4.7k', 'R7:4.7k', 'R8:100k', 'R9:2.2k', 'R10:100k', 'R11:10k', 'R12:1k'];
const BOARD = {
  deck: DECK,
  bom: [
    row('V1', 'supply', '12', '2%'),
    ...RESISTORS.map((r) => row(r.split(':')[0]!, 'resistor', r.split(':')[1]!, '5%')),
    row('Q1', 'npn', 'QN', '', 'hfe 110..450'),
    row('Q2', 'npn', 'QN', '', 'hfe 110..450'),
    row('Q3', 'pnp', 'QP', '', 'hfe 110..450'),
  ],
  testPoints: ['a', 'b', 'e', 'f', 'c', 'g', 'vcc'].map((node, i) => ({ name: `TP${i + 1}`, node })),
  neighbours: [['a', 'b'] as const, ['e', 'f'] as const],
  meter: { inputResistance: 1e7, percent: 0.5, counts: 2, displayCounts: 4000 },
};
const { circuit } = readDeck(DECK);
const board = boardFor(circuit, BOARD.bom, BOARD.neighbours);
const diagnoser = diagnoserFor(BOARD);

const readingsOf = (faults: readonly Fault[]): DiagnoseRequest['readings'] => {
  const { nodes, branches } = operatingPoint(applyFaults(circuit, board, faults).circuit);
  return [{ at: 'V1', mode: 'dca', value: -branches['V1']! }, ...BOARD.testPoints.map((t) => ({ at: t.name, mode: 'dcv', value: nodes[t.node]! }))];
};
const R2_OPEN: Fault = { kind: 'open', parts: ['R2'], detail: {} };
const R4_OPEN: Fault = { kind: 'open', parts: ['R4'], detail: {} };
const R9_TEN: Fault = { kind: 'wrong-value', parts: ['R9'], detail: { value: 22e3 } };
const R6_SHORT: Fault = { kind: 'short', parts: ['R6'], detail: {} };
const E_F: Fault = { kind: 'bridge', parts: [], detail: { nets: ['e', 'f'] } };

test.each([
  ['a divider and the switch behind the other one', [R2_OPEN, R9_TEN]],
  ['two dividers', [R2_OPEN, R4_OPEN]],
  ['a short and an open part', [R6_SHORT, R4_OPEN]],
] as const)('%s: both are named, or one that reads the same; what is on no list stays as likely', (_, faults) => {
  const { suspects, unexplained } = answer(diagnoser, { ...BOARD, readings: readingsOf(faults) });
  const [top] = suspects;
  if (top?.kind !== 'pair') throw new Error(`${top!.kind} stands on top`);
  // A bridge from e to f and a short across R6 cannot be told apart.
  const wanted = faults.map((f) => (f === R6_SHORT ? [faultKey(R6_SHORT), faultKey(E_F)] : [faultKey(f)]));
  for (const either of wanted) expect(top.faults.some((f) => either.includes(faultKey(f)))).toBe(true);
  expect(unexplained).toBeGreaterThanOrEqual(suspects.filter((s) => s.kind === 'pair').reduce((s, p) => s + p.probability, 0));
  expect(unexplained + suspects.reduce((s, p) => s + p.probability, 0)).toBeCloseTo(1, 3);
});

test.each([
  ['a healthy board', []],
  ['one fault', [R2_OPEN]],
  ['another', [R9_TEN]],
] as const)('%s has no pair on top', (_, faults) => {
  const { suspects } = answer(diagnoser, { ...BOARD, readings: readingsOf(faults) });
  expect(suspects[0]!.kind).toBe(faults[0]?.kind ?? 'healthy');
  expect(suspects.filter((s) => s.kind === 'pair').every((s) => s.probability < 0.05)).toBe(true);
});

test('the order of readings does not matter, and asking twice gives the same', () => {
  const readings = readingsOf([R2_OPEN, R4_OPEN]);
  const one = answer(diagnoser, { ...BOARD, readings });
  expect(answer(diagnoser, { ...BOARD, readings })).toEqual(one);
  const other = answer(diagnoser, { ...BOARD, readings: [...readings].reverse() });
  expect(other.suspects[0]).toMatchObject({ kind: 'pair' });
  expect(other.suspects[0]!.probability).toBeCloseTo(one.suspects[0]!.probability, 6);
});

test('two faults keep out of one another: the piece of a type that the first changed still tells what the second fits', () => {
  const wrongType: Fault = { kind: 'wrong-type', parts: ['Q1'], detail: { model: 'QP' } };
  const exchanged: Fault = { kind: 'wrong-type', parts: ['Q2', 'Q3'], detail: {} };
  const both = applyFaults(circuit, board, [exchanged, wrongType]).circuit;
  const modelOf = (name: string) => both.parts.flatMap((p) => (p.name === name && 'model' in p ? [p.model.name] : []))[0];
  expect(['Q1', 'Q2', 'Q3'].map(modelOf)).toEqual(['QP', 'QP', 'QN']);
});

test('at a stage where one of two exchanged parts is not fitted yet, the other place shows the wrong piece all the same', () => {
  const bare = { ...circuit, parts: circuit.parts.filter((p) => p.name !== 'R4') };
  const { circuit: faulty } = applyFaults(bare, board, [{ kind: 'swapped', parts: ['R3', 'R4'], detail: {} }]);
  expect(faulty.parts.find((p) => p.name === 'R3')).toMatchObject({ value: 10e3 });
  expect(faulty.parts.some((p) => p.name === 'R4')).toBe(false);
});

test('in words: both titles, and one repair at a time', () => {
  const words = describeFaults([R2_OPEN, R4_OPEN], () => PLAIN_NAMING);
  expect(words.title).toBe('R2 has an open joint, and R4 has an open joint');
  expect(words.remedy).toMatch(/joints of R2.*measure again/);
  expect(describeFaults([], () => PLAIN_NAMING).title).toBe('Nothing wrong');
});
