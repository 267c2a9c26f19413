export { type Conformity, conformity, type School, type Verdict, worst } from './conformity';
export { VERDICT_WORDS } from './words';
export { judgePart, type PartReading, type PartVerdict } from './part';
