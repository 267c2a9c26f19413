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

/**
 * How a photo lies on the map: pins are counted in widths of the photo, y down.
 * @returns null while the two pins are not set, or lie on one another
 */
export function photoOnMap(pins: readonly Pin[], { from, to, millimetres, lies }: PhotoScale): PhotoOnMap | null {
  const [a, b] = [pins.find((p) => p.ref === from), pins.find((p) => p.ref === to)];
  if (!a || !b || a === b || !(millimetres > 0)) return null;
  const distance = Math.hypot(b.x - a.x, b.y - a.y);
  if (!(distance > 0)) return null;
  const seen = (Math.atan2(b.y - a.y, b.x - a.x) * 180) / Math.PI;
  // The nearest way to level or upright: nobody photographs a board upside down on purpose.
  const nearest = (to90: number) => Math.round((seen - to90) / 180) * 180 + to90;
  const turn = lies === 'as photographed' ? 0 : nearest(lies === 'level' ? 0 : 90) - seen;
  const onMap = { width: millimetres / distance, turn, x: 0, y: 0 };
  const placed = pins.map((p) => pinOnMap(p, onMap));
  return { ...onMap, x: MARGIN - Math.min(...placed.map((p) => p.x)), y: MARGIN - Math.min(...placed.map((p) => p.y)) };
}

/** Millimetres on the map of a point of the photo. */
function pinOnMap({ x, y }: { readonly x: number; readonly y: number }, { width, turn, x: dx, y: dy }: PhotoOnMap): { readonly x: number; readonly y: number } {
  const [cos, sin] = [Math.cos((turn * Math.PI) / 180), Math.sin((turn * Math.PI) / 180)];
  return { x: width * (x * cos - y * sin) + dx, y: width * (x * sin + y * cos) + dy };
}

const round = (v: number) => Math.round(v * 100) / 100;

/** The entries that make a photo with its pins the map: places of parts and test points, and where the photo lies. */
export function pinsTaken(kit: KitState, photo: Photo, onMap: PhotoOnMap): EntryBody[] {
  const parts = new Set(kit.sheet.lines.flatMap((l) => l.refs));
  const places = (photo.pins ?? []).flatMap((pin): EntryBody[] => {
    const at = pinOnMap(pin, onMap);
    const [x, y] = [round(at.x), round(at.y)];
    if (parts.has(pin.ref)) return [put(kit, 'placement', { ref: pin.ref, x, y, rotation: kit.sheet.placement.find((p) => p.ref === pin.ref)?.rotation ?? 0 })];
    const point = patch(kit, 'testPoints', pin.ref, { x, y });
    return point ? [point] : [];
  });
  return [put(kit, 'photos', { ...photo, onMap }), ...places];
}
