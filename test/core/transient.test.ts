/** Transients against closed forms and against the general-purpose simulator in the dev dependencies. */
import { BLOCKS, insertBlock } from '@/core/circuit/blocks';
import { readDeck } from '@/core/circuit/deck/read';
import { statisticsOf, type TraceStatistics } from '@/core/circuit/traceStatistics';
import { isRunning, steadyState } from '@/core/circuit/steady';
import { transient } from '@/core/circuit/transient';
import { HANDHELD } from '@/core/meter';
import { computedWindow } from '@/core/stage';
import { windowsOf } from '@/core/stage/windows';
import { referenceTransient } from '../support/simulator';

function run(deck: string, net: string, stop: number, from: number): TraceStatistics {
  const { circuit, diagnostics } = readDeck(deck);
  expect(diagnostics.filter((d) => d.severity === 'error')).toEqual([]);
  const trace = transient(circuit, { stop, from, nets: [net] });
  return statisticsOf(trace.times, trace.volts[net]!);
}

describe('closed forms', () => {
  test('a capacitor charges as 1 − e^(−t/RC)', () => {
    const { circuit } = readDeck('t\nV1 a 0 5\nR1 a b 1k\nC1 b 0 1u\n.ic V(b)=0');
    const { times, volts } = transient(circuit, { stop: 5e-3, nets: ['b'] });
    times.forEach((t, i) => {
      expect(Math.abs(volts['b']![i]! - 5 * (1 - Math.exp(-t / 1e-3)))).toBeLessThan(2e-3);
    });
  });
  test('average of a square wave is its duty times its height; its RMS goes with the root', () => {
    const s = run('t\nV1 a 0 PULSE(0 5 0 1u 1u 3m 10m)\nR1 a 0 1k', 'a', 0.1, 0.05);
    expect(s.average).toBeCloseTo(1.5, 2);
    expect(s.rms).toBeCloseTo(5 * Math.sqrt(0.3), 2);
    expect(s.frequency).toBeCloseTo(100, 2);
    expect(s.duty).toBeCloseTo(0.3, 2);
  });
  test('an LC circuit rings at 1/(2π √(LC))', () => {
    const s = run('t\nL1 a 0 10m\nC1 a 0 1u\nR1 a 0 10k\n.ic V(a)=1', 'a', 0.01, 0.001);
    expect(s.frequency! / (1 / (2 * Math.PI * Math.sqrt(1e-8)))).toBeCloseTo(1, 2);
  });
  test('ripple of a reservoir: I/(2 f C) behind a bridge, at most', () => {
    const s = run(
      't\nV1 a c SIN(0 17 50)\nD1 a p DR\nD2 c p DR\nD3 0 a DR\nD4 0 c DR\nC1 p 0 1000u\nR1 p 0 100\n.model DR D(IS=7e-9 N=1.8 RS=0.04)',
      'p',
      0.4,
      0.2,
    );
    const ideal = s.average / 100 / (2 * 50 * 1e-3);
    expect(s.max - s.min).toBeLessThan(ideal);
    expect(s.max - s.min).toBeGreaterThan(0.7 * ideal);
    expect(s.frequency).toBeCloseTo(100, 0);
  });
  test.each([
    ['flasher', 'c1', 1 / (2 * Math.LN2 * 47e3 * 1e-5), 5, 0.08],
    ['rc-oscillator', 'q', 1 / (2.3 * 1e5 * 1e-7) / 16, 3, 0.002],
    ['timer', 'q', 1.44 / ((1e4 + 2 * 47e3) * 1e-5), 6, 0.002],
  ] as const)('the block %s runs at its formula’s frequency', (id, net, hertz, stop, within) => {
    const block = BLOCKS.find((b) => b.id === id)!;
    const built = block.build(Object.fromEntries(block.fields.map((f) => [f.key, f.initial])));
    const s = run(insertBlock('t\nV9 vcc 0 9\nR9 q 0 10k', built), net, stop, stop / 4);
    expect(Math.abs(s.frequency! / hertz - 1)).toBeLessThan(within);
  });
});

describe('against the reference simulator: 1 % of the swing, frequency 1 %', () => {
  test.each([
    ['rectifier and reservoir', 't\nV1 a 0 SIN(0 17 50)\nD1 a b DR\nC1 b 0 470u\nR1 b 0 220\n.model DR D(IS=7e-9 N=1.8 RS=0.04)', 'b', 0.2, 0.1],
    ['RC under a pulse', 't\nV1 a 0 PULSE(0 5 0 1u 1u 5m 10m)\nR1 a b 1k\nC1 b 0 1u', 'b', 0.06, 0.02],
    [
      'coil with free-wheel diode',
      't\nV1 vcc 0 12\nV2 g 0 PULSE(0 5 1m 1u 1u 5m 10m)\nR1 g b 4.7k\nQ1 k b 0 N\nL1 vcc m 50m\nR2 m k 320\nD1 k vcc DS\n.model N NPN(IS=1.5E-14 BF=250 VAF=80)\n.model DS D(IS=4E-9 N=1.9 RS=0.6)',
      'k',
      0.08,
      0.02,
    ],
    [
      'MOSFET chopper',
      't\nV1 vdd 0 12\nV2 g 0 PULSE(0 5 0 10n 10n 30u 100u)\nM1 d g 0 0 NM\nR1 vdd d 100\nR2 d q 1k\nC1 q 0 1u\n.model NM NMOS(LEVEL=1 VTO=2 KP=0.2)',
      'q',
      0.01,
      0.005,
    ],
  ] as const)(
    '%s',
    async (_, deck, net, stop, from) => {
      const mine = run(deck, net, stop, from);
      const { times, volts } = await referenceTransient(deck, net, stop);
      const begin = times.findIndex((t) => t >= from);
      const theirs = statisticsOf(times.subarray(begin), volts.subarray(begin));
      const swing = Math.max(0.005, 0.01 * (theirs.max - theirs.min));
      for (const key of ['average', 'rms', 'min', 'max'] as const) expect(Math.abs(mine[key] - theirs[key])).toBeLessThan(swing);
      expect(mine.frequency! / theirs.frequency!).toBeCloseTo(1, 2);
    },
    60_000,
  );
});

test('a peak within an edge is found in a long run as in a short one', () => {
  // A divider that a transistor pulls down again while the edge is still rising: nothing stores charge, so no error of a state shows it.
  const deck =
    't\nV1 in 0 PULSE(0 5 0 0.2m 0.2m 6m 20m)\nR1 in b 10k\nR2 b 0 10k\nR3 in c 10k\nR4 c 0 1k\nQ1 c b 0 QN\n.model QN NPN(IS=1.5E-14 BF=250 VAF=80)';
  const peak = (stop: number) => Math.max(...transient(readDeck(deck).circuit, { stop, nets: ['c'] }).volts['c']!);
  const close = peak(0.0005);
  expect(Math.abs(peak(0.4) / close - 1)).toBeLessThan(0.005);
});

test('says what to do when the time is too long to step through, and reports progress', () => {
  const seen: number[] = [];
  const { circuit } = readDeck('t\nV1 a 0 SIN(0 1 1meg)\nR1 a b 1k\nC1 b 0 1n');
  transient(circuit, { stop: 1e-3, nets: ['b'], progress: (p) => seen.push(p) });
  expect(seen.length).toBeGreaterThan(5);
  expect(() => transient(circuit, { stop: 1, nets: ['b'] })).toThrow(/more than \d+ steps/);
}, 120_000);

describe('circuits that never rest', () => {
  test('are told from those that do', () => {
    expect(isRunning(readDeck('t\nV1 a 0 9\nR1 a 0 1k').circuit)).toBe(false);
    expect(isRunning(readDeck('t\nV1 a 0 SIN(0 9 50)\nR1 a 0 1k').circuit)).toBe(true);
  });
  test('a slow filter is found where it settles, without all the periods that it takes: the mean of the square wave', () => {
    const { circuit } = readDeck('t\nV1 a 0 PULSE(0 5 0 1u 1u 5m 10m)\nR1 a b 10k\nC1 b 0 100u');
    const { statistics, seconds, steady } = steadyState(circuit, ['b']);
    expect(steady).toBe(true);
    // Five time constants would be five seconds.
    expect(seconds).toBeLessThan(1);
    expect(Math.abs(statistics['b']!.average - 2.5)).toBeLessThan(0.01);
  });
  test('slow and fast at once, against the same circuit run for twenty seconds: 3 mV', () => {
    const deck = `t
V1 sa sb SIN(0 12.7 50)
D1 sa raw DR
D2 sb raw DR
D3 0 sa DR
D4 0 sb DR
C1 raw 0 470u
R1 raw half 10k
R2 half 0 10k
C2 half 0 100u
R3 half p 100k
C3 p q 1u
R4 q 0 47k
R5 raw 0 1k
.model DR D(IS=7e-9 N=1.8 RS=0.04)`;
    const { circuit } = readDeck(deck);
    const nets = ['raw', 'half', 'p'];
    const found = steadyState(circuit, nets);
    const long = transient(circuit, { stop: 20, nets, from: 19.8 });
    expect(found.seconds).toBeLessThan(1);
    for (const net of nets) expect(Math.abs(found.statistics[net]!.average - statisticsOf(long.times, long.volts[net]!).average)).toBeLessThan(3e-3);
  });
  test('a rectified supply has windows: √2 × Vac − 1.4 V less the ripple (textbook)', () => {
    const block = BLOCKS.find((b) => b.id === 'rectifier')!;
    const deck = insertBlock('t\nR9 raw 0 1k', block.build(Object.fromEntries(block.fields.map((f) => [f.key, f.initial]))));
    const { circuit } = readDeck(deck);
    const windows = windowsOf({ circuit, observables: [{ id: 'raw', mode: 'dcv', red: 'raw', black: '0' }] }, { parts: [], neighbours: [] }, HANDHELD);
    expect(Math.abs(computedWindow(windows.get('raw'))!.middle - (12 * Math.SQRT2 - 1.4))).toBeLessThan(0.4);
  });
});
