/** The one stop before power: everything that is open is named, and nothing that is not. */
import fc from 'fast-check';
import { absentRefs, type EntryBody, type KitState } from '@/core/kit';
import { answerOf, checkTargets, currentTarget, openBeforePower } from '@/core/loop';
import { deriveStages, isMeasure } from '@/core/loop/progress';
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

test('a chip that sits in its socket before its stage is asked out, and in again at its own; what was read before stays read', () => {
  const cold = demo().sheet.stages.find((s) => s.kind === 'cold')!;
  const ohms = cold.checks.map((c): EntryBody => ({ kind: 'read', stage: cold.id, check: c.id, reading: 'over', meter: 'handheld' }));
  const unread = (k: KitState, id: string) =>
    deriveStages(k, {})
      .find((s) => s.stage.id === id)!
      .checks.filter((c) => isMeasure(c) && c.entry === null).length;
  const kit = log(looked(demo()), fitted(all(demo())), ...ohms);
  expect(open(kit)).toEqual(['socket U1']);
  const [point] = openBeforePower(kit, empty(kit));
  const out = log(kit, ...point!.done!.entries);
  expect(open(out)).toEqual([]);
  expect(unread(out, cold.id)).toBe(0);
  // Its own stage wants it in; putting it in takes nothing back of the stage before, and is not asked out again.
  const rails = empty(out).checks.flatMap((c): EntryBody[] =>
    c.what === 'measure'
      ? [{ kind: 'read', stage: empty(out).id, check: c.id, reading: 1, meter: 'handheld' }]
      : [{ kind: 'observed', stage: empty(out).id, check: c.id, asExpected: true }],
  );
  const tried = log(out, ...rails);
  expect(open(tried, chipIn(tried))).toEqual(['left-out U1']);
  const [back] = openBeforePower(tried, chipIn(tried));
  const inAgain = log(tried, ...back!.done!.entries);
  expect(open(inAgain, chipIn(inAgain))).toEqual([]);
  expect(unread(inAgain, cold.id) + unread(inAgain, empty(inAgain).id)).toBe(0);
});

test('pieces measured as each other’s value are told once, as swapped, and no more when one was exchanged', () => {
  const read = (line: string, ref: string, reading: number): EntryBody => ({ kind: 'measured', line, piece: 0, ref, mode: 'ohms', reading, meter: 'handheld' });
  const [a, b] = ['r-4k7', 'r-10k'].map((id) => demo().sheet.lines.find((l) => l.id === id)!);
  const kit = log(looked(demo()), read('r-4k7', a!.refs[0]!, 10_000), read('r-10k', b!.refs[0]!, 4700), fitted(all(demo()).filter((r) => r !== 'U1')));
  expect(open(kit)).toEqual([`other-place ${a!.refs[0]!} ${b!.refs[0]!}`]);
  expect(open(log(kit, { kind: 'repaired', refs: [a!.refs[0]!], note: 'a right one' })).filter((p) => p.startsWith('other-place'))).toEqual([]);
});

test('a piece that measured out and was fitted is named first; who never ticks in Fit is not told that all is missing', () => {
  const kit = log(looked(demo()), { kind: 'measured', line: 'r-4k7', piece: 1, ref: 'R6', mode: 'ohms', reading: 47_000, meter: 'handheld' }, fitted(['R6']));
  expect(open(kit)[0]).toBe('bad-piece R6');
  expect(open(looked(demo()))).toEqual([]);
});

test('the stop is a target: it is asked again when something new is open, and not when less is', () => {
  const kit = log(looked(demo()), fitted(all(demo()).filter((r) => !['U1', 'C1', 'R1', 'R10'].includes(r))));
  const stage = empty(kit);
  const cold = kit.sheet.stages.find((s) => s.kind === 'cold')!;
  const at = (k: KitState) => checkTargets(k, {}, [`prepare:${stage.id}`]).find((s) => s.target.kind === 'prepare')!;
  const confirmed = (k: KitState) => log(k, answerOf(at(k).target, true)!);
  expect(currentTarget([at(kit)], null)).toMatchObject({
    kind: 'prepare',
    open: [{ kind: 'empty', refs: expect.arrayContaining(['C1', 'R1', 'R10']) as unknown }],
  });
  const ready = confirmed(kit);
  expect(at(ready).done).toBe(true);
  expect(at(log(ready, fitted(['R10']))).done).toBe(true);
  expect(at(log(ready, { kind: 'removed', refs: ['C4'] })).done).toBe(false);
  // R1 is another part than R10, though the one's name begins like the other's.
  const only = (ref: string) => log(looked(demo()), fitted(all(demo()).filter((r) => r !== 'U1' && r !== ref)));
  const exchanged = log(confirmed(only('R10')), fitted(['R10']));
  expect(at(log(exchanged, { kind: 'removed', refs: ['R1'] })).done).toBe(false);
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
