export { agreement, type Agreement, type Uncertain, verifyInstrument } from './agreement';
export { judgeMeterCheck, type MeterCheckVerdict } from './check';
export { figuresOfMeter, type MeterFigures, meterFromFigures, type ModeFigures, RANGED_MODES, type RangedMode } from './own';
export { decadeRanges, type MeterProfile, type MeterRange, rangeFor, type Uncertainty, uncertaintyIn, uncertaintyOf } from './profile';
export { HANDHELD, meterById, meterIsTypical, TYPICAL_METERS } from './typical';
