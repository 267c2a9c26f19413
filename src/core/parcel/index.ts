export { assign, regret } from './assign';
export { lotReport, type LotReport } from './lotReport';
export { listValue } from './marking';
export { type LooseKind, type LoosePiece, type LooseQuantity, type Lot, type ParcelLine, type ParcelMeter, type Sorted, type Sureness } from './model';
export { namePatterns, type Pattern } from './patterns';
export { sortParcel, sureness } from './sort';
