import type { Circuit, ModelParam, Part, System } from '../circuit';
import { isShort } from './apply';
import type { Board } from './board';

/** A fault as other values in a system that was laid out for the healthy board. */
export interface ValueChange {
  /** Names of the parts whose value or model the fault changes. */
  readonly parts: ReadonlySet<string>;
  /** `shortFactor`: factor on the ohms of solder and of what is shorted. */
  enter: (shortFactor: number) => void;
  /** Puts the healthy values back. */
  leave: () => void;
}

interface Both {
  readonly enter: (shortFactor: number) => void;
  readonly leave: () => void;
}

/** Ends of extra conductances that faults may close, so that shorts and bridges need no new layout. Equal pairs count once. */
export const pairKey = (a: string, b: string) => (a < b ? `${a} ${b}` : `${b} ${a}`);

/** Pairs of nets between which the board's faults can put a conductance. */
export function faultPairs(circuit: Circuit, board: Board): (readonly [string, string])[] {
  const pairs = new Map<string, readonly [string, string]>();
  const add = (a: string, b: string) => {
    if (a !== b) pairs.set(pairKey(a, b), [a, b]);
  };
  for (const p of circuit.parts) {
    if (p.name.includes('.') || p.name.startsWith('~')) continue;
    if (p.nodes.length === 2 && p.kind !== 'V') add(p.nodes[0]!, p.nodes[1]!);
    else if ('model' in p)
      for (const [i, j] of [
        [0, 1],
        [0, 2],
        [1, 2],
      ] as const)
        add(p.nodes[i]!, p.nodes[j]!);
  }
  for (const [a, b] of board.neighbours) add(a, b);
  return [...pairs.values()];
}

/**
 * What turns the healthy board's system into the faulty one's, when values alone can do it: shorts, bridges, missing
 * two-terminal parts, other values, other model parameters. Null when the fault needs nets or devices of its own.
 * `extras`: index of the probe between two nets, by `pairKey`.
 */
export function valueChange(system: System, healthy: Circuit, faulty: Circuit, extras: ReadonlyMap<string, number>): ValueChange | null {
  const steps: Both[] = [];
  const touched = new Set<string>();
  const add = (step: Both | null, name: string): boolean => {
    if (!step) return false;
    steps.push(step);
    touched.add(name);
    return true;
  };
  // Faults keep the order of the parts: what is missing is skipped, what is new stands at the end.
  const { parts: old } = healthy;
  const { parts: now } = faulty;
  let k = 0;
  for (const part of old) {
    const other = now[k];
    if (other === part) k++;
    else if (other?.name === part.name) {
      if (!add(changed(system, part, other), part.name)) return null;
      k++;
    } else if (!add(removed(system, part), part.name)) return null;
  }
  for (; k < now.length; k++) if (!add(added(system, now[k]!, extras), now[k]!.name)) return null;
  return { parts: touched, ...inTurn(steps) };
}

const inTurn = (steps: readonly Both[]): Both => ({
  enter: (shortFactor) => {
    for (const step of steps) step.enter(shortFactor);
  },
  leave: () => {
    for (const step of steps) step.leave();
  },
});

function removed(system: System, part: Part): Both | null {
  if (part.kind === 'C') return NOTHING;
  if (part.kind === 'R') return valueSteps(system, part.name, part.value, Infinity);
  if (part.kind === 'Q') return moves(system.rewirer(part, null));
  if (part.kind !== 'D') return null;
  const present = system.presenceSetter(part.name);
  return present && { enter: () => present(false), leave: () => present(true) };
}

const moves = (move: ((moved: boolean) => void) | null): Both | null => move && { enter: () => move(true), leave: () => move(false) };

const NOTHING: Both = { enter: () => undefined, leave: () => undefined };

function added(system: System, part: Part, extras: ReadonlyMap<string, number>): Both | null {
  const index = part.kind === 'R' ? extras.get(pairKey(part.nodes[0]!, part.nodes[1]!)) : undefined;
  if (part.kind !== 'R' || index === undefined) return null;
  return { enter: (shortFactor) => system.setProbe(index, 1 / (part.value * (isShort(part) ? shortFactor : 1))), leave: () => system.setProbe(index, 0) };
}

function changed(system: System, before: Part, after: Part): Both | null {
  if (before.kind === 'G' && after.kind === 'I') {
    const drive = system.driver(before);
    return { enter: () => drive(after.dc), leave: () => drive(null) };
  }
  if (before.kind !== after.kind) return null;
  if (before.nodes.some((n, i) => n !== after.nodes[i]))
    return 'model' in before && 'model' in after && before.model === after.model ? moves(system.rewirer(before, after)) : null;
  if (before.kind === 'C') return NOTHING;
  if (before.kind === 'R' && after.kind === 'R') return valueSteps(system, before.name, before.value, after.value);
  if (before.kind === 'V' && after.kind === 'V') return valueSteps(system, before.name, before.dc, after.dc);
  if (!('model' in before) || !('model' in after)) return null;
  if (before.model.kind === after.model.kind && before.scale === after.scale) {
    const few = modelSteps(system, before.name, before.model.params, after.model.params);
    if (few) return few;
  }
  const replace = system.modelReplacer(before, after);
  return replace && { enter: () => replace(after), leave: () => replace(before) };
}

function valueSteps(system: System, name: string, before: number, after: number): Both | null {
  const set = system.valueSetter(name);
  return set && { enter: () => set(after), leave: () => set(before) };
}

function modelSteps(system: System, name: string, before: Readonly<Record<string, number>>, after: Readonly<Record<string, number>>): Both | null {
  const steps: Both[] = [];
  for (const key of Object.keys(before)) {
    const [from, to] = [before[key]!, after[key]!];
    if (from === to) continue;
    const set = system.modelSetter(name, key as ModelParam);
    if (!set) return null;
    steps.push({ enter: () => set(to), leave: () => set(from) });
  }
  return inTurn(steps);
}
