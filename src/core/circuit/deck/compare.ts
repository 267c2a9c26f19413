import { connectionsOf, editConnection, removeConnection } from './connections';
import { parseDeck } from './parse';

/** One difference between two decks, by part or by model. */
export type DeckDifference =
  | { readonly what: 'new part' | 'gone part'; readonly name: string; readonly card: string }
  | { readonly what: 'other part'; readonly name: string; readonly before: string; readonly card: string }
  | { readonly what: 'model'; readonly name: string; readonly card: string };

const cardOf = (c: ReturnType<typeof connectionsOf>[number]) => [c.name, ...c.pins.map((p) => p.net), c.rest].filter(Boolean).join(' ');
const same = (a: string, b: string) => a.toLowerCase().replace(/\s+/g, ' ') === b.toLowerCase().replace(/\s+/g, ' ');

/** What a corrected deck would change: parts by their names, and models or sub-circuits that the old one lacks or has otherwise. */
export function compareDecks(before: string, after: string): DeckDifference[] {
  const old = new Map(connectionsOf(before).map((c) => [c.name.toLowerCase(), c]));
  const fresh = connectionsOf(after);
  const names = new Set(fresh.map((c) => c.name.toLowerCase()));
  const parts = fresh.flatMap((c): DeckDifference[] => {
    const was = old.get(c.name.toLowerCase());
    if (!was) return [{ what: 'new part', name: c.name, card: cardOf(c) }];
    return same(cardOf(was), cardOf(c)) ? [] : [{ what: 'other part', name: c.name, before: cardOf(was), card: cardOf(c) }];
  });
  const gone = [...old.values()]
    .filter((c) => !names.has(c.name.toLowerCase()))
    .map((c): DeckDifference => ({ what: 'gone part', name: c.name, card: cardOf(c) }));
  const [known, wanted] = [definitionsOf(before), definitionsOf(after)];
  const models = [...wanted].flatMap(([name, card]): DeckDifference[] => (same(known.get(name) ?? '', card) ? [] : [{ what: 'model', name, card }]));
  return [...models, ...parts, ...gone];
}

/** The deck with one difference taken over. */
export function takeDifference(deck: string, d: DeckDifference): string {
  switch (d.what) {
    case 'gone part':
      return removeConnection(deck, d.name);
    case 'new part':
      return addCard(deck, d.card);
    case 'other part': {
      const [fresh, held] = [connectionsOf(`t\n${d.card}`)[0], connectionsOf(deck).find((c) => c.name.toLowerCase() === d.name.toLowerCase())];
      // The same number of pins: the card is changed where it stands.
      if (!fresh || fresh.pins.length !== held?.pins.length) return addCard(removeConnection(deck, d.name), d.card);
      return fresh.pins.reduce((text, p, i) => editConnection(text, d.name, { pin: i, net: p.net, rest: fresh.rest }), deck);
    }
    case 'model':
      return addCard(withoutDefinition(deck, d.name), d.card);
  }
}

/** The deck with one more card, before its `.end`. */
export function addCard(deck: string, card: string): string {
  const lines = deck.replace(/\s+$/, '').split(/\r\n|\r|\n/);
  const end = lines.findIndex((l) => /^\s*\.end\s*$/i.test(l));
  lines.splice(end < 0 ? lines.length : end, 0, card);
  return `${lines.join('\n')}\n`;
}

/** Cards of models and whole sub-circuits at the top of a deck, by lower-case name. */
function definitionsOf(deck: string): Map<string, string> {
  return new Map(definitions(deck).map(({ name, from, to }) => [name, linesOf(deck).slice(from, to).join('\n')]));
}

const linesOf = (deck: string) => deck.split(/\r\n|\r|\n/);

function definitions(deck: string): { readonly name: string; readonly from: number; readonly to: number }[] {
  const { top } = parseDeck(deck);
  const lines = linesOf(deck);
  const continued = (at: number) => {
    let end = at + 1;
    while (/^\s*\+/.test(lines[end] ?? '')) end++;
    return end;
  };
  const models = top.modelCards.flatMap((card) =>
    card[1] ? [{ name: card[1].text.toLowerCase(), from: card[0]!.line - 1, to: continued(card[0]!.line - 1) }] : [],
  );
  const blocks = [...top.blocks.keys()].flatMap((name) => {
    const from = lines.findIndex((l) => new RegExp(`^\\s*\\.subckt\\s+${name.replace(/\W/g, '\\$&')}(?:\\s|$)`, 'i').test(l));
    const length = lines.slice(from).findIndex((l) => /^\s*\.ends\b/i.test(l));
    return from < 0 || length < 0 ? [] : [{ name, from, to: from + length + 1 }];
  });
  return [...models, ...blocks];
}

function withoutDefinition(deck: string, name: string): string {
  const found = definitions(deck).find((d) => d.name === name.toLowerCase());
  if (!found) return deck;
  const lines = linesOf(deck);
  lines.splice(found.from, found.to - found.from);
  return lines.join('\n');
}
