import { type Circuit, type Part, type System, VT } from '../circuit';
import { type Board, type BoardPart, elementsOfPart, type Fault, isBipolar, WEAK } from '../fault';
import { randomStream } from '../statistics';
import { opampSetters } from './opamps';
import { LIMIT_SPREAD } from './pieces';
import type { FactorRange, LotSpread, ModelSpread } from './problem';

/** Numbers drawn for one piece, each uniform in 0..1; those of its lot are common to all pieces of one type. */
interface Draw extends Lot {
  readonly value: number;
  readonly junction: number;
  readonly gain: number;
  readonly emission: number;
}
interface Lot {
  readonly lot: number;
  readonly lotEmission: number;
  readonly lotResistance: number;
  readonly lotOtherResistance: number;
}

/** One made-up example of the board: every piece somewhere inside its tolerance. Draws in the order of the board's parts. */
export type Specimen = readonly Draw[];

const drawn = new WeakMap<Board, Map<number, Specimen>>();

/** Specimen number `seed` of a board: always the same one, so that faults are compared on equal boards. */
export function specimenOf(board: Board, seed: number): Specimen {
  const known = drawn.get(board) ?? new Map<number, Specimen>();
  drawn.set(board, known);
  const specimen = known.get(seed) ?? drawSpecimen(board, seed);
  known.set(seed, specimen);
  return specimen;
}

/** Numbers of specimens that twins take their own pieces from. */
const TWINS = 500_000;

/** A known-good twin of specimen number `seed`: other pieces of the same lots. */
export function twinOf(board: Board, seed: number): Specimen {
  if (seed === NOMINAL_SPECIMEN + 1) return specimenOf(board, seed);
  const pieces = specimenOf(board, seed + TWINS);
  return specimenOf(board, seed).map(({ lot, lotEmission, lotResistance, lotOtherResistance }, i) => ({
    ...pieces[i]!,
    lot,
    lotEmission,
    lotResistance,
    lotOtherResistance,
  }));
}

/** Ohms of solder and of what is shorted lie anywhere between a quarter and four times the usual (choice of this product). */
const SHORT_FACTOR = 4;

/** Factor on the ohms of solder and of what is shorted in specimen number `seed`. */
export const shortFactorOf = (seed: number): number => (seed === NOMINAL_SPECIMEN + 1 ? 1 : eitherWay(SHORT_FACTOR, randomStream(seed * 6007 + 5)()));

/** Number of the specimen whose parts all lie in the middle of their ranges. */
export const NOMINAL_SPECIMEN = -1;

const MIDDLE: Draw = { value: 0.5, junction: 0.5, gain: 0.5, emission: 0.5, lot: 0.5, lotEmission: 0.5, lotResistance: 0.5, lotOtherResistance: 0.5 };

function drawSpecimen(board: Board, seed: number): Specimen {
  if (seed === NOMINAL_SPECIMEN + 1) return board.parts.map(() => MIDDLE);
  const random = randomStream(seed * 7919 + 17);
  const lots = new Map<string, Lot>();
  return board.parts.map((p) => {
    const lotKey = p.model ?? p.ref;
    const lot = lots.get(lotKey) ?? { lot: random(), lotEmission: random(), lotResistance: random(), lotOtherResistance: random() };
    lots.set(lotKey, lot);
    return { value: random(), junction: random(), gain: random(), emission: random(), ...lot };
  });
}

/** Faults that take the pins of a part elsewhere, on a layout where it is still the same piece. */
const MOVED: ReadonlySet<Fault['kind']> = new Set<Fault['kind']>(['open-pin', 'turned', 'reversed']);

/** Sets one value of a compiled circuit from a specimen. */
type Step = (specimen: Specimen, spread: ModelSpread) => void;

/**
 * How a specimen is put into a compiled circuit, worked out once per fault (for `only` some elements, when given).
 * `pieceAt` says which pieces were exchanged: a piece takes its own tolerance along.
 */
export function specimenSteps(
  system: System,
  circuit: Circuit,
  board: Board,
  faults: readonly Fault[],
  pieceAt: ReadonlyMap<string, string>,
  only: ReadonlySet<string> | null = null,
): Step[] {
  const parts = new Map(circuit.parts.map((p) => [p.name, p]));
  const indexOf = new Map(board.parts.map((p, i) => [p.ref, i]));
  return board.parts.flatMap((place) => {
    const index = indexOf.get(pieceAt.get(place.ref) ?? place.ref);
    if (index === undefined) return [];
    if (place.kind === 'opamp' && !only)
      return opampSetters(system, circuit, place).map((set): Step => (specimen, spread) => {
        set(specimen[index]!, spread);
      });
    const ofPlace = faults.find((f) => f.parts.some((r) => r === place.ref))?.kind ?? null;
    return elementsOfPart(place).flatMap((element) => {
      const part = parts.get(element);
      if (!part || (only && !only.has(part.name))) return [];
      return stepsOfPart(system, part, shareOf(board.parts[index]!, part, circuit), index, ofPlace, only !== null && ofPlace !== null && MOVED.has(ofPlace));
    });
  });
}

/** What is measured of a part that the deck holds as several elements is shared out by their values. */
function shareOf(piece: BoardPart, part: Part, circuit: Circuit): BoardPart {
  if (!piece.elements || !piece.measured || part.kind !== 'R') return piece;
  const whole = circuit.parts.reduce((sum, p) => (p.kind === 'R' && piece.elements!.includes(p.name) ? sum + p.value : sum), 0);
  const share = part.value / whole;
  return { ...piece, measured: { value: piece.measured.value * share, standard: piece.measured.standard * share } };
}

/** `fault`: kind of the fault at this very place, or null. */
function stepsOfPart(system: System, part: Part, piece: BoardPart, index: number, fault: Fault['kind'] | null, moved: boolean): Step[] {
  const steps: Step[] = [];
  const add = (set: ((v: number) => void) | null, value: (d: Draw, spread: ModelSpread) => number) => {
    if (set) steps.push((specimen, spread) => set(value(specimen[index]!, spread)));
  };
  // A moved pin's lead is not what it was: the move takes the resistance along that the piece has.
  const series = (param: 'RS' | 'RC' | 'RE', ohms: number | undefined, factor: (d: Draw, spread: ModelSpread) => number) => {
    if (ohms && !moved && 'scale' in part) add(system.seriesSetter(part.name, param), (d, spread) => (ohms * factor(d, spread)) / part.scale);
  };
  switch (part.kind) {
    case 'R':
      add(system.valueSetter(part.name), (d) => pieceValue(piece, part.value, d, fault === 'wrong-value'));
      break;
    case 'V': {
      // A run in time takes its levels from the sources themselves.
      const set = system.reactances.length > 0 ? (volts: number) => system.take({ ...part, dc: volts }) : system.valueSetter(part.name);
      add(set, (d) => pieceValue(piece, part.dc, d, false));
      if (part.limit !== undefined) add(system.limitSetter(part.name), (d) => part.limit! * (1 + either(LIMIT_SPREAD, d.gain)));
      break;
    }
    case 'C':
    case 'L':
      if (system.reactances.length > 0)
        add(
          (value) => system.take({ ...part, value }),
          (d) => pieceValue(piece, part.value, d, fault === 'wrong-value'),
        );
      break;
    case 'D': {
      const { IS, N, BV, RS } = part.model.params as { IS: number; N: number; BV: number; RS: number };
      add(system.modelSetter(part.name, 'IS'), (d, spread) =>
        piece.kind === 'led' && spread.ledVolts ? IS * Math.exp(-apart(spread.ledVolts, d) / (N * VT)) : saturation(IS, d, spread),
      );
      if (piece.kind === 'diode') add(system.modelSetter(part.name, 'N'), (d, { diodeEmission }) => N * between(...diodeEmission, d.lotEmission));
      if (piece.kind === 'zener')
        add(
          system.modelSetter(part.name, 'BV'),
          (d, { zenerShare }) => pieceValue(piece, BV, d, fault === 'wrong-value') * (1 + either(piece.measured ? 0 : zenerShare, d.junction)),
        );
      if (piece.kind === 'zener' || piece.kind === 'diode') {
        const { kind } = piece;
        series('RS', RS, (d, { resistance }) => logBetween(resistance[kind], d.lotResistance));
      }
      break;
    }
    case 'Q': {
      const { range } = piece;
      add(system.modelSetter(part.name, 'IS'), (d, spread) => saturation(part.model.params['IS']!, d, spread));
      add(system.modelSetter(part.name, 'BR'), (d, spread) => part.model.params['BR']! * eitherWay(spread.reverseGainFactor, d.emission));
      const { NF, VAF, RC, RE } = part.model.params;
      if (NF !== undefined) add(system.modelSetter(part.name, 'NF'), (d, { bipolarEmission }) => NF * between(...bipolarEmission, d.lotEmission));
      if (VAF) add(system.modelSetter(part.name, 'VAF'), (d, { early }) => VAF * logBetween(early, d.emission));
      if (fault !== 'weak' && isBipolar(piece) && range) add(system.modelSetter(part.name, 'BF'), (d) => between(...range, d.gain));
      series('RC', RC, (d, { resistance }) => logBetween(resistance.bipolar, d.lotResistance));
      series('RE', RE, (d, { resistance }) => logBetween(resistance.bipolar, d.lotOtherResistance));
      break;
    }
    case 'M':
    case 'J': {
      const { range } = piece;
      const shift = fault === 'weak' ? (piece.kind === 'pmos' ? -WEAK.threshold : WEAK.threshold) : 0;
      if (range) add(system.modelSetter(part.name, 'VTO'), (d, { thresholdVolts }) => between(...range, d.gain) + either(thresholdVolts, d.junction) + shift);
      const { KP, BETA } = part.model.params;
      if (KP !== undefined) add(system.modelSetter(part.name, 'KP'), (d, { transconductance }) => KP * logBetween(transconductance, d.lot));
      if (BETA !== undefined) add(system.modelSetter(part.name, 'BETA'), (d, { jfetTransconductance }) => BETA * logBetween(jfetTransconductance, d.lot));
      break;
    }
    default:
      break;
  }
  return steps;
}

const between = (lo: number, hi: number, u: number) => lo + (hi - lo) * u;
const either = (half: number, u: number) => between(-half, half, u);
const logBetween = ([low, high]: FactorRange, u: number) => low * (high / low) ** u;
const eitherWay = (factor: number, u: number) => logBetween([1 / factor, factor], u);
const apart = ({ lot, piece }: LotSpread, d: Draw) => either(lot, d.lot) + either(piece, d.junction);

/** One normal deviate from one uniform (logistic approximation, cut at ±3 σ). */
const normalFrom = (u: number) => Math.max(-3, Math.min(3, Math.log(Math.max(1e-9, u) / Math.max(1e-9, 1 - u)) / 1.702));

/** Value of a piece: measured, or anywhere in its tolerance. Another piece in its place keeps only the tolerance. */
function pieceValue(piece: BoardPart, nominal: number, draw: Draw, otherPiece: boolean): number {
  if (piece.measured && !otherPiece) return piece.measured.value + piece.measured.standard * normalFrom(draw.value);
  return nominal * (1 + between(piece.tolerance[0], piece.tolerance[1], draw.value));
}

const saturation = (carded: number, d: Draw, { saturation: { lot, piece } }: ModelSpread): number =>
  carded * eitherWay(lot, d.lot) * eitherWay(piece, d.junction);
