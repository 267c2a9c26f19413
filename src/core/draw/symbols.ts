/** Shapes of the trade's symbols on a grid, y downwards: pins on the box's edge, as the drawing's contract fixes them. */
export type Point = readonly [number, number];
/** Left, top, right, bottom. */
export type Box = readonly [number, number, number, number];
export type Rotation = 0 | 90 | 180 | 270;
export type Direction = 'up' | 'down' | 'left' | 'right';

interface Shape {
  readonly pins: Readonly<Record<string, Point>>;
  readonly box: Box;
  readonly optional?: readonly string[];
}

const two = (a = '1', b = '2', box: Box = [-1, -2, 1, 2], at = 2): Shape => ({ pins: { [a]: [0, -at], [b]: [0, at] }, box });
const tall: Box = [-2, -3, 2, 3];
const three = (top: string, side: string, low: string): Shape => ({ pins: { [top]: [1, -2], [side]: [-2, 0], [low]: [1, 2] }, box: [-2, -2, 2, 2] });

export const SHAPES: Readonly<Record<string, Shape>> = {
  resistor: two(),
  capacitor: two(),
  inductor: two(),
  fuse: two(),
  thermistor: two(),
  lamp: two(),
  crystal: two(),
  switch: two(),
  link: two(),
  electrolytic: two('+', '-'),
  diode: two('A', 'K'),
  zener: two('A', 'K'),
  led: two('A', 'K', [-1, -2, 2, 2]),
  ldr: two('1', '2', [-2, -2, 1, 2]),
  speaker: two('1', '2', [-1, -2, 2, 2]),
  microphone: two('1', '2', [-2, -2, 1, 2]),
  coil: two('1', '2', [-2, -2, 2, 2]),
  source: two('+', '-', tall, 3),
  battery: two('+', '-', tall, 3),
  winding: two('1', '2', tall, 3),
  npn: three('C', 'B', 'E'),
  pnp: three('E', 'B', 'C'),
  nmos: three('D', 'G', 'S'),
  pmos: three('S', 'G', 'D'),
  njf: three('D', 'G', 'S'),
  pjf: three('S', 'G', 'D'),
  opamp: { pins: { 'IN-': [-4, -2], 'IN+': [-4, 2], OUT: [4, 0], 'V+': [0, -4], 'V-': [0, 4] }, box: [-4, -4, 4, 4], optional: ['V+', 'V-'] },
  regulator: { pins: { IN: [-4, -1], OUT: [4, -1], COM: [0, 3] }, box: [-4, -3, 4, 3] },
  trimmer: { pins: { 1: [0, -2], W: [2, 0], 3: [0, 2] }, box: [-1, -2, 2, 2] },
  changeover: { pins: { C: [0, 2], NC: [-1, -2], NO: [1, -2] }, box: [-2, -2, 2, 2], optional: ['NC', 'NO'] },
  bridge: { pins: { AC1: [0, -3], AC2: [0, 3], '+': [3, 0], '-': [-3, 0] }, box: [-3, -3, 3, 3] },
  transformer: { pins: { P1: [-3, -3], P2: [-3, 3], S1: [3, -3], CT: [3, 0], S2: [3, 3] }, box: [-3, -4, 3, 4], optional: ['CT'] },
  testpoint: { pins: { 1: [0, 0] }, box: [-1, -2, 1, 0] },
};
export const KINDS: ReadonlySet<string> = new Set([...Object.keys(SHAPES), 'chip', 'connector']);

/** Width of a text in units of the grid. */
export const textWidth = (text: string) => 0.65 * Array.from(text).length;

export function turned([x, y]: Point, rotation: Rotation, mirror: boolean): Point {
  let [a, b] = [mirror ? -x : x, y];
  for (let r = 0; r < rotation; r += 90) [a, b] = [-b, a];
  return [a + 0, b + 0];
}
export function turnedBox([l, t, r, b]: Box, rotation: Rotation, mirror: boolean): Box {
  const [p, q] = [turned([l, t], rotation, mirror), turned([r, b], rotation, mirror)];
  return [Math.min(p[0], q[0]), Math.min(p[1], q[1]), Math.max(p[0], q[0]), Math.max(p[1], q[1])];
}

/** One row of pins, two apart. */
export function connectorShape(names: readonly string[]): Shape {
  const w = Math.max(2, 1 + Math.ceil(Math.max(...names.map(textWidth))));
  return { pins: Object.fromEntries(names.map((n, i) => [n, [0, 2 * i] as Point])), box: [-w, -1, 0, 2 * names.length - 1] };
}

/** Half the width of a flag across its direction, and its length. */
export function flagSize(kind: 'ground' | 'supply' | 'link', net: string, dir: Direction): { readonly half: number; readonly long: number } {
  const w = textWidth(net);
  if (kind === 'ground') return { half: 1, long: 2 };
  if (kind === 'link') return { half: 1, long: Math.ceil(w) + 1 };
  return dir === 'left' || dir === 'right' ? { half: 1, long: Math.ceil(w) + 1 } : { half: Math.max(1, Math.ceil(w / 2)), long: 2 };
}
export function flagBox(kind: 'ground' | 'supply' | 'link', net: string, [x, y]: Point, dir: Direction): Box {
  const { half, long } = flagSize(kind, net, dir);
  if (dir === 'down') return [x - half, y, x + half, y + long];
  if (dir === 'up') return [x - half, y - long, x + half, y];
  if (dir === 'right') return [x, y - half, x + long, y + half];
  return [x - long, y - half, x, y + half];
}

/** Whether two boxes lie on each other; edges may touch. */
export const overlap = (a: Box, b: Box): boolean => a[2] > b[0] + 1e-9 && b[2] > a[0] + 1e-9 && a[3] > b[1] + 1e-9 && b[3] > a[1] + 1e-9;
