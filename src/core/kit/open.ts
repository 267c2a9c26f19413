import validate from './generated/validateKit.js';
import { type KitDocument, KIT_FORMAT, KIT_VERSION } from './document';
import { migrate } from './migrate';

export type OpenResult =
  { readonly ok: true; readonly kit: KitDocument; readonly migratedFrom: number | null } | { readonly ok: false; readonly message: string };

const MAX_BYTES = 64 * 1024 * 1024;
const SHOWN_PROBLEMS = 4;

/** Opens the text of a kit file. Never throws; a refusal says where and what to do, and nothing is changed. */
export function openKit(text: string): OpenResult {
  if (text.length > MAX_BYTES)
    return refuse(`The file is larger than ${MAX_BYTES / 1024 / 1024} MB. A kit file is smaller; check that this is the right file.`);
  let data: unknown;
  try {
    data = JSON.parse(text.replace(/^\uFEFF/, ''));
  } catch (error) {
    return refuse(
      `This is not a whole JSON file (${whereIn(text, error as Error)}). It may have been cut off while saving: export it again, or pick another copy.`,
    );
  }
  return checkKit(data);
}

/** Checks anything that claims to be a kit, at every door: file, storage, worker. */
export function checkKit(data: unknown): OpenResult {
  if (!isRecord(data) || data['format'] !== KIT_FORMAT) return refuse('This file is no Zesty Bench kit. For a parts list or a deck choose "New kit".');
  const version = data['version'];
  if (typeof version !== 'number' || !Number.isInteger(version) || version < 1) return refuse('The kit file has no readable version number.');
  if (version > KIT_VERSION) return refuse(`The kit file is of version ${version}; this program reads up to ${KIT_VERSION}. Open it with a newer program.`);
  const current = migrate(data, version);
  if (validate(current)) return { ok: true, kit: current as unknown as KitDocument, migratedFrom: version === KIT_VERSION ? null : version };
  return refuse(`The kit file does not fit its schema: ${explain(validate.errors ?? [])}. Nothing was changed.`);
}

const refuse = (message: string): OpenResult => ({ ok: false, message });
const isRecord = (v: unknown): v is Record<string, unknown> => typeof v === 'object' && v !== null && !Array.isArray(v);

function whereIn(text: string, error: Error): string {
  const position = Number(/position (\d+)/.exec(error.message)?.[1] ?? text.length);
  const before = text.slice(0, position).split('\n');
  return `line ${before.length}, column ${before[before.length - 1]!.length + 1}`;
}

interface Problem {
  readonly instancePath: string;
  readonly message?: string | undefined;
  readonly keyword: string;
}

/** The deepest complaints: those about alternatives higher up only repeat them. */
function explain(errors: readonly Problem[]): string {
  const telling = errors.filter((e) => e.keyword !== 'anyOf' && e.keyword !== 'const');
  const deepest = Math.max(0, ...telling.map((e) => e.instancePath.split('/').length));
  const chosen = telling.filter((e) => e.instancePath.split('/').length === deepest);
  const texts = [...new Set((chosen.length > 0 ? chosen : errors).map((e) => `${e.instancePath || 'the file'} ${e.message ?? 'is wrong'}`))];
  return texts.slice(0, SHOWN_PROBLEMS).join('; ');
}
