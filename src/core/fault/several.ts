import { type Circuit, findPart, type Part, removeParts, replacePart, withValue } from '../circuit';
import { type BoardPart, elementsOfPart } from './board';
import type { Fault } from './fault';

/*
 * Parts that the deck holds as several elements. A control is two halves of a track, the wiper between them (pins 1, W, 3). A
 * network is a row of resistors: with a common pin, which is pin 1, or each between two pins of its own.
 */

const partsOf = (circuit: Circuit, place: BoardPart): Part[] => elementsOfPart(place).flatMap((e) => findPart(circuit, e) ?? []);

/** The net at which all sections of a network begin: its common pin; null where each stands for itself, though some may end together. */
export function commonBeginning(sections: readonly Part[]): string | null {
  const first = sections[0]?.nodes[0];
  return first !== undefined && sections.length > 1 && sections.every((s) => s.nodes.includes(first)) ? first : null;
}

const isNetwork = (place: BoardPart) => place.body === 'network';

/** The net that its elements share: the wiper, or the common pin of a network; null where there is none. */
export function commonNet(circuit: Circuit, place: BoardPart): string | null {
  const parts = partsOf(circuit, place);
  if (isNetwork(place)) return commonBeginning(parts);
  const all = parts.flatMap((p) => [...new Set(p.nodes)]);
  return all.find((n, i) => all.indexOf(n) !== i) ?? null;
}

const CONTROL_ENDS = ['1', '3'];

/** What the pin that all share is called. */
export const commonPin = (place: BoardPart): string => (isNetwork(place) ? '1' : 'W');

/** Pins at the far ends of its elements, in their order; that of a track that ends in its wiper is none. */
export function legPins(circuit: Circuit, place: BoardPart): string[] {
  const elements = elementsOfPart(place);
  if (!isNetwork(place)) return CONTROL_ENDS.slice(0, elements.length);
  const first = commonNet(circuit, place) === null ? (k: number) => 2 * k + 1 : (k: number) => k + 2;
  return elements.map((_, k) => String(first(k)));
}

/** A control or a network: gone as a whole, a pin loose, the wrong way round, or of another value. */
export function faultOfSeveral(circuit: Circuit, place: BoardPart, fault: Fault): Circuit {
  switch (fault.kind) {
    case 'open':
      return removeParts(circuit, [...elementsOfPart(place)]);
    case 'open-pin':
      return fault.detail.pin === commonPin(place) && commonNet(circuit, place) !== null
        ? looseCommon(circuit, place)
        : looseLeg(circuit, place, fault.detail.pin);
    case 'turned':
      return turned(circuit, place);
    case 'wrong-value': {
      const share = place.value === null || place.value === 0 ? 1 : fault.detail.value / place.value;
      return partsOf(circuit, place).reduce((c, p) => (p.kind === 'R' ? replacePart(c, p.name, [withValue(p, p.value * share)]) : c), circuit);
    }
    default:
      return circuit;
  }
}

const moved = (circuit: Circuit, parts: readonly Part[], to: (net: string, part: Part) => string): Circuit =>
  parts.reduce((c, p) => replacePart(c, p.name, [{ ...p, nodes: p.nodes.map((n) => to(n, p)) }]), circuit);

function looseCommon(circuit: Circuit, place: BoardPart): Circuit {
  const common = commonNet(circuit, place);
  return moved(circuit, partsOf(circuit, place), (n) => (n === common ? `${place.ref}~W` : n));
}

/** An element whose far end hangs carries nothing. */
function looseLeg(circuit: Circuit, place: BoardPart, pin: string): Circuit {
  const element = elementsOfPart(place)[legPins(circuit, place).indexOf(pin)];
  return element === undefined ? circuit : removeParts(circuit, [element]);
}

/** Put in the other way round: the nets of its row of pins in reverse. */
function turned(circuit: Circuit, place: BoardPart): Circuit {
  const common = commonNet(circuit, place);
  const parts = partsOf(circuit, place);
  if (common === null) return circuit;
  const far = parts.map((p) => p.nodes.find((n) => n !== common) ?? common);
  const row = isNetwork(place) ? [common, ...far] : [far[0]!, common, ...far.slice(1)];
  const reversed = [...row].reverse();
  const [newCommon, newFar] = isNetwork(place) ? [reversed[0]!, reversed.slice(1)] : [reversed[1]!, [reversed[0]!, ...reversed.slice(2)]];
  return moved(circuit, parts, (n, p) => (n === common ? newCommon : newFar[parts.indexOf(p)]!));
}
