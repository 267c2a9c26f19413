import { GMIN, limitGate, limitJunction, safeExp, VT } from '../../solve/junction';
import {
  JFET_SIGN as SIGN,
  JFET_VTO as VTO,
  JFET_BETA as BETA,
  JFET_LAMBDA as LAMBDA,
  JFET_IS as IS,
  JFET_CRITICAL as CRITICAL,
  JFET_NUMBERS,
  JFET_PLACES,
} from '../shared';
import { add, f, jfetNumbers, jfetPlaces, jfets, jfetState, matrix, number, numbersOf, place, placesOf, put, x } from './memory';

export function coldJfets(): void {
  for (let i = 0; i < 2 * jfets; i++) put(jfetState, i, -1);
}

export function warmJfets(): void {
  for (let i = 0; i < jfets; i++) {
    const sign = number(jfetNumbers, JFET_NUMBERS * i + SIGN);
    const at = placesOf(jfetPlaces, JFET_PLACES, i);
    const gate = number(x, place(at, 1));
    put(jfetState, 2 * i, sign * (gate - number(x, place(at, 2))));
    put(jfetState, 2 * i + 1, sign * (gate - number(x, place(at, 0))));
  }
}

// Current and conductances of the channel that `channel` last worked out, and of the junction of `gateJunction`.
let id: f64 = 0;
let gm: f64 = 0;
let gds: f64 = 0;
let gateCurrent: f64 = 0;
let gateConductance: f64 = 0;

function channel(p: usize, vgs: f64, vds: f64): void {
  const over = vgs - number(p, VTO);
  if (over <= 0) {
    id = gm = gds = 0;
    return;
  }
  const beta = number(p, BETA);
  const lambda = number(p, LAMBDA);
  const early = 1 + lambda * vds;
  if (over <= vds) {
    id = beta * early * over * over;
    gm = 2 * beta * early * over;
    gds = beta * lambda * over * over;
    return;
  }
  const shape = vds * (2 * over - vds);
  id = beta * early * shape;
  gm = 2 * beta * early * vds;
  gds = 2 * beta * early * (over - vds) + beta * lambda * shape;
}

function gateJunction(is: f64, v: f64): void {
  const e = v < -5 * VT ? 0 : safeExp(v / VT);
  gateCurrent = is * (e - 1) + GMIN * v;
  gateConductance = (is * e) / VT + GMIN;
}

/** Junction field-effect transistors (Shichman & Hodges 1968 with gate diodes, as in SPICE 3, from memory). */
export function loadJfets(bold: bool): bool {
  let limited = false;
  for (let i = 0; i < jfets; i++) {
    const p = numbersOf(jfetNumbers, JFET_NUMBERS, i);
    const at = placesOf(jfetPlaces, JFET_PLACES, i);
    const sign = number(p, SIGN);
    const critical = number(p, CRITICAL);
    const vto = number(p, VTO);
    const drain = place(at, 0);
    const gate = place(at, 1);
    const source = place(at, 2);
    const wantedGs = sign * (number(x, gate) - number(x, source));
    const wantedGd = sign * (number(x, gate) - number(x, drain));
    const lastGs = number(jfetState, 2 * i);
    const lastGd = number(jfetState, 2 * i + 1);
    const vgs = limitGate(limitJunction(wantedGs, lastGs, VT, critical, bold), lastGs, vto);
    const vgd = limitGate(limitJunction(wantedGd, lastGd, VT, critical, bold), lastGd, vto);
    if (vgs != wantedGs || vgd != wantedGd) limited = true;
    put(jfetState, 2 * i, vgs);
    put(jfetState, 2 * i + 1, vgd);

    gateJunction(number(p, IS), vgs);
    const iSource = gateCurrent;
    const gSource = gateConductance;
    gateJunction(number(p, IS), vgd);
    const gDrain = gateConductance;
    const forward = vgs >= vgd;
    channel(p, forward ? vgs : vgd, abs(vgs - vgd));
    // Channel current from drain to source, derivatives with respect to vgs and vgd.
    const current = forward ? id : -id;
    const dGs = forward ? gm + gds : gds;
    const dGd = forward ? -gds : -(gm + gds);
    const offGs = wantedGs - vgs;
    const offGd = wantedGd - vgd;
    const iGs = iSource + gSource * offGs;
    const iGd = gateCurrent + gDrain * offGd;
    const iDs = current + dGs * offGs + dGd * offGd;
    add(f, drain, sign * (iDs - iGd));
    add(f, gate, sign * (iGs + iGd));
    add(f, source, -sign * (iDs + iGs));

    // Rows and columns: drain, gate, source.
    const dd = gDrain - dGd;
    const dg = dGs + dGd - gDrain;
    add(matrix, place(at, 3), dd);
    add(matrix, place(at, 4), dg);
    add(matrix, place(at, 5), -dGs);
    add(matrix, place(at, 6), -gDrain);
    add(matrix, place(at, 7), gSource + gDrain);
    add(matrix, place(at, 8), -gSource);
    add(matrix, place(at, 9), gDrain - dd);
    add(matrix, place(at, 10), -dg - gSource - gDrain);
    add(matrix, place(at, 11), dGs + gSource);
  }
  return limited;
}
