import type { Drawing } from '@/core/draw';
import { print } from '@/core/quantity';
import type { Verdict } from '@/core/verdict';
import type { LiveSchematic } from './live';

const LONG_WIRE = 3;

export interface Figure {
  readonly net: string;
  readonly x: number;
  readonly y: number;
  readonly should: string | null;
  readonly read: string | null;
  readonly verdict: Verdict;
}

/** Figures of nets, at the middle of the longest horizontal stretch of each. */
export function figuresAt(drawing: Drawing, volts: Readonly<Record<string, number>>, seen: ReadonlyMap<string, number>, live: LiveSchematic): Figure[] {
  const longest = new Map<string, { x: number; y: number; long: number }>();
  for (const { net, points } of drawing.wires)
    for (let i = 1; i < points.length; i++) {
      const [a, b] = [points[i - 1]!, points[i]!];
      const long = a[1] === b[1] ? Math.abs(a[0] - b[0]) : Math.abs(a[1] - b[1]) / 4;
      if (long > (longest.get(net.toLowerCase())?.long ?? 0))
        longest.set(net.toLowerCase(), { x: (a[0] + b[0]) / 2 + (a[1] === b[1] ? 0 : 1.6), y: (a[1] + b[1]) / 2, long });
    }
  const known = new Map(Object.entries(volts).map(([net, v]) => [net.toLowerCase(), v]));
  const read = new Map([...seen].map(([net, v]) => [net.toLowerCase(), v]));
  const figures = [...longest].flatMap(([net, { x, y, long }]): Figure[] => {
    const [v, got] = [known.get(net), read.get(net)];
    const at = live.nets.get(net);
    const probed = net === live.red || net === live.black;
    if (v === undefined && got === undefined && !at && !probed) return [];
    if (long < LONG_WIRE / 4 && got === undefined && !at && !probed) return [];
    const should = at?.window ?? (v === undefined ? null : print(v, 'V', 3));
    return [{ net, x, y, should, read: got === undefined ? null : print(got, 'V', 3), verdict: at?.verdict ?? 'none' }];
  });
  return apart(figures);
}

/** Width of a letter and height of a line of figures, in units of the grid. */
const LETTER = 0.58;
const LINE = 1.3;

/** Figures that would lie on one another stand one above the other. */
function apart(figures: readonly Figure[]): Figure[] {
  const wide = (f: Figure) => Math.max(f.should?.length ?? 0, f.read?.length ?? 0) * LETTER;
  const placed: Figure[] = [];
  for (const f of figures) {
    let { y } = f;
    while (placed.some((p) => Math.abs(p.x - f.x) < (wide(p) + wide(f)) / 2 && Math.abs(p.y - y) < LINE)) y -= LINE;
    placed.push({ ...f, y });
  }
  return placed;
}
