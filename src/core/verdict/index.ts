export { type Conformity, conformity, type School, type Verdict, worst } from './conformity';
export { judgePart, type PartReading, type PartVerdict } from './part';
