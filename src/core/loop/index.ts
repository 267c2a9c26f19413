export { figureHelp } from './figureHelp';
export { cardOf, expectationText, expectedOfCheck, limitsOfCheck, type TargetCard } from './cards';
export { type LastVerdict, lastVerdict } from './lastVerdict';
export { namingOf } from './faultNames';
export { differenceFromKnownGood, type KnownGoodRow, knownGoodRows } from './knownGood';
export { entryText, modificationText } from './logText';
export { lotFindings, lotText } from './lots';
export { orientationCard } from './orientation';
export { type Pile, pileOf } from './pile';
export { bandWord, type LooseEntryBody, readPileEntry } from './pileEntry';
export { patternText, pieceName, settlingStep } from './pileWords';
export {
  type CheckProgress,
  type MeasureProgress,
  type ObserveProgress,
  currentStage,
  deriveStages,
  freshTaken,
  isMeasure,
  type KnownWindows,
  passedStages,
  type StageProgress,
  type Windows,
} from './progress';
export { contradicts, type MarkingChoice, type MarkingKind, readBandWords, readMarking } from './readMarking';
export { outAdvice } from './outAdvice';
export { systematicErrors } from './systematic';
export {
  checkTargets,
  checkTargetsOf,
  countTargets,
  currentTarget,
  findTarget,
  faultTargets,
  looseTargets,
  observableOfTarget,
  pieceTargets,
  targetOfObservable,
} from './targets';
export { fitTargets } from './fitTargets';
export type { Phase, Target, TargetState } from './target';
export { everythingFitted, minutesUnlisted } from './unlisted';
export { postponed, skippedAfter } from './postpone';
export { extremeOf } from './extreme';
export { mountingRemarks } from './mounting';
export { seriesOf } from './series';
export { adjustmentsDue, changedSince, type DueAgain } from './since';
export { rateOf, tapped, type Taps } from './taps';
export { isSoaking, soakMoments, soakStarted } from './soak';
export { type SortedPile, sortPile } from './sortPile';
export { lineTitle, sellerWords } from './lineWords';
export { firstOpenPhase, type PhaseProgress, phaseProgress, PHASES, type WorkPhase } from './phases';
export { findByName, type Place, placesOf } from './places';
export { answerOf, entryOf } from './entryOf';
export { bareBoardItems, lookFindings, lookTargets, secondLookItems } from './inspection';
export { badPieces, inOtherPlace, leftOut, otherValue } from './fitting';
export { deriveRepair, type Repair, type RepairRow } from './repair';
export { isFinished, openMatters } from './finish';
export { isOver, openWaits, type Wait, waitText } from './waits';
export { isPrepared } from './presets';
export { traceTargets } from './tracing';
export type { LookItem } from './look';
export { chooseSteps, LOG_TOPICS, type LogChoice, type LogStep, logSteps, type LogTopic, withdrawalOf } from './logbook';
export { type Standing, standingOf } from './standing';
export { openBeforePower } from './beforePower';
export type { OpenPoint } from './openPoint';
