import { addParts, removeParts } from './edit';
import { type Circuit, findPart } from './netlist';
import { operatingPoint } from './operatingPoint';
import { isRunning, steadyState } from './steady';

const SENSE = '~Vsense';

/**
 * Amperes into the first node of a part at the operating point; 0 when it is not fitted.
 * @throws UnsolvableError when the circuit has no solution.
 */
export function currentThrough(circuit: Circuit, element: string): number {
  const sensed = withSense(circuit, element);
  return sensed ? (operatingPoint(sensed).branches[SENSE] ?? 0) : 0;
}

/**
 * The same on average, for a circuit that never rests: run until it is steady.
 * @throws UnsolvableError when the circuit has no solution.
 */
export function averageCurrentThrough(circuit: Circuit, element: string): number {
  if (!isRunning(circuit)) return currentThrough(circuit, element);
  const trace = `I(${SENSE})`;
  const sensed = withSense(circuit, element);
  return sensed ? (steadyState(sensed, [trace]).statistics[trace]?.average ?? 0) : 0;
}

/** The circuit with an ammeter in front of a part's first node; null when the part is not fitted. */
function withSense(circuit: Circuit, element: string): Circuit | null {
  const part = findPart(circuit, element);
  if (!part) return null;
  const inner = '~sense';
  const opened = { ...part, nodes: [inner, ...part.nodes.slice(1)] };
  return addParts(removeParts(circuit, [part.name]), [opened, { name: SENSE, kind: 'V', nodes: [part.nodes[0]!, inner], dc: 0, wave: null }]);
}
