import { type MeterRange, uncertaintyIn } from '../meter';
import { type Conformity, conformity, type School } from './conformity';

export interface PartReading {
  readonly nominal: number;
  /** Relative limits such as −0.05, 0.05. */
  readonly tolerance: readonly [number, number];
  readonly reading: number;
  readonly range: MeterRange;
  /** Contained in the reading and known: the leads on ohms, the sockets' capacitance on farads. */
  readonly offset: number;
}

/** A verdict that can show its reckoning. Everything in the unit of the reading. */
export interface PartVerdict extends Conformity {
  /** Reading less what it contains besides the part. */
  readonly corrected: number;
  readonly low: number;
  readonly high: number;
  readonly standard: number;
  readonly halfWidth: number;
  /** (corrected − nominal)/nominal. */
  readonly deviation: number;
}

/** Judges a reading of a loose part against its line. */
export function judgePart(p: PartReading, school: School): PartVerdict {
  const corrected = p.reading - p.offset;
  const { standard, halfWidth } = uncertaintyIn(p.range, p.reading);
  const low = p.nominal * (1 + p.tolerance[0]);
  const high = p.nominal * (1 + p.tolerance[1]);
  return { ...conformity(corrected, standard, low, high, school), corrected, low, high, standard, halfWidth, deviation: (corrected - p.nominal) / p.nominal };
}
