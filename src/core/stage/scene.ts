import { readDeck } from '../circuit/deck/read';
import { addParts, removeParts, setValues } from '../circuit/edit';
import { type Circuit, findNet, findPart, GROUND, hasElement } from '../circuit/netlist';
import { type StageObservable, type StageScene } from '../diagnose/problem';
import { type Board, type BoardPart } from '../fault/board';
import {
  type BoardState,
  deriveBoardState,
  deriveMeasuredValues,
  KIND_FACTS,
  type KitDocument,
  type MeasureCheck,
  type Modification,
  type ProbePoint,
  type Ref,
  type Sheet,
  type Stage,
  standing,
} from '../kit';

/** Tolerance of a bench supply's voltage (common practice, no source). */
const SUPPLY_TOLERANCE = 0.02;

/** Name in the deck of the element that stands for a ref; null when the circuit has none. */
export function elementOf(sheet: Sheet, circuit: Circuit, ref: Ref): string | null {
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
  if (upper?.kind !== 'R' || lower?.kind !== 'R') return null;
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

/** The deck of a sheet; the circuit is empty when there is none. Errors were shown when it was entered. */
export function circuitOf(sheet: Sheet): Circuit {
  return sheet.circuit ? readDeck(sheet.circuit.deck).circuit : { title: '', parts: [], initial: {} };
}

/** Parts of the sheet as the fault finder wants them, with measured values in place of printed ones. */
export function boardOf(doc: KitDocument, circuit: Circuit): Board {
  const measured = deriveMeasuredValues(doc);
  const parts: BoardPart[] = [];
  for (const part of circuit.parts)
    if (part.kind === 'V' && !part.name.includes('.'))
      parts.push({
        ref: part.name,
        element: part.name,
        kind: 'supply',
        value: part.dc,
        model: null,
        tolerance: [-SUPPLY_TOLERANCE, SUPPLY_TOLERANCE],
        range: null,
      });
  for (const line of doc.sheet.lines) {
    const kind = KIND_FACTS[line.kind].board;
    if (!kind) continue;
    for (const ref of line.refs) {
      const element = elementOf(doc.sheet, circuit, ref);
      if (element === null) continue;
      parts.push({
        ref,
        element,
        kind,
        value: line.value,
        model: line.type ?? null,
        tolerance: line.tolerance ?? KIND_FACTS[line.kind].tolerance,
        range: line.range ?? null,
        measured: measured.get(ref),
      });
    }
  }
  return { parts, neighbours: doc.sheet.circuit?.neighbours ?? [] };
}

/** Refs that sit on the board at a stage: all that it and the stages above fit, changed by what the log says. */
export function fittedAt(sheet: Sheet, stage: Stage, state: BoardState): Set<Ref> {
  const upTo = sheet.stages.slice(0, sheet.stages.findIndex((s) => s.id === stage.id) + 1);
  const present = new Set(upTo.flatMap((s) => s.fits));
  for (const ref of state.fitted) present.add(ref);
  for (const ref of [...(stage.without ?? []), ...state.removed]) present.delete(ref);
  return present;
}

/** The circuit as fitted, set, changed and powered at a stage. */
export function circuitAt(doc: KitDocument, whole: Circuit, stage: Stage, state: BoardState): Circuit {
  const { sheet } = doc;
  const present = fittedAt(sheet, stage, state);
  const plannable = new Set(sheet.stages.flatMap((s) => s.fits));
  const absent = [...plannable].filter((ref) => !present.has(ref)).flatMap((ref) => elementOf(sheet, whole, ref) ?? []);
  const values: Record<string, number> = {};
  const set = (ref: Ref, value: number) => {
    const control = controlOf(whole, ref);
    if (control) for (const [half, ohms] of control.at(value)) values[half] = ohms;
    const element = elementOf(sheet, whole, ref);
    if (element !== null && findPart(whole, element)) values[element] = value;
  };
  for (const s of stage.settings ?? []) set(s.ref, s.value);
  for (const [ref, value] of state.set) set(ref, value);
  for (const s of stage.supplies) set(s.source, s.volts);
  return modified(removeParts(setValues(whole, values), absent), sheet, state.modifications);
}

function modified(circuit: Circuit, sheet: Sheet, changes: readonly Modification[]): Circuit {
  return changes.reduce((c, m, i) => applyModification(c, sheet, m, i), circuit);
}

function applyModification(circuit: Circuit, sheet: Sheet, m: Modification, index: number): Circuit {
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

export const checkObservableId = (stage: string, check: string) => `${stage}/${check}`;
export const probeObservableId = (stage: string, testPoint: string) => `${stage}/@${testPoint}`;

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
export function sceneOf(doc: KitDocument, whole: Circuit, stage: Stage, state: BoardState): StageScene {
  const circuit = circuitAt(doc, whole, stage, state);
  const observables: StageObservable[] = [];
  for (const check of stage.checks) {
    const o = check.what === 'measure' ? observableOf(doc.sheet, circuit, stage, check) : null;
    if (o) observables.push(o);
  }
  if (stage.supplies.length > 0) {
    for (const point of doc.sheet.testPoints) {
      const net = findNet(circuit, point.net);
      const read = observables.some((o) => o.mode === 'dcv' && o.red === net && o.black === GROUND);
      if (net !== undefined && net !== GROUND && !read) observables.push({ id: probeObservableId(stage.id, point.id), mode: 'dcv', red: net, black: GROUND });
    }
  }
  return { circuit, observables };
}

/** A reading that was taken on a board that has changed since, with the circuit as it was then. */
export interface PastReading {
  readonly entry: string;
  readonly observable: string;
  readonly scene: StageScene;
}

/** Readings whose stage had another circuit when they were taken than it has `now`: they are judged by what it was. */
export function pastReadings(doc: KitDocument, whole: Circuit, now: ReadonlyMap<string, StageScene>): PastReading[] {
  const counting = new Set(standing(doc.log).map((e) => e.id));
  const stages = new Map(doc.sheet.stages.map((s) => [s.id, s]));
  const current = new Map([...now].map(([id, scene]) => [id, JSON.stringify(scene)]));
  const past: PastReading[] = [];
  let scenes = new Map<string, { scene: StageScene; text: string }>();
  doc.log.forEach((e, i) => {
    if (CHANGES_BOARD.has(e.kind)) scenes = new Map();
    if ((e.kind !== 'read' && e.kind !== 'probed') || !counting.has(e.id)) return;
    const stage = stages.get(e.stage);
    if (!stage) return;
    const known = scenes.get(e.stage) ?? withText(sceneOf(doc, whole, stage, deriveBoardState(doc, i)));
    scenes.set(e.stage, known);
    const observable = e.kind === 'read' ? checkObservableId(e.stage, e.check) : probeObservableId(e.stage, e.testPoint);
    if (known.text !== current.get(e.stage)) past.push({ entry: e.id, observable, scene: known.scene });
  });
  return past;
}

const CHANGES_BOARD = new Set(['fitted', 'removed', 'set', 'modified']);
const withText = (scene: StageScene) => ({ scene, text: JSON.stringify(scene) });
