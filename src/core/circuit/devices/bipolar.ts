import {
  BIPOLAR_BF,
  BIPOLAR_BR,
  BIPOLAR_CRITICAL,
  BIPOLAR_INV_IKF,
  BIPOLAR_INV_IKR,
  BIPOLAR_INV_VAF,
  BIPOLAR_INV_VAR,
  BIPOLAR_IS,
  BIPOLAR_ISC,
  BIPOLAR_ISE,
  BIPOLAR_NCVT,
  BIPOLAR_NEVT,
  BIPOLAR_NFVT,
  BIPOLAR_NRVT,
  BIPOLAR_NUMBERS,
  BIPOLAR_PLACES,
  BIPOLAR_SIGN,
} from '../kernel/shared';
import { criticalVoltage, VT } from '../solve/junction';
import type { Pattern } from '../solve/pattern';
import { blockSlots } from './bank';

export interface BipolarSpec {
  readonly collector: number;
  readonly base: number;
  readonly emitter: number;
  /** +1 for NPN, −1 for PNP. */
  readonly polarity: 1 | -1;
  readonly params: Readonly<Record<string, number>>;
  readonly scale: number;
}

/** Positions that transistors take in the kernel: collector, base, emitter, and the block among them. */
export const bipolarPlaces = (specs: readonly BipolarSpec[], pattern: Pattern): number[] =>
  specs.flatMap((s) => [s.collector, s.base, s.emitter, ...blockSlots(pattern, [s.collector, s.base, s.emitter])]);

/** The bipolar transistors of one circuit: what the kernel is told of each. Terminal resistances are resistors of the system. */
export class BipolarBank {
  private readonly scale: number[];

  constructor(
    specs: readonly BipolarSpec[],
    private readonly p: Float64Array,
    private readonly places: Int32Array,
    private readonly pattern: Pattern,
  ) {
    this.scale = specs.map((s) => s.scale);
    specs.forEach((s, i) => this.replace(i, s.polarity, s.params, s.scale));
  }

  private fill(i: number, m: Readonly<Record<string, number>>, scale: number): void {
    const o = i * BIPOLAR_NUMBERS;
    const inverse = (value: number) => (value > 0 ? 1 / value : 0);
    this.p[o + BIPOLAR_NFVT] = m['NF']! * VT;
    this.p[o + BIPOLAR_NRVT] = m['NR']! * VT;
    this.p[o + BIPOLAR_BF] = m['BF']!;
    this.p[o + BIPOLAR_BR] = m['BR']!;
    this.p[o + BIPOLAR_INV_VAF] = inverse(m['VAF']!);
    this.p[o + BIPOLAR_INV_VAR] = inverse(m['VAR']!);
    this.p[o + BIPOLAR_INV_IKF] = inverse(m['IKF']! * scale);
    this.p[o + BIPOLAR_INV_IKR] = inverse(m['IKR']! * scale);
    this.p[o + BIPOLAR_ISE] = m['ISE']! * scale;
    this.p[o + BIPOLAR_NEVT] = m['NE']! * VT;
    this.p[o + BIPOLAR_ISC] = m['ISC']! * scale;
    this.p[o + BIPOLAR_NCVT] = m['NC']! * VT;
    this.set(i, 'IS', m['IS']!);
  }

  /** Puts a transistor of another type into a place. */
  replace(i: number, polarity: 1 | -1, params: Readonly<Record<string, number>>, scale: number): void {
    this.p[i * BIPOLAR_NUMBERS + BIPOLAR_SIGN] = polarity;
    this.scale[i] = scale;
    this.fill(i, params, scale);
  }

  /** Puts the terminals of a transistor elsewhere: collector, base, emitter. Their places in the matrix must have been laid out. */
  rewire(i: number, terminals: readonly [number, number, number]): void {
    this.places.set([...terminals, ...blockSlots(this.pattern, terminals)], BIPOLAR_PLACES * i);
  }

  /** Changes one model parameter of one transistor. */
  set(i: number, param: 'IS' | 'BF' | 'BR' | 'VAF' | 'NF', value: number): void {
    const o = i * BIPOLAR_NUMBERS;
    if (param === 'BF') this.p[o + BIPOLAR_BF] = value;
    else if (param === 'BR') this.p[o + BIPOLAR_BR] = value;
    else if (param === 'VAF') this.p[o + BIPOLAR_INV_VAF] = value > 0 ? 1 / value : 0;
    else if (param === 'NF') this.p[o + BIPOLAR_NFVT] = value * VT;
    else this.p[o + BIPOLAR_IS] = value * this.scale[i]!;
    this.p[o + BIPOLAR_CRITICAL] = criticalVoltage(this.p[o + BIPOLAR_IS]!, VT);
  }
}
