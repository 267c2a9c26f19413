import { type Pattern } from '../solve/pattern';
import { criticalVoltage, GMIN, limitJunction, safeExp, startingVoltage, VT } from '../solve/junction';
import { type DeviceBank, pairSlots } from './bank';

export interface DiodeSpec {
  readonly anode: number;
  readonly cathode: number;
  readonly params: Readonly<Record<string, number>>;
  readonly scale: number;
}

/**
 * Junction diodes, LEDs and zeners: Shockley equation with emission coefficient, and breakdown.
 * Source: SPICE 3 diode model (from memory); breakdown uses N and IBV.
 */
export class DiodeBank implements DeviceBank {
  private readonly count: number;
  private readonly anode: Int32Array;
  private readonly cathode: Int32Array;
  private readonly slots: Int32Array;
  private readonly saturation: Float64Array;
  private readonly nvt: Float64Array;
  private readonly critical: Float64Array;
  /** Knee of the breakdown exponential, volts; Infinity without breakdown. */
  private readonly knee: Float64Array;
  private readonly last: Float64Array;
  /** Conductance across each junction; a diode that is taken out has none, and no current either. */
  private readonly gmin: Float64Array;
  private readonly nominal: { is: number; n: number; bv: number; ibv: number; scale: number }[];

  constructor(
    specs: readonly DiodeSpec[],
    private readonly pattern: Pattern,
  ) {
    this.count = specs.length;
    this.anode = Int32Array.from(specs, (s) => s.anode);
    this.cathode = Int32Array.from(specs, (s) => s.cathode);
    this.slots = Int32Array.from(specs.flatMap((s) => pairSlots(pattern, s.anode, s.cathode)));
    this.saturation = new Float64Array(this.count);
    this.nvt = new Float64Array(this.count);
    this.critical = new Float64Array(this.count);
    this.knee = new Float64Array(this.count);
    this.last = new Float64Array(this.count);
    this.gmin = new Float64Array(this.count).fill(GMIN);
    this.nominal = specs.map(({ params: p, scale }) => ({ is: p['IS']!, n: p['N']!, bv: p['BV']!, ibv: p['IBV']!, scale }));
    for (let i = 0; i < this.count; i++) this.update(i);
  }

  /** Changes one model parameter of one diode. */
  set(i: number, param: 'IS' | 'N' | 'BV', value: number): void {
    const key = param === 'IS' ? 'is' : param === 'N' ? 'n' : 'bv';
    this.nominal[i]![key] = value;
    this.update(i);
  }

  /** Puts a diode of another type into a place. */
  replace(i: number, { IS, N, BV, IBV }: Readonly<Record<string, number>>, scale: number): void {
    this.nominal[i] = { is: IS!, n: N!, bv: BV!, ibv: IBV!, scale };
    this.update(i);
  }

  /** Puts the two ends of a diode elsewhere. Their places in the matrix must have been laid out. */
  rewire(i: number, anode: number, cathode: number): void {
    this.anode[i] = anode;
    this.cathode[i] = cathode;
    this.slots.set(pairSlots(this.pattern, anode, cathode), 4 * i);
  }

  /** Takes a diode out of the circuit, or puts it back. */
  setPresent(i: number, present: boolean): void {
    this.gmin[i] = present ? GMIN : 0;
    this.update(i);
  }

  private update(i: number): void {
    const { is, n, bv, ibv, scale } = this.nominal[i]!;
    if (this.gmin[i] === 0) {
      this.saturation[i] = 0;
      this.knee[i] = Infinity;
      this.critical[i] = Infinity;
      return;
    }
    this.saturation[i] = is * scale;
    this.nvt[i] = n * VT;
    this.critical[i] = criticalVoltage(this.saturation[i], this.nvt[i]);
    this.knee[i] = bv > 0 ? breakdownKnee(bv, ibv * scale, this.saturation[i], this.nvt[i]) : Infinity;
  }

  coldStart(): void {
    for (let i = 0; i < this.count; i++) this.last[i] = this.gmin[i] === 0 ? 0 : this.critical[i]!;
  }

  warmStart(x: Float64Array): void {
    for (let i = 0; i < this.count; i++) {
      const nvt = this.nvt[i]!;
      const critical = this.critical[i]!;
      const forward = startingVoltage(x[this.anode[i]!]! - x[this.cathode[i]!]!, nvt, critical);
      const knee = this.knee[i]!;
      this.last[i] = knee === Infinity ? forward : -startingVoltage(-forward - knee, nvt, critical) - knee;
    }
  }

  load(x: Float64Array, a: Float64Array, f: Float64Array, bold: boolean): boolean {
    let limited = false;
    for (let i = 0; i < this.count; i++) {
      const p = this.anode[i]!;
      const n = this.cathode[i]!;
      const wanted = x[p]! - x[n]!;
      const v = this.limit(i, wanted, bold);
      if (v !== wanted) limited = true;
      this.last[i] = v;
      const is = this.saturation[i]!;
      const nvt = this.nvt[i]!;
      const knee = this.knee[i]!;
      let current: number;
      let conductance: number;
      if (v >= -3 * nvt) {
        const e = safeExp(v / nvt);
        current = is * (e - 1);
        conductance = (is * e) / nvt;
      } else if (v >= -knee) {
        const arg = (3 * nvt) / (v * Math.E);
        const cube = arg * arg * arg;
        current = -is * (1 + cube);
        conductance = (is * 3 * cube) / v;
      } else {
        const e = safeExp(-(knee + v) / nvt);
        current = -is * e;
        conductance = (is * e) / nvt;
      }
      const gmin = this.gmin[i]!;
      const g = conductance + gmin;
      const total = current + gmin * v + g * (wanted - v);
      f[p] = f[p]! + total;
      f[n] = f[n]! - total;
      const s = 4 * i;
      a[this.slots[s]!]! += g;
      a[this.slots[s + 1]!]! -= g;
      a[this.slots[s + 2]!]! -= g;
      a[this.slots[s + 3]!]! += g;
    }
    return limited;
  }

  private limit(i: number, wanted: number, bold: boolean): number {
    const nvt = this.nvt[i]!;
    const knee = this.knee[i]!;
    const before = this.last[i]!;
    if (knee === Infinity || wanted >= Math.min(0, -knee + 10 * nvt)) return limitJunction(wanted, before, nvt, this.critical[i]!, bold);
    return -(limitJunction(-(wanted + knee), -(before + knee), nvt, this.critical[i]!, bold) + knee);
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
