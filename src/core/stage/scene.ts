import { addParts, type Circuit, findNet, findPart, GROUND, hasElement, readDeck, removeParts, setValues } from '../circuit';
import { type StageObservable, type StageScene } from '../specimen';
import { type Board, type BoardPart } from '../fault';
import { absentRefs, type Line, type MeasureCheck, type Modification, type ProbePoint, type Ref, type Stage } from '../kit';
import { checkObservableId, factsOf, OPAMP_PINS, probeObservableId } from '../vocabulary';
import { type Setup, wantedLines } from './setup';

type Sheet = Setup['sheet'];

/** Tolerance of a bench supply's voltage (common practice, no source). */
const SUPPLY_TOLERANCE = 0.02;

/** Name in the deck of the element that stands for a ref; null when the circuit has none. */
export function elementOf(sheet: Pick<Sheet, 'circuit'>, circuit: Circuit, ref: Ref): string | null {
  const named = sheet.circuit?.elements?.[ref];
  const tried = named ? [named] : [ref, `X${ref}`, `R${ref}`];
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

/** The control that a ref is in the circuit (`RV1a` and `RV1b`, the upper half first); null when it is none. */
export function controlOf(circuit: Circuit, ref: Ref): Control | null {
  // `V1` is no control because there is an `RV1a`.
  if (hasElement(circuit, ref)) return null;
  const half = (end: string) => [`${ref}${end}`, `R${ref}${end}`].map((name) => findPart(circuit, name)).find((p) => p?.kind === 'R');
  const [upper, lower] = [half('a'), half('b')];
  // A third section makes a network of it.
  if (upper?.kind !== 'R' || lower?.kind !== 'R' || half('c')) return null;
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

/** Elements that stand for a ref: one, the two halves of a control, the sections of a network; none when the circuit has no such part. */
export function elementsOf(sheet: Pick<Sheet, 'circuit'>, circuit: Circuit, ref: Ref): string[] {
  const element = elementOf(sheet, circuit, ref);
  if (element !== null) return [element];
  const control = controlOf(circuit, ref);
  if (control) return [control.upper, control.lower];
  return sectionsOf(circuit, ref);
}

/** Sections of a network that the deck holds as elements of their own: `RN1a`, `RN1b`…, or `RN1_1`, `RN1_2`…. */
function sectionsOf(circuit: Circuit, ref: Ref): string[] {
  const name = new RegExp(`^R?${ref.replace(/[^A-Za-z0-9]/g, '\\$&')}(?:[a-z]|[_.]\\d{1,2})$`, 'i');
  const found = circuit.parts.filter((p) => p.kind === 'R' && name.test(p.name)).map((p) => p.name);
  return found.length > 1 ? found : [];
}

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
  return { parts: [...supplies, ...parts], neighbours: sheet.circuit?.neighbours ?? [] };
}

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
    measured: setup.measured.get(ref),
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

/** Refs that sit on the board at a stage: all that it and the stages above fit, changed by what the log says. */
export function fittedAt({ sheet, board, choices }: Setup, stage: Stage): Set<Ref> {
  const upTo = sheet.stages.slice(0, sheet.stages.findIndex((s) => s.id === stage.id) + 1);
  const present = new Set(upTo.flatMap((s) => s.fits));
  for (const ref of board.fitted) present.add(ref);
  for (const ref of [...(stage.without ?? []), ...board.removed, ...absentRefs({ sheet, choices }, board)]) present.delete(ref);
  return present;
}

/** The circuit as fitted, set, changed and powered at a stage. */
export function circuitAt(setup: Setup, whole: Circuit, stage: Stage): Circuit {
  const { sheet, board, choices } = setup;
  const present = fittedAt(setup, stage);
  const plannable = new Set([...sheet.stages.flatMap((s) => s.fits), ...board.removed, ...absentRefs({ sheet, choices }, board)]);
  const absent = [...plannable].filter((ref) => !present.has(ref)).flatMap((ref) => elementsOf(sheet, whole, ref));
  const values: Record<string, number> = {};
  const set = (ref: Ref, value: number) => {
    const control = controlOf(whole, ref);
    if (control) for (const [half, ohms] of control.at(value)) values[half] = ohms;
    const element = elementOf(sheet, whole, ref);
    if (element !== null && findPart(whole, element)) values[element] = value;
  };
  for (const s of stage.settings ?? []) set(s.ref, s.value);
  for (const [ref, value] of board.set) set(ref, value);
  for (const s of stage.supplies) set(s.source, s.volts);
  return modified(removeParts(setValues(whole, values), absent), sheet, board.modifications);
}

function modified(circuit: Circuit, sheet: Sheet, changes: readonly Modification[]): Circuit {
  return changes.reduce((c, m, i) => applyModification(c, sheet, m, i), circuit);
}

function applyModification(circuit: Circuit, sheet: Pick<Sheet, 'circuit'>, m: Modification, index: number): Circuit {
  switch (m.what) {
    case 'link':
      return addParts(circuit, [{ name: `~link${index}`, kind: 'R', nodes: m.nets, value: 0.01 }]);
    case 'part-added':
      if (m.kind === 'D' || m.value === null) return circuit;
      return addParts(circuit, [{ name: m.name, kind: m.kind, nodes: m.nets, value: m.value }]);
    case 'value-replaced': {
      const element = elementOf(sheet, circuit, m.ref);
      return element !== null && findPart(circuit, element) ? setValues(circuit, { [element]: m.value }) : circuit;
    }
    case 'track-cut': {
      const element = elementOf(sheet, circuit, m.ref);
      return element === null ? circuit : cutPin(circuit, element, Number(m.pin) - 1);
    }
    case 'strap':
      return circuit;
  }
}

function cutPin(circuit: Circuit, element: string, pin: number): Circuit {
  return { ...circuit, parts: circuit.parts.map((p) => (p.name === element ? { ...p, nodes: p.nodes.map((n, i) => (i === pin ? `${element}~cut` : n)) } : p)) };
}

/** The net that a probe touches, as the circuit spells it; null when the circuit has no such place. */
function netOf(sheet: Sheet, circuit: Circuit, point: ProbePoint): string | null {
  if ('testPoint' in point) {
    const net = sheet.testPoints.find((t) => t.id === point.testPoint)?.net;
    return net === undefined ? null : (findNet(circuit, net) ?? null);
  }
  if ('net' in point) return findNet(circuit, point.net) ?? null;
  const element = elementOf(sheet, circuit, point.ref);
  const part = element === null ? undefined : findPart(circuit, element);
  return part?.nodes[Number(point.pin) - 1] ?? null;
}

/** What a check reads, as the core computes it; null when the circuit cannot tell. */
function observableOf(sheet: Sheet, circuit: Circuit, stage: Stage, check: MeasureCheck): StageObservable | null {
  const id = checkObservableId(stage.id, check.id);
  if (check.mode === 'dca') {
    const source = check.source ?? stage.supplies[0]?.source;
    return source !== undefined && findPart(circuit, source) ? { id, mode: 'dca', source: findPart(circuit, source)!.name } : null;
  }
  const red = netOf(sheet, circuit, check.red);
  const black = netOf(sheet, circuit, check.black);
  if (check.mode === 'frequency') return red === null || black !== GROUND ? null : { id, mode: 'frequency', net: red };
  return red === null || black === null ? null : { id, mode: check.mode, red, black };
}

/** A stage as a scene: its circuit, its checks and, where it is powered, every test point. */
export function sceneOf(setup: Setup, whole: Circuit, stage: Stage): StageScene {
  const { sheet } = setup;
  const circuit = circuitAt(setup, whole, stage);
  const observables: StageObservable[] = [];
  for (const check of stage.checks) {
    const o = check.what === 'measure' ? observableOf(sheet, circuit, stage, check) : null;
    if (o) observables.push(o);
  }
  if (stage.supplies.length > 0) {
    for (const point of sheet.testPoints) {
      const net = findNet(circuit, point.net);
      const read = observables.some((o) => o.mode === 'dcv' && o.red === net && o.black === GROUND);
      if (net !== undefined && net !== GROUND && !read) observables.push({ id: probeObservableId(stage.id, point.id), mode: 'dcv', red: net, black: GROUND });
    }
  }
  return { circuit, observables };
}
