import { lineTitle } from '../loop';
import { deriveTray, expectationOf, type KitState } from '../kit';
import { print, printWindow } from '../quantity';

/** One label for one packet: what it is, what it measures, where it goes. */
export interface PacketLabel {
  readonly line: string;
  readonly title: string;
  readonly measured: string;
  readonly refs: string;
  readonly count: string;
}

export function packetLabels(kit: KitState): PacketLabel[] {
  return deriveTray(kit).map((c) => {
    const unit = expectationOf(c.line)?.unit ?? null;
    const values = c.pieces.flatMap((p) => (p.reckoning ? [p.reckoning.corrected] : []));
    const [least, most] = [Math.min(...values), Math.max(...values)];
    const measured = values.length === 0 ? 'not measured' : least === most ? print(least, unit, 3) : printWindow(least, most, unit, 3);
    return { line: c.line.id, title: lineTitle(c.line), measured, refs: c.line.refs.join(' '), count: `${c.counted ?? '–'} of ${c.line.quantity}` };
  });
}
