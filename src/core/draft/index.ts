export { amend, type Amendment, type MovedPad, padMoved } from './amend';
export { type Draft, readDraft, suggestedNets } from './newKit';
export { type Beside, type DeckReading, makeSheet, NOTHING_BESIDE, readDeckAgainst, withLooks, withNeeds } from './newKit';
export { proposeStages } from './proposeStages';
export { proposeLadder } from './ladder';
export { isBuiltLadder } from './stageParts';
export { acceptDifference, diffLines, type LineDifference } from './listDiff';
export { type Places, readCheckSentence, type SentenceReading } from './sentence';
export { acceptStage, diffStages, type StageDifference } from './stageDiff';
export {
  answerPin,
  isLoose,
  netWord,
  nextPin,
  suppliesIn,
  type WalkAnswer,
  walkFindings,
  walkOf,
  type WalkPart,
  type WalkPin,
  type WalkSupply,
  withSupply,
  withSupplyVolts,
} from './walk';
export {
  matchRoles,
  type PlacedTemplate,
  placeTemplate,
  type Role,
  rolesOf,
  type Template,
  TEMPLATE_GROUPS,
  type TemplateLook,
  TEMPLATES,
  type TemplateValues,
} from './templates';
export { besideChanges } from './beside';
export { type Difference, foundDifferences, pinSaid, settleDifference, type SettledBy, type Source, valueSaid } from './differences';
export { draftKit, type DraftedKit, type DraftRequest, type ToldCircuit } from './draftKit';
