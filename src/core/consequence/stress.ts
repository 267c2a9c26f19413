import { type Circuit, findPart } from '../circuit/netlist';
import { operatingPoint } from '../circuit/operatingPoint';
import { type KitDocument, type Ref } from '../kit';
import { elementOf } from '../stage/scene';

/** A part driven beyond what it stands. */
export interface Overload {
  readonly ref: Ref;
  readonly what: 'power' | 'voltage' | 'current';
  /** Watts, volts or amperes. */
  readonly value: number;
  readonly rating: number;
}

/** Parts beyond their rating at the operating point of a circuit: power of resistors, voltage of capacitors, current of diodes. */
export function overloads(doc: KitDocument, circuit: Circuit): Overload[] {
  const { nodes } = operatingPoint(circuit);
  const volts = (net: string | undefined) => (net === undefined ? 0 : (nodes[net] ?? 0));
  return doc.sheet.lines.flatMap((line) =>
    line.refs.flatMap((ref): Overload[] => {
      const element = line.rating ? elementOf(doc.sheet, circuit, ref) : null;
      const part = element === null ? undefined : findPart(circuit, element);
      if (!part || !line.rating) return [];
      const across = Math.abs(volts(part.nodes[0]) - volts(part.nodes[1]));
      const found: Overload[] = [];
      const add = (what: Overload['what'], value: number, rating: number | undefined) => {
        if (rating !== undefined && value > rating) found.push({ ref, what, value, rating });
      };
      if (part.kind === 'R') add('power', across ** 2 / part.value, line.rating.watts);
      if (part.kind === 'R') add('current', across / part.value, line.rating.amperes);
      if (part.kind === 'C') add('voltage', across, line.rating.volts);
      return found;
    }),
  );
}

/** Watts in one resistor at the operating point; 0 when it is not fitted or the circuit has no solution. */
export function powerOf(doc: KitDocument, circuit: Circuit, ref: Ref): number {
  const element = elementOf(doc.sheet, circuit, ref);
  const part = element === null ? undefined : findPart(circuit, element);
  if (part?.kind !== 'R') return 0;
  try {
    const { nodes } = operatingPoint(circuit);
    return ((nodes[part.nodes[0]!] ?? 0) - (nodes[part.nodes[1]!] ?? 0)) ** 2 / part.value;
  } catch {
    return 0;
  }
}
