export {
  type Block,
  BLOCK_GROUPS,
  type BlockField,
  BLOCKS,
  type BlockText,
  type FieldType,
  insertBlock,
  ledModel,
  type LibraryItem,
  MODELS,
  zenerModel,
} from './blocks/index';
export { averageCurrentThrough, currentThrough } from './current';
export { addCard, compareDecks, type DeckDifference, takeDifference } from './deck/compare';
export { type Connection, connectionsOf, editConnection, removeConnection } from './deck/connections';
export { MODEL_DEFAULTS } from './deck/models';
export { readSpiceNumber } from './deck/number';
export { readDeck } from './deck/read';
export { describe, type Diagnostic } from './diagnostic';
export { addParts, ownerOf, removeParts, replacePart, setValues, withValue, withoutLimits } from './edit';
export { drivenReading, driveSetter, meterCircuit, readDriven, type MeterDrive, type SupplyState } from './meterDrive';
export { neighbourhood, type Neighbourhood } from './neighbourhood';
export {
  type Circuit,
  findNet,
  findPart,
  GROUND,
  hasElement,
  type Model,
  netsOf,
  type Part,
  PINS,
  type Semiconductor,
  type Source,
  type Waveform,
} from './netlist';
export { findSourceLoop, operatingPoint, UnsolvableError } from './operatingPoint';
export { VT } from './solve/junction';
export { Newton, type Solution } from './solve/newton';
export { type ModelParam, type OrderCache, type ProbePair, System } from './solve/system';
export { isDriven, isRunning, type SteadyOptions, steadyState, type SteadyState } from './steady';
export { type Trace, transient } from './transient';
export { FORM_FACTOR, statisticsOf, type TraceStatistics } from './traceStatistics';
