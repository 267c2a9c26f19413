import { addParts, type Circuit, GROUND, Newton, type Part, System } from '../circuit';
import type { RunningObservable } from '../specimen';
import type { MeterProfile } from '../meter';

/** A meter that takes a smaller share of the volts than this is left out of a run. */
const NEGLIGIBLE = 0.003;

/** The circuit with the meter connected where a DC voltage is read, if it can matter there; null elsewhere. */
export function feedsMeter(circuit: Circuit, o: RunningObservable, meter: MeterProfile): Circuit | null {
  if (o.mode !== 'dcv' || resistanceBetween(circuit, o.red, o.black) < NEGLIGIBLE * meter.inputResistance) return null;
  return addParts(circuit, [{ name: '~meterR', kind: 'R', nodes: [o.red, o.black], value: meter.inputResistance }]);
}

/** Ohms between two nets through resistors and sources alone: the most that what switches can leave of it. */
function resistanceBetween(circuit: Circuit, red: string, black: string): number {
  const parts = circuit.parts.filter((p): p is Part => p.kind === 'R' || p.kind === 'L' || (p.kind === 'V' && !p.name.includes('.')));
  const nets = new Set(parts.flatMap((p) => p.nodes));
  if (![red, black].every((net) => net === GROUND || nets.has(net))) return Infinity;
  const system = new System({ ...circuit, parts });
  if (!new Newton(system).solve(null).converged) return Infinity;
  system.linearise(new Float64Array(system.size + 1));
  return system.lu.resistance(system.unknownOf(red), system.unknownOf(black));
}
