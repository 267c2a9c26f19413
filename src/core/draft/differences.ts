import { type EntryBody, type KitState, put, type RecordOf } from '../kit';
import { parseQuantity } from '../quantity';
import { findNet } from '../circuit';
import { circuitOf, valueMismatches } from '../stage';
import { factsOf } from '../vocabulary';
import { amend, type MovedPad, pinPlaced } from './amend';

export type Difference = RecordOf<'differences'>;
export type Source = NonNullable<Difference['right']>;
export type SettledBy = NonNullable<Difference['by']>;

/** Where list and diagram give a part different values, as records that nobody wrote yet. */
export function foundDifferences(kit: KitState): Difference[] {
  const written = new Set(kit.sheet.differences.filter((d) => d.right === undefined).map((d) => d.about));
  return valueMismatches(kit.sheet, circuitOf(kit.sheet))
    .filter(({ ref }) => !written.has(ref))
    .map(({ ref, listed, drawn }) => ({ id: `found-${ref}`, about: ref, list: listed, diagram: drawn }));
}

/** The value that a source gives a part; null where the difference is not one of values, or the text is none. */
export function valueSaid(kit: KitState, difference: Difference, source: Source): number | null {
  const line = kit.sheet.lines.find((l) => l.refs.includes(difference.about));
  const unit = line && factsOf(line.kind).unit;
  const text = difference[source];
  if (!unit || text === undefined) return null;
  const read = parseQuantity(text, unit);
  return read.ok ? read.value : null;
}

/** Where a source says that a pin goes (`D3.K`: net out); null where the difference is not about a pin, or the text names no net of the circuit. */
export function pinSaid(kit: KitState, { about, ...sources }: Difference, source: Source): MovedPad | null {
  const cut = about.lastIndexOf('.');
  const ref = about.slice(0, Math.max(0, cut));
  const net = sources[source]?.trim().replace(/^net\s+/i, '');
  if (net === undefined || !kit.sheet.lines.some((l) => l.refs.includes(ref))) return null;
  const to = /^(?:gnd|ground)$/i.test(net) ? '0' : findNet(circuitOf(kit.sheet), net);
  return to === undefined ? null : { ref, pin: about.slice(cut + 1), to };
}

/**
 * The entries that settle a difference, as one batch: how it was settled, and list and circuit corrected where a value was in
 * question, or a pin that a net of the circuit was named for. Anything else is corrected by hand: no text tells what it means.
 */
export function settleDifference(
  kit: KitState,
  difference: Difference,
  { right, by, why }: { readonly right: Source; readonly by: SettledBy; readonly why: string },
  newId: () => string,
): EntryBody[] {
  const value = valueSaid(kit, difference, right);
  const reason = why.trim();
  const says = `the ${right} is right, by ${by}${reason === '' ? '' : `: ${reason}`}`;
  const settled = put(kit, 'differences', { ...difference, right, by, ...(reason === '' ? {} : { why: reason }) });
  const pin = pinSaid(kit, difference, right);
  return [
    settled,
    ...(value === null ? [] : amend(kit, { what: 'value', ref: difference.about, value, says }, newId)),
    ...(pin === null ? [] : pinPlaced(kit, pin)),
  ];
}
