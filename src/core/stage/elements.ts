import { type Circuit, connectionsOf, findPart, hasElement, ownerOf, type Part, readDeck } from '../circuit';
import { commonBeginning } from '../fault';
import type { Ref } from '../kit';
import { pinCalled } from '../vocabulary';
import type { Setup } from './setup';

type Sheet = Setup['sheet'];

const decks = new Map<string, Circuit>();
const MOST_DECKS = 8;

/** The deck of a sheet; the circuit is empty when there is none. Errors were shown when it was entered. */
export function circuitOf(sheet: Pick<Sheet, 'circuit'>): Circuit {
  if (!sheet.circuit) return { title: '', parts: [], initial: {} };
  const known = decks.get(sheet.circuit.deck);
  if (known) return known;
  const { circuit } = readDeck(sheet.circuit.deck);
  if (decks.size >= MOST_DECKS) decks.clear();
  decks.set(sheet.circuit.deck, circuit);
  return circuit;
}

/** Name in the deck of the element that stands for a ref; null when the circuit has none. */
export function elementOf(sheet: Pick<Sheet, 'circuit'>, circuit: Circuit, ref: Ref): string | null {
  const named = sheet.circuit?.elements?.[ref];
  const tried = named ? [named] : [ref, ...['X', 'R', 'D', 'Q', 'M', 'L', 'C'].map((letter) => `${letter}${ref}`)];
  return tried.find((name) => hasElement(circuit, name)) ?? null;
}

/** A potentiometer: two halves of one track, named after its ref. */
export interface Control {
  readonly upper: string;
  readonly lower: string;
  /** Ohms of both halves with the wiper at a position, 0 at the lower end. */
  readonly at: (position: number) => readonly (readonly [string, number])[];
}

/** Contact resistance left at the end of a track, ohms (common practice, no source). */
const TRACK_END = 1;

/** What the elements of a ref begin with: its own name, or the one that the sheet says the deck calls it by. */
const baseOf = (sheet: Pick<Sheet, 'circuit'>, ref: Ref): string => sheet.circuit?.elements?.[ref] ?? ref;

/** The control that a ref is in the circuit (`RV1a` and `RV1b`, the upper half first); null when it is none. */
export const controlOf = (sheet: Pick<Sheet, 'circuit'>, circuit: Circuit, ref: Ref): Control | null => controlNamed(circuit, baseOf(sheet, ref));

function controlNamed(circuit: Circuit, base: string): Control | null {
  // `V1` is no control because there is an `RV1a`.
  if (hasElement(circuit, base)) return null;
  const half = (end: string) => [`${base}${end}`, `R${base}${end}`].map((name) => findPart(circuit, name)).find((p) => p?.kind === 'R');
  const [upper, lower] = [half('a'), half('b')];
  // A third section makes a network of it, and so do two that do not meet, or only where both end.
  const meet = (n: string) => upper?.nodes[0] === n || lower?.nodes[0] === n;
  if (upper?.kind !== 'R' || lower?.kind !== 'R' || half('c') || !upper.nodes.some((n) => lower.nodes.includes(n) && meet(n))) return null;
  const track = upper.value + lower.value;
  const ohms = (share: number) => Math.max(TRACK_END, track * Math.min(1, Math.max(0, share)));
  return {
    upper: upper.name,
    lower: lower.name,
    at: (position) => [
      [upper.name, ohms(1 - position)],
      [lower.name, ohms(position)],
    ],
  };
}

/** Elements that stand for a ref: one, the two halves of a control, the sections of a network; none when the circuit has no such part. */
export function elementsOf(sheet: Pick<Sheet, 'circuit'>, circuit: Circuit, ref: Ref): string[] {
  const element = elementOf(sheet, circuit, ref);
  if (element !== null) return [element];
  return manyNamed(circuit, baseOf(sheet, ref));
}

function manyNamed(circuit: Circuit, base: string): string[] {
  const control = controlNamed(circuit, base);
  return control ? [control.upper, control.lower] : sectionsOf(circuit, base);
}

/** Names that several elements of a circuit share as the parts of one component: `RNB1` of `RNB1a`, `RNB1b`…. */
export function sharedNames(circuit: Circuit): { readonly name: string; readonly elements: readonly string[] }[] {
  const bases = new Set(circuit.parts.flatMap((p) => (p.kind === 'R' ? [p.name.replace(SECTION, '')] : [])));
  return [...bases].flatMap((name) => {
    const elements = hasElement(circuit, name) ? [] : manyNamed(circuit, name);
    return elements.length > 1 ? [{ name, elements }] : [];
  });
}

/** What a section's name adds to that of its component. */
const SECTION = /(?:[a-z]|[_.]\d{1,2})$/i;

/** Sections of a network that the deck holds as elements of their own: `RN1a`, `RN1b`…, or `RN1_1`, `RN1_2`…. */
function sectionsOf(circuit: Circuit, base: string): string[] {
  const name = new RegExp(`^R?${base.replace(/[^A-Za-z0-9]/g, '\\$&')}${SECTION.source}`, 'i');
  const found = circuit.parts.filter((p) => p.kind === 'R' && name.test(p.name)).map((p) => p.name);
  return found.length > 1 ? found : [];
}

/** An end of an element. */
interface End {
  readonly element: string;
  readonly node: number;
}

/**
 * What hangs on a pin, counted from 0, of a part that the deck holds as several elements. A control: track, wiper, track. A network
 * whose sections begin at one net: that one, then their far ends; any other: both ends of each in turn.
 */
function endsAt(circuit: Circuit, base: string, index: number): readonly End[] {
  const control = controlNamed(circuit, base);
  if (control) {
    const [a, b] = [control.upper, control.lower];
    return (
      [
        [{ element: a, node: 0 }],
        [
          { element: a, node: 1 },
          { element: b, node: 0 },
        ],
        [{ element: b, node: 1 }],
      ][index] ?? []
    );
  }
  const sections = sectionsOf(circuit, base).flatMap((name) => findPart(circuit, name) ?? []);
  const common = commonBeginning(sections);
  if (common === null) {
    const section = sections[Math.floor(index / 2)];
    return section ? [{ element: section.name, node: index % 2 }] : [];
  }
  const shared = (p: Part) => p.nodes.indexOf(common);
  if (index === 0) return sections.map((p) => ({ element: p.name, node: shared(p) }));
  const section = sections[index - 1];
  return section ? [{ element: section.name, node: 1 - shared(section) }] : [];
}

/** Pins of every element as the deck names them, in its order; elements in small letters. */
export function pinNames({ circuit }: Pick<Sheet, 'circuit'>): ReadonlyMap<string, readonly string[]> {
  if (!circuit) return new Map();
  if (last?.deck !== circuit.deck)
    last = { deck: circuit.deck, names: new Map(connectionsOf(circuit.deck).map((c) => [c.name.toLowerCase(), c.pins.map((p) => p.pin)])) };
  return last.names;
}
let last: { readonly deck: string; readonly names: ReadonlyMap<string, readonly string[]> } | null = null;

/** Place of a pin among those of its element: counted from 1 in the order of the deck, or called by name. -1 where there is none. */
function indexOf(sheet: Pick<Sheet, 'circuit'>, element: string | null, pin: string): number {
  if (/^\d+$/.test(pin) || element === null) return Number(pin) - 1;
  const names = pinNames(sheet).get(element.toLowerCase()) ?? [];
  return names.findIndex((name) => pinCalled(name) === pinCalled(pin));
}

/** The net at a pin of a ref; null when the circuit has no such pin. */
export function netAtPin(sheet: Pick<Sheet, 'circuit'>, circuit: Circuit, ref: Ref, pin: string): string | null {
  const element = elementOf(sheet, circuit, ref);
  const index = indexOf(sheet, element, pin);
  if (element === null) {
    const end = endsAt(circuit, baseOf(sheet, ref), index)[0];
    return end ? findPart(circuit, end.element)!.nodes[end.node]! : null;
  }
  const part = findPart(circuit, element);
  if (part) return part.nodes[index] ?? null;
  for (const inner of partsInside(circuit, element)) {
    const at = inner.ports?.indexOf(index) ?? -1;
    if (at >= 0) return inner.nodes[at]!;
  }
  return null;
}

/** The circuit with one pin of a ref hanging on a net of its own. */
export function withPinCut(sheet: Pick<Sheet, 'circuit'>, circuit: Circuit, ref: Ref, pin: string): Circuit {
  const element = elementOf(sheet, circuit, ref);
  const index = indexOf(sheet, element, pin);
  if (element === null) {
    const cut = endsAt(circuit, baseOf(sheet, ref), index);
    const free = (p: Part, i: number) => cut.some((c) => c.element === p.name && c.node === i);
    return { ...circuit, parts: circuit.parts.map((p) => ({ ...p, nodes: p.nodes.map((n, i) => (free(p, i) ? `${ref}~cut${pin}` : n)) })) };
  }
  const free = `${element}~cut${pin}`;
  const inside = new Set(findPart(circuit, element) ? [] : partsInside(circuit, element).map((p) => p.name));
  const parts = circuit.parts.map((p) => {
    if (p.name === findPart(circuit, element)?.name) return { ...p, nodes: p.nodes.map((n, i) => (i === index ? free : n)) };
    return inside.has(p.name) ? { ...p, nodes: p.nodes.map((n, i) => (p.ports?.[i] === index ? free : n)) } : p;
  });
  return { ...circuit, parts };
}

/** Parts of an expanded sub-circuit instance. */
export const partsInside = (circuit: Circuit, element: string) =>
  circuit.parts.filter((p) => p.name.includes('.') && ownerOf(p.name).toLowerCase() === element.toLowerCase());
