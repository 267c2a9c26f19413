import type { Line, Ref, Sheet } from '../kit';
import { cardFor } from '../typecard';
import { pinCalled } from '../vocabulary';
import { circuitOf, elementOf, pinNames } from './elements';

/** A leg of a body in the circuit: the pin as the circuit calls it; or what the model calls its pins, where nothing tells which is meant. */
export type Leg = { readonly pin: string } | { readonly called: readonly string[] };

/**
 * Which pin of the circuit a leg of a body is, legs counted from 1 as on the body or called by name. A model lists its pins in any
 * order, and so does the deck those of a transistor: names, the type card, or as many pins as a larger chip has legs tell. Null
 * where the circuit has no such part.
 */
export function legOf(sheet: Pick<Sheet, 'circuit' | 'typeCards'>, line: Line, ref: Ref, leg: string): Leg | null {
  const element = elementOf(sheet, circuitOf(sheet), ref);
  const names = element === null ? undefined : pinNames(sheet).get(element.toLowerCase());
  if (!names) return null;
  const called = names.map(pinCalled);
  const at = (name: string | undefined): Leg | null => {
    const index = name === undefined ? -1 : called.indexOf(pinCalled(name));
    return index < 0 ? null : { pin: called[index]! };
  };
  const own = at(leg);
  if (own || !/^\d+$/.test(leg)) return own ?? { called };
  // Either lead of a diode is the first in some library.
  if (/^d/i.test(element!)) return { called };
  const orders = Object.values(cardFor(line, sheet.typeCards)?.pins ?? {}).filter((pins) => pins.some((pin) => at(pin) !== null));
  const told = [...new Map(orders.map((pins) => at(pins[Number(leg) - 1])).map((l) => [l && 'pin' in l ? l.pin : '', l])).values()];
  if (told.length === 1 && told[0]) return told[0];
  if (orders.length === 0 && names.length > SMALL && names[Number(leg) - 1] !== undefined) return { pin: leg };
  return { called };
}
/** Models of more pins than this list them as the legs stand, models of behaviour have fewer than the chip (common practice). */
const SMALL = 5;
