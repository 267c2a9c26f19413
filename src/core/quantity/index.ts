export { type DisplayReading, parseDisplay, parseQuantity, type QuantityError, type QuantityOk } from './parse';
export { print, type PrintedQuantity, printNominal, printWindow } from './print';
export { type Unit, UNIT_SYMBOL } from './units';
export { findTolerance, printTolerance, readTolerance } from './tolerance';
