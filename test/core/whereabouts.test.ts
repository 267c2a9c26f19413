/** Where a part sits, told as one would at the bench: checked on a board drawn in this file. */
import fc from 'fast-check';
import { mountingRemarks } from '@/core/loop';
import { whereabouts } from '@/core/place';
import { demo, reworked } from '../support/kits';

const kit = demo();
const chip = kit.sheet.lines.find((l) => l.refs.includes('U1'))!;
const placement = [
  { ref: 'U1', x: 50, y: 30, rotation: 0 },
  { ref: 'R1', x: 30, y: 31, rotation: 0 },
  { ref: 'R2', x: 51, y: 4, rotation: 0 },
  { ref: 'R3', x: 98, y: 29, rotation: 0, side: 'bottom' as const },
  { ref: 'R4', x: 2, y: 58, rotation: 0 },
  { ref: 'R5', x: 52, y: 45, rotation: 0 },
];
const board = reworked(kit, { placement }).sheet;

test.each([
  ['R1', { beside: { ref: 'U1', side: 'left of' }, edge: null, copperSide: false }],
  ['R2', { beside: { ref: 'U1', side: 'above' }, edge: 'upper' }],
  ['R3', { beside: { ref: 'U1', side: 'right of' }, edge: 'right', copperSide: true }],
  ['R5', { beside: { ref: 'U1', side: 'below' }, edge: null }],
])('%s', (ref, where) => {
  expect(whereabouts(board, ref)).toMatchObject(where);
});

test('a part without a place is nowhere; the only large one is beside nothing', () => {
  expect(whereabouts(board, 'R12')).toBeNull();
  expect(whereabouts({ lines: [chip], placement: placement.slice(0, 1) }, 'U1')).toMatchObject({ beside: null, edge: null });
});

test('of two at one spot neither is left or right of the other', () => {
  const over = [placement[0]!, { ...placement[1]!, x: 50, y: 30 }];
  expect(whereabouts({ lines: board.lines, placement: over }, 'R1')!.beside).toBeNull();
});

test('mirrored from left to right, left and right change places and nothing else does', () => {
  const swap: Readonly<Record<string, string>> = { 'left of': 'right of', 'right of': 'left of', left: 'right', right: 'left' };
  fc.assert(
    fc.property(fc.array(fc.tuple(fc.integer({ min: 0, max: 100 }), fc.integer({ min: 0, max: 60 })), { minLength: 4, maxLength: 8 }), (spots) => {
      const refs = ['U1', 'R1', 'R2', 'R3', 'R4', 'R5', 'R6', 'R7'];
      const places = spots.map(([x, y], i) => ({ ref: refs[i]!, x, y, rotation: 0 }));
      const mirrored = places.map((p) => ({ ...p, x: 100 - p.x }));
      for (const { ref } of places) {
        const [a, b] = [whereabouts({ lines: kit.sheet.lines, placement: places }, ref)!, whereabouts({ lines: kit.sheet.lines, placement: mirrored }, ref)!];
        expect(b.beside?.ref).toBe(a.beside?.ref);
        if (a.beside) expect(b.beside!.side).toBe(swap[a.beside.side] ?? a.beside.side);
      }
    }),
  );
});

test('the fitting step says it in words', () => {
  const on = reworked(kit, { placement });
  const line = on.sheet.lines.find((l) => l.refs.includes('R2'))!;
  expect(mountingRemarks(on, line, ['R2'])[0]).toBe('Where: above U1, near the upper edge.');
});
