export { hideFault, looseFromBag, type LooseFromBag, pieceCount, type Practice, practiceOf, readBoard, readPiece, watchBoard } from './board';
export { DEMOS } from './demos';
