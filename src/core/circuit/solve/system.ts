import { blockSlots, type DeviceBank, pairSlots } from '../devices/bank';
import { BipolarBank } from '../devices/bipolar';
import { DiodeBank } from '../devices/diode';
import { JfetBank } from '../devices/jfet';
import { MosfetBank } from '../devices/mosfet';
import { type Circuit, GROUND, type Part, type Semiconductor, type Source } from '../netlist';
import { levelAt } from '../waveform';
import { branchName, collectDevices, type DeviceHandle, layOut, SERIES } from './layout';
import { Pattern } from './pattern';
import { type OrderCache, SparseLu } from './sparseLu';

/** Conductance from every net to ground, siemens, so that a net on which nothing hangs has a voltage. */
const SHUNT = 1e-12;
/** Winding resistance given to a coil so that two coils in parallel still have one solution, ohms. */
const COIL_OHMS = 1e-6;

export type { OrderCache } from './sparseLu';

/** A place where a meter of finite input resistance can be connected; its conductance starts at 0. */
export interface ProbePair {
  readonly red: string;
  readonly black: string;
}

export interface SystemOptions {
  readonly probes?: readonly ProbePair[];
  /** Elimination orders shared with other systems. */
  readonly orders?: OrderCache;
  /** Lays out capacitors and coils for transients. */
  readonly dynamic?: boolean;
  /** Gives every bipolar transistor a net of its own to which a pin can be moved that touches nothing. */
  readonly loosePins?: boolean;
}

/** One adjustable conductance between two unknowns. */
interface Conductance {
  readonly index: number;
  readonly a: number;
  readonly b: number;
  readonly slots: readonly [number, number, number, number];
  value: number;
}

/** A capacitor or coil of a system laid out for transients: its ends, its value, and what sets its companion model. */
export interface Reactance {
  readonly kind: 'C' | 'L';
  readonly name: string;
  /** Unknowns of the two ends; for a coil also its branch current. */
  readonly a: number;
  readonly b: number;
  readonly branch: number;
  /** Farads or henries. */
  readonly value: number;
}

/** One constant entry of the matrix: branch equations and controlled sources. */
interface Stamp {
  readonly row: number;
  readonly column: number;
  readonly value: number;
}

type Handle =
  | { readonly kind: 'conductance'; readonly entry: Conductance }
  | { readonly kind: 'source'; readonly row: number }
  | { readonly kind: 'current'; readonly from: number; readonly to: number; value: number }
  | DeviceHandle;

const DIODE_PARAMS = ['IS', 'N', 'BV'] as const;
const BIPOLAR_PARAMS = ['IS', 'BF', 'BR', 'VAF', 'NF'] as const;
const MOSFET_PARAMS = ['VTO', 'KP'] as const;
export type ModelParam = (typeof DIODE_PARAMS)[number] | (typeof BIPOLAR_PARAMS)[number] | (typeof MOSFET_PARAMS)[number];

const isOneOf = <T extends string>(value: string, all: readonly T[]): value is T => (all as readonly string[]).includes(value);

/**
 * Modified nodal analysis of one circuit (Ho, Ruehli, Brennan 1975): unknowns are node voltages, then the branch
 * currents of V, E and L. Everything a solve needs is laid out here once; values can be changed without a new layout.
 */
export class System {
  /** Names of the unknowns: nets first, then `I(V1)`. */
  readonly unknowns: readonly string[];
  readonly size: number;
  readonly nodeCount: number;
  readonly lu: SparseLu;
  readonly matrix: Float64Array;
  readonly banks: readonly DeviceBank[];
  private readonly indexOf: ReadonlyMap<string, number>;
  private readonly linear: Float64Array;
  private readonly right: Float64Array;
  private readonly diagonal: Int32Array;
  private readonly handles = new Map<string, Handle>();
  private readonly probes: Conductance[];
  /** Ends and values of all conductances, and the constant entries, laid out for the residual. */
  private readonly ends: Int32Array;
  private readonly conductances: Float64Array;
  private readonly stampAt: Int32Array;
  private readonly stampValue: Float64Array;
  /** Capacitors and coils; empty unless the system is laid out for transients. */
  readonly reactances: readonly Reactance[];
  private readonly companions: { readonly entry: Conductance | null; readonly stamp: number; readonly slot: number }[] = [];
  private readonly sourceParts: readonly Source[];
  /** Series resistances of semiconductors, by part, in the order of `SERIES`. */
  private readonly terminals = new Map<string, { readonly param: string; readonly entry: Conductance }[]>();
  /** Unknowns at the pins of diodes and bipolar transistors as laid out, and the spare one of each transistor. */
  private readonly pinsOf = new Map<string, readonly number[]>();
  private readonly looseOf = new Map<string, number>();
  private readonly diodes: DiodeBank;
  private readonly bipolars: BipolarBank;
  private readonly mosfets: MosfetBank;
  private readonly jfets: JfetBank;

  constructor(circuit: Circuit, { probes = [], orders, dynamic = false, loosePins = false }: SystemOptions = {}) {
    const layout = layOut(circuit, loosePins);
    const ground = layout.unknowns.length;
    const pattern = new Pattern(ground);
    this.unknowns = layout.unknowns;
    this.size = ground;
    this.nodeCount = layout.nodeCount;
    this.indexOf = layout.indexOf;
    this.right = new Float64Array(ground + 1);
    this.diagonal = Int32Array.from({ length: layout.nodeCount }, (_, i) => pattern.slot(i, i));
    const stamps: Stamp[] = [];
    const entries: Conductance[] = [];
    const conductance = (a: number, b: number, value: number): Conductance => {
      const entry = { index: entries.length, a, b, slots: pairSlots(pattern, a, b), value };
      entries.push(entry);
      return entry;
    };
    const coilStamps = new Map<string, number>();
    for (const part of circuit.parts) {
      this.stampLinear(part, stamps, conductance);
      if (part.kind === 'L') coilStamps.set(part.name, stamps.length - 1);
    }
    this.sourceParts = circuit.parts.filter((p): p is Source => p.kind === 'V' || p.kind === 'I');
    this.reactances = dynamic ? this.findReactances(circuit) : [];
    const capacitors = new Map(this.reactances.flatMap((r) => (r.kind === 'C' ? [[r.name, conductance(r.a, r.b, 0)] as const] : [])));
    this.probes = probes.map((p) => conductance(this.unknownOf(p.red), this.unknownOf(p.black), 0));
    const specs = collectDevices(
      circuit,
      (n) => this.unknownOf(n),
      layout,
      (part, param, a, b, g) => {
        const known = this.terminals.get(part) ?? [];
        known.push({ param, entry: conductance(a, b, g) });
        this.terminals.set(part, known);
      },
    );
    for (const { collector, base, emitter, loose } of specs.bipolars) if (loose !== null) blockSlots(pattern, [collector, base, emitter, loose]);
    this.diodes = new DiodeBank(specs.diodes, pattern);
    this.bipolars = new BipolarBank(specs.bipolars, pattern);
    this.mosfets = new MosfetBank(specs.mosfets, pattern);
    this.jfets = new JfetBank(specs.jfets, pattern);
    this.banks = [this.diodes, this.bipolars, this.mosfets, this.jfets];
    for (const spec of specs.diodes) this.pinsOf.set(spec.part, [spec.anode, spec.cathode]);
    for (const spec of specs.bipolars) {
      this.pinsOf.set(spec.part, [spec.collector, spec.base, spec.emitter]);
      if (spec.loose !== null) this.looseOf.set(spec.part, spec.loose);
    }
    for (const [name, handle] of specs.handles) this.handles.set(name.toLowerCase(), handle);
    const stampSlots = stamps.map((t) => pattern.slot(t.row, t.column));
    const { rows, columns } = pattern;
    this.matrix = new Float64Array(rows.length);
    this.linear = new Float64Array(rows.length);
    this.ends = Int32Array.from(entries.flatMap((e) => [e.a, e.b]));
    this.conductances = Float64Array.from(entries, (e) => e.value);
    this.stampAt = Int32Array.from(stamps.flatMap((t) => [t.row, t.column]));
    this.stampValue = Float64Array.from(stamps, (t) => t.value);
    for (let i = 0; i < stamps.length; i++) this.linear[stampSlots[i]!]! += stamps[i]!.value;
    for (const entry of entries) this.addConductance(entry, entry.value);
    for (const slot of this.diagonal) this.linear[slot]! += SHUNT;
    for (const r of this.reactances) {
      const stamp = coilStamps.get(r.name) ?? -1;
      this.companions.push({ entry: capacitors.get(r.name) ?? null, stamp, slot: stamp < 0 ? -1 : stampSlots[stamp]! });
    }
    this.lu = new SparseLu(this.size, rows, columns, orders ?? null);
  }

  private findReactances(circuit: Circuit): Reactance[] {
    return circuit.parts.flatMap((p): Reactance[] => {
      if ((p.kind !== 'C' && p.kind !== 'L') || p.value === 0) return [];
      return [
        { kind: p.kind, name: p.name, a: this.unknownOf(p.nodes[0]!), b: this.unknownOf(p.nodes[1]!), branch: this.branchOf(p.name) ?? -1, value: p.value },
      ];
    });
  }

  /** Sets the companion of reactance `i`: siemens across a capacitor, ohms in series with a coil's current. */
  setCompanion(i: number, size: number): void {
    const { entry, stamp, slot } = this.companions[i]!;
    if (entry) this.setConductance(entry, size);
    else {
      this.linear[slot]! += -size - this.stampValue[stamp]!;
      this.stampValue[stamp] = -size;
    }
  }

  /** Takes all independent sources to their levels at a time; companion currents are added behind it. */
  setSources(time: number): void {
    this.right.fill(0);
    for (const part of this.sourceParts) {
      const level = part.wave ? levelAt(part.wave, time) : part.dc;
      if (part.kind === 'V') this.right[this.branchOf(part.name)!] = level;
      else {
        this.right[this.unknownOf(part.nodes[0]!)]! -= level;
        this.right[this.unknownOf(part.nodes[1]!)]! += level;
      }
    }
  }

  /** Adds to the right-hand side of one unknown's equation. */
  inject(unknown: number, amount: number): void {
    this.right[unknown]! += amount;
  }

  /** Index of a net's voltage; ground and unknown names give the ground index. */
  unknownOf(net: string): number {
    return net === GROUND ? this.unknowns.length : (this.indexOf.get(net) ?? this.unknowns.length);
  }

  hasNet(net: string): boolean {
    return net === GROUND || this.indexOf.has(net);
  }

  /** Index of the branch current of a V, E or L. */
  branchOf(part: string): number | undefined {
    return this.indexOf.get(branchName(part));
  }

  private stampLinear(part: Part, stamps: Stamp[], conductance: (a: number, b: number, g: number) => Conductance): void {
    const at = part.nodes.map((n) => this.unknownOf(n));
    const [p, n] = at as [number, number];
    const stamp = (row: number, column: number, value: number) => stamps.push({ row, column, value });
    switch (part.kind) {
      case 'R':
        this.handles.set(part.name.toLowerCase(), { kind: 'conductance', entry: conductance(p, n, 1 / part.value) });
        return;
      case 'C':
        return;
      case 'I':
        this.right[p] = this.right[p]! - part.dc;
        this.right[n] = this.right[n]! + part.dc;
        this.handles.set(part.name.toLowerCase(), { kind: 'current', from: p, to: n, value: part.dc });
        return;
      case 'G': {
        const [, , cp, cn] = at as [number, number, number, number];
        stamp(p, cp, part.gain);
        stamp(p, cn, -part.gain);
        stamp(n, cp, -part.gain);
        stamp(n, cn, part.gain);
        return;
      }
      case 'V':
      case 'E':
      case 'L': {
        const k = this.indexOf.get(branchName(part.name))!;
        stamp(p, k, 1);
        stamp(n, k, -1);
        stamp(k, p, 1);
        stamp(k, n, -1);
        if (part.kind === 'L') stamp(k, k, -COIL_OHMS);
        if (part.kind === 'E') {
          stamp(k, at[2]!, -part.gain);
          stamp(k, at[3]!, part.gain);
        }
        if (part.kind === 'V') {
          this.right[k] = part.dc;
          this.handles.set(part.name.toLowerCase(), { kind: 'source', row: k });
        }
        return;
      }
      default:
        return;
    }
  }

  private addConductance(entry: Conductance, by: number): void {
    const [aa, ab, ba, bb] = entry.slots;
    this.linear[aa]! += by;
    this.linear[ab]! -= by;
    this.linear[ba]! -= by;
    this.linear[bb]! += by;
  }

  /** A function that sets the value of one R (ohms), V (volts) or I (amperes); null for other parts. */
  valueSetter(part: string): ((value: number) => void) | null {
    const handle = this.handles.get(part.toLowerCase());
    switch (handle?.kind) {
      case 'conductance':
        return (ohms) => {
          this.setConductance(handle.entry, 1 / ohms);
        };
      case 'source':
        return (volts) => {
          this.right[handle.row] = volts;
        };
      case 'current':
        return (amperes) => {
          this.right[handle.from]! -= amperes - handle.value;
          this.right[handle.to]! += amperes - handle.value;
          handle.value = amperes;
        };
      default:
        return null;
    }
  }

  /** A function that sets one model parameter of one semiconductor; null when its kind lacks it. */
  modelSetter(part: string, param: ModelParam): ((value: number) => void) | null {
    const handle = this.handles.get(part.toLowerCase());
    if (handle?.kind === 'D' && isOneOf(param, DIODE_PARAMS)) return (v) => this.diodes.set(handle.index, param, v);
    if (handle?.kind === 'Q' && isOneOf(param, BIPOLAR_PARAMS)) return (v) => this.bipolars.set(handle.index, param, v);
    if (handle?.kind === 'M' && isOneOf(param, MOSFET_PARAMS)) return (v) => this.mosfets.set(handle.index, param, v);
    if (handle?.kind === 'J' && param === 'VTO') return (v) => this.jfets.set(handle.index, v);
    return null;
  }

  /**
   * A function that puts a diode or bipolar transistor of another model into a place; null when the two models differ in
   * which terminals have a resistance, for that changes the nets.
   */
  modelReplacer(part: Semiconductor, other: Semiconductor): ((to: Semiconductor) => void) | null {
    const handle = this.handles.get(part.name.toLowerCase());
    if (!handle || (handle.kind !== 'D' && handle.kind !== 'Q') || part.kind !== other.kind) return null;
    const has = (s: Semiconductor) => SERIES[s.kind]!.map(([param]) => (s.model.params[param]! > 0 ? 1 : 0)).join();
    if (has(part) !== has(other)) return null;
    const series = this.terminals.get(part.name) ?? [];
    const { index } = handle;
    return (to) => {
      const { params, kind } = to.model;
      for (const { param, entry } of series) this.setConductance(entry, to.scale / params[param]!);
      if (handle.kind === 'D') this.diodes.replace(index, params, to.scale);
      else this.bipolars.replace(index, kind === 'PNP' ? -1 : 1, params, to.scale);
    };
  }

  /** A function that takes one diode out of the circuit or puts it back; null for other parts. */
  presenceSetter(part: string): ((present: boolean) => void) | null {
    const handle = this.handles.get(part.toLowerCase());
    return handle?.kind === 'D' ? (present) => this.diodes.setPresent(handle.index, present) : null;
  }

  /**
   * A function that takes the pins of a diode or bipolar transistor to other nets and back: pins exchanged (collector with
   * emitter, anode with cathode), one pin on a net that nothing else touches, or (`to` is null) a transistor gone. Null when
   * that needs another layout.
   */
  rewirer(part: Semiconductor, to: Semiconductor | null): ((moved: boolean) => void) | null {
    const handle = this.handles.get(part.name.toLowerCase());
    const pins = this.pinsOf.get(part.name);
    if (!pins || (handle?.kind !== 'D' && handle?.kind !== 'Q')) return null;
    const { index } = handle;
    const series = this.terminals.get(part.name) ?? [];
    const put = (at: readonly number[]) => {
      if (handle.kind === 'D') this.diodes.rewire(index, at[0]!, at[1]!);
      else this.bipolars.rewire(index, at as [number, number, number]);
    };
    if (!to) return handle.kind === 'Q' ? (moved) => put(moved ? pins.map(() => this.size) : pins) : null;
    const differing = pins.flatMap((_, i) => (part.nodes[i] === to.nodes[i] ? [] : [i]));
    const last = pins.length - 1;
    if (differing.length === 2 && part.nodes[0] === to.nodes[last] && part.nodes[last] === to.nodes[0]) {
      const swapped = [pins[last]!, ...pins.slice(1, last), pins[0]!];
      const [rc, re] = ['RC', 'RE'].map((param) => series.find((s) => s.param === param)?.entry);
      if (handle.kind === 'D' || (!rc && !re)) return (moved) => put(moved ? swapped : pins);
      if (!rc || !re) return null;
      const [c, e] = [rc.value, re.value];
      return (moved) => {
        put(moved ? swapped : pins);
        this.setConductance(rc, moved ? e : c);
        this.setConductance(re, moved ? c : e);
      };
    }
    const [pin] = differing;
    if (handle.kind !== 'Q' || differing.length !== 1 || this.hasNet(to.nodes[pin!]!)) return null;
    const lead = series.find((s) => s.param === ['RC', 'RB', 'RE'][pin!])?.entry;
    if (lead) {
      const siemens = lead.value;
      return (moved) => this.setConductance(lead, moved ? 0 : siemens);
    }
    const loose = this.looseOf.get(part.name);
    return loose === undefined ? null : (moved) => put(moved ? pins.map((u, i) => (i === pin ? loose : u)) : pins);
  }

  private setConductance(entry: Conductance, siemens: number): void {
    this.addConductance(entry, siemens - entry.value);
    entry.value = siemens;
    this.conductances[entry.index] = siemens;
  }

  /** Connects (or with 0 disconnects) the meter of a probe pair, siemens. */
  setProbe(index: number, conductance: number): void {
    this.setConductance(this.probes[index]!, conductance);
  }

  /**
   * Fills the matrix with the Jacobian at `x` and `f` with the residual (sum of currents leaving each net).
   * `sources` scales all independent sources, `shunt` is an extra conductance from every net to ground; `bold`: see `DeviceBank`.
   * Returns true when a junction voltage was limited.
   */
  load(x: Float64Array, f: Float64Array, sources: number, shunt: number, bold: boolean): boolean {
    const { matrix, right, ends, conductances, stampAt, stampValue, size, nodeCount } = this;
    matrix.set(this.linear);
    if (shunt > 0) for (let i = 0; i < nodeCount; i++) matrix[this.diagonal[i]!]! += shunt;
    for (let i = 0; i < nodeCount; i++) f[i] = (SHUNT + shunt) * x[i]! - sources * right[i]!;
    for (let i = nodeCount; i <= size; i++) f[i] = -sources * right[i]!;
    // Part by part, not row by row: g × (va − vb) keeps its accuracy on nets that float together.
    for (let k = 0; k < conductances.length; k++) {
      const g = conductances[k]!;
      if (g === 0) continue;
      const a = ends[2 * k]!;
      const b = ends[2 * k + 1]!;
      const current = g * (x[a]! - x[b]!);
      f[a] = f[a]! + current;
      f[b] = f[b]! - current;
    }
    for (let k = 0; k < stampValue.length; k++) {
      const row = stampAt[2 * k]!;
      f[row] = f[row]! + stampValue[k]! * x[stampAt[2 * k + 1]!]!;
    }
    let limited = false;
    for (const bank of this.banks) if (bank.load(x, matrix, f, bold)) limited = true;
    return limited;
  }

  coldStart(): void {
    for (const bank of this.banks) bank.coldStart();
  }

  warmStart(x: Float64Array): void {
    for (const bank of this.banks) bank.warmStart(x);
  }
}
