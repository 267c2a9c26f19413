export {
  type BoardState,
  checkEntries,
  type CheckEntry,
  type Compartment,
  deriveBoardState,
  deriveMeasuredValues,
  deriveStrangers,
  deriveTray,
  deriveWaiting,
  judgeMeasured,
  lastBoardChange,
  type Piece,
  worst,
} from './derive';
export {
  append,
  type KitDocument,
  type KitSettings,
  lastStanding,
  type MeasuringSchool,
  newKit,
  type Stamp,
  standing,
  type StandIn,
  withSheet,
} from './document';
export { type Entry, type EntryBody, type EntryKind, type EntryOf, type Modification, type Owned, type ReadingValue } from './entry';
export { meterOf, offsetOf } from './meters';
export { meetsNeed, type NeedVerdict } from './needs';
export { expectationOf, KIND_FACTS, type LineExpectation } from './lines';
export { checkKit, openKit, type OpenResult } from './open';
export {
  type Check,
  type CircuitSheet,
  type KitOption,
  type Line,
  type LineKind,
  type MeasureCheck,
  type Need,
  type ObserveCheck,
  type ProbePoint,
  type Ref,
  type Sheet,
  type Stage,
  type StageSupply,
  type TestPoint,
  type TypeCard,
} from './sheet';
