import { pairSlots } from '../devices/bank';
import { SHUNT } from '../kernel/shared';
import type { Pattern } from './pattern';

/** One adjustable conductance between two unknowns. */
export interface Conductance {
  readonly index: number;
  readonly a: number;
  readonly b: number;
  readonly slots: readonly [number, number, number, number];
  /** Siemens as laid out. */
  readonly value: number;
}

/** One constant entry of the matrix: branch equations and controlled sources. */
interface Stamp {
  readonly row: number;
  readonly column: number;
  readonly slot: number;
  readonly value: number;
}

/** Linear parts as they are collected from a circuit, before the size of its matrix is known. */
export class LinearLayout {
  readonly diagonal: readonly number[];
  readonly conductances: Conductance[] = [];
  readonly stamps: Stamp[] = [];
  /** What independent sources add to the right-hand side. */
  readonly drives: { readonly row: number; readonly amount: number }[] = [];

  constructor(
    private readonly pattern: Pattern,
    nodeCount: number,
  ) {
    this.diagonal = Array.from({ length: nodeCount }, (_, i) => pattern.slot(i, i));
  }

  conductance(a: number, b: number, value: number): Conductance {
    const entry = { index: this.conductances.length, a, b, slots: pairSlots(this.pattern, a, b), value };
    this.conductances.push(entry);
    return entry;
  }

  stamp(row: number, column: number, value: number): void {
    this.stamps.push({ row, column, slot: this.pattern.slot(row, column), value });
  }

  drive(row: number, amount: number): void {
    this.drives.push({ row, amount });
  }
}

/** Windows on the kernel's numbers, in its order: entries of the matrix, right-hand side, siemens, values of the constant entries. */
export type LinearNumbers = readonly [linear: Float64Array, right: Float64Array, siemens: Float64Array, stamps: Float64Array];

/** The linear parts of a compiled circuit: values can be changed, and the matrix follows. */
export class LinearParts {
  /** Per entry of the matrix what never changes, and the conductances in it: index, or its complement where it counts negatively. */
  private readonly fixed: Float64Array;
  private readonly start: Int32Array;
  private readonly share: Int32Array;

  constructor(
    private readonly layout: LinearLayout,
    private readonly numbers: LinearNumbers,
  ) {
    const [linear, right, siemens, stamps] = numbers;
    for (const { row, amount } of layout.drives) right[row]! += amount;
    this.fixed = new Float64Array(linear.length);
    for (const slot of layout.diagonal) this.fixed[slot]! += SHUNT;
    layout.stamps.forEach(({ slot, value }, i) => {
      stamps[i] = value;
      this.fixed[slot]! += value;
    });
    const lists = Array.from(linear, (): number[] => []);
    for (const { index, slots, value } of layout.conductances) {
      siemens[index] = value;
      slots.forEach((slot, i) => slot > 0 && lists[slot]!.push(i === 0 || i === 3 ? index : ~index));
    }
    this.start = new Int32Array(linear.length + 1);
    lists.forEach((list, slot) => {
      this.start[slot + 1] = this.start[slot]! + list.length;
    });
    this.share = Int32Array.from(lists.flat());
    for (let slot = 0; slot < linear.length; slot++) this.sumUp(slot);
  }

  /** The right-hand side: amperes into nets, volts of branches. */
  get right(): Float64Array {
    return this.numbers[1];
  }

  conductanceOf = ({ index }: Conductance): number => this.numbers[2][index]!;

  setConductance({ index, slots }: Conductance, siemens: number): void {
    this.numbers[2][index] = siemens;
    for (const slot of slots) if (slot > 0) this.sumUp(slot);
  }

  setStamp(index: number, value: number): void {
    const stamps = this.numbers[3];
    const { slot } = this.layout.stamps[index]!;
    this.fixed[slot]! += value - stamps[index]!;
    stamps[index] = value;
    this.sumUp(slot);
  }

  /** Adds up one entry of the matrix anew: sums kept by adding and taking away would lose what floats beside a short. */
  private sumUp(slot: number): void {
    const siemens = this.numbers[2];
    let sum = this.fixed[slot]!;
    for (let q = this.start[slot]!, end = this.start[slot + 1]!; q < end; q++) {
      const share = this.share[q]!;
      sum += share >= 0 ? siemens[share]! : -siemens[~share]!;
    }
    this.numbers[0][slot] = sum;
  }
}
