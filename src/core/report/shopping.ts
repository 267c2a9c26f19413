import { deriveTray, type KitState, type Line, meetsNeed, type Need } from '../kit';

/** Something to buy or ask for, and why. */
export interface ShoppingItem {
  readonly id: string;
  /** The line that it belongs to; null for a need. */
  readonly line: Line | null;
  readonly need: Need | null;
  readonly quantity: number;
  readonly text: string;
  readonly why: string;
  /** Numbers of the pieces that it replaces. */
  readonly instead: readonly number[];
}

/** What is missing, what is better replaced, and what the kit needs and the builder does not own. */
export function shoppingList(kit: KitState): ShoppingItem[] {
  const lines = deriveTray(kit).flatMap(({ line, counted, pieces }): ShoppingItem[] => {
    const short = counted === null ? 0 : Math.max(0, line.quantity - counted);
    const out = pieces.filter((p) => p.verdict === 'out').map((p) => p.index);
    const why = [short > 0 ? `${short} missing` : '', out.length > 0 ? `${out.length} out of tolerance` : ''].filter(Boolean).join(', ');
    const quantity = short + out.length;
    return quantity === 0 ? [] : [{ id: line.id, line, need: null, quantity, text: line.label, why, instead: out }];
  });
  const needs = kit.sheet.needs.flatMap((need): ShoppingItem[] => {
    const owned = kit.owned.get(need.id)?.at(-1)?.owned;
    const verdict = owned ? meetsNeed(need, owned) : null;
    if (verdict?.meets) return [];
    return [
      {
        id: need.id,
        line: null,
        need,
        quantity: 1,
        text: need.text,
        why: verdict ? `what you own does not fit: ${verdict.reasons.join('; ')}` : 'not supplied with the kit',
        instead: [],
      },
    ];
  });
  return [...lines, ...needs];
}

/** The list as text to take along or to send. */
export const shoppingText = (items: readonly ShoppingItem[]): string => items.map((i) => `${i.quantity} × ${i.text} (${i.why})`).join('\n');
