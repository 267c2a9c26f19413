import { type Circuit, findNet, findPart } from '../circuit';
import type { BoardTrack } from '../fault';
import type { Ref, Sheet } from '../kit';
import { elementsOf, partsInside } from './elements';

/** More breaks are not thought of; the longest tracks come first. */
const MOST_TRACKS = 40;
/** A break that cuts one pad off reads like that pad's joint. */
const FEWEST_BEYOND = 2;

/** A pad of a net: where it lies, and what of the circuit ends there (nothing at a test point). */
interface Stop {
  readonly ref: Ref | null;
  readonly x: number;
  readonly y: number;
  readonly ends: BoardTrack['ends'];
}

/**
 * Where a track may be broken: each net is taken for the shortest tree that joins its parts on the map (Prim 1957), and each link
 * of it for a place where a crack cuts some of them off. The side with more test points keeps the net's name, else the larger one.
 */
export function tracksOf(sheet: Pick<Sheet, 'lines' | 'circuit' | 'placement' | 'pads' | 'testPoints'>, circuit: Circuit): BoardTrack[] {
  const found = [...stopsByNet(sheet, circuit)].flatMap(([net, stops]) => breaksOf(net, stops));
  return found
    .sort((a, b) => b.length - a.length)
    .slice(0, MOST_TRACKS)
    .map((b) => b.track);
}

function stopsByNet(sheet: Parameters<typeof tracksOf>[0], circuit: Circuit): Map<string, Stop[]> {
  const stops = new Map<string, Stop[]>();
  const add = (net: string, stop: Stop) => stops.set(net, [...(stops.get(net) ?? []), stop]);
  const listed = new Set(sheet.lines.flatMap((l) => l.refs));
  for (const { ref, x, y } of sheet.placement) {
    if (!listed.has(ref)) continue;
    for (const [net, ends] of endsOf(sheet, circuit, ref)) {
      const pad = sheet.pads.find((p) => p.ref === ref && p.net !== undefined && findNet(circuit, p.net) === net);
      add(net, { ref, x: pad?.x ?? x, y: pad?.y ?? y, ends });
    }
  }
  for (const { net, x, y } of sheet.testPoints) {
    const own = findNet(circuit, net);
    if (own !== undefined && x !== undefined && y !== undefined) add(own, { ref: null, x, y, ends: [] });
  }
  return stops;
}

/** What of a part ends on each of its nets. */
function endsOf(sheet: Pick<Sheet, 'circuit'>, circuit: Circuit, ref: Ref): Map<string, BoardTrack['ends']> {
  const ends = new Map<string, BoardTrack['ends']>();
  for (const element of elementsOf(sheet, circuit, ref)) {
    const part = findPart(circuit, element);
    for (const p of part ? [part] : partsInside(circuit, element))
      p.nodes.forEach((net, node) => {
        if (part || (p.ports?.[node] ?? -1) >= 0) ends.set(net, [...(ends.get(net) ?? []), { element: p.name, node }]);
      });
  }
  return ends;
}

function breaksOf(net: string, stops: readonly Stop[]): { readonly track: BoardTrack; readonly length: number }[] {
  const { parents, order } = shortestTree(stops);
  // Beyond a stop lie those that were joined after it by way of it.
  const beyond = stops.map((_, i) => new Set([i]));
  for (const i of [...order].reverse()) for (const k of beyond[i]!) beyond[parents[i]!]!.add(k);
  return order.flatMap((i) => {
    const sides = [stops.filter((_, k) => beyond[i]!.has(k)), stops.filter((_, k) => !beyond[i]!.has(k))] as const;
    if (!sides.every((side) => partsOf(side).length >= FEWEST_BEYOND)) return [];
    const [far, near] = sides;
    const cut = keeps(near, far) ? far : near;
    return [{ track: { net, beyond: partsOf(cut).sort(), ends: cut.flatMap((s) => s.ends) }, length: apart(stops[i]!, stops[parents[i]!]!) }];
  });
}

const apart = (a: Stop, b: Stop): number => Math.hypot(a.x - b.x, a.y - b.y);
const partsOf = (side: readonly Stop[]): Ref[] => side.flatMap((s) => s.ref ?? []);

function keeps(side: readonly Stop[], other: readonly Stop[]): boolean {
  const points = (stops: readonly Stop[]) => stops.length - partsOf(stops).length;
  return points(side) === points(other) ? partsOf(side).length >= partsOf(other).length : points(side) > points(other);
}

/** Which stop each was joined to, and all but the first in the order in which they were. */
function shortestTree(stops: readonly Stop[]): { readonly parents: readonly number[]; readonly order: readonly number[] } {
  const parents = stops.map(() => 0);
  const order: number[] = [];
  const left = new Set(stops.keys());
  left.delete(0);
  while (left.size > 0) {
    const distance = (i: number) => apart(stops[i]!, stops[parents[i]!]!);
    const next = [...left].reduce((best, i) => (distance(i) < distance(best) ? i : best));
    left.delete(next);
    order.push(next);
    for (const i of left) if (apart(stops[i]!, stops[next]!) < distance(i)) parents[i] = next;
  }
  return { parents, order };
}
