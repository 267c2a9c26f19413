export { type Bench, type Condition, type Feed, METER_KINDS, type MeterKind } from './bench';
export { type Offered, type Progress, type Proposal, propose, type ProposedStage, stageSupply } from './propose';
export type { Place } from './read';
