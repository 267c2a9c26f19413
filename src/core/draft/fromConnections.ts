import { addCard, connectionsOf, insertBlock } from '../circuit';
import type { Line } from '../kit';
import { drawnPart, hollow } from './elementCards';

/** A supply to draw: its ends, and whether it is a winding. */
export interface DrawnFeed {
  readonly net: string;
  readonly back: string;
  readonly winding: boolean;
  /** Volts, RMS of a winding. */
  readonly volts: number;
}

const MAINS_HERTZ = 50;
const MOST_PINS = 64;

/** Pin names of parts as people write them, by place in the order of the drawing. */
const PLACES: Readonly<Record<string, number>> = { '1': 0, '2': 1, '3': 2, a: 0, k: 1, '+': 0, '-': 1, c: 0, b: 1, e: 2, d: 0, g: 1, s: 2, w: 1, wiper: 1 };

/** A deck with these supplies beside what it has. */
export function withFeeds(deck: string, feeds: readonly DrawnFeed[]): string {
  const taken = new Set(connectionsOf(deck).map((c) => c.name.toLowerCase()));
  let number = 1;
  return feeds.reduce((text, { net, back, winding, volts }) => {
    while (taken.has(`v${number}`)) number++;
    const card = `V${number} ${net} ${back} ${winding ? `SIN(0 ${Number((volts * Math.SQRT2).toPrecision(5))} ${MAINS_HERTZ})` : `DC ${volts}`}`;
    taken.add(`v${number}`);
    return addCard(text.trim() === '' ? 'My board\n' : text, card);
  }, deck);
}

/** The deck of a board that is told pin by pin (`R1.1` → net); parts of the list without a pin in it are left out. */
export function deckFromConnections(lines: readonly Line[], connections: Readonly<Record<string, string>>, feeds: readonly DrawnFeed[]): string {
  const byRef = new Map<string, Map<string, string>>();
  for (const [pin, net] of Object.entries(connections)) {
    const dot = pin.lastIndexOf('.');
    const [ref, name] = [pin.slice(0, dot), pin.slice(dot + 1)];
    byRef.set(ref, (byRef.get(ref) ?? new Map<string, string>()).set(name, net));
  }
  let deck = withFeeds('My board\n', feeds);
  for (const [ref, pins] of byRef) {
    const line = lines.find((l) => l.refs.some((r) => r.toLowerCase() === ref.toLowerCase()));
    const drawn = line ? drawnPart(line, ref) : null;
    const numbers = [...pins.keys()].map(Number);
    const isChip =
      numbers.every((n) => Number.isInteger(n) && n > 0 && n <= MOST_PINS) &&
      (numbers.length > 3 || (line && ['ic', 'opamp', 'timer', 'regulator', 'microcontroller'].includes(line.kind)));
    if (isChip) {
      // The pins keep their numbers: what the chip does is told by its type, not by this card.
      const count = Math.max(...numbers);
      const nets = Array.from({ length: count }, (_, i) => pins.get(String(i + 1)) ?? `nc_${ref}_${i + 1}`);
      const model = hollow(count);
      deck = insertBlock(addCard(deck, `X${ref} ${nets.join(' ')} ${model.name}`), { lines: [], needs: [model] });
      continue;
    }
    const nets = (count: number) => {
      const at = Array.from({ length: count }, (_, i) => `nc_${ref}_${i + 1}`);
      for (const [name, net] of pins) {
        const place = PLACES[name.toLowerCase()] ?? drawn?.pins.findIndex((p) => p.toLowerCase().startsWith(name.toLowerCase())) ?? -1;
        if (place >= 0 && place < count) at[place] = net;
      }
      return at;
    };
    if (drawn) deck = drawn.cards(nets(drawn.pins.length)).reduce((text, card) => insertBlock(addCard(text, card), { lines: [], needs: drawn.needs }), deck);
    else if (pins.size === 2) deck = addCard(deck, `R${ref} ${nets(2).join(' ')} ${line?.value ?? 8}`);
  }
  return deck;
}
