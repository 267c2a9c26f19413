/**
 * The flat circuit that every analysis works on: parts between named nets, sub-circuits already expanded.
 * All values are SI. Immutable: a changed circuit is a new object (see `edit.ts`).
 */

export const GROUND = '0';

export type ModelKind = 'D' | 'NPN' | 'PNP' | 'NMOS' | 'PMOS' | 'NJF' | 'PJF';

/** One `.model` card. Parameter names are upper case, values SI. */
export interface Model {
  readonly name: string;
  readonly kind: ModelKind;
  readonly params: Readonly<Record<string, number>>;
}

/** Time course of an independent source. All times in seconds, levels in volts or amperes. */
export type Waveform =
  | {
      readonly shape: 'sin';
      readonly offset: number;
      readonly amplitude: number;
      readonly frequency: number;
      readonly delay: number;
      readonly damping: number;
      readonly phase: number;
    }
  | {
      readonly shape: 'pulse';
      readonly low: number;
      readonly high: number;
      readonly delay: number;
      readonly rise: number;
      readonly fall: number;
      readonly width: number;
      readonly period: number;
    }
  | { readonly shape: 'pwl'; readonly times: readonly number[]; readonly levels: readonly number[] };

interface PartBase {
  /** Name as first written in the deck; parts inside a sub-circuit are `XU1.R3`. */
  readonly name: string;
  readonly nodes: readonly string[];
  /** Inside a sub-circuit: per node the pin number of the outermost instance that it hangs on, or −1. */
  readonly ports?: readonly number[] | undefined;
}

export interface TwoTerminal extends PartBase {
  readonly kind: 'R' | 'C' | 'L';
  readonly value: number;
}
export interface Source extends PartBase {
  readonly kind: 'V' | 'I';
  readonly dc: number;
  readonly wave: Waveform | null;
  /** Most amperes that a voltage source delivers: beyond them its volts fall, as a bench supply's do. Of resting circuits only. */
  readonly limit?: number | undefined;
}
export interface Semiconductor extends PartBase {
  /** Nodes: D anode, cathode; Q collector, base, emitter; M drain, gate, source, bulk; J drain, gate, source. */
  readonly kind: 'D' | 'Q' | 'M' | 'J';
  readonly model: Model;
  /** Number of unit devices in parallel: `area` × `m`. For M also × W/L. */
  readonly scale: number;
  /** Whole devices in parallel, `m`: terminal resistances of an M follow it, not W/L. */
  readonly multiple: number;
}
export interface Controlled extends PartBase {
  /** Nodes: out+, out−, control+, control−. E: volts per volt, G: amperes per volt. */
  readonly kind: 'E' | 'G';
  readonly gain: number;
}

export type Part = TwoTerminal | Source | Semiconductor | Controlled;
export type PartKind = Part['kind'];

export interface Circuit {
  readonly title: string;
  readonly parts: readonly Part[];
  /** Initial node voltages from `.ic`, volts. */
  readonly initial: Readonly<Record<string, number>>;
}

/** Pin names in the order of a part's nodes. */
export const PINS: Readonly<Record<PartKind, readonly string[]>> = {
  R: ['1', '2'],
  C: ['1', '2'],
  L: ['1', '2'],
  V: ['+', '-'],
  I: ['+', '-'],
  D: ['A', 'K'],
  Q: ['C', 'B', 'E'],
  M: ['D', 'G', 'S', 'B'],
  J: ['D', 'G', 'S'],
  E: ['+', '-', 'C+', 'C-'],
  G: ['+', '-', 'C+', 'C-'],
};

/** All nets that a part touches, ground included, in order of first use. */
export function netsOf(circuit: Circuit): string[] {
  const seen = new Set<string>([GROUND]);
  for (const part of circuit.parts) for (const node of part.nodes) seen.add(node);
  return [...seen];
}

export function findPart(circuit: Circuit, name: string): Part | undefined {
  return indexOf(circuit).parts.get(name.toLowerCase());
}

/** Whether a part of this name is there, or a sub-circuit instance that was expanded. */
export function hasElement(circuit: Circuit, name: string): boolean {
  const { parts, owners } = indexOf(circuit);
  return parts.has(name.toLowerCase()) || owners.has(name.toLowerCase());
}

/** Parts by lower-case name, and instances that were expanded; circuits are immutable, so this is made once. */
function indexOf(circuit: Circuit): { readonly parts: ReadonlyMap<string, Part>; readonly owners: ReadonlySet<string> } {
  const known = indexes.get(circuit);
  if (known) return known;
  const parts = new Map<string, Part>();
  const owners = new Set<string>();
  for (const p of circuit.parts) {
    const name = p.name.toLowerCase();
    if (!parts.has(name)) parts.set(name, p);
    const dot = name.indexOf('.');
    if (dot > 0) owners.add(name.slice(0, dot));
  }
  const made = { parts, owners };
  indexes.set(circuit, made);
  return made;
}

const indexes = new WeakMap<Circuit, { readonly parts: ReadonlyMap<string, Part>; readonly owners: ReadonlySet<string> }>();

/** A net by its name in any case, as the circuit spells it; undefined when no part touches it. */
export function findNet(circuit: Circuit, name: string): string | undefined {
  const wanted = name.toLowerCase();
  if (wanted === '0' || wanted === 'gnd') return GROUND;
  return netsOf(circuit).find((n) => n.toLowerCase() === wanted);
}
