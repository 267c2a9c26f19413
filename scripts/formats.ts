/** `docs/formats.md`: the kit file for people who read it without the program, made from the schema. */
import { KIT_VERSION } from '../src/core/kit/schema/names';
import { kitSchema } from '../src/core/kit/schema/document';
import { HAPPENED_KINDS } from '../src/core/kit/schema/names';
import { ROOM_NAMES } from '../src/core/kit/schema/names';

type Json = Record<string, unknown>;
const defs = kitSchema['$defs'] as Record<string, Json>;

const nameOfRef = (schema: Json) => String(schema['$ref']).replace('#/$defs/', '');

/** A type in few words: `text`, `number`, `list of text`, `a | b`. */
function typeText(schema: Json): string {
  if ('$ref' in schema && SIMPLE.includes(nameOfRef(schema))) return SIMPLE_WORDS[nameOfRef(schema)] ?? typeText(defs[nameOfRef(schema)]!);
  if ('$ref' in schema) return `[${nameOfRef(schema).replaceAll('-', ' ')}](#${nameOfRef(schema).toLowerCase()})`;
  if ('const' in schema) return `\`${JSON.stringify(schema['const'])}\``;
  if (Array.isArray(schema['enum'])) return (schema['enum'] as string[]).map((v) => `\`${v}\``).join(' ');
  const any = (schema['anyOf'] ?? schema['oneOf']) as Json[] | undefined;
  if (any) return any.map(typeText).join(' or ');
  switch (schema['type']) {
    case 'string':
      return 'text';
    case 'integer':
      return 'whole number';
    case 'array': {
      const { items } = schema;
      return Array.isArray(items) ? `[${items.map((i) => typeText(i as Json)).join(', ')}]` : `list of ${typeText(items as Json)}`;
    }
    case 'object':
      return 'properties' in schema
        ? `{ ${Object.entries(schema['properties'] as Record<string, Json>)
            .map(([k, v]) => `${k}: ${typeText(v)}`)
            .join(', ')} }`
        : 'object';
    default:
      return String(schema['type']);
  }
}

const SIMPLE_WORDS: Readonly<Record<string, string>> = {
  Name: 'name',
  Text: 'text',
  Instant: 'ISO 8601 time',
  Count: 'whole number',
  'Positive-number': 'number above 0',
};
const SIMPLE = ['Text', 'Name', 'Instant', 'Count', 'Positive-number', 'Refs', 'Ranges', 'Reading', 'Entry', 'Changed'];

function table(def: Json, leaveOut: readonly string[] = []): string[] {
  const required = new Set((def['required'] ?? []) as string[]);
  if (!('properties' in def)) return [typeText(def), ''];
  const rows = Object.entries(def['properties'] as Record<string, Json>).filter(([name]) => !leaveOut.includes(name));
  if (rows.length === 0) return ['No further fields.', ''];
  return [
    '| field | type | |',
    '|---|---|---|',
    ...rows.map(([n, s]) => `| \`${n}\` | ${typeText(s).replaceAll('|', '\\|')} | ${required.has(n) ? '' : 'may be absent'} |`),
    '',
  ];
}

const anchor = (title: string) => title.replace(/[^A-Za-z0-9]+/g, '-').replace(/^-|-$/g, '');

export function formatsText(): string {
  const recordDefs = Object.keys(defs).filter((n) => !n.startsWith('entry-') && !SIMPLE.includes(n));
  const lines = [
    '# The kit file',
    '',
    `Made from the schema by \`scripts/generate.ts\`; the schema itself is \`docs/kit.schema.json\`. Version ${KIT_VERSION}.`,
    '',
    'A kit is one JSON file: `{ format, version, id, created, log, attachments }`. The log is all there is: what should be (`changed` entries) and what happened.',
    'Entries are ordered by (`at`, `id`), never changed once written, and taken back by a `withdrawn` entry; a `withdrawn` that is taken back itself does nothing.',
    'Entries that share a `batch` are undone together. Two copies of one kit are united by id. All values are SI; times are ISO 8601.',
    '',
    'A `changed` entry puts, changes or removes one record of a room: `{ kind: "changed", id, at, batch?, room, record, before, after, order? }`; `before` null: the record is new; `after` null: it is removed.',
    'For one record the last entry counts; a `before` that is not what its predecessor left is a conflict, and is shown as one. `order` is a fractional index.',
    '',
    '| room | id of a record |',
    '|---|---|',
    ...ROOM_NAMES.map((room) => `| \`${room}\` | ${RECORD_IDS[room] ?? 'its `id`'} |`),
    '',
    '## What happened',
    '',
    'Beside these fields every entry has `kind`, `id`, `at` and may have `batch`.',
    '',
    ...HAPPENED_KINDS.flatMap((kind) => [`### ${kind}`, '', ...table(defs[anchor(`entry “${kind}”`)]!, ['kind', 'id', 'at', 'batch'])]),
    '## Records',
    '',
    ...recordDefs.flatMap((name) => [`### ${name}`, '', ...table(defs[name]!)]),
  ];
  return `${lines.join('\n').trimEnd()}\n`;
}

const RECORD_IDS: Readonly<Record<string, string>> = {
  about: '`about`',
  circuit: '`circuit`',
  functions: '`functions`',
  settings: 'its `name`',
  checks: '`stage/id`',
  placement: 'its `ref`',
  pads: '`ref.pin`',
  typeCards: 'its `type`',
  neighbours: 'the two nets in alphabetical order, a space between them',
};
