import { migrate } from './migrate';
import { checkCurrent, misfit, type OpenResult, refuse, versionOf } from './open';
import { KIT_VERSION } from './schema/names';

const MAX_BYTES = 64 * 1024 * 1024;

/** Opens the text of a kit file. Never throws; a refusal says where and what to do, and nothing is changed. */
export function openKit(text: string): OpenResult {
  if (text.length > MAX_BYTES)
    return refuse(`The file is larger than ${MAX_BYTES / 1024 / 1024} MB. A kit file is smaller; check that this is the right file.`);
  let data: unknown;
  try {
    data = JSON.parse(text.replace(/^\uFEFF/, ''));
  } catch (error) {
    const at = whereIn(text, error as Error);
    return refuse(`This is not a whole JSON file (${at}). It may have been cut off while saving: export it again, or pick another copy.`, at);
  }
  return checkKit(data);
}

/** Checks anything that claims to be a kit, of whatever version, at every door: file, worker, command line. */
export function checkKit(data: unknown): OpenResult {
  const found = versionOf(data);
  if (!found.ok) return found.refused;
  const { kit, version } = found;
  if (version >= KIT_VERSION) return checkCurrent(kit);
  try {
    return checkCurrent(migrate(kit, version), version);
  } catch (error) {
    return misfit(error as Error);
  }
}

function whereIn(text: string, error: Error): string {
  const position = Number(/position (\d+)/.exec(error.message)?.[1] ?? text.length);
  const before = text.slice(0, position).split('\n');
  return `line ${before.length}, column ${before[before.length - 1]!.length + 1}`;
}
