import { criticalVoltage, GMIN, limitJunction, safeExp, startingVoltage, VT } from '../solve/junction';
import { type Pattern } from '../solve/pattern';
import { blockSlots, type DeviceBank } from './bank';

export interface BipolarSpec {
  readonly collector: number;
  readonly base: number;
  readonly emitter: number;
  /** +1 for NPN, −1 for PNP. */
  readonly polarity: 1 | -1;
  readonly params: Readonly<Record<string, number>>;
  readonly scale: number;
}

/** Layout of one transistor's parameters in the flat array. */
const P = { IS: 0, NFVT: 1, NRVT: 2, BF: 3, BR: 4, INV_VAF: 5, INV_VAR: 6, INV_IKF: 7, INV_IKR: 8, ISE: 9, NEVT: 10, ISC: 11, NCVT: 12, VCRIT: 13 } as const;
const STRIDE = 14;

/**
 * Bipolar transistors, static Gummel–Poon model (Gummel & Poon 1970; equations as in SPICE 3, from memory).
 * Terminal resistances are separate resistors of the system.
 */
export class BipolarBank implements DeviceBank {
  private readonly count: number;
  private readonly terminals: Int32Array;
  private readonly slots: Int32Array;
  private readonly polarity: Float64Array;
  private readonly p: Float64Array;
  private readonly scale: number[];
  private readonly vbe: Float64Array;
  private readonly vbc: Float64Array;

  constructor(
    specs: readonly BipolarSpec[],
    private readonly pattern: Pattern,
  ) {
    this.count = specs.length;
    this.terminals = Int32Array.from(specs.flatMap((s) => [s.collector, s.base, s.emitter]));
    this.slots = Int32Array.from(specs.flatMap((s) => blockSlots(pattern, [s.collector, s.base, s.emitter])));
    this.polarity = Float64Array.from(specs, (s) => s.polarity);
    this.scale = specs.map((s) => s.scale);
    this.p = new Float64Array(this.count * STRIDE);
    this.vbe = new Float64Array(this.count);
    this.vbc = new Float64Array(this.count);
    specs.forEach((s, i) => this.fill(i, s.params, s.scale));
  }

  private fill(i: number, m: Readonly<Record<string, number>>, scale: number): void {
    const o = i * STRIDE;
    const inverse = (value: number) => (value > 0 ? 1 / value : 0);
    this.p[o + P.NFVT] = m['NF']! * VT;
    this.p[o + P.NRVT] = m['NR']! * VT;
    this.p[o + P.BF] = m['BF']!;
    this.p[o + P.BR] = m['BR']!;
    this.p[o + P.INV_VAF] = inverse(m['VAF']!);
    this.p[o + P.INV_VAR] = inverse(m['VAR']!);
    this.p[o + P.INV_IKF] = inverse(m['IKF']! * scale);
    this.p[o + P.INV_IKR] = inverse(m['IKR']! * scale);
    this.p[o + P.ISE] = m['ISE']! * scale;
    this.p[o + P.NEVT] = m['NE']! * VT;
    this.p[o + P.ISC] = m['ISC']! * scale;
    this.p[o + P.NCVT] = m['NC']! * VT;
    this.set(i, 'IS', m['IS']!);
  }

  /** Puts a transistor of another type into a place. */
  replace(i: number, polarity: 1 | -1, params: Readonly<Record<string, number>>, scale: number): void {
    this.polarity[i] = polarity;
    this.scale[i] = scale;
    this.fill(i, params, scale);
  }

  /** Puts the terminals of a transistor elsewhere: collector, base, emitter. Their places in the matrix must have been laid out. */
  rewire(i: number, terminals: readonly [number, number, number]): void {
    this.terminals.set(terminals, 3 * i);
    this.slots.set(blockSlots(this.pattern, terminals), 9 * i);
  }

  /** Changes one model parameter of one transistor. */
  set(i: number, param: 'IS' | 'BF' | 'BR' | 'VAF' | 'NF', value: number): void {
    const o = i * STRIDE;
    if (param === 'BF') this.p[o + P.BF] = value;
    else if (param === 'BR') this.p[o + P.BR] = value;
    else if (param === 'VAF') this.p[o + P.INV_VAF] = value > 0 ? 1 / value : 0;
    else if (param === 'NF') this.p[o + P.NFVT] = value * VT;
    else this.p[o + P.IS] = value * this.scale[i]!;
    this.p[o + P.VCRIT] = criticalVoltage(this.p[o + P.IS]!, VT);
  }

  coldStart(): void {
    for (let i = 0; i < this.count; i++) {
      this.vbe[i] = this.p[i * STRIDE + P.VCRIT]!;
      this.vbc[i] = 0;
    }
  }

  warmStart(x: Float64Array): void {
    for (let i = 0; i < this.count; i++) {
      const t = 3 * i;
      const vb = x[this.terminals[t + 1]!]!;
      const critical = this.p[i * STRIDE + P.VCRIT]!;
      this.vbe[i] = startingVoltage(this.polarity[i]! * (vb - x[this.terminals[t + 2]!]!), VT, critical);
      this.vbc[i] = startingVoltage(this.polarity[i]! * (vb - x[this.terminals[t]!]!), VT, critical);
    }
  }

  load(x: Float64Array, a: Float64Array, f: Float64Array, bold: boolean): boolean {
    const { p, terminals, slots } = this;
    let limited = false;
    for (let i = 0; i < this.count; i++) {
      const o = i * STRIDE;
      const t = 3 * i;
      const c = terminals[t]!;
      const b = terminals[t + 1]!;
      const e = terminals[t + 2]!;
      const sign = this.polarity[i]!;
      const vcrit = p[o + P.VCRIT]!;
      const wantedBe = sign * (x[b]! - x[e]!);
      const wantedBc = sign * (x[b]! - x[c]!);
      const vbe = limitJunction(wantedBe, this.vbe[i]!, VT, vcrit, bold);
      const vbc = limitJunction(wantedBc, this.vbc[i]!, VT, vcrit, bold);
      if (vbe !== wantedBe || vbc !== wantedBc) limited = true;
      this.vbe[i] = vbe;
      this.vbc[i] = vbc;

      const is = p[o + P.IS]!;
      const nf = p[o + P.NFVT]!;
      const nr = p[o + P.NRVT]!;
      const ebe = safeExp(vbe / nf);
      const ibe = is * (ebe - 1);
      const gbe = (is * ebe) / nf;
      const ebc = safeExp(vbc / nr);
      const ibc = is * (ebc - 1);
      const gbc = (is * ebc) / nr;
      // The least conductance lies across the junctions and is not amplified.
      let leakBe = GMIN * vbe;
      let gLeakBe = GMIN;
      if (p[o + P.ISE]! > 0) {
        const le = safeExp(vbe / p[o + P.NEVT]!);
        leakBe += p[o + P.ISE]! * (le - 1);
        gLeakBe += (p[o + P.ISE]! * le) / p[o + P.NEVT]!;
      }
      let leakBc = GMIN * vbc;
      let gLeakBc = GMIN;
      if (p[o + P.ISC]! > 0) {
        const lc = safeExp(vbc / p[o + P.NCVT]!);
        leakBc += p[o + P.ISC]! * (lc - 1);
        gLeakBc += (p[o + P.ISC]! * lc) / p[o + P.NCVT]!;
      }

      // Base charge qb: Early effect and high-level injection.
      const invVaf = p[o + P.INV_VAF]!;
      const invVar = p[o + P.INV_VAR]!;
      const invIkf = p[o + P.INV_IKF]!;
      const invIkr = p[o + P.INV_IKR]!;
      const q1 = 1 / (1 - invVaf * vbc - invVar * vbe);
      let qb: number;
      let dqbe: number;
      let dqbc: number;
      if (invIkf === 0 && invIkr === 0) {
        qb = q1;
        dqbe = q1 * qb * invVar;
        dqbc = q1 * qb * invVaf;
      } else {
        const q2 = invIkf * ibe + invIkr * ibc;
        const root = Math.sqrt(Math.max(1 + 4 * q2, 1e-12));
        qb = (q1 * (1 + root)) / 2;
        dqbe = q1 * (qb * invVar + (invIkf * gbe) / root);
        dqbc = q1 * (qb * invVaf + (invIkr * gbc) / root);
      }

      const bf = p[o + P.BF]!;
      const br = p[o + P.BR]!;
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
      f[c] = f[c]! + icNow;
      f[b] = f[b]! + ibNow;
      f[e] = f[e]! - icNow - ibNow;

      const s = 9 * i;
      const cb = dIcBe + dIcBc;
      const bb = dIbBe + dIbBc;
      a[slots[s]!]! -= dIcBc;
      a[slots[s + 1]!]! += cb;
      a[slots[s + 2]!]! -= dIcBe;
      a[slots[s + 3]!]! -= dIbBc;
      a[slots[s + 4]!]! += bb;
      a[slots[s + 5]!]! -= dIbBe;
      a[slots[s + 6]!]! += dIcBc + dIbBc;
      a[slots[s + 7]!]! -= cb + bb;
      a[slots[s + 8]!]! += dIcBe + dIbBe;
    }
    return limited;
  }
}
