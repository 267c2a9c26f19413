import { addParts, type Circuit, GROUND, Newton, type OrderCache, type ProbePair, System } from '../circuit';
import { applyFault } from './apply';
import { type Board, isTransistor } from './board';
import type { Fault } from './fault';
import { listFaults } from './list';
import { faultPairs, pairKey, type ValueChange, valueChange } from './valueChange';

/** A system of the healthy circuit in which a fault is a matter of other values. */
export interface FaultLayout {
  readonly system: System;
  readonly newton: Newton;
  /** Nets behind a link, and what the link joins them to. */
  readonly linked: ReadonlyMap<string, string>;
  /** Probe pairs between a net and ground that stand open. */
  readonly toGround: ReadonlyMap<string, number>;
}

/** A fault in a borrowed layout. */
export interface Borrowed {
  readonly layout: FaultLayout;
  readonly change: ValueChange;
}

const NONE: ReadonlySet<string> = new Set();
/** Resistance of a link, ohms: too little for any reading to show, enough for the solver's arithmetic. */
const LINK_OHMS = 1e-5;

/**
 * A healthy circuit laid out for its faults to borrow, with a conductance wherever solder or a short can sit. Pins that touch
 * nothing have a layout of their own, made when the first of them is asked for: there such pins hang on links that can be cut.
 */
export class FaultLayouts {
  readonly main: FaultLayout;
  private readonly extras: ReadonlyMap<string, number>;
  private cuttable: FaultLayout | null = null;

  /** `probes` come first among the system's probe pairs. */
  constructor(
    private readonly circuit: Circuit,
    private readonly board: Board,
    private readonly probes: readonly ProbePair[],
    private readonly orders: OrderCache,
  ) {
    const pairs = faultPairs(circuit, board);
    this.extras = new Map(pairs.map(([a, b], i) => [pairKey(a, b), probes.length + i]));
    const nets = [...new Set(circuit.parts.flatMap((p) => p.nodes))].filter((net) => net !== GROUND);
    const grounded = nets.map((red): ProbePair => ({ red, black: GROUND }));
    const system = new System(circuit, { probes: [...probes, ...pairs.map(([red, black]) => ({ red, black })), ...grounded], orders });
    const toGround = new Map(nets.map((net, i) => [net, probes.length + pairs.length + i]));
    this.main = { system, newton: new Newton(system, 'sample'), linked: new Map(), toGround };
  }

  /** The layout for a fault and what turns it into the faulty one; null when the fault needs a layout of its own. */
  borrow(faults: readonly Fault[], faulty: Circuit): Borrowed | null {
    const change = valueChange(this.main.system, this.circuit, faulty, this.extras);
    if (change) return { layout: this.main, change };
    const [fault] = faults;
    if (faults.length > 1 || fault?.kind !== 'open-pin') return null;
    const layout = (this.cuttable ??= this.layOutCuttable());
    const set = layout.system.valueSetter(looseNet(this.board, fault));
    return set && { layout, change: { parts: NONE, enter: () => set(Infinity), leave: () => set(LINK_OHMS) } };
  }

  private layOutCuttable(): FaultLayout {
    const linked = new Map<string, string>();
    let { circuit } = this;
    const parts = this.board.parts.filter((p) => isTransistor(p) || p.kind === 'opamp');
    for (const fault of listFaults(this.circuit, { parts, neighbours: [] })) {
      if (fault.kind !== 'open-pin') continue;
      const loosened = applyFault(circuit, this.board, fault).circuit;
      const outer = netLeft(circuit, loosened);
      if (outer === null || valueChange(this.main.system, circuit, loosened, this.extras)) continue;
      const net = looseNet(this.board, fault);
      linked.set(net, outer);
      circuit = addParts(loosened, [{ name: net, kind: 'R', nodes: [net, outer], value: LINK_OHMS }]);
    }
    const system = new System(circuit, { probes: this.probes, orders: this.orders });
    return { system, newton: new Newton(system, 'sample'), linked, toGround: new Map() };
  }
}

/** The net of its own to which `applyFault` takes a pin. */
function looseNet(board: Board, fault: Extract<Fault, { kind: 'open-pin' }>): string {
  const element = board.parts.find((p) => p.ref === fault.parts[0])?.element ?? fault.parts[0];
  return `${element}~${fault.detail.pin}`;
}

/** The net that something has left between two circuits of equal parts; null when nothing has. */
function netLeft(before: Circuit, after: Circuit): string | null {
  for (const [i, part] of before.parts.entries()) {
    const moved = after.parts[i]!.nodes;
    const at = part.nodes.findIndex((net, k) => net !== moved[k]);
    if (at >= 0) return part.nodes[at]!;
  }
  return null;
}

/** Unknowns of one layout taken over to another by name; nets behind a link have the voltage of what they hang on. */
export function carryOver(x: Float64Array, from: System, to: System, linked: ReadonlyMap<string, string>): Float64Array {
  const out = new Float64Array(to.size + 1);
  to.unknowns.forEach((name, i) => {
    out[i] = x[from.indexOf(name) ?? from.indexOf(linked.get(name) ?? '') ?? from.size]!;
  });
  return out;
}
