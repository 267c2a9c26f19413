import { type Entry, isOfMaking, type KitState, stands, type UnknownEntry } from '../kit';
import { entryText } from '../loop';

export type Cell = string | number;

/** The log as a table for a spreadsheet: time, what, reading in SI, meter, and whether it still counts. Numbers stay numbers. */
export function logRows(kit: KitState): Cell[][] {
  return [
    ['time', 'kind', 'what', 'reading (SI)', 'meter', 'counts'],
    ...kit.log.filter((e) => !isOfMaking(kit, e)).map((e): Cell[] => [e.at, e.kind, entryText(kit, e), readingOf(e), meterOf(e), counts(kit, e)]),
  ];
}

function readingOf(e: Entry | UnknownEntry): Cell {
  const reading = 'reading' in e ? e.reading : null;
  return typeof reading === 'number' || reading === 'over' ? reading : '';
}

const meterOf = (e: Entry | UnknownEntry): string => ('meter' in e && typeof e.meter === 'string' ? e.meter : '');
const counts = (kit: KitState, e: Entry | UnknownEntry): string => (stands(kit, e) ? 'yes' : kit.gone.has(e.id) ? 'withdrawn' : '');
