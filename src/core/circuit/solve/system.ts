import { BipolarBank } from '../devices/bipolar';
import { DiodeBank } from '../devices/diode';
import { JfetBank } from '../devices/jfet';
import { MosfetBank } from '../devices/mosfet';
import { type Tenant, theKernel } from '../kernel/kernel';
import { type Circuit, type Controlled, GROUND, type Part, type Semiconductor, type Source } from '../netlist';
import { levelAt } from '../waveform';
import { branchName, collectDevices, type DeviceHandle, layOut, SERIES } from './layout';
import { type LimitedSource, SourceLimits } from './limits';
import { type Conductance, LinearLayout, LinearParts } from './linearParts';
import { Pattern } from './pattern';
import { type OrderCache, SparseLu } from './sparseLu';
import { tenancyOf } from './tenancy';

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

/** Which of the entries of a coil is its series resistance, counted from its first. */
const SERIES_STAMP = 4;
/** The first entry of its branch equation behind those of its nets. */
const BRANCH_STAMP = 2;

type Handle =
  | { readonly kind: 'conductance'; readonly entry: Conductance }
  | { readonly kind: 'source'; readonly row: number }
  | { readonly kind: 'current'; readonly from: number; readonly to: number; value: number }
  | DeviceHandle;

const DIODE_PARAMS = ['IS', 'N', 'BV'] as const;
const BIPOLAR_PARAMS = ['IS', 'BF', 'BR', 'VAF', 'NF'] as const;
const MOSFET_PARAMS = ['VTO', 'KP'] as const;
const JFET_PARAMS = ['VTO', 'BETA'] as const;
export type ModelParam = (typeof DIODE_PARAMS)[number] | (typeof BIPOLAR_PARAMS)[number] | (typeof MOSFET_PARAMS)[number] | (typeof JFET_PARAMS)[number];

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
  private readonly indices: ReadonlyMap<string, number>;
  private readonly linear: LinearParts;
  private readonly handles = new Map<string, Handle>();
  private readonly probes: Conductance[];
  private readonly tenant: Tenant;
  /** Capacitors and coils; empty unless the system is laid out for transients. */
  readonly reactances: Reactance[];
  private readonly companions: { readonly entry: Conductance | null; readonly stamp: number }[] = [];
  /** Number of the first constant entry of each part. */
  private readonly stampsOf = new Map<string, number>();
  private readonly sources: Map<string, Source>;
  /** Supplies with a current limit; none in a system for transients. */
  readonly limits: SourceLimits;
  /** Series resistances of semiconductors, by part, in the order of `SERIES`. */
  private readonly terminals = new Map<string, { readonly param: string; readonly entry: Conductance }[]>();
  /** Unknowns at the pins of diodes and bipolar transistors as laid out. */
  private readonly pinsOf = new Map<string, readonly number[]>();
  private readonly diodes: DiodeBank;
  private readonly bipolars: BipolarBank;
  private readonly mosfets: MosfetBank;
  private readonly jfets: JfetBank;

  constructor(circuit: Circuit, { probes = [], orders, dynamic = false }: SystemOptions = {}) {
    const layout = layOut(circuit);
    const ground = layout.unknowns.length;
    const pattern = new Pattern(ground);
    this.unknowns = layout.unknowns;
    this.size = ground;
    this.nodeCount = layout.nodeCount;
    this.indices = layout.indexOf;
    const linear = new LinearLayout(pattern, layout.nodeCount);
    for (const part of circuit.parts) {
      this.stampsOf.set(part.name, linear.stamps.length);
      this.stampLinear(part, linear);
    }
    this.sources = new Map(circuit.parts.flatMap((p) => (p.kind === 'V' || p.kind === 'I' ? [[p.name, p] as const] : [])));
    this.reactances = dynamic ? this.findReactances(circuit) : [];
    const capacitors = new Map(this.reactances.flatMap((r) => (r.kind === 'C' ? [[r.name, linear.conductance(r.a, r.b, 0)] as const] : [])));
    this.probes = probes.map((p) => linear.conductance(this.unknownOf(p.red), this.unknownOf(p.black), 0));
    const specs = collectDevices(
      circuit,
      (n) => this.unknownOf(n),
      layout,
      (part, param, a, b, g) => {
        const known = this.terminals.get(part) ?? [];
        known.push({ param, entry: linear.conductance(a, b, g) });
        this.terminals.set(part, known);
      },
    );
    for (const spec of specs.diodes) this.pinsOf.set(spec.part, [spec.anode, spec.cathode]);
    for (const spec of specs.bipolars) this.pinsOf.set(spec.part, [spec.collector, spec.base, spec.emitter]);
    for (const [name, handle] of specs.handles) this.handles.set(name.toLowerCase(), handle);
    const tenancy = tenancyOf(ground, layout.nodeCount, pattern, linear, specs);
    this.tenant = tenancy.tenant;
    this.linear = new LinearParts(linear, tenancy.linear);
    this.limits = new SourceLimits(this.linear, dynamic ? [] : this.limitedSources());
    this.diodes = new DiodeBank(specs.diodes, tenancy.numbers[0], tenancy.places[0], pattern);
    this.bipolars = new BipolarBank(specs.bipolars, tenancy.numbers[1], tenancy.places[1], pattern);
    this.mosfets = new MosfetBank(specs.mosfets, tenancy.numbers[2]);
    this.jfets = new JfetBank(specs.jfets, tenancy.numbers[3]);
    for (const r of this.reactances) this.companions.push({ entry: capacitors.get(r.name) ?? null, stamp: this.stampsOf.get(r.name)! + SERIES_STAMP });
    this.lu = new SparseLu(this.tenant, pattern.rows, pattern.columns, orders ?? null);
  }

  private limitedSources(): LimitedSource[] {
    return [...this.sources.values()].flatMap(({ kind, name, nodes, dc, limit }): LimitedSource[] => {
      if (kind !== 'V' || limit === undefined) return [];
      const [plus, minus] = nodes.map((n) => this.unknownOf(n)) as [number, number];
      return [{ branch: this.branchOf(name)!, plus, minus, stamp: this.stampsOf.get(name)! + BRANCH_STAMP, amperes: limit, volts: dc }];
    });
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
    const { entry, stamp } = this.companions[i]!;
    if (entry) this.linear.setConductance(entry, size);
    else this.linear.setStamp(stamp, -size);
  }

  /**
   * Takes all independent sources to their levels at a time; companion currents are added behind it. `share` of the board's own
   * direct supplies is there: they may still be rising after switch-on.
   */
  setSources(time: number, share = 1): void {
    const { right } = this.linear;
    right.fill(0);
    for (const part of this.sources.values()) {
      const rising = share !== 1 && part.kind === 'V' && !part.name.includes('.');
      const level = part.wave ? levelAt(part.wave, time) : rising ? share * part.dc : part.dc;
      if (part.kind === 'V') right[this.branchOf(part.name)!] = level;
      else {
        right[this.unknownOf(part.nodes[0]!)]! -= level;
        right[this.unknownOf(part.nodes[1]!)]! += level;
      }
    }
  }

  /** Adds to the right-hand side of one unknown's equation. */
  inject(unknown: number, amount: number): void {
    this.linear.right[unknown]! += amount;
  }

  /** Index of a net's voltage; ground and unknown names give the ground index. */
  unknownOf(net: string): number {
    return net === GROUND ? this.unknowns.length : (this.indices.get(net) ?? this.unknowns.length);
  }

  /** Index of an unknown by its name in `unknowns`. */
  indexOf(name: string): number | undefined {
    return this.indices.get(name);
  }

  hasNet(net: string): boolean {
    return net === GROUND || this.indices.has(net);
  }

  /** Index of the branch current of a V, E or L. */
  branchOf(part: string): number | undefined {
    return this.indices.get(branchName(part));
  }

  private stampLinear(part: Part, linear: LinearLayout): void {
    const at = part.nodes.map((n) => this.unknownOf(n));
    const [p, n] = at as [number, number];
    const stamp = (row: number, column: number, value: number) => linear.stamp(row, column, value);
    switch (part.kind) {
      case 'R':
        this.handles.set(part.name.toLowerCase(), { kind: 'conductance', entry: linear.conductance(p, n, 1 / part.value) });
        return;
      case 'C':
        return;
      case 'I':
        linear.drive(p, -part.dc);
        linear.drive(n, part.dc);
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
        const k = this.indices.get(branchName(part.name))!;
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
          linear.drive(k, part.dc);
          if (part.limit !== undefined) stamp(k, k, 0);
          this.handles.set(part.name.toLowerCase(), { kind: 'source', row: k });
        }
        return;
      }
      default:
        return;
    }
  }

  /** A function that sets the value of one R (ohms), V (volts) or I (amperes); null for other parts. */
  valueSetter(part: string): ((value: number) => void) | null {
    const handle = this.handles.get(part.toLowerCase());
    switch (handle?.kind) {
      case 'conductance':
        return (ohms) => {
          this.linear.setConductance(handle.entry, 1 / ohms);
        };
      case 'source':
        return (volts) => {
          if (!this.limits.setVolts(handle.row, volts)) this.linear.right[handle.row] = volts;
        };
      case 'current':
        return (amperes) => {
          this.linear.right[handle.from]! -= amperes - handle.value;
          this.linear.right[handle.to]! += amperes - handle.value;
          handle.value = amperes;
        };
      default:
        return null;
    }
  }

  /** A function that sets the limit of a source that has one, amperes; null for other parts. */
  limitSetter(part: string): ((amperes: number) => void) | null {
    const branch = this.branchOf(part);
    return branch === undefined || !this.limits.has(branch) ? null : (amperes) => void this.limits.setAmperes(branch, amperes);
  }

  /** A function that tells the current through one D (forward), R, V or L from a solution, amperes; null for other parts. */
  ammeter(part: string): ((x: Float64Array) => number) | null {
    const handle = this.handles.get(part.toLowerCase());
    const branch = this.branchOf(part);
    if (handle?.kind === 'D') return (x) => this.diodes.forwardCurrent(handle.index, x);
    if (handle?.kind === 'conductance') {
      const { entry } = handle;
      return (x) => ((x[entry.a] ?? 0) - (x[entry.b] ?? 0)) * this.linear.conductanceOf(entry);
    }
    return branch === undefined ? null : (x) => x[branch]!;
  }

  /** A function that sets one model parameter of one semiconductor; null when its kind lacks it. */
  modelSetter(part: string, param: ModelParam): ((value: number) => void) | null {
    const handle = this.handles.get(part.toLowerCase());
    if (handle?.kind === 'D' && isOneOf(param, DIODE_PARAMS)) return (v) => this.diodes.set(handle.index, param, v);
    if (handle?.kind === 'Q' && isOneOf(param, BIPOLAR_PARAMS)) return (v) => this.bipolars.set(handle.index, param, v);
    if (handle?.kind === 'M' && isOneOf(param, MOSFET_PARAMS)) return (v) => this.mosfets.set(handle.index, param, v);
    if (handle?.kind === 'J' && isOneOf(param, JFET_PARAMS)) return (v) => this.jfets.set(handle.index, param, v);
    return null;
  }

  /** A function that sets one series resistance of a semiconductor, ohms; null where its card has none. */
  seriesSetter(part: string, param: string): ((ohms: number) => void) | null {
    const lead = this.terminals.get(part)?.find((t) => t.param === param)?.entry;
    return lead ? (ohms) => this.linear.setConductance(lead, 1 / ohms) : null;
  }

  /**
   * Puts another piece of the same part in its place: same nets, same kind, other values. Which terminals have a series
   * resistance cannot change, for that would change the nets.
   */
  take(part: Part): void {
    const handle = this.handles.get(part.name.toLowerCase());
    switch (part.kind) {
      case 'R':
        this.valueSetter(part.name)?.(part.value);
        return;
      case 'V':
      case 'I':
        this.valueSetter(part.name)?.(part.dc);
        if (part.limit !== undefined) this.limitSetter(part.name)?.(part.limit);
        this.sources.set(part.name, part);
        return;
      case 'C':
      case 'L': {
        const i = this.reactances.findIndex((r) => r.name === part.name);
        if (i >= 0) this.reactances[i] = { ...this.reactances[i]!, value: part.value };
        return;
      }
      case 'D':
      case 'Q':
      case 'M':
      case 'J': {
        if (handle?.kind !== part.kind) return;
        const { params, kind } = part.model;
        for (const { param, entry } of this.terminals.get(part.name) ?? [])
          this.linear.setConductance(entry, (part.kind === 'M' ? part.multiple : part.scale) / params[param]!);
        if (part.kind === 'D') this.diodes.replace(handle.index, params, part.scale);
        else if (part.kind === 'Q') this.bipolars.replace(handle.index, kind === 'PNP' ? -1 : 1, params, part.scale);
        else (part.kind === 'M' ? this.mosfets : this.jfets).replace(handle.index, params);
        return;
      }
      default:
        return;
    }
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
      for (const { param, entry } of series) this.linear.setConductance(entry, to.scale / params[param]!);
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
   * emitter, anode with cathode), one pin with a lead of its own on a net that nothing else touches, or (`to` is null) a
   * transistor gone. Null when that needs another layout.
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
      this.tenant.moved = true;
    };
    if (!to) return handle.kind === 'Q' ? (moved) => put(moved ? pins.map(() => this.size) : pins) : null;
    const differing = pins.flatMap((_, i) => (part.nodes[i] === to.nodes[i] ? [] : [i]));
    const last = pins.length - 1;
    if (differing.length === 2 && part.nodes[0] === to.nodes[last] && part.nodes[last] === to.nodes[0]) {
      const swapped = [pins[last]!, ...pins.slice(1, last), pins[0]!];
      const [rc, re] = ['RC', 'RE'].map((param) => series.find((s) => s.param === param)?.entry);
      if (handle.kind === 'D' || (!rc && !re)) return (moved) => put(moved ? swapped : pins);
      if (!rc || !re) return null;
      let now = false;
      return (moved) => {
        put(moved ? swapped : pins);
        if (moved === now) return;
        now = moved;
        const [c, e] = [this.linear.conductanceOf(rc), this.linear.conductanceOf(re)];
        this.linear.setConductance(rc, e);
        this.linear.setConductance(re, c);
      };
    }
    const [pin] = differing;
    if (handle.kind !== 'Q' || differing.length !== 1 || this.hasNet(to.nodes[pin!]!)) return null;
    const lead = series.find((s) => s.param === ['RC', 'RB', 'RE'][pin!])?.entry;
    if (lead) {
      let siemens = lead.value;
      return (moved) => {
        if (moved) siemens = this.linear.conductanceOf(lead);
        this.linear.setConductance(lead, moved ? 0 : siemens);
      };
    }
    return null;
  }

  /** A function that makes a G drive a current of its own instead, amperes; null gives it its control back. */
  driver(part: Controlled): (amperes: number | null) => void {
    const first = this.stampsOf.get(part.name)!;
    const [p, n] = part.nodes.map((net) => this.unknownOf(net)) as [number, number];
    let now = 0;
    return (amperes) => {
      const gain = amperes === null ? part.gain : 0;
      for (const [i, sign] of [1, -1, -1, 1].entries()) this.linear.setStamp(first + i, sign * gain);
      this.linear.right[p]! -= (amperes ?? 0) - now;
      this.linear.right[n]! += (amperes ?? 0) - now;
      now = amperes ?? 0;
    };
  }

  /** Connects (or with 0 disconnects) the meter of a probe pair, siemens. */
  setProbe(index: number, conductance: number): void {
    this.linear.setConductance(this.probes[index]!, conductance);
  }

  /** Brings this circuit with its present values into the kernel. */
  enter(): void {
    theKernel().enter(this.tenant);
  }

  /**
   * Jacobian at `x`, factored for `lu`, and the residual there: sum of currents leaving each net, and what the branch equations
   * miss. The residual is null where the Jacobian is singular.
   */
  linearise(x: Float64Array): Float64Array | null {
    const kernel = theKernel();
    this.enter();
    kernel.x.set(x);
    kernel.run.warmStart();
    kernel.run.loadAll(1, 0, 0, 0);
    const residual = kernel.f.slice();
    return this.lu.factor() ? residual : null;
  }
}
