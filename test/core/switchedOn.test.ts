/** Boards that are switched on and read in a window of time; checked against closed forms and the general-purpose simulator's kind of answer. */
import { readDeck } from '@/core/circuit';
import { answer, diagnoserFor, type DiagnoseRequest } from '@/core/diagnose/request';
import { readSwitchedOn } from '@/core/specimen/switchOn';

/** Two lamps in turn; its halves differ a little, so that it starts by itself. */
const FLASHER = `Two lamps
V1 vcc 0 9
R1 vcc la 680
D1 la c1 LRED
R5 vcc c1 10k
R2 vcc c2 820
R3 vcc b1 47k
R4 vcc b2 43k
C1 c1 b2 4.7u
C2 c2 b1 4.7u
C4 b1 0 10n
C5 b2 0 10n
Q1 c1 b1 0 NS
Q2 c2 b2 0 NS
.model NS NPN(IS=1.5E-14 BF=250 VAF=80 BR=4 RC=0.5 RE=0.1)
.model LRED D(IS=7.7E-18 N=2 RS=2)
.end`;

const RUN = { rise: 0.01, settle: 0.6, window: 1.2, acResponse: 'average' } as const;
const NOTHING = () => undefined;

describe('what is read in the window', () => {
  test('an RC at rest: the whole supply, nothing alternates, the lamp behind it is lit', () => {
    const { circuit } = readDeck('rc\nV1 in 0 9\nR1 in out 1k\nC1 out 0 10u\nR2 in l 680\nD1 l 0 LRED\n.model LRED D(IS=7.7E-18 N=2 RS=2)\n.end');
    const { readings, signs } = readSwitchedOn(
      circuit,
      [
        { id: 'v', mode: 'dcv', red: 'out', black: '0' },
        { id: 'ac', mode: 'acv', red: 'out', black: '0' },
        { id: 'f', mode: 'frequency', net: 'out' },
        { id: 'low', mode: 'vmin', red: 'out', black: '0' },
      ],
      [{ id: 'd', element: 'D1' }],
      RUN,
      NOTHING,
    );
    expect(readings[0]).toBeCloseTo(9, 3);
    expect(readings[1]).toBe(0);
    expect(readings[2]).toBe(0);
    expect(readings[3]).toBeCloseTo(9, 3);
    expect(signs).toEqual(['lit']);
  });
  test('before it has settled it is read as it is: mean of a charging capacitor (closed form)', () => {
    const tau = 2;
    const { circuit } = readDeck(`slow\nV1 in 0 10\nR1 in out 200k\nC1 out 0 ${tau / 200e3}\n.end`);
    const { readings } = readSwitchedOn(circuit, [{ id: 'v', mode: 'dcv', red: 'out', black: '0' }], [], RUN, NOTHING);
    const mean = 10 * (1 - (tau / 1.2) * (Math.exp(-0.6 / tau) - Math.exp(-1.8 / tau)));
    expect(readings[0]! / mean).toBeCloseTo(1, 2);
  });
  test('a flasher of ln 2 (R3 C2 + R4 C1) starts by itself, blinks, and its collector goes from nearly nothing to nearly the supply', () => {
    const { circuit } = readDeck(FLASHER);
    const { readings, signs } = readSwitchedOn(
      circuit,
      [
        { id: 'f', mode: 'frequency', net: 'c1' },
        { id: 'low', mode: 'vmin', red: 'c1', black: '0' },
        { id: 'high', mode: 'vmax', red: 'c1', black: '0' },
      ],
      [{ id: 'd', element: 'D1' }],
      RUN,
      NOTHING,
    );
    const closed = 1 / (Math.LN2 * (47e3 + 43e3) * 4.7e-6);
    expect(Math.abs(readings[0]! / closed - 1)).toBeLessThan(0.12);
    expect(readings[1]).toBeLessThan(0.3);
    expect(readings[2]).toBeGreaterThan(5);
    expect(signs[0]).toBe('blinks');
  });
});

/** A relaxation oscillator with a lamp: few parts, so that all faults are run in seconds. */
const REQUEST: Omit<DiagnoseRequest, 'id' | 'readings'> = {
  deck: FLASHER,
  bom: [
    ...[
      ['R1', '680'],
      ['R2', '820'],
      ['R3', '47k'],
      ['R4', '43k'],
      ['R5', '10k'],
    ].map(([ref, value]) => ({ ref: ref!, kind: 'resistor', value: value!, tolerance: '5%' })),
    ...['C1', 'C2'].map((ref) => ({ ref, kind: 'capacitor', value: '4.7u', tolerance: '10%' })),
    { ref: 'V1', kind: 'supply', value: '9', tolerance: '2%' },
  ],
  testPoints: ['c1', 'c2', 'b1', 'b2'].map((node) => ({ name: node.toUpperCase(), node })),
  neighbours: [],
  meter: { inputResistance: 1e7, percent: 0.5, counts: 2, displayCounts: 4000 },
  run: { rise: 0.01, settle: 0.6, window: 1.2 },
};

test('an open base resistor stops the flasher: found from averages, frequency and a lamp that does not blink', () => {
  const diagnoser = diagnoserFor(REQUEST);
  const { circuit } = readDeck(FLASHER.replace(/^R4 .*$/m, 'R4 vcc b2 1G'));
  const nets = ['c1', 'c2', 'b1', 'b2'];
  const { readings } = readSwitchedOn(
    circuit,
    nets.flatMap((net) => [
      { id: net, mode: 'dcv' as const, red: net, black: '0' },
      { id: `${net}f`, mode: 'frequency' as const, net },
    ]),
    [],
    RUN,
    NOTHING,
  );
  const given = nets.flatMap((net, i) => [
    { at: net.toUpperCase(), mode: 'dcv', value: Number(readings[2 * i]!.toPrecision(4)) },
    { at: net.toUpperCase(), mode: 'frequency', value: readings[2 * i + 1]! },
  ]);
  expect(given.filter((r) => r.mode === 'frequency').every((r) => r.value === 0)).toBe(true);
  const { suspects, unexplained } = answer(diagnoser, { ...REQUEST, readings: given });
  expect(unexplained).toBeLessThan(0.5);
  expect(suspects.slice(0, 3).map((s) => JSON.stringify(s))).toEqual(expect.arrayContaining([expect.stringContaining('"parts":["R4"]')]));
});
