export { EMPTY_HOLD, hear, type Hold, STEADY_MS, touches } from './hold';
export { learnLines, type LineFormat, readOwnLine } from './ownLine';
export { modeOfAnswer, readingOfAnswer, type Shown } from './scpi';
export { InstrumentSession, type LineTransport, type Polled, type Protocol } from './session';
export { type SupplyReading, SupplySession, type SupplyTold } from './supply';
