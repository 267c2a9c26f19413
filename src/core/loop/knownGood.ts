import { checkTaken, isFresh, type KitState, type MeasureCheck, type Stage } from '../kit';
import { print } from '../quantity';
import { checkObservableId, unitOf } from '../vocabulary';

/** One check on this board and on a known-good one. */
export interface KnownGoodRow {
  readonly observable: string;
  readonly stage: Stage;
  readonly check: MeasureCheck;
  /** The last reading that counts; null where there is none. */
  readonly own: number | 'over' | null;
  readonly good: number | 'over' | null;
  /** Whether they differ by more than parts and meters explain; null where one of them is missing. */
  readonly differs: boolean | null;
  /** How far apart they are, as a share of the larger one. */
  readonly share: number | null;
}

/** Two good boards of one kit read alike within this share, or within this many units of the mode (common practice, no source). */
const ALIKE_SHARE = 0.1;
const ALIKE_LEAST: Readonly<Partial<Record<MeasureCheck['mode'], number>>> = { dcv: 0.05, acv: 0.05, dca: 1e-3, ohms: 2, diode: 0.05, vmin: 0.1, vmax: 0.1 };

/** The measurements of all stages, in their order. */
export const knownGoodRows = (kit: KitState): KnownGoodRow[] =>
  kit.sheet.stages.flatMap((stage) =>
    stage.checks.flatMap((check): KnownGoodRow[] => {
      if (check.what !== 'measure') return [];
      const taken = checkTaken(kit, stage, check.id).findLast((t) => isFresh(kit, t));
      const own = taken?.entry.kind === 'read' ? taken.entry.reading : null;
      const observable = checkObservableId(stage.id, check.id);
      const good = kit.reference.get(observable)?.reading ?? null;
      return [{ observable, stage, check, own, good, ...compared(own, good, check.mode) }];
    }),
  );

function compared(own: KnownGoodRow['own'], good: KnownGoodRow['good'], mode: MeasureCheck['mode']): Pick<KnownGoodRow, 'differs' | 'share'> {
  if (own === null || good === null) return { differs: null, share: null };
  if (own === 'over' || good === 'over') return { differs: own !== good, share: own === good ? 0 : 1 };
  const apart = Math.abs(own - good);
  const larger = Math.max(Math.abs(own), Math.abs(good));
  const share = larger === 0 ? 0 : apart / larger;
  return { differs: share > ALIKE_SHARE && apart > (ALIKE_LEAST[mode] ?? 0), share };
}

/** How this board differs from the known-good one, in words. */
export function differenceFromKnownGood({ own, good, check, differs }: KnownGoodRow): string {
  if (differs === null) return '';
  if (own === 'over' || good === 'over') return differs ? (own === 'over' ? 'open here only' : 'open there only') : 'same';
  const apart = own! - good!;
  return differs ? `${print(Math.abs(apart), unitOf(check.mode), 3)} too ${apart < 0 ? 'low' : 'high'}` : 'same within tolerance';
}
