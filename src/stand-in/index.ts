export { looseFromBag, type LooseFromBag, pieceCount, readBoard, readPiece, watchBoard } from './board';
export { DEMOS } from './demos';
export { type Played, type PlayedStep, playRound } from './play';
export { hideFault, type Practice, practiceOf } from './practice';
export { practicePlay, type PracticePlay, type PracticeReview, type PracticeStanding, practiceStanding } from './review';
export { SimulatedSupply } from './simulatedSupply';
export { SimulatedMeter, type SimulatedMeterOptions, type Touched } from './simulatedMeter';
export { DIFFICULTIES, type Difficulty, hideTrouble, type Trouble, type TroubleChoice, TROUBLES } from './trouble';
