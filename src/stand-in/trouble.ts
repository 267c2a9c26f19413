import { isRunning } from '@/core/circuit';
import { type Fault, type FaultKind, listFaults } from '@/core/fault';
import { expectationOf, type StandIn } from '@/core/kit';
import { randomStream } from '@/core/statistics';
import { allWindows, boardOf, circuitOf, computedWindow, type Setup } from '@/core/stage';
import { readBoard, watchBoard } from './board';
import { hideFault, type Practice } from './practice';

/** What is made to be wrong. */
export const TROUBLES = ['fault', 'two-faults', 'misfitted', 'parcel', 'leads', 'any'] as const;
export type Trouble = (typeof TROUBLES)[number];
export const DIFFICULTIES = ['easy', 'fair', 'hard'] as const;
export type Difficulty = (typeof DIFFICULTIES)[number];

export interface TroubleChoice {
  readonly trouble: Trouble;
  readonly difficulty: Difficulty;
  /** The same seed hides the same trouble on the same kit. */
  readonly seed: number;
}

/** Kinds of fault by how they show (own order, after common practice): plainly, by their volts, only by a little. */
const KINDS: Readonly<Record<Difficulty, readonly FaultKind[]>> = {
  easy: ['open', 'short', 'reversed', 'bridge'],
  fair: ['open', 'short', 'reversed', 'bridge', 'open-pin', 'turned', 'swapped', 'wrong-type', 'wrong-value', 'stuck', 'short-pins'],
  hard: ['wrong-value', 'swapped', 'open-pin', 'leaky', 'weak', 'wrong-type', 'short-pins'],
};
const MISFITTED: readonly FaultKind[] = ['wrong-value', 'swapped', 'reversed', 'turned', 'wrong-type'];

/** Ohms of a bad pair of test leads (common practice, no source). */
const BAD_LEADS = 4.7;
/** Wrong pieces in a parcel, as multiples of what is printed: the neighbour in the series, a digit misread, another decade. */
const WRONG = [0.1, 0.22, 2.2, 4.7, 10];
const WRONG_PIECES = 2;
/** Faults that are tried until one shows at a check; on a board that runs each costs seconds. */
const MOST_TRIED = { resting: 12, running: 3 };

/** Hides a trouble on the simulated bench of a kit: the same for the same kit and choice. Throws where there is nothing to hide it in. */
export function hideTrouble(setup: Setup, { trouble, difficulty, seed }: TroubleChoice): StandIn {
  const random = randomStream(seed);
  const pick = <T>(all: readonly T[]): T | undefined => all[Math.floor(random() * all.length)];
  const kind = trouble === 'any' ? pick(TROUBLES.filter((t) => t !== 'any'))! : trouble;
  const nothing: StandIn = { seed, fault: hideFault(), pieces: {} };
  switch (kind) {
    case 'parcel':
      return { ...nothing, pieces: wrongPieces(setup, random) };
    case 'leads':
      return { ...nothing, fault: hideFault(...shown(setup, 1, KINDS[difficulty], seed, random)), leads: BAD_LEADS };
    case 'misfitted':
      return { ...nothing, fault: hideFault(...shown(setup, 1, MISFITTED, seed, random)) };
    case 'two-faults':
      return { ...nothing, fault: hideFault(...shown(setup, 2, KINDS[difficulty], seed, random)) };
    default:
      return { ...nothing, fault: hideFault(...shown(setup, 1, KINDS[difficulty], seed, random)) };
  }
}

/** Some pieces of other values, and one that is missing. */
function wrongPieces(setup: Setup, random: () => number): StandIn['pieces'] {
  const lines = setup.sheet.lines.filter((l) => !l.notFitted && expectationOf(l)?.mode === 'ohms' && l.refs.length > 0);
  if (lines.length === 0) throw new Error('There is no resistor on the list whose piece could be a wrong one.');
  const pieces: Record<string, number[]> = {};
  for (const line of shuffled(lines, random).slice(0, WRONG_PIECES)) {
    const wrong = expectationOf(line)!.nominal * WRONG[Math.floor(random() * WRONG.length)]!;
    // Pieces are given from the first on: one of a packet is out, the others are as printed.
    pieces[line.id] = [wrong];
  }
  const short = shuffled(
    setup.sheet.lines.filter((l) => l.quantity > 1 && pieces[l.id] === undefined),
    random,
  )[0];
  return short ? { ...pieces, [`${short.id}#count`]: [short.quantity - 1] } : pieces;
}

/** Faults of these kinds that at least one check of the kit shows. */
function shown(setup: Setup, count: number, kinds: readonly FaultKind[], seed: number, random: () => number): Fault[] {
  const circuit = circuitOf(setup.sheet);
  const board = boardOf(setup, circuit);
  // What hangs on the board from outside is not the kit's to mend.
  const all = listFaults(circuit, { ...board, parts: board.parts.filter((p) => p.body !== 'outside') }).filter((f) => f.kind !== 'healthy');
  const wanted = all.filter((f) => kinds.includes(f.kind));
  const most = isRunning(circuit) ? MOST_TRIED.running : MOST_TRIED.resting;
  const tried = shuffled(wanted.length > 0 ? wanted : all, random).slice(0, most);
  if (tried.length === 0) throw new Error('No fault can be hidden on this board: its circuit names none of the parts of the list.');
  const windows = allWindows({ now: setup, past: [] });
  const shows = (fault: Fault) => {
    const practice: Practice = { setup, standIn: { seed, fault: hideFault(fault), pieces: {} }, repaired: [], attempt: 0 };
    return setup.sheet.stages.some((stage) =>
      stage.checks.some((check) => {
        if (check.what === 'observe') return !watchBoard(practice, stage, check);
        const window = computedWindow(windows[`${stage.id}/${check.id}`]);
        const reading = window && readBoard(practice, stage, `${stage.id}/${check.id}`);
        if (window === null || reading === null) return false;
        return reading === 'over' ? !window.over : reading < window.low || reading > window.high;
      }),
    );
  };
  const found: Fault[] = [];
  for (const fault of tried) {
    const taken = new Set<string>(found.flatMap((f) => f.parts));
    if (!fault.parts.some((p) => taken.has(p)) && shows(fault)) found.push(fault);
    if (found.length === count) return found;
  }
  // No check tells any of them: one is hidden all the same, for whoever measures further points.
  return found.length > 0 ? found : tried.slice(0, count);
}

function shuffled<T>(all: readonly T[], random: () => number): T[] {
  return all
    .map((value) => ({ value, at: random() }))
    .sort((a, b) => a.at - b.at)
    .map(({ value }) => value);
}
