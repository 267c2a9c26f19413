import { type Fault, mendedAt } from '@/core/fault';
import type { KitState, Ref, StandIn } from '@/core/kit';
import { type Setup, setupOf } from '@/core/stage';

/** What the simulated meter needs to know: plain data. */
export interface Practice {
  readonly setup: Setup;
  readonly standIn: StandIn | null;
  readonly repaired: readonly Ref[];
  /** Entries so far: every reading has an error of its own. */
  readonly attempt: number;
}

export const practiceOf = (kit: KitState): Practice => ({
  setup: setupOf(kit),
  standIn: kit.settings.standIn,
  repaired: [...kit.repaired],
  attempt: kit.log.length,
});

export const hideFault = (...faults: readonly Fault[]) => btoa(JSON.stringify(faults.length === 1 ? faults[0] : faults));

/** What is hidden on the board; none on a healthy one. */
export function hiddenFaults(standIn: StandIn | null): readonly Fault[] {
  if (!standIn) return [];
  const told = JSON.parse(atob(standIn.fault)) as Fault | readonly Fault[];
  return (Array.isArray(told) ? (told as readonly Fault[]) : [told as Fault]).filter((f) => f.kind !== 'healthy');
}

/** What is still wrong on the board after what was repaired. */
export const faultsLeft = ({ standIn, repaired }: Pick<Practice, 'standIn' | 'repaired'>): readonly Fault[] =>
  hiddenFaults(standIn).filter((f) => !mendedAt(f).some((place) => repaired.includes(place)));
