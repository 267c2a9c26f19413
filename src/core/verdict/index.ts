export { type Conformity, conformity, type School, type Verdict } from './conformity';
export { judgePart, type PartReading, type PartVerdict } from './part';
