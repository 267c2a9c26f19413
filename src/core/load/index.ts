export { frequencyClaim, type Oscillator, powerClaim, rangeClaim, type Span } from './claims';
export { type ClaimMeans, claimWords, judgeClaim, provedBy } from './promised';
export { forecastHeat, type HeatReading } from './heat';
export { lampInSeries, type LampLoad } from './lamp';
export { asSeenBy, compareFigures, type ComparedFigure, type Instrument, movedOnto, notSeen, ofCursors } from './compared';
export { readRecording, type Recording } from './recording';
export { type LoadPoint, regulationOf } from './regulation';
export { trimOf } from './trim';
export { waveformOf } from './waveform';
