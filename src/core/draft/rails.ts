import { type Circuit, findPart, GROUND, netsOf, operatingPoint, ownerOf, type Source, UnsolvableError } from '../circuit';
import type { Line, Ref, Sheet } from '../kit';
import { elementsOf } from '../stage';

/** A net that feeds others, and what makes it one. */
export interface Rail {
  readonly net: string;
  readonly from: string;
}

/** Sources that feed the board, not those that are part of a model. */
export const suppliesOf = (circuit: Circuit): Source[] =>
  circuit.parts.filter((p): p is Source => (p.kind === 'V' || p.kind === 'I') && !p.name.includes('.') && p.kind === 'V');

/** The end of a source that is not ground; its plus end where neither is. */
export const hotEnd = (s: Source): string => (s.nodes[0] === GROUND ? s.nodes[1]! : s.nodes[0]!);

/** Volts by net of the circuit as the deck has it; empty where it has no operating point. */
export function voltsOf(circuit: Circuit): Readonly<Record<string, number>> {
  try {
    return operatingPoint(circuit).nodes;
  } catch (error) {
    if (!(error instanceof UnsolvableError)) throw error;
    return {};
  }
}

/** Volts or RMS volts of a source as a builder sets them. */
export const voltsOfSource = ({ dc, wave }: Source): number =>
  wave?.shape === 'sin' && wave.offset === 0 ? Number((Math.abs(wave.amplitude) / Math.SQRT2).toPrecision(3)) : dc;

/** Whether a source is a winding: it alternates about zero. */
export const isWinding = ({ wave }: Source): boolean => wave?.shape === 'sin' && wave.offset === 0;

/**
 * Nets that feed the board: ends of its sources, nets with a reservoir behind them, outputs of regulators. Each named once,
 * in the order of the way that the current takes.
 */
export function railsOf(circuit: Circuit, lines: readonly Line[], sheet: Pick<Sheet, 'circuit'>): Rail[] {
  const found = new Map<string, string>();
  const add = (net: string | undefined, from: string) => {
    if (net !== undefined && net !== GROUND && !found.has(net)) found.set(net, from);
  };
  for (const s of suppliesOf(circuit)) if (!isWinding(s)) add(hotEnd(s), s.name);
  const reservoirs = circuit.parts.filter((p) => p.kind === 'C' && p.value >= LEAST_RESERVOIR && p.nodes.includes(GROUND));
  for (const c of reservoirs)
    add(
      c.nodes.find((n) => n !== GROUND),
      c.name,
    );
  for (const ref of refsOf(lines, 'regulator')) for (const net of netsOfRef(sheet, circuit, ref)) if (isNamedRail(net)) add(net, ref);
  for (const net of netsOf(circuit)) if (isNamedRail(net)) add(net, 'its name');
  return [...found].map(([net, from]) => ({ net, from }));
}

/** A capacitor from here on keeps a rail steady, farads (common practice, no source). */
const LEAST_RESERVOIR = 4.7e-6;
const isNamedRail = (net: string) => /^(?:v?(?:cc|dd|ee|ss|in|out|p|n|bat)|[vp]?\+?\d+(?:v\d*)?|v\d+|\+\d.*|rail.*)$/i.test(net);

/** Refs of a kind of line. */
export const refsOf = (lines: readonly Line[], ...kinds: readonly Line['kind'][]): Ref[] => lines.flatMap((l) => (kinds.includes(l.kind) ? l.refs : []));

/** Nets that a ref touches in the circuit, by pin where its element is expanded. */
export function netsOfRef(sheet: Pick<Sheet, 'circuit'>, circuit: Circuit, ref: Ref): string[] {
  const elements = elementsOf(sheet, circuit, ref);
  const nets = elements.flatMap((element) => {
    const part = findPart(circuit, element);
    if (part) return part.nodes;
    const inside = circuit.parts.filter((p) => p.name.includes('.') && ownerOf(p.name).toLowerCase() === element.toLowerCase());
    return inside.flatMap((p) => p.nodes.filter((_, i) => (p.ports?.[i] ?? -1) >= 0));
  });
  return [...new Set(nets)];
}
