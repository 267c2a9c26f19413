import { type EntryOf, type KitState, meterOf, type Ref, type Sheet, type Stage, type Taken } from '../kit';
import type { MeterProfile } from '../meter';
import { type Setup, setupOf } from '../stage';
import { checkObservableId } from '../vocabulary';
import { type WorkEvidence, workOf } from './work';

type Reading = EntryOf<'read'> | EntryOf<'probed'>;

type Seen = EntryOf<'observed'>;

/** What one observation of a stage told of a part: whether it does what it does from so many amperes on. */
export interface Sight {
  readonly observable: string;
  readonly entry: string;
  readonly ref: Ref;
  readonly lit: boolean;
  readonly amperes: number;
}

/** Readings of one stage that met one board, oldest first. */
export interface Sitting {
  readonly stage: string;
  readonly setup: Setup;
  readonly readings: readonly { readonly observable: string; readonly entry: string; readonly value: number | 'over'; readonly meter: MeterProfile }[];
  /** Observables that were read more than once here. */
  readonly repeated: readonly string[];
  readonly sights: readonly Sight[];
  /** What a known-good board read there. */
  readonly reference: Sitting['readings'];
  /** The newest board of its stage: its observables go by their plain names, those of older boards carry a number. */
  readonly newest: boolean;
}

/** What an investigation follows from, as plain data. */
export interface InvestigationInputs {
  readonly sittings: readonly Sitting[];
  readonly setup: Setup;
  readonly skipped: readonly string[];
  readonly work: WorkEvidence;
  /** Where parts and pads lie: what tracks may be broken follows from it. */
  readonly placement: Sheet['placement'];
  readonly pads: Sheet['pads'];
  readonly efforts: KitState['settings']['efforts'];
  /** Whether one goes back to earlier stages for readings. */
  readonly elsewhere: boolean;
}

/** Gathers the readings since the last repair, sitting by sitting; null when there is no circuit or nothing was read. */
export function investigationInputs(kit: KitState, elsewhere = false): InvestigationInputs | null {
  if (!kit.sheet.circuit) return null;
  const since = kit.change?.at ?? -1;
  const all = [...kit.readings]
    .flatMap(([observable, taken]) => taken.filter((t) => t.met.at > since).map((t) => ({ observable, taken: t })))
    .sort((a, b) => a.taken.met.at - b.taken.met.at);
  const sittings = kit.sheet.stages.flatMap((stage) =>
    sittingsOf(
      kit,
      stage,
      all.filter((r) => r.taken.entry.stage === stage.id),
    ),
  );
  if (sittings.length === 0) return null;
  const { placement, pads } = kit.sheet;
  return {
    sittings,
    setup: setupOf(kit),
    skipped: [...kit.skipped],
    work: workOf(kit),
    placement,
    pads,
    efforts: kit.settings.efforts,
    elsewhere,
  };
}

/** Readings of a known-good board at the checks of a stage. */
const referenceOf = (kit: KitState, stage: Stage): Sitting['readings'] =>
  stage.checks.flatMap((c) => {
    const observable = checkObservableId(stage.id, c.id);
    const entry = kit.reference.get(observable);
    if (!entry || entry.reading === null) return [];
    return [{ observable, entry: entry.id, value: entry.reading, meter: kit.settings.meters.find((m) => m.id === entry.meter) ?? meterOf(kit) }];
  });

interface Found<E extends Reading | Seen = Reading | Seen> {
  readonly observable: string;
  readonly taken: Pick<Taken<E>, 'entry' | 'met'>;
}
const isRead = (f: Found): f is Found<Reading> => f.taken.entry.kind !== 'observed';
const isSeen = (f: Found): f is Found<Seen> => f.taken.entry.kind === 'observed';

/** Observations that say which part shows them; the last one of each counts. */
function sightsOf(stage: Stage, seen: readonly Found<Seen>[]): Sight[] {
  const last = new Map(seen.map((s) => [s.observable, s.taken]));
  return [...last].flatMap(([observable, { entry }]): Sight[] => {
    const check = stage.checks.find((c) => c.id === entry.check);
    if (check?.what !== 'observe' || !check.sign) return [];
    const { ref, amperes } = check.sign;
    return [{ observable, entry: entry.id, ref, lit: entry.asExpected === amperes >= 0, amperes: Math.abs(amperes) }];
  });
}

function sittingsOf(kit: KitState, stage: Stage, all: readonly Found[]): Sitting[] {
  // What is turned until it is right tells where the control stands, and nothing of the parts.
  const turned = new Set(stage.checks.flatMap((c) => (c.what === 'measure' && c.adjust !== undefined ? [c.id] : [])));
  const readings = all.filter(isRead).filter((r) => r.taken.entry.kind !== 'read' || !turned.has(r.taken.entry.check));
  const sights = all.filter(isSeen);
  const boards = [...new Set(readings.map((r) => r.taken.met.board))];
  const meter = meterOf(kit);
  return boards.map((board, i) => {
    const met = readings.filter((r) => r.taken.met.board === board);
    const last = new Map(met.map((r) => [r.observable, r.taken]));
    return {
      stage: stage.id,
      // Predictions carry one meter; each reading brings its own error.
      setup: setupOf(kit, { board, meter }),
      readings: [...last].map(([observable, t]) => ({ observable, entry: t.entry.id, value: t.entry.reading, meter: t.met.meter })),
      repeated: [...last.keys()].filter((id) => met.filter((r) => r.observable === id).length > 1),
      sights: sightsOf(
        stage,
        sights.filter((r) => r.taken.met.board === board),
      ),
      reference: i === boards.length - 1 ? referenceOf(kit, stage) : [],
      newest: i === boards.length - 1,
    };
  });
}
