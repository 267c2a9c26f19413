import dagre from '@dagrejs/dagre';
import type { Line, RecordOf, Ref, Sheet } from '../kit';
import { circuitOf, elementsOf } from '../stage';
import { packageOf } from '../vocabulary';

/** Room for a name beside a part, and the edge of the map, millimetres. */
const NAME = 3.5;
const MARGIN = 8;
/** Room between boards that lie beside one another, millimetres. */
const BETWEEN = 18;
/** A net with more pins than this is a rail: it says nothing of who belongs beside whom. */
const MOST_PINS = 5;
/** Width to height of a usual board. */
const SHAPE = 1.4;

interface Laid {
  readonly ref: Ref;
  readonly x: number;
  readonly y: number;
  readonly width: number;
  readonly height: number;
}

/**
 * Places for parts of which nobody knows where they sit: in layers from the source on, as the circuit joins them; what it does
 * not hold comes last. Not to scale, and no evidence of what lies beside what.
 */
export function laidOut(sheet: Pick<Sheet, 'lines' | 'circuit'>): RecordOf<'placement'>[] {
  const parts = sheet.lines.flatMap((line) => (line.notFitted ? [] : line.refs.map((ref) => ({ ref, line }))));
  const boards = [...new Set(parts.map((p) => boardOf(p.ref)))];
  let left = MARGIN;
  return boards.flatMap((board) => {
    const own = layers(
      sheet,
      parts.filter((p) => boardOf(p.ref) === board),
    );
    const placed = own.map(({ ref, x, y }) => ({ ref, x: round(x + left), y: round(y + MARGIN), rotation: 0 }));
    left += Math.max(0, ...own.map((p) => p.x + p.width / 2)) + BETWEEN;
    return placed;
  });
}

const boardOf = (ref: Ref) => (ref.includes(':') ? ref.split(':')[0]! : '');
const round = (v: number) => Math.round(v * 10) / 10;

/** Parts of one board in layers, from the upper left corner. */
function layers(sheet: Pick<Sheet, 'lines' | 'circuit'>, parts: readonly { readonly ref: Ref; readonly line: Line }[]): Laid[] {
  const graph = new dagre.graphlib.Graph();
  graph.setGraph({ rankdir: 'LR', nodesep: 2, ranksep: 3 });
  graph.setDefaultEdgeLabel(() => ({}));
  for (const { ref, line } of parts) graph.setNode(ref, roomOf(line));
  for (const [a, b] of joined(sheet, parts)) graph.setEdge(a, b);
  dagre.layout(graph);
  const laid = graph.nodes().map((ref) => ({ ref, ...(graph.node(ref) as Omit<Laid, 'ref'>) }));
  return folded(closed(closed(laid, 'y', 'height'), 'x', 'width'));
}

/** Room left between two rows or columns, millimetres. */
const GAP = 2;

/** Bands across the whole drawing in which nothing lies are closed: the library leaves room for wires that nobody draws. */
function closed(laid: readonly Laid[], along: 'x' | 'y', size: 'width' | 'height'): Laid[] {
  let [reached, shift] = [0, 0];
  const moved = new Map<Ref, number>();
  for (const p of [...laid].sort((a, b) => a[along] - a[size] / 2 - (b[along] - b[size] / 2))) {
    const start = p[along] - p[size] / 2;
    if (start > reached + GAP) shift += start - reached - GAP;
    reached = Math.max(reached, start + p[size]);
    moved.set(p.ref, p[along] - shift);
  }
  return laid.map((p) => ({ ...p, [along]: moved.get(p.ref)! }));
}

function roomOf(line: Line): { width: number; height: number } {
  const { width, height, pads } = packageOf(line);
  return {
    width: 2 * Math.max(width / 2, ...pads.map((p) => Math.abs(p.x) + 1)),
    height: 2 * Math.max(height / 2, ...pads.map((p) => Math.abs(p.y) + 1)) + NAME,
  };
}

/** Parts that share a net of few pins, in the order of the list. */
function joined(sheet: Pick<Sheet, 'lines' | 'circuit'>, parts: readonly { readonly ref: Ref }[]): [Ref, Ref][] {
  const circuit = circuitOf(sheet);
  const onNet = new Map<string, Ref[]>();
  for (const { ref } of parts) {
    const elements = new Set(elementsOf(sheet, circuit, ref));
    const nets = new Set(circuit.parts.filter((p) => elements.has(p.name)).flatMap((p) => p.nodes));
    for (const net of nets) onNet.set(net, [...(onNet.get(net) ?? []), ref]);
  }
  return [...onNet.values()].flatMap((refs) => (refs.length > MOST_PINS ? [] : refs.slice(1).map((ref, i): [Ref, Ref] => [refs[i]!, ref])));
}

/** A drawing much longer than wide, or wider than long, cut into strips that lie beside one another. */
function folded(laid: readonly Laid[]): Laid[] {
  const [width, height] = (['width', 'height'] as const).map((side) => Math.max(1, ...laid.map((p) => (side === 'width' ? p.x : p.y) + p[side] / 2)));
  const strips = Math.max(1, Math.round(Math.sqrt(Math.max(width! / (SHAPE * height!), (SHAPE * height!) / width!))));
  if (strips === 1) return [...laid];
  const [along, across, long, size] = width! > SHAPE * height! ? (['x', 'y', width!, 'height'] as const) : (['y', 'x', height!, 'width'] as const);
  const own = along === 'x' ? 'width' : 'height';
  const strip = (p: Laid) => Math.min(strips - 1, Math.floor((p[along] * strips) / long));
  let end = 0;
  return Array.from({ length: strips }, (_, i) => laid.filter((p) => strip(p) === i)).flatMap((parts) => {
    const first = Math.min(...parts.map((p) => p[along] - p[own] / 2));
    const low = Math.min(...parts.map((p) => p[across] - p[size] / 2));
    const placed = parts.map((p) => ({ ...p, [along]: p[along] - first, [across]: p[across] - low + end }));
    end = Math.max(end, ...placed.map((p) => p[across] + p[size] / 2)) + NAME;
    return placed;
  });
}
