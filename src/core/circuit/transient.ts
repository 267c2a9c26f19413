import { addParts } from './edit';
import type { Circuit, Part, Waveform } from './netlist';
import { UnsolvableError } from './operatingPoint';
import { Newton } from './solve/newton';
import { System } from './solve/system';
import { breakTimes, longestStep } from './waveform';

/** Sampled course of some nets: one time axis, one column of volts per net (of amperes per ammeter). Steps are uneven. */
export interface Trace {
  readonly times: Float64Array;
  readonly volts: Readonly<Record<string, Float64Array>>;
  readonly amperes: Readonly<Record<string, Float64Array>>;
  readonly steps: number;
  /** Unknowns at the end: a run of an equal circuit may begin there. */
  readonly end: Float64Array;
}

export interface TransientOptions {
  /** Seconds. */
  readonly stop: number;
  /** Nets to record. */
  readonly nets: readonly string[];
  /** Currents of parts to record as well, by their names. */
  readonly ammeters?: readonly string[] | undefined;
  /** Recording begins here, seconds. */
  readonly from?: number;
  /** Direct supplies rise from nothing over these seconds: the board is switched on. They are there from the first moment otherwise. */
  readonly rise?: number | undefined;
  /** Sets values of the compiled circuit before it runs. */
  readonly prepare?: (system: System) => void;
  /** Unknowns to begin with, from the end of a run of an equal circuit; its own operating point otherwise. */
  readonly start?: Float64Array | undefined;
  /** Allowed error as a multiple of the usual one. */
  readonly coarse?: number | undefined;
  /** Steps that a quiet board takes at least; more of them draw a finer course. */
  readonly fewestSteps?: number | undefined;
  /** Steps after which the run is given up. */
  readonly mostSteps?: number | undefined;
  /** Steps after which the run ends early, with what was recorded until then. */
  readonly enoughSteps?: number | undefined;
  /** Called now and then with 0..1. */
  readonly progress?: (done: number) => void;
}

/** TR-BDF2 (Bank et al. 1985): a trapezoidal stage to γ h, then second-order backward differences. L-stable, second order. */
const GAMMA = 2 - Math.SQRT2;
/** Both stages have the same companion: 2/γ = (2 − γ)/(1 − γ). */
const COMPANION = 2 / GAMMA;
const BDF_MIDDLE = 1 / (GAMMA * (2 - GAMMA));
const BDF_START = (1 - GAMMA) ** 2 / (GAMMA * (2 - GAMMA));
/** Constant of the local truncation error. */
const ERROR = (-3 * GAMMA * GAMMA + 4 * GAMMA - 2) / (12 * (2 - GAMMA));

/** Local error allowed per step: share of the state's swing so far, and a floor in volts (amperes: through the coil's scale). */
const RELATIVE = 5e-5;
const FLOOR_VOLTS = 2e-5;
const FLOOR_AMPERES = 1e-7;
/** A recorded net may bend between the ends of a step by this share of its swing so far, and a floor in volts, or a peak would be missed. */
const BEND = 0.004;
const FLOOR_BEND = 5e-4;
/** Steps are not made shorter than this share of the longest for it: what switches at once bends at any length. */
const SHORTEST_FOR_BEND = 1 / 400;
const MOST_STEPS = 3_000_000;
const MOST_BREAKS = 200_000;
const FEWEST_STEPS = 400;

/**
 * Transient from the operating point at time 0, with the nets of `.ic` held there while it is found.
 * @throws UnsolvableError when a moment has no solution, or the steps become too many.
 */
export function transient(circuit: Circuit, options: TransientOptions): Trace {
  return new Run(circuit, options).go();
}

const tooManySteps = (most: number) =>
  new UnsolvableError(`The course of time needs more than ${most} steps. Choose a shorter time, or look for an oscillation that is too fast.`);

class Run {
  private readonly system: System;
  private readonly newton: Newton;
  private readonly recorded: { net: string; unknown: number; volts: number[]; low: number; high: number }[];
  private readonly ammeters: { part: string; read: (x: Float64Array) => number; amperes: number[] }[];
  private readonly times: number[] = [];
  private readonly from: number;
  private readonly coarse: number;
  /** Volts across every capacitor, amperes through every coil; and what their derivatives follow from. */
  private state: Float64Array;
  private slope: Float64Array;
  private readonly swing: { low: Float64Array; high: Float64Array };
  /** Steps longer than this are cut where recorded nets bend, seconds. */
  private bendable = Infinity;

  constructor(
    private readonly circuit: Circuit,
    private readonly options: TransientOptions,
  ) {
    this.system = new System(circuit, { dynamic: true });
    options.prepare?.(this.system);
    this.newton = new Newton(this.system);
    this.from = options.from ?? 0;
    this.coarse = options.coarse ?? 1;
    this.recorded = options.nets.map((net) => ({ net, unknown: this.system.unknownOf(net), volts: [], low: Infinity, high: -Infinity }));
    this.ammeters = (options.ammeters ?? []).map((part) => ({ part, read: this.system.ammeter(part) ?? (() => 0), amperes: [] }));
    const n = this.system.reactances.length;
    this.state = new Float64Array(n);
    this.slope = new Float64Array(n);
    this.swing = { low: new Float64Array(n), high: new Float64Array(n) };
  }

  go(): Trace {
    const { stop, rise, mostSteps = MOST_STEPS } = this.options;
    let x = this.options.start ?? this.begin();
    this.state = this.statesOf(x);
    this.swing.low.set(this.state);
    this.swing.high.set(this.state);
    this.record(0, x);
    const waves = this.circuit.parts.flatMap((p): Waveform[] => ((p.kind === 'V' || p.kind === 'I') && p.wave ? [p.wave] : []));
    const breaks = [...new Set([...waves.flatMap((w) => breakTimes(w, stop, MOST_BREAKS)), ...(rise === undefined ? [] : [rise]), stop])].sort((a, b) => a - b);
    const longest = Math.min(stop / (this.options.fewestSteps ?? FEWEST_STEPS), ...waves.map(longestStep));
    // The sources alone may ask for more: said at once rather than after minutes of stepping.
    if (stop / longest > mostSteps) throw tooManySteps(mostSteps);
    const shortest = stop * 1e-12;
    this.bendable = longest * SHORTEST_FOR_BEND;
    let t = 0;
    let h = longest / 1000;
    let fresh = true;
    let steps = 0;
    let nextBreak = 0;
    const { enoughSteps = Infinity } = this.options;
    while (t < stop * (1 - 1e-12) && steps < enoughSteps) {
      while (nextBreak < breaks.length - 1 && breaks[nextBreak]! <= t + shortest) nextBreak++;
      const gap = breaks[nextBreak]! - t;
      const step = gap <= h * 1.1 ? gap : Math.min(h, gap / 2);
      const tried = fresh ? this.eulerStep(x, t, step) : this.step(x, t, step);
      if (++steps > mostSteps) throw tooManySteps(mostSteps);
      if (!tried) {
        h = step / 8;
        fresh = true;
        if (h < shortest)
          throw new UnsolvableError(
            `No voltages were found at ${t.toExponential(3)} s: something switches without anything that slows it down. Add the small capacitance that every real net has.`,
          );
        continue;
      }
      const ratio = tried.error;
      if (ratio > 1 && step > shortest * 16) {
        h = step * Math.max(0.2, 0.9 * ratio ** (-1 / 3));
        continue;
      }
      ({ x } = tried);
      this.state = tried.state;
      this.slope = tried.slope;
      t = Math.abs(breaks[nextBreak]! - (t + step)) < shortest ? breaks[nextBreak]! : t + step;
      for (let i = 0; i < this.state.length; i++) {
        this.swing.low[i] = Math.min(this.swing.low[i]!, this.state[i]!);
        this.swing.high[i] = Math.max(this.swing.high[i]!, this.state[i]!);
      }
      this.record(t, x);
      fresh = breaks[nextBreak] === t;
      const grow = fresh ? 1 : Math.min(2, Math.max(0.3, 0.9 * Math.max(ratio, 1e-6) ** (-1 / 3)));
      h = Math.min(longest, fresh ? Math.max(Math.min(h, step) / 50, shortest * 100) : step * grow);
      if (steps % 2000 === 0) this.options.progress?.(t / stop);
    }
    return {
      times: Float64Array.from(this.times),
      volts: Object.fromEntries(this.recorded.map((r) => [r.net, Float64Array.from(r.volts)])),
      amperes: Object.fromEntries(this.ammeters.map((a) => [a.part, Float64Array.from(a.amperes)])),
      steps,
      end: x,
    };
  }

  /** Operating point with sources at their levels of time 0, the nets of `.ic` held through a very small resistance. */
  private begin(): Float64Array {
    const held = Object.entries(this.circuit.initial);
    const heldNets = new Set(held.map(([net]) => net));
    // A held net has no current through a coil yet: the coil would short what holds it.
    const standing = this.circuit.parts.filter((p) => p.kind !== 'L' || !p.nodes.some((n) => heldNets.has(n)));
    const holders = held.flatMap(([net, volts], i): Part[] => [
      { name: `~ic${i}`, kind: 'V', nodes: [`~ic${i}`, '0'], dc: volts, wave: null },
      { name: `~icR${i}`, kind: 'R', nodes: [`~ic${i}`, net], value: HOLD_OHMS },
    ]);
    const start = new System(addParts({ ...this.circuit, parts: standing }, holders));
    this.options.prepare?.(start);
    start.setSources(0, this.shareAt(0));
    const solution = new Newton(start).solve(null);
    if (!solution.converged)
      throw new UnsolvableError(`No starting point was found: net ${solution.culprit?.split('#')[0] ?? '?'} did not settle. Give it a start value with .ic.`);
    const x = this.newton.zeros();
    this.system.unknowns.forEach((name, i) => {
      const k = start.unknowns.indexOf(name);
      if (k >= 0) x[i] = solution.x[k]!;
    });
    return x;
  }

  private statesOf(x: Float64Array): Float64Array {
    return Float64Array.from(this.system.reactances, (r) => (r.kind === 'C' ? x[r.a]! - x[r.b]! : x[r.branch]!));
  }

  private record(t: number, x: Float64Array): void {
    for (const r of this.recorded) {
      r.low = Math.min(r.low, x[r.unknown]!);
      r.high = Math.max(r.high, x[r.unknown]!);
    }
    if (t < this.from) return;
    this.times.push(t);
    for (const r of this.recorded) r.volts.push(x[r.unknown]!);
    for (const a of this.ammeters) a.amperes.push(a.read(x));
  }

  /** How much of the supplies' volts is there at a moment. */
  private shareAt(time: number): number {
    const { rise } = this.options;
    return rise === undefined || time >= rise ? 1 : time / rise;
  }

  /**
   * Solves one stage: every reactance as a companion of size `k`/h with the given history.
   * For a capacitor i = (C k/h) v − C · history; for a coil v = (L k/h) i − L · history.
   */
  private stage(start: Float64Array, time: number, k: number, history: Float64Array): Float64Array | null {
    const { system } = this;
    system.setSources(time, this.shareAt(time));
    system.reactances.forEach((r, i) => {
      system.setCompanion(i, r.value * k);
      const past = r.value * history[i]!;
      if (r.kind === 'L') system.inject(r.branch, -past);
      else {
        system.inject(r.a, past);
        system.inject(r.b, -past);
      }
    });
    const solution = this.newton.solve(start);
    return solution.converged ? solution.x : null;
  }

  /** One backward Euler step, behind a break where the slope on the left says nothing. */
  private eulerStep(x: Float64Array, t: number, h: number): Accepted | null {
    const end = this.stage(
      x,
      t + h,
      1 / h,
      this.state.map((s) => s / h),
    );
    if (!end) return null;
    const state = this.statesOf(end);
    return { x: end, state, slope: state.map((s, i) => (s - this.state[i]!) / h), error: 0.3 };
  }

  private step(x: Float64Array, t: number, h: number): Accepted | null {
    const { state, slope } = this;
    const k = COMPANION / h;
    const middle = this.stage(
      x,
      t + GAMMA * h,
      k,
      state.map((s, i) => k * s + slope[i]!),
    );
    if (!middle) return null;
    const stateMiddle = this.statesOf(middle);
    const slopeMiddle = stateMiddle.map((s, i) => k * (s - state[i]!) - slope[i]!);
    const history = stateMiddle.map((s, i) => k * (BDF_MIDDLE * s - BDF_START * state[i]!));
    const end = this.stage(middle, t + h, k, history);
    if (!end) return null;
    const stateEnd = this.statesOf(end);
    const slopeEnd = stateEnd.map((s, i) => k * s - history[i]!);
    let error = 0;
    for (let i = 0; i < state.length; i++) {
      const local = Math.abs(2 * ERROR * h * (slope[i]! / GAMMA - slopeMiddle[i]! / (GAMMA * (1 - GAMMA)) + slopeEnd[i]! / (1 - GAMMA)));
      const floor = this.system.reactances[i]!.kind === 'C' ? FLOOR_VOLTS : FLOOR_AMPERES;
      const scale = Math.max(Math.abs(stateEnd[i]!), this.swing.high[i]! - this.swing.low[i]!);
      error = Math.max(error, local / ((RELATIVE * scale + floor) * this.coarse));
    }
    if (h > this.bendable) error = Math.max(error, this.bend(x, middle, end) / this.coarse);
    return { x: end, state: stateEnd, slope: slopeEnd, error };
  }

  /** How far recorded nets bend within a step, as a share of what is allowed, in the measure of a third-order error. */
  private bend(start: Float64Array, middle: Float64Array, end: Float64Array): number {
    let most = 0;
    for (const r of this.recorded) {
      const [a, m, b] = [start[r.unknown]!, middle[r.unknown]!, end[r.unknown]!];
      const swing = Math.max(r.high, a, m, b) - Math.min(r.low, a, m, b);
      most = Math.max(most, Math.abs(m - a - GAMMA * (b - a)) / (BEND * swing + FLOOR_BEND));
    }
    // A bend goes with the square of the step.
    return most ** 1.5;
  }
}

interface Accepted {
  readonly x: Float64Array;
  readonly state: Float64Array;
  readonly slope: Float64Array;
  /** Local error as a share of what is allowed. */
  readonly error: number;
}

/** Holds a net at its start value against anything a kit can drive it with. */
const HOLD_OHMS = 1e-4;
