import { meterById, type MeterMode, type MeterProfile } from '../meter';
import { type KitDocument, standing } from './document';

/** A meter of the kit, its own or a typical one, with the lead resistance that its last check found. */
export function meterOf(doc: KitDocument, id: string = doc.settings.meter): MeterProfile {
  const profile = doc.settings.meters.find((m) => m.id === id) ?? meterById(id);
  const checks = standing(doc.log).flatMap((e) => (e.kind === 'meter-checked' && e.meter === id && typeof e.together === 'number' ? [e.together] : []));
  const leads = checks[checks.length - 1];
  return leads === undefined ? profile : { ...profile, leadResistance: leads };
}

/** What a reading of a loose part contains besides the part: the leads on ohms, the stray capacitance of the sockets on farads. */
export function offsetOf(meter: MeterProfile, mode: MeterMode): number {
  return mode === 'ohms' ? meter.leadResistance : mode === 'capacitance' ? meter.capacitanceZero : 0;
}
