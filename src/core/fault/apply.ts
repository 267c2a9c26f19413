import { addParts, type Circuit, findPart, type Model, type Part, PINS, removeParts, replacePart, type Semiconductor, withValue } from '../circuit';
import { OPAMP_PINS } from '../vocabulary';
import type { Board, BoardPart } from './board';
import { blankChip, isDip, portNets, railsOf, rewirePorts } from './chip';
import type { Fault } from './fault';
import { faultOfSeveral } from './several';

/** Contact resistances of the faults, ohms (choices of this product: a shorted part, a solder bridge, a reversed electrolytic). */
const SHORT_OHMS = 0.1;
const BRIDGE_OHMS = 0.05;
const REVERSED_ELECTROLYTIC_OHMS = 1000;
/** A weak transistor's current gain, a weak zener's share of its voltage, a weak MOSFET's extra threshold in volts. */
export const WEAK = { hfe: 8, zener: 0.6, threshold: 2 } as const;
/** A leaky capacitor's resistance; a sagging supply's share of its voltage and its own resistance; a lead that is not plugged in (choices of this product). */
const LEAK_OHMS = 4700;
const SAG = { share: 0.75, ohms: 20 } as const;
const UNPLUGGED_OHMS = 1e9;
/** Ohms of a wire link, a solder bridge made on purpose, or a jumper. */
export const STRAP_OHMS = 0.01;
/** Drive of a stuck op-amp's gain stage, volts. */
const STUCK_DRIVE = 1;

/** A circuit with a fault in it, and which piece now sits at which place (pieces carry their own tolerance along). */
export interface FaultyCircuit {
  readonly circuit: Circuit;
  /** Ref of the piece that sits at a ref's place, where it is another one. */
  readonly pieceAt: ReadonlyMap<string, string>;
}

/** Names of the resistors that faults put in, or their ends. */
const BRIDGE = '~bridge';
const SHORT = '~short';

const NOWHERE: ReadonlyMap<string, string> = new Map();

/**
 * Puts a fault into a circuit. A part that is not in the circuit (not fitted yet) changes nothing. `sound`: the circuit before
 * any fault, where `circuit` has one already.
 */
export function applyFault(circuit: Circuit, board: Board, fault: Fault, sound = circuit): FaultyCircuit {
  const plain = (c: Circuit): FaultyCircuit => ({ circuit: c, pieceAt: NOWHERE });
  if (fault.kind === 'healthy') return plain(circuit);
  if (fault.kind === 'bridge') return plain(bridge(circuit, fault.detail.nets));
  if (fault.kind === 'track') return plain(broken(circuit, board, fault.detail));
  if (fault.kind === 'strap') return plain(strapped(circuit, board, fault.detail));
  const refs = fault.parts.map((ref) => partOf(board, ref));
  if (fault.kind === 'swapped' || (fault.kind === 'wrong-type' && fault.parts.length === 2)) return exchange(circuit, sound, board, refs[0]!, refs[1]!);
  return plain(applyToPart(circuit, sound, board, refs[0]!, fault));
}

/** Puts several faults, on parts of their own, into a circuit. */
export function applyFaults(circuit: Circuit, board: Board, faults: readonly Fault[]): FaultyCircuit {
  return faults.reduce<FaultyCircuit>(
    (so, fault) => {
      const next = applyFault(so.circuit, board, fault, circuit);
      return { circuit: next.circuit, pieceAt: new Map([...so.pieceAt, ...next.pieceAt]) };
    },
    { circuit, pieceAt: NOWHERE },
  );
}

function partOf(board: Board, ref: string): BoardPart {
  const found = board.parts.find((p) => p.ref === ref);
  if (!found) throw new Error(`the board has no part ${ref}`);
  return found;
}

function applyToPart(
  circuit: Circuit,
  sound: Circuit,
  board: Board,
  place: BoardPart,
  fault: Exclude<Fault, { kind: 'healthy' | 'bridge' | 'swapped' | 'strap' | 'track' }>,
): Circuit {
  if (place.kind === 'opamp' && fault.kind === 'open-pin')
    return loosePort(circuit, place, (OPAMP_PINS as readonly string[]).indexOf(fault.detail.pin), fault.detail.pin);
  if (place.kind === 'chip') return chipFault(circuit, place, fault);
  if (fault.kind === 'stuck') return stuck(circuit, place, fault.detail.level);
  if (fault.kind === 'blank') return blankChip(circuit, place.element);
  if (place.elements) return faultOfSeveral(circuit, place, fault);
  const part = findPart(circuit, place.element);
  if (!part) return circuit;
  const change = (by: Part) => replacePart(circuit, part.name, [by]);
  switch (fault.kind) {
    case 'open':
      return removeParts(circuit, [part.name]);
    case 'short':
      return addParts(circuit, [resistor(part.name + SHORT, part.nodes[0]!, part.nodes[1]!, SHORT_OHMS)]);
    case 'short-pins':
      return addParts(circuit, [resistor(part.name + SHORT, pinNode(part, fault.detail.pins[0]), pinNode(part, fault.detail.pins[1]), SHORT_OHMS)]);
    case 'open-pin':
      return change(loosen(part, fault.detail.pin));
    case 'reversed':
      if (part.kind === 'C') return addParts(circuit, [resistor(`${part.name}~leak`, part.nodes[0]!, part.nodes[1]!, REVERSED_ELECTROLYTIC_OHMS)]);
      return change({ ...part, nodes: [part.nodes[1]!, part.nodes[0]!] });
    case 'turned':
      return change(turned(part));
    case 'wrong-value':
      return change(part.kind === 'D' ? withModel(part, { BV: fault.detail.value }) : withValue(part, fault.detail.value));
    case 'weak':
      return change(weak(part as Semiconductor));
    case 'leaky':
      return addParts(circuit, [resistor(`${part.name}~leak`, part.nodes[0]!, part.nodes[1]!, LEAK_OHMS)]);
    case 'no-supply':
      return behind(circuit, part, UNPLUGGED_OHMS, 0);
    case 'reversed-supply':
      return change({ ...part, nodes: [part.nodes[1]!, part.nodes[0]!] });
    case 'low-supply':
      return behind(circuit, part, SAG.ohms, part.kind === 'V' ? (1 - SAG.share) * part.dc : 0);
    case 'wrong-type':
      return 'model' in fault.detail ? change({ ...(part as Semiconductor), model: modelByName(sound, board, fault.detail.model) }) : circuit;
  }
}

const resistor = (name: string, a: string, b: string, value: number): Part => ({ name, kind: 'R', nodes: [a, b], value });

/** Whether a part of a faulty circuit is the solder of a bridge or what is left of a shorted part: its ohms are nobody's choice. */
export const isShort = (part: Part): boolean => part.name === BRIDGE || part.name.endsWith(SHORT);

/** What lies beyond a break on a net of its own. */
function broken(circuit: Circuit, board: Board, { net, beyond }: Extract<Fault, { kind: 'track' }>['detail']): Circuit {
  const track = board.tracks?.find((t) => t.net === net && t.beyond.join() === beyond.join());
  if (!track) throw new Error(`the board has no track on net ${net} to ${beyond.join(', ')}`);
  const isBeyond = (p: Part, i: number) => p.nodes[i] === net && track.ends.some((e) => e.element === p.name && e.node === i);
  const cut = (p: Part): Part => (p.nodes.some((_, i) => isBeyond(p, i)) ? { ...p, nodes: p.nodes.map((n, i) => (isBeyond(p, i) ? `${net}~beyond` : n)) } : p);
  return { ...circuit, parts: circuit.parts.map(cut) };
}

/** The strap of an option taken from its choice to another one. */
function strapped(circuit: Circuit, board: Board, { option, choice }: Extract<Fault, { kind: 'strap' }>['detail']): Circuit {
  const strap = board.straps?.find((s) => s.option === option);
  if (!strap) throw new Error(`the board has no option ${option}`);
  const nets = strap.links.find((l) => l.choice === choice)?.nets ?? [];
  const others = circuit.parts.filter((p) => !p.name.startsWith(strap.element));
  return addParts(
    { ...circuit, parts: others },
    nets.map(([a, b], i) => resistor(`${strap.element}~${i}`, a, b, STRAP_OHMS)),
  );
}

function bridge(circuit: Circuit, nets: readonly [string, string]): Circuit {
  return addParts(circuit, [resistor(BRIDGE, nets[0], nets[1], BRIDGE_OHMS)]);
}

const pinIndex = (part: Part, pin: string) => PINS[part.kind].indexOf(pin);
const pinNode = (part: Part, pin: string) => part.nodes[pinIndex(part, pin)]!;

/** The part with one pin on a net of its own; the bulk of a MOSFET goes with its source. */
function loosen(part: Part, pin: string): Part {
  const loose = `${part.name}~${pin}`;
  const at = part.nodes[pinIndex(part, pin)];
  const withBulk = part.kind === 'M' && pin === 'S';
  return { ...part, nodes: part.nodes.map((n, i) => (i === pinIndex(part, pin) || (withBulk && i === 3 && n === at) ? loose : n)) };
}

/** Emitter and collector (drain and source) exchanged; the bulk goes with the source pin. */
function turned(part: Part): Part {
  const [a, b, c, d] = part.nodes as [string, string, string, string?];
  if (part.kind === 'M') return { ...part, nodes: [c, b, a, d === c ? a : d!] };
  return { ...part, nodes: [c, b, a] };
}

function withModel(part: Semiconductor, params: Readonly<Record<string, number>>): Semiconductor {
  return { ...part, model: { ...part.model, params: { ...part.model.params, ...params } } };
}

function weak(part: Semiconductor): Semiconductor {
  const { params } = part.model;
  if (part.kind === 'Q') return withModel(part, { BF: WEAK.hfe });
  if (part.kind === 'D') return withModel(part, { BV: params['BV']! * WEAK.zener });
  return withModel(part, { VTO: params['VTO']! + (part.model.kind === 'PMOS' ? -WEAK.threshold : WEAK.threshold) });
}

function modelByName(sound: Circuit, board: Board, name: string): Model {
  for (const place of board.parts) {
    const part = pieceOf(sound, board, place);
    if (part && 'model' in part && part.model.name === name) return part.model;
  }
  throw new Error(`no part of the board is a ${name}`);
}

/** The piece that belongs in a place: as the circuit has it, or as the finished board will. */
const pieceOf = (sound: Circuit, board: Board, place: BoardPart): Part | undefined =>
  findPart(sound, place.element) ?? (board.finished && findPart(board.finished, place.element));

/** Each in the other's place; a place that is not fitted yet stays empty, its piece sits in the other one all the same. */
function exchange(circuit: Circuit, sound: Circuit, board: Board, a: BoardPart, b: BoardPart): FaultyCircuit {
  if (a.kind === 'chip' && b.kind === 'chip') return { circuit: exchangeChips(circuit, a, b), pieceAt: NOWHERE };
  const [pa, pb] = [pieceOf(sound, board, a), pieceOf(sound, board, b)];
  if (!pa || !pb) return { circuit, pieceAt: NOWHERE };
  const inPlaceOf = (place: Part, piece: Part): Part => ({ ...piece, name: place.name, nodes: place.nodes });
  const put = (into: Circuit, place: Part, piece: Part) => (findPart(into, place.name) ? replacePart(into, place.name, [inPlaceOf(place, piece)]) : into);
  return {
    circuit: put(put(circuit, pa, pb), pb, pa),
    pieceAt: new Map([
      [a.ref, b.ref],
      [b.ref, a.ref],
    ]),
  };
}

/** Two chips in each other's sockets: each keeps what is inside it, and gets the other's nets leg by leg. */
function exchangeChips(circuit: Circuit, a: BoardPart, b: BoardPart): Circuit {
  const [atA, atB] = [portNets(circuit, a.element), portNets(circuit, b.element)];
  return rewirePorts(
    rewirePorts(circuit, a.element, (port) => atB.get(port)),
    b.element,
    (port) => atA.get(port),
  );
}

/** A supply behind a resistance, lower by some volts. Its own element stays as it is: its spread and its display belong to it. */
function behind(circuit: Circuit, source: Part, ohms: number, lessVolts: number): Circuit {
  const [inner, middle] = [`${source.name}~own`, `${source.name}~lead`];
  const moved: Part = { ...source, nodes: [inner, ...source.nodes.slice(1)] };
  return addParts(replacePart(circuit, source.name, [moved]), [
    { name: `~${source.name}~less`, kind: 'V', nodes: [inner, middle], dc: lessVolts, wave: null },
    resistor(`~${source.name}~lead`, middle, source.nodes[0]!, ohms),
  ]);
}

/** Gain stage of an op-amp sub-circuit: its first G element. */
const gainStage = (circuit: Circuit, place: BoardPart) =>
  circuit.parts.find((p) => p.kind === 'G' && p.name.toLowerCase().startsWith(`${place.element.toLowerCase()}.`));

function stuck(circuit: Circuit, place: BoardPart, level: 'high' | 'low'): Circuit {
  const stage = gainStage(circuit, place);
  if (stage?.kind !== 'G') return circuit;
  const drive = stage.gain * (level === 'high' ? STUCK_DRIVE : -STUCK_DRIVE);
  return replacePart(circuit, stage.name, [{ name: stage.name, kind: 'I', nodes: stage.nodes.slice(0, 2), dc: drive, wave: null }]);
}

/** Everything inside the sub-circuit that hung on this pin moves to a net of its own. */
const loosePort = (circuit: Circuit, place: BoardPart, port: number, pin: string): Circuit =>
  rewirePorts(circuit, place.element, (p) => (p === port ? `${place.element}~${pin}` : undefined));

/** A chip that is missing or dead, blank, has a loose pin or a stuck output, or (with three legs) sits the wrong way round or is shorted through. */
function chipFault(circuit: Circuit, place: BoardPart, fault: Exclude<Fault, { kind: 'healthy' | 'bridge' | 'swapped' }>): Circuit {
  const nets = portNets(circuit, place.element);
  const net = (pin: string) => nets.get(Number(pin) - 1);
  switch (fault.kind) {
    case 'open':
      return removeParts(circuit, [place.element]);
    case 'open-pin':
      return loosePort(circuit, place, Number(fault.detail.pin) - 1, fault.detail.pin);
    case 'turned':
      return rewirePorts(circuit, place.element, (port) => nets.get(isDip(circuit, place.element) ? (port + nets.size / 2) % nets.size : 2 - port));
    case 'blank':
      return blankChip(circuit, place.element);
    case 'stuck': {
      const rails = railsOf(circuit, place.element);
      const output = fault.detail.pin === undefined ? undefined : net(fault.detail.pin);
      return !rails || output === undefined
        ? circuit
        : addParts(circuit, [resistor(place.element + SHORT, output, fault.detail.level === 'high' ? rails.high : rails.low, SHORT_OHMS)]);
    }
    case 'short-pins': {
      const [a, b] = fault.detail.pins.map(net);
      return a === undefined || b === undefined ? circuit : addParts(circuit, [resistor(place.element + SHORT, a, b, SHORT_OHMS)]);
    }
    default:
      return circuit;
  }
}
