import { type Circuit, GROUND } from './netlist';
import { Newton, type Solution } from './solve/newton';
import { System } from './solve/system';

/** Thrown when a circuit has no solution that can be computed; names the net or part at fault. */
export class UnsolvableError extends Error {
  override readonly name = 'UnsolvableError';
}

export interface OperatingPoint {
  /** Volts to ground, by net, ground left out. */
  readonly nodes: Readonly<Record<string, number>>;
  /** Amperes from + through the source to −, by voltage source. */
  readonly branches: Readonly<Record<string, number>>;
  readonly iterations: number;
}

/**
 * DC operating point of a circuit.
 * @throws UnsolvableError naming a loop of sources, or the net at which Newton's method failed.
 */
export function operatingPoint(circuit: Circuit): OperatingPoint {
  const loop = findSourceLoop(circuit);
  if (loop) throw new UnsolvableError(loop);
  const system = new System(circuit);
  const solution = new Newton(system).solve(null);
  checkSolved(solution);
  return report(circuit, system, solution);
}

/** @throws UnsolvableError when the solution did not converge. */
export function checkSolved(solution: Solution): void {
  if (solution.converged) return;
  const place = solution.culprit?.startsWith('I(') ? `the current of ${solution.culprit.slice(2, -1)}` : `net ${solution.culprit?.split('#')[0] ?? '?'}`;
  throw new UnsolvableError(
    `No steady voltages were found: ${place} did not settle. Check the parts there for a wrong value, a missing part or a loop that latches.`,
  );
}

function report(circuit: Circuit, system: System, solution: Solution): OperatingPoint {
  const nodes: Record<string, number> = {};
  const branches: Record<string, number> = {};
  for (let i = 0; i < system.nodeCount; i++) {
    const name = system.unknowns[i]!;
    if (!name.includes('#')) nodes[name] = solution.x[i]!;
  }
  for (const part of circuit.parts) if (part.kind === 'V') branches[part.name] = solution.x[system.branchOf(part.name)!]!;
  return { nodes, branches, iterations: solution.iterations };
}

/**
 * Voltage sources that form a loop contradict each other or leave their currents open, and one that stands straight across a
 * coil drives a current without end. In words, or null. Found by union of nets. Alternating sources may stand across coils.
 */
export function findSourceLoop(circuit: Circuit): string | null {
  const parent = new Map<string, string>([[GROUND, GROUND]]);
  const root = (net: string): string => {
    let at = net;
    while ((parent.get(at) ?? at) !== at) at = parent.get(at)!;
    return at;
  };
  const still = circuit.parts.some((p) => p.kind === 'V' && p.wave === null && p.dc !== 0);
  const coils = still ? circuit.parts.filter((p) => p.kind === 'L') : [];
  for (const part of [...circuit.parts.filter((p) => p.kind === 'V' || p.kind === 'E'), ...coils]) {
    const [a, b] = [root(part.nodes[0]!), root(part.nodes[1]!)];
    if (a === b) {
      if (part.kind === 'L') {
        if (!hasSourceLoop(circuit, part.name)) continue;
        return `${part.name} is directly across a steady source between ${part.nodes[0]!} and ${part.nodes[1]!}: nothing limits its current. Put its winding resistance in series with it.`;
      }
      if (part.nodes[0] === part.nodes[1]) return `${part.name} has both ends on net ${part.nodes[0]!}. Connect one end elsewhere, or remove it.`;
      return `${part.name} closes a loop of voltage sources between ${part.nodes[0]!} and ${part.nodes[1]!}. Put a resistor in series with one of them, or remove one.`;
    }
    parent.set(a, b);
  }
  return null;
}

/** Whether a coil closes a loop with steady sources, other coils as wires: a loop of coils alone drives nothing. */
function hasSourceLoop(circuit: Circuit, coil: string): boolean {
  const ends = circuit.parts.find((p) => p.name === coil)!.nodes;
  const reach = new Map([[ends[0]!, false]]);
  const queue = [ends[0]!];
  while (queue.length > 0) {
    const net = queue.pop()!;
    for (const p of circuit.parts) {
      if (p.name === coil || (p.kind !== 'V' && p.kind !== 'L' && p.kind !== 'E') || !p.nodes.slice(0, 2).includes(net)) continue;
      const other = p.nodes[0] === net ? p.nodes[1]! : p.nodes[0]!;
      const driven = reach.get(net)! || (p.kind === 'V' && p.wave === null && p.dc !== 0) || p.kind === 'E';
      if (reach.has(other) && (reach.get(other) || !driven)) continue;
      reach.set(other, driven);
      queue.push(other);
    }
  }
  return reach.get(ends[1]!) ?? false;
}
