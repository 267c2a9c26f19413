/** The kit file as JSON Schema: what `docs/kit.schema.json` publishes and the validators are compiled from. */
import { changedIn, ChangedShape, entrySchema, STAMP_FIELDS } from './entries';
import { HAPPENED_KINDS, KIT_FORMAT, KIT_VERSION, MOST_ENTRIES, ROOM_NAMES } from './names';

type Json = Record<string, unknown>;

/** The field whose constant tells the alternatives apart; null when there is none. */
function tagOf(alternatives: readonly Json[]): string | null {
  const constants = alternatives.map((a) => Object.entries((a['properties'] ?? {}) as Json).flatMap(([k, v]) => ('const' in (v as Json) ? [k] : [])));
  return constants[0]?.find((k) => constants.every((c) => c.includes(k))) ?? null;
}

/** Every shape with a title becomes a definition, written once and referred to. */
function hoist(schema: unknown, defs: Record<string, Json>): unknown {
  if (Array.isArray(schema)) return schema.map((s) => hoist(s, defs));
  if (typeof schema !== 'object' || schema === null) return schema;
  const alternatives = (schema as Json)['anyOf'];
  const tag = Array.isArray(alternatives) ? tagOf(alternatives as Json[]) : null;
  if (tag)
    return tagged(
      tag,
      (alternatives as Json[]).map((a) => hoist(a, defs)),
    );
  const plain = Object.fromEntries(Object.entries(schema).map(([k, v]) => [k, hoist(v, defs)]));
  if (typeof plain['title'] !== 'string') return plain;
  const name = plain['title'].replace(/[^A-Za-z0-9]+/g, '-').replace(/^-|-$/g, '');
  defs[name] = plain;
  return { $ref: `#/$defs/${name}` };
}

const tagged = (tag: string, oneOf: readonly unknown[]): Json => ({ type: 'object', discriminator: { propertyName: tag }, required: [tag], oneOf });

/** Definitions of all records and entries; `Entry` tells them apart by `kind`, changes by `room`. */
function definitions(): Record<string, Json> {
  const defs: Record<string, Json> = {};
  hoist(ChangedShape, defs);
  defs['Changed'] = {
    ...defs['Changed'],
    ...tagged(
      'room',
      ROOM_NAMES.map((room) => hoist(changedIn(room), defs)),
    ),
    required: ['kind', 'id', 'at', 'room', 'record', 'before', 'after'],
  };
  const happened = HAPPENED_KINDS.map((kind) => hoist(entrySchema(kind), defs));
  defs['Entry'] = tagged('kind', [...happened, { $ref: '#/$defs/Changed' }]);
  return defs;
}

export const kitSchema: Json = {
  $schema: 'http://json-schema.org/draft-07/schema#',
  $id: 'zesty-bench-kit-4',
  title: 'Zesty Bench kit, version 4',
  description: 'One append-only log: what should be (`changed` entries) and what happened. All values are SI.',
  type: 'object',
  properties: {
    format: { const: KIT_FORMAT },
    version: { const: KIT_VERSION },
    id: STAMP_FIELDS.id,
    created: STAMP_FIELDS.at,
    log: { type: 'array', maxItems: MOST_ENTRIES, items: { $ref: '#/$defs/Entry' } },
    attachments: { type: 'object', description: 'SHA-256 → bytes in base64', additionalProperties: { type: 'string' } },
  },
  required: ['format', 'version', 'id', 'created', 'log'],
  additionalProperties: false,
  $defs: definitions(),
};

/** One entry by itself: checked before every write. */
export const entryFileSchema: Json = { $id: 'zesty-bench-entry-4', $ref: 'zesty-bench-kit-4#/$defs/Entry' };
