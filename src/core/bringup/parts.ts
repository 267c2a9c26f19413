import { MODEL_DEFAULTS, type Model, type Part } from '../circuit';

/** A number drawn evenly from 0..1, always the same one for a name within one board. */
export type Draw = (name: string) => number;

export const evenly = ([low, high]: readonly [number, number], u: number) => low + (high - low) * u;
export const inDecades = ([low, high]: readonly [number, number], u: number) => low * (high / low) ** u;
export const about = (share: number, u: number) => 1 + evenly([-share, share], u);

/** Short names for parts of models. */
export const R = (name: string, a: string, b: string, value: number): Part => ({ kind: 'R', name, nodes: [a, b], value });
export const C = (name: string, a: string, b: string, value: number): Part => ({ kind: 'C', name, nodes: [a, b], value });
export const V = (name: string, plus: string, minus: string, dc: number): Part => ({ kind: 'V', name, nodes: [plus, minus], dc, wave: null });
export const I = (name: string, from: string, to: string, dc: number): Part => ({ kind: 'I', name, nodes: [from, to], dc, wave: null });
export const E = (name: string, out: readonly [string, string], of: readonly [string, string], gain: number): Part => ({
  kind: 'E',
  name,
  nodes: [...out, ...of],
  gain,
});
export const G = (name: string, out: readonly [string, string], of: readonly [string, string], gain: number): Part => ({
  kind: 'G',
  name,
  nodes: [...out, ...of],
  gain,
});
const semiconductor = (kind: 'D' | 'Q', name: string, nodes: readonly string[], model: Model['kind'], params: Model['params']): Part => ({
  kind,
  name,
  nodes,
  model: { name, kind: model, params: { ...MODEL_DEFAULTS[model], ...params } },
  scale: 1,
  multiple: 1,
});
export const D = (name: string, anode: string, cathode: string, params: Model['params'] = {}): Part => semiconductor('D', name, [anode, cathode], 'D', params);
export const Q = (name: string, nodes: readonly [string, string, string], type: 'NPN' | 'PNP', params: Model['params'] = {}): Part =>
  semiconductor('Q', name, nodes, type, params);

/** Hardly any drop: a limit of a model, no part. */
export const LIMIT = { IS: 1e-12, N: 0.05 };
