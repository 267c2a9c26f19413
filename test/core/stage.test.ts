/** The circuit as it stands at a stage: fitted, set, changed; and the windows that follow from it. */
import { deriveStages, judgeReading, windowFor, type Windows } from '@/core/loop/progress';
import { findPart } from '@/core/circuit/netlist';
import type { EntryBody, KitState, MeasureCheck, Stage } from '@/core/kit';
import { HANDHELD } from '@/core/meter';
import { showsSign } from '@/core/stage/observe';
import { boardOf } from '@/core/stage/boardOf';
import { circuitAt, fittedAt } from '@/core/stage/circuitAt';
import { circuitOf, elementOf } from '@/core/stage/elements';
import { sceneOf } from '@/core/stage/scene';
import { allWindows, computedWindow, windowInputs } from '@/core/stage';
import { windowsOf } from '@/core/stage/windows';
import { DEMOS } from '@/stand-in';
import { at, log, setupOf, windowsOfKit } from '../support/kits';

const fresh = () => DEMOS[0]!.kit(at(0));
const stage = (kit: KitState, id: string): Stage => kit.sheet.stages.find((s) => s.id === id)!;
const circuit = (kit: KitState, id: string) => circuitAt(setupOf(kit), circuitOf(kit.sheet), stage(kit, id));
const windows = (kit: KitState): Windows => windowsOfKit(kit);

describe('as fitted so far', () => {
  test('what a later stage fits is absent before it', () => {
    expect(findPart(circuit(fresh(), 'empty'), 'RTH1')).toBeUndefined();
    expect(findPart(circuit(fresh(), 'warm'), 'RTH1')).toMatchObject({ value: 12_500 });
    expect(circuit(fresh(), 'empty').parts.some((p) => p.name.startsWith('XU1.'))).toBe(false);
  });
  test('settings of the stage, then what the log says was set', () => {
    expect(findPart(circuit(fresh(), 'frost'), 'RTH1')).toMatchObject({ value: 33_000 });
    expect(findPart(circuit(log(fresh(), { kind: 'set', ref: 'VR1', value: 7000 }), 'warm'), 'RVR1')).toMatchObject({ value: 7000 });
  });
  test('removed parts are absent, fitted ones come back', () => {
    const out = log(fresh(), { kind: 'removed', refs: ['R12'] });
    expect(findPart(circuit(out, 'warm'), 'R12')).toBeUndefined();
    expect(findPart(circuit(log(out, { kind: 'fitted', refs: ['R12'] }), 'warm'), 'R12')).toBeDefined();
    expect(fittedAt(setupOf(out), stage(out, 'warm')).has('R12')).toBe(false);
  });
  test('a ref may be called otherwise in the deck', () => {
    const kit = fresh();
    expect(elementOf(kit.sheet, circuitOf(kit.sheet), 'VR1')).toBe('RVR1');
    expect(elementOf(kit.sheet, circuitOf(kit.sheet), 'U1')).toBe('XU1');
    expect(elementOf(kit.sheet, circuitOf(kit.sheet), 'J1')).toBeNull();
  });
  test('law: fitting what the plan has fitted already changes nothing', () => {
    const kit = fresh();
    const again = log(kit, { kind: 'fitted', refs: stage(kit, 'look').fits });
    expect(circuit(again, 'warm')).toEqual(circuit(kit, 'warm'));
  });
});

describe('changes of the board', () => {
  test.each([
    [
      'a link',
      { what: 'link', nets: ['ts', 'rf'] } as const,
      (k: KitState) => circuit(k, 'warm').parts.some((p) => p.name.startsWith('~link') && p.nodes.join() === 'ts,rf'),
    ],
    [
      'a part added between nets',
      { what: 'part-added', name: 'R99', kind: 'R', value: 1000, nets: ['v5', '0'] } as const,
      (k: KitState) => findPart(circuit(k, 'warm'), 'R99') !== undefined,
    ],
    [
      'a value replaced',
      { what: 'value-replaced', ref: 'R5', value: 3900 } as const,
      (k: KitState) => (findPart(circuit(k, 'warm'), 'R5') as { value: number }).value === 3900,
    ],
    ['a track cut', { what: 'track-cut', ref: 'R5', pin: '1' } as const, (k: KitState) => findPart(circuit(k, 'warm'), 'R5')!.nodes[0] !== 'v5'],
  ])('%s', (_, change, holds) => {
    expect(holds(fresh())).toBe(false);
    const changed = log(fresh(), { kind: 'modified', change });
    expect(holds(changed)).toBe(true);
    expect(holds(log(changed, { kind: 'withdrawn', entry: 'e1' }))).toBe(false);
  });

  test('a reading is judged by the board as it was when it was taken', () => {
    const read: EntryBody = { kind: 'read', stage: 'warm', check: 'tp5', reading: 3.74, meter: 'handheld' };
    const kit = log(fresh(), read, { kind: 'modified', change: { what: 'value-replaced', ref: 'R5', value: 33_000 } }, { ...read, reading: 1.16 });
    const all = allWindows(windowInputs(kit, true)!);
    expect(computedWindow(all['e1'])!.middle).toBeCloseTo(3.74, 1);
    expect(computedWindow(all['warm/tp5'])!.middle).toBeLessThan(1.5);
    expect(all['e3']).toBeUndefined();
    // The first reading was right then; the second is right now.
    const now = deriveStages(kit, all).find((s) => s.stage.id === 'warm')!;
    const progress = now.checks.find((c) => c.check.id === 'tp5')!;
    expect(progress.verdict).toBe('in');
    expect(judgeReading(3.74, 'dcv', windowFor(stage(kit, 'warm').checks[2] as MeasureCheck, computedWindow(all['e1'])), HANDHELD).verdict).toBe('in');
  });
  test('readings on an unchanged board have no window of their own', () => {
    const kit = log(fresh(), { kind: 'read', stage: 'warm', check: 'tp5', reading: 3.74, meter: 'handheld' }, { kind: 'noted', text: 'x' });
    expect(windowInputs(kit)!.past).toEqual([]);
  });
});

describe('windows', () => {
  test('every measured check of the demo has one, with the healthy value inside', () => {
    const kit = fresh();
    const all = windows(kit);
    for (const s of kit.sheet.stages)
      for (const c of s.checks) {
        if (c.what !== 'measure') continue;
        const w = computedWindow(all[`${s.id}/${c.id}`])!;
        expect(w.low).toBeLessThanOrEqual(w.middle);
        expect(w.high).toBeGreaterThanOrEqual(w.middle);
      }
  });
  test('a typed window stands beside the computed one; where they do not meet, that is a finding', () => {
    const check: MeasureCheck = { id: 'x', what: 'measure', title: 'x', mode: 'dcv', red: { net: 'a' }, black: { net: '0' }, window: { low: 4, high: 5 } };
    const computed = { low: 6, middle: 6.5, high: 7, meter: 0.01, over: false };
    expect(windowFor(check, computed)).toMatchObject({ low: 4, high: 5, source: 'typed', conflict: true });
    expect(windowFor(check, { ...computed, low: 4.5 })).toMatchObject({ conflict: false });
    expect(windowFor({ ...check, window: undefined }, computed)).toMatchObject({ low: 6, high: 7, source: 'computed' });
    expect(windowFor(check, null)).toMatchObject({ source: 'typed', conflict: false });
  });
  test('law: a wider tolerance never narrows a window', () => {
    const kit = fresh();
    const whole = circuitOf(kit.sheet);
    const scene = sceneOf(setupOf(kit), whole, stage(kit, 'warm'));
    const board = boardOf(setupOf(kit), whole);
    const wide = { ...board, parts: board.parts.map((p) => ({ ...p, tolerance: [p.tolerance[0] * 2, p.tolerance[1] * 2] as const })) };
    const [narrow, broad] = [windowsOf(scene, board, HANDHELD), windowsOf(scene, wide, HANDHELD)];
    for (const id of ['warm/tp4', 'warm/tp5', 'warm/tp6']) {
      const [a, b] = [computedWindow(narrow.get(id))!, computedWindow(broad.get(id))!];
      expect(b.high - b.low).toBeGreaterThan(a.high - a.low);
    }
  });
  test('a point that the circuit does not reach has none', () => {
    const kit = fresh();
    const lost: typeof kit = {
      ...kit,
      sheet: {
        ...kit.sheet,
        stages: kit.sheet.stages.map((s) =>
          s.id === 'empty' ? { ...s, checks: [{ id: 'q', what: 'measure', title: 'q', mode: 'dcv', red: { net: 'nowhere' }, black: { net: '0' } }] } : s,
        ),
      },
    };
    expect(windows(lost)['empty/q']).toEqual({ none: expect.stringContaining('no net called nowhere') as unknown });
  });
});

describe('verdicts of readings', () => {
  const window = { low: 4.9, high: 5.1, middle: 5, source: 'computed' as const, over: false, conflict: false };
  test.each([
    [5.0, 'in'],
    [4.9, 'in'],
    [5.11, 'doubtful'],
    [5.3, 'out'],
    ['over', 'out'],
    [null, 'none'],
  ] as const)('%s is %s', (reading, verdict) => {
    expect(judgeReading(reading, 'dcv', window, HANDHELD).verdict).toBe(verdict);
  });
  test('where over-range is right, a number is out', () => {
    const open = { ...window, over: true, high: Infinity };
    expect(judgeReading('over', 'ohms', open, HANDHELD).verdict).toBe('in');
  });
});

test('an observation is shown by the current in a part', () => {
  const kit = fresh();
  const lamp = { id: 'x', what: 'observe' as const, title: 'x', action: 'look', expect: 'lit', sign: { ref: 'D4', amperes: 0.002 } };
  expect(showsSign(kit.sheet, circuit(kit, 'empty'), lamp)).toBe(true);
  expect(showsSign(kit.sheet, circuit(log(kit, { kind: 'removed', refs: ['R1'] }), 'empty'), lamp)).toBe(false);
  expect(showsSign(kit.sheet, circuit(kit, 'empty'), { ...lamp, sign: { ref: 'K1', amperes: -0.005 } })).toBe(true);
});
