export { type LogicBoard, readBoard } from './board';
export { expectation, LogicDiagnoser, type LogicDiagnosis, type Result } from './diagnose';
export type { LogicFault } from './fault';
