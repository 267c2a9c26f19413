import { DIODE_CRITICAL, DIODE_IS, DIODE_KNEE, DIODE_LEAST, DIODE_NUMBERS, DIODE_NVT, DIODE_PLACES } from '../kernel/shared';
import type { Pattern } from '../solve/pattern';
import { criticalVoltage, GMIN, VT } from '../solve/junction';
import { pairSlots } from './bank';

export interface DiodeSpec {
  readonly anode: number;
  readonly cathode: number;
  readonly params: Readonly<Record<string, number>>;
  readonly scale: number;
}

/** Positions that diodes take in the kernel: anode, cathode, and the four entries of a conductance. */
export const diodePlaces = (specs: readonly DiodeSpec[], pattern: Pattern): number[] =>
  specs.flatMap((s) => [s.anode, s.cathode, ...pairSlots(pattern, s.anode, s.cathode)]);

/** The diodes, LEDs and zeners of one circuit: what the kernel is told of each. */
export class DiodeBank {
  private readonly nominal: { is: number; n: number; bv: number; ibv: number; scale: number; present: boolean }[];

  constructor(
    specs: readonly DiodeSpec[],
    private readonly p: Float64Array,
    private readonly places: Int32Array,
    private readonly pattern: Pattern,
  ) {
    this.nominal = specs.map(({ params: m, scale }) => ({ is: m['IS']!, n: m['N']!, bv: m['BV']!, ibv: m['IBV']!, scale, present: true }));
    for (let i = 0; i < specs.length; i++) this.update(i);
  }

  /** Changes one model parameter of one diode. */
  set(i: number, param: 'IS' | 'N' | 'BV', value: number): void {
    const key = param === 'IS' ? 'is' : param === 'N' ? 'n' : 'bv';
    this.nominal[i]![key] = value;
    this.update(i);
  }

  /** Puts a diode of another type into a place. */
  replace(i: number, { IS, N, BV, IBV }: Readonly<Record<string, number>>, scale: number): void {
    this.nominal[i] = { is: IS!, n: N!, bv: BV!, ibv: IBV!, scale, present: true };
    this.update(i);
  }

  /** Puts the two ends of a diode elsewhere. Their places in the matrix must have been laid out. */
  rewire(i: number, anode: number, cathode: number): void {
    this.places.set([anode, cathode, ...pairSlots(this.pattern, anode, cathode)], DIODE_PLACES * i);
  }

  /** Takes a diode out of the circuit, or puts it back. */
  setPresent(i: number, present: boolean): void {
    this.nominal[i]!.present = present;
    this.update(i);
  }

  /** Forward current at a solution, amperes: that of the junction, without its breakdown. `x` ends with ground. */
  forwardCurrent(i: number, x: Float64Array): number {
    const o = i * DIODE_NUMBERS;
    const [anode, cathode] = [this.places[DIODE_PLACES * i]!, this.places[DIODE_PLACES * i + 1]!];
    const saturation = this.p[o + DIODE_IS]!;
    return saturation === 0 ? 0 : saturation * Math.expm1(((x[anode] ?? 0) - (x[cathode] ?? 0)) / this.p[o + DIODE_NVT]!);
  }

  private update(i: number): void {
    const { is, n, bv, ibv, scale, present } = this.nominal[i]!;
    const saturation = present ? is * scale : 0;
    const nvt = n * VT;
    const o = i * DIODE_NUMBERS;
    this.p[o + DIODE_IS] = saturation;
    this.p[o + DIODE_NVT] = nvt;
    this.p[o + DIODE_CRITICAL] = present ? criticalVoltage(saturation, nvt) : Infinity;
    this.p[o + DIODE_KNEE] = present && bv > 0 ? breakdownKnee(bv, ibv * scale, saturation, nvt) : Infinity;
    this.p[o + DIODE_LEAST] = present ? GMIN : 0;
  }
}

/** Knee voltage so that the current at −BV is IBV (iteration of SPICE 3 `diotemp`). */
function breakdownKnee(bv: number, ibv: number, is: number, nvt: number): number {
  if (ibv < (is * bv) / nvt) return bv;
  let knee = bv - nvt * Math.log(1 + ibv / is);
  for (let i = 0; i < 25; i++) {
    knee = bv - nvt * Math.log(ibv / is + 1 - knee / nvt);
    const at = is * (Math.exp((bv - knee) / nvt) - 1 + knee / nvt);
    if (Math.abs(at - ibv) <= 1e-4 * ibv) break;
  }
  return knee;
}
