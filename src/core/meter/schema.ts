import { Type } from '@sinclair/typebox';
import { Id, Num, OneOf, Positive, Shape, Optional } from '../vocabulary/schema';

/** One range: readings up to `upTo`, error of ±(percent of reading + counts × resolution). All SI. */
export const RangeShape = Shape('range of a meter', { upTo: Positive, percent: Num, counts: Num, resolution: Positive });
const Ranges = Type.Array(RangeShape, { title: 'Ranges', maxItems: 20 });

/** A meter. Another set of ranges is another record: readings keep the one that they were taken with. */
export const MeterShape = Shape('meter', {
  id: Id,
  name: Type.String({ minLength: 1, maxLength: 120 }),
  ranges: Type.Object(
    {
      dcv: Optional(Ranges),
      dca: Optional(Ranges),
      ohms: Optional(Ranges),
      diode: Optional(Ranges),
      capacitance: Optional(Ranges),
      inductance: Optional(Ranges),
      hfe: Optional(Ranges),
      frequency: Optional(Ranges),
      acv: Optional(Ranges),
      duty: Optional(Ranges),
    },
    { additionalProperties: false },
  ),
  /** What AC volts show of a wave that is no sine: its RMS value, or its mean as if it were one. Average-responding when left out. */
  acResponse: Optional(OneOf('true-rms', 'average')),
  /** Input resistance on volts, ohms. */
  inputResistance: Positive,
  /** Resistance of both leads together, ohms; contained in every low-ohm reading. */
  leadResistance: Num,
  /** Capacitance of the sockets and leads, farads; contained in every reading of a capacitor. */
  capacitanceZero: Num,
  /** Whether its test volts and currents, below, are its own or only usual ones: then junctions may read otherwise. Known when left out. */
  coldTest: Optional(OneOf('known', 'unknown')),
  /** Ohms mode: open-circuit voltage and the resistance behind it. */
  ohmsVoltage: Positive,
  ohmsSource: Positive,
  /** Diode test: current and the voltage at which the display gives up. */
  diodeCurrent: Positive,
  diodeCompliance: Positive,
});
