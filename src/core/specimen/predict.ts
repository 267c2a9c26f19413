import { type Circuit, drivenReading, meterCircuit, type MeterDrive, Newton, type OrderCache, type ProbePair, type Solution, System } from '../circuit';
import { applyFault, betweenStates, type Board, carryOver, type Fault, type FaultLayout, FaultLayouts, type FaultyCircuit, HEALTHY } from '../fault';
import { type MeterProfile } from '../meter';
import { MODEL_SPREADS, type ModelSpread, type Observable, type Problem, type RunningObservable, type Scene } from './problem';
import { OVER, toScale } from './scale';
import { FaultyMotion } from './motion';
import { NOMINAL_SPECIMEN, type Specimen, specimenOf, specimenSteps } from './specimen';

/** Above this source resistance, in ohms, the meter changes a non-linear board too much for the linear formula. */
const LOADING_RESOLVE = 1.5e6;
/** Two starts whose solutions differ by more than this, in volts, show a board with two states. */
const TWO_STATES = 0.02;
const MOST_STATES = 4;

/** Readings of many specimens with one fault: `rows` × observables, row-major, on the comparison scale. */
export interface Sample {
  readonly rows: number;
  readonly width: number;
  readonly values: Float64Array;
}

type Steps = ReturnType<typeof specimenSteps>;

/** The healthy board laid out for its faults, and how a specimen is put into each layout. */
interface Layouts {
  readonly circuit: Circuit;
  readonly faults: FaultLayouts;
  readonly stepsOf: (layout: FaultLayout) => Steps;
}

/** A circuit ready to be solved for many specimens with one fault in it: on a layout of its own, or borrowed. */
interface Rig extends FaultLayout {
  put: (specimen: Specimen, spread: ModelSpread) => void;
  /** Gives a borrowed layout back as it was. */
  done: () => void;
}

function layOut(circuit: Circuit, board: Board, probes: readonly ProbePair[], orders: OrderCache): Layouts {
  const known = new Map<FaultLayout, Steps>();
  const stepsOf = (layout: FaultLayout) => {
    const steps = known.get(layout) ?? specimenSteps(layout.system, circuit, board, HEALTHY, new Map());
    known.set(layout, steps);
    return steps;
  };
  return { circuit, faults: new FaultLayouts(circuit, board, probes, orders), stepsOf };
}

/** The rig for a fault: a borrowed layout with other values where they are enough, else a layout of its own. */
function rigFor(
  layouts: Layouts | null,
  faulty: Circuit,
  problem: Problem,
  fault: Fault,
  faultyCircuit: FaultyCircuit,
  probes: readonly ProbePair[],
  orders: OrderCache,
): Rig {
  const borrowed = layouts?.faults.borrow(fault, faulty);
  if (layouts && borrowed) {
    const { change, layout } = borrowed;
    const places = new Set([
      ...change.parts,
      ...[...faultyCircuit.pieceAt.keys()].map((ref) => problem.board.parts.find((p) => p.ref === ref)?.element ?? ref),
    ]);
    const healthy = layouts.stepsOf(layout);
    const own = specimenSteps(layout.system, faulty, problem.board, fault, faultyCircuit.pieceAt, places);
    return {
      ...layout,
      put: (specimen, spread) => {
        change.leave();
        for (const step of healthy) step(specimen, spread);
        change.enter();
        for (const step of own) step(specimen, spread);
      },
      done: change.leave,
    };
  }
  const system = new System(faulty, { probes, orders });
  const steps = specimenSteps(system, faulty, problem.board, fault, faultyCircuit.pieceAt);
  return {
    system,
    newton: new Newton(system, 'sample'),
    linked: new Map(),
    toGround: new Map(),
    put: (specimen, spread) => {
      for (const step of steps) step(specimen, spread);
    },
    done: () => undefined,
  };
}

/** Layouts of the healthy board, one per scene and driven observable. */
interface SceneLayouts {
  readonly main: Layouts;
  readonly driven: ReadonlyMap<string, Layouts>;
}

/** A compiled scene with one fault in it, ready to be solved for many specimens. */
class FaultyScene {
  private readonly volts: { index: number; observable: Extract<Observable, { mode: 'dcv' }>; probe: number }[] = [];
  private readonly amperes: { index: number; branch: number }[] = [];
  private readonly driven: { index: number; drive: MeterDrive; rig: Rig; start: Float64Array | null }[] = [];
  private readonly rig: Rig;
  private readonly system: System;
  private readonly newton: Newton;
  private readonly starts: Float64Array[] = [];

  constructor(
    scene: Scene,
    private readonly faulty: FaultyCircuit,
    private readonly problem: Problem,
    private readonly fault: Fault,
    private readonly layouts: SceneLayouts | null,
    orders: OrderCache,
    offset: number,
  ) {
    const probes = probesOf(scene);
    scene.observables.forEach((o, i) => {
      if (o.mode === 'dcv') this.volts.push({ index: offset + i, observable: o, probe: this.volts.length });
    });
    this.rig = rigFor(layouts?.main ?? null, faulty.circuit, problem, fault, faulty, probes, orders);
    this.system = this.rig.system;
    this.newton = this.rig.newton;
    scene.observables.forEach((o, i) => {
      if (o.mode === 'dca') this.amperes.push({ index: offset + i, branch: this.system.branchOf(o.source) ?? -1 });
      if (o.mode === 'ohms' || o.mode === 'diode') this.addDriven(o, offset + i, orders);
    });
    if (this.volts.length + this.amperes.length > 0) this.findStarts();
  }

  private addDriven(o: Extract<Observable, { mode: 'ohms' | 'diode' }>, index: number, orders: OrderCache): void {
    const drive = driveOf(o, this.problem.meter);
    const circuit = meterCircuit(this.faulty.circuit, drive, 'unplugged');
    const rig = rigFor(this.layouts?.driven.get(o.id) ?? null, circuit, this.problem, this.fault, this.faulty, [], orders);
    this.driven.push({ index, drive, rig, start: null });
  }

  /** Solves the nominal board from nothing; a latching one also from the first specimen's neighbourhood. */
  private findStarts(): void {
    this.rig.put(specimenOf(this.problem.board, NOMINAL_SPECIMEN + 1), MODEL_SPREADS[0]!);
    const cold = this.newton.solve(null);
    if (cold.converged) this.starts.push(cold.x);
    this.rig.done();
  }

  /** A further start from the solution of another board, kept when it leads elsewhere. */
  alsoFrom(other: FaultyScene): void {
    const from = other.starts[0];
    if (!from) return;
    const start = this.system === other.system ? from : carryOver(from, other.system, this.system, this.rig.linked);
    this.rig.put(specimenOf(this.problem.board, NOMINAL_SPECIMEN + 1), MODEL_SPREADS[0]!);
    this.keep(this.newton.solve(start));
    const [one, two] = this.starts;
    const between = one && two && betweenStates(this.rig, one, two);
    if (between) this.keep(between);
    this.rig.done();
  }

  /** Keeps a solution as a start unless it is one already. */
  private keep({ converged, x }: Solution): boolean {
    const isNew = converged && !this.starts.some((s) => s.every((v, i) => i >= this.system.nodeCount || Math.abs(v - x[i]!) < TWO_STATES));
    if (isNew) this.starts.push(x);
    return isNew;
  }

  /** Writes one specimen's readings into `row`; false when it could not be solved. */
  read(specimen: Specimen, spread: ModelSpread, state: number, row: Float64Array): boolean {
    return this.readPowered(specimen, spread, state, row) && this.driven.every((d) => this.readDriven(d, specimen, spread, row));
  }

  /** How many steady states were found: two on a board that latches. */
  get states(): number {
    return Math.max(1, this.starts.length);
  }

  private readPowered(specimen: Specimen, spread: ModelSpread, state: number, row: Float64Array): boolean {
    if (this.volts.length + this.amperes.length === 0) return true;
    this.rig.put(specimen, spread);
    const solution = this.newton.solve(this.starts[state] ?? null);
    if (solution.converged) {
      for (const a of this.amperes) row[a.index] = toScale('dca', a.branch < 0 ? 0 : -solution.x[a.branch]!);
      for (const v of this.volts) row[v.index] = toScale('dcv', this.loadedVolts(v.observable, v.probe, solution.x));
    }
    this.rig.done();
    return solution.converged;
  }

  private readDriven(d: (typeof this.driven)[number], specimen: Specimen, spread: ModelSpread, row: Float64Array): boolean {
    d.rig.put(specimen, spread);
    const solution = d.rig.newton.solve(d.start);
    if (solution.converged) {
      d.start = solution.x;
      const reading = drivenReading(d.rig.system, solution.x, d.drive);
      row[d.index] = toScale(d.drive.type, reading === 'over' ? OVER[d.drive.type] : reading);
    }
    d.rig.done();
    return solution.converged;
  }

  /** Volts between two points with the meter connected: Thevenin at the probes, or solved anew where that is too coarse. */
  private loadedVolts(o: { red: string; black: string }, probe: number, x: Float64Array): number {
    const red = this.system.unknownOf(o.red);
    const black = this.system.unknownOf(o.black);
    const open = x[red]! - x[black]!;
    const resistance = this.system.lu.resistance(red, black);
    const meter = this.problem.meter.inputResistance;
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

const probesOf = (scene: Scene): ProbePair[] => scene.observables.flatMap((o) => (o.mode === 'dcv' ? [{ red: o.red, black: o.black }] : []));

function layoutsOf(scene: Scene, problem: Problem, orders: OrderCache): SceneLayouts {
  const { board, meter } = problem;
  const driven = scene.observables.flatMap((o) =>
    o.mode === 'ohms' || o.mode === 'diode' ? [[o.id, layOut(meterCircuit(scene.circuit, driveOf(o, meter), 'unplugged'), board, [], orders)] as const] : [],
  );
  return { main: layOut(scene.circuit, board, probesOf(scene), orders), driven: new Map(driven) };
}

function driveOf(o: { mode: 'ohms' | 'diode'; red: string; black: string }, meter: MeterProfile): MeterDrive {
  const { red, black } = o;
  return o.mode === 'ohms'
    ? { type: 'ohms', red, black, testVoltage: meter.ohmsVoltage, testResistance: meter.ohmsSource }
    : { type: 'diode', red, black, testCurrent: meter.diodeCurrent, compliance: meter.diodeCompliance };
}

/** What specimens of a circuit that should run read where a fault has stalled it: at the operating point, with the meter connected. */
function readStalled(circuit: Circuit, motion: readonly RunningObservable[], problem: Problem, fault: Fault, orders: OrderCache) {
  const observables = motion.filter((o): o is Extract<Observable, RunningObservable> => o.mode !== 'frequency');
  let sampler: FaultSampler | null = null;
  return (specimen: number): ReadonlyMap<string, number> | null => {
    sampler ??= new FaultSampler({ ...problem, scenes: [{ circuit, observables }] }, fault, orders, null);
    const { rows, values } = sampler.draw(specimen, 1, MODEL_SPREADS[1]!);
    return rows === 0 ? null : new Map(observables.map((o, i) => [o.id, values[i]!]));
  };
}

/** All scenes of a problem with one fault, and the samples drawn from them so far. */
export class FaultSampler {
  /** Null where the fault changes nothing: such a scene reads like the healthy board's. */
  private readonly scenes: (FaultyScene | null)[];
  /** What runs in time, scene by scene; null where nothing does. */
  readonly motions: readonly (FaultyMotion | null)[];
  private readonly width: number;
  private readonly rows = new Map<string, Float64Array | null>();
  /** Layouts that the faults of this healthy board borrow. */
  private readonly layouts: readonly SceneLayouts[];

  constructor(
    private readonly problem: Problem,
    fault: Fault,
    orders: OrderCache,
    private readonly healthy: FaultSampler | null,
  ) {
    let offset = 0;
    this.layouts = healthy ? healthy.layouts : fault.kind === 'healthy' ? problem.scenes.map((scene) => layoutsOf(scene, problem, orders)) : [];
    const motions: (FaultyMotion | null)[] = [];
    this.scenes = problem.scenes.map((scene, i) => {
      const from = offset;
      const motion = scene.motion ?? [];
      offset += scene.observables.length + motion.length;
      const stalled = readStalled(scene.circuit, motion, problem, fault, orders);
      motions.push(
        motion.length === 0
          ? null
          : new FaultyMotion(scene.circuit, motion, problem.board, fault, from + scene.observables.length, healthy?.motions[i] ?? null, stalled),
      );
      const faulty = applyFault(scene.circuit, problem.board, fault);
      if (healthy && faulty.circuit === scene.circuit) return null;
      const compiled = new FaultyScene(scene, faulty, problem, fault, this.layouts[i] ?? null, orders, from);
      const other = healthy?.scenes[i];
      if (other) compiled.alsoFrom(other);
      return compiled;
    });
    this.motions = motions;
    this.width = offset;
  }

  /** Combinations of the scenes' steady states, at most `MOST_STATES`. Each is drawn by itself: a mixture of two is neither. */
  get states(): number {
    return Math.min(
      MOST_STATES,
      this.scenes.reduce((n, scene) => n * (scene?.states ?? 1), 1),
    );
  }

  /** Readings of `count` specimens in one combination of states, from number `first` on. Specimens that have no solution are left out. */
  draw(first: number, count: number, spread: ModelSpread, state = 0): Sample {
    const values = new Float64Array(count * this.width);
    let rows = 0;
    for (let s = first; s < first + count; s++) {
      const row = this.specimenRow(s, spread, state);
      if (!row) continue;
      values.set(row, rows * this.width);
      rows++;
    }
    return { rows, width: this.width, values: values.subarray(0, rows * this.width) };
  }

  /** Readings of one specimen; null when it has no solution. The healthy board's are kept for the faults that share them. */
  private specimenRow(number: number, spread: ModelSpread, state: number): Float64Array | null {
    if (this.healthy) return this.solveRow(number, spread, state);
    const key = `${spread.id}/${number}`;
    const known = this.rows.get(key);
    if (known !== undefined) return known;
    const row = this.solveRow(number, spread, state);
    this.rows.set(key, row);
    return row;
  }

  private solveRow(number: number, spread: ModelSpread, state: number): Float64Array | null {
    const shared = this.healthy && this.scenes.includes(null) ? this.healthy.specimenRow(number, spread, 0) : null;
    const row = shared?.slice() ?? new Float64Array(this.width);
    const specimen = specimenOf(this.problem.board, number + 1);
    let rest = state;
    if (!this.motions.every((m) => m === null || m.read(number, row))) return null;
    return this.scenes.every((scene) => {
      if (scene === null) return shared !== null;
      const own = rest % scene.states;
      rest = Math.floor(rest / scene.states);
      return scene.read(specimen, spread, own, row);
    })
      ? row
      : null;
  }
}
