import type { Findings, PredictedCell, TableRow } from '@/core/diagnose';
import type { KitState } from '@/core/kit';
import { print } from '@/core/quantity';
import { unitOf } from '@/core/vocabulary';
import { rowTitle } from './words';

/** Above this an ohmmeter shows over-range (common practice: 10 MΩ). */
const OVER_OHMS = 1e7;

/** What was read or seen, as it is said. */
export function seenText(r: TableRow): string {
  if (r.mode === 'look') return r.seen;
  return r.seen === null ? '?' : r.seen === 'over' ? 'OL' : print(r.seen, unitOf(r.mode));
}

export function predictedText({ middle }: Pick<PredictedCell, 'middle'>, r: TableRow): string {
  if (r.mode === 'look') return middle >= r.amperes ? 'on' : 'off';
  return middle > OVER_OHMS && r.mode === 'ohms' ? 'OL' : print(middle, unitOf(r.mode), 3);
}

/** A reading, with what a suspect and a healthy board would show. */
export interface Told {
  readonly title: string;
  readonly seen: string;
  readonly shows: string;
  readonly healthy: string | null;
}

/**
 * What speaks for a suspect: readings that it explains and a healthy board does not; against it: those that it does not
 * explain. Readings that all explain alike tell nothing.
 * @param at the suspect's place among those that are faults
 */
export function evidenceOf(kit: KitState, findings: Findings, at: number): { readonly speaksFor: Told[]; readonly against: Told[] } {
  const speaksFor: Told[] = [];
  const against: Told[] = [];
  for (const r of findings.rows) {
    const cell = r.suspects[at];
    if (r.seen === null || !cell) continue;
    const told = {
      title: rowTitle(kit, r.id, findings.rows),
      seen: seenText(r),
      shows: predictedText(cell, r),
      healthy: r.healthy && predictedText(r.healthy, r),
    };
    if (!cell.fits) against.push(told);
    else if (r.healthy && !r.healthy.fits) speaksFor.push(told);
  }
  return { speaksFor, against };
}
