export { ANY_LED, DIODE_FORWARD, ledForward, LED_FORWARD } from './forward';
export {
  BOARD_KINDS,
  type BoardKind,
  CHIP_KINDS,
  factsOf,
  KIND_FACTS,
  LINE_KINDS,
  type LineKind,
  LOOSE_FACTS,
  type LooseKind,
  PIECE_KINDS,
  type PieceKind,
} from './kinds';
export { CHECK_MODES, type CheckMode, type MeterMode, MODES, PART_MODES, type PartMode, unitOf } from './modes';
export { checkObservableId, type ObservablePlace, onBoard, placeOf, probeObservableId } from './observables';
export { type Package, packageOf, type Pad, padsAsPlaced, pinCount, type Shape, SHAPES } from './packages';
export { BIPOLAR_PINS, FET_PINS, OPAMP_PINS, pinCalled, pinWord } from './pins';
export { supplyPins } from './supplyPins';
export { matchTypes, type TypeMatch, type TypeReadings, typeReadings } from './semiconductors';
