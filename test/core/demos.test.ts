/** The demos: each opens from its own file, its healthy board passes its own stages, and its hidden fault is found by reading on. */
import { diagnoserOf, findSuspects } from '@/core/diagnose';
import type { Fault } from '@/core/fault';
import { documentOf, kitFindings, type KitState, openKit, type Stage } from '@/core/kit';
import { checkPlaces, circuitOf, computedWindow } from '@/core/stage';
import { checkObservableId } from '@/core/vocabulary';
import { DEMOS, practiceOf, readBoard, watchBoard } from '@/stand-in';
import { at, investigationOf, log, reworked, windowsOfKit } from '../support/kits';

const hiddenIn = (kit: KitState) => JSON.parse(atob(kit.settings.standIn!.fault)) as Fault;
const healthy = (kit: KitState) =>
  reworked(kit, {}, { standIn: { ...kit.settings.standIn!, fault: btoa(JSON.stringify({ kind: 'healthy', parts: [], detail: {} })) } });

/** One stage read through on the simulated board. */
function readStage(kit: KitState, stage: Stage): KitState {
  return stage.checks.reduce((k, c) => {
    if (c.what === 'observe') return log(k, { kind: 'observed', stage: stage.id, check: c.id, asExpected: watchBoard(practiceOf(k), stage, c) });
    const reading = readBoard(practiceOf(k), stage, checkObservableId(stage.id, c.id), 1);
    return reading === null ? k : log(k, { kind: 'read', stage: stage.id, check: c.id, reading, meter: 'handheld' });
  }, kit);
}

// The digital one has no circuit: tramCounter.test.ts.
describe.each(DEMOS.map((d) => [d.slug, d.kit(at(0))] as const).filter(([, kit]) => kit.sheet.circuit !== null))('%s', (_, kit) => {
  test('opens from its own file; list, circuit, map and stages meet', () => {
    expect(openKit(JSON.stringify(documentOf(kit)))).toMatchObject({ ok: true });
    // A controller has no model, so that it and nets that end at it are named; nothing else is.
    const named = checkPlaces({ ...kit.sheet, circuit: kit.sheet.circuit! }, circuitOf(kit.sheet)).map((f) => f.text);
    expect(named.filter((text) => !/Controller, programmed|left open/.test(text))).toEqual([]);
    expect(kitFindings(kit)).toEqual([]);
    const refs = new Set(kit.sheet.lines.flatMap((l) => l.refs));
    for (const p of kit.sheet.placement) expect(refs).toContain(p.ref);
  });
  test('every measurement has a window of its own, and the healthy board of the bag lies in it', () => {
    const sound = healthy(kit);
    const windows = windowsOfKit(sound);
    for (const stage of sound.sheet.stages)
      for (const check of stage.checks) {
        if (check.what !== 'measure') {
          expect([stage.id, check.id, watchBoard(practiceOf(sound), stage, check)]).toEqual([stage.id, check.id, true]);
          continue;
        }
        const id = checkObservableId(stage.id, check.id);
        const window = computedWindow(windows[id]);
        expect([id, window === null]).toEqual([id, false]);
        const reading = readBoard(practiceOf(sound), stage, id, 1);
        const seen = reading === 'over' ? Infinity : reading!;
        // The meter's own error may carry a reading a little over the edge.
        const slack = 0.03 * (window!.high - window!.low) + 0.01 * Math.abs(window!.middle);
        expect([id, seen >= window!.low - slack && (seen <= window!.high + slack || window!.high > 1e7)]).toEqual([id, true]);
      }
  }, 300_000);
  test('the hidden fault is the first suspect once every stage is read', () => {
    const read = kit.sheet.stages.filter((s) => s.supplies.length > 0).reduce(readStage, kit);
    const investigation = investigationOf(read)!;
    const findings = findSuspects(investigation, diagnoserOf(investigation));
    const hidden = hiddenIn(kit);
    // Several places on one net may read alike: the hidden one is among the first, none far above it.
    const rank = findings.suspects.findIndex((s) => s.faults.some((f) => f.parts.some((p) => (hidden.parts as readonly string[]).includes(p))));
    expect(rank).toBeGreaterThanOrEqual(0);
    expect(rank).toBeLessThan(3);
    expect(findings.suspects[0]!.faults).not.toEqual([]);
  }, 300_000);
});
