/** What is laid over the drawing of a board stands where the drawing has it, whatever the size of the screen. */
import fc from 'fast-check';
import { boxOfChip, boxOfDot, type LaidOut, standsOver, widthOfView } from '@/ui/board/BoardMap';
import { placeAs, type PlacedPart } from '@/ui/board/layout';

const map = (width: number, height: number): LaidOut => ({ width, height, parts: [], labels: [], dots: [], strip: [] });
const percent = (v: unknown) => Number(String(v).replace('%', ''));
const point = { id: 'TP1', net: 'a' };

test('the middle of the board is the middle of the drawing, its corners lie within it', () => {
  const own = map(80, 60);
  expect(standsOver(own, { x: 40, y: 30, width: 0, height: 0 })).toMatchObject({ left: '50%', top: '50%' });
  const corner = standsOver(own, { x: 0, y: 0, width: 3, height: 3 });
  // Two millimetres are left around the board.
  expect(percent(corner.left)).toBeCloseTo((100 * 2) / 84, 9);
  expect(percent(corner.top)).toBeCloseTo((100 * 2) / 64, 9);
  expect(widthOfView(own)).toBe(84);
});

test('shares are those of the drawing, so that zooming and stretching keep them (property)', () => {
  const size = fc.double({ min: 10, max: 300, noNaN: true });
  fc.assert(
    fc.property(size, size, fc.double({ min: 0, max: 1, noNaN: true }), fc.double({ min: 0, max: 1, noNaN: true }), (width, height, across, down) => {
      const own = map(width, height);
      const over = standsOver(own, { x: across * width, y: down * height, width: 5, height: 4 });
      expect((percent(over.left) / 100) * widthOfView(own) - 2).toBeCloseTo(across * width, 6);
      expect((percent(over.width) / 100) * widthOfView(own)).toBeCloseTo(5, 6);
      expect(percent(over.left)).toBeGreaterThanOrEqual(0);
      expect(percent(over.top) + percent(over.height) / 2).toBeLessThanOrEqual(100 + 100 * (4 / height));
    }),
  );
});

test('a point is covered by its middle, a name in the strip from its upper left corner', () => {
  expect(boxOfDot({ point, x: 12, y: 7 })).toMatchObject({ x: 12, y: 7 });
  const chip = boxOfChip({ point, x: 12, y: 7 });
  expect(chip.x - chip.width / 2).toBeCloseTo(12, 9);
  expect(chip.y - chip.height / 2).toBeCloseTo(7, 9);
});

test('a part that is moved keeps the side that its record says', () => {
  const part = { ref: 'R1', x: 5, y: 6, rotation: 90 } as PlacedPart;
  expect(placeAs(part, [])).toEqual({ ref: 'R1', x: 5, y: 6, rotation: 90 });
  expect(placeAs(part, [{ ref: 'R1', x: 0, y: 0, rotation: 0, side: 'bottom' }])).toEqual({ ref: 'R1', x: 5, y: 6, rotation: 90, side: 'bottom' });
});
