import { type Fault, mendedAt } from '@/core/fault';
import { deriveTray, foldDocument, type KitDocument, type KitState, newKit, stands } from '@/core/kit';
import { faultsLeft, hiddenFaults, practiceOf } from './practice';
import { type PlayedLook, type PlayedStep, playRound } from './play';

/** Where a practice round stands, told without giving anything away; `review` once it is over. */
export interface PracticeStanding {
  /** All that was hidden on the board is mended; of a parcel alone, all is noticed. */
  readonly mended: boolean;
  readonly review: PracticeReview | null;
}

/** A line with a piece of another value, or with too few of them. */
export interface ParcelTrouble {
  readonly line: string;
  readonly what: 'value' | 'count';
  /** The value of the wrong piece, or how many there were. */
  readonly is: number;
  /** Found out of its tolerance, or counted right. */
  readonly noticed: boolean;
}

export interface PracticeReview {
  readonly hidden: readonly Fault[];
  /** What was wrong with the parcel, line by line. */
  readonly parcel: readonly ParcelTrouble[];
  /** Pieces that were measured. */
  readonly measured: number;
  /** Ohms of bad test leads, and whether the short test of the meter showed them. */
  readonly leads: { readonly ohms: number; readonly noticed: boolean } | null;
  readonly readings: number;
  /** Places that were repaired without need. */
  readonly pulled: readonly string[];
  readonly risks: readonly string[];
}

/** Where a round stands. The answer names nothing that is hidden before all is mended or the round was ended. */
export function practiceStanding(doc: KitDocument): PracticeStanding {
  const kit = foldDocument(doc);
  const { standIn } = kit.settings;
  const hidden = hiddenFaults(standIn);
  const parcel = parcelOf(kit);
  const mended = hidden.length > 0 ? faultsLeft(practiceOf(kit)).length === 0 : parcel.length > 0 && parcel.every((p) => p.noticed);
  return { mended, review: mended || standIn?.over ? reviewOf(kit, hidden) : null };
}

function reviewOf(kit: KitState, hidden: readonly Fault[]): PracticeReview {
  const { standIn } = kit.settings;
  const places = new Set(hidden.flatMap(mendedAt));
  const taken = [...kit.readings.values()].flat().filter((t) => t.entry.kind !== 'observed');
  return {
    hidden,
    parcel: parcelOf(kit),
    measured: deriveTray(kit).reduce((n, c) => n + c.pieces.filter((p) => p.entry !== null).length, 0),
    leads: standIn?.leads === undefined ? null : { ohms: standIn.leads, noticed: leadsNoticed(kit, standIn.leads) },
    readings: taken.length,
    pulled: [...kit.repaired].filter((ref) => !places.has(ref)),
    risks: risksOf(kit),
  };
}

/** Readings that the program takes by its own advice, and then the suspects that it looks at. */
export interface PracticePlay {
  readonly steps: readonly PlayedStep[];
  readonly looks: readonly PlayedLook[];
}

/** The round as the program plays it: on the same bench, from an empty log on. On a board that runs it takes a while. */
export function practicePlay({ sheet, settings }: Pick<KitState, 'sheet' | 'settings'>): PracticePlay {
  const { steps, looks } = playRound(newKit(sheet, { id: 'played', at: '2026-01-01T00:00:00.000Z' }, settings));
  return { steps, looks };
}

function parcelOf(kit: KitState): ParcelTrouble[] {
  const tray = deriveTray(kit);
  return Object.entries(kit.settings.standIn?.pieces ?? {}).flatMap(([key, [is]]): ParcelTrouble[] => {
    const line = key.replace(COUNT, '');
    const compartment = tray.find((c) => c.line.id === line);
    if (is === undefined || !compartment) return [];
    if (COUNT.test(key)) return [{ line, what: 'count', is, noticed: kit.tallies.get(line)?.total === is }];
    return [{ line, what: 'value', is, noticed: compartment.pieces.some((p) => p.verdict === 'out') }];
  });
}
const COUNT = /#count$/;

/** Held together the probes show their leads: half of what is too much is seen (choice of this product). */
const leadsNoticed = (kit: KitState, ohms: number): boolean =>
  kit.log.some((e) => e.kind === 'meter-checked' && 'together' in e && stands(kit, e) && typeof e.together === 'number' && e.together >= ohms / 2);

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
