import { sha256 } from '@noble/hashes/sha2.js';
import { bytesToHex, utf8ToBytes } from '@noble/hashes/utils.js';
import stableStringify from 'fast-json-stable-stringify';
import { changesOf } from './changes';
import { KIT_VERSION } from './schema/names';
import { DEFAULT_SETTINGS, EMPTY_SHEET, type KitSettings, type Sheet } from './sheet';

type Raw = Record<string, unknown>;
const isRecord = (v: unknown): v is Raw => typeof v === 'object' && v !== null && !Array.isArray(v);
const listOf = (v: unknown): Raw[] => (Array.isArray(v) ? v.filter(isRecord) : []);

/** One step each: from version n to n + 1. The result is still to be checked against the schema. */
const STEPS: Readonly<Record<number, (kit: Raw) => Raw>> = {
  // Version 1 had no settings; the meter stood beside the sheet.
  1: ({ meter, ...kit }) => ({ ...kit, settings: { meter: typeof meter === 'string' ? meter : 'handheld', school: 'simple', standIn: null } }),
  // Version 2 knew only the typical meters and one order of measuring.
  2: ({ settings, ...kit }) => ({ ...kit, settings: { measure: 'matters', meters: [], ...(isRecord(settings) ? settings : {}) } }),
  // Version 3 kept the sheet and the settings beside the log and overwrote them: they become the first entries of the log.
  3: ({ sheet, settings, ...kit }) => {
    const attachments: Record<string, string> = {};
    const whole = { ...EMPTY_SHEET, ...withPhotosApart(checkedSheet(sheet), attachments) } as Sheet;
    if (settings !== undefined && !isRecord(settings)) throw new Error('settings must be an object');
    const chosen = { ...DEFAULT_SETTINGS, ...settings };
    listAt({ meters: chosen.meters }, 'meters', 'settings');
    if (!Array.isArray(kit['log'])) throw new Error('log must be a list');
    return {
      ...kit,
      log: [...firstEntries(birth(String(kit['created']), kit['log'] as unknown[]), whole, chosen), ...(kit['log'] as unknown[])],
      ...(Object.keys(attachments).length > 0 ? { attachments } : {}),
    };
  },
};

const LISTS = ['boards', 'lines', 'needs', 'options', 'testPoints', 'placement', 'stages', 'claims', 'typeCards', 'photos'] as const;

/** The records of an old sheet are checked one by one later; here only that there are records. */
function checkedSheet(sheet: unknown): Raw {
  if (!isRecord(sheet)) throw new Error('sheet must be an object');
  for (const name of LISTS) if (sheet[name] !== undefined) listAt(sheet, name, 'sheet');
  for (const stage of listOf(sheet['stages'])) listAt(stage, 'checks', 'sheet.stages');
  const { circuit } = sheet;
  if (circuit !== undefined && circuit !== null && !isRecord(circuit)) throw new Error('sheet.circuit must be an object');
  if (isRecord(circuit) && circuit['neighbours'] !== undefined && !Array.isArray(circuit['neighbours']))
    throw new Error('sheet.circuit.neighbours must be a list');
  for (const pair of isRecord(circuit) ? ((circuit['neighbours'] ?? []) as unknown[]) : [])
    if (!Array.isArray(pair)) throw new Error('sheet.circuit.neighbours must hold pairs of nets');
  return sheet;
}

function listAt(of: Raw, name: string, where: string): void {
  const list = of[name];
  if (!Array.isArray(list) || !list.every(isRecord)) throw new Error(`${where}.${name} must be a list of records`);
}

/** When a kit was made: before its first entry, whatever the clock said then. */
function birth(created: string, log: readonly unknown[]): string {
  const [first] = listOf(log)
    .flatMap(({ at }) => (typeof at === 'string' && at <= created && !Number.isNaN(Date.parse(at)) ? [at] : []))
    .sort();
  return first === undefined ? created : new Date(Date.parse(first) - 1).toISOString();
}

/** Entries whose ids follow from what they say: two copies of one old kit unite without doubling, and differ where they differ. */
function firstEntries(at: string, sheet: Sheet, settings: KitSettings): Raw[] {
  const batch = 'version-3';
  return changesOf(sheet, settings).map((body, i) => {
    const digest = bytesToHex(sha256(utf8ToBytes(stableStringify({ ...body, order: undefined })))).slice(0, 12);
    return { ...body, id: `v3.${String(i + 1).padStart(5, '0')}.${digest}`, at, batch };
  });
}

/** Name of an attachment: SHA-256 of its base64 text, hexadecimal. */
export const attachmentHash = (base64: string): string => bytesToHex(sha256(utf8ToBytes(base64)));

/** Photos stood in the sheet as data addresses; their bytes move to the attachments. */
function withPhotosApart({ revision: _, ...sheet }: Raw, attachments: Record<string, string>): Raw {
  const photos = listOf(sheet['photos']).map(({ data, ...photo }) => {
    const [head = '', base64 = ''] = String(data).split(',');
    const hash = attachmentHash(base64);
    attachments[hash] = base64;
    return { ...photo, hash, type: /^data:([^;]*)/.exec(head)?.[1] ?? '', size: Math.floor((base64.length * 3) / 4) };
  });
  return { ...sheet, photos };
}

/** Brings a kit of an older version up to the present one. */
export function migrate(kit: Raw, version: number): Raw {
  let current = kit;
  for (let v = version; v < KIT_VERSION; v++) current = { ...(STEPS[v]?.(current) ?? current), version: v + 1 };
  return current;
}
