import type { Line } from '@/core/kit';
import type { Doubt, Ignored, ListEntry } from '@/core/partslist';
import { print, printNominal, printTolerance } from '@/core/quantity';
import { factsOf } from '@/core/vocabulary';

const count = (n: number, noun: string) => `${n} ${noun}${n === 1 ? '' : 's'}`;

/** What is asked about an entry, one question each. */
export function questionOf(doubt: Doubt): string {
  switch (doubt.what) {
    case 'says-nothing':
      return 'What is this? Nothing here names a part.';
    case 'unreadable':
      return 'Part of this line cannot be read.';
    case 'no-value':
      return 'No value is printed.';
    case 'smudge':
      return 'A figure of the value cannot be read.';
    case 'count':
      return `${count(doubt.pieces, 'piece')} for ${count(doubt.positions, 'position')}: which is right?`;
    case 'repeated':
      return `${doubt.ref} is already on line ${doubt.before}.`;
    case 'contradiction':
      return `Two values: ${doubt.values.join(' and ')}.`;
  }
}

const IGNORED: Readonly<Record<Ignored, string>> = {
  'no part': 'not a part, as you said',
  title: 'title of the list',
  'column heading': 'heading of the columns',
  section: 'heading of a section',
  board: 'heading of a board',
  footnote: 'footnote',
  page: 'page line',
  sum: 'sum of the pieces',
  advice: 'advice to the builder',
  rule: 'ruled line',
};

/** What an entry became, in a few words. */
export function becameWords({ became }: ListEntry): string {
  if ('ignored' in became) return IGNORED[became.ignored];
  if ('need' in became) return `needed, not supplied: ${became.need.text}`;
  return 'line' in became ? lineWords(became.line) : 'nothing yet';
}

const lineWords = (l: Line) =>
  [
    `${factsOf(l.kind).word}${l.notFitted ? ', not fitted' : ''}`,
    l.value === null ? null : printNominal(l.value, factsOf(l.kind).unit),
    l.tolerance === null ? null : printTolerance(l.tolerance),
    l.type ?? null,
    l.colour ?? null,
    l.package ?? null,
    l.rating?.volts === undefined ? null : print(l.rating.volts, 'V', 3),
    l.rating?.watts === undefined ? null : print(l.rating.watts, 'W', 3),
    l.rating?.amperes === undefined ? null : print(l.rating.amperes, 'A', 3),
  ]
    .filter(Boolean)
    .join(' · ');

const shapeOf = (l: Line) => `${l.kind}/${l.label.toLowerCase().replace(/[\d.,]+/g, '')}`;

/** Other entries that were printed and read like this one: what is said of its kind may be said of them. */
export function likeEntries(entries: readonly ListEntry[], entry: ListEntry): readonly ListEntry[] {
  if (!('line' in entry.became)) return [];
  const mine = shapeOf(entry.became.line);
  return entries.filter((e) => e.key !== entry.key && 'line' in e.became && shapeOf(e.became.line) === mine);
}
