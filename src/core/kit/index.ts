export { BARE_BOARD, type BoardState, isSeenTo } from './board';
export { inBatch, move, patch, put, putAll, remove, sheetWith } from './changes';
export { withDependents, written } from './dependents';
export { withLimitsKeys } from './limitsKey';
export { documentOf, foldDocument, type KitDocument, mergeDocuments, newKit } from './document';
export { figuresOf, judgeFigure, type PartFigure } from './figures';
export { kitFindings, type KitFinding } from './findings';
export { extend, fold } from './fold';
export { absentRefs, choiceOn, expectationOf, isWanted, type LineExpectation, listedType, socketedChips } from './lines';
export { compareEntries, unite } from './log';
export { meterOf, offsetOf } from './meters';
export { isPowered } from './stages';
export { derivePostponed, lackingFor, meetsNeed, type NeedVerdict } from './needs';
export { checkCurrent, type DamagedEntry, entryProblem, type OpenFinding, type OpenResult } from './open';
export { checkKit, openKit } from './openFile';
export { inOrder, recordId, type Rooms } from './rooms';
export { KIT_FORMAT, KIT_VERSION } from './schema/names';
export { isKnown, KNOWN_KINDS, KNOWN_ROOMS } from './schema/known';
export type { ChangedBody, Entry, EntryBody, EntryKind, EntryOf, Stamp, UnknownEntry } from './schema/entries';
export { ROOM_NAMES, type RoomName } from './schema/names';
export type { RecordOf } from './schema/records';
export {
  type Check,
  type Claim,
  type CircuitSheet,
  type FirstPowerBy,
  type FittingSchool,
  type KitOption,
  type KitSettings,
  type Line,
  type LineKind,
  type MeasureCheck,
  type MeasuringSchool,
  type Modification,
  type Need,
  type ObserveCheck,
  type Owned,
  type ProbePoint,
  type ReadingValue,
  type Ref,
  type Sheet,
  type Stage,
  type StageSupply,
  type StandIn,
  type TestPoint,
  type TypeCard,
} from './sheet';
export { type BoardChange, type Conflict, type KitState, type LoosePiece, type MeasuredPiece, type Met, type Taken, type Traced, type Tally } from './state';
export { deriveExchanged } from './views/exchanged';
export { foundWay, wayItem } from './views/wayRound';
export { type Compartment, deriveAbsent, deriveMeasuredValues, deriveTray, judgeMeasured, type MeasuredValue, type Piece } from './views/tray';
export {
  type CheckEntry,
  checkTaken,
  derivePile,
  deriveTraced,
  deriveStrangers,
  deriveWaiting,
  deriveTried,
  isFresh,
  isOfMaking,
  lastRedoable,
  lastUndoable,
  stands,
} from './views/views';
export { attachmentHash } from './migrate';
