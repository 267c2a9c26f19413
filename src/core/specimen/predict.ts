import { type Circuit, meterCircuit, Newton, type OrderCache, type ProbePair, System } from '../circuit';
import { applyFaults, betweenStates, type Board, carryOver, type Fault, type FaultLayout, FaultLayouts, type FaultyCircuit, isShort } from '../fault';
import { isObservable, MODEL_SPREADS, observablesOf, type ModelSpread, type Problem, type RunningObservable, type Scene } from './problem';
import { coldTestOf } from './coldTest';
import { driveOf, type Offsets, probesOf, type RigMaker, SceneReader, type SolveRig } from './reader';
import { FaultyMotion } from './motion';
import { FaultySwitchedOn } from './switchedOn';
import { shortFactorOf, NOMINAL_SPECIMEN, type Specimen, specimenOf, specimenSteps, twinOf } from './specimen';

const MOST_STATES = 4;

/** Readings of many specimens with one fault: `rows` × columns, row-major, on the comparison scale; lamps in amperes. */
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
type Rig = FaultLayout & SolveRig<Drawn>;

function layOut(circuit: Circuit, board: Board, probes: readonly ProbePair[], orders: OrderCache): Layouts {
  const known = new Map<FaultLayout, Steps>();
  const stepsOf = (layout: FaultLayout) => {
    const steps = known.get(layout) ?? specimenSteps(layout.system, circuit, board, [], new Map());
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
  faults: readonly Fault[],
  faultyCircuit: FaultyCircuit,
  probes: readonly ProbePair[],
  orders: OrderCache,
): Rig {
  const borrowed = layouts?.faults.borrow(faults, faulty);
  if (layouts && borrowed) {
    const { change, layout } = borrowed;
    const places = new Set([
      ...change.parts,
      ...[...faultyCircuit.pieceAt.keys()].map((ref) => problem.board.parts.find((p) => p.ref === ref)?.element ?? ref),
    ]);
    const healthy = layouts.stepsOf(layout);
    const own = specimenSteps(layout.system, faulty, problem.board, faults, faultyCircuit.pieceAt, places);
    return {
      ...layout,
      put: ({ specimen, spread, shortFactor }) => {
        change.leave();
        for (const step of healthy) step(specimen, spread);
        change.enter(shortFactor);
        for (const step of own) step(specimen, spread);
      },
      done: change.leave,
    };
  }
  const system = new System(faulty, { probes, orders });
  const steps = specimenSteps(system, faulty, problem.board, faults, faultyCircuit.pieceAt);
  const shorts = faulty.parts.flatMap((p) => {
    const set = p.kind === 'R' && isShort(p) ? system.valueSetter(p.name) : null;
    return set && p.kind === 'R' ? [[set, p.value] as const] : [];
  });
  return {
    system,
    newton: new Newton(system, 'sample'),
    linked: new Map(),
    toGround: new Map(),
    put: ({ specimen, spread, shortFactor }) => {
      for (const step of steps) step(specimen, spread);
      for (const [set, ohms] of shorts) set(ohms * shortFactor);
    },
    done: () => undefined,
  };
}

/** Layouts of the healthy board, one per scene and driven observable. */
interface SceneLayouts {
  readonly main: Layouts;
  readonly driven: ReadonlyMap<string, Layouts>;
}

/** One specimen and the world it is drawn from. */
interface Drawn {
  readonly specimen: Specimen;
  readonly spread: ModelSpread;
  /** Factor on the ohms of solder and of what is shorted. */
  readonly shortFactor: number;
}

/** A compiled scene with its faults in it, ready to be solved for many specimens. */
class FaultyScene extends SceneReader<Drawn, Rig> {
  constructor(
    scene: Scene,
    faulty: FaultyCircuit,
    problem: Problem,
    faults: readonly Fault[],
    layouts: SceneLayouts | null,
    orders: OrderCache,
    offsets: Offsets,
  ) {
    const nominal = { specimen: specimenOf(problem.board, NOMINAL_SPECIMEN + 1), spread: MODEL_SPREADS[0]!, shortFactor: 1 };
    const rig: RigMaker<Rig> = (circuit, probes, driven) =>
      rigFor((driven === null ? layouts?.main : layouts?.driven.get(driven)) ?? null, circuit, problem, faults, faulty, probes, orders);
    super({ ...scene, circuit: faulty.circuit }, problem.meter, rig, nominal, offsets);
  }

  /** A further start from the solution of another board, kept when it leads elsewhere. */
  alsoFrom(other: FaultyScene): void {
    const from = other.starts[0];
    if (!from) return;
    const start = this.rig.system === other.rig.system ? from : carryOver(from, other.rig.system, this.rig.system, this.rig.linked);
    this.rig.put(this.nominal);
    this.keep(this.rig.newton.solve(start));
    const [one, two] = this.starts;
    const between = one && two && betweenStates(this.rig, one, two);
    if (between) this.keep(between);
    this.rig.done();
  }
}

function layoutsOf(scene: Scene, problem: Problem, orders: OrderCache): SceneLayouts {
  const { board, meter } = problem;
  const driven = scene.observables.flatMap((o) =>
    o.mode === 'ohms' || o.mode === 'diode'
      ? [[o.id, layOut(meterCircuit(scene.circuit, driveOf(o, meter), scene.supplies ?? 'unplugged'), board, [], orders)] as const]
      : [],
  );
  return { main: layOut(scene.circuit, board, probesOf(scene), orders), driven: new Map(driven) };
}

/** What specimens of a circuit that should run read where a fault has stalled it: at the operating point, with the meter connected. */
function readStalled(circuit: Circuit, motion: readonly RunningObservable[], problem: Problem, faults: readonly Fault[], orders: OrderCache) {
  const observables = motion.filter(isObservable);
  let sampler: FaultSampler | null = null;
  return (specimen: number): ReadonlyMap<string, number> | null => {
    sampler ??= new FaultSampler({ ...problem, scenes: [{ circuit, observables }] }, faults, orders, null);
    const { rows, values } = sampler.draw(specimen, 1, MODEL_SPREADS[1]!);
    return rows === 0 ? null : new Map(observables.map((o, i) => [o.id, values[i]!]));
  };
}

/** All scenes of a problem with its faults (none on the healthy board), and the samples drawn from them so far. */
export class FaultSampler {
  /** Null where the fault changes nothing: such a scene reads like the healthy board's. */
  private readonly scenes: (FaultyScene | null)[];
  /** What runs in time, scene by scene; null where nothing does. */
  readonly motions: readonly (FaultyMotion | FaultySwitchedOn | null)[];
  private readonly width: number;
  /** Only where a supply stands in its limit do the ohms of a short show. */
  private readonly limited: boolean;
  private readonly rows = new Map<string, Float64Array | null>();
  /** Layouts that the faults of this healthy board borrow. */
  private readonly layouts: readonly SceneLayouts[];

  constructor(
    private readonly problem: Problem,
    faults: readonly Fault[],
    orders: OrderCache,
    private readonly healthy: FaultSampler | null,
  ) {
    let offset = 0;
    let lamp = observablesOf(problem).length;
    this.layouts = healthy ? healthy.layouts : faults.length === 0 ? problem.scenes.map((scene) => layoutsOf(scene, problem, orders)) : [];
    const motions: (FaultyMotion | FaultySwitchedOn | null)[] = [];
    this.scenes = problem.scenes.map((scene, i) => {
      const from = offset;
      const motion = scene.motion ?? [];
      const offsets: Offsets = { readings: from, lamps: lamp };
      offset += scene.observables.length + motion.length;
      lamp += scene.lamps?.length ?? 0;
      motions.push(this.motionOf(i, { scene, motion, first: from + scene.observables.length, lamps: offsets.lamps }, faults, orders));
      const faulty = applyFaults(scene.circuit, problem.board, scene.twin ? [] : faults);
      if (healthy && faulty.circuit === scene.circuit) return null;
      const compiled = new FaultyScene(scene, faulty, problem, faults, this.layouts[i] ?? null, orders, offsets);
      const other = healthy?.scenes[i];
      if (other) compiled.alsoFrom(other);
      return compiled;
    });
    this.motions = motions;
    this.width = lamp;
    this.limited = problem.scenes.some(({ circuit }) => circuit.parts.some((p) => p.kind === 'V' && p.limit !== undefined));
  }

  /** From now on boards that are switched on are drawn with specimens of the fault itself. */
  lookCloser(): void {
    for (const m of this.motions) if (m instanceof FaultySwitchedOn) m.lookCloser();
  }

  private motionOf(
    index: number,
    { scene, motion, first, lamps }: { scene: Scene; motion: readonly RunningObservable[]; first: number; lamps: number },
    faults: readonly Fault[],
    orders: OrderCache,
  ): FaultyMotion | FaultySwitchedOn | null {
    const { problem } = this;
    const healthy = this.healthy?.motions[index] ?? null;
    if (motion.length === 0) return null;
    if (scene.run) {
      const watched = { circuit: scene.circuit, observables: motion, lamps: scene.lamps ?? [], run: scene.run };
      return new FaultySwitchedOn(watched, problem.board, faults, { readings: first, lamps }, healthy instanceof FaultySwitchedOn ? healthy : null);
    }
    const stalled = readStalled(scene.circuit, motion, problem, faults, orders);
    return new FaultyMotion(scene.circuit, motion, problem.board, faults, first, healthy instanceof FaultyMotion ? healthy : null, stalled);
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
    const shortFactor = this.limited ? shortFactorOf(number + 1) : 1;
    const cold = this.problem.meter.coldTest === 'unknown' ? coldTestOf(number + 1) : null;
    let rest = state;
    if (!this.motions.every((m) => m === null || m.read(number, row))) return null;
    return this.scenes.every((scene, i) => {
      if (scene === null) return shared !== null;
      const own = rest % scene.states;
      rest = Math.floor(rest / scene.states);
      const drawn = this.problem.scenes[i]!.twin ? twinOf(this.problem.board, number + 1) : specimen;
      return scene.read({ specimen: drawn, spread, shortFactor }, own, row, cold);
    })
      ? row
      : null;
  }
}
