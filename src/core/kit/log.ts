import stableStringify from 'fast-json-stable-stringify';
import type { Entry, UnknownEntry } from './schema/entries';

type Logged = Entry | UnknownEntry;

/** Order of a log: by time, then by id, so that every union of the same entries is the same log. */
export const compareEntries = (a: { at: string; id: string }, b: { at: string; id: string }): number =>
  a.at < b.at ? -1 : a.at > b.at ? 1 : a.id < b.id ? -1 : a.id > b.id ? 1 : 0;

/**
 * All entries of some logs, each once, in order. Two entries of one id should be one and the same; where they differ (a
 * hand-edited file) the one whose text sorts first is kept, whatever side it came from.
 */
export function unite(...logs: readonly (readonly Logged[])[]): { readonly log: Logged[]; readonly differing: readonly string[] } {
  const byId = new Map<string, Logged>();
  const differing: string[] = [];
  for (const log of logs)
    for (const entry of log) {
      const known = byId.get(entry.id);
      if (known === undefined) byId.set(entry.id, entry);
      else if (known !== entry) {
        const [a, b] = [stableStringify(known), stableStringify(entry)];
        if (a === b) continue;
        differing.push(entry.id);
        if (b < a) byId.set(entry.id, entry);
      }
    }
  return { log: [...byId.values()].sort(compareEntries), differing };
}

/** Whether a log stands in order already, each entry once. */
export const isOrdered = (log: readonly Logged[]): boolean => log.every((e, i) => i === 0 || compareEntries(log[i - 1]!, e) < 0);

/** What was taken back. A withdrawal that was itself taken back does nothing; of two that name each other the later one counts. */
export function withdrawals(log: readonly Logged[]): { readonly gone: Set<string>; readonly targets: Set<string> } {
  const members = new Map<string, string[]>();
  for (const e of log) if (e.batch !== undefined) members.set(e.batch, [...(members.get(e.batch) ?? []), e.id]);
  const gone = new Set<string>();
  const targets = new Set<string>();
  for (let i = log.length - 1; i >= 0; i--) {
    const e = log[i]!;
    if (e.kind !== 'withdrawn') continue;
    const { entry, ofBatch } = e as Extract<Entry, { kind: 'withdrawn' }>;
    for (const target of [entry, ofBatch]) if (target !== undefined) targets.add(target);
    if (gone.has(e.id)) continue;
    if (entry !== undefined) gone.add(entry);
    for (const id of (ofBatch === undefined ? undefined : members.get(ofBatch)) ?? []) if (id !== e.id) gone.add(id);
  }
  return { gone, targets };
}
