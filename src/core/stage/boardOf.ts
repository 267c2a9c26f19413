import { type Circuit, findPart } from '../circuit';
import { type Board, type BoardPart, type BoardStrap, elementsOfPart, STRAP_OHMS } from '../fault';
import { choiceOn, type Line, type Ref } from '../kit';
import { factsOf, OPAMP_PINS } from '../vocabulary';
import { linkElement, strapElement } from './circuitAt';
import { elementsOf } from './elements';
import { type Setup, wantedLines } from './setup';

/** Tolerance of a bench supply's voltage (common practice, no source). */
const SUPPLY_TOLERANCE = 0.02;

/** Parts of the sheet as the fault finder wants them, with measured values in place of printed ones. */
export function boardOf(setup: Setup, circuit: Circuit): Board {
  const { sheet } = setup;
  const supplies = circuit.parts.flatMap((part): BoardPart[] =>
    part.kind === 'V' && !part.name.includes('.')
      ? [{ ref: part.name, element: part.name, kind: 'supply', value: part.dc, model: null, tolerance: [-SUPPLY_TOLERANCE, SUPPLY_TOLERANCE], range: null }]
      : [],
  );
  const seen = new Set<Ref>();
  const parts = wantedLines(setup).flatMap((line) =>
    line.refs.flatMap((ref): BoardPart[] => {
      if (seen.has(ref)) return [];
      seen.add(ref);
      return partsAt(setup, circuit, line, ref);
    }),
  );
  return {
    parts: [...supplies, ...parts, ...addedParts(setup), ...outsideParts(setup, circuit, parts)],
    straps: strapsOf(setup),
    neighbours: sheet.circuit?.neighbours ?? [],
    finished: circuit,
  };
}

/** Resistors of the deck that no line of the list holds: loads, sensors and the like, which hang on the board from outside. As the deck has them. */
function outsideParts({ sheet }: Setup, circuit: Circuit, parts: readonly BoardPart[]): BoardPart[] {
  const listed = new Set([...parts.flatMap(elementsOfPart), ...sheet.lines.flatMap((l) => l.refs.flatMap((r) => elementsOf(sheet, circuit, r)))]);
  return circuit.parts.flatMap((p): BoardPart[] =>
    p.kind !== 'R' || /[.~]/.test(p.name) || listed.has(p.name)
      ? []
      : [{ ref: p.name, element: p.name, kind: 'resistor', value: p.value, model: null, tolerance: [0, 0], range: null, body: 'outside' }],
  );
}

/** Options that straps set, as they were chosen; an undecided one connects nothing and is no suspect. */
function strapsOf({ sheet, choices, board }: Setup): BoardStrap[] {
  return sheet.options.flatMap((o): BoardStrap[] => {
    const choice = choiceOn({ choices }, o.id, board);
    if (choice === undefined || !o.links?.length) return [];
    const links = o.choices.map((c) => ({ choice: c, nets: o.links!.flatMap((l) => (l.choice === c ? [l.nets] : [])) }));
    return [{ option: o.text, element: strapElement(o.id), choice, links }];
  });
}

/** Parts and links that a modification put on the board; tolerance as usual for their kind. */
function addedParts({ board }: Setup): BoardPart[] {
  return board.modifications.flatMap(({ change: m }, i): BoardPart[] => {
    if (m.what === 'link') {
      const ref = `Link from ${m.nets.join(' to ')}`;
      return [{ ref, element: linkElement(i), kind: 'contact', value: STRAP_OHMS, model: null, tolerance: [0, 0], range: null }];
    }
    if (m.what !== 'part-added' || m.kind === 'D' || m.value === null) return [];
    const { board: kind, tolerance } = factsOf(ADDED_KINDS[m.kind]);
    return kind ? [{ ref: m.name, element: m.name, kind, value: m.value, model: null, tolerance, range: null }] : [];
  });
}
const ADDED_KINDS = { R: 'resistor', C: 'capacitor', L: 'inductor' } as const;

function partsAt(setup: Setup, circuit: Circuit, line: Line, ref: Ref): BoardPart[] {
  const facts = factsOf(line.kind);
  if (!facts.board) return [];
  const elements = elementsOf(setup.sheet, circuit, ref);
  const [element] = elements;
  if (element === undefined) return [];
  const kind = boardKindOf(circuit, line, element, facts.board);
  if (kind === null) return [];
  const part: BoardPart = {
    ref,
    element,
    kind,
    value: setup.board.values.get(ref) ?? line.value,
    model: line.type ?? null,
    tolerance: line.tolerance ?? facts.tolerance,
    range: line.range ?? null,
    programmed: line.kind === 'microcontroller' || undefined,
    body: line.kind === 'network' ? 'network' : line.kind === 'trimmer' || line.kind === 'potentiometer' ? 'control' : undefined,
    // Ohms of a contact are those of one of its positions.
    measured: kind === 'contact' ? undefined : setup.measured.get(ref),
  };
  return [elements.length > 1 ? { ...part, elements } : part];
}

/** What the fault finder takes a line's part for: a sub-circuit is an op-amp only if it is built and wired like one. */
function boardKindOf(circuit: Circuit, line: Line, element: string, kind: BoardPart['kind']): BoardPart['kind'] | null {
  if (kind !== 'opamp' && kind !== 'chip') return kind;
  const inside = circuit.parts.filter((p) => p.name.toLowerCase().startsWith(`${element.toLowerCase()}.`));
  if (inside.length === 0) return findPart(circuit, element) ? kind : null;
  return isOpamp(inside) && (line.kind === 'opamp' || line.kind === 'ic') ? 'opamp' : 'chip';
}

/** An op-amp's sub-circuit has five ports and a gain stage between its two inputs. */
function isOpamp(inside: readonly Circuit['parts'][number][]): boolean {
  const ports = new Set(inside.flatMap((p) => (p.ports ?? []).filter((port) => port >= 0)));
  const gain = inside.find((p) => p.kind === 'G');
  const inputs = gain?.ports?.slice(2, 4) ?? [];
  return ports.size === OPAMP_PINS.length && inputs.includes(0) && inputs.includes(1);
}
