import {
  type Circuit,
  findPart,
  GROUND,
  isRunning,
  operatingPoint,
  type Part,
  type Source,
  statisticsOf,
  steadyState,
  UnsolvableError,
  withoutLimits,
} from '../circuit';
import { loadsOf } from '../consequence';
import { elementsOfPart } from '../fault';
import type { Ref, Stage } from '../kit';
import { readHealthy } from '../specimen';
import { boardOf, circuitAt, circuitOf, type Setup } from '../stage';

/** What a healthy board takes from one supply at a stage. */
export interface SupplyForecast {
  readonly source: string;
  /** Volts set; RMS of a winding. */
  readonly volts: number;
  readonly winding: boolean;
  /** Least and most amperes of healthy boards; RMS of a winding. */
  readonly amperes: readonly [least: number, most: number];
  /** Watts that the board takes at most. */
  readonly watts: number;
}

/** What switching a stage on does to a healthy board. */
export interface StageForecast {
  readonly supplies: readonly SupplyForecast[];
  /** Coulombs that empty capacitors take before all is steady. */
  readonly charge: number;
  /** Greatest volts to ground anywhere, and greatest RMS volts of a winding. */
  readonly dcVolts: number;
  readonly acVolts: number;
  /** The capacitor that keeps most energy, joules. */
  readonly stored: { readonly ref: string; readonly joules: number; readonly volts: number } | null;
  /** Parts that take more than a little power, the warmest first. Watts. */
  readonly warm: readonly { readonly ref: Ref; readonly watts: number }[];
}

const BOARDS = 60;
const SEED = 6100;
/** A running board is run once, with parts in the middle; others differ from it by about this share (own figure). */
const RUNNING_SPREAD = 0.25;
/** Less is not felt by a finger, watts (common practice, no source). */
const FELT = 0.1;
const MOST_WARM = 3;

/**
 * What a healthy board does when a stage is switched on: currents over 60 made-up healthy boards where it rests, one steady run
 * where it does not. Null where the circuit has no solution or the stage no supply that the circuit knows.
 */
export function forecastStage(setup: Setup, id: string): StageForecast | null {
  const stage = setup.sheet.stages.find((s) => s.id === id);
  if (!stage) return null;
  const whole = circuitOf(setup.sheet);
  // What a healthy board wants: a limit that is set too low is to be seen from it.
  const circuit = withoutLimits(circuitAt(setup, whole, stage));
  const sources = stage.supplies.flatMap(({ source }) => {
    const part = findPart(circuit, source);
    return part?.kind === 'V' ? [part] : [];
  });
  if (sources.length === 0) return null;
  try {
    // What should run and stands still takes what its operating point takes.
    const course = (isRunning(circuit) ? running(circuit, sources) : null) ?? resting(setup, whole, circuit, sources);
    if (!course) return null;
    return {
      supplies: sources.map((s, i) => ({ source: s.name, volts: voltsOf(stage, s), winding: isAlternating(s), ...course.drawn[i]! })),
      ...charges(setup, circuit, course.nodes),
      dcVolts: Math.max(0, ...netsOutside(circuit).map((n) => Math.abs(course.nodes[n] ?? 0))),
      acVolts: Math.max(0, ...sources.filter(isAlternating).map((s) => voltsOf(stage, s))),
      warm: loadsOf(setup, circuit)
        .filter((l) => l.watts >= FELT)
        .sort((a, b) => b.watts - a.watts)
        .slice(0, MOST_WARM)
        .map(({ ref, watts }) => ({ ref, watts })),
    };
  } catch (error) {
    if (error instanceof UnsolvableError) return null;
    throw error;
  }
}

/** Nets that a probe can reach: inside a model anything may stand. */
const netsOutside = (circuit: Circuit): string[] => [...new Set(circuit.parts.filter(isOutside).flatMap((p) => p.nodes))].filter((n) => n !== GROUND);
const isOutside = ({ name }: Part) => !name.includes('.');

const isAlternating = (s: Source): boolean => s.wave?.shape === 'sin' && s.wave.offset === 0;
const voltsOf = (stage: Stage, s: Source): number => stage.supplies.find((x) => x.source.toLowerCase() === s.name.toLowerCase())?.volts ?? s.dc;

interface Course {
  readonly drawn: readonly Pick<SupplyForecast, 'amperes' | 'watts'>[];
  /** Volts by net, averages of what moves. */
  readonly nodes: Readonly<Record<string, number>>;
}

function resting(setup: Setup, whole: Circuit, circuit: Circuit, sources: readonly Source[]): Course | null {
  const observables = sources.map((s) => ({ id: s.name, mode: 'dca' as const, source: s.name }));
  const rows = readHealthy({ circuit, observables }, boardOf(setup, whole), setup.meter, BOARDS, SEED);
  // More than any display shows is no forecast.
  if (rows.length < BOARDS / 2 || rows.some((r) => r.includes('over'))) return null;
  const { nodes } = operatingPoint(circuit);
  const drawn = sources.map((s, i) => {
    const all = rows.map((r) => Number(r[i]));
    const amperes = [Math.min(...all), Math.max(...all)] as const;
    return { amperes, watts: Math.abs(s.dc) * Math.max(...amperes.map(Math.abs)) };
  });
  return { drawn, nodes };
}

function running(circuit: Circuit, sources: readonly Source[]): Course | null {
  const nets = netsOutside(circuit);
  const { statistics, settled, stalled } = steadyState(circuit, [...nets, ...sources.map((s) => `I(${s.name})`)]);
  if (stalled) return null;
  const drawn = sources.map((s) => {
    const current = settled.volts[`I(${s.name})`]!;
    const { average, rms } = statisticsOf(settled.times, current);
    const volts = (k: number, n: string | undefined) => settled.volts[n ?? '']?.[k] ?? 0;
    const power = statisticsOf(
      settled.times,
      current.map((a, k) => -a * (volts(k, s.nodes[0]) - volts(k, s.nodes[1]))),
    ).average;
    const amperes = isAlternating(s) ? rms : -average;
    return { amperes: [amperes * (1 - RUNNING_SPREAD), amperes * (1 + RUNNING_SPREAD)] as const, watts: Math.max(0, power) * (1 + RUNNING_SPREAD) };
  });
  return { drawn, nodes: Object.fromEntries(nets.map((n) => [n, statistics[n]?.average ?? 0])) };
}

/** What the capacitors take until all is steady, and the one that keeps most. */
function charges(setup: Setup, circuit: Circuit, nodes: Course['nodes']): Pick<StageForecast, 'charge' | 'stored'> {
  const refs = new Map(boardOf(setup, circuit).parts.flatMap((p) => elementsOfPart(p).map((element) => [element, p.ref] as const)));
  const volts = (n: string | undefined) => nodes[n ?? ''] ?? 0;
  const kept = circuit.parts.flatMap((p) => {
    if (p.kind !== 'C' || !isOutside(p)) return [];
    const u = Math.abs(volts(p.nodes[0]) - volts(p.nodes[1]));
    return [{ ref: refs.get(p.name) ?? p.name, volts: u, coulombs: p.value * u, joules: (p.value * u * u) / 2 }];
  });
  const most = kept.reduce<(typeof kept)[number] | null>((a, b) => (a && a.joules >= b.joules ? a : b), null);
  return { charge: kept.reduce((sum, c) => sum + c.coulombs, 0), stored: most && { ref: most.ref, joules: most.joules, volts: most.volts } };
}
