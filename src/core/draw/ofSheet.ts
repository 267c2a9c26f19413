import type { Circuit, Part } from '../circuit';
import type { Line, LineKind, Sheet } from '../kit';
import { printNominal } from '../quantity';
import { circuitOf, controlOf, elementsOf, pinNames } from '../stage';
import { factsOf, OPAMP_PINS, pinCalled } from '../vocabulary';
import { type Drawable, readDrawable } from './request';

/** Symbols of kinds that are a resistance, or nothing else, in the circuit. */
const AS_RESISTOR: Readonly<Partial<Record<LineKind, string>>> = {
  thermistor: 'thermistor',
  ldr: 'ldr',
  lamp: 'lamp',
  fuse: 'fuse',
  relay: 'coil',
  loudspeaker: 'speaker',
  switch: 'switch',
  link: 'link',
  microphone: 'microphone',
};

/** Their ohms in the circuit stand for a state or a light, and say nothing of the part. */
const WITHOUT_OHMS: ReadonlySet<string> = new Set(['switch', 'link', 'fuse', 'microphone', 'ldr', 'lamp']);
/** A longer label is for a list, not for a drawing. */
const LONGEST_WORD = 14;

interface Wanted {
  readonly ref: string;
  readonly kind: string;
  readonly value?: string;
  readonly elements: readonly string[];
  readonly pins: Readonly<Record<string, string>>;
}

const two = (element: string, a = '1', b = '2') => ({ [a]: `${element}.1`, [b]: `${element}.2` });

/** The circuit of a sheet as it is to be drawn: one symbol a part, with the parts' own refs; null without a circuit. */
export function drawableOf(sheet: Pick<Sheet, 'lines' | 'circuit' | 'boards'>): Drawable | null {
  const circuit = circuitOf(sheet);
  if (!sheet.circuit || circuit.parts.length === 0) return null;
  const used = new Set<string>();
  const parts: Wanted[] = [];
  const named = pinNames(sheet);
  for (const line of sheet.lines)
    for (const ref of line.refs) {
      const elements = elementsOf(sheet, circuit, ref);
      if (elements.length === 0 || elements.some((e) => used.has(e.toLowerCase()))) continue;
      const made = partsOf(sheet, circuit, named, line, ref, elements);
      for (const p of made) p.elements.forEach((e) => used.add(e.toLowerCase()));
      parts.push(...made);
    }
  for (const part of circuit.parts) {
    if (part.name.includes('.') || part.name.includes('~') || used.has(part.name.toLowerCase())) continue;
    const plain = plainPart(part);
    if (plain) parts.push(plain);
  }
  if (parts.length === 0) return null;
  const drawable = readDrawable({ deck: sheet.circuit.deck, parts });
  return { ...drawable, boards: boardsOf(sheet, drawable) };
}

/** Boards of a kit with several: each ref names its own before the colon; what names none stands with the first. */
function boardsOf({ boards }: Pick<Sheet, 'boards'>, { parts }: Drawable): Drawable['boards'] {
  if (boards.length < 2) return [];
  const own = (i: number) =>
    Math.max(
      0,
      boards.findIndex((b) => parts[i]!.ref.startsWith(`${b.id}:`)),
    );
  return boards.map(({ name }, at) => ({ title: name, parts: new Set(parts.flatMap((_, i) => (own(i) === at ? [i] : []))) })).filter((b) => b.parts.size > 0);
}

function partsOf(
  sheet: Pick<Sheet, 'circuit'>,
  circuit: Circuit,
  named: ReadonlyMap<string, readonly string[]>,
  line: Line,
  ref: string,
  elements: readonly string[],
): Wanted[] {
  const called = line.type ?? (line.label.length <= LONGEST_WORD ? line.label : undefined);
  const value = line.value === null ? called : printNominal(line.value, factsOf(line.kind).unit);
  const words = value === undefined ? {} : { value: value.replace(/\s/g, '') };
  const control = controlOf(sheet, circuit, ref);
  const [first] = elements;
  if (control) return [{ ref, kind: 'trimmer', ...words, elements, pins: { 1: `${control.upper}.1`, W: `${control.upper}.2`, 3: `${control.lower}.2` } }];
  if (elements.length > 1) return elements.map((e) => ({ ref: e, kind: 'resistor', elements: [e], pins: two(e) }));
  const part = circuit.parts.find((p) => p.name.toLowerCase() === first!.toLowerCase());
  if (part) {
    const plain = plainPart(part, line.kind);
    if (!plain) return [];
    const { value: ohms, ...bare } = plain;
    return [{ ...bare, ref, ...(ohms === undefined || WITHOUT_OHMS.has(plain.kind) ? {} : { value: ohms }), ...words }];
  }
  return [chipOf(circuit, named.get(first!.toLowerCase()) ?? [], line, ref, first!, words)];
}

/** A sub-circuit: an amplifier or a regulator where it is built as one, else a box with its pins as the deck names them. */
function chipOf(circuit: Circuit, names: readonly string[], line: Line, ref: string, element: string, words: { readonly value?: string }): Wanted {
  const inside = circuit.parts.filter((p) => p.name.toLowerCase().startsWith(`${element.toLowerCase()}.`));
  const ports = new Set(inside.flatMap((p) => (p.ports ?? []).filter((port) => port >= 0)));
  const gain = inside.find((p) => p.kind === 'G');
  const amplifier = ports.size === OPAMP_PINS.length && (gain?.ports?.slice(2, 4) ?? []).includes(0) && (line.kind === 'opamp' || line.kind === 'ic');
  const made = (kind: string, pins: readonly string[]): Wanted => ({
    ref,
    kind,
    ...words,
    elements: [element],
    pins: Object.fromEntries(pins.map((pin, i) => [pin, `${element}.${i + 1}`])),
  });
  if (amplifier) return made('opamp', OPAMP_PINS);
  const legs = names.map((name) => REGULATOR_LEGS[pinCalled(name)]);
  if (line.kind === 'regulator' && legs.length === 3 && new Set(legs.filter(Boolean)).size === 3) return made('regulator', legs as string[]);
  const last = Math.max(0, ...ports);
  // As the model's author calls them; `p3` is only a number.
  if (names.length > 0)
    return made(
      'chip',
      names.map((name) => /^p(\d+)$/i.exec(name)?.[1] ?? name),
    );
  return made(
    'chip',
    Array.from({ length: last + 1 }, (_, i) => String(i + 1)),
  );
}

const REGULATOR_LEGS: Readonly<Record<string, string>> = { in: 'IN', out: 'OUT', ground: 'COM', com: 'COM', adjust: 'COM' };

/** What an element is drawn as; null for controlled sources, which are insides of something. */
function plainPart(part: Part, kind?: LineKind): Wanted | null {
  const name = part.name;
  const made = (symbol: string, pins: Wanted['pins'], value?: string): Wanted => ({
    ref: name,
    kind: symbol,
    elements: [name],
    pins,
    ...(value ? { value } : {}),
  });
  switch (part.kind) {
    case 'R':
      return made((kind && AS_RESISTOR[kind]) ?? 'resistor', two(name), printNominal(part.value, 'ohm').replace(/\s/g, ''));
    case 'C':
      return kind === 'electrolytic' || kind === 'tantalum'
        ? made('electrolytic', two(name, '+', '-'), printNominal(part.value, 'F').replace(/\s/g, ''))
        : made(kind === 'crystal' ? 'crystal' : 'capacitor', two(name), printNominal(part.value, 'F').replace(/\s/g, ''));
    case 'L':
      return made(kind === 'relay' ? 'coil' : kind === 'transformer' ? 'winding' : 'inductor', two(name), printNominal(part.value, 'H').replace(/\s/g, ''));
    case 'V':
      return made(
        part.wave ? 'winding' : 'source',
        part.wave ? two(name) : two(name, '+', '-'),
        part.wave ? 'AC' : printNominal(part.dc, 'V').replace(/\s/g, ''),
      );
    case 'I':
      return null;
    case 'D':
      return made(kind === 'led' || /led/i.test(part.model.name) ? 'led' : kind === 'zener' ? 'zener' : 'diode', two(name, 'A', 'K'), part.model.name);
    case 'Q':
      return made(part.model.kind === 'PNP' ? 'pnp' : 'npn', { C: `${name}.1`, B: `${name}.2`, E: `${name}.3` }, part.model.name);
    case 'M':
    case 'J': {
      const symbol = { NMOS: 'nmos', PMOS: 'pmos', NJF: 'njf', PJF: 'pjf' }[part.model.kind as string] ?? 'nmos';
      return made(symbol, { D: `${name}.1`, G: `${name}.2`, S: `${name}.3` }, part.model.name);
    }
    default:
      return null;
  }
}
