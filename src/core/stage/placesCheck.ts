import { type Circuit, findPart, GROUND, ownerOf } from '../circuit';
import type { Ref } from '../kit';
import { factsOf } from '../vocabulary';
import type { Setup } from './setup';
import { printNominal } from '../quantity';
import { elementOf, elementsOf } from './elements';

type Sheet = Pick<Setup['sheet'], 'lines' | 'circuit'>;

/** Something about list and circuit that does not meet. */
export interface PlaceFinding {
  readonly severity: 'warning' | 'note';
  readonly text: string;
}

/** Values this close are one value: a list rounds, a deck does not. */
const SAME_VALUE = 0.02;

/** The list held against the circuit: parts without a place, places without a part, other values, pins left open. */
export function checkPlaces(sheet: Sheet, circuit: Circuit): PlaceFinding[] {
  return [...unplaced(sheet, circuit), ...unlisted(sheet, circuit), ...otherValues(sheet, circuit), ...openPins(circuit)];
}

function unplaced(sheet: Sheet, circuit: Circuit): PlaceFinding[] {
  return sheet.lines.flatMap((line) => {
    const { board } = factsOf(line.kind);
    if (board === null || line.notFitted) return [];
    return line.refs
      .filter((ref) => elementsOf(sheet, circuit, ref).length === 0)
      .map((ref): PlaceFinding => ({
        severity: board === 'chip' ? 'note' : 'warning',
        text: `${ref} (${line.label}) is on the list but not in the circuit.`,
      }));
  });
}

/** Names in the circuit that stand for a ref. */
function namesOf(sheet: Sheet, circuit: Circuit, ref: Ref): string[] {
  const elements = elementsOf(sheet, circuit, ref);
  return elements.length === 0 ? [ref] : elements;
}

function unlisted(sheet: Sheet, circuit: Circuit): PlaceFinding[] {
  const placed = new Set(sheet.lines.flatMap((l) => l.refs.flatMap((ref) => namesOf(sheet, circuit, ref).map((name) => name.toLowerCase()))));
  const owners = [...new Set(circuit.parts.filter((p) => p.kind !== 'V' && p.kind !== 'I').map((p) => ownerOf(p.name)))];
  return owners
    .filter((o) => !placed.has(o.toLowerCase()))
    .map((o): PlaceFinding => ({ severity: 'note', text: `${o} is in the circuit but on no line of the list.` }));
}

/** A part that has one value on the list and another in the circuit. */
export interface ValueMismatch {
  readonly ref: Ref;
  readonly listed: string;
  readonly drawn: string;
}

/** Parts whose value on the list is not that of the circuit; what is set by hand or by heat has none of its own. */
export const valueMismatches = (sheet: Sheet, circuit: Circuit): ValueMismatch[] =>
  sheet.lines.flatMap((line) =>
    line.refs.flatMap((ref): ValueMismatch[] => {
      const element = elementOf(sheet, circuit, ref);
      const part = element === null ? undefined : findPart(circuit, element);
      if (!part || line.value === null || !('value' in part) || line.kind === 'trimmer' || line.kind === 'potentiometer' || line.kind === 'thermistor')
        return [];
      if (Math.abs(part.value / line.value - 1) <= SAME_VALUE) return [];
      const { unit } = factsOf(line.kind);
      return [{ ref, listed: printNominal(line.value, unit), drawn: printNominal(part.value, unit) }];
    }),
  );

const otherValues = (sheet: Sheet, circuit: Circuit): PlaceFinding[] =>
  valueMismatches(sheet, circuit).map(({ ref, listed, drawn }) => ({
    severity: 'warning',
    text: `${ref}: the list says ${listed}, the circuit ${drawn}. The bag’s contents settle nothing: see the data sheet, trace the board, or calculate.`,
  }));

/** Nets on which one pin hangs alone. */
function openPins(circuit: Circuit): PlaceFinding[] {
  const pins = new Map<string, string[]>();
  for (const p of circuit.parts) for (const net of new Set(p.nodes)) if (net !== GROUND) pins.set(net, [...(pins.get(net) ?? []), ownerOf(p.name)]);
  return [...pins].flatMap(([net, owners]): PlaceFinding[] =>
    owners.length === 1 && !net.includes('.') ? [{ severity: 'note', text: `Net ${net}: only ${owners[0]!} is on it, so that pin is left open.` }] : [],
  );
}
