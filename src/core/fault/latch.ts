import type { Solution } from '../circuit';
import type { FaultLayout } from './layouts';

/** Conductance of what holds a net, siemens: firm beside anything on a board. */
const HOLD = 10;
/** Share of the way at which the search begins on either side: at its very end a state holds itself. */
const MARGIN = 0.02;
const HALVINGS = 16;

/** How many nets are tried: one that only follows the loop does not open it. */
const MOST_NETS = 6;
/** A net whose voltage is this much the same in both states, volts, has no part in it. */
const SAME = 0.05;

/**
 * The state between two of a loop that latches. It is no stable one, but a loop can hang there, and a simulator does. A net that
 * differs is held at a voltage; where that opens the loop, one lies between at which the holder carries nothing, found by halving.
 */
export function betweenStates(layout: FaultLayout, one: Float64Array, two: Float64Array): Solution | null {
  const { system, toGround } = layout;
  const apart = (net: string) => Math.abs(one[system.unknownOf(net)]! - two[system.unknownOf(net)]!);
  const nets = [...toGround.keys()].filter((net) => apart(net) > SAME).sort((a, b) => apart(b) - apart(a));
  for (const net of nets.slice(0, MOST_NETS)) {
    const found = whereNothingHolds(layout, net, one, two);
    if (found) return found;
  }
  return null;
}

function whereNothingHolds({ system, newton, toGround }: FaultLayout, net: string, one: Float64Array, two: Float64Array): Solution | null {
  const at = system.unknownOf(net);
  let x = one;
  /** Amperes that hold the net at a voltage; null where there is no solution. */
  const carried = (volts: number): number | null => {
    system.inject(at, HOLD * volts);
    const held = newton.solve(x);
    system.inject(at, -HOLD * volts);
    if (!held.converged) return null;
    ({ x } = held);
    return HOLD * (volts - x[at]!);
  };
  const span = two[at]! - one[at]!;
  let near = one[at]! + MARGIN * span;
  let far = two[at]! - MARGIN * span;
  system.setProbe(toGround.get(net)!, HOLD);
  const atNear = carried(near);
  const atFar = carried(far);
  let open = atNear !== null && atFar !== null && atNear * atFar < 0;
  for (let i = 0; i < HALVINGS && open; i++) {
    const middle = (near + far) / 2;
    const current = carried(middle);
    if (current === null) open = false;
    else if (current * atNear! > 0) near = middle;
    else far = middle;
  }
  system.setProbe(toGround.get(net)!, 0);
  const free = open ? newton.solve(x) : null;
  const differs = (other: Float64Array) => Math.abs(free!.x[at]! - other[at]!) > SAME / 2;
  return free?.converged && differs(one) && differs(two) ? free : null;
}
