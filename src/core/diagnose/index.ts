export { type Findings, type PredictedCell, shownSuspects, type TableRow } from './investigation';
export { diagnoserOf, findSuspects, investigate, type Investigation, investigationInputs, type InvestigationInputs } from './investigation';
export { Diagnoser } from './posterior';
