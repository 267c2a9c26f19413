import { theKernel } from '../kernel/kernel';
import { SETTLED, WANTS_ORDER } from '../kernel/shared';
import type { System } from './system';

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
/** Times that sources may change sides of their limits: each does so once or twice. */
const MOST_CROSSINGS = 12;
const MAX_ITERATIONS = 45;
/** The same for one step of a homotopy: a step that needs more is better made smaller. */
const STEP_ITERATIONS = 20;
export interface Solution {
  readonly converged: boolean;
  readonly iterations: number;
  /** Largest imbalance of currents before the last, confirming step, amperes; Infinity when not converged. */
  readonly residual: number;
  /** Unknown that kept moving or where the matrix was singular; null when converged. */
  readonly culprit: string | null;
  /** One value per unknown of the system, and a trailing 0 for ground. */
  readonly x: Float64Array;
}

/** What is tried from zero volts, in this order. */
const FROM_COLD = ['plain', 'stepGmin', 'pseudoTransient', 'stepSources'] as const;

interface Outcome {
  converged: boolean;
  iterations: number;
  culprit: number;
}

/** Newton's method on one system: what to try in which order. The iterations themselves are the kernel's. */
export class Newton {
  /** Largest imbalance of currents before the last step of what converged, amperes. */
  private imbalance = Infinity;
  private readonly limits: StepLimits;

  constructor(
    readonly system: System,
    accuracy: 'exact' | 'sample' = 'exact',
  ) {
    this.limits = accuracy === 'exact' ? EXACT : SAMPLE;
  }

  /** A zero start vector (with the ground entry at its end). */
  zeros(): Float64Array {
    return new Float64Array(this.system.size + 1);
  }

  /**
   * DC solution from a known nearby one, or from nothing, with every source on its side of its limit: solved as the start has them,
   * and again while the solution says otherwise.
   */
  solve(start: Float64Array | null): Solution {
    const { limits } = this.system;
    limits.takeLike(start);
    let found = this.solveAsLimited(start);
    // What has no solution without a limit (a supply across a junction) has one in it.
    if (!found.converged && limits.takeIn()) found = this.solveAsLimited(null);
    for (let k = 0; found.converged && limits.takeAcross(found.x); k++) {
      // A solution on the wrong side of a limit is none.
      if (k === MOST_CROSSINGS) return { ...found, converged: false, residual: Infinity };
      found = this.solveAsLimited(found.x);
    }
    return found;
  }

  /**
   * Tries plain Newton, then gmin stepping, a damped pseudo-transient (it gets past the folds of a latch) and source stepping
   * (all textbook homotopies). The result always says whether it converged.
   */
  private solveAsLimited(start: Float64Array | null): Solution {
    this.system.enter();
    let total = 0;
    let last: Outcome = { converged: false, iterations: 0, culprit: 0 };
    if (start) {
      this.goTo(start);
      last = this.iterate(1, 0, MAX_ITERATIONS);
      total = last.iterations;
    }
    for (const way of FROM_COLD) {
      if (last.converged) break;
      theKernel().x.fill(0);
      theKernel().run.coldStart();
      last = this[way]();
      total += last.iterations;
    }
    const culprit = last.converged ? null : (this.system.unknowns[last.culprit] ?? null);
    return { converged: last.converged, iterations: total, residual: last.converged ? this.imbalance : Infinity, culprit, x: theKernel().x.slice() };
  }

  private plain(): Outcome {
    return this.iterate(1, 0, MAX_ITERATIONS);
  }

  private goTo(x: Float64Array): void {
    theKernel().x.set(x);
    theKernel().run.warmStart();
  }

  /** Newton iterations in place. `shunt`: extra conductance to ground or, `anchored`, to the kernel's anchor. */
  private iterate(sources: number, shunt: number, limit: number, anchored = false): Outcome {
    const { lu } = this.system;
    const { run } = theKernel();
    const { relative, volts, amperes, confirmable } = this.limits;
    const hold = anchored ? 1 : 0;
    let iterations = 0;
    while (iterations < limit) {
      let end: number = WANTS_ORDER;
      if (lu.ready()) {
        end = run.iterate(sources, shunt, hold, limit - iterations, relative, volts, amperes, confirmable);
        iterations += run.iterations.value;
      } else run.loadAll(sources, shunt, hold, 1);
      if (end === SETTLED) {
        this.imbalance = run.imbalance.value;
        return { converged: true, iterations, culprit: run.slowest.value };
      }
      if (end !== WANTS_ORDER) break;
      if (!lu.factor()) return { converged: false, iterations, culprit: lu.singularAt?.column ?? 0 };
    }
    return { converged: false, iterations, culprit: run.slowest.value };
  }

  /** A large conductance to ground at every net, taken away decade by decade. */
  private stepGmin(): Outcome {
    const kernel = theKernel();
    let total = 0;
    let factor = 10;
    let shunt = 0.01;
    let good = kernel.x.slice();
    while (shunt > 1e-13) {
      const out = this.iterate(1, shunt, STEP_ITERATIONS);
      total += out.iterations;
      if (out.converged) {
        good = kernel.x.slice();
        shunt /= factor;
        continue;
      }
      this.goTo(good);
      if (factor < 1.2 || shunt >= 0.01) return { ...out, iterations: total };
      shunt *= factor;
      factor = Math.sqrt(factor);
      shunt /= factor;
    }
    const out = this.iterate(1, 0, MAX_ITERATIONS);
    return { ...out, iterations: total + out.iterations };
  }

  /** All sources raised from zero to full in adaptive steps. */
  private stepSources(): Outcome {
    let reached = 0;
    let step = 0.1;
    const kernel = theKernel();
    let total = 0;
    let good = kernel.x.slice();
    let out: Outcome = { converged: false, iterations: 0, culprit: 0 };
    while (reached < 1) {
      const level = Math.min(1, reached + step);
      out = this.iterate(level, 0, STEP_ITERATIONS);
      total += out.iterations;
      if (out.converged) {
        reached = level;
        good = kernel.x.slice();
        step *= 1.5;
      } else {
        this.goTo(good);
        step /= 4;
        if (step < 1e-5) break;
      }
    }
    return { ...out, iterations: total };
  }

  /** Every net held by a capacitor that lets go more and more: backward Euler steps of growing length. */
  private pseudoTransient(): Outcome {
    const kernel = theKernel();
    let total = 0;
    let hold = 1;
    let release = 3;
    let failures = 0;
    kernel.anchor.set(kernel.x);
    while (hold > 1e-14 && failures < 40) {
      const out = this.iterate(1, hold, STEP_ITERATIONS, true);
      total += out.iterations;
      if (out.converged) {
        kernel.anchor.set(kernel.x);
        hold /= release;
        release = Math.min(3, release * 1.3);
      } else {
        // Past a fold the nets need time at one pace: back by two steps, then more slowly.
        failures++;
        this.goTo(kernel.anchor);
        hold *= 2 * release;
        release = Math.sqrt(release);
      }
    }
    const out = this.iterate(1, 0, MAX_ITERATIONS);
    return { ...out, iterations: total + out.iterations };
  }
}
