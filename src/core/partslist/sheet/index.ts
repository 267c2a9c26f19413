export { readSheet, SURE } from './readSheet';
export type { Doubt, Ignored, Question, SheetKind, SheetLine, SheetReading } from './reading';
