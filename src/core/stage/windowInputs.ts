import { type EntryOf, type KitState, meterOf, type Taken } from '../kit';
import { type Setup, setupOf } from './setup';
import type { WindowResult } from './windowResult';

/**
 * Windows by observable, or why there is none; one that is missing is still being computed. Readings that met another
 * board or meter than there is now have a window of their own under the id of their entry.
 */
export type Windows = Readonly<Record<string, WindowResult>>;

type Reading = Taken<EntryOf<'read'> | EntryOf<'probed'>>;

/** A reading that met another board or meter than there is now. */
interface PastReading {
  readonly entry: string;
  readonly stage: string;
  readonly observable: string;
  readonly setup: Setup;
}

/** What all windows of a kit follow from, as plain data. */
export interface WindowInputs {
  readonly now: Setup;
  readonly past: readonly PastReading[];
}

const isReading = (t: Taken): t is Reading => t.entry.kind !== 'observed';

/**
 * What the windows follow from; null without a circuit. Of the readings that met something else the last one at each
 * point counts, or `every` one of them.
 */
export function windowInputs(kit: KitState, every = false): WindowInputs | null {
  if (!kit.sheet.circuit) return null;
  const [board, meter] = [kit.board, meterOf(kit)];
  const past = [...kit.readings].flatMap(([observable, all]): PastReading[] => {
    const readings = all.filter(isReading);
    return (every ? readings : readings.slice(-1)).flatMap(({ entry, met }) =>
      met.board === board && met.meter === meter ? [] : [{ entry: entry.id, stage: entry.stage, observable, setup: setupOf(kit, met) }],
    );
  });
  return { now: setupOf(kit), past };
}
