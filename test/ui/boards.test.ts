/** Outlines of boards on one drawing. */
import { sheetWith } from '@/core/kit';
import { outlinesOf, placeParts } from '@/ui/board/layout';

const line = (ref: string) => ({ id: ref, refs: [ref], kind: 'resistor' as const, value: 1000, tolerance: null, label: '1 k', quantity: 1 });
const parts = (...places: readonly (readonly [string, number, number])[]) =>
  placeParts(sheetWith({ title: 'x', lines: places.map(([ref]) => line(ref)), placement: places.map(([ref, x, y]) => ({ ref, x, y, rotation: 0 })) }));
const whole = { width: 100, height: 40 };

test('one board has one outline: all of the drawing', () => {
  expect(outlinesOf(parts(['R1', 10, 10], ['R2', 60, 20]), whole)).toEqual([{ board: '', x: 0, y: 0, ...whole }]);
});
test('two boards beside one another have an outline each, and no part lies outside its own', () => {
  const placed = parts(['A:R1', 12, 10], ['A:R2', 20, 20], ['B:R1', 80, 10], ['B:R2', 88, 24]);
  const outlines = outlinesOf(placed, whole);
  expect(outlines.map((o) => o.board)).toEqual(['A', 'B']);
  for (const p of placed) {
    const own = outlines.find((o) => o.board === p.ref.split(':')[0])!;
    expect(p.x - p.width / 2).toBeGreaterThanOrEqual(own.x);
    expect(p.x + p.width / 2).toBeLessThanOrEqual(own.x + own.width);
    expect(p.y + p.height / 2).toBeLessThanOrEqual(own.y + own.height);
  }
});
test('boards that lie over one another on the drawing are not cut apart', () => {
  expect(outlinesOf(parts(['A:R1', 10, 10], ['B:R1', 12, 20]), whole)).toHaveLength(1);
});
