/** The one stop before power: everything that is open is named, and nothing that is not. */
import fc from 'fast-check';
import { absentRefs, type EntryBody, type KitState } from '@/core/kit';
import { checkTargets, currentTarget, openBeforePower } from '@/core/loop';
import { demo, log } from '../support/kits';

const empty = (kit: KitState) => kit.sheet.stages.find((s) => s.title === '12 V, socket empty')!;
const chipIn = (kit: KitState) => kit.sheet.stages.find((s) => s.title === 'Chip in, sensor warm')!;
const all = (kit: KitState) => kit.sheet.stages.flatMap((s) => s.fits);
const fitted = (refs: readonly string[]): EntryBody => ({ kind: 'fitted', refs: [...refs] });
const open = (kit: KitState, stage = empty(kit)) => openBeforePower(kit, stage).map((p) => [p.kind, ...p.refs].join(' '));
/** Looked over, so that only what is told below is open. */
const looked = (kit: KitState) => {
  const look = kit.sheet.stages.find((s) => s.kind === 'look')!;
  return log(kit, ...look.checks.map((c): EntryBody => ({ kind: 'observed', stage: look.id, check: c.id, asExpected: true })));
};

test('a chip that sits in its socket before its stage is asked out, and in again at its own', () => {
  const kit = log(looked(demo()), fitted(all(demo())));
  expect(open(kit)).toEqual(['socket U1']);
  const [point] = openBeforePower(kit, empty(kit));
  const out = log(kit, ...point!.done!.entries);
  expect(open(out)).toEqual([]);
  // At its own stage it is missed.
  expect(open(out, chipIn(out))).toEqual(['temporary U1']);
  const [back] = openBeforePower(out, chipIn(out));
  expect(open(log(out, ...back!.done!.entries), chipIn(out))).toEqual([]);
});

test('a piece that measured out and was fitted is named first; who never ticks in Fit is not told that all is missing', () => {
  const kit = log(looked(demo()), { kind: 'measured', line: 'r-4k7', piece: 1, ref: 'R6', mode: 'ohms', reading: 47_000, meter: 'handheld' }, fitted(['R6']));
  expect(open(kit)[0]).toBe('bad-piece R6');
  expect(open(looked(demo()))).toEqual([]);
});

test('the stop is a target: it is asked again when something new is open', () => {
  const kit = log(looked(demo()), fitted(all(demo()).filter((r) => r !== 'U1' && r !== 'C1')));
  const stage = empty(kit);
  const cold = kit.sheet.stages.find((s) => s.kind === 'cold')!;
  const at = (k: KitState) => checkTargets(k, {}, [`prepare:${stage.id}`]).find((s) => s.target.kind === 'prepare')!;
  expect(currentTarget([at(kit)], null)).toMatchObject({ kind: 'prepare', open: [expect.stringContaining('C1')] });
  const ready = log(kit, {
    kind: 'prepared',
    stage: stage.id,
    confirmed: `open: ${at(kit).target.kind === 'prepare' ? openBeforePower(kit, stage)[0]!.text : ''}`,
  });
  expect(at(ready).done).toBe(true);
  expect(at(log(ready, { kind: 'removed', refs: ['C4'] })).done).toBe(false);
  expect(openBeforePower(ready, cold)).toEqual([]);
});

test('law: over any fitting, leaving out and pulling, exactly the places of the stage that are not in are named', () => {
  const refs = all(demo()).filter((r) => r !== 'U1');
  const step = fc.record({ ref: fc.constantFrom(...refs), what: fc.constantFrom('fitted' as const, 'removed' as const) });
  fc.assert(
    fc.property(fc.array(step, { minLength: 1, maxLength: 60 }), (steps) => {
      const kit = log(looked(demo()), ...steps.map(({ ref, what }): EntryBody => ({ kind: what, refs: [ref] })));
      const stage = empty(kit);
      const upTo = kit.sheet.stages.slice(0, kit.sheet.stages.indexOf(stage) + 1).flatMap((s) => s.fits);
      const absent = absentRefs(kit, kit.board);
      const points = openBeforePower(kit, stage);
      const named = (kind: string) => points.flatMap((p) => (p.kind === kind ? p.refs : []));
      expect(new Set(named('empty'))).toEqual(new Set(upTo.filter((r) => !absent.has(r) && !kit.board.fitted.has(r) && !kit.board.removed.has(r))));
      expect(new Set(named('left-out'))).toEqual(new Set(upTo.filter((r) => kit.board.removed.has(r))));
    }),
    { numRuns: 40 },
  );
});
