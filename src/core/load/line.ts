/** Straight line y = offset + slope · x. */
export interface StraightLine {
  readonly offset: number;
  readonly slope: number;
}

export const at = ({ offset, slope }: StraightLine, x: number): number => offset + slope * x;

/** Ordinary least squares (textbook); level through the mean where all x are one. */
export function fitLine(points: readonly (readonly [x: number, y: number])[]): StraightLine {
  const n = points.length;
  const mx = points.reduce((s, [x]) => s + x, 0) / n;
  const my = points.reduce((s, [, y]) => s + y, 0) / n;
  const sxx = points.reduce((s, [x]) => s + (x - mx) ** 2, 0);
  const sxy = points.reduce((s, [x, y]) => s + (x - mx) * (y - my), 0);
  const slope = sxx > 0 ? sxy / sxx : 0;
  return { slope, offset: my - slope * mx };
}
