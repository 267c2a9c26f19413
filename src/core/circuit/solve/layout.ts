import type { BipolarSpec } from '../devices/bipolar';
import type { DiodeSpec } from '../devices/diode';
import type { JfetSpec } from '../devices/jfet';
import type { MosfetSpec } from '../devices/mosfet';
import { type Circuit, GROUND, type Part, type Semiconductor } from '../netlist';

/** Name of the unknown for the current through a V, E or L. */
export const branchName = (part: string) => `I(${part})`;

/** The unknowns of a circuit: nets, inner nodes behind series resistances, then branch currents. */
export interface Layout {
  readonly unknowns: string[];
  readonly nodeCount: number;
  readonly indexOf: Map<string, number>;
  /** Inner node of a device terminal behind its series resistance: key `Q1.RC`. */
  readonly inner: Map<string, number>;
}

/** Series resistances that a semiconductor's card may give, and the terminal each stands at. */
export const SERIES: Readonly<Record<string, readonly (readonly [param: string, terminal: number])[]>> = {
  D: [['RS', 0]],
  Q: [
    ['RC', 0],
    ['RB', 1],
    ['RE', 2],
  ],
  M: [
    ['RD', 0],
    ['RS', 2],
  ],
  J: [
    ['RD', 0],
    ['RS', 2],
  ],
};

const isSemiconductor = (part: Part): part is Semiconductor => part.kind === 'D' || part.kind === 'Q' || part.kind === 'M' || part.kind === 'J';

export function layOut(circuit: Circuit): Layout {
  const indexOf = new Map<string, number>();
  const unknowns: string[] = [];
  const add = (name: string) => {
    indexOf.set(name, unknowns.length);
    return unknowns.push(name) - 1;
  };
  for (const part of circuit.parts) for (const node of part.nodes) if (node !== GROUND && !indexOf.has(node)) add(node);
  const inner = new Map<string, number>();
  for (const part of circuit.parts) {
    if (!isSemiconductor(part)) continue;
    for (const [param] of SERIES[part.kind]!) if (part.model.params[param]! > 0) inner.set(`${part.name}.${param}`, add(`${part.name}#${param}`));
  }
  const nodeCount = unknowns.length;
  for (const part of circuit.parts) if (part.kind === 'V' || part.kind === 'E' || part.kind === 'L') add(branchName(part.name));
  return { unknowns, nodeCount, indexOf, inner };
}

/** Which device of which bank a part has become. */
export interface DeviceHandle {
  readonly kind: 'D' | 'Q' | 'M' | 'J';
  readonly index: number;
}

export interface Devices {
  readonly diodes: (DiodeSpec & { readonly part: string })[];
  readonly bipolars: (BipolarSpec & { readonly part: string })[];
  readonly mosfets: MosfetSpec[];
  readonly jfets: JfetSpec[];
  readonly handles: Map<string, DeviceHandle>;
}

export function collectDevices(
  circuit: Circuit,
  unknownOf: (net: string) => number,
  { inner }: Layout,
  series: (part: string, param: string, a: number, b: number, siemens: number) => void,
): Devices {
  const out: Devices = { diodes: [], bipolars: [], mosfets: [], jfets: [], handles: new Map() };
  for (const part of circuit.parts) {
    if (!isSemiconductor(part)) continue;
    const at = part.nodes.map(unknownOf);
    for (const [param, terminal] of SERIES[part.kind]!) {
      const node = inner.get(`${part.name}.${param}`);
      if (node === undefined) continue;
      series(part.name, param, at[terminal]!, node, (part.kind === 'M' ? part.multiple : part.scale) / part.model.params[param]!);
      at[terminal] = node;
    }
    addDevice(part, at, out);
  }
  return out;
}

function addDevice(part: Semiconductor, at: readonly number[], out: Devices): void {
  const { params, kind } = part.model;
  const common = { params, scale: part.scale };
  const polarity = kind === 'PNP' || kind === 'PMOS' || kind === 'PJF' ? -1 : 1;
  const [n0, n1, n2, n3] = at as [number, number, number, number];
  switch (part.kind) {
    case 'D':
      out.handles.set(part.name, { kind: 'D', index: out.diodes.push({ part: part.name, anode: n0, cathode: n1, ...common }) - 1 });
      return;
    case 'Q':
      out.handles.set(part.name, {
        kind: 'Q',
        index: out.bipolars.push({ part: part.name, collector: n0, base: n1, emitter: n2, polarity, ...common }) - 1,
      });
      return;
    case 'M':
      out.handles.set(part.name, { kind: 'M', index: out.mosfets.push({ drain: n0, gate: n1, source: n2, bulk: n3, polarity, ...common }) - 1 });
      return;
    case 'J':
      out.handles.set(part.name, { kind: 'J', index: out.jfets.push({ drain: n0, gate: n1, source: n2, polarity, ...common }) - 1 });
  }
}
