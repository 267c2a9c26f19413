import { type Bench, type Feed, type MeterKind, propose, type Progress, type Proposal } from '../bringup';
import { type Circuit, UnsolvableError } from '../circuit';
import { socketedChips, type Stage, withLimitsKeys } from '../kit';
import { proposeLadder } from './ladder';
import { hotEnd, isWinding, suppliesOf, voltsOfSource } from './rails';
import { withReadings } from './readingLadder';
import type { Known } from './stageParts';

/** What is told of the bench beside the kit; what is left out is taken from the circuit and the list. */
export interface BenchSide {
  readonly feeds?: readonly Feed[];
  readonly meter?: MeterKind;
  readonly modes?: readonly string[] | null;
  readonly conditions?: Bench['conditions'];
  readonly sockets?: readonly string[];
  readonly probes?: readonly string[] | null;
  /** Limits are kept with every check: whoever reads the kit computes none. */
  readonly allLimits?: boolean;
}

export interface ProposedLadder {
  readonly stages: readonly Stage[];
  /** What the ladder's readings tell; null where no circuit can be read. */
  readonly proposal: Proposal | null;
}

/** Hertz up to which an alternating source is the mains behind a transformer, not a signal. */
const MAINS = 100;

/** Stages with their checks and limits from what is known of a kit: the ladder of the trade, read on simulated healthy and faulty boards. */
export function proposeStages(known: Known, circuit: Circuit | null, side: BenchSide = {}, progress?: Progress): ProposedLadder {
  const stages = proposeLadder(known, circuit);
  const deck = known.circuit?.deck;
  if (!circuit || circuit.parts.length === 0 || deck === undefined) return { stages, proposal: null };
  const bench: Bench = {
    lines: known.lines,
    circuit,
    deck,
    feeds: side.feeds ?? feedsIn(known, circuit),
    probes: side.probes === undefined ? known.testPoints.map((t) => t.net) : side.probes,
    meter: side.meter ?? 'unknown',
    modes: side.modes ?? null,
    conditions: side.conditions ?? [],
    sockets: side.sockets ?? (known.built ? [] : socketedChips(known.lines)),
  };
  if (bench.feeds.length === 0) return { stages, proposal: null };
  try {
    const proposal = propose(bench, progress);
    const read = withReadings(stages, { proposal, bench, testPoints: known.testPoints, allLimits: side.allLimits ?? false });
    return { stages: withLimitsKeys(known, read), proposal };
  } catch (error) {
    if (!(error instanceof UnsolvableError)) throw error;
    return { stages, proposal: null };
  }
}

/** The supplies of a drawing, as they are usually made: windings, and what the list calls a battery or USB. */
function feedsIn({ needs, lines }: Known, circuit: Circuit): Feed[] {
  const chips = lines.filter((l) => l.kind !== 'resistor').flatMap((l) => l.refs.map((r) => r.toLowerCase()));
  const told = needs.map((n) => `${n.kind} ${n.text}`).join(' ');
  const kind = /\bUSB\b/i.test(told) ? 'usb' : /batter|cell|accu|pile/i.test(told) ? 'battery' : 'dc';
  return suppliesOf(circuit).flatMap((s): Feed[] => {
    const standIn = s.wave?.shape === 'pulse' || s.wave?.shape === 'pwl' || chips.some((r) => r.length > 1 && s.name.toLowerCase().includes(r));
    const signal = s.wave?.shape === 'sin' && s.wave.frequency > MAINS;
    if (standIn || signal || voltsOfSource(s) === 0) return [];
    const back = s.nodes.find((n) => n !== hotEnd(s)) ?? s.nodes[1]!;
    return [{ net: hotEnd(s), back, kind: isWinding(s) ? 'winding' : kind, volts: Math.abs(voltsOfSource(s)) }];
  });
}
