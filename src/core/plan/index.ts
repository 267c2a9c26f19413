export { derivePlan } from './derive';
export { fittingFacts } from './bodies';
export { isFastener, isSink, isWasher } from './hardware';
export { advisedSchool, type Plan, planOf, type PlanStep, testsBefore } from './plan';
export { SCHOOLS } from './schoolWords';
export { scheduleOf, type Schedule, type Sitting } from './schedule';
