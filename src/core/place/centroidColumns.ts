import { bare, wordsOf } from './text';
import { unitOf } from './units';

/** Which cell of a row holds what, from 0; millimetres of the unit that a coordinate's column names. */
export interface Columns {
  readonly ref: number;
  readonly x: number;
  readonly y: number;
  readonly xUnit: number | null;
  readonly yUnit: number | null;
  readonly rotation: number | null;
  readonly side: number | null;
  /** The side is told by "mirrored: yes" and the like. */
  readonly mirror: boolean;
}

const list = (words: string) => words.split(' ');
const REF = list('designator refdes referencedesignator refdesignator reference ref partreference partref component part');
const CENTRE = list('mid center centre centroid pos position loc location coord coordinate sym part comp');
const ROTATION = new Set(list('rotation rot rotate angle orientation orient symrotate'));
const SIDE = new Set(list('layer side tb topbottom boardside mountside mountingside placementside placementlayer face'));
const MIRROR = new Set(list('mirror mirrored symmirror'));
const COORDINATE = {
  x: new Set(CENTRE.flatMap((w) => [`x${w}`, `${w}x`])),
  y: new Set(CENTRE.flatMap((w) => [`y${w}`, `${w}y`])),
};

interface Named {
  readonly name: string;
  readonly unit: number | null;
  /** The name without a last word for degrees. */
  readonly angle: string;
}

function nameOf(cell: string): Named {
  const words = wordsOf(cell);
  const last = words.at(-1) ?? '';
  const angle = /^(?:deg|degrees?)$/.test(last) ? words.slice(0, words.at(-2) === 'in' ? -2 : -1).join('') : words.join('');
  const unit = unitOf(last);
  if (unit === null) return { name: bare(cell), unit, angle };
  return { name: words.slice(0, words.at(-2) === 'in' ? -2 : -1).join(''), unit, angle };
}

/** What a heading says; null for a line without a ref, an x and a y. */
export function columnsOf(cells: readonly string[]): Columns | null {
  const named = cells.map(nameOf);
  const find = (is: (n: Named) => boolean) => {
    const at = named.findIndex(is);
    return at < 0 ? null : at;
  };
  const ref = REF.reduce<number | null>((found, name) => found ?? find((n) => n.name === name), null);
  const coordinate = (axis: 'x' | 'y') => find((n) => COORDINATE[axis].has(n.name)) ?? find((n) => n.name === axis);
  const [x, y] = [coordinate('x'), coordinate('y')];
  if (ref === null || x === null || y === null) return null;
  const side = find((n) => SIDE.has(n.name));
  const mirror = side === null ? find((n) => MIRROR.has(n.name)) : null;
  return {
    ref,
    x,
    y,
    xUnit: named[x]!.unit,
    yUnit: named[y]!.unit,
    rotation: find((n) => ROTATION.has(n.angle)),
    side: side ?? mirror,
    mirror: mirror !== null,
  };
}
