import { unite } from './log';
import type { KitDocument } from './document';
import { recordId } from './rooms';
import { KIT_FORMAT, KIT_VERSION, MOST_ENTRIES } from './schema/names';
import { isKnown, KNOWN_KINDS, KNOWN_ROOMS } from './schema/known';
import type { Entry, UnknownEntry } from './schema/entries';
import validateEntry from './generated/validateEntry.js';

/** Something that was noticed about a kit as a whole; the kit opens all the same. */
export interface OpenFinding {
  readonly code: 'newer' | 'unknown-entry' | 'duplicate' | 'damaged';
  readonly text: string;
  /** The record or entry that it is about, where there is one. */
  readonly record?: string | undefined;
}

/** An entry that does not fit the schema: set aside, never thrown away. */
export interface DamagedEntry {
  readonly raw: unknown;
  readonly why: string;
}

interface Opened {
  readonly ok: true;
  readonly kit: KitDocument;
  readonly migratedFrom: number | null;
  /** A newer program wrote it: it may be looked at, and is never written over. */
  readonly readOnly: boolean;
  readonly findings: readonly OpenFinding[];
  readonly damaged: readonly DamagedEntry[];
}
export interface Refused {
  readonly ok: false;
  readonly message: string;
  /** Place in the text or the document. */
  readonly at?: string | undefined;
  /** What can be opened all the same, the damaged entries aside; null when nothing can. */
  readonly rest: Opened | null;
}
export type OpenResult = Opened | Refused;

const SHOWN = 60;
const MOST_FINDINGS = 50;

/** Checks what claims to be a kit of the present version, or of a newer one. `from`: the version that it was brought up from. */
export function checkCurrent(data: unknown, from: number | null = null): OpenResult {
  try {
    const envelope = versionOf(data);
    if (!envelope.ok) return envelope.refused;
    return checkEnvelope(envelope.kit, envelope.version > KIT_VERSION) ?? checkLog(envelope.kit, envelope.version, from);
  } catch (error) {
    return misfit(error as Error);
  }
}

/** The version that a kit says it is of. */
export function versionOf(
  data: unknown,
): { readonly ok: true; readonly kit: Record<string, unknown>; readonly version: number } | { readonly ok: false; readonly refused: Refused } {
  if (!isRecord(data) || data['format'] !== KIT_FORMAT)
    return { ok: false, refused: refuse('This file is no Zesty Bench kit. For a parts list or a deck choose "New kit".') };
  const version = data['version'];
  if (typeof version !== 'number' || !Number.isInteger(version) || version < 1)
    return { ok: false, refused: refuse('The kit file has no readable version number.', 'version') };
  return { ok: true, kit: data, version };
}

export function misfit(error: Error): Refused {
  const why = error.message.slice(0, 200);
  return refuse(`The kit file does not fit its schema: ${why}. Nothing was changed.`, why);
}

const STAMPED = ['id', 'created'] as const;
const ENVELOPE = new Set(['format', 'version', 'id', 'created', 'log', 'attachments']);

/** What is around the log. A newer version may have more. */
function checkEnvelope(kit: Record<string, unknown>, newer: boolean): Refused | null {
  const wrong = (field: string, what: string) =>
    newer
      ? refuse(newerText(kit['version'] as number, false), 'version')
      : refuse(`The kit file does not fit its schema: ${field} ${what}. Nothing was changed.`, field);
  for (const field of STAMPED) {
    const value = kit[field];
    if (typeof value !== 'string' || value === '' || value.length > 200) return wrong(field, 'must be a text of 1 to 200 characters');
  }
  if (!Array.isArray(kit['log'])) return wrong('log', 'must be a list');
  if (kit['log'].length > MOST_ENTRIES) return wrong('log', `must have at most ${MOST_ENTRIES} entries`);
  const attachments = kit['attachments'];
  if (attachments !== undefined && (!isRecord(attachments) || Object.values(attachments).some((v) => typeof v !== 'string')))
    return wrong('attachments', 'must hold texts by their hash');
  const extra = Object.keys(kit).find((k) => !ENVELOPE.has(k));
  return extra !== undefined && !newer ? wrong(extra.slice(0, SHOWN), 'is no field of a kit') : null;
}

const newerText = (version: number, shown: boolean) =>
  `The kit file is of version ${version}; this program reads up to ${KIT_VERSION}. ${shown ? 'It is shown as far as it is understood and cannot be changed here: open it with a newer program.' : 'Open it with a newer program.'}`;

function checkLog(kit: Record<string, unknown>, version: number, migratedFrom: number | null): OpenResult {
  const newer = version > KIT_VERSION;
  const good: (Entry | UnknownEntry)[] = [];
  const damaged: DamagedEntry[] = [];
  const findings: OpenFinding[] = newer ? [{ code: 'newer', text: newerText(version, true) }] : [];
  for (const raw of kit['log'] as unknown[]) {
    const read = readEntry(raw, newer);
    if ('why' in read) damaged.push({ raw, why: read.why });
    else good.push(read.entry);
  }
  const unknown = good.filter((e) => !isKnown(e));
  for (const e of unknown.slice(0, MOST_FINDINGS))
    findings.push({
      code: 'unknown-entry',
      text: `An entry of the unknown kind “${shortened(e.kind)}” is kept and counts for nothing here: a newer program wrote it.`,
      record: e.id,
    });
  const { log, differing } = unite(good);
  for (const id of differing.slice(0, MOST_FINDINGS))
    findings.push({ code: 'duplicate', text: `Two entries share the id ${shortened(id)} and differ; one of them is kept.`, record: id });
  const { id, created, attachments } = kit as unknown as KitDocument;
  const opened: Opened = {
    ok: true,
    kit: { format: KIT_FORMAT, version: KIT_VERSION, id, created, log, ...(attachments && Object.keys(attachments).length > 0 ? { attachments } : {}) },
    migratedFrom,
    readOnly: newer,
    findings,
    damaged,
  };
  const [first] = damaged;
  if (!first) return opened;
  const set = damaged.slice(0, MOST_FINDINGS).map((d): OpenFinding => ({ code: 'damaged', text: `${d.why}. It was set aside.` }));
  const message = `The kit file does not fit its schema: ${first.why}${damaged.length > 1 ? `, and ${damaged.length - 1} more entries like it` : ''}. Nothing was changed.`;
  return { ok: false, message, at: first.why, rest: { ...opened, findings: [...findings, ...set] } };
}

type ReadEntry = { readonly entry: Entry | UnknownEntry } | { readonly why: string };

function readEntry(raw: unknown, newer: boolean): ReadEntry {
  const stamp = stampProblem(raw);
  if (stamp !== null) return { why: stamp };
  const entry = raw as UnknownEntry & Record<string, unknown>;
  if (!KNOWN_KINDS.has(entry.kind)) return { entry };
  if (entry.kind === 'changed' && !KNOWN_ROOMS.has(String(entry['room'])))
    return typeof entry['room'] === 'string' ? { entry } : { why: `the ${nameOf(entry)} names no room` };
  const problem = entryProblem(entry);
  // What a newer program added to a known kind is shown as unknown, not judged.
  return problem === null ? { entry: entry as Entry } : newer ? { entry: { ...entry, kind: `${entry.kind} (newer)` } } : { why: problem };
}

function stampProblem(raw: unknown): string | null {
  if (!isRecord(raw)) return 'an entry of the log is no object';
  const text = (field: string, most: number) => typeof raw[field] === 'string' && raw[field] !== '' && raw[field].length <= most;
  if (!text('id', 200)) return 'an entry of the log has no id';
  if (!text('at', 40)) return `the entry ${shortened(raw['id'] as string)} has no time (field “at”)`;
  return text('kind', 200) ? null : `the entry ${shortened(raw['id'] as string)} has no kind`;
}

/** What is wrong with an entry of a known kind, in words that name record and field; null when nothing is. */
export function entryProblem(entry: unknown): string | null {
  const known = entry as UnknownEntry & Record<string, unknown>;
  if (!validateEntry(entry)) return `the ${nameOf(known)}: ${explain(validateEntry.errors ?? [])}`;
  const valid = entry as Entry;
  if (valid.kind === 'withdrawn' && valid.entry === undefined && valid.ofBatch === undefined)
    return `the ${nameOf(known)}: it names neither an entry nor a batch`;
  if (valid.kind !== 'changed' || valid.after === null) return null;
  const own = recordId(valid.room, valid.after as never);
  return own === valid.record ? null : `the ${nameOf(known)}: its record calls itself “${shortened(own)}”`;
}

function nameOf(e: UnknownEntry & Record<string, unknown>): string {
  if (e.kind === 'changed') return `change of “${shortened(String(e['record']))}” in ${shortened(String(e['room']))} (entry ${shortened(e.id)})`;
  const about = ['line', 'check', 'ref', 'testPoint', 'need'].map((f) => e[f]).find((v) => typeof v === 'string');
  return `entry ${shortened(e.id)} (${shortened(e.kind)}${about === undefined ? '' : ` of “${shortened(about)}”`})`;
}

interface Problem {
  readonly instancePath: string;
  readonly keyword: string;
  readonly params: Readonly<Record<string, unknown>>;
}

const TYPE_WORDS: Readonly<Record<string, string>> = { string: 'text', object: 'record', array: 'list', boolean: 'yes or no (true, false)' };
/** What each rule of the schema complains of, in words. */
const WHY: Readonly<Record<string, (p: Problem) => string>> = {
  required: (p) => `the field “${String(p.params['missingProperty'])}” is missing`,
  additionalProperties: (p) => `“${shortened(String(p.params['additionalProperty']))}” is not a field here`,
  enum: (p) => `must be one of ${(p.params['allowedValues'] as string[]).join(', ').slice(0, 120)}`,
  type: (p) => `must be ${p.params['type'] === 'integer' ? 'a whole number' : `a ${TYPE_WORDS[String(p.params['type'])] ?? String(p.params['type'])}`}`,
  const: (p) => `must be ${JSON.stringify(p.params['allowedValue'])}`,
  minimum: (p) => `must be ${String(p.params['limit'])} or more`,
  maximum: (p) => `must be ${String(p.params['limit'])} or less`,
  exclusiveMinimum: (p) => `must be more than ${String(p.params['limit'])}`,
  minLength: () => 'must not be empty',
  maxLength: (p) => `must not be longer than ${String(p.params['limit'])} characters`,
  minItems: (p) => `must have ${String(p.params['limit'])} items or more`,
  maxItems: (p) => `must not have more than ${String(p.params['limit'])} items`,
  additionalItems: (p) => `must not have more than ${String(p.params['limit'])} items`,
};

/** The first complaint that says something: those about alternatives only repeat it. */
function explain(errors: readonly Problem[]): string {
  const telling = errors.find((e) => e.keyword !== 'anyOf' && e.keyword !== 'const' && !(e.keyword === 'type' && e.params['type'] === 'null')) ?? errors[0];
  if (!telling) return 'it does not fit';
  const field = telling.instancePath.slice(1).replaceAll('/', '.');
  const what = WHY[telling.keyword]?.(telling) ?? 'is wrong';
  return field === ''
    ? what
    : `${shortened(field)} ${telling.keyword === 'required' || telling.keyword === 'additionalProperties' ? `: ${what}` : what}`.replace(' :', ':');
}

const shortened = (text: string) => (text.length > SHOWN ? `${text.slice(0, SHOWN)}…` : text);
export const refuse = (message: string, at?: string): Refused => ({ ok: false, message, ...(at === undefined ? {} : { at }), rest: null });
const isRecord = (v: unknown): v is Record<string, unknown> => typeof v === 'object' && v !== null && !Array.isArray(v);
