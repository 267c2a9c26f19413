import { weakMapMemoize } from 'reselect';
import { meterById, type MeterProfile } from '../meter';
import type { MeterMode } from '../vocabulary';
import type { KitState } from './state';

/** A meter of the kit, its own or a typical one, with the lead resistance that its last check found. */
export function meterOf(kit: Pick<KitState, 'settings' | 'leads'>, id: string = kit.settings.meter): MeterProfile {
  const profile = kit.settings.meters.find((m) => m.id === id) ?? meterById(id);
  const leads = kit.leads.get(id);
  return leads === undefined ? profile : withLeads(profile, leads);
}

/** Equal meters are one object, so that what follows from them is not computed twice. */
const withLeads = weakMapMemoize((profile: MeterProfile, leads: number): MeterProfile => ({ ...profile, leadResistance: leads }));

/** What a reading of a loose part contains besides the part: the leads on ohms, the stray capacitance of the sockets on farads. */
export function offsetOf(meter: MeterProfile, mode: MeterMode): number {
  return mode === 'ohms' ? meter.leadResistance : mode === 'capacitance' ? meter.capacitanceZero : 0;
}
