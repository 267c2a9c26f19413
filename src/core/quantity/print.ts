import { type Unit, UNIT_SYMBOL } from './units';

const STEPS: readonly (readonly [number, string])[] = [
  [1e12, 'T'],
  [1e9, 'G'],
  [1e6, 'M'],
  [1e3, 'k'],
  [1, ''],
  [1e-3, 'm'],
  [1e-6, 'µ'],
  [1e-9, 'n'],
  [1e-12, 'p'],
];
/** Capacitors of a thousandth of a farad are sold and marked in microfarads: `2200 µF`, never `2.2 mF` (common practice, no source). */
const NO_MILLI = new Set<Unit>(['F']);
/** Units that are never written with a prefix. */
const PLAIN = new Set<Unit>(['percent', 'ratio', 'degC']);
/** Below this, a value counts as zero on a screen: smaller than a display step of any meter here. */
const ZERO: Readonly<Partial<Record<Unit, number>>> = { V: 5e-8, A: 5e-13, F: 5e-16 };

export interface PrintedQuantity {
  readonly digits: string;
  readonly unit: string;
}

/** A value in engineering notation with `significant` digits, digits and unit apart; a dash when it is no number. */
function printParts(value: number, unit: Unit | null, significant = 4): PrintedQuantity {
  const symbol = unit ? UNIT_SYMBOL[unit] : '';
  if (!Number.isFinite(value)) return { digits: '–', unit: symbol };
  const rounded = Number(value.toPrecision(significant));
  const small = (unit && ZERO[unit]) ?? 1e-15;
  if (rounded === 0 || Math.abs(rounded) < small) return { digits: '0', unit: symbol };
  if (unit && PLAIN.has(unit)) return { digits: minus(trimZeros(rounded, significant)), unit: symbol };
  const [factor, prefix] = STEPS.find(([f, p]) => Math.abs(rounded) >= f * 0.99999 && !(p === 'm' && unit && NO_MILLI.has(unit))) ?? STEPS[STEPS.length - 1]!;
  return { digits: minus(trimZeros(rounded / factor, significant)), unit: prefix + symbol };
}

function trimZeros(value: number, significant: number): string {
  const whole = Math.max(1, Math.floor(Math.log10(Math.abs(value)) + 1e-9) + 1);
  return value.toFixed(Math.max(0, Math.min(12, significant - whole)));
}

const minus = (digits: string) => digits.replace('-', '−');

/** `4.700 kΩ`; for text rather than the big display. */
export function print(value: number, unit: Unit | null, significant = 4): string {
  const { digits, unit: symbol } = printParts(value, unit, significant);
  return symbol ? `${digits} ${symbol}` : digits;
}

/** A nominal value without needless zeros: `4.7 kΩ`, `100 nF`. */
export function printNominal(value: number, unit: Unit | null): string {
  const { digits, unit: symbol } = printParts(value, unit, 4);
  const short = digits.includes('.') ? digits.replace(/\.?0+$/, '') : digits;
  return symbol ? `${short} ${symbol}` : short;
}

/** Two limits in one common unit: `2.19 – 2.35 V`. */
export function printWindow(low: number, high: number, unit: Unit | null, significant = 4): string {
  const a = printParts(low, unit, significant);
  const b = printParts(high, unit, significant);
  if (a.unit === b.unit || a.digits === '0') return `${a.digits} – ${b.digits} ${b.unit}`.trim();
  return `${a.digits} ${a.unit} – ${b.digits} ${b.unit}`;
}
