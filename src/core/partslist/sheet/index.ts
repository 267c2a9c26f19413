export { readSheet, SURE } from './readSheet';
export type { Correction, Doubt, Entry, Ignored, Question, SheetKind, SheetLine, SheetReading } from './reading';
