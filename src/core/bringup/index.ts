export { type Bench, type Condition, type Feed, METER_KINDS, type MeterKind } from './bench';
export { feedsAt } from './board';
export { type Offered, type Progress, type Proposal, propose, type ProposedStage, stageSupply } from './propose';
export type { Place } from './read';
