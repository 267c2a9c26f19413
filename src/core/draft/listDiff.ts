import { dequal } from 'dequal';
import { type ChangedBody, type KitState, type Line, patch, put, type Ref, remove, withDependents } from '../kit';

/** One difference between the list as it stands and a corrected one. */
export type LineDifference =
  | { readonly what: 'new'; readonly line: Line }
  | { readonly what: 'gone'; readonly line: Line; /** Entries of the log that belong to it. */ readonly entries: number }
  | { readonly what: 'changed'; readonly before: Line; readonly after: Line; readonly fields: readonly LineField[] };

/** Fields of a line that a list tells. */
const FIELDS = ['kind', 'label', 'value', 'tolerance', 'quantity', 'refs', 'type', 'package', 'colour', 'rating', 'notFitted', 'option'] as const;
export type LineField = (typeof FIELDS)[number];

/**
 * What a corrected list would change: its lines are those of the kit by their positions, else by kind and value. What a
 * builder typed beside the list (notes, amendments, hFE ranges) is left alone.
 */
export function diffLines(kit: KitState, corrected: readonly Line[]): LineDifference[] {
  const open = new Set(kit.sheet.lines);
  const pairs: [Line, Line | null][] = corrected.map((line) => {
    const found = partner(line, [...open]);
    if (found) open.delete(found);
    return [line, found];
  });
  const differences = pairs.flatMap(([after, before]): LineDifference[] => {
    if (!before) return [{ what: 'new', line: after }];
    const fields = FIELDS.filter((f) => !dequal(plain(before[f]), plain(after[f])));
    return fields.length === 0 ? [] : [{ what: 'changed', before, after, fields }];
  });
  const gone = [...open].map((line): LineDifference => ({ what: 'gone', line, entries: kit.log.filter((e) => 'line' in e && e.line === line.id).length }));
  return [...differences, ...gone];
}

const plain = (v: unknown) => (Array.isArray(v) && v.length === 0 ? null : (v ?? null));

/** The line of the kit that a corrected one speaks of. */
function partner(line: Line, open: readonly Line[]): Line | null {
  const shared = (l: Line) => l.refs.filter((r: Ref) => line.refs.includes(r)).length;
  const best = [...open].sort((a, b) => shared(b) - shared(a))[0];
  if (best && shared(best) > 0) return best;
  const same = open.filter((l) => l.kind === line.kind && l.value === line.value && (l.type ?? '') === (line.type ?? ''));
  return same.find((l) => l.label === line.label) ?? (line.refs.length === 0 ? (same[0] ?? null) : null);
}

/** The changes that take one difference over, with what hangs on it. */
export function acceptDifference(kit: KitState, d: LineDifference, newId: () => string): ChangedBody[] {
  switch (d.what) {
    case 'new':
      return [put(kit, 'lines', { ...d.line, id: newId() })];
    case 'gone': {
      const gone = remove(kit, 'lines', d.line.id);
      return gone ? withDependents(kit, gone) : [];
    }
    case 'changed': {
      const told = Object.fromEntries(d.fields.map((f) => [f, d.after[f]]));
      const change = patch(kit, 'lines', d.before.id, told as Partial<Line>);
      return change ? withDependents(kit, change) : [];
    }
  }
}
