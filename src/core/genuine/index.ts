export { adviceFor, assessGenuine, type Examined, figureRatio, type FigureRead, type Genuineness, signRatio, type SignWeight } from './genuine';
export { copiedPlaces, type DoubtfulLine, doubtfulLines, examinedOf, type WholeKit, wholeKit } from './ofKit';
export { type Origin, ORIGINS, type Sign, SIGNS } from './signs';
