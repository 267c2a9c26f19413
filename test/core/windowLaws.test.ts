/** Windows and suspects as laws: healthy boards of any maker stay inside, order changes nothing, more readings tell more. */
import fc from 'fast-check';
import { readDeck } from '@/core/circuit/deck/read';
import { Diagnoser } from '@/core/diagnose/diagnoser';
import { FaultSampler } from '@/core/specimen/predict';
import { MODEL_SPREADS, type ModelSpread, type Observable, type Problem, type Reading } from '@/core/specimen/problem';
import { fromScale } from '@/core/specimen/scale';
import { specimenOf } from '@/core/specimen/specimen';
import { applyFault } from '@/core/fault/apply';
import type { Board, BoardPart } from '@/core/fault/board';
import { type Fault, HEALTHY } from '@/core/fault/fault';
import { HANDHELD, uncertaintyOf } from '@/core/meter';
import { computedWindow } from '@/core/stage';
import { windowsOf } from '@/core/stage/windows';

interface Kit {
  readonly name: string;
  readonly problem: Problem;
}

const part = (ref: string, kind: BoardPart['kind'], value: number | null, tolerance: number, rest: Partial<BoardPart> = {}): BoardPart => ({
  ref,
  element: ref,
  kind,
  value,
  model: null,
  tolerance: [-tolerance, tolerance],
  range: null,
  measured: undefined,
  ...rest,
});

function kit(name: string, lines: string, parts: readonly BoardPart[], nets: readonly string[]): Kit {
  const { circuit, diagnostics } = readDeck(`${name}\n${lines}\n.end`);
  if (diagnostics.length > 0) throw new Error(diagnostics[0]!.message);
  const board: Board = { parts, neighbours: [] };
  const observables: Observable[] = [
    { id: 'supply', mode: 'dca', source: 'V1' },
    ...nets.map((net): Observable => ({ id: net, mode: 'dcv', red: net, black: '0' })),
  ];
  return { name, problem: { board, scenes: [{ circuit, observables }], meter: HANDHELD } };
}

const KITS: readonly Kit[] = [
  kit(
    'lamp and follower',
    'V1 vcc 0 9\nR1 vcc la 470\nD1 la 0 LR\nR2 vcc b 22k\nR3 b 0 33k\nQ1 vcc b e NS\nR4 e 0 1k\n.model LR D(IS=7.7E-18 N=2 RS=2)\n.model NS NPN(IS=1.5E-14 BF=250 VAF=80 BR=4)',
    [
      part('V1', 'supply', 9, 0.02),
      part('R1', 'resistor', 470, 0.05),
      part('D1', 'led', null, 0, { model: 'LR' }),
      part('R2', 'resistor', 22e3, 0.05),
      part('R3', 'resistor', 33e3, 0.05),
      part('Q1', 'npn', null, 0, { model: 'NS', range: [110, 450] }),
      part('R4', 'resistor', 1000, 0.05),
    ],
    ['vcc', 'la', 'b', 'e'],
  ),
  kit(
    'zener supply',
    'V1 in 0 15\nD1 in p DR\nR1 p z 820\nD2 0 z Z5\nQ1 p z o NS\nR2 o 0 560\nR3 o l 680\nD3 l 0 LG\n.model DR D(IS=7E-9 N=1.8 RS=0.04)\n.model Z5 D(IS=1E-14 N=1.1 RS=6 BV=5.6 IBV=5m)\n.model LG D(IS=2.3E-20 N=2 RS=3)\n.model NS NPN(IS=1.5E-14 BF=200 VAF=80 BR=4)',
    [
      part('V1', 'supply', 15, 0.02),
      part('D1', 'diode', null, 0, { model: 'DR' }),
      part('R1', 'resistor', 820, 0.05),
      part('D2', 'zener', 5.6, 0.05, { model: 'Z5' }),
      part('Q1', 'npn', null, 0, { model: 'NS', range: [100, 300] }),
      part('R2', 'resistor', 560, 0.05),
      part('R3', 'resistor', 680, 0.05),
      part('D3', 'led', null, 0, { model: 'LG' }),
    ],
    ['p', 'z', 'o', 'l'],
  ),
];

/** Readings of one specimen of a board with a fault, as the meter would show them, its error left out. */
function readings({ problem }: Kit, fault: Fault, specimen: number, spread: ModelSpread): Reading[] | null {
  const { rows, values } = new FaultSampler(problem, [fault], new Map(), null).draw(specimen, 1, spread);
  if (rows === 0) return null;
  return problem.scenes[0]!.observables.map((o, i) => ({ id: o.id, value: fromScale(o.mode, values[i]!) }));
}

describe.each(KITS)('windows: $name', (k) => {
  const { problem } = k;
  const scene = problem.scenes[0]!;
  const windows = windowsOf(scene, problem.board, HANDHELD);

  test('every point has one, its middle inside, and wider than the meter’s own error', () => {
    for (const o of scene.observables) {
      const w = computedWindow(windows.get(o.id))!;
      expect(w.low).toBeLessThan(w.middle);
      expect(w.high).toBeGreaterThan(w.middle);
      expect(w.high - w.low).toBeGreaterThanOrEqual(2 * uncertaintyOf(HANDHELD, o.mode, w.middle)!.halfWidth - 1e-12);
    }
  });
  test.each(MODEL_SPREADS.map((s) => [s.id, s] as const))('healthy specimens, parts %s, stay inside: at least 98 of 100 at every point', (_, spread) => {
    const outside = new Map<string, number>();
    let drawn = 0;
    for (let n = 0; n < 100; n++) {
      const read = readings(k, HEALTHY, 90_000 + n, spread);
      if (!read) continue;
      drawn++;
      for (const { id, value } of read) {
        const w = computedWindow(windows.get(id))!;
        if ((value as number) < w.low || (value as number) > w.high) outside.set(id, (outside.get(id) ?? 0) + 1);
      }
    }
    expect(drawn).toBe(100);
    expect(Math.max(0, ...outside.values())).toBeLessThanOrEqual(2);
  });
  test('a measured value narrows the windows that hang on it, and moves them along', () => {
    const [resistor] = problem.board.parts.filter((p) => p.kind === 'resistor');
    const high = resistor!.value! * 1.04;
    const board: Board = {
      ...problem.board,
      parts: problem.board.parts.map((p) => (p === resistor ? { ...p, measured: { value: high, standard: high * 1e-4 } } : p)),
    };
    const after = windowsOf(scene, board, HANDHELD);
    const width = (w: { low: number; high: number }) => w.high - w.low;
    const narrower = scene.observables.filter((o) => width(computedWindow(after.get(o.id))!) < width(computedWindow(windows.get(o.id))!) * 0.995);
    expect(narrower.length).toBeGreaterThan(0);
  });
  test('a better meter gives windows that are no wider', () => {
    const fine = { ...HANDHELD, ranges: { ...HANDHELD.ranges, dcv: HANDHELD.ranges.dcv!.map((r) => ({ ...r, percent: r.percent / 10, counts: 1 })) } };
    const better = windowsOf(scene, problem.board, fine);
    for (const o of scene.observables) {
      const [a, b] = [computedWindow(better.get(o.id))!, computedWindow(windows.get(o.id))!];
      expect(a.high - a.low).toBeLessThanOrEqual((b.high - b.low) * (1 + 1e-9));
    }
  });
  test('computed twice they are the same: nothing is left to chance', () => {
    expect(windowsOf(scene, problem.board, HANDHELD)).toEqual(windows);
  });
});

describe.each(KITS)('suspects: $name', (k) => {
  const diagnoser = new Diagnoser(k.problem);
  diagnoser.prepare();
  const [resistor] = k.problem.board.parts.filter((p) => p.kind === 'resistor');
  const open: Fault = { kind: 'open', parts: [resistor!.ref], detail: {} };
  const seen = readings(k, open, 4242, MODEL_SPREADS[0]!)!;

  test('an open resistor is found from all readings', () => {
    const { suspects } = diagnoser.diagnose(seen);
    expect(suspects.slice(0, 3).some((s) => s.fault.kind === 'open' && s.fault.parts[0] === resistor!.ref)).toBe(true);
    expect(suspects.find((s) => s.fault.kind === 'healthy')!.probability).toBeLessThan(0.01);
  });
  test('law: probabilities are probabilities, and add up to one', () => {
    fc.assert(
      fc.property(fc.subarray(seen), (some) => {
        const { suspects, pairs, unexplained } = diagnoser.diagnose(some);
        const all = [...suspects, ...pairs];
        expect(all.every((s) => s.probability >= 0 && s.probability <= 1 + 1e-9)).toBe(true);
        expect(all.reduce((sum, s) => sum + s.probability, unexplained)).toBeCloseTo(1, 6);
      }),
      { numRuns: 20 },
    );
  });
  test('law: progress rises from nothing to all, in both parts of a first ranking', () => {
    const fresh = new Diagnoser(k.problem);
    const heard: number[][] = [[], []];
    fresh.prepare((done) => heard[0]!.push(done));
    fresh.diagnose(seen, null, (done) => heard[1]!.push(done));
    for (const part of heard) {
      expect(part.at(-1)).toBe(1);
      expect(part.every((done, i) => done >= (part[i - 1] ?? 0) && done <= 1)).toBe(true);
    }
    const again: number[] = [];
    fresh.diagnose(seen, null, (done) => again.push(done));
    expect(again).toEqual([]);
  });
  test('law: the order of the readings changes nothing', () => {
    const [a, b] = [diagnoser.diagnose(seen), diagnoser.diagnose([...seen].reverse())];
    a.suspects.slice(0, 5).forEach((s) => {
      const other = b.suspects.find((t) => JSON.stringify(t.fault) === JSON.stringify(s.fault))!;
      expect(other.probability).toBeCloseTo(s.probability, 6);
    });
  });
  test('without a reading nothing is known but what is usual: healthy leads, and a reading is proposed', () => {
    const { suspects, next } = diagnoser.diagnose([]);
    expect(suspects[0]!.fault.kind).toBe('healthy');
    expect(next).not.toBeNull();
    expect(next!.bits).toBeGreaterThan(0.05);
  });
  test('law: the proposed reading is one that was not taken, and tells more than nothing', () => {
    for (let n = 1; n < seen.length; n++) {
      const { next } = diagnoser.diagnose(seen.slice(0, n));
      if (!next) continue;
      expect(seen.slice(0, n).map((e) => e.id)).not.toContain(next.id);
      expect(next.bits).toBeGreaterThan(0);
    }
  });
  test('readings that no fault explains are said to be unexplained', () => {
    const wild = seen.map((e, i): Reading => ({ id: e.id, value: i % 2 === 0 ? 37 + i : -28 - i }));
    expect(diagnoser.diagnose(wild).unexplained).toBeGreaterThan(0.5);
  });
  test('a reading of a point that is not there is passed over', () => {
    const plain = diagnoser.diagnose(seen).suspects[0]!;
    const more = diagnoser.diagnose([...seen, { id: 'nowhere', value: 5 }]).suspects[0]!;
    expect(more).toEqual(plain);
  });
});

describe('specimens', () => {
  const { board } = KITS[0]!.problem;
  test('the same number is the same board; another number another one', () => {
    expect(specimenOf(board, 5)).toBe(specimenOf(board, 5));
    expect(specimenOf(board, 5)).not.toEqual(specimenOf(board, 6));
  });
  test('law: every draw lies between 0 and 1; the nominal board in the middle of all', () => {
    for (let n = 1; n < 50; n++) for (const d of specimenOf(board, n)) for (const v of Object.values(d)) expect(v >= 0 && v < 1).toBe(true);
    for (const d of specimenOf(board, 0)) expect(d.value).toBe(0.5);
  });
  test('a fault in a part that is not fitted changes nothing', () => {
    const { circuit } = KITS[0]!.problem.scenes[0]!;
    const without = { ...circuit, parts: circuit.parts.filter((p) => p.name !== 'R1') };
    expect(applyFault(without, board, { kind: 'open', parts: ['R1'], detail: {} }).circuit).toBe(without);
  });
});
