import { type Check, type EntryOf, type KitState, type ReadingValue, type Stage, stands } from '../kit';
import type { Verdict } from '../verdict';
import { checkObservableId } from '../vocabulary';
import { deriveStages, isMeasure, judgeReading, type KnownWindows, windowFor, windowOfReading } from './progress';

/** A check that was made before a repair, and what it shows since. */
export interface RepairRow {
  readonly stage: Stage;
  readonly check: Check;
  readonly before: ReadingValue | boolean;
  readonly verdictBefore: Verdict;
  readonly after: ReadingValue | boolean | null;
  readonly verdictAfter: Verdict;
}

/** The last repair, and whether it explains what was seen before it. */
export interface Repair {
  readonly note: string;
  readonly refs: readonly string[];
  readonly rows: readonly RepairRow[];
  /** `repeat`: not all that was wrong was read again; `explains`: all reads as it should; `fails`: something still does not. */
  readonly status: 'repeat' | 'explains' | 'fails';
}

/**
 * What a repair has to explain: every check of the stage that was worked on. Those that were wrong and read rightly since are
 * explained; one that is wrong still, or has become so, says that more is the matter. Null before any repair.
 */
export function deriveRepair(kit: KitState, windows: KnownWindows): Repair | null {
  const entry = kit.log.findLast((e): e is EntryOf<'repaired'> => e.kind === 'repaired' && stands(kit, e));
  const index = entry ? kit.log.indexOf(entry) : -1;
  if (!entry || kit.change?.at !== index) return null;
  const stages = deriveStages(kit, windows);
  const { stage: worked } = kit.change;
  const rows = stages
    .filter((s) => s.stage.id === worked)
    .flatMap(({ stage, checks }) =>
      checks.flatMap((c): RepairRow[] => {
        const taken = (kit.readings.get(checkObservableId(stage.id, c.check.id)) ?? []).filter((t) => t.met.at < index);
        const last = taken.at(-1);
        if (!last || last.entry.kind === 'probed') return [];
        if (!isMeasure(c)) {
          if (last.entry.kind !== 'observed') return [];
          const good = last.entry.asExpected;
          const after = c.results.find((r) => r.entry !== null)?.entry ?? null;
          return [{ stage, check: c.check, before: good, verdictBefore: good ? 'in' : 'out', after: after?.asExpected ?? null, verdictAfter: c.verdict }];
        }
        if (last.entry.kind !== 'read') return [];
        const { reading, id } = last.entry;
        const window = windowFor(c.check, windowOfReading(windows, id, checkObservableId(stage.id, c.check.id)));
        return [
          {
            stage,
            check: c.check,
            before: reading,
            verdictBefore: judgeReading(reading, c.check.mode, window, last.met.meter).verdict,
            after: c.entry?.reading ?? null,
            verdictAfter: c.verdict,
          },
        ];
      }),
    );
  const wrong = rows.some((r) => r.after !== null && r.verdictAfter === 'out');
  const all = rows.every((r) => r.after !== null || r.verdictBefore === 'in');
  return { note: entry.note, refs: entry.refs, rows, status: wrong ? 'fails' : all ? 'explains' : 'repeat' };
}
