import type { KeyboardEvent } from 'react';

const ARROWS: Readonly<Record<string, readonly [number, number]>> = { ArrowLeft: [-1, 0], ArrowRight: [1, 0], ArrowUp: [0, -1], ArrowDown: [0, 1] };
/** How much a step aside counts against a step ahead. */
const ASIDE = 2.5;

/** An arrow key on a drawing takes the focus to the nearest thing in that direction that can be pressed. */
export function toTheNext(e: KeyboardEvent<HTMLElement>): void {
  const way = ARROWS[e.key];
  const from = document.activeElement;
  if (!way || !(from instanceof SVGElement)) return;
  const middle = (x: Element) => {
    const { left, top, width, height } = x.getBoundingClientRect();
    return [left + width / 2, top + height / 2] as const;
  };
  const [x, y] = middle(from);
  const next = [...e.currentTarget.querySelectorAll<SVGElement>('svg [role="button"]')]
    .flatMap((to) => {
      const [tx, ty] = middle(to);
      const [ahead, aside] = [(tx - x) * way[0] + (ty - y) * way[1], Math.abs((tx - x) * way[1]) + Math.abs((ty - y) * way[0])];
      return to !== from && ahead > 1 ? [{ to, far: ahead + ASIDE * aside }] : [];
    })
    .sort((a, b) => a.far - b.far)[0];
  if (!next) return;
  e.preventDefault();
  next.to.focus();
}
