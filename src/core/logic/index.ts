export { type LogicBoard, readBoard } from './board';
export { expectation, LogicDiagnoser, type LogicDiagnosis, type Result } from './diagnose';
export type { LogicFault } from './fault';
export { readSentences, type SentenceRemark } from './sentences';
export { FunctionBench, type Functions, type FunctionSuspect, type FunctionTry, type Seen, type TryItem } from './tries';
export { EXAMPLE_SENTENCES } from './example';
export { LIBRARY } from './written';
