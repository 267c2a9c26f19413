import { type LogicCheck, readBoard, type SeenItem } from './board';
import { expectation, LogicDiagnoser, type LogicDiagnosis } from './diagnose';
import type { Noted } from './evidence';
import type { LogicFault } from './fault';
import { readSentences, type SentenceRemark, type Sentences } from './sentences';
import { logicFaultText, placeOfNet } from './words';

/** One thing that a try shows: a lamp, a digit, a sounder, or volts at a place. */
export interface TryItem {
  readonly of: string;
  readonly what: SeenItem['what'];
  readonly expected: Noted;
}

/** A try: what is done, and what a healthy board shows. */
export interface FunctionTry {
  readonly check: string;
  readonly items: readonly TryItem[];
}

/** What was seen at a try, by lamp, digit, sounder or place. */
export interface Seen {
  readonly check: string;
  readonly saw: readonly { readonly of: string; readonly saw: Noted }[];
}

export interface FunctionSuspect {
  /** Whether it says that the board is good, or bad in a way that no try shows. */
  readonly healthy: boolean;
  readonly text: string;
  /** Every part that it may lie at, those of the faults alike included. */
  readonly parts: readonly string[];
  readonly probability: number;
  /** Faults that no try of this board tells from it, in words. */
  readonly alike: readonly string[];
}

/** A board in sentences, tried so far. */
export interface Functions {
  readonly remarks: readonly SentenceRemark[];
  readonly tries: readonly FunctionTry[];
  readonly suspects: readonly FunctionSuspect[];
  readonly unexplained: number;
  /** The try that tells most for its effort; null when all are done or nothing more is told apart. */
  readonly next: string | null;
  /** Things that were probably noted wrongly, to be looked at again. */
  readonly doubts: readonly { readonly check: string; readonly of: string }[];
}

const NOTHING: Functions = { remarks: [], tries: [], suspects: [], unexplained: 0, next: null, doubts: [] };
const SHOWN = 8;
const LEAST = 0.005;
const DOUBT = 0.5;

interface Known {
  readonly sentences: string;
  readonly functions: Functions;
  readonly diagnoser: LogicDiagnoser | null;
}

/** Boards by their text: a bench asks of one board after every try. */
export class FunctionBench {
  private known: Known | null = null;

  /** What the sentences say, and what the tries so far point at. */
  of(sentences: string, seen: readonly Seen[], progress?: (share: number) => void): Functions {
    const { functions, diagnoser } = this.boardOf(sentences, progress);
    if (!diagnoser) return functions;
    const results = seen.flatMap(({ check, saw }) => {
      const items = functions.tries.find((t) => t.check === check)?.items;
      const values = items?.map((i) => saw.find((s) => s.of === i.of)?.saw);
      // A try of a board that was written otherwise since says nothing of this one.
      return values?.every((v) => v !== undefined) ? [{ check, saw: values }] : [];
    });
    const { suspects, unexplained, groups, doubts } = diagnoser.suspects(results);
    return { ...functions, ...this.told(diagnoser, suspects, groups), unexplained, next: diagnoser.next(results), doubts: doubtsOf(functions.tries, doubts) };
  }

  /** What a board with a fault shows at every try: a simulated board answers presses with it. */
  shows(sentences: string, fault: LogicFault): Seen[] {
    const { functions, diagnoser } = this.boardOf(sentences);
    if (!diagnoser) return [];
    return expectation(diagnoser.board, fault).map(({ check, saw }, i) => ({
      check,
      saw: functions.tries[i]!.items.map((item, k) => ({ of: item.of, saw: saw[k]! })),
    }));
  }

  private boardOf(sentences: string, progress?: (share: number) => void): Known {
    if (this.known?.sentences === sentences) return this.known;
    this.known = made(sentences, progress);
    return this.known;
  }

  private told({ board }: LogicDiagnoser, suspects: LogicDiagnosis['suspects'], groups: LogicDiagnosis['groups']): Pick<Functions, 'suspects'> {
    const told = new Set<LogicFault>();
    const found: FunctionSuspect[] = [];
    for (const { fault, probability } of suspects) {
      if (told.has(fault) || (probability < LEAST && found.length > 0)) continue;
      const group = groups.find((g) => g.some((f) => isSame(f, fault))) ?? [fault];
      const members = suspects.filter((s) => group.some((f) => isSame(f, s.fault)));
      members.forEach((m) => told.add(m.fault));
      found.push({
        healthy: group.some((f) => f.kind === 'healthy'),
        text: logicFaultText(board, group.find((f) => f.kind === 'healthy') ?? fault),
        parts: [...new Set(group.flatMap((f) => f.parts))],
        probability: members.reduce((sum, m) => sum + m.probability, 0),
        alike: group.filter((f) => f.kind !== 'healthy' && !isSame(f, fault)).map((f) => logicFaultText(board, f)),
      });
    }
    return { suspects: found.sort((a, b) => b.probability - a.probability).slice(0, SHOWN) };
  }
}

const isSame = (a: LogicFault, b: LogicFault) => a === b || (a.kind === b.kind && JSON.stringify([a.parts, a.detail]) === JSON.stringify([b.parts, b.detail]));

const doubtsOf = (tries: readonly FunctionTry[], doubts: LogicDiagnosis['doubts']): Functions['doubts'] =>
  doubts.flatMap(({ check, item, probability }) => {
    const of = tries.find((t) => t.check === check)?.items[item]?.of;
    return probability >= DOUBT && of !== undefined ? [{ check, of }] : [];
  });

function made(sentences: string, progress?: (share: number) => void): Known {
  const { description, remarks, mayBlink } = readSentences(sentences);
  const refused = (all: readonly SentenceRemark[]): Known => ({ sentences, functions: { ...NOTHING, remarks: all }, diagnoser: null });
  if (remarks.some((r) => r.severity === 'error')) return refused(remarks);
  try {
    const board = readBoard({ ...description, checks: withBlinking(description, mayBlink) });
    const tries = expectation(board).map(({ check, saw }, i): FunctionTry => {
      const { see } = board.checks[i]!;
      return { check, items: see.map((item, k) => ({ of: item.part ?? placeOfNet(board, item.net!), what: item.what, expected: saw[k]! })) };
    });
    return { sentences, functions: { ...NOTHING, remarks, tries }, diagnoser: new LogicDiagnoser(board, progress) };
  } catch (error) {
    return refused([...remarks, { line: 0, severity: 'error', message: (error as Error).message }]);
  }
}

/** A lamp that blinks at a try is looked at for its blinking: at one moment it would be called dark. */
function withBlinking(description: Sentences['description'], mayBlink: readonly string[]): readonly LogicCheck[] {
  const { checks } = description;
  if (mayBlink.length === 0) return checks;
  const blinks = (part: string): SeenItem => ({ what: 'blink', part });
  const watched = readBoard({ ...description, checks: checks.map((c) => ({ ...c, see: mayBlink.map(blinks) })) });
  const seen = expectation(watched).map(({ saw }) => new Set(mayBlink.filter((_, i) => saw[i] !== 'no')));
  return checks.map((c, i) => ({ ...c, see: c.see.map((item) => (item.what === 'look' && seen[i]!.has(item.part!) ? blinks(item.part!) : item)) }));
}
