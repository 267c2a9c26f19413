/** Boards with hundreds of parts: from afar a few strokes, from near every body, the one in hand always. */
import { createElement } from 'react';
import { renderToStaticMarkup } from 'react-dom/server';
import { sheetWith } from '@/core/kit';
import { BoardMap } from '@/ui/board/BoardMap';
import { CROWD, Near } from '@/ui/board/Crowd';

const line = (ref: string) => ({ id: ref, refs: [ref], kind: 'resistor' as const, value: 1000, tolerance: null, label: '1 k', quantity: 1 });
const refsOf = (count: number) => Array.from({ length: count }, (_, n) => `R${n + 1}`);

function drawn(count: number, { near = false, marked = [] as string[], trueSize = false } = {}): string {
  const refs = refsOf(count);
  const sheet = sheetWith({
    title: 'x',
    lines: refs.map(line),
    placement: refs.map((ref, n) => ({ ref, x: 10 + 12 * (n % 20), y: 10 + 6 * Math.floor(n / 20), rotation: 90 * (n % 4) })),
  });
  const map = createElement(BoardMap, {
    sheet,
    present: new Set(refs.slice(0, 5)),
    marked: new Set(marked),
    points: [],
    verdicts: new Map(),
    red: null,
    black: null,
    trueSize,
  });
  return renderToStaticMarkup(createElement(Near, { value: near }, map));
}
const groups = (svg: string) => svg.match(/<g transform="translate/g)?.length ?? 0;

test('up to so many, each part is a drawing of its own', () => {
  expect(groups(drawn(CROWD))).toBe(CROWD);
});
test('more of them are a few strokes, as long as nobody looks closely', () => {
  const svg = drawn(CROWD + 50);
  expect(groups(svg)).toBe(0);
  expect(svg).toContain(`Board with ${CROWD + 50} places, 5 fitted`);
  expect(svg).not.toContain('>R17<');
  expect(drawn(CROWD + 50, { near: true })).toContain('>R17<');
});
test('what is in hand is drawn whole among them', () => {
  const svg = drawn(CROWD + 50, { marked: ['R7', 'R200'] });
  expect(groups(svg)).toBe(2);
  expect(svg).toContain('>R200<');
});
test('zoomed in upon, and on paper, every body is there', () => {
  expect(groups(drawn(CROWD + 50, { near: true }))).toBe(CROWD + 50);
  expect(groups(drawn(CROWD + 50, { trueSize: true }))).toBe(CROWD + 50);
});
test('fitted and empty places are told apart, and each has its pads: two a resistor', () => {
  const paths = [...drawn(CROWD + 50).matchAll(/<path d="([^"]*)"/g)].map((m) => m[1]!);
  const counts = paths.map((d) => d.match(/M/g)?.length ?? 0);
  expect(counts.slice(0, 3)).toEqual([CROWD + 45, 5, 2 * (CROWD + 50)]);
});
test('a body lies turned as its part does', () => {
  const [, fitted] = [...drawn(CROWD + 50).matchAll(/<path d="([^"]*)"/g)].map((m) => m[1]!);
  const sides = [...fitted!.matchAll(/h([\d.]+)v([\d.]+)/g)].map((m) => [Number(m[1]), Number(m[2])]);
  const [w, h] = sides[0]!;
  expect(sides.slice(0, 4)).toEqual([
    [w, h],
    [h, w],
    [w, h],
    [h, w],
  ]);
});
