import { type Entry, isOfMaking, type KitState, type UnknownEntry } from '../kit';
import { entryText } from './logText';

type Logged = Entry | UnknownEntry;

/** What a step of the log belongs to, as one looks for it later. */
export const LOG_TOPICS = ['counting', 'measuring', 'fitting', 'readings', 'faults', 'sheet', 'instruments', 'notes'] as const;
export type LogTopic = (typeof LOG_TOPICS)[number];

/** Entries that were written as one step. */
export interface LogStep {
  readonly id: string;
  readonly at: string;
  readonly entries: readonly Logged[];
  readonly topic: LogTopic;
  readonly text: string;
  /** Taken back, all of it. */
  readonly gone: boolean;
  /** The records that the kit was made with. */
  readonly making: boolean;
}

const TOPIC: Readonly<Record<string, LogTopic>> = {
  received: 'counting',
  counted: 'counting',
  loose: 'counting',
  sorted: 'counting',
  marked: 'measuring',
  measured: 'measuring',
  figured: 'measuring',
  skipped: 'measuring',
  fitted: 'fitting',
  removed: 'fitting',
  modified: 'fitting',
  restored: 'fitting',
  set: 'readings',
  read: 'readings',
  probed: 'readings',
  observed: 'readings',
  tried: 'readings',
  referenced: 'readings',
  inspected: 'fitting',
  traced: 'fitting',
  gated: 'readings',
  prepared: 'readings',
  'ruled-out': 'faults',
  symptom: 'faults',
  examined: 'measuring',
  found: 'faults',
  repaired: 'faults',
  'meter-checked': 'instruments',
  compared: 'instruments',
  changed: 'sheet',
  owned: 'sheet',
};

const steps = new WeakMap<KitState, LogStep[]>();

/** The log as steps, newest first. A withdrawal alone is no step: it shows on what it took back. */
export function logSteps(kit: KitState): LogStep[] {
  const known = steps.get(kit);
  if (known) return known;
  const found = new Map<string, Logged[]>();
  for (const e of kit.log) {
    if (e.kind === 'withdrawn' && e.batch === undefined) continue;
    const id = e.batch ?? e.id;
    const same = found.get(id);
    if (same) same.push(e);
    else found.set(id, [e]);
  }
  const all = [...found].map(([id, entries]) => stepOf(kit, id, entries)).reverse();
  steps.set(kit, all);
  return all;
}

function stepOf(kit: KitState, id: string, entries: readonly Logged[]): LogStep {
  const telling = entries.find((e) => e.kind !== 'withdrawn') ?? entries[0]!;
  const making = isOfMaking(kit, entries[0]!);
  return {
    id,
    at: entries[0]!.at,
    entries,
    topic: TOPIC[telling.kind] ?? 'notes',
    get text() {
      return making ? `The kit was made: ${entries.length} records of its sheet` : textOf(kit, entries);
    },
    gone: entries.every((e) => kit.gone.has(e.id)),
    making,
  };
}

const SAID_AT_MOST = 3;

function textOf(kit: KitState, entries: readonly Logged[]): string {
  const telling = entries.filter((e) => e.kind !== 'withdrawn');
  const said = (telling.length > 0 ? telling : entries).slice(0, SAID_AT_MOST).map((e) => entryText(kit, e));
  const corrected = telling.length > 0 && telling.length < entries.length ? 'Corrected: ' : '';
  const more = (telling.length || entries.length) - said.length;
  return `${corrected}${said.join('; ')}${more > 0 ? ` and ${more} more` : ''}`;
}

/** The standing withdrawal that took a step back. */
export function withdrawalOf(kit: KitState, step: LogStep): Logged | undefined {
  const ids = new Set(step.entries.map((e) => e.id));
  return kit.log.find(
    (e) =>
      e.kind === 'withdrawn' &&
      !kit.gone.has(e.id) &&
      (ids.has((e as { entry?: string }).entry ?? '') || (e as { ofBatch?: string }).ofBatch === step.id) &&
      !ids.has(e.id),
  );
}

export interface LogChoice {
  readonly topics: readonly LogTopic[];
  readonly search: string;
  readonly withGone: boolean;
}

/** Steps that fit: of these topics (all when none is named), with these words, withdrawn ones only where wanted. */
export function chooseSteps(all: readonly LogStep[], { topics, search, withGone }: LogChoice): LogStep[] {
  const wanted = search.trim().toLowerCase();
  return all.filter(
    (s) => (withGone || !s.gone) && (topics.length === 0 || topics.includes(s.topic)) && (wanted === '' || s.text.toLowerCase().includes(wanted)),
  );
}
