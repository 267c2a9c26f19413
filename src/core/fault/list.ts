import { type Circuit, findPart, type Semiconductor } from '../circuit';
import { OPAMP_PINS } from '../vocabulary';
import { type Board, type BoardPart, elementsOfPart, isBipolar, isFet, isTransistor, isTwoTerminal, pinsOf } from './board';
import { portNets } from './chip';
import { type Fault, faultKey, HEALTHY } from './fault';
import { commonNet, commonPin } from './several';

/** Two values closer than this factor are not told apart as a wrong value. */
const DISTINCT_FACTOR = 1.25;
const OHMIC = new Set(['resistor', 'thermistor', 'ldr']);

/** All single faults that a board can have, `healthy` first. */
export function listFaults(circuit: Circuit, board: Board): Fault[] {
  const fitted = board.parts.filter((p) => p.kind !== 'supply' && isFitted(circuit, p));
  const faults: Fault[] = [HEALTHY];
  for (const part of fitted) faults.push(...faultsOfPart(circuit, part, fitted, board.strangers ?? []));
  faults.push(...exchanges(circuit, fitted));
  for (const nets of board.neighbours) faults.push({ kind: 'bridge', parts: [], detail: { nets: [nets[0], nets[1]] } });
  const seen = new Set<string>();
  return faults.filter((f) => {
    const key = faultKey(f);
    if (seen.has(key)) return false;
    seen.add(key);
    return true;
  });
}

/** Whether a part is in the circuit. */
export function isFitted(circuit: Circuit, part: BoardPart): boolean {
  return part.kind === 'opamp' || part.kind === 'chip'
    ? circuit.parts.some((p) => p.name.toLowerCase().startsWith(`${part.element.toLowerCase()}.`))
    : elementsOfPart(part).every((e) => findPart(circuit, e) !== undefined);
}

function faultsOfPart(circuit: Circuit, part: BoardPart, all: readonly BoardPart[], strangers: readonly number[]): Fault[] {
  const parts = [part.ref] as const;
  const none = {};
  const faults: Fault[] = [];
  if (part.elements)
    return [...severalElements(circuit, part), ...wrongValues(part, all, strangers).map((value): Fault => ({ kind: 'wrong-value', parts, detail: { value } }))];
  if (isTwoTerminal(part)) faults.push({ kind: 'open', parts, detail: none });
  // A wire link is a short; a switch (its value is none) is open in one of its positions.
  if (isTwoTerminal(part) && !(part.kind === 'contact' && part.value !== null)) faults.push({ kind: 'short', parts, detail: none });
  if (part.kind === 'chip') faults.push(...chipFaults(circuit, part));
  if (isTransistor(part)) faults.push(...transistorFaults(circuit, part, all));
  if (part.kind === 'opamp') {
    for (const pin of OPAMP_PINS) faults.push({ kind: 'open-pin', parts, detail: { pin } });
    faults.push({ kind: 'stuck', parts, detail: { level: 'high' } }, { kind: 'stuck', parts, detail: { level: 'low' } });
  }
  if (['diode', 'led', 'zener', 'electrolytic'].includes(part.kind)) faults.push({ kind: 'reversed', parts, detail: none });
  if (part.kind === 'zener') faults.push({ kind: 'weak', parts, detail: none });
  for (const value of wrongValues(part, all, strangers)) faults.push({ kind: 'wrong-value', parts, detail: { value } });
  return faults;
}

/** A part that the deck holds as several elements: missing as a whole, or what they share loose. A control's wiper is the one that people lift. */
function severalElements(circuit: Circuit, part: BoardPart): Fault[] {
  const parts = [part.ref] as const;
  return [
    { kind: 'open', parts, detail: {} },
    ...(commonNet(circuit, part) === null ? [] : [{ kind: 'open-pin' as const, parts, detail: { pin: commonPin(part) } }]),
  ];
}

/** Chips of any kind (regulators, timers, gates): not there or dead, a pin loose, and turned or shorted where three legs allow it. */
function chipFaults(circuit: Circuit, part: BoardPart): Fault[] {
  const parts = [part.ref] as const;
  const pins = portNets(circuit, part.element);
  const faults: Fault[] = [
    { kind: 'open', parts, detail: {} },
    ...[...pins.keys()].map((pin): Fault => ({ kind: 'open-pin', parts, detail: { pin: String(pin + 1) } })),
  ];
  if (pins.size === 3) faults.push({ kind: 'turned', parts, detail: {} }, { kind: 'short-pins', parts, detail: { pins: ['1', '3'] } });
  return faults;
}

function transistorFaults(circuit: Circuit, part: BoardPart, all: readonly BoardPart[]): Fault[] {
  const pins = pinsOf(part);
  const parts = [part.ref] as const;
  const faults: Fault[] = pins.map((pin) => ({ kind: 'open-pin', parts, detail: { pin } }));
  for (const pair of [
    [0, 1],
    [0, 2],
    [1, 2],
  ] as const)
    faults.push({ kind: 'short-pins', parts, detail: { pins: [pins[pair[0]], pins[pair[1]]] } });
  faults.push({ kind: 'turned', parts, detail: {} });
  if (part.kind !== 'njf' && part.kind !== 'pjf') faults.push({ kind: 'weak', parts, detail: {} });
  if (isBipolar(part)) {
    const opposite = part.kind === 'npn' ? 'pnp' : 'npn';
    const models = new Set(all.filter((p) => p.kind === opposite).map((p) => modelName(circuit, p)));
    for (const model of models) faults.push({ kind: 'wrong-type', parts, detail: { model } });
  }
  return faults;
}

const modelName = (circuit: Circuit, part: BoardPart) => (findPart(circuit, part.element) as Semiconductor | undefined)?.model.name ?? part.model ?? '';

const apart = (a: number, b: number) => Math.max(a / b, b / a) >= DISTINCT_FACTOR;

function wrongValues(part: BoardPart, all: readonly BoardPart[], strangers: readonly number[]): number[] {
  const right = part.value;
  if (right === null || !(OHMIC.has(part.kind) || part.kind === 'zener')) return [];
  const others = all.filter((p) => p.kind === part.kind && p.body === part.body && p.value !== null).map((p) => p.value!);
  const wanted = part.kind === 'zener' ? others : [right * 10, right / 10, ...others, ...(part.body === undefined ? strangers : [])];
  const found: number[] = [];
  for (const v of wanted) if (apart(v, right) && !found.some((f) => Math.abs(f - v) < 1e-6 * v)) found.push(Number(v.toPrecision(12)));
  return found;
}

/** Pairs of parts that can sit in each other's place. */
function exchanges(circuit: Circuit, parts: readonly BoardPart[]): Fault[] {
  const faults: Fault[] = [];
  parts.forEach((a, i) => {
    for (const b of parts.slice(i + 1)) {
      const refs = [a.ref, b.ref] as const;
      if ((a.kind === 'npn' && b.kind === 'pnp') || (a.kind === 'pnp' && b.kind === 'npn')) faults.push({ kind: 'wrong-type', parts: refs, detail: {} });
      else if (a.kind === b.kind && isExchange(circuit, a, b)) faults.push({ kind: 'swapped', parts: refs, detail: {} });
    }
  });
  return faults;
}

function isExchange(circuit: Circuit, a: BoardPart, b: BoardPart): boolean {
  if (a.elements || b.elements || a.body !== b.body) return false;
  if (a.kind === 'resistor' || a.kind === 'zener') return a.value !== null && b.value !== null && apart(a.value, b.value);
  if (['diode', 'led', 'npn', 'pnp'].includes(a.kind) || isFet(a)) return modelName(circuit, a) !== modelName(circuit, b);
  return false;
}
