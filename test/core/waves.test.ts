/** Sources over time and what a meter makes of a course (definitions of the SPICE sources; closed forms of any textbook). */
import fc from 'fast-check';
import { readDeck } from '@/core/circuit/deck/read';
import type { Waveform } from '@/core/circuit/netlist';
import { isRunning, steadyState } from '@/core/circuit/steady';
import { statisticsOf } from '@/core/circuit/traceStatistics';
import { transient } from '@/core/circuit/transient';
import { breakTimes, levelAt, longestStep } from '@/core/circuit/waveform';

const sine: Waveform = { shape: 'sin', offset: 1, amplitude: 2, frequency: 50, delay: 0.01, damping: 0, phase: 0 };
const pulse: Waveform = { shape: 'pulse', low: -1, high: 4, delay: 1e-3, rise: 1e-4, fall: 2e-4, width: 5e-4, period: 2e-3 };
const steps: Waveform = { shape: 'pwl', times: [0, 1, 2, 2.5], levels: [0, 10, 10, -5] };

describe('levels', () => {
  test.each<[Waveform, number, number]>([
    [sine, 0, 1],
    [sine, 0.01, 1],
    [sine, 0.015, 3],
    [sine, 0.025, -1],
    [pulse, 0, -1],
    [pulse, 1e-3 + 5e-5, 1.5],
    [pulse, 1.3e-3, 4],
    [pulse, 1e-3 + 7e-4, 1.5],
    [pulse, 1.9e-3, -1],
    [pulse, 3.3e-3, 4],
    [steps, -1, 0],
    [steps, 0.5, 5],
    [steps, 1.5, 10],
    [steps, 2.25, 2.5],
    [steps, 9, -5],
  ])('%j at %f s', (wave, time, level) => {
    expect(levelAt(wave, time)).toBeCloseTo(level, 6);
  });
  test('damping takes the amplitude down by e in its time constant', () => {
    const damped: Waveform = { ...sine, offset: 0, delay: 0, damping: 100 };
    expect(levelAt(damped, 0.005)).toBeCloseTo(2 * Math.exp(-0.5), 9);
  });
  test('a pulse without a period is one pulse', () => {
    const once: Waveform = { ...pulse, period: Infinity };
    expect(levelAt(once, 1.3e-3)).toBe(4);
    expect(levelAt(once, 1)).toBe(-1);
  });
  test('law: a pulse stays between its levels and repeats', () => {
    fc.assert(
      fc.property(fc.double({ min: 1e-3, max: 0.1, noNaN: true }), (t) => {
        const v = levelAt(pulse, t);
        expect(v).toBeGreaterThanOrEqual(-1);
        expect(v).toBeLessThanOrEqual(4);
        expect(levelAt(pulse, t + 2e-3)).toBeCloseTo(v, 6);
      }),
    );
  });
});

describe('steps', () => {
  test('a step ends on every corner, and on no more than wanted', () => {
    const found = breakTimes(pulse, 4e-3, 100);
    for (const corner of [1e-3, 1.1e-3, 1.6e-3, 1.8e-3, 3e-3, 3.1e-3]) expect(found.some((t) => Math.abs(t - corner) < 1e-12)).toBe(true);
    expect(found.every((t) => t > 0 && t < 4e-3)).toBe(true);
    expect(breakTimes({ ...pulse, period: 1e-9, delay: 0, rise: 1e-10, fall: 1e-10, width: 1e-10 }, 1, 50).length).toBeLessThan(60);
    expect(breakTimes(steps, 2.2, 10)).toEqual([1, 2]);
    expect(breakTimes(sine, 1, 10)).toEqual([0.01]);
  });
  test('a step is a small share of a period', () => {
    expect(longestStep(sine)).toBeCloseTo(0.02 / 80, 9);
    expect(longestStep(pulse)).toBeCloseTo(1e-4, 9);
    expect(longestStep(steps)).toBe(Infinity);
    expect(longestStep({ ...sine, frequency: 0 })).toBe(Infinity);
  });
});

describe('statistics', () => {
  const sampled = (f: (t: number) => number, span: number, n = 20_001) => {
    const times = Float64Array.from({ length: n }, (_, i) => (span * i) / (n - 1));
    return statisticsOf(times, times.map(f));
  };
  test('a sine: average 0, effective û/√2, half its time high', () => {
    const s = sampled((t) => 3 * Math.sin(2 * Math.PI * 10 * t), 1);
    expect(s.average).toBeCloseTo(0, 4);
    expect(s.rms).toBeCloseTo(3 / Math.SQRT2, 3);
    expect(s.frequency).toBeCloseTo(10, 2);
    expect(s.duty).toBeCloseTo(0.5, 2);
  });
  test('a half wave: average û/π, effective û/2', () => {
    const s = sampled((t) => Math.max(0, 5 * Math.sin(2 * Math.PI * 10 * t)), 1);
    expect(s.average).toBeCloseTo(5 / Math.PI, 3);
    expect(s.rms).toBeCloseTo(2.5, 3);
  });
  test('a full wave: average 2 û/π, twice the frequency', () => {
    const s = sampled((t) => Math.abs(5 * Math.sin(2 * Math.PI * 10 * t)), 1);
    expect(s.average).toBeCloseTo(10 / Math.PI, 3);
    expect(s.frequency).toBeCloseTo(20, 1);
  });
  test('a square wave of duty d: average d û, effective û √d', () => {
    const s = sampled((t) => (t % 0.1 < 0.03 ? 8 : 0), 1, 100_001);
    expect(s.average).toBeCloseTo(2.4, 2);
    expect(s.rms).toBeCloseTo(8 * Math.sqrt(0.3), 2);
    expect(s.duty).toBeCloseTo(0.3, 2);
  });
  test('a triangle: effective û/√3', () => {
    const s = sampled((t) => 4 * (2 * Math.abs(2 * ((t * 10) % 1) - 1) - 1), 1);
    expect(s.rms).toBeCloseTo(4 / Math.sqrt(3), 2);
  });
  test('what stands still has no frequency; too few periods have none either', () => {
    const still = sampled(() => 5, 1);
    expect(still).toMatchObject({ frequency: null, duty: null });
    expect([still.average, still.rms].map((v) => Number(v.toFixed(9)))).toEqual([5, 5]);
    expect(sampled((t) => Math.sin(2 * Math.PI * t), 2.2).frequency).toBeNull();
    expect(statisticsOf(Float64Array.of(1), Float64Array.of(-3))).toMatchObject({ average: -3, rms: 3, frequency: null });
  });
  test('law: the average lies between the extremes, the effective value is no less than the average’s size', () => {
    fc.assert(
      fc.property(fc.array(fc.double({ min: -10, max: 10, noNaN: true }), { minLength: 2, maxLength: 50 }), (levels) => {
        const s = statisticsOf(
          Float64Array.from(levels, (_, i) => i),
          Float64Array.from(levels),
        );
        expect(s.average).toBeGreaterThanOrEqual(s.min - 1e-9);
        expect(s.average).toBeLessThanOrEqual(s.max + 1e-9);
        expect(s.rms).toBeGreaterThanOrEqual(Math.abs(s.average) - 1e-9);
      }),
    );
  });
});

describe('courses with a closed form', () => {
  const at = (deck: string, net: string, time: number, stop: number) => {
    const { times, volts } = transient(readDeck(`t\n${deck}`).circuit, { stop, nets: [net] });
    const i = times.findIndex((t) => t >= time);
    const share = (time - times[i - 1]!) / (times[i]! - times[i - 1]!);
    return volts[net]![i - 1]! + share * (volts[net]![i]! - volts[net]![i - 1]!);
  };
  test('R and C: 1 − e^(−t/RC)', () => {
    const deck = 'V1 a 0 PULSE(0 5 0 1n 1n 1 2)\nR1 a b 10k\nC1 b 0 1u';
    for (const t of [0.005, 0.01, 0.03]) expect(at(deck, 'b', t, 0.05)).toBeCloseTo(5 * (1 - Math.exp(-t / 0.01)), 3);
  });
  test('R and L: the current rises with L/R', () => {
    const deck = 'V1 a 0 PULSE(0 10 0 1n 1n 1 2)\nL1 a b 100m\nR1 b 0 100';
    for (const t of [5e-4, 1e-3, 3e-3]) expect(at(deck, 'b', t, 5e-3)).toBeCloseTo(10 * (1 - Math.exp(-t / 1e-3)), 2);
  });
  test('L and C ring at 1/(2π √(LC))', () => {
    const { circuit } = readDeck('t\nI1 0 a PULSE(1m 0 1u 1n 1n 1 2)\nL1 a 0 10m\nC1 a 0 1u\nR1 a 0 1MEG');
    const { times, volts } = transient(circuit, { stop: 0.01, nets: ['a'] });
    const { frequency } = statisticsOf(times, volts['a']!);
    expect(frequency).toBeCloseTo(1 / (2 * Math.PI * Math.sqrt(1e-8)), -1);
  });
  test('ripple of a reservoir: I/(f C), a little less for the time of charging', () => {
    const { circuit } = readDeck('t\nV1 a 0 SIN(0 17 50)\nD1 a p X\nC1 p 0 1000u\nR1 p 0 160\n.model X D(IS=7E-9 N=1.8)');
    const { statistics } = steadyState(circuit, ['p']);
    const ripple = statistics['p']!.max - statistics['p']!.min;
    const closed = statistics['p']!.average / 160 / (50 * 1e-3);
    expect(ripple).toBeLessThan(closed);
    expect(ripple).toBeGreaterThan(0.75 * closed);
  });
  test('an RC low-pass at its corner passes 1/√2', () => {
    const { circuit } = readDeck('t\nV1 a 0 SIN(0 1 159.155)\nR1 a b 1k\nC1 b 0 1u');
    const { statistics } = steadyState(circuit, ['b']);
    expect((statistics['b']!.max - statistics['b']!.min) / 2).toBeCloseTo(Math.SQRT1_2, 2);
  });
});

describe('running or at rest', () => {
  test.each([
    ['a battery', 'V1 a 0 9\nR1 a 0 1k', false],
    ['mains', 'V1 a 0 SIN(0 17 50)\nR1 a 0 1k', true],
    ['a clock', 'V1 a 0 PULSE(0 5 0 1n 1n 1m 2m)\nR1 a 0 1k', true],
    ['started by hand', 'V1 a 0 9\nR1 a b 1k\nC1 b 0 1u\n.ic V(b)=0', true],
    ['a course that ends', 'V1 a 0 PWL(0 0 1m 9)\nR1 a 0 1k', false],
  ])('%s', (_, deck, running) => {
    expect(isRunning(readDeck(`t\n${deck}`).circuit)).toBe(running);
  });
});
