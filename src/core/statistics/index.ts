export { hypercube } from './hypercube';
export { conditionalLast, type Fit, fitSample, PointDensity } from './multivariate';
export { normalCdf } from './normal';
export { randomStream } from './random';
