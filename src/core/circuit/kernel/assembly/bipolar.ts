import { GMIN, limitJunction, safeExp, startingVoltage, VT } from '../../solve/junction';
import {
  BIPOLAR_IS as IS,
  BIPOLAR_NFVT as NFVT,
  BIPOLAR_NRVT as NRVT,
  BIPOLAR_BF as BF,
  BIPOLAR_BR as BR,
  BIPOLAR_INV_VAF as INV_VAF,
  BIPOLAR_INV_VAR as INV_VAR,
  BIPOLAR_INV_IKF as INV_IKF,
  BIPOLAR_INV_IKR as INV_IKR,
  BIPOLAR_ISE as ISE,
  BIPOLAR_NEVT as NEVT,
  BIPOLAR_ISC as ISC,
  BIPOLAR_NCVT as NCVT,
  BIPOLAR_CRITICAL as CRITICAL,
  BIPOLAR_SIGN as SIGN,
  BIPOLAR_NUMBERS,
  BIPOLAR_PLACES,
} from '../shared';
import { add, bipolarNumbers, bipolarPlaces, bipolars, bipolarState, f, matrix, number, numbersOf, place, placesOf, put, x } from './memory';

export function coldBipolars(): void {
  for (let i = 0; i < bipolars; i++) {
    put(bipolarState, 2 * i, number(bipolarNumbers, BIPOLAR_NUMBERS * i + CRITICAL));
    put(bipolarState, 2 * i + 1, 0);
  }
}

export function warmBipolars(): void {
  for (let i = 0; i < bipolars; i++) {
    const p = numbersOf(bipolarNumbers, BIPOLAR_NUMBERS, i);
    const at = placesOf(bipolarPlaces, BIPOLAR_PLACES, i);
    const sign = number(p, SIGN);
    const critical = number(p, CRITICAL);
    const base = number(x, place(at, 1));
    put(bipolarState, 2 * i, startingVoltage(sign * (base - number(x, place(at, 2))), VT, critical));
    put(bipolarState, 2 * i + 1, startingVoltage(sign * (base - number(x, place(at, 0))), VT, critical));
  }
}

/** Bipolar transistors, static Gummel–Poon model (Gummel & Poon 1970; equations as in SPICE 3, from memory). */
export function loadBipolars(bold: bool): bool {
  let limited = false;
  for (let i = 0; i < bipolars; i++) {
    const p = numbersOf(bipolarNumbers, BIPOLAR_NUMBERS, i);
    const at = placesOf(bipolarPlaces, BIPOLAR_PLACES, i);
    const c = place(at, 0);
    const b = place(at, 1);
    const e = place(at, 2);
    const sign = number(p, SIGN);
    const critical = number(p, CRITICAL);
    const base = number(x, b);
    const wantedBe = sign * (base - number(x, e));
    const wantedBc = sign * (base - number(x, c));
    const vbe = limitJunction(wantedBe, number(bipolarState, 2 * i), VT, critical, bold);
    const vbc = limitJunction(wantedBc, number(bipolarState, 2 * i + 1), VT, critical, bold);
    if (vbe != wantedBe || vbc != wantedBc) limited = true;
    put(bipolarState, 2 * i, vbe);
    put(bipolarState, 2 * i + 1, vbc);

    const is = number(p, IS);
    const nf = number(p, NFVT);
    const nr = number(p, NRVT);
    const ebe = safeExp(vbe / nf);
    const ibe = is * (ebe - 1);
    const gbe = (is * ebe) / nf;
    const ebc = safeExp(vbc / nr);
    const ibc = is * (ebc - 1);
    const gbc = (is * ebc) / nr;
    // The least conductance lies across the junctions and is not amplified.
    let leakBe = GMIN * vbe;
    let gLeakBe = GMIN;
    const ise = number(p, ISE);
    if (ise > 0) {
      const le = safeExp(vbe / number(p, NEVT));
      leakBe += ise * (le - 1);
      gLeakBe += (ise * le) / number(p, NEVT);
    }
    let leakBc = GMIN * vbc;
    let gLeakBc = GMIN;
    const isc = number(p, ISC);
    if (isc > 0) {
      const lc = safeExp(vbc / number(p, NCVT));
      leakBc += isc * (lc - 1);
      gLeakBc += (isc * lc) / number(p, NCVT);
    }

    // Base charge qb: Early effect and high-level injection.
    const invVaf = number(p, INV_VAF);
    const invVar = number(p, INV_VAR);
    const invIkf = number(p, INV_IKF);
    const invIkr = number(p, INV_IKR);
    const q1 = 1 / (1 - invVaf * vbc - invVar * vbe);
    let qb = q1;
    let dqbe = q1 * q1 * invVar;
    let dqbc = q1 * q1 * invVaf;
    if (invIkf != 0 || invIkr != 0) {
      const q2 = invIkf * ibe + invIkr * ibc;
      const root = Math.sqrt(max(1 + 4 * q2, 1e-12));
      qb = (q1 * (1 + root)) / 2;
      dqbe = q1 * (qb * invVar + (invIkf * gbe) / root);
      dqbc = q1 * (qb * invVaf + (invIkr * gbc) / root);
    }

    const bf = number(p, BF);
    const br = number(p, BR);
    const ic = (ibe - ibc) / qb - ibc / br - leakBc;
    const ib = ibe / bf + leakBe + ibc / br + leakBc;
    const dIcBe = (gbe - ((ibe - ibc) * dqbe) / qb) / qb;
    const dIcBc = (-gbc - ((ibe - ibc) * dqbc) / qb) / qb - gbc / br - gLeakBc;
    const dIbBe = gbe / bf + gLeakBe;
    const dIbBc = gbc / br + gLeakBc;

    const offBe = wantedBe - vbe;
    const offBc = wantedBc - vbc;
    const icNow = sign * (ic + dIcBe * offBe + dIcBc * offBc);
    const ibNow = sign * (ib + dIbBe * offBe + dIbBc * offBc);
    add(f, c, icNow);
    add(f, b, ibNow);
    add(f, e, -icNow - ibNow);
    // The substrate lies on ground: its junction meets the collector of an NPN, the base of a (lateral) PNP.
    add(f, sign > 0 ? c : b, GMIN * number(x, sign > 0 ? c : b));
    add(matrix, place(at, sign > 0 ? 3 : 7), GMIN);

    // Rows and columns: collector, base, emitter.
    const cb = dIcBe + dIcBc;
    const bb = dIbBe + dIbBc;
    add(matrix, place(at, 3), -dIcBc);
    add(matrix, place(at, 4), cb);
    add(matrix, place(at, 5), -dIcBe);
    add(matrix, place(at, 6), -dIbBc);
    add(matrix, place(at, 7), bb);
    add(matrix, place(at, 8), -dIbBe);
    add(matrix, place(at, 9), dIcBc + dIbBc);
    add(matrix, place(at, 10), -cb - bb);
    add(matrix, place(at, 11), dIcBe + dIbBe);
  }
  return limited;
}
