import { PINS } from '../netlist';
import { type Block, parseDeck } from './parse';

/** One top-level part of a deck as a row: its pins with their nets, and what stands behind them. */
export interface Connection {
  readonly name: string;
  readonly pins: readonly { readonly pin: string; readonly net: string }[];
  /** Value, model or source text. */
  readonly rest: string;
  /** Line of its card, from 1. */
  readonly line: number;
}

const COUNT: Readonly<Record<string, number>> = { R: 2, C: 2, L: 2, V: 2, I: 2, D: 2, Q: 3, M: 4, J: 3, E: 4, G: 4 };

/** The parts of a deck, sub-circuits as one row each, in the order of the deck. */
export function connectionsOf(deck: string): Connection[] {
  const { top } = parseDeck(deck);
  return top.elements.map((e) => {
    const words = e.words.filter((w) => !/^params:$/i.test(w.text));
    const count = e.letter === 'X' ? words.length - 1 : COUNT[e.letter]!;
    const names = e.letter === 'X' ? portsOf(top, words[count]?.text ?? '') : PINS[e.letter as keyof typeof PINS];
    const pairs = [...e.pairs].map(([key, token]) => `${key}=${token.text}`);
    return {
      name: e.name.text,
      pins: words.slice(0, count).map((w, i) => ({ pin: names[i] ?? String(i + 1), net: w.text })),
      rest: [...words.slice(count).map((w) => w.text), ...pairs].join(' '),
      line: e.name.line,
    };
  });
}

const portsOf = (top: Block, type: string) => top.blocks.get(type.toLowerCase())?.ports ?? [];

/**
 * The deck with one part connected or valued otherwise. Its card is written anew in place; continuation lines of it go.
 * The deck comes back unchanged when the part is not there.
 */
export function editConnection(deck: string, name: string, change: { readonly pin?: number; readonly net?: string; readonly rest?: string }): string {
  const found = connectionsOf(deck).find((c) => c.name.toLowerCase() === name.toLowerCase());
  if (!found) return deck;
  const nets = found.pins.map((p, i) => (i === change.pin ? (change.net ?? p.net) : p.net));
  return replaceCard(deck, found.line, `${found.name} ${nets.join(' ')} ${change.rest ?? found.rest}`.trimEnd());
}

/** The deck without a part. */
export function removeConnection(deck: string, name: string): string {
  const found = connectionsOf(deck).find((c) => c.name.toLowerCase() === name.toLowerCase());
  return found ? replaceCard(deck, found.line, null) : deck;
}

function replaceCard(deck: string, line: number, by: string | null): string {
  const lines = deck.split(/\r\n|\r|\n/);
  let end = line;
  while (/^\s*\+/.test(lines[end] ?? '')) end++;
  lines.splice(line - 1, end - line + 1, ...(by === null ? [] : [by]));
  return lines.join('\n');
}
