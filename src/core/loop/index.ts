export { cardOf, expectationText, type TargetCard } from './cards';
export { type LastVerdict, lastVerdict } from './lastVerdict';
export { entryText } from './logText';
export { lotFindings, lotText } from './lots';
export { orientationCard } from './orientation';
export { bandWord, type LooseEntryBody, type Pile, pileOf, readPileEntry, type SortedPile } from './pile';
export { patternText, pieceName, settlingStep } from './pileWords';
export { type CheckProgress, currentStage, deriveStages, isMeasure, type KnownWindows, type StageProgress, type Windows } from './progress';
export { contradicts, type MarkingChoice, type MarkingKind, readBandWords, readMarking } from './readMarking';
export { systematicErrors } from './systematic';
export {
  checkTargets,
  checkTargetsOf,
  countTargets,
  currentTarget,
  findTarget,
  fitTargets,
  looseTargets,
  observableOfTarget,
  type Phase,
  pieceTargets,
  type Target,
  targetOfObservable,
  type TargetState,
} from './targets';
export { sortPile } from './pile';
