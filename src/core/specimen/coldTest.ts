import type { MeterDrive } from '../circuit';
import { randomStream } from '../statistics';

/** What a meter drives ohms and diode tests with. */
export interface ColdTest {
  /** Ohms: volts with the probes apart, and the short-circuit current as a share of (volts / end of the range). */
  readonly volts: number;
  readonly share: number;
  /** Diode test: amperes, and the volts at which it gives up. */
  readonly amperes: number;
  readonly compliance: number;
}

/** Spans of meters of all kinds (contract of other meters; common practice, no source). */
const VOLTS = [0.3, 3] as const;
const SHARE = [0.4, 0.9] as const;
const AMPERES = [0.2e-3, 1e-3] as const;
const COMPLIANCE = [1.8, 3.2] as const;
/** Ranges of the ohms mode by their ends, and what a short-circuit current is kept between. */
export const OHMS_RANGES = [400, 4e3, 4e4, 4e5, 4e6, 4e7] as const;
const LEAST_AMPERES = 1e-7;
const MOST_AMPERES = 1e-3;

/** The meter that specimen number `seed` is read with, where nobody knows which one it is. */
export function coldTestOf(seed: number): ColdTest {
  const random = randomStream(seed * 4091 + 29);
  const even = ([low, high]: readonly [number, number]) => low + (high - low) * random();
  const logEven = ([low, high]: readonly [number, number]) => low * (high / low) ** random();
  return { volts: logEven(VOLTS), share: even(SHARE), amperes: logEven(AMPERES), compliance: even(COMPLIANCE) };
}

/** How it drives in one of its ranges (only ohms have several). */
export function driveIn(drive: MeterDrive, cold: ColdTest, range: number): MeterDrive {
  if (drive.type === 'diode') return { ...drive, testCurrent: cold.amperes, compliance: cold.compliance };
  const short = Math.min(MOST_AMPERES, Math.max(LEAST_AMPERES, (cold.share * cold.volts) / OHMS_RANGES[range]!));
  return { ...drive, testVoltage: cold.volts, testResistance: cold.volts / short };
}
