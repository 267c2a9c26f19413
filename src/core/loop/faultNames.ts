import type { Fault, FaultNaming, FaultUnit } from '../fault';
import type { KitState } from '../kit';
import { type PlaceNames, placeNames } from '../stage';

const known = new WeakMap<KitState['sheet'], PlaceNames>();

/** How faults are named on a kit's board: test points, legs and parts for nets, the unit of the part for a value. */
export function namingOf(kit: Pick<KitState, 'sheet'>): (fault: Fault) => FaultNaming {
  const names = known.get(kit.sheet) ?? placeNames(kit.sheet);
  known.set(kit.sheet, names);
  return (fault) => ({ unit: unitOfFault(kit, fault), net: names.of, across: names.across });
}

/** Unit in which the value of a fault's part is said. */
function unitOfFault(kit: Pick<KitState, 'sheet'>, fault: Fault): FaultUnit {
  const kind = kit.sheet.lines.find((l) => fault.parts.some((p) => l.refs.includes(p)))?.kind;
  return kind === 'zener' ? 'V' : kind === 'capacitor' || kind === 'electrolytic' || kind === 'tantalum' ? 'F' : 'ohm';
}
