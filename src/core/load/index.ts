export { frequencyClaim, type Oscillator, powerClaim, rangeClaim, type Span } from './claims';
export { forecastHeat, type HeatReading } from './heat';
export { lampInSeries, type LampLoad } from './lamp';
export { readRecording } from './recording';
export { type LoadPoint, regulationOf } from './regulation';
export { trimOf } from './trim';
export { waveformOf } from './waveform';
