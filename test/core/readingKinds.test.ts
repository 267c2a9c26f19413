/** Least and most of a moving signal, warmth, turning to an extreme, what is set between checks, claims and recordings. */
import fc from 'fast-check';
import { readDeck } from '@/core/circuit/deck/read';
import { steadyState } from '@/core/circuit/steady';
import { type MeasureCheck, newKit, patch, remove, type Sheet, type Stage, withDependents } from '@/core/kit';
import { EMPTY_SHEET } from '@/core/kit/sheet';
import { asSeenBy, type ClaimMeans, claimWords, compareFigures, judgeClaim, movedOnto, notSeen, ofCursors, provedBy, waveformOf } from '@/core/load';
import { cardOf, checkTargets, deriveStages, extremeOf, freshTaken, lastVerdict, seriesOf } from '@/core/loop';
import { sellerLetter } from '@/core/report';
import { computedWindow } from '@/core/stage';
import { loadCurve } from '@/core/power';
import { FLASHER } from '../support/decks';
import { append, at, log, setupOf, windowsOfKit } from '../support/kits';

const measure = (id: string, mode: MeasureCheck['mode'], net: string, more: Partial<MeasureCheck> = {}): MeasureCheck => ({
  id,
  what: 'measure',
  title: id,
  mode,
  red: { net },
  black: { net: '0' },
  ...more,
});
const stage = (checks: Stage['checks'], more: Partial<Stage> = {}): Stage => ({
  id: 's',
  title: 'On',
  kind: 'run',
  fits: [],
  supplies: [{ source: 'V1', volts: 9, limit: 0.5 }],
  checks,
  ...more,
});
const kitOf = (deck: string, checks: Stage['checks'], more: Partial<Sheet> = {}) =>
  newKit({ ...EMPTY_SHEET, circuit: deck === '' ? null : { deck, neighbours: [] }, stages: [stage(checks)], ...more }, at(0));

describe('the least and the most of a signal', () => {
  it('on a board that runs hold the extremes of its course, and lie around the average', () => {
    const windows = windowsOfKit(kitOf(FLASHER, [measure('low', 'vmin', 'b1'), measure('high', 'vmax', 'b1'), measure('mean', 'dcv', 'b1')]));
    const { settled } = steadyState(readDeck(FLASHER).circuit, ['b1'], {});
    const volts = Array.from(settled.volts['b1']!);
    const [low, high, mean] = ['low', 'high', 'mean'].map((id) => computedWindow(windows[`s/${id}`])!);
    const [least, most] = [Math.min(...volts), Math.max(...volts)];
    // Its base is driven below ground by nearly the whole supply (closed form: −(Vcc − Vbe) + Vce,sat).
    expect(least).toBeLessThan(-7);
    expect(low!.low).toBeLessThanOrEqual(least);
    expect(low!.high).toBeGreaterThanOrEqual(least);
    expect(high!.low).toBeLessThanOrEqual(most);
    expect(high!.high).toBeGreaterThanOrEqual(most);
    expect(low!.high).toBeLessThan(mean!.low);
    expect(mean!.high).toBeLessThan(high!.high);
  }, 60_000);

  it('on a board that rests are its volts', () => {
    const windows = windowsOfKit(
      kitOf('d\nV1 in 0 9\nR1 in a 1k\nR2 a 0 2k\n.end', [measure('low', 'vmin', 'a'), measure('high', 'vmax', 'a'), measure('mean', 'dcv', 'a')]),
    );
    const [low, high, mean] = ['low', 'high', 'mean'].map((id) => computedWindow(windows[`s/${id}`])!);
    expect(low).toEqual(mean);
    expect(high).toEqual(mean);
  });
});

describe('warmth', () => {
  const kit = kitOf('d\nV1 in 0 9\nR1 in 0 1k\n.end', [measure('sink', 'temp', 'in', { window: { low: null, high: 60 } }), measure('bare', 'temp', 'in')]);

  it('is judged by a typed window and the thermometer’s own error; a circuit says nothing of it, and why', () => {
    const read = (reading: number) =>
      deriveStages(log(kit, { kind: 'read', stage: 's', check: 'sink', reading, meter: 'handheld' }), {})[0]!.checks[0]!.verdict;
    expect(read(45)).toBe('in');
    // ±(1 % + 2 °C), the usual thermocouple (common practice, no source).
    expect(read(61)).toBe('doubtful');
    expect(read(70)).toBe('out');
    expect(windowsOfKit(kit)['s/bare']).toEqual({ none: expect.stringContaining('says nothing about heat') as string });
  });
});

describe('turning to the least or the most', () => {
  it('is there once it was passed and came back, not before', () => {
    const steps = (...readings: number[]) => extremeOf(readings, 'least');
    expect(steps()).toMatchObject({ best: null, there: false });
    expect(steps(5, 4, 3)).toMatchObject({ best: 3, there: false, passed: false });
    expect(steps(5, 4, 3, 3.5)).toMatchObject({ best: 3, there: false, passed: true });
    expect(steps(5, 4, 3, 3.5, 3.02)).toMatchObject({ best: 3, there: true });
  });

  it('the least of readings is the most of their opposites (property)', () => {
    fc.assert(
      fc.property(fc.array(fc.double({ min: -10, max: 10, noNaN: true }), { maxLength: 12 }), (readings) => {
        const [least, most] = [
          extremeOf(readings, 'least'),
          extremeOf(
            readings.map((r) => 0 - r),
            'most',
          ),
        ];
        expect(most.there).toBe(least.there);
        expect(most.passed).toBe(least.passed);
        if (least.best !== null) expect(most.best).toBeCloseTo(0 - least.best, 12);
      }),
    );
  });

  it('keeps its stage open until then', () => {
    const kit = kitOf('', [measure('hum', 'acv', 'out', { adjust: 'RV1', aim: 'least' })]);
    const read = (...all: number[]) => log(kit, ...all.map((reading) => ({ kind: 'read' as const, stage: 's', check: 'hum', reading, meter: 'handheld' })));
    expect(deriveStages(read(0.5, 0.2, 0.1), {})[0]!.status).toBe('current');
    expect(deriveStages(read(0.5, 0.2, 0.1, 0.15, 0.1), {})[0]!.status).toBe('passed');
  });
});

it('a table of jumpers is set and taken back step by step', () => {
  const set = (ref: string, value: number, text: string) => ({ ref, value, text });
  const kit = kitOf('', [
    measure('one', 'dcv', 'a', { settings: [set('J1', 1, 'J1 closed')] }),
    measure('two', 'dcv', 'a', { settings: [set('J1', 1, 'J1 closed'), set('J2', 1, 'J2 closed')] }),
    measure('three', 'dcv', 'a'),
  ]);
  const notes = checkTargets(kit, {}).flatMap(({ target }) => (target.kind === 'check' ? [cardOf(kit, target, {}).note] : []));
  expect(notes).toEqual(['Set first: J1 closed.', 'Set first: J2 closed.', 'Set first: J1 back as it was; J2 back as it was.']);
});

it('a part with a new name keeps its checks; one that is gone leaves none behind that names it', () => {
  const line = { id: 'rv', kind: 'trimmer' as const, label: '10 k', value: 1e4, tolerance: null, quantity: 1, refs: ['RV1'] };
  const kit = kitOf(
    '',
    [
      measure('turned', 'dcv', 'a', { adjust: 'RV1', settings: [{ ref: 'RV1', value: 0.5, text: 'RV1 in the middle' }] }),
      { id: 'tone', what: 'observe', title: 'tone', action: 'listen', expect: 'it stops', adjust: 'RV1' },
    ],
    { lines: [line] },
  );
  const renamed = log(kit, ...withDependents(kit, patch(kit, 'lines', 'rv', { refs: ['VR7'] })!));
  expect(renamed.sheet.stages[0]!.checks.map((c) => c.adjust)).toEqual(['VR7', 'VR7']);
  expect(renamed.sheet.stages[0]!.checks[0]!.settings![0]!.ref).toBe('VR7');
  const gone = log(kit, ...withDependents(kit, remove(kit, 'lines', 'rv')!));
  expect(gone.sheet.stages[0]!.checks.map((c) => [c.adjust, c.settings?.length ?? 0])).toEqual([
    [undefined, 0],
    [undefined, 0],
  ]);
});

describe('a claim with what it depends on', () => {
  const power: ClaimMeans = {
    kind: 'power',
    topology: 'single-ended',
    outputClass: 'ab',
    supplyVolts: 15,
    supplyAmps: null,
    loadOhms: 4,
    saturationVolts: 0,
    claimedWatts: 30,
    claimedAs: 'rms',
  };
  const current: ClaimMeans = { kind: 'current', volts: 5, amps: 1, inputVolts: 12, junctionToAmbient: 10, ambient: 25, junction: 125 };
  const dropout: ClaimMeans = { kind: 'dropout', volts: 5, inputVolts: 6, dropout: 2 };
  const range: ClaimMeans = { kind: 'range', vref: 1.25, iadj: 5e-5, rTop: 240, rBottom: [0, 5000], inputVolts: 30, dropout: 2, claimed: [1.25, 25] };

  it('is judged before anything is built: (15/2)²/8 is 7 W, 7 W of heat at 10 K/W are 95 °C, 1 V is no 2 V (textbook)', () => {
    expect(judgeClaim(power)).toMatchObject({ possible: false, text: 'at most 7.03 W of sine power' });
    expect(judgeClaim({ ...power, claimedWatts: 7 }).possible).toBe(true);
    expect(judgeClaim(current)).toMatchObject({ possible: true });
    expect(judgeClaim(current).text).toContain('95 °C');
    expect(judgeClaim({ ...current, amps: 1.5 }).possible).toBe(false);
    expect(judgeClaim({ ...current, inputVolts: 4 }).possible).toBe(false);
    expect(judgeClaim(dropout).possible).toBe(false);
    expect(judgeClaim({ ...dropout, inputVolts: 7 }).possible).toBe(true);
    expect(judgeClaim(range).possible).toBe(true);
    expect(judgeClaim({ ...range, inputVolts: 20 }).possible).toBe(false);
  });

  it('becomes readings that what it claims passes and what falls short of it does not', () => {
    const inside = (v: number, p: { low: number | null; high: number | null }) => v >= (p.low ?? -Infinity) && v <= (p.high ?? Infinity);
    const [sine] = provedBy({ ...power, claimedWatts: 7 });
    expect(inside(Math.sqrt(7 * 4), sine!)).toBe(true);
    expect(inside(Math.sqrt(5 * 4), sine!)).toBe(false);
    const [low, high] = provedBy(range);
    expect([inside(1.25, low!), inside(2, low!), inside(25, high!), inside(20, high!)]).toEqual([true, false, true, false]);
    const fixed = provedBy({ kind: 'frequency', of: { form: 'rc-2.3', r: [1e4, 1e4], c: [1e-6, 1e-6] }, stages: 0, claimed: [43, 43] });
    expect(fixed).toHaveLength(1);
    expect(inside(43.5, fixed[0]!) && !inside(50, fixed[0]!)).toBe(true);
    expect(provedBy(current)[0]!.note).toContain('5.00 Ω');
    expect(claimWords(power)).toBe('30.0 W into 4.0 Ω');
  });

  it('that is impossible is written to the seller', () => {
    const kit = kitOf('', [], { claims: [{ id: 'c', text: '30 W of music', means: power }] });
    expect(sellerLetter(kit)).toContain('“30 W of music”: at most 7.03 W of sine power.');
  });
});

describe('a recording held against the circuit', () => {
  const wave = (hertz: number, level: number, shift = 0) => {
    const t = Float64Array.from({ length: 2000 }, (_, i) => i * 1e-4);
    return { t, v: t.map((x) => level + Math.sin(2 * Math.PI * hertz * (x + shift))) };
  };

  it('is laid over it: the first rise of both falls on one moment', () => {
    const [recorded, course] = [wave(50, 2), wave(50, 2, 0.007)];
    const moved = movedOnto(recorded, course);
    const at = (r: { t: Float64Array; v: Float64Array }, x: number) => r.v[r.t.findIndex((t) => t >= x)]!;
    for (const x of [0.05, 0.083, 0.11]) expect(Math.abs(at(moved, x) - at(recorded, x))).toBeLessThan(0.08);
  });

  it('gives figures side by side, by how much they are apart', () => {
    const figures = compareFigures(waveformOf(wave(55, 2)), waveformOf(wave(50, 2)), 'dc');
    expect(figures.find((f) => f.name === 'Frequency')!.off).toBeCloseTo(0.1, 2);
    expect(figures.find((f) => f.name === 'Average')!.off!).toBeLessThan(0.02);
    expect(compareFigures(waveformOf(wave(55, 2)), waveformOf(wave(50, 2)), 'ac').map((f) => f.name)).toEqual(['Frequency', 'Duty', 'Amplitude']);
  });

  it('says what an instrument cannot see: no steady part on AC, nothing fast on a meter', () => {
    const course = wave(50, 2);
    expect(waveformOf(asSeenBy('ac', course)).average).toBeCloseTo(0, 2);
    expect(notSeen('ac', waveformOf(course))).toContain('2.00 V are taken away');
    expect(notSeen('meter', waveformOf(course))).toContain('it shows a steady average');
    expect(new Set(asSeenBy('meter', course).v).size).toBe(1);
    expect(notSeen('dc', waveformOf(course))).toBeNull();
  });

  it('two cursors a period apart give frequency and swing; at one moment they say nothing', () => {
    expect(ofCursors({ from: { t: 0, v: -1 }, to: { t: 0.02, v: 2 } })).toEqual({ frequency: 50, swing: 3 });
    expect(() => ofCursors({ from: { t: 1, v: 0 }, to: { t: 1, v: 2 } })).toThrow('one period apart');
  });
});

describe('a load on an output', () => {
  it('lets it sag by the resistance behind it (Thévenin), and says nothing of a circuit that runs', () => {
    // 9 V behind 100 Ω: 10 mA take 1 V away.
    const kit = kitOf('x\nV1 in 0 9\nR1 in out 100\n.end', []);
    const { volts } = loadCurve(setupOf(kit), 's', 'out', [0, 0.01, 0.05])!;
    expect(volts.map((v) => Number(v!.toFixed(6)))).toEqual([9, 8, 4]);
    expect(loadCurve(setupOf(kit), 's', 'nowhere', [0])).toBeNull();
    expect(loadCurve(setupOf(kitOf(FLASHER, [])), 's', 'c1', [0])).toBeNull();
  });
});

describe('a check that is read more than once', () => {
  const kit = kitOf('', [measure('v', 'dcv', 'a', { window: { low: 4, high: 6 } })]);
  type Reads = readonly (readonly [minute: number, reading: number | 'over'])[];
  const readAt = (...all: Reads) =>
    all.reduce(
      (k, [minute, reading], i) =>
        append(
          k,
          { kind: 'read', stage: 's', check: 'v', reading, meter: 'handheld' },
          { id: `r${i}`, at: new Date(Date.UTC(2026, 0, 1) + 60_000 * minute).toISOString() },
        ),
      kit,
    );
  const series = (...all: Reads) => {
    const k = readAt(...all);
    return seriesOf(freshTaken(k, k.sheet.stages[0]!, 'v'), 'dcv');
  };

  it('is a series from the second reading on; over-range counts for nothing', () => {
    expect(series([0, 5])).toBeNull();
    expect(series([0, 5], [1, 'over'])).toBeNull();
    expect(series([0, 5], [1, 5.1], [2, 4.9])).toMatchObject({ count: 3, low: 4.9, high: 5.1 });
  });
  it('drifts by its slope (least squares); within half a minute nobody can tell', () => {
    expect(series([0, 5], [1, 5.1], [2, 5.2])!.drift!.perMinute).toBeCloseTo(0.1, 9);
    expect(series([0, 5], [4, 4.8])!.drift!.perMinute).toBeCloseTo(-0.05, 9);
    expect(series([0, 5], [0.2, 5.1])!.drift).toBeNull();
  });
  it('is told from the third reading on, beyond the steps of the meter; one bad contact and what has settled are no drift', () => {
    const told = (...all: Reads) => series(...all)!.drift!.told;
    expect(told([0, 5], [1, 5.1])).toBe(false);
    expect(told([0, 5], [1, 5.1], [2, 5.2])).toBe(true);
    // The display jumps by a count or two.
    expect(told([0, 5], [1, 5.001], [2, 5.002])).toBe(false);
    expect(told([0, 3], [1, 5], [2, 5])).toBe(false);
    expect(told([0, 5], [1, 5.1], [2, 5.2], [3, 5.2], [4, 5.2])).toBe(false);
  });
  it('makes a reading that fits doubtful, and so its stage, until it has settled', () => {
    const status = (...all: Reads) => deriveStages(readAt(...all), windowsOfKit(kit))[0]!;
    const drifting: Reads = [
      [0, 4.4],
      [1, 4.45],
      [2, 4.5],
    ];
    expect(status(...drifting)).toMatchObject({ status: 'doubtful', checks: [{ verdict: 'doubtful', drifts: true }] });
    expect(lastVerdict(readAt(...drifting), windowsOfKit(kit))!.detail).toContain('rises by 50 mV a minute');
    expect(status(...drifting, [3, 4.5], [4, 4.5])).toMatchObject({ status: 'passed', checks: [{ verdict: 'in', drifts: false }] });
  });
  it('begins anew with the board: a repair voids what was read before', () => {
    const k = append(readAt([0, 5], [1, 5.1]), { kind: 'repaired', refs: ['R1'], note: 'soldered' }, { id: 'z', at: '2026-01-01T01:00:00.000Z' });
    expect(seriesOf(freshTaken(k, k.sheet.stages[0]!, 'v'), 'dcv')).toBeNull();
  });
});
