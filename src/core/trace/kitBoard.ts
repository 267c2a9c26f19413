import { findPart, GROUND, PINS } from '../circuit';
import { deriveTraced, type KitState, type Line, type Ref, type Traced } from '../kit';
import { circuitOf, elementsOf } from '../stage';
import { type Answer, boardFor, type FittedPart, type Pad, type PadPair, type TracedBoard } from './board';

/** Pads this close lie side by side: one pitch of through-hole boards and a little, millimetres (own figure). */
export const SIDE_BY_SIDE = 2.7;
/** Ohms below which a usual tester beeps; it stands between 30 and 50 (common practice, no source). */
const BEEPS_BELOW = 40;
/** Contact of what conducts by itself, ohms (common practice, no source). */
const CONTACT = 0.1;

/** A kit's board for the tester, with what was answered on it so far. */
export interface KitTrace {
  readonly board: TracedBoard;
  readonly answers: readonly Answer[];
  /** The entries behind the answers, one each. */
  readonly entries: readonly string[];
  /** What is known of the pads: places and nets from a bare-board netlist, or only the nets that the circuit joins. */
  readonly sides: 'places' | 'nets';
}

/** Null where neither pads with nets nor a circuit tell what should be joined. */
export function traceOf(kit: KitState): KitTrace | null {
  const known = kit.sheet.pads.filter((p) => p.net !== undefined);
  const sides = known.length > 1 ? 'places' : 'nets';
  const pads = unique(sides === 'places' ? known.map((p) => ({ id: `${p.ref}.${p.pin}`, net: p.net!, x: p.x, y: p.y })) : padsOfCircuit(kit));
  if (pads.length < 2) return null;
  const number = new Map(pads.map((p, i) => [p.id, i]));
  const neighbours = sides === 'places' ? bySide(pads) : byNets(pads, kit.sheet.circuit?.neighbours ?? []);
  const fittedOn = (fitted: ReadonlySet<Ref>) =>
    kit.sheet.lines.flatMap((l) => l.refs.filter((r) => fitted.has(r)).flatMap((r) => fittedPart(l, r, number) ?? []));
  const board = boardFor(pads, neighbours, fittedOn(kit.board.fitted), BEEPS_BELOW);
  const joined = String(board.joined);
  // What was read while other parts joined pads says nothing of the board as it is now.
  const holds = ({ entry, board: then }: Traced) =>
    entry.pads.every((p) => number.has(p)) && String(boardFor(pads, [], fittedOn(then.fitted), BEEPS_BELOW).joined) === joined;
  const kept = deriveTraced(kit).filter(holds);
  return {
    board,
    answers: kept.map(({ entry }) => ({ pads: [number.get(entry.pads[0])!, number.get(entry.pads[1])!], beep: entry.beep })),
    entries: kept.map(({ entry }) => entry.id),
    sides,
  };
}

const unique = (pads: readonly Pad[]): Pad[] => [...new Map(pads.map((p) => [p.id, p])).values()];

/**
 * Pins of the parts that are one element of the circuit each. Which of two like leads lies on which pad of the board no deck can
 * tell, so they have no place: they are counted in rows, in the order of the list.
 */
function padsOfCircuit(kit: KitState): Pad[] {
  const circuit = circuitOf(kit.sheet);
  return kit.sheet.lines.flatMap((line, row) =>
    line.refs.flatMap((ref, k) => {
      const [element, ...more] = elementsOf(kit.sheet, circuit, ref);
      const part = element === undefined || more.length > 0 ? undefined : findPart(circuit, element);
      return (part?.nodes ?? []).map((net, i): Pad => ({
        id: `${ref}.${PINS[part!.kind][i] ?? i + 1}`,
        net: net === GROUND ? 'ground' : net,
        x: 10 * k + i,
        y: row,
      }));
    }),
  );
}

function bySide(pads: readonly Pad[]): PadPair[] {
  return pads.flatMap((a, i) => pads.slice(i + 1).flatMap((b, k): PadPair[] => (Math.hypot(a.x - b.x, a.y - b.y) <= SIDE_BY_SIDE ? [[i, i + 1 + k]] : [])));
}

/** Without places: one pair of pads for each two nets that are said to lie side by side. */
function byNets(pads: readonly Pad[], nets: readonly (readonly [string, string])[]): PadPair[] {
  const first = (net: string) => pads.findIndex((p) => p.net === (net === GROUND ? 'ground' : net));
  return nets.map(([a, b]): PadPair => [first(a), first(b)]).filter(([a, b]) => a >= 0 && b >= 0 && a !== b);
}

/** What a tester makes of a fitted part: switches and connectors are left open, junctions never beep. */
function fittedPart(line: Line, ref: Ref, number: ReadonlyMap<string, number>): FittedPart | null {
  const pads = [...number].flatMap(([id, i]) => (id.startsWith(`${ref}.`) ? [i] : []));
  if (pads.length < 2) return null;
  const conducts = line.kind === 'link' || line.kind === 'fuse' || line.kind === 'inductor';
  const resists = ['resistor', 'thermistor', 'lamp', 'relay', 'loudspeaker', 'ldr'].includes(line.kind);
  return { ref, kind: line.kind, pads, ohms: conducts ? CONTACT : resists ? line.value : null };
}
