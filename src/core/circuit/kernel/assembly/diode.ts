import { limitJunction, safeExp, startingVoltage } from '../../solve/junction';
import { DIODE_IS as IS, DIODE_NVT as NVT, DIODE_CRITICAL as CRITICAL, DIODE_KNEE as KNEE, DIODE_LEAST as LEAST, DIODE_NUMBERS, DIODE_PLACES } from '../shared';
import { add, diodeNumbers, diodePlaces, diodes, diodeState, f, matrix, number, numbersOf, place, placesOf, put, x } from './memory';

export function coldDiodes(): void {
  for (let i = 0; i < diodes; i++) {
    const p = numbersOf(diodeNumbers, DIODE_NUMBERS, i);
    put(diodeState, i, number(p, LEAST) == 0 ? 0 : number(p, CRITICAL));
  }
}

export function warmDiodes(): void {
  for (let i = 0; i < diodes; i++) {
    const p = numbersOf(diodeNumbers, DIODE_NUMBERS, i);
    const at = placesOf(diodePlaces, DIODE_PLACES, i);
    const nvt = number(p, NVT);
    const critical = number(p, CRITICAL);
    const knee = number(p, KNEE);
    const forward = startingVoltage(number(x, place(at, 0)) - number(x, place(at, 1)), nvt, critical);
    put(diodeState, i, knee == Infinity ? forward : -startingVoltage(-forward - knee, nvt, critical) - knee);
  }
}

/** Junction diodes, LEDs and zeners: Shockley equation with emission coefficient, and breakdown (SPICE 3, from memory). */
export function loadDiodes(bold: bool): bool {
  let limited = false;
  for (let i = 0; i < diodes; i++) {
    const p = numbersOf(diodeNumbers, DIODE_NUMBERS, i);
    const at = placesOf(diodePlaces, DIODE_PLACES, i);
    const anode = place(at, 0);
    const cathode = place(at, 1);
    const nvt = number(p, NVT);
    const knee = number(p, KNEE);
    const critical = number(p, CRITICAL);
    const before = number(diodeState, i);
    const wanted = number(x, anode) - number(x, cathode);
    const v =
      knee == Infinity || wanted >= min(0.0, -knee + 10 * nvt)
        ? limitJunction(wanted, before, nvt, critical, bold)
        : -(limitJunction(-(wanted + knee), -(before + knee), nvt, critical, bold) + knee);
    if (v != wanted) limited = true;
    put(diodeState, i, v);
    const is = number(p, IS);
    let current: f64;
    let g: f64;
    if (v >= -3 * nvt) {
      const e = safeExp(v / nvt);
      current = is * (e - 1);
      g = (is * e) / nvt;
    } else if (v >= -knee) {
      const arg = (3 * nvt) / (v * Math.E);
      const cube = arg * arg * arg;
      current = -is * (1 + cube);
      g = (is * 3 * cube) / v;
    } else {
      const e = safeExp(-(knee + v) / nvt);
      current = -is * e;
      g = (is * e) / nvt;
    }
    const least = number(p, LEAST);
    g += least;
    const total = current + least * v + g * (wanted - v);
    add(f, anode, total);
    add(f, cathode, -total);
    add(matrix, place(at, 2), g);
    add(matrix, place(at, 3), -g);
    add(matrix, place(at, 4), -g);
    add(matrix, place(at, 5), g);
  }
  return limited;
}
