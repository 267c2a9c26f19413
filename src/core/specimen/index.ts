export { HealthyBoards, readHealthy } from './healthy';
export { scaledWave } from './pieces';
export { withOpampMakers } from './opamps';
export { FaultSampler, type Sample } from './predict';
export {
  atRest,
  type Evidence,
  inMotion,
  isReading,
  isObservable,
  resting,
  type Lamp,
  lampsOf,
  type Look,
  type Reading,
  MODEL_SPREADS,
  type ModelSpread,
  type Observable,
  observablesOf,
  type Problem,
  type RunningObservable,
  type Scene,
  type Sign,
  type Signal,
  SIGNS,
  type SwitchOn,
  type StageObservable,
  type StageScene,
  toScene,
} from './problem';
export { readRunning, type RunningReadings } from './running';
export { fromScale, OVER, scaleSlope, toScale } from './scale';
export { SWITCHED_ON } from './switchedOn';
export { NOMINAL_SPECIMEN, specimenOf, specimenSteps } from './specimen';
