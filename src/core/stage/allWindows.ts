import { type EntryOf, type KitState, meterOf, type Taken } from '../kit';
import { type StageScene } from '../specimen';
import { boardOf, circuitOf, sceneOf } from './scene';
import { type Setup, setupOf } from './setup';
import { type ComputedWindow, windowsOf } from './windows';

/**
 * Computed windows by observable; one that is missing is still being computed, null cannot be. Readings that met another
 * board or meter than there is now have a window of their own under the id of their entry.
 */
export type Windows = Readonly<Record<string, ComputedWindow | null>>;

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

/** One result per different argument, compared by content. */
function memo<A, R>(compute: (a: A) => R): (a: A) => R {
  const known = new Map<string, R>();
  return (a) => {
    const key = JSON.stringify(a);
    const found = known.get(key) ?? compute(a);
    known.set(key, found);
    return found;
  };
}

/** Told how much of a longer work is done, 0..1. */
type Progress = (done: number) => void;

/** All windows of a kit. */
export function allWindows({ now, past }: WindowInputs, progress: Progress = () => undefined): Windows {
  const whole = circuitOf(now.sheet);
  const all: Record<string, ComputedWindow | null> = {};
  if (whole.parts.length === 0) return all;
  const windows = memo((asked: { readonly scene: StageScene; readonly board: ReturnType<typeof boardOf>; readonly meter: Setup['meter'] }) =>
    windowsOf(asked.scene, asked.board, asked.meter),
  );
  const at = (setup: Setup, stage: Setup['sheet']['stages'][number]) =>
    windows({ scene: sceneOf(setup, whole, stage), board: boardOf(setup, whole), meter: setup.meter });
  const steps = now.sheet.stages.length + past.length;
  now.sheet.stages.forEach((stage, i) => {
    for (const [id, window] of at(now, stage)) all[id] = window;
    progress((i + 1) / steps);
  });
  past.forEach(({ entry, stage, observable, setup }, i) => {
    const found = now.sheet.stages.find((s) => s.id === stage);
    if (found) all[entry] = at(setup, found).get(observable) ?? null;
    progress((now.sheet.stages.length + i + 1) / steps);
  });
  return all;
}
