import { type Circuit, ownerOf, type Part, type System } from '../circuit';
import type { Board, BoardPart } from '../fault';
import { limitOf, OFFSET, withOffsets } from './pieces';
import type { ModelSpread, Problem } from './problem';

/** The source of a lower limit that the deck does not tell. */
const LOWER = '.~lower';

const insideOf = (circuit: Circuit, element: string): Part[] =>
  circuit.parts.filter((p) => p.name.includes('.') && ownerOf(p.name).toLowerCase() === element.toLowerCase());

/** The circuit with a source for the lower limit of every op-amp whose output follows its lower supply down to the last millivolt. */
function withLowerLimits(circuit: Circuit, board: Board): Circuit {
  return board.parts
    .filter((p) => p.kind === 'opamp')
    .reduce((c, { element }) => {
      const inside = insideOf(c, element);
      const followers = new Set(inside.flatMap((p) => (p.kind === 'E' ? [p.nodes[0]!] : [])));
      const limiting = inside.find((p) => p.kind === 'D' && followers.has(p.nodes[0]!));
      if (!limiting) return c;
      const end = `${ownerOf(limiting.name)}${LOWER}`;
      const source: Part = { name: end, kind: 'V', nodes: [end, limiting.nodes[0]!], dc: 0, wave: null };
      return { ...c, parts: [...c.parts.map((p) => (p === limiting ? { ...p, nodes: [end, ...p.nodes.slice(1)] } : p)), source] };
    }, circuit);
}

/** The problem with sources for what makers of op-amps differ in: offset and limits of the output. They are nothing until they are set. */
export const withOpampMakers = (problem: Problem): Problem => ({
  ...problem,
  scenes: problem.scenes.map((s) => ({ ...s, circuit: withLowerLimits(withOffsets(s.circuit, problem.board), problem.board) })),
});

/** What is drawn for one op-amp, each uniform in 0..1: the offset is its own, the limits are its lot's. */
interface Drawn {
  readonly value: number;
  readonly lot: number;
  readonly junction: number;
}
type Setter = (drawn: Drawn, spread: ModelSpread) => void;

/** Sets what makers differ in, of one op-amp in a compiled circuit. */
export function opampSetters(system: System, circuit: Circuit, { element }: BoardPart): Setter[] {
  return insideOf(circuit, element).flatMap((part): Setter[] => {
    const set = part.kind === 'V' ? system.valueSetter(part.name) : null;
    if (part.kind !== 'V' || !set) return [];
    const to = (volts: (drawn: Drawn, spread: ModelSpread) => number): Setter[] => [
      (d, spread) => {
        set(part.dc + volts(d, spread));
      },
    ];
    if (part.name.endsWith(OFFSET)) return to((d, { opampOffset }) => (2 * d.value - 1) * opampOffset);
    switch (limitOf(part, circuit)) {
      case 'upper':
        return to((d, { opampUpper: [low, high] }) => low + (high - low) * d.lot);
      case 'lower':
        return to((d, { opampLower: [low, high] }) => low + (high - low) * d.junction);
      case null:
        return [];
    }
  });
}
