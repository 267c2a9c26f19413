import type { Line, TypeCard } from '../kit';
import { COMMON_CARDS } from './common';

/** Letters and digits alone, so that `BC 547B` finds `BC547`. */
const key = (type: string) => type.toUpperCase().replace(/[^A-Z0-9]/g, '');

/** The card for a line: the kit's own first, then one's collection, then the common ones; a longer suffix is overlooked. */
export function cardFor(line: Line, own: readonly TypeCard[], collection: readonly TypeCard[] = []): TypeCard | null {
  const full = [line.label, line.type ?? ''].map(key);
  // Makers put letters of their own before the number of a chip: `XY358N` is a 358.
  const names = [...full, ...full.map((n) => n.replace(/^[A-Z]{1,3}(?=\d{3})/, ''))].filter((n) => n.length >= 3);
  for (const cards of [own, collection, COMMON_CARDS]) {
    const exact = cards.find((c) => names.includes(key(c.type)));
    const begun = cards.filter((c) => names.some((n) => n.startsWith(key(c.type)))).sort((a, b) => b.type.length - a.type.length)[0];
    const found = exact ?? begun;
    if (found) return found;
  }
  return null;
}

/** A component tester's pin order against the card's: where they differ, or null when they agree. */
export function comparePins(card: TypeCard, seen: string): string | null {
  const letters = seen.toUpperCase().replace(/[^A-Z]/g, '');
  const orders = Object.entries(card.pins).map(([body, pins]) => ({ body, order: pins.map((p) => p[0]!.toUpperCase()).join('') }));
  if (letters === '' || orders.length === 0) return 'There is no pin order to compare with.';
  if (orders.some((o) => o.order === letters)) return null;
  const mirrored = orders.find((o) => Array.from(o.order).reverse().join('') === letters);
  if (mirrored)
    return `The tester says ${letters}, the card ${mirrored.order} (${mirrored.body}): mirrored. Another make, or it lay the other way round in the socket. Fit it by what the tester says.`;
  return `The tester says ${letters}, the card ${orders.map((o) => o.order).join(' or ')}: another make, or not this type. Fit it by what the tester says, and only if the board has those pins.`;
}
