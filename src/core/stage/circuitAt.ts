import { addParts, type Circuit, findPart, removeParts, replacePart, setValues, type Source } from '../circuit';
import { STRAP_OHMS } from '../fault';
import { scaledWave } from '../specimen';
import { absentRefs, choiceOn, type Modification, type Ref, type Stage, type StageSupply } from '../kit';
import { controlOf, elementOf, elementsOf, withPinCut } from './elements';
import type { Setup } from './setup';

type Sheet = Setup['sheet'];

/** Modules and other refs that are unplugged for a while. */
const pulled = (board: Setup['board']): readonly Ref[] => board.modifications.flatMap(({ change }) => (change.what === 'unplugged' ? change.refs : []));

/** Refs that sit on the board at a stage: all that it and the stages above fit, changed by what the log says. */
export function fittedAt({ sheet, board, choices, postponed }: Setup, stage: Stage): Set<Ref> {
  const upTo = sheet.stages.slice(0, sheet.stages.findIndex((s) => s.id === stage.id) + 1);
  const present = new Set(upTo.flatMap((s) => s.fits));
  for (const ref of postponed) present.delete(ref);
  for (const ref of board.fitted) present.add(ref);
  for (const ref of [...(stage.without ?? []), ...pulled(board), ...board.removed, ...absentRefs({ sheet, choices }, board)]) present.delete(ref);
  return present;
}

/** The circuit as fitted, set, changed and powered at a stage. */
export function circuitAt(setup: Setup, whole: Circuit, stage: Stage): Circuit {
  const { sheet, board, choices } = setup;
  const present = fittedAt(setup, stage);
  const plannable = new Set([...sheet.stages.flatMap((s) => s.fits), ...pulled(board), ...board.removed, ...absentRefs({ sheet, choices }, board)]);
  const absent = [...plannable].filter((ref) => !present.has(ref)).flatMap((ref) => elementsOf(sheet, whole, ref));
  const values: Record<string, number> = {};
  const set = (ref: Ref, value: number) => {
    const control = controlOf(sheet, whole, ref);
    if (control) for (const [half, ohms] of control.at(value)) values[half] = ohms;
    const element = elementOf(sheet, whole, ref);
    if (element !== null && findPart(whole, element)) values[element] = value;
  };
  for (const s of stage.settings ?? []) set(s.ref, s.value);
  for (const [ref, value] of board.set) set(ref, value);
  const asSet = setValues(whole, values);
  const supplied = stage.supplies.length > 0 ? stage.supplies.reduce(withSupply, asSet) : stage.power === 'off' ? switchedOff(asSet) : unplugged(asSet);
  return modified(
    strapped(removeParts(supplied, absent), setup),
    sheet,
    board.modifications.map((m) => m.change),
  );
}

/** Without its own power: sources of the deck are disconnected, those inside sub-circuits are part of a model. */
function unplugged(circuit: Circuit): Circuit {
  return { ...circuit, parts: circuit.parts.filter((p) => (p.kind !== 'V' && p.kind !== 'I') || p.name.includes('.')) };
}

/** Connected to its supply and switched off: what feeds it is a short, as a supply at 0 V is. */
function switchedOff(circuit: Circuit): Circuit {
  return { ...circuit, parts: circuit.parts.map((p) => (p.kind === 'V' && !p.name.includes('.') ? { ...p, dc: 0, wave: null } : p)) };
}

const MAINS_HERTZ = 50;

/** A source as a stage feeds it. Volts of an alternating one are RMS; waves that are no plain sine stay as the deck has them. */
function withSupply(circuit: Circuit, { source, volts, limit, feed, ohms = 0, hertz }: StageSupply): Circuit {
  const part = findPart(circuit, source);
  if (!part || (part.kind !== 'V' && part.kind !== 'I')) return circuit;
  const set = fedPart(part, volts, feed, hertz);
  // A bench supply stands in its limit where the board wants more; a battery or a winding has none.
  const fed = part.kind === 'V' && set.wave === null && feed !== 'battery' ? { ...set, limit } : set;
  if (part.kind !== 'V' || !(ohms > 0)) return replacePart(circuit, part.name, [fed]);
  const inner = `${part.name}~inner`;
  return replacePart(circuit, part.name, [
    { ...fed, nodes: [inner, part.nodes[1]!] },
    { name: `${part.name}~ohms`, kind: 'R', nodes: [inner, part.nodes[0]!], value: ohms },
  ]);
}

function fedPart(part: Source, volts: number, feed: StageSupply['feed'], hertz: number | undefined): Source {
  const { wave } = part;
  const amplitude = Math.SQRT2 * volts;
  if (feed === 'dc' || feed === 'battery') return { ...part, dc: volts, wave: null };
  const isSine = wave?.shape === 'sin' && wave.offset === 0 && wave.amplitude !== 0;
  if (isSine) return { ...part, wave: { ...scaledWave(wave, amplitude / wave.amplitude), ...(hertz ? { frequency: hertz } : {}) } };
  if (feed === 'winding')
    return { ...part, dc: 0, wave: { shape: 'sin', offset: 0, amplitude, frequency: hertz ?? MAINS_HERTZ, delay: 0, damping: 0, phase: 0 } };
  return wave ? part : { ...part, dc: volts };
}

function modified(circuit: Circuit, sheet: Sheet, changes: readonly Modification[]): Circuit {
  return changes.reduce((c, m, i) => applyModification(c, sheet, m, i), circuit);
}

/** Nets that straps and jumpers connect as they are set. An option that nobody decided connects none. */
function strapped(circuit: Circuit, { sheet, board, choices }: Setup): Circuit {
  const links = sheet.options.flatMap((o) =>
    (o.links ?? []).filter((l) => l.choice === choiceOn({ choices }, o.id, board)).map(({ nets }, i) => ({ name: strapElement(o.id, i), nets })),
  );
  return addParts(
    circuit,
    links.map(({ name, nets }) => ({ name, kind: 'R' as const, nodes: nets, value: STRAP_OHMS })),
  );
}

/** Name in the circuit of a link that an option's choice makes; without a number what all of an option's begin with. */
export const strapElement = (option: string, index: number | '' = ''): string => `~strap/${option}/${index}`;
/** Name in the circuit of a wire link that was put on the board, by its place among the modifications. */
export const linkElement = (index: number): string => `~link${index}`;

function applyModification(circuit: Circuit, sheet: Pick<Sheet, 'circuit'>, m: Modification, index: number): Circuit {
  switch (m.what) {
    case 'link':
      return addParts(circuit, [{ name: linkElement(index), kind: 'R', nodes: m.nets, value: STRAP_OHMS }]);
    case 'part-added':
      if (m.kind === 'D' || m.value === null) return circuit;
      return addParts(circuit, [{ name: m.name, kind: m.kind, nodes: m.nets, value: m.value }]);
    case 'value-replaced': {
      const element = elementOf(sheet, circuit, m.ref);
      return element !== null && findPart(circuit, element) ? setValues(circuit, { [element]: m.value }) : circuit;
    }
    case 'track-cut':
      return withPinCut(sheet, circuit, m.ref, m.pin);
    case 'strap':
    case 'unplugged':
    case 'other':
      return circuit;
  }
}
