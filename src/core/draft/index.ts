export { type Draft, readDraft, suggestedNets } from './newKit';
export { type DeckReading, makeSheet, readDeckAgainst } from './newKit';
