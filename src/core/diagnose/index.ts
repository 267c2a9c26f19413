export { faultySuspects, type Findings, type PredictedCell, type Ranked, shownSuspects, type TableRow } from './investigation';
export { diagnoserOf, findSuspects, investigate, type Investigation } from './investigation';
export { investigationInputs, type InvestigationInputs } from './investigationInputs';
export { Diagnoser } from './diagnoser';
export { type WorkEvidence, workOf } from './work';
export { WORK_FACTORS, workReasons } from './workReasons';
export { rankCauses, type RankedCause, type Symptom, SYMPTOMS } from './symptoms';
export { type CheckWorth, type Worth, worthOf } from './worth';
