import { UnsolvableError } from '../circuit/operatingPoint';
import { type Circuit } from '../circuit/netlist';
import { FaultSampler } from '../diagnose/predict';
import { atRest, MODEL_SPREADS, type Observable, type Problem } from '../diagnose/problem';
import { fromScale, OVER } from '../diagnose/scale';
import { NOMINAL_SPECIMEN } from '../diagnose/specimen';
import { type Board } from '../fault/board';
import { HEALTHY } from '../fault/fault';
import { deriveBoardState, type KitDocument, meterOf, type ObserveCheck, type Ref, type Stage } from '../kit';
import { showsSign } from '../stage/observe';
import { boardOf, circuitAt, circuitOf, elementOf, sceneOf } from '../stage/scene';
import { type ComputedWindow } from '../stage/windows';
import { withValue } from '../circuit/edit';
import { type Overload, overloads, powerOf } from './stress';

/** Values supposed in place of what the board has, by ref, SI. */
export type Supposed = Readonly<Record<Ref, number>>;

/** One check before and after. Readings in the unit of the mode; `over` is over-range. */
export interface Shift {
  readonly observable: string;
  readonly stage: string;
  readonly mode: Observable['mode'];
  readonly before: number | 'over';
  readonly after: number | 'over';
  /** Change relative to the reading before; Infinity when one of the two is over-range. */
  readonly share: number;
  readonly leaves: boolean;
}

/** An observation that comes out otherwise. */
export interface Flip {
  readonly stage: string;
  readonly check: string;
  readonly title: string;
}

/** What supposed values do to the checks of every stage. */
export interface Consequence {
  readonly supposed: Supposed;
  readonly shifts: readonly Shift[];
  readonly flips: readonly Flip[];
  readonly overloads: readonly (Overload & { readonly stage: string })[];
  /** Stages that could not be solved with these values, with the reason. */
  readonly unsolved: readonly { readonly stage: string; readonly why: string }[];
}

/** Readings of one stage on the nominal board with supposed values; null where it has no solution. */
interface StageResult {
  readonly stage: Stage;
  readonly observables: readonly Observable[];
  readonly readings: readonly (number | 'over')[] | null;
  readonly observed: ReadonlyMap<string, boolean>;
  readonly overloads: readonly Overload[];
  readonly why: string;
}

/** Solves the nominal board stage by stage. Keep one per document: the values as they are are solved once. */
export class ConsequenceSolver {
  private readonly whole: Circuit;
  private readonly board: Board;
  private readonly state;
  private readonly healthy: readonly StageResult[];

  constructor(private readonly doc: KitDocument) {
    this.whole = circuitOf(doc.sheet);
    this.board = boardOf(doc, this.whole);
    this.state = deriveBoardState(doc);
    this.healthy = this.whole.parts.length === 0 ? [] : this.solve({});
  }

  /** What these values do, against the windows that a healthy board keeps. */
  of(supposed: Supposed, windows: Readonly<Record<string, ComputedWindow | null>>): Consequence {
    const after = this.solve(supposed);
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
      before.observables.forEach((o, k) => {
        shifts.push(shiftOf(o, before.stage.id, before.readings![k]!, now.readings![k]!, windows[o.id] ?? null));
      });
      for (const check of observations(before.stage))
        if (before.observed.get(check.id) === true && now.observed.get(check.id) === false)
          flips.push({ stage: before.stage.id, check: check.id, title: check.title });
      for (const o of now.overloads) if (!before.overloads.some((b) => b.ref === o.ref && b.what === o.what)) over.push({ ...o, stage: before.stage.id });
    });
    return { supposed, shifts, flips, overloads: over, unsolved };
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
      ...this.doc.sheet.stages
        .filter((s) => s.supplies.length > 0)
        .map((stage) => powerOf(this.doc, this.withSupposed(circuitAt(this.doc, this.whole, stage, this.state), supposed), ref)),
    );
  }

  /** Parts beyond their rating with the values as they are, stage by stage. */
  get overloads(): (Overload & { readonly stage: string })[] {
    return this.healthy.flatMap((r) => r.overloads.map((o) => ({ ...o, stage: r.stage.id })));
  }

  private solve(supposed: Supposed): StageResult[] {
    const board: Board = {
      ...this.board,
      parts: this.board.parts.map((p) =>
        supposed[p.ref] === undefined ? p : { ...p, value: supposed[p.ref]!, measured: { value: supposed[p.ref]!, standard: 0 } },
      ),
    };
    return this.doc.sheet.stages.map((stage) => this.solveStage(stage, board, supposed));
  }

  private solveStage(stage: Stage, board: Board, supposed: Supposed): StageResult {
    const scene = atRest(sceneOf(this.doc, this.whole, stage, this.state));
    const problem: Problem = { board, scenes: [scene], meter: meterOf(this.doc) };
    const empty = { stage, observables: scene.observables, observed: new Map<string, boolean>(), overloads: [] };
    try {
      const sample = new FaultSampler(problem, HEALTHY, new Map(), null).draw(NOMINAL_SPECIMEN, 1, MODEL_SPREADS[0]!);
      if (sample.rows === 0) return { ...empty, readings: null, why: 'no steady state was found' };
      const readings = scene.observables.map((o, k) => {
        const value = fromScale(o.mode, sample.values[k]!);
        return value >= OVER[o.mode] * 0.999 ? ('over' as const) : value;
      });
      const circuit = this.withSupposed(circuitAt(this.doc, this.whole, stage, this.state), supposed);
      const powered = stage.supplies.length > 0;
      const observed = new Map(observations(stage).map((c) => [c.id, showsSign(this.doc.sheet, circuit, c)]));
      return { ...empty, readings, observed, overloads: powered ? overloads(this.doc, circuit) : [], why: '' };
    } catch (error) {
      if (!(error instanceof UnsolvableError)) throw error;
      return { ...empty, readings: null, why: error.message };
    }
  }

  private withSupposed(circuit: Circuit, supposed: Supposed): Circuit {
    const values = new Map(Object.entries(supposed).flatMap(([ref, v]) => [[elementOf(this.doc.sheet, circuit, ref), v] as const]));
    return {
      ...circuit,
      parts: circuit.parts.map((p) =>
        values.has(p.name) && (p.kind === 'R' || p.kind === 'L' || p.kind === 'C' || p.kind === 'V') ? withValue(p, values.get(p.name)!) : p,
      ),
    };
  }
}

const observations = (stage: Stage) => stage.checks.filter((c): c is ObserveCheck => c.what === 'observe' && c.sign !== undefined);

function shiftOf(o: Observable, stage: string, before: number | 'over', after: number | 'over', window: ComputedWindow | null): Shift {
  const share =
    before === after ? 0 : before === 'over' || after === 'over' ? Infinity : Math.abs(after - before) / Math.max(Math.abs(before), SMALLEST[o.mode]);
  const leaves = window !== null && (after === 'over' ? !window.over : window.over || after < window.low || after > window.high);
  return { observable: o.id, stage, mode: o.mode, before, after, share, leaves };
}

/** Readings below these are compared with these: a share of nearly nothing says nothing. Volts, amperes, ohms. */
const SMALLEST: Readonly<Record<Observable['mode'], number>> = { dcv: 0.1, dca: 1e-3, ohms: 1, diode: 0.1 };

/** Deviation tried on every part to learn what matters. */
const TRIED_SHARE = 0.1;

/**
 * How much each part matters: by how many half-widths of its window the most sensitive check moves when the part is 10 % off.
 */
export function influences(solver: ConsequenceSolver, windows: Readonly<Record<string, ComputedWindow | null>>): Record<Ref, number> {
  const found: Record<Ref, number> = {};
  for (const ref of solver.refs) {
    const nominal = solver.nominal(ref);
    if (nominal === null) continue;
    const { shifts, flips, unsolved } = solver.of({ [ref]: nominal * (1 + TRIED_SHARE) }, windows);
    const moves = shifts.map((s) => {
      const window = windows[s.observable];
      if (!window || s.before === 'over' || s.after === 'over' || !Number.isFinite(window.high)) return s.share > 0 ? 1 : 0;
      return Math.abs(s.after - s.before) / Math.max((window.high - window.low) / 2, 1e-9);
    });
    found[ref] = Math.max(0, ...moves) + (flips.length + unsolved.length > 0 ? 1 : 0);
  }
  return found;
}
