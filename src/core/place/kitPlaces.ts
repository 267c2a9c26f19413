import { type EntryBody, type KitState, type Line, put, putAll, type RecordOf, type Ref } from '../kit';
import { circuitOf } from '../stage';
import { packageOf } from '../vocabulary';
import type { Placed, PlacedPart } from './placed';
import { turned } from './placed';
import { nearNets } from './neighbours';

/** Room left at the edge of a board that was read from a file, millimetres. */
const MARGIN = 6;
/** Room between boards that lie beside one another on the map, millimetres. */
const BETWEEN = 18;

export interface TakenPlaces {
  readonly placement: readonly RecordOf<'placement'>[];
  readonly pads: readonly RecordOf<'pads'>[];
  /** Refs of the file that the kit does not know. */
  readonly unknown: readonly string[];
  /** Nets of the circuit whose pads come nearer to one another than the distance asked for. */
  readonly neighbours: readonly RecordOf<'neighbours'>[];
}

export interface Taking {
  /** Board of a kit with several; null where refs stand as they are. */
  readonly board: string | null;
  /** The file looks at the board from below. */
  readonly flipped: boolean;
  /** Pads this near count as neighbours, millimetres. */
  readonly near: number;
}

/** What a file's places are on the map of a kit: y down, turned clockwise, from the upper left corner. */
export function takePlaces(kit: KitState, file: Placed, { board, flipped, near }: Taking): TakenPlaces {
  const known = new Map(kit.sheet.lines.flatMap((l) => l.refs).map((r) => [r.toLowerCase(), r]));
  const lines = new Map(kit.sheet.lines.flatMap((l) => l.refs.map((r) => [r, l] as const)));
  const refOf = (ref: string): Ref | null => known.get((board === null ? ref : `${board}:${ref}`).toLowerCase()) ?? null;
  const points = [...file.parts, ...(file.pads ?? [])].filter((p) => refOf(p.ref) !== null);
  const [left, top] = [Math.min(...points.map((p) => (flipped ? -p.x : p.x))), Math.max(...points.map((p) => p.y))];
  const others = board === null ? [] : kit.sheet.placement.filter((p) => !p.ref.startsWith(`${board}:`));
  const offset = others.length === 0 ? 0 : Math.max(...others.map((p) => p.x)) + BETWEEN;
  const round = (v: number) => Math.round(v * 1000) / 1000;
  const at = (p: { x: number; y: number }) => ({ x: round((flipped ? -p.x : p.x) - left + MARGIN + offset), y: round(top - p.y + MARGIN) });
  const placement = file.parts.flatMap((p): RecordOf<'placement'>[] => {
    const ref = refOf(p.ref);
    if (ref === null) return [];
    const own = (file.pads ?? [])
      .filter((pad) => pad.ref.toLowerCase() === p.ref.toLowerCase())
      .sort((a, b) => a.pin.localeCompare(b.pin, 'en', { numeric: true }));
    // Counter-clockwise with y up is clockwise with y down, the other way round; a bare board tells by its pads.
    const rotation = p.rotation === null ? turnOfPads(lines.get(ref)!, own.map(at)) : turned(flipped ? p.rotation : -p.rotation);
    return [{ ref, ...at(p), rotation, ...(p.side === 'bottom' ? { side: p.side } : {}) }];
  });
  const pads = (file.pads ?? []).flatMap((p): RecordOf<'pads'>[] => {
    const ref = refOf(p.ref);
    return ref === null || p.pin === '' ? [] : [{ ref, pin: p.pin, ...at(p), ...(p.net === null ? {} : { net: p.net }) }];
  });
  return {
    placement,
    pads: [...new Map(pads.map((p) => [`${p.ref}.${p.pin}`, p])).values()],
    unknown: file.parts.filter((p) => refOf(p.ref) === null).map((p) => p.ref),
    neighbours: nearNets(circuitOf(kit.sheet), pads, near),
  };
}

/** How far a body is turned so that its first two pads point as those on the board do, to the nearest degree. */
function turnOfPads(line: Line, [first, second]: readonly { readonly x: number; readonly y: number }[]): number {
  const [one, two] = packageOf(line).pads;
  if (!first || !second || !one || !two) return 0;
  const angle = (a: { x: number; y: number }, b: { x: number; y: number }) => (Math.atan2(b.y - a.y, b.x - a.x) * 180) / Math.PI;
  return turned(Math.round(angle(first, second) - angle(one, two)));
}

/** The entries that take places over into a kit, as one step. */
export const placesTaken = (kit: KitState, { placement, pads, neighbours }: TakenPlaces): EntryBody[] => [
  ...putAll(kit, 'placement', placement),
  ...putAll(kit, 'pads', pads),
  ...putAll(
    kit,
    'neighbours',
    neighbours.filter((n) => !kit.rooms.neighbours.has(n.nets.join(' '))),
  ),
];

/** What a part lies as on the map: its middle, turned clockwise, millimetres and degrees. */
type Place = RecordOf<'placement'>;

/**
 * The entries that put a part elsewhere on the map, its pads with it.
 * @param shown where all parts are drawn at the moment: without places of its own the kit takes these over
 */
export function partPlaced(kit: KitState, to: Place, shown: readonly Place[]): EntryBody[] {
  const at = (v: number) => Math.round(v * 100) / 100;
  const placed: Place = { ...to, x: at(to.x), y: at(to.y), rotation: turned(to.rotation) };
  const from = kit.sheet.placement.find((p) => p.ref === to.ref);
  if (kit.sheet.placement.length === 0)
    return putAll(
      kit,
      'placement',
      shown.map((p) => (p.ref === to.ref ? placed : p)),
    );
  if (!from) return [put(kit, 'placement', placed)];
  const angle = ((placed.rotation - from.rotation) * Math.PI) / 180;
  const pads = kit.sheet.pads
    .filter((p) => p.ref === to.ref)
    .map((p) => {
      const [dx, dy] = [p.x - from.x, p.y - from.y];
      return { ...p, x: at(placed.x + dx * Math.cos(angle) - dy * Math.sin(angle)), y: at(placed.y + dx * Math.sin(angle) + dy * Math.cos(angle)) };
    });
  return [put(kit, 'placement', placed), ...putAll(kit, 'pads', pads)];
}

/** The places of a kit as a file counts them: y up, counter-clockwise. */
export const placesOfKit = (kit: KitState): PlacedPart[] =>
  kit.sheet.placement.map((p) => ({ ref: p.ref, x: p.x, y: 0 - p.y, rotation: turned(-p.rotation), side: p.side ?? 'top' }));
