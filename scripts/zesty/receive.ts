import Papa from 'papaparse';
import type { MeterRange } from '../../src/core/meter';
import { listValue, type LooseKind, type LoosePiece, type LooseQuantity, type ParcelLine, type ParcelMeter, sortParcel } from '../../src/core/parcel';
import { readTolerance } from '../../src/core/quantity';
import { arrayOf, numberAt, objectAt, textAt } from './fields';
import type { Request } from './main';

const KINDS: readonly string[] = ['R', 'C', 'L', 'D', 'LED', 'Q'];

/** A bag of loose pieces against a parts list. */
export function receive(request: Request): object {
  const rows = Papa.parse<Record<string, string>>(textAt(request, 'bom').trim(), { header: true, skipEmptyLines: true }).data;
  const lines = rows.map((row, i) => readLine(row, i + 1));
  const meter = objectAt(request, 'meter');
  const accuracy = objectAt(meter, 'accuracy') as Readonly<Partial<Record<LooseQuantity, readonly MeterRange[]>>>;
  const parcelMeter: ParcelMeter = { leadResistance: meter['leadResistance'] === undefined ? 0 : numberAt(meter, 'leadResistance'), accuracy };
  const { missing, surplus, ...rest } = sortParcel(arrayOf(request, 'loose').map(readPiece), lines, parcelMeter);
  return { ...rest, missing, surplus };
}

function readLine(row: Readonly<Record<string, string>>, number: number): ParcelLine {
  const kind = (row['kind'] ?? '').trim();
  if (!KINDS.includes(kind)) throw new Error(`parts list line ${number}: kind "${kind}" is not known`);
  const text = (row['value'] ?? '').trim();
  const value = kind === 'R' || kind === 'C' || kind === 'L' ? listValue(kind, text) : null;
  if (value === null && (kind === 'R' || kind === 'C' || kind === 'L')) throw new Error(`parts list line ${number}: the value "${text}" cannot be read`);
  const quantity = Number(row['qty']);
  if (!Number.isInteger(quantity) || quantity < 0) throw new Error(`parts list line ${number}: "${row['qty'] ?? ''}" is no quantity`);
  const tolerance = readTolerance(row['tolerance'] ?? '');
  return {
    number,
    kind: kind as LooseKind,
    value,
    type: value === null ? text : null,
    tolerance: tolerance && [tolerance[0] * 100, tolerance[1] * 100],
    quantity,
  };
}

function readPiece(item: Request): LoosePiece {
  const reading = objectAt(item, 'reading');
  const marking = item['marking'];
  return {
    id: textAt(item, 'id'),
    kind: textAt(item, 'kind') as LooseKind,
    quantity: textAt(reading, 'quantity') as LooseQuantity,
    value: reading['value'] === null || reading['overload'] === true ? null : numberAt(reading, 'value'),
    polarity: typeof reading['polarity'] === 'string' ? reading['polarity'] : typeof item['polarity'] === 'string' ? item['polarity'] : null,
    marking: typeof marking === 'string' ? marking : Array.isArray(marking) ? (marking as string[]) : null,
  };
}
