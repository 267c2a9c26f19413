import type { EliminationOrder } from '../solve/pivotSearch';
import { WASM } from './generated/wasm';

/** How many of everything a circuit has. `size` counts the unknowns, of which the first `nodes` are voltages. */
export interface Counts {
  readonly size: number;
  readonly nodes: number;
  readonly entries: number;
  readonly conductances: number;
  readonly stamps: number;
  readonly diodes: number;
  readonly bipolars: number;
  readonly mosfets: number;
  readonly jfets: number;
}

/** A circuit as the kernel reads it: all numbers and all positions in one array each, in the order of `assembly/memory.ts`. */
export interface Tenant {
  readonly counts: Counts;
  readonly numbers: Float64Array;
  readonly places: Int32Array;
  /** Set when `places` have changed since the kernel last read them. */
  moved: boolean;
}

interface Pointer {
  readonly value: number;
}

interface Exports {
  readonly memory: { readonly buffer: ArrayBuffer };
  readonly x: Pointer;
  readonly f: Pointer;
  readonly anchor: Pointer;
  readonly matrix: Pointer;
  readonly numbers: Pointer;
  readonly places: Pointer;
  readonly order: Pointer;
  readonly iterations: Pointer;
  readonly slowest: Pointer;
  readonly imbalance: Pointer;
  readonly openSystem: (...counts: number[]) => void;
  readonly openOrder: (slots: number, lower: number, upper: number, targets: number) => void;
  readonly coldStart: () => void;
  readonly warmStart: () => void;
  readonly loadAll: (sources: number, shunt: number, anchored: number, bold: number) => number;
  readonly factor: () => number;
  readonly solve: (at: number) => void;
  readonly solveTransposed: (at: number) => void;
  readonly resistance: (red: number, black: number) => number;
  readonly iterate: (
    sources: number,
    shunt: number,
    anchored: number,
    limit: number,
    relative: number,
    volts: number,
    amperes: number,
    confirmable: number,
  ) => number;
}

/** Windows on the kernel's memory for the circuit that is in. */
interface Views {
  readonly buffer: ArrayBuffer;
  readonly x: Float64Array;
  readonly f: Float64Array;
  readonly anchor: Float64Array;
  readonly numbers: Float64Array;
}

// The core is typed without the globals of browser or server; these two are common to all of them.
declare const WebAssembly: {
  readonly Module: new (bytes: Uint8Array) => object;
  readonly Instance: new (module: object, imports: object) => { readonly exports: unknown };
};
declare function atob(text: string): string;

/**
 * The inner loops of the solver, compiled to WebAssembly from `assembly/`: device equations, sparse factors, Newton's method.
 * One circuit is in it at a time; whoever solves enters first.
 */
export class Kernel {
  readonly run: Exports;
  private tenant: Tenant | null = null;
  private order: EliminationOrder | null = null;
  private views: Views | null = null;

  constructor() {
    const bytes = Uint8Array.from(atob(WASM), (c) => c.charCodeAt(0));
    this.run = new WebAssembly.Instance(new WebAssembly.Module(bytes), {}).exports as Exports;
  }

  /** Brings in a circuit with its present numbers. */
  enter(tenant: Tenant): void {
    const { run } = this;
    if (tenant !== this.tenant) {
      const c = tenant.counts;
      run.openSystem(c.size, c.nodes, c.entries, c.conductances, c.stamps, c.diodes, c.bipolars, c.mosfets, c.jfets);
      this.tenant = tenant;
      this.order = null;
      this.views = null;
      tenant.moved = true;
    }
    this.look().numbers.set(tenant.numbers);
    if (!tenant.moved) return;
    new Int32Array(run.memory.buffer, run.places.value, tenant.places.length).set(tenant.places);
    tenant.moved = false;
  }

  isIn(tenant: Tenant): boolean {
    return this.tenant === tenant;
  }

  /** Brings in an elimination order for the circuit that is in. */
  use(order: EliminationOrder): void {
    if (order === this.order) return;
    const { run } = this;
    run.openOrder(order.slots, order.lowerRow.length, order.upperColumn.length, order.target.length);
    let at = run.order.value;
    for (const list of [
      order.pivotRow,
      order.pivotColumn,
      order.pivotSlot,
      order.lowerStart,
      order.upperStart,
      order.lowerRow,
      order.lowerSlot,
      order.upperColumn,
      order.upperSlot,
      order.target,
    ]) {
      new Int32Array(run.memory.buffer, at, list.length).set(list);
      at += list.byteLength;
    }
    this.order = order;
  }

  /** Unknowns, the ground's 0 last. Memory may move when an order comes in: not to be kept. */
  get x(): Float64Array {
    return this.look().x;
  }

  /** Residual, or the right-hand side of a solve. */
  get f(): Float64Array {
    return this.look().f;
  }

  /** Voltages that the shunt of an anchored iteration pulls to. */
  get anchor(): Float64Array {
    return this.look().anchor;
  }

  /** Entries of the Jacobian that was last loaded. */
  get matrix(): Float64Array {
    return new Float64Array(this.run.memory.buffer, this.run.matrix.value, this.tenant!.counts.entries);
  }

  private look(): Views {
    const { run } = this;
    const { buffer } = run.memory;
    if (this.views?.buffer !== buffer) {
      const { counts, numbers } = this.tenant!;
      const list = (at: Pointer, length = counts.size + 1) => new Float64Array(buffer, at.value, length);
      this.views = { buffer, x: list(run.x), f: list(run.f), anchor: list(run.anchor), numbers: list(run.numbers, numbers.length) };
    }
    return this.views;
  }
}

let only: Kernel | null = null;
/** The kernel of this thread. */
export const theKernel = (): Kernel => (only ??= new Kernel());
