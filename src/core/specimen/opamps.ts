import { type Circuit, ownerOf, type Part, type System } from '../circuit';
import type { Board, BoardPart } from '../fault';
import type { ModelSpread, Problem } from './problem';

/** Sources that a deck's op-amp lacks: what its makers differ in. Both are nothing on the board as carded. */
const OFFSET = '.~offset';
const LOWER = '.~lower';

const insideOf = (circuit: Circuit, element: string): Part[] =>
  circuit.parts.filter((p) => p.name.includes('.') && ownerOf(p.name).toLowerCase() === element.toLowerCase());

/** The stage that amplifies: its first G element. */
const gainOf = (inside: readonly Part[]) => inside.find((p) => p.kind === 'G');

/** The diode that keeps the output above its lower limit: it hangs on a source that follows the lower supply. */
const lowerOf = (inside: readonly Part[]) => {
  const followers = new Set(inside.flatMap((p) => (p.kind === 'E' ? [p.nodes[0]!] : [])));
  return inside.find((p) => p.kind === 'D' && followers.has(p.nodes[0]!));
};

/** Which source sets the upper limit: the limiting diode ends on it. */
const upperOf = (inside: readonly Part[]) => {
  const ends = new Set(inside.flatMap((p) => (p.kind === 'D' ? [p.nodes[1]!] : [])));
  return inside.find((p) => p.kind === 'V' && p.nodes.some((n) => ends.has(n)));
};

/** The circuit with a source for the offset and one for the lower limit of every op-amp. An offset is a current beside its gain stage. */
function withOpampSources(circuit: Circuit, board: Board): Circuit {
  return board.parts
    .filter((p) => p.kind === 'opamp')
    .reduce((c, { element }) => {
      const inside = insideOf(c, element);
      const gain = gainOf(inside);
      const lower = lowerOf(inside);
      if (gain === undefined) return c;
      const owner = ownerOf(gain.name);
      const added: Part[] = [{ name: `${owner}${OFFSET}`, kind: 'I', nodes: gain.nodes.slice(0, 2), dc: 0, wave: null }];
      if (lower === undefined) return { ...c, parts: [...c.parts, ...added] };
      const end = `${owner}${LOWER}`;
      added.push({ name: end, kind: 'V', nodes: [end, lower.nodes[0]!], dc: 0, wave: null });
      const parts = c.parts.map((p) => (p === lower ? { ...p, nodes: [end, ...p.nodes.slice(1)] } : p));
      return { ...c, parts: [...parts, ...added] };
    }, circuit);
}

/** The problem with what makers of op-amps differ in. */
export const withOpampMakers = (problem: Problem): Problem => ({
  ...problem,
  scenes: problem.scenes.map((s) => ({ ...s, circuit: withOpampSources(s.circuit, problem.board) })),
});

/** What is drawn for one op-amp, each uniform in 0..1: the offset is its own, the limits are its lot's. */
interface Drawn {
  readonly value: number;
  readonly lot: number;
  readonly junction: number;
}

/** Sets what makers differ in, of one op-amp in a compiled circuit. */
export function opampSetters(system: System, circuit: Circuit, { element }: BoardPart): ((drawn: Drawn, spread: ModelSpread) => void)[] {
  const inside = insideOf(circuit, element);
  const gain = gainOf(inside);
  const upper = upperOf(inside);
  const setter = (suffix: string) => {
    const source = inside.find((p) => p.name.endsWith(suffix));
    return source ? system.valueSetter(source.name) : null;
  };
  const [offset, lower, above] = [setter(OFFSET), setter(LOWER), upper ? system.valueSetter(upper.name) : null];
  const setters: ((drawn: Drawn, spread: ModelSpread) => void)[] = [];
  if (offset && gain?.kind === 'G')
    setters.push((d, { opampOffset }) => {
      offset((2 * d.value - 1) * opampOffset * gain.gain);
    });
  if (lower)
    setters.push((d, { opampLimit }) => {
      lower(d.junction * opampLimit);
    });
  if (above && upper?.kind === 'V')
    setters.push((d, { opampLimit }) => {
      above(upper.dc + (2 * d.lot - 1) * opampLimit);
    });
  return setters;
}
