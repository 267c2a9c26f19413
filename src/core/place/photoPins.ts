import { type EntryBody, type KitState, patch, put, type RecordOf } from '../kit';

type Photo = RecordOf<'photos'>;
type Pin = NonNullable<Photo['pins']>[number];
type PhotoOnMap = NonNullable<Photo['onMap']>;

/** Two pins whose distance is known, and how the line between them lies on the board. */
export interface PhotoScale {
  readonly from: string;
  readonly to: string;
  readonly millimetres: number;
  readonly lies: 'level' | 'upright' | 'as photographed';
}

/** Room left at the edge of the map, millimetres. */
const MARGIN = 6;

/** Which side of the board a photo shows. */
export type PhotoSide = 'top' | 'bottom';

/** The copper side is seen mirrored: pins as they would lie seen from above. */
const fromAbove = (pins: readonly Pin[], side: PhotoSide): Pin[] => pins.map((p) => (side === 'bottom' ? { ...p, x: 0 - p.x } : p));
const sideOf = (side: PhotoSide) => (side === 'bottom' ? { side } : {});
const degrees = (from: Pin, to: Pin) => (Math.atan2(to.y - from.y, to.x - from.x) * 180) / Math.PI;

/** Two different pins by their names; null while they are not both set, or lie on one another. */
function twoPins(pins: readonly Pin[], { from, to }: Pick<PhotoScale, 'from' | 'to'>): { a: Pin; b: Pin; distance: number } | null {
  const [a, b] = [pins.find((p) => p.ref === from), pins.find((p) => p.ref === to)];
  const distance = a && b ? Math.hypot(b.x - a.x, b.y - a.y) : 0;
  return a && b && distance > 0 ? { a, b, distance } : null;
}

/**
 * How a photo lies on the map when its pins make the map: pins are counted in widths of the photo, y down.
 * @returns null while the two pins are not set, or lie on one another
 */
export function photoOnMap(set: readonly Pin[], scale: PhotoScale, side: PhotoSide = 'top'): PhotoOnMap | null {
  const pins = fromAbove(set, side);
  const two = twoPins(pins, scale);
  if (!two || !(scale.millimetres > 0)) return null;
  const seen = degrees(two.a, two.b);
  // The nearest way to level or upright: nobody photographs a board upside down on purpose.
  const nearest = (to90: number) => Math.round((seen - to90) / 180) * 180 + to90;
  const turn = scale.lies === 'as photographed' ? 0 : nearest(scale.lies === 'level' ? 0 : 90) - seen;
  const onMap = { width: scale.millimetres / two.distance, turn, x: 0, y: 0 };
  const placed = pins.map((p) => turnedOnto(p, onMap));
  return { ...onMap, x: MARGIN - Math.min(...placed.map((p) => p.x)), y: MARGIN - Math.min(...placed.map((p) => p.y)), ...sideOf(side) };
}

/**
 * How a photo lies on a map that is there: by two pins whose places are known.
 * @returns null while the two pins are not set or have no places apart from one another
 */
export function photoOverPlaces(set: readonly Pin[], kit: KitState, names: Pick<PhotoScale, 'from' | 'to'>, side: PhotoSide = 'top'): PhotoOnMap | null {
  const two = twoPins(fromAbove(set, side), names);
  const at = (ref: string): Pin | null => {
    const place = kit.sheet.placement.find((p) => p.ref === ref) ?? kit.sheet.testPoints.find((t) => t.id === ref);
    return place?.x === undefined || place.y === undefined ? null : { ref, x: place.x, y: place.y };
  };
  const [A, B] = [at(names.from), at(names.to)];
  if (!two || !A || !B) return null;
  const distance = Math.hypot(B.x - A.x, B.y - A.y);
  if (distance === 0) return null;
  const onMap = { width: distance / two.distance, turn: degrees(A, B) - degrees(two.a, two.b), x: 0, y: 0 };
  const first = turnedOnto(two.a, onMap);
  return { ...onMap, x: A.x - first.x, y: A.y - first.y, ...sideOf(side) };
}

/** Millimetres on the map of a point of the photo as it is seen from above. */
function turnedOnto(
  { x, y }: { readonly x: number; readonly y: number },
  { width, turn, x: dx, y: dy }: PhotoOnMap,
): { readonly x: number; readonly y: number } {
  const [cos, sin] = [Math.cos((turn * Math.PI) / 180), Math.sin((turn * Math.PI) / 180)];
  return { x: width * (x * cos - y * sin) + dx, y: width * (x * sin + y * cos) + dy };
}

const round = (v: number) => Math.round(v * 100) / 100;

/**
 * The entries that lay a photo with its pins on the map: where it lies, and places of parts and test points.
 * @param places `all`: the pins make the map; `missing`: only what has no place yet gets one
 */
export function pinsTaken(kit: KitState, photo: Photo, onMap: PhotoOnMap, places: 'all' | 'missing' = 'all'): EntryBody[] {
  const parts = new Set(kit.sheet.lines.flatMap((l) => l.refs));
  const known = (ref: string) => kit.sheet.placement.some((p) => p.ref === ref) || kit.sheet.testPoints.some((t) => t.id === ref && t.x !== undefined);
  const placed = fromAbove(photo.pins ?? [], onMap.side ?? 'top').flatMap((pin): EntryBody[] => {
    if (places === 'missing' && known(pin.ref)) return [];
    const at = turnedOnto(pin, onMap);
    const [x, y] = [round(at.x), round(at.y)];
    if (parts.has(pin.ref)) return [put(kit, 'placement', { ref: pin.ref, x, y, rotation: kit.sheet.placement.find((p) => p.ref === pin.ref)?.rotation ?? 0 })];
    const point = patch(kit, 'testPoints', pin.ref, { x, y });
    return point ? [point] : [];
  });
  return [put(kit, 'photos', { ...photo, onMap }), ...placed];
}
