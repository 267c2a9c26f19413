export type { Goal } from './ask';
export { type Answer, boardFor, type FittedPart, type Link, type Pad, type PadPair, type TracedBoard } from './board';
export type { Difference } from './findings';
export { type KitTrace, SIDE_BY_SIDE, traceOf } from './kitBoard';
export { traceStep, type TraceStep } from './trace';
export { LOOSE_UNMARKED, unmarkedRefs, type WhichAnswer, whichAnswered, whichItem, whichPad, type WhichWay } from './whichWay';
