/** AC volts, duty, ripple and averages of circuits that run, against the general-purpose simulator of the dev dependencies. */
import { readDeck } from '@/core/circuit/deck/read';
import { FORM_FACTOR, statisticsOf } from '@/core/circuit/traceStatistics';
import { HANDHELD } from '@/core/meter';
import { readRunning, type RunningObservable } from '@/core/specimen';
import { computedWindow } from '@/core/stage';
import { windowsOf } from '@/core/stage/windows';
import { referenceTransient } from '../support/simulator';

const DIODE = '.model DR D(IS=7e-9 N=1.8 RS=0.04)';
const CIRCUITS: readonly (readonly [name: string, deck: string, net: string, stop: number, periods: number])[] = [
  ['ripple of a half-wave supply', `t\nV1 a 0 SIN(0 17 50)\nD1 a b DR\nC1 b 0 220u\nR1 b 0 150\n${DIODE}`, 'b', 0.3, 0.02],
  ['ripple of a bridge', `t\nV1 a c SIN(0 17 50)\nD1 a p DR\nD2 c p DR\nD3 0 a DR\nD4 0 c DR\nC1 p 0 470u\nR1 p 0 100\nR9 c 0 1meg\n${DIODE}`, 'p', 0.3, 0.02],
  ['a clipped sine', `t\nV1 a 0 SIN(0 5 1k)\nR1 a b 1k\nD1 b 0 DS\nD2 0 b DS\n.model DS D(IS=4E-9 N=1.9)`, 'b', 0.01, 0.001],
  ['a pulse through a filter', 't\nV1 a 0 PULSE(0 5 0 1u 1u 3m 10m)\nR1 a b 1k\nC1 b 0 2.2u', 'b', 0.1, 0.01],
  [
    'an inverter of unequal halves',
    't\nV1 g 0 PULSE(0 5 0 1u 1u 2m 8m)\nV2 vcc 0 9\nR1 g b 10k\nR2 vcc k 1k\nQ1 k b 0 N\n.model N NPN(IS=1.5E-14 BF=250 VAF=80)',
    'k',
    0.08,
    0.008,
  ],
  ['a MOSFET dimmer', 't\nV2 g 0 PULSE(0 5 0 1u 1u 0.3m 1m)\nV1 vdd 0 12\nM1 d g 0 0 NM\nR1 vdd d 100\n.model NM NMOS(LEVEL=1 VTO=2 KP=0.2)', 'd', 0.01, 0.001],
];

describe('what a meter shows, against the reference simulator: 1 % of the swing', () => {
  test.each(CIRCUITS)(
    '%s',
    async (_, deck, net, stop, period) => {
      const observables: RunningObservable[] = [
        { id: 'ac', mode: 'acv', red: net, black: '0' },
        { id: 'dc', mode: 'dcv', red: net, black: '0' },
        { id: 'duty', mode: 'duty', net },
        { id: 'hz', mode: 'frequency', net },
      ];
      const { circuit } = readDeck(deck);
      const [rms, mean] = (['true-rms', 'average'] as const).map((acResponse) => readRunning(circuit, observables, { acResponse }).readings);
      const { times, volts } = await referenceTransient(deck, net, stop);
      const from = times.findIndex((t) => t >= stop - 5 * period);
      const theirs = statisticsOf(times.subarray(from), volts.subarray(from));
      const allowed = Math.max(2e-3, 0.01 * (theirs.max - theirs.min));
      expect(Math.abs(rms!.get('ac')! - theirs.ac)).toBeLessThan(allowed);
      expect(Math.abs(mean!.get('ac')! - theirs.acMean * FORM_FACTOR)).toBeLessThan(allowed);
      expect(Math.abs(rms!.get('dc')! - theirs.average)).toBeLessThan(allowed);
      if (theirs.duty !== null) expect(Math.abs(rms!.get('duty')! - 100 * theirs.duty)).toBeLessThan(1.5);
      if (theirs.frequency !== null) expect(rms!.get('hz')! / theirs.frequency).toBeCloseTo(1, 2);
    },
    60_000,
  );
});

test('a sine reads its RMS value on both kinds of meter (amplitude over √2, textbook)', () => {
  const { circuit } = readDeck('t\nV1 a 0 SIN(3 10 50)\nR1 a 0 1k');
  for (const acResponse of ['true-rms', 'average'] as const)
    expect(readRunning(circuit, [{ id: 'a', mode: 'acv', red: 'a', black: '0' }], { acResponse }).readings.get('a')).toBeCloseTo(10 / Math.SQRT2, 2);
});

test('a square wave reads 11 % too much on an average-responding meter (form factor 1.11, textbook)', () => {
  const { circuit } = readDeck('t\nV1 a 0 PULSE(-5 5 0 1u 1u 10m 20m)\nR1 a 0 1k');
  const read = (acResponse: 'true-rms' | 'average') =>
    readRunning(circuit, [{ id: 'a', mode: 'acv', red: 'a', black: '0' }], { acResponse }).readings.get('a')!;
  expect(read('true-rms')).toBeCloseTo(5, 2);
  expect(read('average')).toBeCloseTo(5 * FORM_FACTOR, 2);
});

describe('windows of circuits that cannot be computed say why', () => {
  const windows = (deck: string) =>
    windowsOf({ circuit: readDeck(deck).circuit, observables: [{ id: 'x', mode: 'dcv', red: 'a', black: '0' }] }, { parts: [], neighbours: [] }, HANDHELD).get(
      'x',
    )!;
  test.each([
    ['two sources that fight', 't\nV1 a 0 5\nV2 a 0 6\nR1 a 0 1k', /V2 closes a loop of voltage sources/],
    ['a source straight across a coil', 't\nV1 a 0 5\nL1 a 0 1m\nR1 a 0 1k', /L1 is directly across a steady source/],
    ['the same through a second coil', 't\nV1 a 0 5\nL1 a m 1m\nL2 m 0 1m\nR1 a 0 1k', /is directly across a steady source/],
  ])('%s', (_, deck, why) => {
    expect(windows(deck)).toEqual({ none: expect.stringMatching(why) as unknown });
  });
  test('an alternating source across a coil is none of these', () => {
    expect(computedWindow(windows('t\nV1 a 0 SIN(0 5 50)\nL1 a m 100m\nR2 m 0 10\nR1 a 0 1k'))).not.toBeNull();
  });
  test('AC volts of a board that rests are none, within the meter’s counts', () => {
    const { circuit } = readDeck('t\nV1 a 0 5\nR1 a 0 1k');
    const w = computedWindow(
      windowsOf({ circuit, observables: [{ id: 'x', mode: 'acv', red: 'a', black: '0' }] }, { parts: [], neighbours: [] }, HANDHELD).get('x'),
    )!;
    expect(w.high).toBeLessThan(0.01);
    expect(w.low).toBeLessThanOrEqual(0);
  });
});

describe('waves at their place', () => {
  const errors = (card: string) => readDeck(`t\n${card}\nR1 a 0 1k`).diagnostics.filter((d) => d.severity === 'error');
  test.each([
    ['V1 a 0 PULSE(0 5 0 1u 1u 1m 0)', /period of zero/],
    ['V1 a 0 SIN(0 5 0)', /no frequency/],
    ['V1 a 0 PWL(0 1 0 2)', /do not rise/],
  ])('%s', (card, why) => {
    expect(errors(card)[0]).toMatchObject({ line: 2, message: expect.stringMatching(why) as unknown });
  });
  test('a source gives its wave and its steady value in either order', () => {
    for (const card of ['V1 a 0 DC 3 SIN(0 5 50)', 'V1 a 0 SIN(0 5 50) DC 3', 'V1 a 0 SIN(0 5 50) AC 1 DC 3']) {
      const { circuit, diagnostics } = readDeck(`t\n${card}\nR1 a 0 1k`);
      expect(diagnostics).toEqual([]);
      expect(circuit.parts[0]).toMatchObject({ dc: 3, wave: { shape: 'sin', amplitude: 5, frequency: 50 } });
    }
  });
  test('a deck without ground says so', () => {
    expect(readDeck('t\nV1 a b 5\nR1 a b 1k').diagnostics[0]!.message).toMatch(/connected to ground/);
  });
});
