import { type System } from './system';

/** Convergence: the last step must be below these, and no junction limited. */
interface StepLimits {
  readonly relative: number;
  readonly volts: number;
  readonly amperes: number;
  /** How many times these the step before may be. Newton converges quadratically: of 2 mV about 0.1 mV is left (step² / 2 VT). */
  readonly confirmable: number;
}
const EXACT: StepLimits = { relative: 1e-7, volts: 1e-7, amperes: 1e-11, confirmable: 100 };
/** For statistics over specimens. */
const SAMPLE: StepLimits = { relative: 5e-5, volts: 2e-4, amperes: 5e-9, confirmable: 10 };
const MAX_ITERATIONS = 60;
/** The same for one step of a homotopy: a step that needs more is better made smaller. */
const STEP_ITERATIONS = 20;
/** Junctions come down boldly in the first iterations; what does not settle then is led on cautiously. */
const BOLD_ITERATIONS = 12;

const largest = (values: Float64Array, count: number): number => {
  let most = 0;
  for (let i = 0; i < count; i++) most = Math.max(most, Math.abs(values[i]!));
  return most;
};

export interface Solution {
  readonly converged: boolean;
  readonly iterations: number;
  /** Largest imbalance of currents before the last, confirming step, amperes. */
  readonly residual: number;
  /** Unknown that kept moving or where the matrix was singular; null when converged. */
  readonly culprit: string | null;
  /** One value per unknown of the system, and a trailing 0 for ground. */
  readonly x: Float64Array;
}

interface Outcome {
  converged: boolean;
  iterations: number;
  culprit: number;
}

/** Reusable work space of Newton's method for one system. */
export class Newton {
  private readonly f: Float64Array;
  /** Unknown with the largest relative step in the last iteration. */
  private slowest = 0;
  /** Largest imbalance of currents before the last step of what converged, amperes. */
  private imbalance = Infinity;
  private readonly limits: StepLimits;

  constructor(
    readonly system: System,
    accuracy: 'exact' | 'sample' = 'exact',
  ) {
    this.limits = accuracy === 'exact' ? EXACT : SAMPLE;
    this.f = new Float64Array(system.size + 1);
  }

  /** A zero start vector (with the ground entry at its end). */
  zeros(): Float64Array {
    return new Float64Array(this.system.size + 1);
  }

  /**
   * DC solution from a known nearby one, or from nothing. Tries plain Newton, then gmin stepping, a damped
   * pseudo-transient (it gets past the folds of a latch) and source stepping (all textbook homotopies). The result always says whether it converged.
   */
  solve(start: Float64Array | null): Solution {
    const x = start ? start.slice() : this.zeros();
    let total = 0;
    let last: Outcome = { converged: false, iterations: 0, culprit: 0 };
    const attempt = (run: () => Outcome) => {
      if (last.converged) return;
      last = run();
      total += last.iterations;
    };
    if (start) {
      attempt(() => {
        this.system.warmStart(x);
        return this.iterate(x, 1, 0, MAX_ITERATIONS);
      });
    }
    attempt(() => this.fromCold(x, () => this.iterate(x, 1, 0, MAX_ITERATIONS)));
    attempt(() => this.fromCold(x, () => this.stepGmin(x)));
    attempt(() => this.fromCold(x, () => this.pseudoTransient(x)));
    attempt(() => this.fromCold(x, () => this.stepSources(x)));
    const culprit = last.converged ? null : (this.system.unknowns[last.culprit] ?? null);
    return { converged: last.converged, iterations: total, residual: this.imbalance, culprit, x };
  }

  private fromCold(x: Float64Array, run: () => Outcome): Outcome {
    x.fill(0);
    this.system.coldStart();
    return run();
  }

  /** Newton iterations in place. `shunt`: extra conductance to ground; `anchor`: voltages that the shunt pulls to. */
  private iterate(x: Float64Array, sources: number, shunt: number, limit: number, anchor: Float64Array | null = null): Outcome {
    const { system, f } = this;
    const { lu } = system;
    const load = (bold: boolean) => {
      const limited = system.load(x, f, sources, shunt, bold);
      if (anchor) for (let i = 0; i < system.nodeCount; i++) f[i]! -= shunt * anchor[i]!;
      return limited;
    };
    for (let iteration = 1; iteration <= limit; iteration++) {
      const limited = load(iteration <= BOLD_ITERATIONS);
      if (!lu.factor(system.matrix)) return { converged: false, iterations: iteration, culprit: lu.singularAt?.column ?? 0 };
      lu.solve(f);
      const step = this.advance(x);
      if (!(step < 1e300)) return { converged: false, iterations: iteration, culprit: this.slowest };
      if (step > this.limits.confirmable || limited) continue;
      // So near the solution the factors at hand will do for one more step.
      const stillLimited = load(false);
      this.imbalance = largest(f, system.nodeCount);
      lu.solve(f);
      if (this.advance(x) <= 1 && !stillLimited) return { converged: true, iterations: iteration, culprit: this.slowest };
    }
    return { converged: false, iterations: limit, culprit: this.slowest };
  }

  /** Takes the step in `f` and returns its size relative to what is allowed. */
  private advance(x: Float64Array): number {
    const { f, system, limits } = this;
    const { size, nodeCount } = system;
    const { relative, volts, amperes } = limits;
    let worst = 0;
    for (let i = 0; i < size; i++) {
      const step = f[i]!;
      const next = x[i]! - step;
      const allowed = relative * Math.abs(next) + (i < nodeCount ? volts : amperes);
      x[i] = next;
      if (Math.abs(step) <= worst * allowed) continue;
      worst = Math.abs(step) / allowed;
      this.slowest = i;
    }
    return worst;
  }

  /** A large conductance to ground at every net, taken away decade by decade. */
  private stepGmin(x: Float64Array): Outcome {
    let total = 0;
    let factor = 10;
    let shunt = 0.01;
    let good = x.slice();
    while (shunt > 1e-13) {
      const out = this.iterate(x, 1, shunt, STEP_ITERATIONS);
      total += out.iterations;
      if (out.converged) {
        good = x.slice();
        shunt /= factor;
        continue;
      }
      x.set(good);
      this.system.warmStart(x);
      if (factor < 1.2 || shunt >= 0.01) return { ...out, iterations: total };
      shunt *= factor;
      factor = Math.sqrt(factor);
      shunt /= factor;
    }
    const out = this.iterate(x, 1, 0, MAX_ITERATIONS);
    return { ...out, iterations: total + out.iterations };
  }

  /** All sources raised from zero to full in adaptive steps. */
  private stepSources(x: Float64Array): Outcome {
    let reached = 0;
    let step = 0.1;
    let total = 0;
    let good = x.slice();
    let out: Outcome = { converged: false, iterations: 0, culprit: 0 };
    while (reached < 1) {
      const level = Math.min(1, reached + step);
      out = this.iterate(x, level, 0, STEP_ITERATIONS);
      total += out.iterations;
      if (out.converged) {
        reached = level;
        good = x.slice();
        step *= 1.5;
      } else {
        x.set(good);
        this.system.warmStart(x);
        step /= 4;
        if (step < 1e-5) break;
      }
    }
    return { ...out, iterations: total };
  }

  /** Every net held by a capacitor that lets go more and more: backward Euler steps of growing length. */
  private pseudoTransient(x: Float64Array): Outcome {
    let total = 0;
    let hold = 1;
    let release = 3;
    let failures = 0;
    const anchor = x.slice();
    while (hold > 1e-14 && failures < 40) {
      const out = this.iterate(x, 1, hold, STEP_ITERATIONS, anchor);
      total += out.iterations;
      if (out.converged) {
        anchor.set(x);
        hold /= release;
        release = Math.min(3, release * 1.3);
      } else {
        // Past a fold the nets need time at one pace: back by two steps, then more slowly.
        failures++;
        x.set(anchor);
        this.system.warmStart(x);
        hold *= 2 * release;
        release = Math.sqrt(release);
      }
    }
    const out = this.iterate(x, 1, 0, MAX_ITERATIONS);
    return { ...out, iterations: total + out.iterations };
  }
}
