/** Another letter for a board: what carries it in front follows, and nothing else moves. */
import fc from 'fast-check';
import { type KitState, newKit, patch, type Sheet, written } from '@/core/kit';
import { EMPTY_SHEET } from '@/core/kit/sheet';
import { entryText } from '@/core/loop';
import { circuitOf, elementOf, setupOf } from '@/core/stage';
import { at, log } from '../support/kits';

const line = (id: string, ...refs: string[]) => ({ id, kind: 'resistor' as const, label: '1 k', value: 1000, tolerance: null, quantity: refs.length, refs });
const DECK = `Two boards
V1 in 0 9
RA1 in mid 1k
RB1 mid 0 1k
.end`;
const SHEET: Sheet = {
  ...EMPTY_SHEET,
  boards: [
    { id: 'A', name: 'Vane' },
    { id: 'B', name: 'Dial' },
  ],
  lines: [line('l1', 'A:R1', 'B:R1'), line('l2', 'A:R2'), line('l3', 'R9')],
  placement: [
    { ref: 'A:R1', x: 1, y: 2, rotation: 0 },
    { ref: 'B:R1', x: 3, y: 4, rotation: 90 },
  ],
  pads: [{ ref: 'A:R2', pin: '1', x: 5, y: 6 }],
  constraints: [{ id: 'c', ref: 'A:R1', before: 'B:R1', why: 'closes the way' }],
  circuit: { deck: DECK, neighbours: [], elements: { 'A:R1': 'RA1', 'B:R1': 'RB1' } },
  stages: [
    {
      id: 's',
      title: 'On',
      kind: 'power',
      fits: ['A:R1', 'B:R1', 'R9'],
      without: ['A:R2'],
      settings: [{ ref: 'A:R2', value: 1, text: 'closed' }],
      supplies: [],
      checks: [
        { id: 'm', what: 'measure', title: 'across', mode: 'ohms', red: { ref: 'A:R1', pin: '1' }, black: { ref: 'B:R1', pin: '2' } },
        { id: 'o', what: 'observe', title: 'lit', action: 'look', expect: 'lit', sign: { ref: 'A:R1', amperes: 0.001 } },
      ],
    },
  ],
};
const kit = () => newKit(SHEET, at(0));
const lettered = (k: KitState, from: string, to: string) => log(k, ...written(k, 'boards', { id: to, name: 'Vane' }, from));

test('lines, places, pads, rules, stages, checks and the circuit say the new letter', () => {
  const { sheet } = lettered(kit(), 'A', 'C');
  expect(sheet.boards.map((b) => b.id)).toEqual(['C', 'B']);
  expect(sheet.lines.map((l) => l.refs)).toEqual([['C:R1', 'B:R1'], ['C:R2'], ['R9']]);
  expect(sheet.placement.map((p) => p.ref).sort()).toEqual(['B:R1', 'C:R1']);
  expect(sheet.pads).toEqual([{ ref: 'C:R2', pin: '1', x: 5, y: 6 }]);
  expect(sheet.constraints[0]).toMatchObject({ ref: 'C:R1', before: 'B:R1' });
  const [stage] = sheet.stages;
  expect([stage!.fits, stage!.without, stage!.settings![0]!.ref]).toEqual([['C:R1', 'B:R1', 'R9'], ['C:R2'], 'C:R2']);
  expect(stage!.checks[0]).toMatchObject({ red: { ref: 'C:R1', pin: '1' }, black: { ref: 'B:R1', pin: '2' } });
  expect(stage!.checks[1]).toMatchObject({ sign: { ref: 'C:R1' } });
});
test('the deck is left as it was written: its elements are found under the new names', () => {
  const k = lettered(kit(), 'A', 'C');
  expect(k.sheet.circuit!.deck).toBe(DECK);
  const whole = circuitOf(setupOf(k).sheet);
  expect([elementOf(k.sheet, whole, 'C:R1'), elementOf(k.sheet, whole, 'B:R1')]).toEqual(['RA1', 'RB1']);
});
test('it is one step to undo, like every other change of the sheet', () => {
  const changes = written(kit(), 'boards', { id: 'C', name: 'Vane' }, 'A');
  expect(new Set(changes.map((c) => c.kind))).toEqual(new Set(['changed']));
});
test('there and back again is the same sheet (property: any refs on either board)', () => {
  const refs = fc.uniqueArray(fc.tuple(fc.constantFrom('A', 'B', ''), fc.integer({ min: 1, max: 30 })), { selector: ([b, n]) => `${b}${n}`, maxLength: 12 });
  fc.assert(
    fc.property(refs, (given) => {
      const named = given.map(([b, n]) => (b === '' ? `R${n}` : `${b}:R${n}`));
      const k = newKit({ ...SHEET, circuit: null, stages: [], placement: [], pads: [], constraints: [], lines: named.map((r, i) => line(`x${i}`, r)) }, at(0));
      const there = lettered(k, 'A', 'C');
      expect(there.sheet.lines.flatMap((l) => l.refs)).toEqual(named.map((r) => r.replace(/^A:/, 'C:')));
      expect(lettered(there, 'C', 'A').sheet.lines).toEqual(k.sheet.lines);
    }),
    { numRuns: 40 },
  );
});
test('of a table of names the logbook tells the one that changed', () => {
  const named = log(kit(), patch(kit(), 'circuit', 'circuit', { elements: { ...SHEET.circuit!.elements, 'A:R2': 'RA2', 'B:R1': 'RB9' } })!);
  expect(entryText(named, named.log.at(-1)!)).toBe('Circuit: elements B:R1 RB1 → RB9, A:R2 RA2');
});
