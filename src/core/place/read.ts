import { looksLikeBareBoard, readBareBoard } from './bareBoard';
import { readCentroid } from './centroid';
import type { Placed, PlaceRemark } from './placed';
import { linesOfText } from './text';

/** Marks of the board that stand in centroid files and on no list: fiducials, test points, holes, prints. */
const MARK = /^(?:fid|fidu|fm|tp|mh|mp|h|hole|logo)\d*$/i;

/**
 * Places from a centroid file or a bare-board netlist.
 * @param refs what the kit knows; parts and refs that do not meet are findings
 * @throws Error for a text that is neither
 */
export function readPlaces(text: string, refs: readonly string[] | null = null): Placed {
  const lines = linesOfText(text);
  const html = (lines.find((l) => l.trim() !== '') ?? '').trimStart().startsWith('<');
  const placed = html ? null : looksLikeBareBoard(lines) ? readBareBoard(lines) : readCentroid(lines);
  if (!placed)
    throw new Error(
      'this is neither a centroid file (a heading with a ref, an x and a y column) nor a bare-board netlist after IPC-D-356 (records 317 and 327)',
    );
  return refs ? { ...placed, findings: [...placed.findings, ...meeting(placed, refs)] } : placed;
}

/** What the file knows and the kit does not, and the other way round. */
function meeting({ parts }: Placed, refs: readonly string[]): PlaceRemark[] {
  const known = new Set(refs.map((r) => r.trim().toLowerCase()));
  const placed = new Set(parts.map((p) => p.ref.toLowerCase()));
  return [
    ...parts
      .filter((p) => !known.has(p.ref.toLowerCase()) && !MARK.test(p.ref))
      .map((p): PlaceRemark => ({ code: 'unknown-ref', text: `${p.ref} has a place in the file but is not on the list.` })),
    ...refs
      .filter((r) => !placed.has(r.trim().toLowerCase()))
      .map((r): PlaceRemark => ({ code: 'missing-ref', text: `${r.trim()} has no place in the file.` })),
  ];
}
