import { addCard, type Connection, connectionsOf, editConnection } from '../circuit';
import { type ChangedBody, type KitState, type Line, patch, put, type Ref } from '../kit';
import { printNominal } from '../quantity';
import { factsOf } from '../vocabulary';
import { elementOf, circuitOf } from '../stage';

/** What a slip of paper, or the seller's page, says against the printed list. */
export type Amendment =
  | {
      readonly what: 'add';
      readonly kind: 'R' | 'C' | 'L';
      readonly name: Ref;
      readonly value: number;
      readonly nets: readonly [string, string];
      readonly says: string;
    }
  | { readonly what: 'value'; readonly ref: Ref; readonly value: number; readonly says: string };

const KINDS = { R: 'resistor', C: 'capacitor', L: 'inductor' } as const;

/** The changes that an amendment makes of list, stages and circuit, to be written as one batch. */
export function amend(kit: KitState, a: Amendment, newId: () => string): ChangedBody[] {
  return a.what === 'add' ? added(kit, a, newId) : revalued(kit, a, newId);
}

function added(kit: KitState, a: Extract<Amendment, { what: 'add' }>, newId: () => string): ChangedBody[] {
  const kind = KINDS[a.kind];
  const line: Line = {
    id: newId(),
    kind,
    label: printNominal(a.value, factsOf(kind).unit),
    value: a.value,
    tolerance: null,
    quantity: 1,
    refs: [a.name],
    amendment: a.says,
  };
  const first = kit.sheet.stages.find((s) => s.fits.length > 0);
  const fitted = first && patch(kit, 'stages', first.id, { fits: [...first.fits, a.name] });
  const element = a.name[0]?.toUpperCase() === a.kind ? a.name : `${a.kind}${a.name}`;
  const deck = kit.sheet.circuit && addCard(kit.sheet.circuit.deck, `${element} ${a.nets.join(' ')} ${a.value}`);
  const circuit = deck === null ? null : patch(kit, 'circuit', 'circuit', { deck });
  return [put(kit, 'lines', line), ...(fitted ? [fitted] : []), ...(circuit ? [circuit] : [])];
}

/** A ref with another value: it leaves its line for one of its own. */
function revalued(kit: KitState, a: Extract<Amendment, { what: 'value' }>, newId: () => string): ChangedBody[] {
  const line = kit.sheet.lines.find((l) => l.refs.includes(a.ref));
  if (!line) return [];
  const label = printNominal(a.value, factsOf(line.kind).unit);
  const own: Line = { ...line, id: newId(), label, value: a.value, refs: [a.ref], quantity: 1, amendment: a.says };
  // A line that says so already stays as it is.
  const list =
    line.value === a.value
      ? []
      : line.refs.length === 1
        ? [patch(kit, 'lines', line.id, { label, value: a.value, amendment: a.says })]
        : [patch(kit, 'lines', line.id, { refs: line.refs.filter((r) => r !== a.ref), quantity: Math.max(0, line.quantity - 1) }), put(kit, 'lines', own)];
  const { circuit } = kit.sheet;
  const element = circuit && elementOf(kit.sheet, circuitOf(kit.sheet), a.ref);
  const card = circuit && element ? connectionsOf(circuit.deck).find((c) => c.name.toLowerCase() === element.toLowerCase()) : undefined;
  const deck = circuit && card && /^[RCL]/i.test(card.name) ? editConnection(circuit.deck, card.name, { rest: String(a.value) }) : null;
  const rewired = deck === null ? null : patch(kit, 'circuit', 'circuit', { deck });
  return [...list, rewired].flatMap((c) => c ?? []);
}

/** A pad that tracing found on another net than the sheet has it on. */
export interface MovedPad {
  readonly ref: Ref;
  readonly pin: string;
  readonly to: string;
}

/** The card of a part in the deck, and which of its pins one is by name or number; null where the deck has no such pin. */
function pinInDeck(kit: KitState, ref: Ref, pin: string): { readonly card: Connection; readonly at: number } | null {
  const { circuit } = kit.sheet;
  const element = circuit && elementOf(kit.sheet, circuitOf(kit.sheet), ref);
  const card = circuit && element ? connectionsOf(circuit.deck).find((c) => c.name.toLowerCase() === element.toLowerCase()) : undefined;
  const named = card?.pins.findIndex((p) => p.pin.toLowerCase() === pin.toLowerCase()) ?? -1;
  const at = named >= 0 ? named : Number(pin) - 1;
  return card?.pins[at] ? { card, at } : null;
}

const netNamed = (net: string): string => (/^(?:gnd|ground)$/i.test(net) ? '0' : net);

/** The board is right: the pad, and the pin of the circuit behind it, move to the net that was found. One batch. */
export function padMoved(kit: KitState, { ref, pin, to }: MovedPad): ChangedBody[] {
  const pads = kit.sheet.pads.filter((p) => p.ref === ref && p.pin === pin);
  const found = pinInDeck(kit, ref, pin);
  const deck = found && editConnection(kit.sheet.circuit!.deck, found.card.name, { pin: found.at, net: netNamed(to) });
  const rewired = deck === null ? null : patch(kit, 'circuit', 'circuit', { deck });
  return [...pads.map((p) => put(kit, 'pads', { ...p, net: to })), rewired].flatMap((c) => c ?? []);
}

/**
 * A pin goes to another net than the circuit has it on. Where that is the net of the other pin of two, the part sits the other way
 * round, and both change places. One batch; empty where the circuit has it so already, or no such pin.
 */
export function pinPlaced(kit: KitState, { ref, pin, to }: MovedPad): ChangedBody[] {
  const found = pinInDeck(kit, ref, pin);
  if (!found) return [];
  const { card, at } = found;
  const [here, there] = [card.pins[at]!.net, card.pins[1 - at]?.net];
  const net = netNamed(to);
  if (net.toLowerCase() === here.toLowerCase()) return [];
  if (card.pins.length !== 2 || there?.toLowerCase() !== net.toLowerCase()) return padMoved(kit, { ref, pin, to });
  const { deck } = kit.sheet.circuit!;
  const turned = editConnection(editConnection(deck, card.name, { pin: at, net: there }), card.name, { pin: 1 - at, net: here });
  const [own, other] = kit.sheet.pads.filter((p) => p.ref === ref).sort((p) => (p.pin === pin ? -1 : 1));
  const pads = own && other ? [put(kit, 'pads', { ...own, net: other.net }), put(kit, 'pads', { ...other, net: own.net })] : [];
  return [...pads, patch(kit, 'circuit', 'circuit', { deck: turned })].flatMap((c) => c ?? []);
}
