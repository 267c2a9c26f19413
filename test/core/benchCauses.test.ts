/** What goes wrong around the board: bridges that no list names, a supply in its limit, one cause for all readings. Readings by the circuit core. */
import { operatingPoint, readDeck } from '@/core/circuit';
import { answer, diagnoserFor, type DiagnoseRequest } from '@/core/diagnose/request';

const DECK = `ladder
V1 vcc 0 9
R1 vcc a 1k
R2 a 0 2.2k
R3 vcc b 4.7k
R4 b 0 4.7k
R5 a c 10k
R6 c 0 10k
.end`;
const row = (ref: string, kind: string, value: string) => ({ ref, kind, value, tolerance: '5%', note: '' });
const BOM = [
  { ...row('V1', 'supply', '9'), tolerance: '2%' },
  ...(['1k', '2.2k', '4.7k', '4.7k', '10k', '10k'] as const).map((value, i) => row(`R${i + 1}`, 'resistor', value)),
];
const POINTS = ['vcc', 'a', 'b', 'c'];
const METER = { inputResistance: 1e7, percent: 0.5, counts: 2, displayCounts: 4000 };
const request = (readings: DiagnoseRequest['readings'], more: Partial<DiagnoseRequest> = {}): Omit<DiagnoseRequest, 'id'> => ({
  deck: DECK,
  bom: BOM,
  testPoints: POINTS.map((node) => ({ name: node, node })),
  neighbours: [],
  meter: METER,
  readings,
  ...more,
});
const ask = (asked: Omit<DiagnoseRequest, 'id'>) => answer(diagnoserFor(asked), asked, asked);
/** Readings of the board with a card put in, at all test points. */
const readOf = (card: string, { gain = 1, limit }: { gain?: number; limit?: number } = {}): DiagnoseRequest['readings'] => {
  const { circuit } = readDeck(DECK.replace('.end', `${card}\n.end`));
  const limited = { ...circuit, parts: circuit.parts.map((p) => (p.kind === 'V' && limit !== undefined ? { ...p, limit } : p)) };
  const { nodes, branches } = operatingPoint(limited);
  return [{ at: 'V1', mode: 'dca', value: -branches['V1']! }, ...POINTS.map((at) => ({ at, mode: 'dcv', value: Number((gain * nodes[at]!).toFixed(3)) }))];
};

test('without a list of neighbours any two nets may be bridged; with an empty list none', () => {
  const readings = readOf('RX b c 0.1');
  const top = ask(request(readings, { neighbours: null })).suspects[0]!;
  expect(top).toMatchObject({ kind: 'bridge' });
  expect([...(top as unknown as { detail: { nets: string[] } }).detail.nets].sort()).toEqual(['b', 'c']);
  expect(ask(request(readings)).suspects.some((s) => s.kind === 'bridge')).toBe(false);
});

test('a supply in its limit is evidence: the short that holds it there comes first', () => {
  const read = readOf('RX a 0 0.1', { limit: 0.005 }).map((r) => (r.mode === 'dca' ? { at: 'V1', mode: 'limit', value: 0.005 } : r));
  const volts = read.find((r) => r.at === 'vcc')!.value;
  const { suspects, unexplained } = ask(request([...read, { at: 'V1', mode: 'dcv', value: volts }], { limit: { V1: 0.005 } }));
  expect(suspects[0]).toMatchObject({ kind: 'short', parts: ['R2'] });
  expect(unexplained).toBeLessThan(0.5);
});

test('all volts high by one factor: the meter is named, and the board is healthy', () => {
  const { suspects, badReadings } = ask(request(readOf('', { gain: 1.09 })));
  expect(badReadings[0]).toMatchObject({ kind: 'bench', what: 'meter-gain' });
  expect((badReadings[0] as unknown as { factor: number }).factor).toBeCloseTo(1.09, 1);
  expect(suspects[0]!.kind).toBe('healthy');
});

test('nothing of the kind is named on a healthy board', () => {
  expect(ask(request(readOf(''))).badReadings).toEqual([]);
});
