import { type Circuit, ownerOf, type Part, type Semiconductor, type Source, VT, type Waveform } from '../circuit';
import { MAKERS } from './makers';
import { type Board, type BoardPart, elementsOfPart } from '../fault';

/** Share of a bench supply's current limit either way: it is set by a knob (common practice, no source). */
export const LIMIT_SPREAD = 0.05;

/** A number drawn evenly from 0..1, always the same one for a name within one specimen. */
export type Draws = (name: string) => number;
/** A part of the circuit as one specimen has it. */
export type Piece = (draw: Draws) => Part;

type Range = readonly [number, number];
const between = ([low, high]: Range, u: number) => low + (high - low) * u;
const logBetween = ([low, high]: Range, u: number) => low * (high / low) ** u;
const either = (half: number, u: number) => between([-half, half], u);
const factor = (most: number, u: number) => logBetween([1 / most, most], u);

/** What the source of an op-amp's offset is called, behind its owner. */
export const OFFSET = '.~offset';

/** The circuit with what a healthy board has and a deck does not tell: a source for the offset of every op-amp. */
export function withOffsets(circuit: Circuit, board: Board): Circuit {
  const opamps = new Set(board.parts.flatMap((p) => (p.kind === 'opamp' ? [p.element.toLowerCase()] : [])));
  if (opamps.size === 0) return circuit;
  const sources = new Map<string, Part>();
  const parts = circuit.parts.map((part): Part => {
    const owner = ownerOf(part.name);
    if (owner === part.name || !opamps.has(owner.toLowerCase()) || !part.ports?.includes(0)) return part;
    const input = `${owner}${OFFSET}`;
    const nodes = part.nodes.map((node, i) => (part.ports![i] === 0 ? input : node));
    const outside = part.nodes[part.ports.indexOf(0)]!;
    sources.set(owner, { name: input, kind: 'V', nodes: [outside, input], dc: 0, wave: null });
    return { ...part, nodes };
  });
  return { ...circuit, parts: [...parts, ...sources.values()] };
}

/** How each part of a circuit varies from one healthy board to the next; parts that are always the same are left out. */
export function piecesOf(circuit: Circuit, board: Board): Piece[] {
  const byElement = new Map(board.parts.flatMap((p) => elementsOfPart(p).map((element) => [element.toLowerCase(), p] as const)));
  return circuit.parts.flatMap((part): Piece[] => {
    const own = byElement.get(part.name.toLowerCase());
    const owner = byElement.get(ownerOf(part.name).toLowerCase());
    const piece = own ? pieceOf(part, own, circuit) : owner ? insidePiece(part, owner, circuit) : null;
    return piece ? [piece] : [];
  });
}

function pieceOf(part: Part, piece: BoardPart, circuit: Circuit): Piece | null {
  switch (part.kind) {
    case 'R':
    case 'C':
    case 'L':
      return (draw) => ({ ...part, value: valueOf(part, piece, circuit, draw(`${piece.ref}:value`)) });
    case 'V':
    case 'I':
      return (draw) => supplied(part, (what) => draw(`${piece.ref}:${what}`));
    case 'D':
      return diodePiece(part, piece);
    case 'Q':
      return bipolarPiece(part, piece);
    case 'M':
    case 'J':
      return fetPiece(part, piece);
    default:
      return null;
  }
}

/** A measured piece is where the meter says, within the meter's error; halves of one track share its measured value. */
function valueOf(part: Extract<Part, { kind: 'R' | 'C' | 'L' }>, piece: BoardPart, circuit: Circuit, u: number): number {
  if (!piece.measured) return part.value * (1 + between(piece.tolerance, u));
  const { value, standard } = piece.measured;
  const whole = piece.elements
    ? circuit.parts.reduce((sum, p) => (p.kind === part.kind && piece.elements!.includes(p.name) ? sum + p.value : sum), 0)
    : part.value;
  // A rectangular error of half-width a has the standard deviation a/√3.
  return (value + either(standard * Math.sqrt(3), u)) * (part.value / whole);
}

function supplied(part: Source, draw: Draws): Source {
  const source = scaled(part, 1 + either(MAKERS.supply, draw('value')));
  return part.limit === undefined ? source : { ...source, limit: part.limit * (1 + either(LIMIT_SPREAD, draw('limit'))) };
}

function scaled(part: Source, by: number): Source {
  return { ...part, dc: part.dc * by, wave: part.wave && scaledWave(part.wave, by) };
}

export function scaledWave(wave: Waveform, by: number): Waveform {
  switch (wave.shape) {
    case 'sin':
      return { ...wave, offset: wave.offset * by, amplitude: wave.amplitude * by };
    case 'pulse':
      return { ...wave, low: wave.low * by, high: wave.high * by };
    case 'pwl':
      return { ...wave, levels: wave.levels.map((l) => l * by) };
  }
}

const withParams = (part: Semiconductor, params: Readonly<Record<string, number>>): Semiconductor => ({
  ...part,
  model: { ...part.model, params: { ...part.model.params, ...params } },
});

const saturation = (carded: number, lot: string, ref: string, draw: Draws) =>
  carded * factor(MAKERS.saturation.lot, draw(`${lot}:IS`)) * factor(MAKERS.saturation.piece, draw(`${ref}:IS`));

function diodePiece(part: Semiconductor, piece: BoardPart): Piece {
  const { IS, N, RS, BV } = part.model.params as Record<'IS' | 'N' | 'RS' | 'BV', number>;
  const lot = part.model.name;
  const { ref } = piece;
  if (piece.kind === 'led')
    return (draw) => {
      const volts = either(MAKERS.led.lot, draw(`${lot}:IS`)) + either(MAKERS.led.piece, draw(`${ref}:IS`));
      return withParams(part, { IS: IS * Math.exp(-volts / (N * VT)) });
    };
  if (piece.kind === 'zener') {
    const { zener } = MAKERS;
    return (draw) =>
      withParams(part, {
        BV: BV * (1 + either(zener.lot, draw(`${lot}:BV`)) + either(zener.piece, draw(`${ref}:BV`))),
        RS: RS * logBetween(zener.resistance, draw(`${lot}:RS`)),
        IS: IS * logBetween(zener.saturation, draw(`${ref}:IS`)),
      });
  }
  const { diode } = MAKERS;
  return (draw) =>
    withParams(part, {
      IS: saturation(IS, lot, ref, draw),
      N: N * between(diode.emission, draw(`${lot}:N`)),
      RS: RS * logBetween(diode.resistance, draw(`${lot}:RS`)),
    });
}

function bipolarPiece(part: Semiconductor, piece: BoardPart): Piece {
  const { IS, NF, VAF, RC, RE, BF } = part.model.params as Record<'IS' | 'NF' | 'VAF' | 'RC' | 'RE' | 'BF', number>;
  const lot = part.model.name;
  const { ref, range } = piece;
  const { bipolar } = MAKERS;
  return (draw) =>
    withParams(part, {
      IS: saturation(IS, lot, ref, draw),
      NF: NF * between(bipolar.emission, draw(`${lot}:NF`)),
      VAF: VAF * logBetween(bipolar.early, draw(`${lot}:VAF`)),
      RC: RC * logBetween(bipolar.resistance, draw(`${lot}:RC`)),
      RE: RE * logBetween(bipolar.resistance, draw(`${lot}:RE`)),
      BF: range ? between(range, draw(`${ref}:BF`)) : BF,
    });
}

function fetPiece(part: Semiconductor, piece: BoardPart): Piece {
  const lot = part.model.name;
  const { ref, range } = piece;
  const { VTO, KP } = part.model.params as Record<'VTO' | 'KP', number>;
  if (part.kind === 'J') return (draw) => withParams(part, { VTO: range ? between(range, draw(`${ref}:VTO`)) : VTO });
  const { mosfet } = MAKERS;
  // Lists tell the threshold's size; a p-channel card has it negative.
  const middle = range ? ((range[0] + range[1]) / 2) * (piece.kind === 'pmos' && range[0] > 0 ? -1 : 1) : VTO;
  return (draw) =>
    withParams(part, {
      VTO: middle + either(mosfet.lot, draw(`${lot}:VTO`)) + either(mosfet.piece, draw(`${ref}:VTO`)),
      KP: KP * logBetween(mosfet.transconductance, draw(`${lot}:KP`)),
    });
}

/** What varies inside a sub-circuit: an op-amp's offset and output limits, a regulator's reference. */
function insidePiece(part: Part, owner: BoardPart, circuit: Circuit): Piece | null {
  if (part.kind !== 'V') return null;
  const lot = owner.model ?? owner.ref;
  if (owner.kind === 'opamp') {
    const { offset } = MAKERS.opamp;
    if (part.name.endsWith(OFFSET)) return (draw) => ({ ...part, dc: either(offset, draw(`${owner.ref}:offset`)) });
    const end = limitOf(part, circuit);
    return end && ((draw) => ({ ...part, dc: part.dc + between(MAKERS.opamp[end], draw(`${lot}:${end}`)) }));
  }
  return /\.v?ref$/i.test(part.name) ? (draw) => ({ ...part, dc: part.dc * (1 + between(owner.tolerance, draw(`${owner.ref}:reference`))) }) : null;
}

/** Which limit of an op-amp's output a source of its sub-circuit sets: the limiting diode hangs on it. */
export function limitOf(part: Source, circuit: Circuit): 'upper' | 'lower' | null {
  const prefix = `${ownerOf(part.name)}.`;
  for (const other of circuit.parts) {
    if (other.kind !== 'D' || !other.name.startsWith(prefix)) continue;
    if (part.nodes.includes(other.nodes[1]!)) return 'upper';
    if (part.nodes.includes(other.nodes[0]!)) return 'lower';
  }
  return null;
}
