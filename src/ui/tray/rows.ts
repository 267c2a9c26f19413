import type { Compartment } from '@/core/kit';
import { lineTitle } from '@/core/loop';
import { factsOf } from '@/core/vocabulary';

/** Which compartments are shown: all, what is left to do, what is doubtful or out, what is short. */
export const FILTERS = ['all', 'to do', 'out or borderline', 'missing'] as const;
export type Filter = (typeof FILTERS)[number];

export interface Choice {
  readonly filter: Filter;
  readonly search: string;
  readonly byKind: boolean;
}

export const isShort = (c: Compartment) => c.counted !== null && c.counted < c.line.quantity;

const isToDo = (c: Compartment, phase: 'unpack' | 'check') => (phase === 'unpack' ? c.counted === null : c.pieces.some((p) => p.entry === null));

function passes(c: Compartment, phase: 'unpack' | 'check', { filter, search }: Choice): boolean {
  const wanted = search.trim().toLowerCase();
  const named =
    wanted === '' ||
    [lineTitle(c.line), c.line.label, c.line.type ?? '', factsOf(c.line.kind).word, ...c.line.refs].some((t) => t.toLowerCase().includes(wanted));
  switch (filter) {
    case 'all':
      return named;
    case 'to do':
      return named && isToDo(c, phase);
    case 'out or borderline':
      return named && (c.verdict === 'doubtful' || c.verdict === 'out');
    case 'missing':
      return named && isShort(c);
  }
}

export type Row = { readonly heading: string; readonly count: number } | { readonly cells: readonly Compartment[] };

/** The compartments as rows of a tray with so many columns, with a heading a kind where that is wanted. */
export function trayRows(tray: readonly Compartment[], phase: 'unpack' | 'check', choice: Choice, columns: number): Row[] {
  const shown = tray.filter((c) => passes(c, phase, choice));
  if (!choice.byKind) return inRows(shown, columns);
  const groups = new Map<string, Compartment[]>();
  for (const c of shown) {
    const { word } = factsOf(c.line.kind);
    groups.set(word, [...(groups.get(word) ?? []), c]);
  }
  return [...groups].flatMap(([word, cells]) => [{ heading: `${word}s`, count: cells.length }, ...inRows(cells, columns)]);
}

const inRows = (cells: readonly Compartment[], columns: number): Row[] =>
  Array.from({ length: Math.ceil(cells.length / columns) }, (_, i) => ({ cells: cells.slice(i * columns, (i + 1) * columns) }));
