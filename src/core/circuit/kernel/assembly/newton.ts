import { SETTLED, UNSETTLED, WANTS_ORDER } from '../shared';
import { coldBipolars, loadBipolars, warmBipolars } from './bipolar';
import { coldDiodes, loadDiodes, warmDiodes } from './diode';
import { coldJfets, loadJfets, warmJfets } from './jfet';
import { loadLinear } from './linear';
import { factor, solve } from './lu';
import { f, nodes, number, put, size, x } from './memory';
import { coldMosfets, loadMosfets, warmMosfets } from './mosfet';

/** Junctions come down boldly in the first iterations; what does not settle then is led on cautiously. */
const BOLD_ITERATIONS = 20;

/**
 * Largest last step of a voltage, volts, however large the voltage: on the way down an exponential every step is one nVT, and
 * beside megavolts that is nothing.
 */
const MOST_VOLTS: f64 = 5e-3;

/** Of the last `iterate`: iterations made, unknown with the largest relative step, largest imbalance of currents before the last step. */
export let iterations: i32 = 0;
export let slowest: i32 = 0;
export let imbalance: f64 = 0;

/** Forgets the last operating point; the next load starts where every junction conducts a little. */
export function coldStart(): void {
  coldDiodes();
  coldBipolars();
  coldMosfets();
  coldJfets();
}

/** Takes `x` as the last operating point. */
export function warmStart(): void {
  warmDiodes();
  warmBipolars();
  warmMosfets();
  warmJfets();
}

/** Jacobian and residual at `x`. True when a junction voltage was limited. */
export function loadAll(sources: f64, shunt: f64, anchored: bool, bold: bool): bool {
  loadLinear(sources, shunt, anchored);
  const diodes = loadDiodes(bold);
  const bipolars = loadBipolars(bold);
  const mosfets = loadMosfets(bold);
  const jfets = loadJfets(bold);
  return diodes || bipolars || mosfets || jfets;
}

/** Takes the step in `f` and returns its size relative to what is allowed. */
function advance(relative: f64, volts: f64, amperes: f64): f64 {
  let worst: f64 = 0;
  for (let i = 0; i < size; i++) {
    const step = number(f, i);
    const next = number(x, i) - step;
    const allowed = i < nodes ? min(relative * abs(next), MOST_VOLTS) + volts : relative * abs(next) + amperes;
    put(x, i, next);
    if (abs(step) <= worst * allowed) continue;
    worst = abs(step) / allowed;
    slowest = i;
  }
  return worst;
}

/** One more step with the factors at hand: whether it is within what is allowed. */
function confirm(sources: f64, shunt: f64, anchored: bool, relative: f64, volts: f64, amperes: f64): bool {
  const limited = loadAll(sources, shunt, anchored, false);
  imbalance = 0;
  for (let i = 0; i < nodes; i++) imbalance = max(imbalance, abs(number(f, i)));
  solve(f);
  return advance(relative, volts, amperes) <= 1 && !limited;
}

/**
 * Newton's method in place, at most `limit` iterations. A step may be `confirmable` times what is allowed to be followed by
 * one more with the factors at hand, which must be within it.
 */
export function iterate(sources: f64, shunt: f64, anchored: bool, limit: i32, relative: f64, volts: f64, amperes: f64, confirmable: f64): i32 {
  for (iterations = 1; iterations <= limit; iterations++) {
    const limited = loadAll(sources, shunt, anchored, iterations <= BOLD_ITERATIONS);
    if (!factor()) return WANTS_ORDER;
    solve(f);
    const step = advance(relative, volts, amperes);
    if (!(step < 1e300)) return UNSETTLED;
    if (step > confirmable || limited) continue;
    if (confirm(sources, shunt, anchored, relative, volts, amperes)) return SETTLED;
  }
  iterations = limit;
  return UNSETTLED;
}
