export { type Consequence, ConsequenceSolver, type Flip, influences, type Shift, type Supposed, type Supposition, type Swept } from './consequence';
export { consequenceText, type ConsequenceText, observableName } from './words';
export { loadsOf, type Overload } from './stress';
export { combinations, type Spare, type Substitute, substitutes } from './substitutes';
