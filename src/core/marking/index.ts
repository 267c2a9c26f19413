export { type Band, decodeInductorBands, decodeResistorBands } from './bands';
export { type ChipPackage, decodeCapacitorCode, decodeChipCapacitor } from './capacitorCode';
export { decodeDateCode } from './dateCode';
export { type Decoded, type Reading } from './decoded';
export { decodeInductorCode } from './inductorCode';
export { decodeLetterValue, normaliseUnits, type ValueKind } from './letterValue';
export { decodeChipResistor, decodeResistorCode } from './resistorCode';
export { decodeToleranceLetter } from './tolerance';
