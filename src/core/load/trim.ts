import { type Circuit, findPart, operatingPoint, setValues, UnsolvableError } from '../circuit';

export interface TrimQuestion {
  readonly circuit: Circuit;
  /** A resistor that is turned, or the upper and lower half of one control. */
  readonly control: readonly [string] | readonly [upper: string, lower: string];
  /** Ohms at the two ends. */
  readonly between: readonly [number, number];
  /** Nets. */
  readonly red: string;
  readonly black: string;
  readonly target: number;
  readonly tolerance: number;
}

export interface TrimAnswer {
  readonly reachable: boolean;
  /** Ohms of the control (of its lower half) that read the target; null: none. */
  readonly position: number | null;
  /** Least and greatest reading over the travel. */
  readonly volts: readonly [number, number];
  /** The reading never comes back while the control goes from one end to the other. */
  readonly monotone: boolean;
}

interface Point {
  readonly p: number;
  readonly volts: number;
}

const STEPS = 160;
/** What counts as coming back: volts, and part of the whole range. */
const COMES_BACK = { volts: 1e-3, part: 0.005 };

/** Whether a control can bring a reading to its target, and where: its travel is swept and refined where the reading turns. */
export function trimOf(q: TrimQuestion): TrimAnswer {
  const read = readerOf(q);
  const points = refined(sweep(q.between, read), read);
  const volts: [number, number] = [Math.min(...points.map((x) => x.volts)), Math.max(...points.map((x) => x.volts))];
  const position = positionOf(points, q, read);
  return { reachable: position !== null, position, volts, monotone: isMonotone(points, volts[1] - volts[0]) };
}

function readerOf({ circuit, control, between: [lo, hi], red, black }: TrimQuestion) {
  for (const name of control) if (findPart(circuit, name)?.kind !== 'R') throw new Error(`control: ${name} is no resistor of this circuit`);
  const [first, lower] = control;
  return (p: number): Point | null => {
    const values = lower === undefined ? { [first]: p } : { [first]: lo + hi - p, [lower]: p };
    try {
      const { nodes } = operatingPoint(setValues(circuit, values));
      return { p, volts: (nodes[red] ?? 0) - (nodes[black] ?? 0) };
    } catch (error) {
      if (error instanceof UnsolvableError) return null;
      throw error;
    }
  };
}

/** Positions in equal steps and in equal ratios: controls bend the reading at either. */
function sweep([lo, hi]: readonly [number, number], read: (p: number) => Point | null): Point[] {
  const even = Array.from({ length: STEPS + 1 }, (_, i) => lo + ((hi - lo) * i) / STEPS);
  const ratio = Array.from({ length: STEPS + 1 }, (_, i) => lo * (hi / lo) ** (i / STEPS));
  const mirrored = ratio.map((p) => lo + hi - p);
  const all = [...new Set([...even, ...ratio, ...mirrored].map((p) => Math.min(hi, Math.max(lo, p))))].sort((a, b) => a - b);
  const points = all.flatMap((p) => read(p) ?? []);
  if (points.length === 0) throw new Error('No position of the control has steady voltages.');
  return points;
}

/** Looks closer where the reading turns round. */
function refined(points: readonly Point[], read: (p: number) => Point | null): Point[] {
  let all = [...points];
  for (let round = 0; round < 3; round++) {
    const more = all.flatMap((x, i) => {
      const [before, after] = [all[i - 1], all[i + 1]];
      if (!before || !after || (x.volts - before.volts) * (after.volts - x.volts) >= 0) return [];
      return [(before.p + x.p) / 2, (x.p + after.p) / 2].flatMap((p) => read(p) ?? []);
    });
    if (more.length === 0) break;
    all = [...all, ...more].sort((a, b) => a.p - b.p);
  }
  return all;
}

function positionOf(points: readonly Point[], { target, tolerance }: TrimQuestion, read: (p: number) => Point | null): number | null {
  const off = (x: Point) => x.volts - target;
  for (const [i, x] of points.entries()) {
    const next = points[i + 1];
    if (!next || off(x) * off(next) > 0) continue;
    // Bisection between two readings on either side.
    let [a, b] = [x, next];
    for (let k = 0; k < 50 && Math.abs(off(a)) > tolerance / 100; k++) {
      const middle = read((a.p + b.p) / 2);
      if (!middle) break;
      if (off(middle) * off(a) > 0) a = middle;
      else [a, b] = [middle, a];
    }
    if (Math.abs(off(a)) <= tolerance) return a.p;
  }
  const nearest = points.reduce((m, x) => (Math.abs(off(x)) < Math.abs(off(m)) ? x : m));
  return Math.abs(off(nearest)) <= tolerance ? nearest.p : null;
}

function isMonotone(points: readonly Point[], range: number): boolean {
  const allowed = Math.max(COMES_BACK.volts, COMES_BACK.part * range);
  let [highest, lowest, back, forth] = [-Infinity, Infinity, 0, 0];
  for (const { volts } of points) {
    highest = Math.max(highest, volts);
    lowest = Math.min(lowest, volts);
    back = Math.max(back, highest - volts);
    forth = Math.max(forth, volts - lowest);
  }
  return back <= allowed || forth <= allowed;
}
