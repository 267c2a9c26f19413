import { type Check, checkTaken, type EntryOf, isFresh, type KitState, type MeasureCheck, type ObserveCheck, type Stage, type Taken } from '../kit';
import { type MeterProfile, uncertaintyOf } from '../meter';
import { type ComputedWindow, type Windows } from '../stage';

export { type Windows } from '../stage';
import { conformity, type Verdict, worst } from '../verdict';
import { checkObservableId } from '../vocabulary';

/** Null while they are being worked out: then nothing is judged. */
export type KnownWindows = Windows | null;

/** The window that a check is judged by, and where it came from. */
export interface CheckWindow {
  readonly low: number;
  readonly high: number;
  readonly middle: number | null;
  readonly source: 'computed' | 'typed';
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
}
export interface ObserveProgress {
  readonly check: ObserveCheck;
  /** One result per channel; a check without channels has one, named by the empty text. */
  readonly results: readonly { readonly channel: string; readonly entry: EntryOf<'observed'> | null }[];
  readonly verdict: Verdict;
}
export type CheckProgress = MeasureProgress | ObserveProgress;

export type StageStatus = 'passed' | 'failed' | 'current' | 'waiting';

export interface StageProgress {
  readonly stage: Stage;
  readonly checks: readonly CheckProgress[];
  readonly status: StageStatus;
}

export const isMeasure = (p: CheckProgress): p is MeasureProgress => p.check.what === 'measure';

/** All stages with what has been read. A stage that fails stops those behind it. */
export function deriveStages(kit: KitState, windows: KnownWindows): StageProgress[] {
  let stopped = false;
  return kit.sheet.stages.map((stage) => {
    const checks = stage.checks.map((c) => progressOf(kit, stage, c, windows));
    const verdict = worst(checks.map((c) => c.verdict));
    const complete = checks.every((c) => isComplete(c) && !awaitsWindow(c, windows));
    const status: StageStatus = stopped ? 'waiting' : verdict === 'out' ? 'failed' : complete ? 'passed' : 'current';
    if (status !== 'passed') stopped = true;
    return { stage, checks, status };
  });
}

/** Read, and not judged yet because its window is still being worked out. */
const awaitsWindow = (c: CheckProgress, windows: KnownWindows) => windows === null && isMeasure(c) && c.entry !== null && c.check.window === undefined;

const isComplete = (c: CheckProgress) => (isMeasure(c) ? c.entry !== null : c.results.every((r) => r.entry !== null));

function progressOf(kit: KitState, stage: Stage, check: Check, windows: KnownWindows): CheckProgress {
  const taken = checkTaken(kit, stage, check.id).filter((t) => isFresh(kit, t));
  if (check.what === 'observe') {
    const last = (channel: string) => lastOf(taken, 'observed', (e) => (e.channel ?? '') === channel)?.entry ?? null;
    const results = (check.channels ?? ['']).map((channel) => ({ channel, entry: last(channel) }));
    const done = results.flatMap((r) => (r.entry ? [r.entry.asExpected] : []));
    return { check, results, verdict: done.includes(false) ? 'out' : done.length === results.length ? 'in' : 'none' };
  }
  const found = lastOf(taken, 'read');
  const window = windowFor(check, windowOfReading(windows, found?.entry.id ?? null, checkObservableId(stage.id, check.id)));
  const judged = found ? judgeReading(found.entry.reading, check.mode, window, found.met.meter) : { verdict: 'none' as const, probability: null };
  return { check, entry: found?.entry ?? null, window, ...judged };
}

/** The window of a reading: its own where the board or the meter was another one then, else that of the check. */
export const windowOfReading = (windows: KnownWindows, entry: string | null, observable: string): ComputedWindow | null =>
  (windows && (entry !== null && entry in windows ? windows[entry] : windows[observable])) ?? null;

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
    const conflict = computed !== null && !computed.over && (typed.high < computed.low || typed.low > computed.high);
    return { low: typed.low, high: typed.high, middle: computed?.middle ?? null, source: 'typed', over: false, conflict };
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
  return stages.find((s) => s.status !== 'passed') ?? null;
}
