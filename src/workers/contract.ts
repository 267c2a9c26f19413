/**
 * Every computation that a worker does, told once for both sides: what it follows from, in which lane it queues, and what
 * comes out. `engine.ts` says how each is run; the runner in `store/` asks.
 */
import type { TraceStatistics } from '@/core/circuit';
import type { Consequence, ConsequenceText, Overload, Spare, Substitute, Supposed, Supposition, Swept } from '@/core/consequence';
import { type Findings, investigationInputs, type InvestigationInputs, type Worth } from '@/core/diagnose';
import type { Beside, DeckReading, Draft } from '@/core/draft';
import { weakMapMemoize } from 'reselect';
import {
  BARE_BOARD,
  type CircuitSheet,
  derivePile,
  deriveStrangers,
  deriveTray,
  deriveTried,
  documentOf,
  type KitDocument,
  type KitState,
  type Need,
  type Owned,
  type ReadingValue,
  type Sheet,
  type Stage,
  type StandIn,
} from '@/core/kit';
import { pileOf, type Pile, type SortedPile } from '@/core/loop';
import type { Drawing } from '@/core/draw';
import type { Recorded } from '@/core/load';
import type { Functions, Seen } from '@/core/logic';
import type { Settled } from '@/core/partslist';
import type { Adjustment, Limits, LoadCurve, StageForecast } from '@/core/power';
import { type Setup, setupOf, windowInputs, type WindowInputs, type Windows } from '@/core/stage';
import { practiceOf, type LooseFromBag, type Practice, type PracticePlay, type PracticeStanding, type TroubleChoice } from '@/stand-in';

/** The worker that a computation queues in: one at a time in each. */
export type LaneName = 'windows' | 'pile' | 'matter' | 'suspects' | 'ask' | 'practice' | 'read';

/** What a computation follows from, what is asked beyond that, and what comes out. */
interface Shapes {
  windows: { inputs: WindowInputs; asked: undefined; result: Windows };
  pile: { inputs: Pile; asked: undefined; result: SortedPile };
  /** How much each ref matters, in half-widths of the most sensitive window. */
  influence: { inputs: { setup: Setup; windows: Windows }; asked: Windows; result: Readonly<Record<string, number>> };
  /** Consequence in words of every supposed change, by its key. */
  consequences: {
    inputs: { setup: Setup; windows: Windows; supposed: Readonly<Record<string, Supposed>> };
    asked: Windows;
    result: Readonly<Record<string, ConsequenceText>>;
  };
  /** Works out what every fault would show, and keeps it in its worker for `suspects`. */
  predictions: { inputs: InvestigationInputs; asked: Elsewhere; result: number };
  suspects: { inputs: InvestigationInputs; asked: Elsewhere; result: Findings | null };
  /** One supposition in full: what moves, flips or burns. */
  whatIf: {
    inputs: { setup: Setup; windows: Windows; supposition: Supposition };
    asked: { windows: Windows; supposition: Supposition };
    result: { consequence: Consequence; text: ConsequenceText };
  };
  /** What the checks read as one value goes through a range. */
  sweep: { inputs: { setup: Setup; ref: string; values: readonly number[] }; asked: { ref: string; values: readonly number[] }; result: readonly Swept[] };
  substitutes: {
    inputs: { setup: Setup; windows: Windows; ref: string; spares: readonly Spare[] };
    asked: { windows: Windows; ref: string; spares: readonly Spare[] };
    result: readonly Substitute[];
  };
  /** What the test order catches of the usual faults; null without a circuit or checks. */
  worth: { inputs: { setup: Setup; windows: Windows }; asked: Windows; result: Worth | null };
  /** What turning the control of a check does; null where that cannot be computed. */
  adjustment: { inputs: AdjustmentAsked & { setup: Setup }; asked: AdjustmentAsked; result: Adjustment | null };
  /** What switching a stage on does to a healthy board; null where the circuit cannot tell. */
  stageForecast: { inputs: { setup: Setup; stage: string }; asked: string; result: StageForecast | null };
  /** What a healthy board puts out under load; null where its circuit cannot tell. */
  loadCurve: { inputs: LoadCurveAsked & { setup: Setup }; asked: LoadCurveAsked; result: LoadCurve | null };
  overloads: { inputs: Setup; asked: undefined; result: readonly (Overload & { readonly stage: string })[] };
  /** Volts of every net of a stage's circuit, of the whole circuit for null. */
  netVolts: { inputs: { setup: Setup; stage: string | null }; asked: string | null; result: Readonly<Record<string, number>> };
  /** A board round chips in sentences: its tries, and what those done so far point at; null without sentences. */
  functions: { inputs: { sentences: string; seen: readonly Seen[] } | null; asked: undefined; result: Functions | null };
  /** What a simulated board built around chips shows at every try; null where nothing is hidden there. */
  watchFunctions: { inputs: { sentences: string; fault: string } | null; asked: undefined; result: readonly Seen[] };
  /** The schematic of the circuit; null without one. */
  schematic: { inputs: Pick<Sheet, 'lines' | 'circuit' | 'boards' | 'symbols'>; asked: undefined; result: Drawing | null };
  /** The schematic of a drawing that is being walked: what has been answered so far; null before the first answer. */
  walked: { inputs: WalkedAsked; asked: WalkedAsked; result: Drawing | null };
  /** The course of a net in time, from the operating point (or the deck's start values). */
  course: { inputs: CourseAsked; asked: CourseAsked; result: Course };
  /** A recording of an oscilloscope or logger: its figures and its curve. */
  recorded: { inputs: RecordedAsked; asked: RecordedAsked; result: Recorded };
  /** Places for parts of which none is known, not to scale. */
  layout: { inputs: Pick<Sheet, 'lines' | 'circuit'>; asked: undefined; result: Sheet['placement'] };
  /** A pasted list and deck, read. */
  readDraft: { inputs: DraftAsked; asked: DraftAsked; result: Draft };
  /** The ladder of stages that a list and a deck would get. */
  draftStages: { inputs: StagesAsked; asked: StagesAsked; result: readonly Stage[] };
  /** The ladder that would be proposed for a kit as it is now. */
  kitStages: { inputs: KitStagesAsked; asked: boolean; result: readonly Stage[] };
  /** A deck with its remarks and where it does not meet the list. */
  checkDeck: { inputs: DeckAsked; asked: DeckAsked; result: DeckReading };
  /** A trouble hidden on the simulated bench of a kit. */
  hideTrouble: { inputs: { setup: Setup; choice: TroubleChoice }; asked: TroubleChoice; result: StandIn };
  /** Where a practice round stands: nothing hidden is told before its end. */
  practiceStanding: { inputs: KitDocument; asked: undefined; result: PracticeStanding };
  /** The same round played by the program's own advice; asked for once it is over. */
  practicePlay: { inputs: Pick<KitState, 'sheet' | 'settings'>; asked: undefined; result: PracticePlay };
  drawLoose: { inputs: { practice: Practice; number: number }; asked: number; result: LooseFromBag | null };
  countPieces: { inputs: { practice: Practice; line: string }; asked: string; result: number };
  readPiece: { inputs: { practice: Practice; line: string; piece: number }; asked: { line: string; piece: number }; result: ReadingValue | null };
  readBoard: { inputs: { practice: Practice; stage: string; observable: string }; asked: { stage: string; observable: string }; result: ReadingValue | null };
  watchBoard: { inputs: { practice: Practice; stage: string; check: string }; asked: { stage: string; check: string }; result: boolean };
}

/** Whether one goes back to earlier stages for readings. */
type Elsewhere = boolean;

export interface AdjustmentAsked {
  readonly stage: string;
  readonly check: string;
  readonly limits: Readonly<Record<string, Limits>>;
}
export interface LoadCurveAsked {
  readonly stage: string;
  readonly net: string;
  readonly amps: readonly number[];
}
export interface CourseAsked {
  readonly deck: string;
  readonly net: string;
  readonly seconds: number;
}
export interface DraftAsked {
  readonly list: string;
  readonly deck: string;
  /** What the builder said of the list. */
  readonly settled: Settled;
}
export interface StagesAsked extends DraftAsked {
  readonly nets: readonly string[];
  readonly beside: Beside;
  readonly built: boolean;
  /** What it runs from, where the builder said so beside the list. */
  readonly needs: readonly Need[];
}
export interface KitStagesAsked {
  readonly sheet: Sheet;
  readonly owned: readonly Owned[];
  readonly built: boolean;
}
export type WalkedAsked = Pick<DeckAsked, 'deck' | 'lines'>;
export interface DeckAsked {
  readonly deck: string;
  readonly lines: Setup['sheet']['lines'];
  readonly elements: CircuitSheet['elements'];
}
export interface RecordedAsked {
  readonly csv: string;
  /** 0-based. */
  readonly channel: number;
}
/** A course for drawing, and the statistics of its later part. */
export interface Course {
  readonly times: readonly number[];
  readonly volts: readonly number[];
  readonly statistics: TraceStatistics;
}

export type ComputationName = keyof Shapes;
export type InputsOf<N extends ComputationName> = Shapes[N]['inputs'];
export type AskedOf<N extends ComputationName> = Shapes[N]['asked'];
export type ResultOf<N extends ComputationName> = Shapes[N]['result'];

/** Told how much of a longer work is done, 0..1. */
export type Progress = (done: number) => void;

interface Declaration<N extends ComputationName> {
  readonly lane: LaneName;
  /** What it follows from, as plain data; null when there is nothing to compute. */
  readonly inputs: (kit: KitState, asked: AskedOf<N>) => InputsOf<N> | null;
  /** Work that may take long is stopped when its answer is no longer wanted; short work ends, and its answer is dropped. */
  readonly long: boolean;
  /** Smaller goes first within a lane. */
  readonly priority: number;
  /** What tells one question from another, where that is less than all inputs. */
  readonly identity?: (inputs: InputsOf<N>) => unknown;
}

const question = { lane: 'ask', long: true, priority: 0 } as const;
const practice = { lane: 'practice', long: true, priority: 0 } as const;
const withCircuit = <T>(kit: KitState, inputs: () => T): T | null => (kit.sheet.circuit ? inputs() : null);

/** What each fault would show does not depend on the readings: a further one waits for the work in hand, and does not start it anew. */
const boardsOf = ({ sittings, setup, elsewhere }: InvestigationInputs) => ({
  setup,
  elsewhere,
  boards: sittings.map((s) => ({ stage: s.stage, setup: s.setup, read: s.newest ? null : s.readings.map((r) => r.observable) })),
});

/** Only a kit with a circuit and without any place is laid out. */
const layoutInputs = weakMapMemoize(({ lines, circuit, placement }: Sheet) => (circuit && placement.length === 0 ? { lines, circuit } : null));

/** A proposal follows from the sheet and from what the builder owns. */
const kitStages = weakMapMemoize((sheet: Sheet, owned: KitState['owned'], built: boolean): KitStagesAsked => ({
  sheet,
  owned: [...owned.values()].flatMap((all) => all.at(-1)?.owned ?? []),
  built,
}));

/** What a round is played on: nothing of its log. */
const bench = weakMapMemoize((sheet: Sheet, settings: KitState['settings']) => ({ sheet, settings }));

/** Once per sheet: an order of what matters that changes after every reading would only confuse. */
const asListed = weakMapMemoize((setup: Setup): Setup => ({
  ...setup,
  postponed: [],
  board: { ...BARE_BOARD, straps: setup.board.straps },
  measured: new Map(),
}));

export const COMPUTATIONS: { readonly [N in ComputationName]: Declaration<N> } = {
  windows: { lane: 'windows', long: true, priority: 0, inputs: (kit) => windowInputs(kit) },
  pile: { lane: 'pile', long: true, priority: 0, inputs: (kit) => (derivePile(kit).length > 0 ? pileOf(kit) : null) },
  influence: {
    lane: 'matter',
    long: true,
    priority: 1,
    inputs: (kit, windows) => withCircuit(kit, () => ({ setup: asListed(setupOf(kit)), windows })),
    identity: ({ setup }) => setup,
  },
  consequences: {
    lane: 'matter',
    long: true,
    priority: 0,
    inputs: (kit, windows) => withCircuit(kit, () => ({ setup: setupOf(kit), windows, supposed: deviations(kit) })),
  },
  predictions: { lane: 'suspects', long: true, priority: 0, inputs: (kit, elsewhere) => investigationInputs(kit, elsewhere), identity: boardsOf },
  suspects: { lane: 'suspects', long: false, priority: 1, inputs: (kit, elsewhere) => investigationInputs(kit, elsewhere) },
  whatIf: { ...question, inputs: (kit, asked) => ({ setup: setupOf(kit), ...asked }) },
  sweep: { ...question, inputs: (kit, asked) => ({ setup: setupOf(kit), ...asked }) },
  substitutes: { ...question, inputs: (kit, asked) => ({ setup: setupOf(kit), ...asked }) },
  worth: { lane: 'ask', long: true, priority: 1, inputs: (kit, windows) => withCircuit(kit, () => ({ setup: setupOf(kit), windows })) },
  adjustment: { ...question, priority: 1, inputs: (kit, asked) => withCircuit(kit, () => ({ setup: setupOf(kit), ...asked })) },
  stageForecast: { ...question, priority: 1, inputs: (kit, stage) => withCircuit(kit, () => ({ setup: setupOf(kit), stage })) },
  loadCurve: { ...question, inputs: (kit, asked) => withCircuit(kit, () => ({ setup: setupOf(kit), ...asked })) },
  overloads: { ...question, priority: 1, inputs: (kit) => withCircuit(kit, () => setupOf(kit)) },
  functions: { lane: 'matter', long: true, priority: 2, inputs: functionInputs },
  watchFunctions: { lane: 'matter', long: true, priority: 2, inputs: simulatedFunctions },
  schematic: { lane: 'read', long: true, priority: 1, inputs: ({ sheet: { lines, circuit, boards, symbols } }) => ({ lines, circuit, boards, symbols }) },
  walked: { lane: 'read', long: false, priority: 1, inputs: (_, asked) => asked },
  netVolts: { ...question, priority: 1, inputs: (kit, stage) => ({ setup: setupOf(kit), stage }) },
  course: { ...question, inputs: (_, asked) => asked },
  recorded: { ...question, inputs: (_, asked) => asked },
  layout: { lane: 'read', long: true, priority: 1, inputs: ({ sheet }) => layoutInputs(sheet) },
  readDraft: { lane: 'read', long: true, priority: 0, inputs: (_, asked) => asked },
  draftStages: { lane: 'ask', long: true, priority: 0, inputs: (_, asked) => asked },
  kitStages: { lane: 'ask', long: true, priority: 1, inputs: (kit, built) => kitStages(kit.sheet, kit.owned, built) },
  checkDeck: { lane: 'read', long: true, priority: 0, inputs: (_, asked) => asked },
  hideTrouble: { ...practice, inputs: (kit, choice) => withCircuit(kit, () => ({ setup: asListed(setupOf(kit)), choice })) },
  practiceStanding: { lane: 'ask', long: true, priority: 1, inputs: (kit) => (kit.settings.standIn ? documentOf(kit) : null) },
  practicePlay: { lane: 'ask', long: true, priority: 2, inputs: ({ sheet, settings }) => (settings.standIn ? bench(sheet, settings) : null) },
  drawLoose: { ...practice, inputs: (kit, number) => ({ practice: practiceOf(kit), number }) },
  countPieces: { ...practice, inputs: (kit, line) => ({ practice: practiceOf(kit), line }) },
  readPiece: { ...practice, inputs: (kit, asked) => ({ practice: practiceOf(kit), ...asked }) },
  readBoard: { ...practice, inputs: (kit, asked) => ({ practice: practiceOf(kit), ...asked }) },
  watchBoard: { ...practice, inputs: (kit, asked) => ({ practice: practiceOf(kit), ...asked }) },
};

/** The board in sentences, and what is hidden on its simulated twin; repaired, nothing is. */
function simulatedFunctions({ sheet: { functions }, settings: { standIn }, repaired }: KitState): { sentences: string; fault: string } | null {
  if (!functions || standIn?.functionFault === undefined) return null;
  const { parts } = JSON.parse(atob(standIn.functionFault)) as { parts: readonly string[] };
  return { sentences: functions.sentences, fault: parts.some((p) => repaired.has(p)) ? '' : standIn.functionFault };
}

/** A board in sentences, with the tries that were done on it as it is. */
function functionInputs(kit: KitState): { sentences: string; seen: readonly Seen[] } | null {
  const { functions } = kit.sheet;
  return functions && { sentences: functions.sentences, seen: [...deriveTried(kit).values()] };
}

/** Pieces that deviate, as suppositions about the place they are meant for, and strangers in place of what is missing. */
function deviations(kit: KitState): Record<string, Supposed> {
  return { ...deviatingPieces(kit), ...offers(kit) };
}

/** Every stranger of the pile in place of every missing resistor: keyed `offer:<piece>:<line>`. */
function offers(kit: KitState): Record<string, Supposed> {
  const short = deriveTray(kit).filter((c) => c.counted !== null && c.counted < c.line.quantity && c.line.kind === 'resistor');
  const strangers = deriveStrangers(kit).filter(({ entry }) => entry.part === 'R' && typeof entry.reading === 'number');
  return Object.fromEntries(
    short.flatMap(({ line, counted }) => {
      const ref = line.refs[counted ?? 0];
      return ref ? strangers.map(({ entry }) => [`offer:${entry.id}:${line.id}`, { [ref]: entry.reading as number }] as const) : [];
    }),
  );
}

function deviatingPieces(kit: KitState): Record<string, Supposed> {
  return Object.fromEntries(
    deriveTray(kit).flatMap(({ line, pieces }) =>
      pieces.flatMap((p) =>
        p.ref && p.reckoning && p.entry?.mode === 'ohms' && (p.verdict === 'out' || p.verdict === 'doubtful')
          ? [[`piece:${line.id}:${p.index}`, { [p.ref]: p.reckoning.corrected }] as const]
          : [],
      ),
    ),
  );
}
