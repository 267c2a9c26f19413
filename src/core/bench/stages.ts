import {
  type Check,
  checkEntries,
  type CheckEntry,
  type EntryOf,
  type KitDocument,
  lastBoardChange,
  type MeasureCheck,
  meterOf,
  type ObserveCheck,
  type Stage,
  worst,
} from '../kit';
import { type MeterProfile, uncertaintyOf } from '../meter';
import { checkObservableId } from '../stage/scene';
import { type ComputedWindow } from '../stage/windows';
import { conformity, type Verdict } from '../verdict';

/**
 * Computed windows by observable id; an id that is missing is still being computed, null cannot be. Readings taken on a
 * board that has changed since have a window of their own under the id of their entry.
 */
export type Windows = Readonly<Record<string, ComputedWindow | null>>;

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
export function deriveStages(doc: KitDocument, windows: Windows): StageProgress[] {
  let stopped = false;
  return doc.sheet.stages.map((stage) => {
    const checks = stage.checks.map((c) => progressOf(doc, stage, c, windows));
    const verdict = worst(checks.map((c) => c.verdict));
    const complete = checks.every(isComplete);
    const status: StageStatus = stopped ? 'waiting' : verdict === 'out' ? 'failed' : complete ? 'passed' : 'current';
    if (status !== 'passed') stopped = true;
    return { stage, checks, status };
  });
}

const isComplete = (c: CheckProgress) => (isMeasure(c) ? c.entry !== null : c.results.every((r) => r.entry !== null));

function progressOf(doc: KitDocument, stage: Stage, check: Check, windows: Windows): CheckProgress {
  const entries = freshEntries(doc, stage, check);
  if (check.what === 'observe') {
    const results = (check.channels ?? ['']).map((channel) => ({ channel, entry: lastFor(entries, 'observed', (e) => (e.channel ?? '') === channel) }));
    const done = results.flatMap((r) => (r.entry ? [r.entry.asExpected] : []));
    return { check, results, verdict: done.includes(false) ? 'out' : done.length === results.length ? 'in' : 'none' };
  }
  const entry = lastFor(entries, 'read');
  const window = windowFor(check, (entry && windows[entry.id]) ?? windows[checkObservableId(stage.id, check.id)] ?? null);
  return { check, entry, window, ...judgeReading(entry?.reading ?? null, check.mode, window, meterOf(doc, entry?.meter)) };
}

/** Entries of a check that still count: what was out before a repair is to be read again. */
function freshEntries(doc: KitDocument, stage: Stage, check: Check) {
  const change = lastBoardChange(doc);
  const position = new Map(doc.log.map((e, i) => [e.id, i]));
  const failedStages = change < 0 ? new Set<string>() : stagesOutBefore(doc, change);
  return checkEntries(doc, stage, check.id).filter((e) => position.get(e.id)! > change || !failedStages.has(e.stage));
}

/** Stages worked on last before a repair: their readings showed the fault and are void after it. */
function stagesOutBefore(doc: KitDocument, change: number): Set<string> {
  const before = doc.log.slice(0, change).filter((e) => e.kind === 'read' || e.kind === 'probed' || e.kind === 'observed');
  const last = before[before.length - 1];
  return new Set(last && 'stage' in last ? [last.stage] : []);
}

/** The last entry of one kind that fits. */
function lastFor<K extends 'read' | 'observed'>(entries: readonly CheckEntry[], kind: K, fits: (e: EntryOf<K>) => boolean = () => true): EntryOf<K> | null {
  const found = entries.filter((e): e is Extract<CheckEntry, EntryOf<K>> => e.kind === kind).filter((e) => fits(e as EntryOf<K>));
  return (found[found.length - 1] as EntryOf<K> | undefined) ?? null;
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
