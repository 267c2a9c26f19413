import { JFET_BETA, JFET_NUMBERS, JFET_VTO } from '../kernel/shared';
import { criticalVoltage, VT } from '../solve/junction';
import type { Pattern } from '../solve/pattern';
import { blockSlots } from './bank';

export interface JfetSpec {
  readonly drain: number;
  readonly gate: number;
  readonly source: number;
  /** +1 for n-channel, −1 for p-channel. */
  readonly polarity: 1 | -1;
  readonly params: Readonly<Record<string, number>>;
  readonly scale: number;
}

/** Positions that transistors take in the kernel: drain, gate, source, and the block among them. */
export const jfetPlaces = (specs: readonly JfetSpec[], pattern: Pattern): number[] =>
  specs.flatMap((s) => [s.drain, s.gate, s.source, ...blockSlots(pattern, [s.drain, s.gate, s.source])]);

/** The JFETs of one circuit: what the kernel is told of each. VTO is negative for depletion types of both polarities. */
export class JfetBank {
  constructor(
    private readonly specs: readonly JfetSpec[],
    private readonly p: Float64Array,
  ) {
    specs.forEach((s, i) => this.replace(i, s.params));
  }

  /** Gives a transistor other parameters; its polarity and size stay. */
  replace(i: number, params: Readonly<Record<string, number>>): void {
    const { polarity, scale } = this.specs[i]!;
    const is = params['IS']! * scale;
    this.p.set([polarity, params['VTO']!, params['BETA']! * scale, params['LAMBDA']!, is, criticalVoltage(is, VT)], i * JFET_NUMBERS);
  }

  set(i: number, param: 'VTO' | 'BETA', value: number): void {
    this.p[i * JFET_NUMBERS + PLACE[param]] = param === 'BETA' ? value * this.specs[i]!.scale : value;
  }
}

const PLACE = { VTO: JFET_VTO, BETA: JFET_BETA } as const;
