import { entryText } from '../loop';
import { type KitState, stands } from '../kit';

/** The log as a table for a spreadsheet: time, what, reading in SI, meter, and whether it still counts. */
export function logRows(kit: KitState): string[][] {
  const reading = (e: KitState['log'][number]) => ('reading' in e && (typeof e.reading === 'number' || e.reading === 'over') ? String(e.reading) : '');
  const meter = (e: KitState['log'][number]) => ('meter' in e && typeof e.meter === 'string' ? e.meter : '');
  return [
    ['time', 'kind', 'what', 'reading (SI)', 'meter', 'counts'],
    ...kit.log.map((e) => [e.at, e.kind, entryText(kit, e), reading(e), meter(e), stands(kit, e) ? 'yes' : kit.gone.has(e.id) ? 'withdrawn' : '']),
  ];
}
