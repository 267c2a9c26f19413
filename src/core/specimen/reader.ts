import { type Circuit, drivenReading, driveSetter, meterCircuit, type MeterDrive, Newton, type ProbePair, type Solution, type System } from '../circuit';
import type { MeterProfile } from '../meter';
import { type ColdTest, driveIn, OHMS_RANGES } from './coldTest';
import type { Observable, Scene } from './problem';
import { OVER, toScale } from './scale';

/** Above this source resistance, in ohms, the meter changes a non-linear board too much for the linear formula. */
const LOADING_RESOLVE = 1.5e6;
/** Two starts whose solutions differ by more than this, in volts, show a board with two states. */
const TWO_STATES = 0.02;

/** Columns of a row where a scene's readings begin, and what is looked at. */
export interface Offsets {
  readonly readings: number;
  readonly lamps: number;
}

/** A part that is not in the circuit carries nothing. */
const NO_CURRENT = () => 0;

/** A compiled circuit that takes one specimen after another. */
export interface SolveRig<Drawn> {
  readonly system: System;
  readonly newton: Newton;
  readonly put: (drawn: Drawn) => void;
  /** Gives a borrowed layout back as it was. */
  readonly done: () => void;
}

/** Compiles a circuit; `driven` names the observable whose meter drives it, null for the board under its own power. */
export type RigMaker<Rig> = (circuit: Circuit, probes: readonly ProbePair[], driven: string | null) => Rig;

/** A scene ready to be read for many specimens: volts and currents from one solution, ohms and diode tests from one each. */
export class SceneReader<Drawn, Rig extends SolveRig<Drawn>> {
  private readonly volts: { index: number; observable: Extract<Observable, { mode: 'dcv' }>; probe: number }[] = [];
  private readonly amperes: { index: number; branch: number }[] = [];
  private readonly lamps: readonly { readonly index: number; readonly amperes: (x: Float64Array) => number }[];
  private readonly driven: Driven<Rig>[] = [];
  protected readonly rig: Rig;
  private readonly system: System;
  private readonly newton: Newton;
  /** Solutions of the nominal board: several where it latches. */
  protected readonly starts: Float64Array[] = [];

  constructor(
    scene: Scene,
    private readonly meter: MeterProfile,
    makeRig: RigMaker<Rig>,
    protected readonly nominal: Drawn,
    /** First columns of a row that are written, by what is read. */
    { readings: offset, lamps: firstLamp }: Offsets,
  ) {
    const probes = probesOf(scene);
    scene.observables.forEach((o, i) => {
      if (o.mode === 'dcv') this.volts.push({ index: offset + i, observable: o, probe: this.volts.length });
    });
    this.rig = makeRig(scene.circuit, probes, null);
    this.system = this.rig.system;
    this.newton = this.rig.newton;
    scene.observables.forEach((o, i) => {
      if (o.mode === 'dca') this.amperes.push({ index: offset + i, branch: this.system.branchOf(o.source) ?? -1 });
      if (o.mode !== 'ohms' && o.mode !== 'diode') return;
      const drive = driveOf(o, meter);
      const rig = makeRig(meterCircuit(scene.circuit, drive, scene.supplies ?? 'unplugged'), [], o.id);
      this.driven.push({ index: offset + i, drive, rig, set: driveSetter(rig.system), range: 0, start: null });
    });
    // On a board that is switched on, lamps are watched over time.
    this.lamps = (scene.run ? [] : (scene.lamps ?? [])).map((l, i) => ({ index: firstLamp + i, amperes: this.system.ammeter(l.element) ?? NO_CURRENT }));
    if (this.isPowered()) this.findStarts();
  }

  /** Whether anything is read under the board's own power. */
  private isPowered(): boolean {
    return this.volts.length + this.amperes.length + this.lamps.length > 0;
  }

  /** Solves the nominal board from nothing; a latching one also from the first specimen's neighbourhood. */
  private findStarts(): void {
    this.rig.put(this.nominal);
    const cold = this.newton.solve(null);
    if (cold.converged) this.starts.push(cold.x);
    this.rig.done();
  }

  /** Keeps a solution as a start unless it is one already. */
  protected keep({ converged, x }: Solution): boolean {
    const isNew = converged && !this.starts.some((s) => s.every((v, i) => i >= this.system.nodeCount || Math.abs(v - x[i]!) < TWO_STATES));
    if (isNew) this.starts.push(x);
    return isNew;
  }

  /** Writes one specimen's readings into `row`; false when it could not be solved. `cold`: the meter of ohms and diode tests, where it is not the scene's. */
  read(drawn: Drawn, state: number, row: Float64Array, cold: ColdTest | null = null): boolean {
    return this.readPowered(drawn, state, row) && this.driven.every((d) => this.readDriven(d, drawn, row, cold));
  }

  /** How many steady states were found: two on a board that latches. */
  get states(): number {
    return Math.max(1, this.starts.length);
  }

  private readPowered(drawn: Drawn, state: number, row: Float64Array): boolean {
    if (!this.isPowered()) return true;
    this.rig.put(drawn);
    const solution = this.newton.solve(this.starts[state] ?? null);
    if (solution.converged) {
      for (const a of this.amperes) row[a.index] = toScale('dca', a.branch < 0 ? 0 : -solution.x[a.branch]!);
      for (const l of this.lamps) row[l.index] = l.amperes(solution.x);
      for (const v of this.volts) row[v.index] = toScale('dcv', this.loadedVolts(v.observable, v.probe, solution.x));
    }
    this.rig.done();
    return solution.converged;
  }

  private readDriven(d: Driven<Rig>, drawn: Drawn, row: Float64Array, cold: ColdTest | null): boolean {
    d.rig.put(drawn);
    const reading = cold === null ? readingOf(d, d.drive) : rangedReading(d, cold);
    if (reading !== null) row[d.index] = toScale(d.drive.type, reading === 'over' ? OVER[d.drive.type] : reading);
    d.rig.done();
    return reading !== null;
  }

  /** Volts between two points with the meter connected: Thevenin at the probes, or solved anew where that is too coarse. */
  private loadedVolts(o: { red: string; black: string }, probe: number, x: Float64Array): number {
    const red = this.system.unknownOf(o.red);
    const black = this.system.unknownOf(o.black);
    const open = x[red]! - x[black]!;
    const resistance = this.system.lu.resistance(red, black);
    const meter = this.meter.inputResistance;
    if (resistance < LOADING_RESOLVE) return open / (1 + resistance / meter);
    return this.solveLoaded(probe, red, black, meter, x) ?? open / (1 + resistance / meter);
  }

  private solveLoaded(probe: number, red: number, black: number, meter: number, x: Float64Array): number | null {
    this.system.setProbe(probe, 1 / meter);
    const loaded = this.newton.solve(x);
    this.system.setProbe(probe, 0);
    // The factors of the unloaded board are wanted again for the next test point.
    this.system.linearise(x);
    return loaded.converged ? loaded.x[red]! - loaded.x[black]! : null;
  }
}

/** An ohms or diode reading, compiled; the range it was read in last, and where its solution begins. */
interface Driven<Rig> {
  readonly index: number;
  readonly drive: MeterDrive;
  readonly rig: Rig;
  readonly set: (drive: MeterDrive) => void;
  range: number;
  start: Float64Array | null;
}

/** What the meter shows as it drives now; null without a solution. */
function readingOf(d: Driven<SolveRig<never>>, drive: MeterDrive): number | 'over' | null {
  const solution = d.rig.newton.solve(d.start);
  if (!solution.converged) return null;
  d.start = solution.x;
  return drivenReading(d.rig.system, solution.x, drive);
}

/** The reading in the smallest range that holds it, looked for from the last one on. */
function rangedReading(d: Driven<SolveRig<never>>, cold: ColdTest): number | 'over' | null {
  const inRange = (range: number) => {
    const drive = driveIn(d.drive, cold, range);
    d.set(drive);
    return readingOf(d, drive);
  };
  if (d.drive.type === 'diode') return inRange(0);
  const holds = (reading: number | 'over' | null, range: number) => reading === null || (reading !== 'over' && reading <= OHMS_RANGES[range]!);
  let reading = inRange(d.range);
  if (holds(reading, d.range)) {
    while (d.range > 0) {
      const smaller = inRange(d.range - 1);
      if (!holds(smaller, d.range - 1)) break;
      d.range--;
      reading = smaller;
    }
    return reading;
  }
  while (d.range < OHMS_RANGES.length - 1) {
    d.range++;
    reading = inRange(d.range);
    if (holds(reading, d.range)) return reading;
  }
  return 'over';
}

export const probesOf = (scene: Scene): ProbePair[] => scene.observables.flatMap((o) => (o.mode === 'dcv' ? [{ red: o.red, black: o.black }] : []));

export function driveOf(o: { mode: 'ohms' | 'diode'; red: string; black: string }, meter: MeterProfile): MeterDrive {
  const { red, black } = o;
  return o.mode === 'ohms'
    ? { type: 'ohms', red, black, testVoltage: meter.ohmsVoltage, testResistance: meter.ohmsSource }
    : { type: 'diode', red, black, testCurrent: meter.diodeCurrent, compliance: meter.diodeCompliance };
}
