import { type Circuit, ownerOf, type Part } from '../circuit';
import type { Line, LineKind } from '../kit';
import { KIND_FACTS } from '../vocabulary';
import { printNominal } from '../quantity';
import { diodeKind } from './readList';

/** A parts list made from the deck alone: equal parts share a line. Sources are the bench's and stand on no list. */
export function linesFromCircuit(circuit: Circuit): Line[] {
  const lines = new Map<string, { kind: LineKind; label: string; value: number | null; type?: string; refs: string[] }>();
  const chips = new Set<string>();
  for (const part of circuit.parts) {
    const owner = ownerOf(part.name);
    if (owner !== part.name) {
      if (!chips.has(owner)) add(lines, { kind: 'opamp', label: 'chip', value: null, ref: owner.replace(/^X/i, '') });
      chips.add(owner);
      continue;
    }
    const found = describe(part);
    if (found) add(lines, { ...found, ref: part.name });
  }
  return [...lines.values()].map((l, i) => ({ id: `line-${i + 1}`, tolerance: null, quantity: l.refs.length, ...l }));
}

function add(
  lines: Map<string, { kind: LineKind; label: string; value: number | null; type?: string; refs: string[] }>,
  found: { kind: LineKind; label: string; value: number | null; type?: string; ref: string },
): void {
  const { ref, ...rest } = found;
  const key = `${rest.kind}/${rest.label}`;
  const known = lines.get(key);
  if (known) known.refs.push(ref);
  else lines.set(key, { ...rest, refs: [ref] });
}

const ELECTROLYTIC_FROM = 1e-6;

function describe(part: Part): { kind: LineKind; label: string; value: number | null; type?: string } | null {
  switch (part.kind) {
    case 'R':
      return { kind: 'resistor', label: printNominal(part.value, 'ohm'), value: part.value };
    case 'C':
      return { kind: part.value >= ELECTROLYTIC_FROM ? 'electrolytic' : 'capacitor', label: printNominal(part.value, 'F'), value: part.value };
    case 'L':
      return { kind: 'inductor', label: printNominal(part.value, 'H'), value: part.value };
    case 'D': {
      const kind = diodeKind(part.model.name, part.model.params);
      return { kind, label: part.model.name, value: kind === 'zener' ? part.model.params['BV']! : null, type: part.model.name };
    }
    case 'Q':
    case 'M':
    case 'J': {
      const kind = part.model.kind.toLowerCase() as LineKind;
      return { kind: kind in KIND_FACTS ? kind : 'other', label: part.model.name, value: null, type: part.model.name };
    }
    default:
      return null;
  }
}
