export { isPreferred, SERIES, seriesForTolerance } from './series';
