import type { Chip, LogicBoard } from './board';
import { CARDS } from './cards';

/** A fault of a board round chips. */
export type LogicFault =
  | { readonly kind: 'healthy'; readonly parts: readonly []; readonly detail: object }
  | { readonly kind: 'open' | 'reversed' | 'turned' | 'dead' | 'blank' | 'no-clock' | 'strap'; readonly parts: readonly [string]; readonly detail: object }
  | { readonly kind: 'open-pin'; readonly parts: readonly [string]; readonly detail: { readonly pin: string } }
  | { readonly kind: 'bridge'; readonly parts: readonly []; readonly detail: { readonly nets: readonly [string, string] } }
  | { readonly kind: 'stuck'; readonly parts: readonly [string]; readonly detail: { readonly pin: string; readonly level: 'high' | 'low' } }
  | { readonly kind: 'wrong-value'; readonly parts: readonly [string]; readonly detail: { readonly value: number } }
  | { readonly kind: 'swapped'; readonly parts: readonly [string, string]; readonly detail: object }
  | { readonly kind: 'crossed'; readonly parts: readonly [string]; readonly detail: { readonly pins: readonly [string, string] } };

export const HEALTHY: LogicFault = { kind: 'healthy', parts: [], detail: {} };

/** How often each turns up in real builds, relative to one another (common practice, no source). */
const WEIGHT: Readonly<Record<LogicFault['kind'], number>> = {
  healthy: 0,
  open: 3,
  'open-pin': 2,
  reversed: 4,
  turned: 3,
  bridge: 3,
  stuck: 0.5,
  dead: 2,
  blank: 4,
  'wrong-value': 2,
  'no-clock': 1,
  strap: 5,
  swapped: 3,
  crossed: 4,
};
/** A missing chip is seen at once. */
const MISSING_CHIP = 0.5;

export const weightOf = (fault: LogicFault, board: LogicBoard): number =>
  fault.kind === 'open' && board.chips.some((c) => c.ref === fault.parts[0]) ? MISSING_CHIP : WEIGHT[fault.kind];

/** Pins of a chip that drive something, by number. */
function outputPins(chip: Chip): string[] {
  if (chip.card === 'REG5') return [];
  if (chip.card === 'box') return Object.entries(chip.roles!).flatMap(([pin, role]) => (role.out ? [pin] : []));
  const card = CARDS[chip.card]!;
  return card.pins.flatMap((name, i) => (card.outputs.includes(name) ? [String(i + 1)] : []));
}

const packageOf = (chip: Chip): string | null => (chip.card === 'box' ? (chip.package ?? null) : (CARDS[chip.card]?.package ?? null));

/** Every fault that a board can have, healthy first. */
export function listFaults(board: LogicBoard): LogicFault[] {
  const faults: LogicFault[] = [HEALTHY];
  const none = {};
  for (const p of board.parts) {
    if (p.kind === 'supply') continue;
    const parts = [p.ref] as const;
    faults.push({ kind: 'open', parts, detail: none });
    if (p.kind === 'npn' || p.kind === 'pnp') {
      for (const pin of ['C', 'B', 'E']) faults.push({ kind: 'open-pin', parts, detail: { pin } });
      faults.push({ kind: 'turned', parts, detail: none });
    }
    if (p.kind === 'display') for (const pin of Object.keys(p.pins)) faults.push({ kind: 'open-pin', parts, detail: { pin } });
    if (p.kind === 'connector') {
      const pins = Object.keys(p.wires);
      for (const pin of pins) faults.push({ kind: 'open-pin', parts, detail: { pin } });
      for (const pin of pins) {
        const next = String(Number(pin) + 1);
        if (p.wires[next]) faults.push({ kind: 'crossed', parts, detail: { pins: [pin, next] } });
      }
    }
    if (p.kind === 'led' || p.kind === 'diode') faults.push({ kind: 'reversed', parts, detail: none });
    if (p.kind === 'resistor') {
      const part = board.circuit.parts.find((x) => x.name.toLowerCase() === p.ref.toLowerCase());
      if (part?.kind === 'R')
        for (const factor of [10, 0.1]) faults.push({ kind: 'wrong-value', parts, detail: { value: Number((part.value * factor).toPrecision(12)) } });
    }
    if (p.kind === 'strap') faults.push({ kind: 'strap', parts, detail: none });
  }
  for (const c of board.chips) {
    const parts = [c.ref] as const;
    faults.push({ kind: 'open', parts, detail: none });
    for (const pin of Object.keys(c.pins)) faults.push({ kind: 'open-pin', parts, detail: { pin } });
    if (c.card !== 'REG5') {
      faults.push({ kind: 'turned', parts, detail: none });
      for (const pin of outputPins(c))
        if (c.pins[pin] !== undefined) for (const level of ['high', 'low'] as const) faults.push({ kind: 'stuck', parts, detail: { pin, level } });
    }
    faults.push({ kind: 'dead', parts, detail: none });
    if (c.card === 'box' && c.programmed) faults.push({ kind: 'blank', parts, detail: none });
    if (c.clock ?? c.timing) faults.push({ kind: 'no-clock', parts, detail: none });
  }
  board.chips.forEach((a, i) => {
    for (const b of board.chips.slice(i + 1)) {
      const body = packageOf(a);
      if (a.card !== 'REG5' && b.card !== 'REG5' && body !== null && body === packageOf(b) && (a.card !== b.card || a.card === 'box'))
        faults.push({ kind: 'swapped', parts: [a.ref, b.ref], detail: none });
    }
  });
  for (const nets of board.neighbours) faults.push({ kind: 'bridge', parts: [], detail: { nets } });
  return faults;
}
