export { applyFault, applyFaults, type FaultyCircuit, WEAK } from './apply';
export { type Board, type BoardPart, elementsOfPart, isBipolar } from './board';
export { type Fault, FAULT_KINDS, faultKey, type FaultKind, HEALTHY } from './fault';
export { betweenStates } from './latch';
export { carryOver, type FaultLayout, FaultLayouts } from './layouts';
export { listBenchFaults } from './benchFaults';
export { listFaults } from './list';
export { faultTitle, type FaultUnit } from './title';
export { describeFault, describeFaults } from './words';
