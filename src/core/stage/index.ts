export { type Windows } from './allWindows';
export { showsSign } from './observe';
export { checkPlaces, type PlaceFinding } from './placesCheck';
export { boardOf, circuitAt, circuitOf, controlOf, elementOf, elementsOf, fittedAt, sceneOf } from './scene';
export { type Setup, setupOf, wantedLines } from './setup';
export { type ComputedWindow } from './windows';
export { allWindows, windowInputs, type WindowInputs } from './allWindows';
