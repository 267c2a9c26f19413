export { type Column, type Columns, type TableRow } from './columns';
export { linesFromCircuit } from './fromCircuit';
export { readFreeLine } from './freeLine';
export { type FreeKind } from './kindWords';
export { readNeed } from './need';
export { type ListRemark, type PartsList, readList } from './readList';
export { expandRefs } from './refs';
export { toCsv, toRows } from './rows';
export { type Doubt, type Ignored, type Question, readSheet, type SheetKind, type SheetLine, type SheetReading, SURE } from './sheet';
