import type { KitState, Line } from '../kit';
import { capacitorCode } from '../marking';
import { factsOf, type LooseKind } from '../vocabulary';

/** A resistor of the list whose value lies within this share of a figure may well be the piece that was measured. */
const MAY_BE = 0.25;
const PREFIX: Readonly<Partial<Record<LooseKind, string>>> = { C: 'c', L: 'l', D: 'd', LED: 'led', Q: 'q' };

/**
 * What has to be asked about a bare whole figure typed among resistors, where no resistor of the list is near it and another part
 * has it as its print: `104` of a capacitor, `7805`, `4148`. Null where it is a reading.
 */
export function bareFigure(kit: KitState, part: LooseKind, text: string): string | null {
  const figure = text.trim();
  if (part !== 'R' || !/^\d{3,5}$/.test(figure)) return null;
  const near = kit.sheet.lines.some((l) => l.kind === 'resistor' && l.value !== null && Math.abs(Number(figure) / l.value - 1) <= MAY_BE);
  const printed = kit.sheet.lines.find((l) => bears(l, figure));
  if (near || !printed) return null;
  const { loose, word } = factsOf(printed.kind);
  const other = loose === null ? `count the ${word} in its packet: it is not measured here` : `${PREFIX[loose] ?? ''} ${figure} for the ${word}`;
  return `${figure} of what? Type ${figure}R for a resistor, or ${other}.`;
}

function bears(line: Line, figure: string): boolean {
  if (factsOf(line.kind).loose === 'R') return false;
  if (factsOf(line.kind).loose === 'C' && line.value !== null && capacitorCode(line.value) === figure) return true;
  return new RegExp(`(?:^|\\D)${figure}(?:\\D|$)`).test(line.type ?? line.label);
}
