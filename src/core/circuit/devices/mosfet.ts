import { MOSFET_BETA, MOSFET_NUMBERS, MOSFET_VTO } from '../kernel/shared';
import { criticalVoltage, VT } from '../solve/junction';
import type { Pattern } from '../solve/pattern';
import { blockSlots } from './bank';

export interface MosfetSpec {
  readonly drain: number;
  readonly gate: number;
  readonly source: number;
  readonly bulk: number;
  /** +1 for n-channel, −1 for p-channel. */
  readonly polarity: 1 | -1;
  readonly params: Readonly<Record<string, number>>;
  /** W/L times the number of devices. */
  readonly scale: number;
}

/** Positions that transistors take in the kernel: drain, gate, source, bulk, and the block among them. */
export const mosfetPlaces = (specs: readonly MosfetSpec[], pattern: Pattern): number[] =>
  specs.flatMap((s) => [s.drain, s.gate, s.source, s.bulk, ...blockSlots(pattern, [s.drain, s.gate, s.source, s.bulk])]);

/** The MOSFETs of one circuit: what the kernel is told of each. */
export class MosfetBank {
  constructor(
    private readonly specs: readonly MosfetSpec[],
    private readonly p: Float64Array,
  ) {
    specs.forEach((s, i) => this.replace(i, s.params));
  }

  /** Gives a transistor other parameters; its polarity and size stay. */
  replace(i: number, params: Readonly<Record<string, number>>): void {
    const { polarity, scale } = this.specs[i]!;
    const { VTO, KP, LAMBDA, GAMMA, PHI, IS } = params as Record<'VTO' | 'KP' | 'LAMBDA' | 'GAMMA' | 'PHI' | 'IS', number>;
    this.p.set([polarity, VTO * polarity, KP * scale, LAMBDA, GAMMA, Math.max(0.1, PHI), IS, criticalVoltage(IS, VT)], i * MOSFET_NUMBERS);
  }

  set(i: number, param: 'VTO' | 'KP', value: number): void {
    const { polarity, scale } = this.specs[i]!;
    if (param === 'VTO') this.p[i * MOSFET_NUMBERS + MOSFET_VTO] = value * polarity;
    else this.p[i * MOSFET_NUMBERS + MOSFET_BETA] = value * scale;
  }
}
