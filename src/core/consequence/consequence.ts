import { type Circuit, removeParts, UnsolvableError, withoutLimits, withValue } from '../circuit';
import {
  atRest,
  FaultSampler,
  fromScale,
  inMotion,
  MODEL_SPREADS,
  NOMINAL_SPECIMEN,
  OVER,
  type Problem,
  readRunning,
  type Scene,
  type StageObservable,
  type StageScene,
  isObservable,
} from '../specimen';
import { applyFault, type Board, type Fault, HEALTHY } from '../fault';
import type { ObserveCheck, Ref, Stage } from '../kit';
import {
  boardOf,
  circuitOf,
  type ComputedWindow,
  computedWindow,
  controlOf,
  elementOf,
  elementsOf,
  sceneOf,
  type Setup,
  showsSign,
  type Windows,
} from '../stage';
import { type Overload, overloads, powerOf, switchOnOverloads } from './stress';

/** Values supposed in place of what the board has, by ref, SI; for a control its position 0..1. */
export type Supposed = Readonly<Record<Ref, number>>;

/** Something supposed of the board: other values, parts taken out, and at most one fault (two exchanged, one turned). */
export interface Supposition {
  readonly values?: Supposed;
  readonly removed?: readonly Ref[];
  readonly fault?: Fault;
}

/** Readings of one check as a value goes through a range, in the order of the values; null where there is no solution. */
export interface Swept {
  readonly observable: string;
  readonly stage: string;
  readonly mode: StageObservable['mode'];
  readonly readings: readonly (number | 'over' | null)[];
}

/** Running signals take a run in time each; what is tried on every part leaves them out. */
type Signals = 'all' | 'resting';

/** One check before and after. Readings in the unit of the mode; `over` is over-range. */
export interface Shift {
  readonly observable: string;
  readonly stage: string;
  readonly mode: StageObservable['mode'];
  readonly before: number | 'over';
  readonly after: number | 'over';
  /** Change relative to the reading before; Infinity when one of the two is over-range. */
  readonly share: number;
  readonly leaves: boolean;
  /** How far it goes from the middle of its window towards the edge, 1 at the edge; null without a window. */
  readonly used: number | null;
}

/** An observation that comes out otherwise. */
export interface Flip {
  readonly stage: string;
  readonly check: string;
  readonly title: string;
}

/** What a supposition does to the checks of every stage. */
export interface Consequence {
  readonly shifts: readonly Shift[];
  readonly flips: readonly Flip[];
  readonly overloads: readonly (Overload & { readonly stage: string })[];
  /** Stages that could not be solved with these values, with the reason. */
  readonly unsolved: readonly { readonly stage: string; readonly why: string }[];
}

/** Readings of one stage on the nominal board under a supposition; null where it has no solution. */
interface StageResult {
  readonly stage: Stage;
  readonly observables: readonly StageObservable[];
  readonly readings: ReadonlyMap<string, number | 'over'> | null;
  readonly observed: ReadonlyMap<string, boolean>;
  readonly overloads: readonly Overload[];
  readonly why: string;
}

/** Solves the nominal board stage by stage. Keep one per setup: the values as they are are solved once. */
export class ConsequenceSolver {
  private readonly whole: Circuit;
  private readonly board: Board;
  private readonly healthy: readonly StageResult[];

  constructor(private readonly setup: Setup) {
    this.whole = circuitOf(setup.sheet);
    this.board = boardOf(setup, this.whole);
    this.healthy = this.whole.parts.length === 0 ? [] : this.solve({}, 'all');
  }

  /** What a supposition does, against the windows that a healthy board keeps. */
  of(supposition: Supposition, windows: Windows, signals: Signals = 'all'): Consequence {
    const after = this.solve(supposition, signals);
    const shifts: Shift[] = [];
    const flips: Flip[] = [];
    const over: (Overload & { stage: string })[] = [];
    const unsolved: { stage: string; why: string }[] = [];
    this.healthy.forEach((before, i) => {
      const now = after[i]!;
      if (before.readings === null) return;
      if (now.readings === null) {
        unsolved.push({ stage: before.stage.id, why: now.why });
        return;
      }
      for (const o of before.observables) {
        const [was, is] = [before.readings.get(o.id), now.readings.get(o.id)];
        if (was !== undefined && is !== undefined) shifts.push(shiftOf(o, before.stage.id, was, is, computedWindow(windows[o.id])));
      }
      for (const check of observations(before.stage))
        if (before.observed.get(check.id) === true && now.observed.get(check.id) === false)
          flips.push({ stage: before.stage.id, check: check.id, title: check.title });
      for (const o of now.overloads) if (!before.overloads.some((b) => b.ref === o.ref && b.what === o.what)) over.push({ ...o, stage: before.stage.id });
    });
    return { shifts, flips, overloads: over, unsolved };
  }

  /** What every check reads as one value goes through a range: only checks that move. Null where a stage has no solution. */
  sweep(ref: Ref, values: readonly number[]): Swept[] {
    const runs = values.map((v) => this.solve({ values: { [ref]: v } }, 'all'));
    return this.healthy.flatMap(({ stage, observables }, i) =>
      observables.flatMap((o): Swept[] => {
        const readings = runs.map((run) => run[i]!.readings?.get(o.id) ?? null);
        const numbers = readings.filter((r): r is number => typeof r === 'number');
        const span = Math.max(...numbers) - Math.min(...numbers);
        const moves = new Set(readings.map((r) => typeof r)).size > 1 || span > MOVES * Math.max(5 * SMALLEST[o.mode], ...numbers.map(Math.abs));
        return moves ? [{ observable: o.id, stage: stage.id, mode: o.mode, readings }] : [];
      }),
    );
  }

  /** Refs of the board whose value can be supposed. */
  get refs(): Ref[] {
    return this.board.parts.filter((p) => p.value !== null && p.kind !== 'supply' && p.kind !== 'capacitor' && p.kind !== 'electrolytic').map((p) => p.ref);
  }

  /** Nominal value of a ref, SI; null when it has none. */
  nominal(ref: Ref): number | null {
    return this.board.parts.find((p) => p.ref === ref)?.value ?? null;
  }

  /** Greatest power that a resistor burns at any powered stage with these values, watts. */
  power(supposed: Supposed, ref: Ref): number {
    return Math.max(
      0,
      ...this.setup.sheet.stages
        .filter((s) => s.supplies.length > 0)
        .map((stage) => powerOf(this.setup, this.supposedScene(stage, { values: supposed }).circuit, ref)),
    );
  }

  /** Parts beyond their rating with the values as they are, stage by stage. */
  get overloads(): (Overload & { readonly stage: string })[] {
    return this.healthy.flatMap((r) => [...r.overloads, ...this.atSwitchOn(r)].map((o) => ({ ...o, stage: r.stage.id })));
  }

  private atSwitchOn({ stage, readings }: StageResult): Overload[] {
    if (stage.supplies.length === 0 || readings === null) return [];
    try {
      return switchOnOverloads(
        this.setup,
        this.supposedScene(stage, {}).circuit,
        stage.supplies.map((s) => s.source),
      );
    } catch (error) {
      if (error instanceof UnsolvableError) return [];
      throw error;
    }
  }

  private solve(supposition: Supposition, signals: Signals): StageResult[] {
    const { values = {} } = supposition;
    const board: Board = {
      ...this.board,
      // A control's value is a position: its halves are set in the circuit, its track stays what it is.
      parts: this.board.parts.map((p) =>
        values[p.ref] === undefined || p.elements ? p : { ...p, value: values[p.ref]!, measured: { value: values[p.ref]!, standard: 0 } },
      ),
    };
    return this.setup.sheet.stages.map((stage) => this.solveStage(stage, board, supposition, signals));
  }

  private solveStage(stage: Stage, board: Board, supposition: Supposition, signals: Signals): StageResult {
    const { fault = HEALTHY } = supposition;
    const scene = this.supposedScene(stage, supposition);
    const empty = { stage, observables: scene.observables, observed: new Map<string, boolean>(), overloads: [] };
    try {
      const { circuit } = applyFault(scene.circuit, board, fault);
      const resting = this.readResting(atRest(scene), board, fault);
      const running = signals === 'all' ? this.readMotion(scene, circuit, board, fault) : [];
      if (!resting || !running) return { ...empty, readings: null, why: 'no steady state was found' };
      const observed = new Map(observations(stage).map((c) => [c.id, showsSign(this.setup.sheet, circuit, c)]));
      const over = signals === 'all' && stage.supplies.length > 0 ? overloads(this.setup, circuit) : [];
      return { ...empty, readings: new Map([...resting, ...running]), observed, overloads: over, why: '' };
    } catch (error) {
      if (!(error instanceof UnsolvableError)) throw error;
      return { ...empty, readings: null, why: error.message };
    }
  }

  /** What an operating point tells of a scene, parts in the middle of their ranges; null without a solution. */
  private readResting(resting: Scene, board: Board, fault: Fault): (readonly [string, number | 'over'])[] | null {
    if (resting.observables.length === 0) return [];
    const problem: Problem = { board, scenes: [resting], meter: this.setup.meter };
    const sample = new FaultSampler(problem, [fault], new Map(), null).draw(NOMINAL_SPECIMEN, 1, MODEL_SPREADS[0]!);
    if (sample.rows === 0) return null;
    return resting.observables.map((o, k) => {
      const value = fromScale(o.mode, sample.values[k]!);
      return [o.id, value >= OVER[o.mode] * 0.999 ? 'over' : value];
    });
  }

  /**
   * Averages and frequencies of a circuit that runs, parts as they stand in the deck; 0 Hz where nothing swings. A board that
   * has stalled is read at its operating point. Null when it does not settle.
   */
  private readMotion(scene: StageScene, faulty: Circuit, board: Board, fault: Fault): (readonly [string, number | 'over'])[] | null {
    const observables = inMotion(scene);
    if (observables.length === 0) return [];
    const { readings, steady, stalled } = readRunning(faulty, observables);
    if (stalled) {
      const still = observables.filter(isObservable);
      const resting = this.readResting({ circuit: scene.circuit, observables: still }, board, fault);
      return resting && [...resting, ...observables.flatMap((o) => (isObservable(o) ? [] : [[o.id, 0] as const]))];
    }
    return steady ? [...readings].map(([id, value]) => [id, value ?? 0]) : null;
  }

  /** A stage with supposed values in place and supposed parts out. */
  private supposedScene(stage: Stage, { values = {}, removed = [] }: Supposition): StageScene {
    const { sheet } = this.setup;
    const staged = sceneOf(this.setup, this.whole, stage);
    // What would burn is to be told: the limit of a first try protects nothing later.
    const scene = { ...staged, circuit: withoutLimits(staged.circuit) };
    const wanted = new Map<string, number>();
    for (const [ref, value] of Object.entries(values)) {
      const control = controlOf(sheet, scene.circuit, ref);
      const element = elementOf(sheet, scene.circuit, ref);
      if (control) for (const [half, ohms] of control.at(value)) wanted.set(half, ohms);
      else if (element !== null) wanted.set(element, value);
    }
    const parts = scene.circuit.parts.map((p) =>
      wanted.has(p.name) && (p.kind === 'R' || p.kind === 'L' || p.kind === 'C' || p.kind === 'V') ? withValue(p, wanted.get(p.name)!) : p,
    );
    const gone = removed.flatMap((ref) => elementsOf(sheet, scene.circuit, ref));
    return { ...scene, circuit: removeParts({ ...scene.circuit, parts }, gone) };
  }
}

const observations = (stage: Stage) => stage.checks.filter((c): c is ObserveCheck => c.what === 'observe' && c.sign !== undefined);

function shiftOf(o: StageObservable, stage: string, before: number | 'over', after: number | 'over', window: ComputedWindow | null): Shift {
  const share =
    before === after ? 0 : before === 'over' || after === 'over' ? Infinity : Math.abs(after - before) / Math.max(Math.abs(before), SMALLEST[o.mode]);
  const leaves = window !== null && (after === 'over' ? !window.over : window.over || after < window.low || after > window.high);
  return { observable: o.id, stage, mode: o.mode, before, after, share, leaves, used: usedOf(after, window) };
}

function usedOf(after: number | 'over', window: ComputedWindow | null): number | null {
  if (!window || window.over || after === 'over') return null;
  return after >= window.middle ? (after - window.middle) / (window.high - window.middle) : (window.middle - after) / (window.middle - window.low);
}

/** Readings below these are compared with these: a share of nearly nothing says nothing. Volts, amperes, ohms, hertz, percent. */
const SMALLEST: Readonly<Record<StageObservable['mode'], number>> = {
  dcv: 0.1,
  dca: 1e-3,
  ohms: 1,
  diode: 0.1,
  frequency: 0.1,
  acv: 0.1,
  duty: 1,
  vmin: 0.1,
  vmax: 0.1,
};
/** A swept check counts as moving from this share on, of its reading or of five times what is nearly nothing. */
const MOVES = 0.01;

/** Deviation tried on every part to learn what matters. */
const TRIED_SHARE = 0.1;

/**
 * How much each part matters: by how many half-widths of its window the most sensitive check moves when the part is 10 % off.
 */
export function influences(solver: ConsequenceSolver, windows: Windows): Record<Ref, number> {
  const found: Record<Ref, number> = {};
  for (const ref of solver.refs) {
    const nominal = solver.nominal(ref);
    if (nominal === null) continue;
    const { shifts, flips, unsolved } = solver.of({ values: { [ref]: nominal * (1 + TRIED_SHARE) } }, windows, 'resting');
    const moves = shifts.map((s) => {
      const window = computedWindow(windows[s.observable]);
      if (!window || s.before === 'over' || s.after === 'over' || !Number.isFinite(window.high)) return s.share > 0 ? 1 : 0;
      return Math.abs(s.after - s.before) / Math.max((window.high - window.low) / 2, 1e-9);
    });
    found[ref] = Math.max(0, ...moves) + (flips.length + unsolved.length > 0 ? 1 : 0);
  }
  return found;
}
