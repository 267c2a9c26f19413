/** The reading that is asked for next: the one that tells most, weighed against its trouble. */
import { readDeck } from '@/core/circuit';
import { Diagnoser } from '@/core/diagnose/diagnoser';
import { type Askable, type Belief, bestReading, type FitWith } from '@/core/diagnose/nextReading';
import { listFaults } from '@/core/fault';
import { newKit, put, type Stage } from '@/core/kit';
import { EMPTY_SHEET } from '@/core/kit/sheet';
import { HANDHELD } from '@/core/meter';
import { answer, diagnoserFor } from '@/core/diagnose/request';
import { fitSample } from '@/core/statistics';
import { at, investigationOf, log } from '../support/kits';

const STAGE: Stage = {
  id: 's',
  title: 'On',
  kind: 'power',
  fits: [],
  supplies: [{ source: 'V1', volts: 9, limit: 0.1 }],
  checks: [{ id: 'a', what: 'measure', title: 'a', mode: 'dcv', red: { net: 'a' }, black: { net: '0' } }],
};

const { circuit } = readDeck('t\nV1 vcc 0 9\nR1 vcc a 10k\nR2 a 0 10k\nR3 a b 4.7k\nR4 b 0 10k');
const part = (ref: string, value: number) => ({
  ref,
  element: ref,
  kind: 'resistor' as const,
  value,
  model: null,
  tolerance: [-0.05, 0.05] as const,
  range: null,
});
const board = { parts: [part('R1', 1e4), part('R2', 1e4), part('R3', 4700), part('R4', 1e4)], neighbours: [] };
const volts = (net: string) => ({ id: net, mode: 'dcv' as const, red: net, black: '0' });
const problem = {
  board,
  scenes: [
    { circuit, observables: [{ id: 'cold', mode: 'ohms' as const, red: 'a', black: 'b' }] },
    { circuit, observables: [volts('a'), volts('b')] },
  ],
  meter: HANDHELD,
};
const ask = (effort: (mode: string) => number) =>
  new Diagnoser(problem, { healthy: 0.4, prior: () => 1, badReading: 0.05, faults: listFaults, effort }).diagnose([{ id: 'b', value: 0 }]).next;

test('with b at nothing, a tells R3 from R1: it is asked for, and how much it tells is said', () => {
  const next = ask(() => 1)!;
  expect(['a', 'cold']).toContain(next.id);
  expect(next.bits).toBeGreaterThan(0.3);
});
test('ohms with the supply off are dear: the voltage is asked for; where they cost nothing the other way round', () => {
  expect(ask((mode) => (mode === 'ohms' ? 10 : 1))!.id).toBe('a');
  expect(ask((mode) => (mode === 'ohms' ? 1 : 10))!.id).toBe('cold');
});
test('what is read already, or tells nothing, is not asked for', () => {
  const all = new Diagnoser(problem).diagnose([
    { id: 'a', value: 5.9 },
    { id: 'b', value: 4.0 },
    { id: 'cold', value: 3800 },
  ]);
  expect(all.next).toBeNull();
});
test('another trouble is weighed anew without working out the faults again', () => {
  const diagnoser = new Diagnoser(problem, {
    healthy: 0.4,
    prior: () => 1,
    badReading: 0.05,
    faults: listFaults,
    effort: (mode) => (mode === 'ohms' ? 10 : 1),
  });
  const next = () => diagnoser.diagnose([{ id: 'b', value: 0 }]).next!.id;
  expect(next()).toBe('a');
  diagnoser.weigh(
    () => 1,
    (mode) => (mode === 'ohms' ? 1 : 10),
  );
  expect(next()).toBe('cold');
});

test('one’s own figures of the instruments reach the fault finder', () => {
  const kit = newKit({ ...EMPTY_SHEET, circuit: { deck: 't\nV1 vcc 0 9\nR1 vcc a 10k\nR2 a 0 10k\n.end', neighbours: [] }, stages: [STAGE] }, at(0));
  const read = log(kit, { kind: 'read', stage: 's', check: 'a', reading: 0, meter: 'handheld' });
  const efforts = (k: typeof kit) => {
    const { effort } = investigationOf(k)!;
    return [effort('dcv'), effort('frequency'), effort('ohms')];
  };
  expect(efforts(read)).toEqual([1, 1.5, 4]);
  expect(efforts(log(read, put(read, 'settings', { name: 'efforts', value: { moving: 2, cold: 9 } })))).toEqual([1, 2, 9]);
});

describe('of readings that tell alike, the one after which the next tells more', () => {
  // Six suspects, alike likely. D and A halve them; behind A, B or C names the very one (log₂ 3 bits), behind D nothing does.
  const LEVELS = { D: [0, 0, 1, 0, 1, 1], A: [0, 0, 0, 1, 1, 1], B: [0, 1, 2, 0, 0, 0], C: [0, 0, 0, 0, 1, 2] };
  const ALONE = [0, 1, 2, 3, 4, 5].map((s) => [s]);
  const columns = Object.keys(LEVELS) as (keyof typeof LEVELS)[];
  const beliefs = [0, 1, 2, 3, 4, 5].map((s): Belief => {
    const values = Float64Array.from([-1, 0, 1].flatMap((shift) => columns.map((c) => 10 * LEVELS[c][s]! + 0.01 * shift)));
    return { sample: { rows: 3, width: columns.length, values }, mass: 1 / 6, suspect: s };
  });
  const askable = columns.map((id, index): Askable => ({ id, index, effort: id === 'B' || id === 'C' ? 1.4 : 1 }));
  const fit: FitWith = ({ values, rows, width }, pick) => {
    const errors = new Float64Array(pick.length ** 2);
    pick.forEach((_, i) => (errors[i * pick.length + i] = 1e-4));
    return fitSample(values, rows, width, pick, errors);
  };

  test('A is asked for, though D comes first and tells as much', () => {
    const next = bestReading(beliefs, askable, fit, new Float64Array(0), ALONE)!;
    expect(next.id).toBe('A');
    expect(next.bits).toBeCloseTo(1, 2);
    const alone = (id: string) =>
      bestReading(
        beliefs,
        askable.filter((a) => a.id === id),
        fit,
        new Float64Array(0),
        ALONE,
      )!.bits;
    expect(alone('D')).toBeCloseTo(alone('A'), 6);
  });
  test('suspects that no reading tells apart are one answer: what only tells them apart is worth nothing', () => {
    // B names 1 or 2 of the three that are one answer; C names 4 or 5, which are answers of their own.
    const kin = ALONE.map((own, s) => (s < 3 ? [0, 1, 2] : own));
    const bits = (id: string, alike: typeof kin) =>
      bestReading(
        beliefs,
        askable.filter((a) => a.id === id),
        fit,
        new Float64Array(0),
        alike,
      )?.bits ?? 0;
    expect(bits('A', kin)).toBeCloseTo(1, 2);
    // By hand: 1/2·log₂ 2 + 1/2·log₂ 6 bits before; after B 4/6·log₂ 4, after C 4/6·(3/4·log₂ 4/3 + 1/4·log₂ 4).
    const before = 0.5 + Math.log2(6) / 2;
    expect(bits('B', kin)).toBeCloseTo(before - 4 / 3, 2);
    expect(bits('C', kin)).toBeCloseTo(before - (4 / 6) * (0.75 * Math.log2(4 / 3) + 0.5), 2);
    expect(bits('B', ALONE)).toBeCloseTo(bits('C', ALONE), 6);
  });
  test('where nothing else is left, the first of those alike', () => {
    expect(bestReading(beliefs, askable.slice(0, 1), fit, new Float64Array(0), ALONE)!.id).toBe('D');
    expect(bestReading(beliefs, [], fit, new Float64Array(0), ALONE)).toBeNull();
  });
});

test('only what has a display is asked for: of two supplies the current of the one that was read, or of the first', () => {
  // R2 alone hangs on the second supply: its current would tell, and no test point does.
  const bom = [
    { ref: 'V1', kind: 'supply', value: '9', tolerance: '2%', note: '' },
    { ref: 'V2', kind: 'supply', value: '5', tolerance: '2%', note: '' },
    { ref: 'R1', kind: 'resistor', value: '1k', tolerance: '5%', note: '' },
    { ref: 'R2', kind: 'resistor', value: '1k', tolerance: '5%', note: '' },
  ];
  const request = {
    deck: 't\nV1 a 0 9\nV2 b 0 5\nR1 a 0 1k\nR2 b 0 1k',
    bom,
    testPoints: [{ name: 'TP1', node: 'a' }],
    neighbours: [],
    meter: { inputResistance: 1e7, percent: 0.5, counts: 2, displayCounts: 4000 },
  };
  const next = (...at: string[]) =>
    answer(diagnoserFor(request), { ...request, readings: at.map((a) => ({ at: a, mode: 'dca', value: a === 'V1' ? 0.009 : 0.005 })) }).next;
  expect(next()).toMatchObject({ at: 'V1', mode: 'dca' });
  expect(next('V1')?.at).not.toBe('V2');
  expect(next('V2')?.at).not.toBe('V1');
});
