/** Boards that never rest: windows, readings, suspects and consequences of running signals. */
import { deriveStages, isMeasure } from '@/core/loop/progress';
import { diagnoserOf, findSuspects } from '@/core/diagnose/investigation';
import { readDraft, makeSheet } from '@/core/draft/newKit';
import { readDeck } from '@/core/circuit/deck/read';
import { steadyState } from '@/core/circuit/steady';
import { between, risesOf, statisticsOf } from '@/core/circuit/traceStatistics';
import { ConsequenceSolver } from '@/core/consequence';
import { newKit, type EntryBody, type KitState } from '@/core/kit';
import type { Fault } from '@/core/fault/fault';
import { hideFault, practiceOf } from '@/stand-in';
import { ENGINE } from '@/workers/engine';
import { FLASHER } from '../support/decks';
import { at, investigationOf, log, reworked, setupOf, windowsOfKit } from '../support/kits';

const NO_PROGRESS = () => undefined;

function flasher(fault: Fault | null = null): KitState {
  const draft = readDraft('', FLASHER);
  const kit = newKit(makeSheet('Two lamps', draft, FLASHER, ['c1', 'c2', 'b1', 'b2']), at(0));
  return fault ? reworked(kit, {}, { standIn: { fault: hideFault(fault), seed: 3, pieces: {} } }) : kit;
}

describe('a course over whole periods', () => {
  test('the average of a square wave does not depend on where it is cut', () => {
    const times = Float64Array.from({ length: 4001 }, (_, i) => i / 1000);
    const volts = times.map((t) => (t % 1 < 0.25 ? 8 : 0));
    for (const cut of [3300, 3600, 4001]) {
      const [t, v] = [times.subarray(100, cut), volts.subarray(100, cut)];
      const rises = risesOf(t, v);
      const whole = between(t, v, rises[0]!, rises.at(-1)!);
      expect(statisticsOf(whole.times, whole.volts).average).toBeCloseTo(2, 1);
    }
  });
  test('a rising line rises once, a still one never', () => {
    const times = Float64Array.of(0, 1, 2);
    expect(risesOf(times, Float64Array.of(0, 1, 2))).toEqual([1]);
    expect(risesOf(times, Float64Array.of(1, 1, 1))).toEqual([]);
  });
  test('a flasher between two flips is not taken for a board at rest; its period is 2 ln 2 R C (closed form of the astable)', () => {
    const { circuit } = readDeck(FLASHER);
    const { statistics, steady } = steadyState(circuit, ['c1'], { periodsOf: ['c1'] });
    expect(steady).toBe(true);
    const closed = 1 / (2 * Math.LN2 * 47e3 * 1e-6);
    expect(Math.abs(statistics['c1']!.frequency! / closed - 1)).toBeLessThan(0.12);
  });
});

describe('a flasher as a kit of one’s own', () => {
  const kit = flasher();
  const powered = kit.sheet.stages.filter((s) => s.supplies.length > 0);
  const windows = windowsOfKit(kit);

  test('volts, currents and the frequency have windows; a healthy stand-in lies inside all of them', () => {
    const healthy = flasher({ kind: 'healthy', parts: [], detail: {} });
    const checks = powered.flatMap((s) => s.checks.flatMap((c) => (c.what === 'measure' ? [{ stage: s.id, check: c.id, mode: c.mode }] : [])));
    expect(checks.map((c) => c.mode)).toEqual(expect.arrayContaining(['dcv', 'dca', 'acv', 'frequency']));
    const read = checks.map(({ stage, check }, i): EntryBody => {
      const reading = ENGINE.readBoard({ practice: { ...practiceOf(healthy), attempt: i }, stage, observable: `${stage}/${check}` }, NO_PROGRESS);
      expect(reading).not.toBeNull();
      return { kind: 'read', stage, check, reading: reading!, meter: 'handheld' };
    });
    const verdicts = deriveStages(log(healthy, ...read), windows).flatMap((s) => s.checks.flatMap((c) => (isMeasure(c) && c.entry ? [c.verdict] : [])));
    expect(verdicts).toEqual(checks.map(() => 'in'));
  });

  test('three times the timing capacitors, a third of the frequency', () => {
    const solver = new ConsequenceSolver(setupOf(kit));
    const { shifts } = solver.of({ values: { C1: 3e-6, C2: 3e-6 } }, windows);
    const hz = shifts.find((s) => s.mode === 'frequency')!;
    expect((hz.after as number) / (hz.before as number)).toBeCloseTo(1 / 3, 1);
    expect(hz.leaves).toBe(true);
  });

  test('a swept base resistor gives the range of the frequency', () => {
    const hz = new ConsequenceSolver(setupOf(kit)).sweep('R3', [33e3, 47e3, 68e3]).find((s) => s.mode === 'frequency')!;
    const [fast, middle, slow] = hz.readings as number[];
    expect(fast!).toBeGreaterThan(middle!);
    expect(middle!).toBeGreaterThan(slow!);
  });

  test('a base resistor supposed away stalls it: 0 Hz, and volts of a board that rests (one lamp on, the other off)', () => {
    const { shifts, unsolved } = new ConsequenceSolver(setupOf(kit)).of({ removed: ['R4'] }, windows);
    expect(unsolved).toEqual([]);
    const after = (id: string) => shifts.find((s) => s.observable === id)!.after as number;
    expect(after('p-signals/hz-tp1')).toBe(0);
    expect(after('p-power/v-c1')).toBeLessThan(0.2);
    expect(after('p-power/v-c2')).toBeCloseTo(9, 1);
    expect(Math.abs(after('p-power/v-b2'))).toBeLessThan(0.7);
  });

  test('a base resistor that is not connected is found from averages and a counter', () => {
    const faulty = flasher({ kind: 'open', parts: ['R4'], detail: {} });
    const places = [...['v-c1', 'v-c2', 'v-b1', 'v-b2'].map((check) => ['p-power', check] as const), ['p-signals', 'hz-tp1'] as const];
    const read = places.flatMap(([stage, check], i): EntryBody[] => {
      const reading = ENGINE.readBoard({ practice: { ...practiceOf(faulty), attempt: i }, stage, observable: `${stage}/${check}` }, NO_PROGRESS);
      return reading === null ? [] : [{ kind: 'read', stage, check, reading, meter: 'handheld' }];
    });
    expect(read).toHaveLength(5);
    const investigation = investigationOf(log(faulty, ...read))!;
    const { suspects } = findSuspects(investigation, diagnoserOf(investigation));
    expect(suspects.slice(0, 3).map((s) => s.faults.map((f) => `${f.kind} ${f.parts.join()}`).join())).toContain('open R4');
    expect(suspects.find((s) => s.faults.length === 0)?.probability ?? 0).toBeLessThan(0.01);
  });
});
