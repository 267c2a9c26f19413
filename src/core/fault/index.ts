export { applyFault, type FaultyCircuit, WEAK } from './apply';
export { type Board, type BoardPart, elementsOfPart, isBipolar } from './board';
export { type Fault, FAULT_KINDS, type FaultKind, HEALTHY } from './fault';
export { betweenStates } from './latch';
export { carryOver, type FaultLayout, FaultLayouts } from './layouts';
export { listFaults } from './list';
export { describeFault } from './words';
