import { addParts, removeParts } from './edit';
import { type Circuit, findPart } from './netlist';
import { operatingPoint } from './operatingPoint';

/**
 * Amperes into the first node of a part at the operating point; 0 when it is not fitted.
 * @throws UnsolvableError when the circuit has no solution.
 */
export function currentThrough(circuit: Circuit, element: string): number {
  const part = findPart(circuit, element);
  if (!part) return 0;
  const inner = '~sense';
  const opened = { ...part, nodes: [inner, ...part.nodes.slice(1)] };
  const sensed = addParts(removeParts(circuit, [part.name]), [opened, { name: '~Vsense', kind: 'V', nodes: [part.nodes[0]!, inner], dc: 0, wave: null }]);
  return operatingPoint(sensed).branches['~Vsense'] ?? 0;
}
