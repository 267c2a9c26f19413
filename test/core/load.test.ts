import fc from 'fast-check';
import { readDeck } from '@/core/circuit';
import {
  envelope,
  forecastHeat,
  frequencyClaim,
  lampInSeries,
  type LoadPoint,
  powerClaim,
  rangeClaim,
  readRecording,
  recorded,
  regulationOf,
  trimOf,
  waveformOf,
  shortened,
} from '@/core/load';

describe('heat', () => {
  const curve = (final: number, start: number, tau: number, times: readonly number[]) =>
    times.map((t) => ({ t, celsius: final - (final - start) * Math.exp(-t / tau) }));
  const times = [0, 60, 120, 240, 400, 700];

  it('finds final temperature and time constant of any exponential, in any order of the readings', () => {
    fc.assert(
      fc.property(fc.integer({ min: 40, max: 120 }), fc.integer({ min: 15, max: 35 }), fc.integer({ min: 100, max: 600 }), (final, start, tau) => {
        const forecast = forecastHeat({ readings: curve(final, start, tau, times).reverse(), noise: 0.05, watts: 5, limits: {} });
        expect(forecast.final).toBeCloseTo(final, 2);
        expect(forecast.start).toBeCloseTo(start, 2);
        expect(forecast.tau! / tau).toBeCloseTo(1, 3);
        expect(forecast.sinkToAmbient).toBeCloseTo((final - start) / 5, 2);
      }),
    );
  });

  it('agrees with the closed form of three equally spaced readings: (T1² − T0 T2)/(2 T1 − T0 − T2)', () => {
    const [t0, t1, t2] = [22, 41, 52];
    const readings = [t0, t1, t2].map((celsius, i) => ({ t: 120 * i, celsius }));
    expect(forecastHeat({ readings, noise: 0.1, watts: 10, limits: {} }).final).toBeCloseTo((t1 * t1 - t0 * t2) / (2 * t1 - t0 - t2), 3);
  });

  it('says when the finger and when the junction is in danger, and which sink is needed', () => {
    const readings = curve(90, 20, 200, times);
    const forecast = forecastHeat({ readings, noise: 0.1, watts: 10, ambient: 20, limits: { touch: 60, junction: 125 }, junctionToCase: 4, caseToSink: 1 });
    expect(forecast.touchAt).toBeCloseTo(200 * Math.log(70 / 30), 1);
    expect(forecast.junction).toBeCloseTo(90 + 10 * 5, 2);
    expect(forecast.neededSinkToAmbient).toBeCloseTo(Math.min((60 - 20) / 10, (125 - 20) / 10 - 5), 6);
    expect(forecastHeat({ readings, noise: 0.1, watts: 10, limits: { touch: 95 } }).touchAt).toBeNull();
  });

  it('says that it is too early while the readings lie on a straight line', () => {
    const readings = [0, 10, 20, 30].map((t, i) => ({ t, celsius: 20 + 0.1 * t + [0.1, -0.1, 0.1, -0.1][i]! }));
    expect(forecastHeat({ readings, noise: 0.3, watts: 5, ambient: 20, limits: { touch: 60 } })).toEqual({
      state: 'too-early',
      start: null,
      final: null,
      sigma: null,
      tau: null,
      touchAt: null,
      junction: null,
      sinkToAmbient: null,
      neededSinkToAmbient: 8,
    });
  });
});

describe('a lamp in series', () => {
  const lamp = { volts: 230, watts: 60 };

  it('burns as rated at a short, and stays dark before a light load', () => {
    const short = lampInSeries(lamp, { volts: 230, ohms: 0 }, { kind: 'short' })!;
    expect(short.amps).toBeCloseTo(60 / 230, 6);
    expect(short).toMatchObject({ glow: 'full', loadVolts: 0 });
    expect(lampInSeries(lamp, { volts: 230, ohms: 0 }, { kind: 'ohms', ohms: 20_000 })!.glow).toBe('dark');
  });

  it('shares the source’s volts, and its current is that of the re-rated filament: I ∝ V^0.55 (common practice)', () => {
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 3000 }), fc.integer({ min: 0, max: 50 }), (ohms, inside) => {
        const s = lampInSeries(lamp, { volts: 230, ohms: inside }, { kind: 'ohms', ohms })!;
        expect(s.lampVolts + s.loadVolts + s.amps * inside).toBeCloseTo(230, 6);
        expect(s.loadVolts).toBeCloseTo(s.amps * ohms, 4);
        const rated = (60 / 230) * (s.lampVolts / 230) ** 0.55;
        // Below a tenth of its hot resistance a filament does not fall.
        expect(s.amps).toBeCloseTo(Math.min(rated, s.lampVolts / ((0.1 * (230 * 230)) / 60)), 6);
      }),
    );
  });

  it('starts a load of constant power at the higher of two voltages, or not at all', () => {
    const s = lampInSeries(lamp, { volts: 230, ohms: 0 }, { kind: 'watts', watts: 10 })!;
    expect(s.amps * s.loadVolts).toBeCloseTo(10, 5);
    expect(s.loadVolts).toBeGreaterThan(115);
    expect(lampInSeries(lamp, { volts: 230, ohms: 0 }, { kind: 'watts', watts: 200 })).toBeNull();
  });
});

describe('a load test', () => {
  const points = (n: number, of: (i: number) => LoadPoint) => Array.from({ length: n }, (_, i) => of(i));

  it('gives output resistance, regulation and heat of a source that holds', () => {
    const test = points(6, (i) => ({ amps: 0.2 * i, volts: 5 - 0.01 * i, inputVolts: 12, inputAmps: 0.2 * i + 0.005 }));
    const r = regulationOf({ points: test, setVolts: 5, kind: 'linear' });
    expect(r.outputOhms).toBeCloseTo(0.05, 9);
    expect(r.regulationPercent).toBeCloseTo((100 * 0.05) / 4.95, 9);
    expect(r).toMatchObject({ limitedFrom: null, cause: 'regulated' });
    expect(r.watts[5]).toBeCloseTo(12 * 1.005 - 4.95, 9);
  });

  it.each([
    ['drop-out', 'linear', (i: number): LoadPoint => ({ amps: 0.2 * i, volts: i < 4 ? 9 : 8.4 - 0.2 * (i - 4), inputVolts: 10.4 })],
    ['sag', 'rectified', (i: number): LoadPoint => ({ amps: 0.2 * i, volts: i < 4 ? 9 : 8.4 - 0.3 * (i - 4), inputVolts: 13.5 - 0.6 * i })],
    ['regulator-limit', 'linear', (i: number): LoadPoint => ({ amps: i < 5 ? 0.3 * i : 1.1, volts: i < 4 ? 5 : 4.2 - (i - 4), inputVolts: 12 })],
    ['supply-limit', 'linear', (i: number): LoadPoint => ({ amps: 0.2 * i, volts: i < 4 ? 5 : 4 - (i - 4), inputVolts: i < 4 ? 12 : 7 - (i - 4) })],
    [null, 'linear', (i: number): LoadPoint => ({ amps: 0.2 * i, volts: i < 4 ? 5 : 4.2 - 0.3 * (i - 4) })],
  ] as const)('tells %s apart', (cause, kind, of) => {
    expect(regulationOf({ points: points(7, of), setVolts: kind === 'linear' && cause === 'drop-out' ? 9 : of(0).volts, kind }).cause).toBe(cause);
  });
});

describe('claims', () => {
  it('15 V into 4 ohm: 7 W single-ended, 28 W bridged, whatever the box says: Vs²/(8R), Vs²/(2R) (textbook)', () => {
    const claim = { outputClass: 'ab', supplyVolts: 15, supplyAmps: null, loadOhms: 4, saturationVolts: 0, claimedAs: 'rms' } as const;
    expect(powerClaim({ ...claim, topology: 'single-ended', claimedWatts: 7 }).mostWatts).toBeCloseTo(225 / 32, 9);
    expect(powerClaim({ ...claim, topology: 'bridge', claimedWatts: 28 })).toEqual({ mostWatts: 28.125, possible: true });
    expect(powerClaim({ ...claim, topology: 'bridge', claimedWatts: 50 }).possible).toBe(false);
    expect(powerClaim({ ...claim, topology: 'bridge', claimedWatts: 50, claimedAs: 'peak' }).possible).toBe(true);
  });

  it('a weak supply limits what the voltage would allow', () => {
    const claim = { topology: 'split', supplyVolts: 20, supplyAmps: 0.5, loadOhms: 8, saturationVolts: 2, claimedWatts: 10, claimedAs: 'rms' } as const;
    expect(powerClaim({ ...claim, outputClass: 'ab' }).mostWatts).toBeCloseTo(((Math.PI * 0.5) ** 2 * 8) / 2, 9);
    expect(powerClaim({ ...claim, outputClass: 'd' }).mostWatts).toBe(Math.min(2 * 20 * 0.5, 18 ** 2 / 16));
  });

  it('an adjustable regulator reaches Vref · (1 + R2/R1) + Iadj · R2, and no more than its input allows (data sheet formula)', () => {
    // 25 k over 220 ohm behind 19.7 V: the top of the range is input minus drop-out (common practice, no source).
    const r = rangeClaim({ vref: 1.25, iadj: 50e-6, rTop: 220, rBottom: [0, 25e3], inputVolts: 19.7, dropout: 3, claimed: [1.25, 16] });
    expect(r.low).toBeCloseTo(1.25);
    expect(r.high).toBeCloseTo(16.7);
    expect(r.possible).toBe(true);
    expect(rangeClaim({ vref: 1.25, iadj: 50e-6, rTop: 240, rBottom: [0, 2000], inputVolts: 30, dropout: 2, claimed: [1.25, 25] }).possible).toBe(false);
  });

  it('oscillators: 1/(2.3 R C), the timer’s formula, two transistors; each stage halves', () => {
    // 1 uF with 10 k + 0..200 k: 2.1 to 43 Hz (common practice, no source).
    const r = frequencyClaim({ form: 'rc-2.3', r: [10e3, 210e3], c: [1e-6, 1e-6] }, 0, [2.1, 43]);
    expect(r.low).toBeCloseTo(2.07, 2);
    expect(r.high).toBeCloseTo(43.48, 2);
    expect(r.possible).toBe(true);
    const timer = frequencyClaim({ form: '555-astable', ra: [1e3, 1e3], rb: [10e3, 10e3], c: [1e-6, 1e-6] }, 1, [30, 40]);
    expect(timer.low).toBeCloseTo(1.4427 / (21e3 * 1e-6) / 2, 1);
    expect(frequencyClaim({ form: 'two-transistor', r1: [47e3, 47e3], c1: [10e-6, 10e-6], r2: [47e3, 47e3], c2: [10e-6, 10e-6] }, 0, [1, 2]).low).toBeCloseTo(
      1.535,
      2,
    );
  });
});

describe('a control', () => {
  const divider = (position: string) => readDeck(`pot\nV1 in 0 10\nRA in out ${position}\nRB out 0 5k\n.end`).circuit;

  it('reaches a target where the divider’s formula says', () => {
    const ask = { circuit: divider('1k'), control: ['RA'], between: [1000, 20_000], red: 'out', black: '0' } as const;
    const r = trimOf({ ...ask, target: 4, tolerance: 0.001 });
    expect(r.reachable).toBe(true);
    // 10 V · 5 k/(5 k + R) = 4 V.
    expect(r.position! / 7500).toBeCloseTo(1, 2);
    expect(r.volts[0]).toBeCloseTo(2, 6);
    expect(r.volts[1]).toBeCloseTo(50 / 6, 6);
    expect(r.monotone).toBe(true);
    expect(trimOf({ ...ask, target: 9, tolerance: 0.01 })).toMatchObject({ reachable: false, position: null });
  });

  it('says that a reading comes back, and that one which does not move is monotone', () => {
    const dead = readDeck('dead\nV1 in 0 10\nR1 in 0 1k\nRV in x 1k\n.end').circuit;
    expect(trimOf({ circuit: dead, control: ['RV'], between: [1, 5000], red: 'in', black: '0', target: 10, tolerance: 0.01 })).toMatchObject({
      monotone: true,
      reachable: true,
    });
    // Power into a load has its maximum where the two resistances match: here as a voltage through a multiplier of two dividers.
    const bends = readDeck('bends\nV1 in 0 10\nRU in a 1k\nRL a 0 10k\nE1 b 0 a 0 1\nR2 b c 10k\nQ1 c a 0 QN\n.model QN NPN(IS=1e-14 BF=100)\n.end').circuit;
    expect(trimOf({ circuit: bends, control: ['RU'], between: [1000, 1e6], red: 'c', black: '0', target: 0.3, tolerance: 0.05 }).monotone).toBe(false);
  });

  it('refuses what is no resistor of the circuit', () => {
    expect(() => trimOf({ circuit: divider('1k'), control: ['V1'], between: [1, 2], red: 'out', black: '0', target: 1, tolerance: 1 })).toThrow(
      /V1 is no resistor/,
    );
  });
});

describe('recordings', () => {
  const rows = (of: (t: number) => number, n = 400, step = 1e-4) => Array.from({ length: n }, (_, i) => [i * step, of(i * step)] as const);
  const csv = (data: readonly (readonly [number, number])[], part = ',', head = '') =>
    head + data.map(([t, v]) => `${t.toPrecision(9)}${part}${v.toPrecision(7)}`).join('\n');

  it('square waves of any level and duty: average = low + duty · swing, rms² = high² · duty + low² · (1 − duty) (textbook)', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: -5, max: 5 }),
        fc.integer({ min: 1, max: 12 }),
        fc.integer({ min: 20, max: 80 }),
        fc.integer({ min: 150, max: 400 }),
        (low, swing, percent, hertz) => {
          const duty = percent / 100;
          const w = waveformOf(readRecording(csv(rows((t) => low + ((t * hertz) % 1 < duty ? swing : 0), 1500, 5e-5))));
          expect(w.frequency! / hertz).toBeCloseTo(1, 2);
          expect(Math.abs(w.duty! - duty)).toBeLessThan(0.025);
          expect(Math.abs(w.average - low - duty * swing)).toBeLessThan(0.025 * swing);
          expect(Math.abs(w.rms - Math.sqrt((low + swing) ** 2 * duty + low ** 2 * (1 - duty)))).toBeLessThan(0.03 * swing);
          expect(Math.abs(w.amplitude - swing / 2)).toBeLessThan(0.02 * swing);
        },
      ),
    );
  });

  it('a sine keeps its figures under noise, drift and single wild samples', () => {
    let state = 7;
    const noise = () => {
      state = (state * 1103515245 + 12345) % 2147483648;
      return (state / 2147483648 - 0.5) * 0.1;
    };
    const data = rows((t) => 2 + Math.sin(2 * Math.PI * 130 * t) + 8 * t + noise()).map(([t, v], i) => [t, i === 100 || i === 251 ? v + 9 : v] as const);
    const w = waveformOf(readRecording(csv(data)));
    expect(w.frequency! / 130).toBeCloseTo(1, 2);
    expect(w.amplitude).toBeCloseTo(1, 1);
    expect(w.duty).toBeCloseTo(0.5, 2);
    expect(w.max).toBeLessThan(3.5);
  });

  it('rest and noise have no frequency', () => {
    const rest = waveformOf(readRecording(csv(rows(() => 3.3))));
    expect(rest).toMatchObject({ frequency: null, duty: null, amplitude: 0 });
    expect(rest.average).toBeCloseTo(3.3, 6);
    expect(waveformOf(readRecording(csv(rows((t) => 3 + 0.5 * t)))).frequency).toBeNull();
  });

  it.each([
    ['units in the head', 'time [ms],out [mV]\n', ',', (t: number) => t * 1e3, (v: number) => v * 1e3],
    ['a row of units', 'Time,A\n(us),(V)\n', ',', (t: number) => t * 1e6, (v: number) => v],
    ['settings with units before it', '# timebase: 5 ms/div\nZeit in s;Spannung in V\n', ';', (t: number) => t, (v: number) => v],
    ['tabs', '\ufeff', '\t', (t: number) => t, (v: number) => v],
  ])('reads %s', (_, head, part, time, volts) => {
    const data = rows((t) => 1 + Math.sin(2 * Math.PI * 100 * t));
    const text = csv(
      data.map(([t, v]) => [time(t), volts(v)] as const),
      part,
      head,
    );
    const comma = part === ';' ? text.replaceAll('.', ',') : text;
    const w = waveformOf(readRecording(comma));
    expect(w.frequency).toBeCloseTo(100, 0);
    expect(w.max).toBeCloseTo(2, 1);
  });

  it('channels of one file are read one by one, each in its own unit, by its name', () => {
    const text = ['Model,scope', 'Record Length,400', 'Time (ms),CH1 (V),Probe (mA)', ...rows((t) => t).map(([t]) => `${t * 1e3},${t},${-2e3 * t}`)].join('\n');
    const first = readRecording(text);
    expect(first.channels).toEqual(['CH1 (V)', 'Probe (mA)']);
    expect(first).toMatchObject({ unit: 'V', leftOut: 0 });
    expect(first.v.at(-1)! / first.t.at(-1)!).toBeCloseTo(1, 9);
    const second = readRecording(text, 1);
    expect(second.unit).toBe('A');
    expect(second.v.at(-1)! / second.t.at(-1)!).toBeCloseTo(-2, 9);
  });

  it('what is told of a recording: its channel, how many samples, figures and a curve; over-range is counted, another word is an error', () => {
    const text = ['time,volts', ...rows((t) => Math.sin(2 * Math.PI * 100 * t)).map(([t, v], i) => `${t},${i === 7 ? 'OL' : v}`)].join('\n');
    const told = recorded(text, 0);
    expect(told).toMatchObject({ channels: ['volts'], unit: 'V', samples: 399, leftOut: 1 });
    expect(told.figures.frequency).toBeCloseTo(100, 0);
    expect(told.curve.t).toHaveLength(399);
    expect(() => recorded(text.replace('OL', 'rubbish'), 0)).toThrow(/Line 9 is not a row/);
  });

  it('units below the heads, one for each channel', () => {
    const text = ['x-axis,1,2', 'second,Volt,mV', ...rows((t) => t).map(([t]) => `${t},${t},${t}`)].join('\n');
    expect(readRecording(text, 1).v.at(-1)! / readRecording(text, 0).v.at(-1)!).toBeCloseTo(1e-3, 9);
  });

  it('a clock and a date count as seconds, over midnight too; rows that hold no number are counted', () => {
    const clock = Array.from(
      { length: 20 },
      (_, i) => `${i < 10 ? '23:59:' + String(50 + i) : '00:00:' + String(i - 10).padStart(2, '0')};${i === 3 ? 'OL' : `${i},5`}`,
    );
    const read = readRecording(clock.join('\n'));
    expect([read.t.length, read.leftOut, read.t.at(-1)]).toEqual([19, 1, 86399 - 9 + 19]);
    const dated = Array.from({ length: 12 }, (_, i) => `2026-11-30 23:59:${50 + (i % 10)}.5\t${i}`).slice(0, 10);
    const from = readRecording(dated.join('\n'));
    expect([from.t[0], from.t.at(-1)]).toEqual([0, 9]);
    expect(() => readRecording(Array.from({ length: 12 }, () => '10:00:00,1').join('\n'))).toThrow(/parts of a second/);
  });

  it('a long recording keeps its figures when it is made short, slow or fast, and its tips on the screen', () => {
    fc.assert(
      fc.property(fc.integer({ min: 10, max: 20_000 }), fc.integer({ min: 20, max: 80 }), (hertz, percent) => {
        const n = 150_000;
        const t = Float64Array.from({ length: n }, (_, i) => i * 4e-6);
        const v = t.map((x) => ((x * hertz) % 1 < percent / 100 ? 3 : -1));
        v[77_777] = 30;
        const w = waveformOf(shortened({ t, v }));
        expect(w.frequency! / hertz).toBeCloseTo(1, 2);
        expect(Math.abs(w.duty! - percent / 100)).toBeLessThan(0.1);
        const curve = envelope({ t, v }, 4000);
        expect(curve.t.length).toBeLessThanOrEqual(4002);
        expect(Math.max(...curve.v)).toBe(30);
        expect(curve.t.every((x, i) => i === 0 || x > curve.t[i - 1]!)).toBe(true);
      }),
      { numRuns: 8 },
    );
  });

  it('one column wants its sample rate', () => {
    const column = rows((t) => Math.sin(2 * Math.PI * 100 * t)).map(([, v]) => v.toFixed(5));
    expect(waveformOf(readRecording(['# sample rate: 10 kHz', ...column].join('\r\n'))).frequency).toBeCloseTo(100, 0);
    expect(waveformOf(readRecording(['; sample interval: 100,0 us', ...column.map((c) => c.replace('.', ','))].join('\n'))).frequency).toBeCloseTo(100, 0);
    expect(() => readRecording(column.join('\n'))).toThrow(/sample rate/);
  });

  it('says which line is wrong', () => {
    const good = rows((t) => t).map(([t, v]) => `${t},${v}`);
    expect(() => readRecording([...good.slice(0, 20), 'overload', ...good.slice(21)].join('\n'))).toThrow(/Line 21/);
    expect(() => readRecording([...good, good[3]!].join('\n'))).toThrow(/Time does not rise at line 401/);
    expect(() => readRecording(good.slice(0, 7).join('\n'))).toThrow(/at least 8 rows/);
  });
});
