/**
 * JSON Schema (draft 2020-12 vocabulary, as Ajv reads it) of the kit file. Published as `docs/kit.schema.json`.
 * `sheet.ts` and `entry.ts` are its TypeScript side; a test holds the two together by round trips.
 */

const text = { type: 'string', maxLength: 4000 } as const;
const id = { type: 'string', minLength: 1, maxLength: 200 } as const;
const number = { type: 'number' } as const;
const positive = { type: 'number', exclusiveMinimum: 0 } as const;
const flag = { type: 'boolean' } as const;
const refs = { type: 'array', items: id, maxItems: 2000 } as const;
const pair = (items: object) => ({ type: 'array', items, minItems: 2, maxItems: 2 });
const list = (items: object, maxItems = 2000) => ({ type: 'array', items, maxItems });
const oneOf = (...values: string[]) => ({ type: 'string', enum: values });
const nullable = (schema: object) => ({ anyOf: [schema, { type: 'null' }] });

/** An object that holds exactly these fields; names ending in `?` may be absent. */
function record(fields: Readonly<Record<string, object>>): object {
  const properties: Record<string, object> = {};
  const required: string[] = [];
  for (const [name, schema] of Object.entries(fields)) {
    const optional = name.endsWith('?');
    const key = optional ? name.slice(0, -1) : name;
    properties[key] = schema;
    if (!optional) required.push(key);
  }
  return { type: 'object', properties, required, additionalProperties: false };
}

const reading = { anyOf: [number, { const: 'over' }] };
const stamp = { id, at: { type: 'string', maxLength: 40 } };

const line = record({
  id,
  kind: oneOf(
    'resistor',
    'capacitor',
    'electrolytic',
    'inductor',
    'trimmer',
    'thermistor',
    'ldr',
    'lamp',
    'fuse',
    'relay',
    'diode',
    'zener',
    'led',
    'npn',
    'pnp',
    'nmos',
    'pmos',
    'njf',
    'pjf',
    'opamp',
    'ic',
    'crystal',
    'connector',
    'switch',
    'mechanical',
    'link',
    'other',
  ),
  label: text,
  value: nullable(number),
  tolerance: nullable(pair(number)),
  quantity: { type: 'integer', minimum: 0, maximum: 100000 },
  refs,
  'type?': text,
  'package?': text,
  'colour?': text,
  'range?': pair(number),
  'rating?': record({ 'volts?': number, 'watts?': number, 'amperes?': number }),
  'option?': text,
  'notFitted?': flag,
  'amendment?': text,
  'note?': text,
});

const point = { anyOf: [record({ testPoint: id }), record({ net: id }), record({ ref: id, pin: id })] };

const check = {
  anyOf: [
    record({
      id,
      what: { const: 'measure' },
      title: text,
      'note?': text,
      mode: oneOf('dcv', 'dca', 'ohms', 'diode', 'frequency'),
      red: point,
      black: point,
      'source?': id,
      'window?': record({ low: number, high: number }),
    }),
    record({
      id,
      what: { const: 'observe' },
      title: text,
      'note?': text,
      action: text,
      expect: text,
      'channels?': list(text, 200),
      'sign?': record({ ref: id, amperes: number }),
    }),
  ],
};

const stage = record({
  id,
  title: text,
  kind: oneOf('look', 'cold', 'power', 'adjust', 'load', 'run'),
  'note?': text,
  fits: refs,
  'without?': refs,
  'settings?': list(record({ ref: id, value: number, text }), 200),
  supplies: list(record({ source: id, volts: number, limit: positive }), 20),
  'cautions?': list(text, 20),
  checks: list(check, 500),
});

const typeCard = record({
  type: id,
  pins: { type: 'object', additionalProperties: list(text, 200) },
  figures: list(record({ name: text, value: number, unit: text, source: text }), 200),
});

const sheet = record({
  revision: { type: 'integer', minimum: 0 },
  title: { type: 'string', minLength: 1, maxLength: 200 },
  'maker?': text,
  'edition?': text,
  'note?': text,
  boards: list(record({ id, name: text, 'revision?': text }), 50),
  lines: list(line),
  needs: list(
    record({
      id,
      kind: oneOf('supply', 'load', 'battery', 'firmware', 'lead', 'tool', 'other'),
      text,
      'volts?': number,
      'amperes?': number,
      'ohms?': number,
      'watts?': number,
      'plug?': text,
      'polarity?': oneOf('centre-plus', 'centre-minus'),
    }),
    200,
  ),
  options: list(record({ id, text, choices: list(text, 100) }), 100),
  circuit: nullable(
    record({ deck: { type: 'string', maxLength: 2000000 }, 'elements?': { type: 'object', additionalProperties: id }, 'neighbours?': list(pair(id), 20000) }),
  ),
  testPoints: list(record({ id, net: id, where: text, 'x?': number, 'y?': number })),
  placement: list(record({ ref: id, x: number, y: number, rotation: number })),
  stages: list(stage, 200),
  claims: list(record({ id, text, 'check?': id }), 200),
  typeCards: list(typeCard, 500),
  photos: list(record({ id, name: text, data: { type: 'string', maxLength: 8000000 }, 'pins?': list(record({ ref: id, x: number, y: number })) }), 50),
});

const fault = {
  type: 'object',
  properties: {
    kind: oneOf('healthy', 'open', 'short', 'reversed', 'turned', 'weak', 'open-pin', 'short-pins', 'wrong-value', 'swapped', 'wrong-type', 'bridge', 'stuck'),
    parts: list(id, 2),
    detail: { type: 'object' },
  },
  required: ['kind', 'parts', 'detail'],
  additionalProperties: false,
};

const entryOf = (kind: string, fields: Readonly<Record<string, object>>) => record({ kind: { const: kind }, ...stamp, ...fields });
const partMode = oneOf('ohms', 'capacitance', 'inductance', 'diode', 'hfe');
const modification = {
  anyOf: [
    record({ what: { const: 'part-added' }, name: id, kind: oneOf('R', 'C', 'L', 'D'), value: nullable(number), nets: pair(id) }),
    record({ what: { const: 'track-cut' }, ref: id, pin: id }),
    record({ what: { const: 'value-replaced' }, ref: id, value: positive }),
    record({ what: { const: 'link' }, nets: pair(id) }),
    record({ what: { const: 'strap' }, option: id, choice: text }),
  ],
};

const looseKind = oneOf('R', 'C', 'L', 'D', 'LED', 'Q');
const meterRanges = list(record({ upTo: positive, percent: number, counts: number, resolution: positive }), 20);
const meterProfile = record({
  id,
  name: { type: 'string', minLength: 1, maxLength: 120 },
  ranges: record({
    'dcv?': meterRanges,
    'dca?': meterRanges,
    'ohms?': meterRanges,
    'diode?': meterRanges,
    'capacitance?': meterRanges,
    'inductance?': meterRanges,
    'hfe?': meterRanges,
    'frequency?': meterRanges,
  }),
  inputResistance: positive,
  leadResistance: number,
  capacitanceZero: number,
  ohmsVoltage: positive,
  ohmsSource: positive,
  diodeCurrent: positive,
  diodeCompliance: positive,
});

const entry = {
  anyOf: [
    entryOf('counted', { line: id, quantity: { type: 'integer', minimum: 0, maximum: 100000 } }),
    entryOf('measured', { line: id, piece: { type: 'integer', minimum: 0, maximum: 100000 }, 'ref?': id, mode: partMode, reading, meter: id }),
    entryOf('marked', { line: id, piece: { type: 'integer', minimum: 0, maximum: 100000 }, text }),
    entryOf('loose', {
      part: looseKind,
      reading: nullable(reading),
      marking: { anyOf: [text, list(id, 6), { type: 'null' }] },
      polarity: { anyOf: [oneOf('NPN', 'PNP'), { type: 'null' }] },
      meter: id,
    }),
    entryOf('sorted', { pieces: list(record({ loose: id, line: nullable(id) })) }),
    entryOf('meter-checked', { meter: id, together: reading, apart: reading, known: nullable(record({ nominal: positive, percent: number, reading })) }),
    entryOf('compared', {
      mode: oneOf('ohms', 'capacitance', 'inductance', 'diode', 'hfe', 'dcv'),
      instrument: text,
      reading: number,
      against: { anyOf: [record({ meter: id, reading: number }), record({ value: number, percent: number })] },
    }),
    entryOf('owned', {
      need: id,
      owned: record({
        'volts?': number,
        'amperes?': number,
        'ohms?': number,
        'watts?': number,
        'polarity?': oneOf('centre-plus', 'centre-minus'),
        'plug?': text,
      }),
    }),
    entryOf('skipped', { target: id, 'reason?': text }),
    entryOf('fitted', { refs }),
    entryOf('removed', { refs }),
    entryOf('set', { ref: id, value: number }),
    entryOf('read', { stage: id, check: id, reading, meter: id }),
    entryOf('probed', { stage: id, testPoint: id, reading, meter: id }),
    entryOf('observed', { stage: id, check: id, 'channel?': text, asExpected: flag, 'note?': text }),
    entryOf('found', { fault, probability: number }),
    entryOf('repaired', { refs, note: text }),
    entryOf('modified', { change: modification }),
    entryOf('noted', { text }),
    entryOf('waiting', { reason: text, 'until?': text }),
    entryOf('resumed', { waited: id }),
    entryOf('withdrawn', { entry: id }),
  ],
};

export const kitSchema = {
  $schema: 'http://json-schema.org/draft-07/schema#',
  $id: 'zesty-bench-kit-3',
  title: 'Zesty Bench kit, version 3',
  description: 'A sheet (what should be) and an append-only log (what happened). All values are SI.',
  ...record({
    format: { const: 'zesty-bench-kit' },
    version: { const: 3 },
    id,
    created: { type: 'string', maxLength: 40 },
    sheet,
    log: list(entry, 200000),
    settings: record({
      meter: id,
      school: oneOf('simple', 'guarded'),
      measure: oneOf('matters', 'all', 'unreadable', 'one-per-packet'),
      meters: list(meterProfile, 50),
      standIn: nullable(record({ seed: { type: 'integer' }, fault: text, pieces: { type: 'object', additionalProperties: list(number, 1000) } })),
    }),
  }),
};
