export { conditionalLast, type Fit, fitSample, logDensityRobust } from './multivariate';
export { normalCdf } from './normal';
export { randomStream } from './random';
