export { type Column, type Columns } from './columns';
export { linesFromCircuit } from './fromCircuit';
export { readFreeLine } from './freeLine';
export { type FreeKind } from './kindWords';
export { readNeed } from './need';
export { type ListEntry, type ListRemark, type PartsList, readList, type Settled } from './readList';
export { expandRefs } from './refs';
export { type Correction, type Doubt, type Ignored, readSheet, type SheetKind, type SheetLine } from './sheet';
