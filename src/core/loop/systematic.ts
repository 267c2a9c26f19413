import type { LineExpectation, LineKind } from '../kit';
import type { MeterProfile } from '../meter';

/** From here on a body in parallel (about a megohm through the fingers) spoils a reading, ohms (common practice, no source). */
const FINGERS_FROM = 2e5;
/** Below this the leads are a share of the reading worth subtracting. */
const LEADS_SHARE = 0.002;

/** What may systematically falsify a reading of a loose part, the likeliest first. Empty when nothing is likely. */
export function systematicErrors(kind: LineKind, expected: LineExpectation, meter: MeterProfile, reading: number | null): string[] {
  const found: string[] = [];
  const value = reading ?? expected.nominal;
  if (expected.mode === 'ohms') {
    if (meter.leadResistance > LEADS_SHARE * expected.nominal)
      found.push(`The leads add ${meter.leadResistance} Ω; they are subtracted. Touch the probes together and check that figure.`);
    if (expected.nominal >= FINGERS_FROM) found.push('Keep your fingers off one of the leads: your body in parallel makes it read low.');
    if (reading !== null && reading < expected.nominal * (1 + expected.tolerance[0]))
      found.push('Low: is it still in circuit? A parallel path always reads low.');
  }
  if (expected.mode === 'capacitance') {
    const smallest = meter.ranges.capacitance?.[0];
    if (smallest && value < 20 * smallest.counts * smallest.resolution)
      found.push('So small that the meter’s own zero counts: press REL with empty sockets, or hold it against a known one.');
    if (kind === 'electrolytic') found.push('Discharge it first; plus to red. The wrong way round it reads low or drifts.');
    if (reading !== null && reading < 0.5 * expected.nominal) found.push('Still rising? Wait until the display holds.');
  }
  if (expected.mode === 'diode' && reading !== null && reading < 0.05)
    found.push('Nearly zero both ways is a short; in circuit a low resistance in parallel looks the same.');
  return found;
}
