import { isRunning } from '@/core/circuit';
import { type Fault, mendedAt } from '@/core/fault';
import { foldDocument, type KitDocument, type KitState, newKit, stands } from '@/core/kit';
import { circuitOf } from '@/core/stage';
import { faultsLeft, hiddenFaults, practiceOf } from './practice';
import { type PlayedLook, type PlayedStep, playRound } from './play';

/** Where a practice round stands, told without giving anything away; `review` once it is over. */
export interface PracticeStanding {
  /** All that was hidden on the board is mended. */
  readonly mended: boolean;
  readonly review: PracticeReview | null;
}

export interface PracticeReview {
  readonly hidden: readonly Fault[];
  /** Wrong pieces that lay in the bag, by line; how many were noticed. */
  readonly pieces: { readonly wrong: number; readonly noticed: number };
  readonly leads: number | null;
  readonly readings: number;
  /**
   * Readings that the program takes by its own advice, and then the suspects that it looks at; null where nothing was hidden on
   * the board, or the board runs, which would take minutes.
   */
  readonly played: { readonly steps: readonly PlayedStep[]; readonly looks: readonly PlayedLook[] } | null;
  /** Places that were repaired without need. */
  readonly pulled: readonly string[];
  readonly risks: readonly string[];
}

/** Where a round stands. The answer names nothing that is hidden before all is mended or the round was ended. */
export function practiceStanding(doc: KitDocument): PracticeStanding {
  const kit = foldDocument(doc);
  const { standIn } = kit.settings;
  const hidden = hiddenFaults(standIn);
  const mended = hidden.length > 0 && faultsLeft(practiceOf(kit)).length === 0;
  return { mended, review: mended || standIn?.over ? reviewOf(kit, hidden) : null };
}

function reviewOf(kit: KitState, hidden: readonly Fault[]): PracticeReview {
  const { standIn } = kit.settings;
  const places = new Set(hidden.flatMap(mendedAt));
  const taken = [...kit.readings.values()].flat().filter((t) => t.entry.kind !== 'observed');
  // The same bench with an empty log.
  const fresh = newKit(kit.sheet, { id: 'played', at: '2026-01-01T00:00:00.000Z' }, kit.settings);
  const runs = kit.sheet.circuit !== null && isRunning(circuitOf(kit.sheet));
  return {
    hidden,
    pieces: piecesOf(kit),
    leads: standIn?.leads ?? null,
    readings: taken.length,
    played: hidden.length === 0 || runs ? null : playedOf(fresh),
    pulled: [...kit.repaired].filter((ref) => !places.has(ref)),
    risks: risksOf(kit),
  };
}

const playedOf = (fresh: KitState): PracticeReview['played'] => {
  const { steps, looks } = playRound(fresh);
  return { steps, looks };
};

/** Lines with wrong pieces or a short count, and those of them that were measured or counted. */
function piecesOf(kit: KitState): PracticeReview['pieces'] {
  const wrong = Object.keys(kit.settings.standIn?.pieces ?? {});
  const noticed = wrong.filter((key) => {
    const count = key.endsWith('#count');
    const tally = kit.tallies.get(count ? key.slice(0, -'#count'.length) : key);
    return count ? tally?.total != null : (tally?.pieces.size ?? 0) > 0;
  });
  return { wrong: wrong.length, noticed: noticed.length };
}

/** What could have hurt a real board: power without making ready, going on behind a stage that failed. */
function risksOf(kit: KitState): string[] {
  const risks: string[] = [];
  for (const stage of kit.sheet.stages.filter((s) => s.supplies.length > 0)) {
    const first = Math.min(...[...kit.readings.values()].flat().flatMap((t) => (t.entry.stage === stage.id ? [t.met.at] : [])));
    const made = kit.prepared.get(stage.id)?.at ?? Infinity;
    if (first < Infinity && made > first) risks.push(`“${stage.title}” was switched on before its settings were confirmed`);
  }
  for (const e of kit.log)
    if (e.kind === 'gated' && stands(kit, e) && 'go' in e && e.go === 'on')
      risks.push(`went on behind “${kit.sheet.stages.find((s) => s.id === e.stage)?.title ?? e.stage}” although it had not passed`);
  return risks;
}
