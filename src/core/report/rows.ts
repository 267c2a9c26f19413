import { entryText } from '../bench/logText';
import { type KitDocument, standing } from '../kit';

/** The log as a table for a spreadsheet: time, what, reading in SI, meter, and whether it still counts. */
export function logRows(doc: KitDocument): string[][] {
  const counting = new Set(standing(doc.log).map((e) => e.id));
  const reading = (e: KitDocument['log'][number]) => ('reading' in e && e.reading !== null ? String(e.reading) : '');
  const meter = (e: KitDocument['log'][number]) => ('meter' in e && typeof e.meter === 'string' ? e.meter : '');
  return [
    ['time', 'kind', 'what', 'reading (SI)', 'meter', 'counts'],
    ...doc.log.map((e) => [e.at, e.kind, entryText(doc, e), reading(e), meter(e), counting.has(e.id) ? 'yes' : e.kind === 'withdrawn' ? '' : 'withdrawn']),
  ];
}
