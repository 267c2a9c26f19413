import { type Circuit, findNet, findPart, PINS } from '../circuit';
import type { KitState, Line, RecordOf, Ref } from '../kit';
import { circuitOf, elementsOf, legOf, netAtPin } from '../stage';
import { cardFor } from '../typecard';
import { packageOf, type Pad, padsAsPlaced } from '../vocabulary';

/** A pad with its net, millimetres on the map; one that may be on several nets stands once for each. */
type NettedPad = RecordOf<'pads'>;

/** Nets of the circuit whose pads come nearer than `near` millimetres to one another. */
export function nearNets(circuit: Circuit, pads: readonly NettedPad[], near: number): RecordOf<'neighbours'>[] {
  const found = new Map<string, RecordOf<'neighbours'>>();
  const netted = pads.flatMap((p) => {
    const net = p.net === undefined ? undefined : findNet(circuit, p.net);
    return net === undefined || circuit.parts.length === 0 ? [] : [{ ...p, net }];
  });
  netted.forEach((a, i) => {
    for (const b of netted.slice(i + 1)) {
      const same = a.ref === b.ref && a.pin === b.pin;
      if (same || a.net === b.net || Math.hypot(a.x - b.x, a.y - b.y) > near) continue;
      const nets = [a.net, b.net].sort() as [string, string];
      found.set(nets.join(' '), { nets });
    }
  });
  return [...found.values()];
}

/**
 * The nets that lie side by side on the map within `near` millimetres: by the pads of a file where there are some with nets,
 * else by those of each part's body where it lies.
 */
export function neighboursOnMap(kit: KitState, near: number): RecordOf<'neighbours'>[] {
  const circuit = circuitOf(kit.sheet);
  return nearNets(circuit, kit.sheet.pads.some((p) => p.net !== undefined) ? kit.sheet.pads : padsOfBodies(kit, circuit), near);
}

function padsOfBodies(kit: KitState, circuit: Circuit): NettedPad[] {
  const lines = new Map(kit.sheet.lines.flatMap((l) => l.refs.map((r) => [r, l] as const)));
  return kit.sheet.placement.flatMap(({ ref, x, y, rotation }) => {
    const line = lines.get(ref);
    const [element, ...more] = elementsOf(kit.sheet, circuit, ref);
    const part = element === undefined || more.length > 0 ? undefined : findPart(circuit, element);
    if (!line || !part) return [];
    const pinsOfPart = PINS[part.kind];
    return padsAsPlaced(packageOf(line).pads, { x, y, rotation }).flatMap((pad) =>
      netsOfPad(kit, line, pad, part.nodes, pinsOfPart).map((net) => ({ ref, pin: String(pad.pin), net, x: pad.x, y: pad.y })),
    );
  });
}

/** Nets that may be on a pad: one where the type card names its pin; all of a small part otherwise, as it may lie either way. */
function netsOfPad(kit: KitState, line: Line, pad: Pad, nodes: readonly string[], pins: readonly string[]): readonly string[] {
  const order = Object.values(cardFor(line, kit.sheet.typeCards)?.pins ?? {}).find((p) => p.length === nodes.length);
  const named = order?.[pad.pin - 1]?.[0]?.toUpperCase();
  const at = named === undefined ? -1 : pins.findIndex((p) => p[0]!.toUpperCase() === named);
  if (at >= 0) return [nodes[at]!];
  return nodes.length <= 3 ? nodes : [];
}

/** A pin as the circuit counts it, and the net that it is on. */
export interface PinChoice {
  readonly pin: string;
  readonly net: string;
}

/**
 * Which pins of the circuit a pad of a body may be. One where a file of the board, the type card or the legs of a larger chip tell;
 * all of a small part otherwise, as it may lie either way; none where the circuit has no such part.
 */
export function pinsAtPad(kit: KitState, ref: Ref, pad: number): PinChoice[] {
  const circuit = circuitOf(kit.sheet);
  const line = kit.sheet.lines.find((l) => l.refs.includes(ref));
  if (!line) return [];
  const [element, ...more] = elementsOf(kit.sheet, circuit, ref);
  const part = element === undefined || more.length > 0 ? undefined : findPart(circuit, element);
  if (!part) {
    const choice = (pin: string): PinChoice[] => {
      const net = netAtPin(kit.sheet, circuit, ref, pin);
      return net === null ? [] : [{ pin, net }];
    };
    const { pads } = packageOf(line);
    const leg = legOf(kit.sheet, line, ref, String(pad));
    // What neither card nor circuit tells is asked, and always at three legs: a body may lie either way, and makers differ.
    if (leg && pads.length > 3) return 'pin' in leg ? choice(leg.pin) : leg.called.flatMap(choice);
    return pads.flatMap((p) => choice(String(p.pin)));
  }
  const told = kit.sheet.pads.find((p) => p.ref === ref && p.pin === String(pad))?.net;
  const filed = told === undefined ? undefined : findNet(circuit, told);
  const nets = filed === undefined ? netsOfPad(kit, line, { pin: pad, x: 0, y: 0 }, part.nodes, PINS[part.kind]) : [filed];
  return part.nodes
    .flatMap((net, i) => (nets.includes(net) ? [{ pin: String(i + 1), net }] : []))
    .filter((c, i, all) => all.findIndex((o) => o.net === c.net) === i);
}
