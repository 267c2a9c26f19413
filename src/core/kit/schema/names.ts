/** Names of the document's parts as plain values, so that the program needs no schema at run time. */

export const KIT_FORMAT = 'zesty-bench-kit';
export const KIT_VERSION = 4;
export const MOST_ENTRIES = 200000;

/** All rooms, in the order in which a kit is written. */
export const ROOM_NAMES = [
  'about',
  'boards',
  'options',
  'lines',
  'needs',
  'circuit',
  'neighbours',
  'functions',
  'testPoints',
  'placement',
  'symbols',
  'pads',
  'stages',
  'checks',
  'claims',
  'typeCards',
  'photos',
  'constraints',
  'differences',
  'meters',
  'settings',
] as const;
export type RoomName = (typeof ROOM_NAMES)[number];

/** Kinds of entry that say what happened; `changed` says what should be. */
export const HAPPENED_KINDS = [
  'counted',
  'received',
  'measured',
  'figured',
  'marked',
  'loose',
  'sorted',
  'meter-checked',
  'compared',
  'owned',
  'skipped',
  'fitted',
  'removed',
  'set',
  'read',
  'probed',
  'referenced',
  'observed',
  'tried',
  'inspected',
  'traced',
  'gated',
  'prepared',
  'ruled-out',
  'symptom',
  'examined',
  'found',
  'repaired',
  'modified',
  'restored',
  'finished',
  'noted',
  'waiting',
  'resumed',
  'withdrawn',
] as const;
export type HappenedKind = (typeof HAPPENED_KINDS)[number];
