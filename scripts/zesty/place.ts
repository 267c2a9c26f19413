import { type PlacedPad, type PlacedPart, readPlaces, textOfBytes, writeBareBoard, writeCentroid } from '../../src/core/place';
import { arrayAt, arrayOf, numberAt, textAt, wordAt } from './fields';
import type { Request } from './main';

/** Places of parts: read from, or written as, a centroid file or a bare-board netlist. */
export function place(request: Request): object {
  if (request['write'] !== undefined) {
    const format = wordAt(request, 'write', ['centroid', 'ipc-d-356']);
    return { text: format === 'centroid' ? writeCentroid(arrayOf(request, 'parts').map(partAt)) : writeBareBoard(arrayOf(request, 'pads').map(padAt)) };
  }
  const refs = request['refs'] === undefined || request['refs'] === null ? null : arrayAt(request, 'refs').map(String);
  return readPlaces(request['base64'] === undefined ? textAt(request, 'text') : textOfBytes(bytesAt(request, 'base64')), refs);
}

function bytesAt(request: Request, key: string): Uint8Array {
  const text = textAt(request, key).replace(/\s+/g, '');
  if (!/^[A-Za-z0-9+/]*={0,2}$/.test(text) || text.replace(/=+$/, '').length % 4 === 1) throw new Error(`"${key}" must be bytes in base64`);
  return Uint8Array.from(Buffer.from(text, 'base64'));
}

const partAt = (r: Request): PlacedPart => ({
  ref: textAt(r, 'ref'),
  x: numberAt(r, 'x'),
  y: numberAt(r, 'y'),
  rotation: r['rotation'] === null || r['rotation'] === undefined ? null : numberAt(r, 'rotation'),
  side: wordAt(r, 'side', ['top', 'bottom']),
});

const padAt = (r: Request): PlacedPad => ({
  ref: textAt(r, 'ref'),
  pin: textAt(r, 'pin'),
  net: r['net'] === null || r['net'] === undefined ? null : textAt(r, 'net'),
  x: numberAt(r, 'x'),
  y: numberAt(r, 'y'),
  side: wordAt(r, 'side', ['top', 'bottom', 'both']),
});
