import { type Check, checkTaken, type EntryOf, isFresh, type KitState, lackingFor, type MeasureCheck, type ObserveCheck, type Stage, type Taken } from '../kit';
import { type MeterProfile, uncertaintyOf } from '../meter';
import { type ComputedWindow, computedWindow, type Windows } from '../stage';

export { type Windows } from '../stage';
import { conformity, type Verdict, worst } from '../verdict';
import { checkObservableId } from '../vocabulary';
import { extremeOf } from './extreme';
import { seriesOf } from './series';

/** Null while they are being worked out: then nothing is judged. */
export type KnownWindows = Windows | null;

/** The window that a check is judged by, and where it came from. */
export interface CheckWindow {
  readonly low: number;
  readonly high: number;
  readonly middle: number | null;
  /** `simulated`: kept with the check, from healthy boards of all makes; `usual`: proposed from the list by the rules of the trade. */
  readonly source: 'computed' | 'typed' | 'simulated' | 'usual';
  readonly over: boolean;
  /** The kit's own instructions contradict the circuit. */
  readonly conflict: boolean;
}

export interface MeasureProgress {
  readonly check: MeasureCheck;
  readonly entry: EntryOf<'read'> | null;
  readonly window: CheckWindow | null;
  readonly verdict: Verdict;
  readonly probability: number | null;
  /** Fits, and moves all the while: doubtful until it has settled. */
  readonly drifts: boolean;
}
export interface ObserveProgress {
  readonly check: ObserveCheck;
  /** One result per channel; a check without channels has one, named by the empty text. */
  readonly results: readonly { readonly channel: string; readonly entry: EntryOf<'observed'> | null }[];
  readonly verdict: Verdict;
}
export type CheckProgress = MeasureProgress | ObserveProgress;

/**
 * `doubtful`: all is read, and something lies just outside; `overridden`: gone on behind it all the same; `postponed`: something that
 * it needs is not to be had for now.
 */
export type StageStatus = 'passed' | 'overridden' | 'postponed' | 'doubtful' | 'failed' | 'current' | 'waiting';

export interface StageProgress {
  readonly stage: Stage;
  readonly checks: readonly CheckProgress[];
  readonly status: StageStatus;
  /** Why one went on behind it, or does it again, or what it waits for; null where nobody said so. */
  readonly reason: string | null;
}

export const isMeasure = (p: CheckProgress): p is MeasureProgress => p.check.what === 'measure';

/** All stages with what has been read. A stage that fails stops those behind it. */
export function deriveStages(kit: KitState, windows: KnownWindows): StageProgress[] {
  let stopped = false;
  return kit.sheet.stages.map((stage) => {
    const checks = stage.checks.map((c) => progressOf(kit, stage, c, windows));
    // What is turned until it is right fails nothing while it is being turned.
    const verdict = worst(checks.filter((c) => !isTurning(c)).map((c) => c.verdict));
    const complete = checks.every((c) => isComplete(c) && !isTurning(c) && !awaitsWindow(c, windows));
    const gate = kit.gates.get(stage.id) ?? null;
    const own: StageStatus = verdict === 'out' ? 'failed' : !complete ? 'current' : verdict === 'doubtful' ? 'doubtful' : 'passed';
    // What is read afterwards speaks for itself again, and so does a board that was repaired since.
    const since = Math.max(lastTaken(kit, stage), kit.change?.stage === stage.id ? kit.change.at : -1);
    const goesOn = gate?.entry.go === 'on' && own !== 'passed' && since < gate.at;
    const lacks = lackingFor(kit, stage);
    const status: StageStatus = stopped ? 'waiting' : goesOn ? 'overridden' : own === 'current' && lacks.length > 0 ? 'postponed' : own;
    if (!isBehind(status)) stopped = true;
    const why = status === 'postponed' ? lacks.map((n) => n.text).join(', ') : gate && (goesOn || gate.entry.go === 'again') ? gate.entry.reason : null;
    return { stage, checks, status, reason: why };
  });
}

/** An adjusting check whose reading is not there yet. */
export const isTurning = (c: CheckProgress) =>
  isMeasure(c) && c.check.adjust !== undefined && (c.verdict === 'out' || (isExtreme(c.check) && c.verdict !== 'in'));

/** A reading that is turned to its least or its most. */
const isExtreme = (check: MeasureCheck): check is MeasureCheck & { readonly aim: 'least' | 'most' } => check.aim === 'least' || check.aim === 'most';

/** Whether the next stage may follow. */
export const isBehind = (status: StageStatus): boolean => status === 'passed' || status === 'overridden' || status === 'postponed';

/** Stages behind which one may go on. */
export const passedStages = (stages: readonly StageProgress[]): Set<string> => new Set(stages.flatMap((s) => (isBehind(s.status) ? [s.stage.id] : [])));

/** Place in the log of the last reading or observation of a stage; −1 without one. */
const lastTaken = (kit: KitState, stage: Stage): number => Math.max(-1, ...stage.checks.flatMap((c) => checkTaken(kit, stage, c.id).map((t) => t.met.at)));

/** Read, and not judged yet because its window is still being worked out. */
const awaitsWindow = (c: CheckProgress, windows: KnownWindows) => windows === null && isMeasure(c) && c.entry !== null && c.check.window === undefined;

const isComplete = (c: CheckProgress) => (isMeasure(c) ? c.entry !== null : c.results.every((r) => r.entry !== null));

/** What was read or seen of a check and still counts: on the board as it is, since its stage was begun anew. Oldest first. */
export function freshTaken(kit: KitState, stage: Stage, check: string) {
  const again = kit.gates.get(stage.id);
  const from = again?.entry.go === 'again' ? again.at : -1;
  return checkTaken(kit, stage, check).filter((t) => isFresh(kit, t) && t.met.at > from);
}

function progressOf(kit: KitState, stage: Stage, check: Check, windows: KnownWindows): CheckProgress {
  const taken = freshTaken(kit, stage, check.id);
  if (check.what === 'observe') {
    const last = (channel: string) => lastOf(taken, 'observed', (e) => (e.channel ?? '') === channel)?.entry ?? null;
    const results = (check.channels ?? ['']).map((channel) => ({ channel, entry: last(channel) }));
    const done = results.flatMap((r) => (r.entry ? [r.entry.asExpected] : []));
    return { check, results, verdict: done.includes(false) ? 'out' : done.length === results.length ? 'in' : 'none' };
  }
  const last = lastOf(taken, 'read');
  const found = last && isDisturbed(kit, stage, check, last) ? null : last;
  const window = windowFor(check, windowOfReading(windows, found?.entry.id ?? null, checkObservableId(stage.id, check.id)));
  const judged = isExtreme(check)
    ? judgeExtreme(taken, check.aim)
    : found
      ? judgeReading(found.entry.reading, check.mode, window, found.met.meter)
      : { verdict: 'none' as const, probability: null };
  const drifts = judged.verdict === 'in' && driftTold(taken, check) !== null;
  return { check, entry: found?.entry ?? null, window, ...judged, verdict: drifts ? 'doubtful' : judged.verdict, drifts };
}

/** Units a minute by which a check drifts, where that is told; null else, and for what is turned. */
export function driftTold(taken: readonly Taken[], check: MeasureCheck): number | null {
  if (check.adjust !== undefined || isExtreme(check)) return null;
  const drift = seriesOf(taken, check.mode)?.drift;
  return drift?.told ? drift.perMinute : null;
}

/** The least or the most is there, or is still being looked for. */
function judgeExtreme(taken: readonly Taken[], aim: 'least' | 'most'): { verdict: Verdict; probability: null } {
  const readings = taken.flatMap(({ entry }) => (entry.kind === 'read' && entry.reading !== 'over' ? [entry.reading] : []));
  return { verdict: extremeOf(readings, aim).there ? 'in' : 'none', probability: null };
}

/** Two readings of another control's check since: it was turned, and what it moves has to be read again. */
function isDisturbed(kit: KitState, stage: Stage, check: MeasureCheck, last: Taken): boolean {
  if (check.adjust === undefined) return false;
  return stage.checks.some(
    (c) =>
      c.what === 'measure' &&
      c.adjust !== undefined &&
      c.adjust !== check.adjust &&
      freshTaken(kit, stage, c.id).filter((t) => t.met.at > last.met.at).length > 1,
  );
}

/** The window of a reading: its own where the board or the meter was another one then, else that of the check. */
export const windowOfReading = (windows: KnownWindows, entry: string | null, observable: string): ComputedWindow | null =>
  windows && computedWindow(entry !== null && entry in windows ? windows[entry] : windows[observable]);

/** The last entry of one kind that fits. */
function lastOf<K extends 'read' | 'observed'>(taken: readonly Taken[], kind: K, fits: (e: EntryOf<K>) => boolean = () => true): Taken<EntryOf<K>> | null {
  for (let i = taken.length - 1; i >= 0; i--) {
    const t = taken[i]!;
    if (t.entry.kind === kind && fits(t.entry as EntryOf<K>)) return t as Taken<EntryOf<K>>;
  }
  return null;
}

/** A typed window stands beside the computed one; where they do not overlap, that is a finding. */
export function windowFor(check: MeasureCheck, computed: ComputedWindow | null): CheckWindow | null {
  const typed = check.window;
  if (typed) {
    const [low, high] = [typed.low ?? -Infinity, typed.high ?? Infinity];
    const simulated = check.window.from === 'simulated';
    const conflict = !simulated && computed !== null && (computed.over ? high < Infinity : high < computed.low || low > computed.high);
    const inside = computed !== null && computed.middle >= low && computed.middle <= high;
    const middle = inside || !simulated ? (computed?.middle ?? null) : null;
    return { low, high, middle, source: check.window.from ?? 'typed', over: high === Infinity, conflict };
  }
  return computed && { low: computed.low, high: computed.high, middle: computed.middle, source: 'computed', over: computed.over, conflict: false };
}

/** Verdict on a reading against a window. Readings just outside, by less than the meter's allowance, are doubtful. */
export function judgeReading(
  reading: number | 'over' | null,
  mode: MeasureCheck['mode'],
  window: CheckWindow | null,
  meter: MeterProfile,
): { verdict: Verdict; probability: number | null } {
  if (reading === null || !window) return { verdict: 'none', probability: null };
  if (reading === 'over') return { verdict: window.over ? 'in' : 'out', probability: window.over ? 1 : 0 };
  const u = uncertaintyOf(meter, mode, reading);
  const { probability } = conformity(reading, u?.standard ?? 0, window.low, window.high, 'simple');
  if (reading >= window.low && reading <= window.high) return { verdict: 'in', probability };
  const outside = Math.max(window.low - reading, reading - window.high);
  return { verdict: outside <= (u?.halfWidth ?? 0) ? 'doubtful' : 'out', probability };
}

/** The stage to work on: the first that has not passed; null when all have. */
export function currentStage(stages: readonly StageProgress[]): StageProgress | null {
  return stages.find((s) => !isBehind(s.status)) ?? null;
}
