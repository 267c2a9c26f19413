import { GMIN, limitDrain, limitGate, limitJunction, safeExp, VT } from '../../solve/junction';
import {
  MOSFET_SIGN as SIGN,
  MOSFET_VTO as VTO,
  MOSFET_BETA as BETA,
  MOSFET_LAMBDA as LAMBDA,
  MOSFET_GAMMA as GAMMA,
  MOSFET_PHI as PHI,
  MOSFET_IS as IS,
  MOSFET_CRITICAL as CRITICAL,
  MOSFET_NUMBERS,
  MOSFET_PLACES,
} from '../shared';
import { add, f, matrix, mosfetNumbers, mosfetPlaces, mosfets, mosfetState, number, numbersOf, place, placesOf, put, x } from './memory';

/** Volts by which a limited voltage may differ from the wanted one through rounding alone. */
const ROUNDING: f64 = 1e-9;

export function coldMosfets(): void {
  for (let i = 0; i < mosfets; i++) {
    put(mosfetState, 3 * i, number(mosfetNumbers, MOSFET_NUMBERS * i + VTO));
    put(mosfetState, 3 * i + 1, 0);
    put(mosfetState, 3 * i + 2, 0);
  }
}

export function warmMosfets(): void {
  for (let i = 0; i < mosfets; i++) {
    const sign = number(mosfetNumbers, MOSFET_NUMBERS * i + SIGN);
    const at = placesOf(mosfetPlaces, MOSFET_PLACES, i);
    const source = number(x, place(at, 2));
    put(mosfetState, 3 * i, sign * (number(x, place(at, 1)) - source));
    put(mosfetState, 3 * i + 1, sign * (number(x, place(at, 0)) - source));
    put(mosfetState, 3 * i + 2, sign * (number(x, place(at, 3)) - source));
  }
}

// Current and conductances of the channel that `channel` last worked out, and of the junction of `bulkJunction`.
let id: f64 = 0;
let gm: f64 = 0;
let gds: f64 = 0;
let gmb: f64 = 0;
let bulkCurrent: f64 = 0;
let bulkConductance: f64 = 0;

function channel(p: usize, vgs: f64, vds: f64, vbs: f64): void {
  const phi = number(p, PHI);
  const gamma = number(p, GAMMA);
  const root = vbs <= 0 ? Math.sqrt(phi - vbs) : max(0.0, Math.sqrt(phi) - vbs / (2 * Math.sqrt(phi)));
  const over = vgs - (number(p, VTO) + gamma * (root - Math.sqrt(phi)));
  if (over <= 0) {
    id = gm = gds = gmb = 0;
    return;
  }
  const beta = number(p, BETA);
  const lambda = number(p, LAMBDA);
  const early = 1 + lambda * vds;
  if (over <= vds) {
    id = beta * early * over * over * 0.5;
    gm = beta * early * over;
    gds = lambda * beta * over * over * 0.5;
  } else {
    const shape = vds * (over - 0.5 * vds);
    id = beta * early * shape;
    gm = beta * early * vds;
    gds = beta * early * (over - vds) + lambda * beta * shape;
  }
  gmb = root > 0 ? (gm * gamma) / (2 * root) : 0;
}

function bulkJunction(is: f64, v: f64): void {
  const e = v <= -3 * VT ? 0 : safeExp(v / VT);
  bulkCurrent = is * (e - 1) + GMIN * v;
  bulkConductance = (is * e) / VT + GMIN;
}

/** Field-effect transistors with insulated gate, level 1 (Shichman & Hodges 1968; limits as in SPICE 3, from memory). */
export function loadMosfets(bold: bool): bool {
  let limited = false;
  for (let i = 0; i < mosfets; i++) {
    const p = numbersOf(mosfetNumbers, MOSFET_NUMBERS, i);
    const at = placesOf(mosfetPlaces, MOSFET_PLACES, i);
    const state = numbersOf(mosfetState, 3, i);
    const sign = number(p, SIGN);
    const drain = place(at, 0);
    const source = place(at, 2);
    const bulk = place(at, 3);
    const vs = number(x, source);
    const wantedDs = sign * (number(x, drain) - vs);
    const wantedGs = sign * (number(x, place(at, 1)) - vs);
    const wantedBs = sign * (number(x, bulk) - vs);
    const lastGs = number(state, 0);
    const lastDs = number(state, 1);
    let vgs: f64;
    let vds: f64;
    if (lastDs >= 0) {
      vgs = limitGate(wantedGs, lastGs, number(p, VTO));
      vds = limitDrain(vgs - (wantedGs - wantedDs), lastDs);
    } else {
      const vgd = limitGate(wantedGs - wantedDs, lastGs - lastDs, number(p, VTO));
      vds = -limitDrain(-(wantedGs - vgd), -lastDs);
      vgs = vgd + vds;
    }
    const vbs = limitJunction(wantedBs, number(state, 2), VT, number(p, CRITICAL), bold);
    if (abs(vgs - wantedGs) + abs(vds - wantedDs) + abs(vbs - wantedBs) > ROUNDING) limited = true;
    put(state, 0, vgs);
    put(state, 1, vds);
    put(state, 2, vbs);

    const forward = vds >= 0;
    channel(p, forward ? vgs : vgs - vds, abs(vds), forward ? vbs : vbs - vds);
    // Derivatives of the drain current with respect to vgs, vds, vbs as seen from the labelled source.
    const current = forward ? id : -id;
    const gGs = forward ? gm : -gm;
    const gBs = forward ? gmb : -gmb;
    const gDs = forward ? gds : gm + gds + gmb;
    bulkJunction(number(p, IS), vbs);
    const iSource = bulkCurrent;
    const gSource = bulkConductance;
    bulkJunction(number(p, IS), vbs - vds);
    const gDrain = bulkConductance;
    const offGs = wantedGs - vgs;
    const offDs = wantedDs - vds;
    const offBs = wantedBs - vbs;
    const iBs = iSource + gSource * offBs;
    const iBd = bulkCurrent + gDrain * (offBs - offDs);
    const iD = sign * (current + gGs * offGs + gDs * offDs + gBs * offBs - iBd);
    const iB = sign * (iBs + iBd);
    add(f, drain, iD);
    add(f, bulk, iB);
    add(f, source, -iD - iB);

    // Rows: drain, (gate carries nothing), source, bulk; columns d g s b.
    const dd = gDs + gDrain;
    const db = gBs - gDrain;
    const bb = gSource + gDrain;
    const dSum = dd + gGs + db;
    const bSum = bb - gDrain;
    add(matrix, place(at, 4), dd);
    add(matrix, place(at, 5), gGs);
    add(matrix, place(at, 6), -dSum);
    add(matrix, place(at, 7), db);
    add(matrix, place(at, 12), gDrain - dd);
    add(matrix, place(at, 13), -gGs);
    add(matrix, place(at, 14), dSum + bSum);
    add(matrix, place(at, 15), -db - bb);
    add(matrix, place(at, 16), -gDrain);
    add(matrix, place(at, 18), -bSum);
    add(matrix, place(at, 19), bb);
  }
  return limited;
}
