import { type Circuit, findPart, type Semiconductor } from '../circuit/netlist';
import { type Board, type BoardPart, isBipolar, isFet, isTransistor, isTwoTerminal } from './board';
import { type Fault, faultKey, HEALTHY } from './fault';

/** Two values closer than this factor are not told apart as a wrong value. */
const DISTINCT_FACTOR = 1.25;
const OHMIC = new Set(['resistor', 'thermistor', 'ldr']);
const OPAMP_PINS = ['IN+', 'IN-', 'V+', 'V-', 'OUT'];

/** All single faults that a board can have, `healthy` first. */
export function listFaults(circuit: Circuit, board: Board): Fault[] {
  const fitted = board.parts.filter((p) => p.kind !== 'supply' && isFitted(circuit, p));
  const faults: Fault[] = [HEALTHY];
  for (const part of fitted) faults.push(...faultsOfPart(circuit, part, fitted));
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

function isFitted(circuit: Circuit, part: BoardPart): boolean {
  return part.kind === 'opamp'
    ? circuit.parts.some((p) => p.name.toLowerCase().startsWith(`${part.element.toLowerCase()}.`))
    : findPart(circuit, part.element) !== undefined;
}

function faultsOfPart(circuit: Circuit, part: BoardPart, all: readonly BoardPart[]): Fault[] {
  const parts = [part.ref] as const;
  const none = {};
  const faults: Fault[] = [];
  if (isTwoTerminal(part)) faults.push({ kind: 'open', parts, detail: none }, { kind: 'short', parts, detail: none });
  if (isTransistor(part)) faults.push(...transistorFaults(circuit, part, all));
  if (part.kind === 'opamp') {
    for (const pin of OPAMP_PINS) faults.push({ kind: 'open-pin', parts, detail: { pin } });
    faults.push({ kind: 'stuck', parts, detail: { level: 'high' } }, { kind: 'stuck', parts, detail: { level: 'low' } });
  }
  if (['diode', 'led', 'zener', 'electrolytic'].includes(part.kind)) faults.push({ kind: 'reversed', parts, detail: none });
  if (part.kind === 'zener') faults.push({ kind: 'weak', parts, detail: none });
  for (const value of wrongValues(part, all)) faults.push({ kind: 'wrong-value', parts, detail: { value } });
  return faults;
}

function transistorFaults(circuit: Circuit, part: BoardPart, all: readonly BoardPart[]): Fault[] {
  const pins: readonly [string, string, string] = isBipolar(part) ? ['C', 'B', 'E'] : ['D', 'G', 'S'];
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

function wrongValues(part: BoardPart, all: readonly BoardPart[]): number[] {
  const right = part.value;
  if (right === null || !(OHMIC.has(part.kind) || part.kind === 'zener')) return [];
  const others = all.filter((p) => p.kind === part.kind && p.value !== null).map((p) => p.value!);
  const wanted = part.kind === 'zener' ? others : [right * 10, right / 10, ...others];
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
  if (a.kind === 'resistor' || a.kind === 'zener') return a.value !== null && b.value !== null && apart(a.value, b.value);
  if (['diode', 'led', 'npn', 'pnp'].includes(a.kind) || isFet(a)) return modelName(circuit, a) !== modelName(circuit, b);
  return false;
}
