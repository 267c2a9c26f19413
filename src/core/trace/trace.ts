import { anySure, type Goal, nextQuestion } from './ask';
import { type Answer, drawnComponents, type PadPair, type TracedBoard } from './board';
import { conflictIn } from './conflict';
import { type Difference, differencesOf } from './findings';
import { asDrawn, isDrawing, type Known, knownOf, type Unsettled, unsettledOf } from './known';

/** What comes next: a pair to touch, answers that cannot all be true, or what was found. */
export type TraceStep =
  /** `drawn`: whether the drawing joins the two; `left`: questions still to come if all is as drawn. */
  | { readonly kind: 'ask'; readonly pads: PadPair; readonly left: number; readonly drawn: boolean }
  | { readonly kind: 'conflict'; readonly answers: readonly number[] }
  | { readonly kind: 'done'; readonly asDrawn: boolean; readonly differences: readonly Difference[] };

/**
 * The next step of tracing a board: proving that it is as drawn (`prove` ends with the first answer that is not), or finding
 * all that differs (`locate`).
 */
export function traceStep(board: TracedBoard, answers: readonly Answer[], goal: Goal): TraceStep {
  const conflict = conflictIn(board, answers);
  if (conflict) return { kind: 'conflict', answers: conflict };
  const drawn = drawnComponents(board);
  const differs = answers.some((a) => !asDrawn(drawn, a));
  const known = knownOf(board, answers);
  if (goal === 'prove' && differs) return { kind: 'done', asDrawn: false, differences: [] };
  const near = unsettledOf(board, known, false);
  const unsettled = goal === 'locate' && anySure(known, near, answers, drawn) ? near : unsettledOf(board, known, true);
  if (unsettled.length > 0) {
    const pads = nextQuestion(board, known, unsettled, answers, goal);
    return { kind: 'ask', pads, left: questionsLeft(drawn, known, near, answers), drawn: drawn[pads[0]] === drawn[pads[1]] };
  }
  if (isDrawing(board, known)) return { kind: 'done', asDrawn: true, differences: [] };
  return { kind: 'done', asDrawn: false, differences: differencesOf(board, known) };
}

/** One beep less than the components that the drawing joins, and one silence for each two drawn components side by side. */
function questionsLeft(drawn: Int32Array, known: Known, unsettled: readonly Unsettled[], answers: readonly Answer[]): number {
  const joints = known.pads.size - new Set(drawn).size;
  const sides = unsettled.filter((u) => u.sides.length > 0 && drawn[u.a] !== drawn[u.b]);
  const pair = (a: number, b: number) => [drawn[a]!, drawn[b]!].sort((x, y) => x - y).join(' ');
  const parted = new Set(answers.filter((x) => !x.beep).map(({ pads }) => pair(...pads)));
  const toPart = new Set(sides.map((u) => pair(u.a, u.b)).filter((p) => !parted.has(p)));
  return Math.max(1, joints + toPart.size);
}
