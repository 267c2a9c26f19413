import { createElement } from 'react';
import { connectionsOf, readDeck, netsOf, GROUND } from '@/core/circuit';
import type { KitState, RecordOf, Stage } from '@/core/kit';
import { judgeClaim } from '@/core/load';
import { CHECK_MODES, MODES } from '@/core/vocabulary';
import { printNominal } from '@/core/quantity';
import { newId } from '@/store/stamps';
import type { Field, FormValues } from './fields';
import type { RoomSpec } from './RoomList';

const short = (prefix: string) => `${prefix}-${newId().slice(0, 6)}`;
const soft = (text: string) => createElement('small', { className: 'soft' }, ` ${text}`);
const said = (strong: string, rest: string) => createElement('span', null, createElement('b', null, strong), soft(rest));

export const refsOfKit = (kit: KitState) => [...new Set(kit.sheet.lines.flatMap((l) => l.refs))];

const nets = new WeakMap<object, readonly string[]>();
/** Nets and sources of the kit’s deck, for proposals. */
export function netsOfKit(kit: KitState): readonly string[] {
  const { circuit } = kit.sheet;
  if (!circuit) return [...new Set(kit.sheet.testPoints.map((t) => t.net))];
  const known = nets.get(circuit) ?? netsOf(readDeck(circuit.deck).circuit).filter((n) => n !== GROUND && !n.includes('.'));
  nets.set(circuit, known);
  return known;
}
export const sourcesOfKit = (kit: KitState): readonly string[] =>
  kit.sheet.circuit ? connectionsOf(kit.sheet.circuit.deck).flatMap((c) => (/^[VI]/i.test(c.name) ? [c.name] : [])) : [];

/** Pins of the deck's parts under the names of the list, as `D3.K`. */
const pinsOfKit = (kit: KitState): readonly string[] => {
  const cards = connectionsOf(kit.sheet.circuit?.deck ?? '');
  return refsOfKit(kit).flatMap((ref) => {
    const named = kit.sheet.circuit?.elements?.[ref] ?? ref;
    return cards.find((c) => c.name.toLowerCase() === named.toLowerCase())?.pins.map((p) => `${ref}.${p.pin}`) ?? [];
  });
};

/** Everywhere that a probe can be put, as one writes it. */
export const placesOfKit = (kit: KitState): string[] => ['ground', ...kit.sheet.testPoints.map((t) => t.id), ...netsOfKit(kit).map((n) => `net ${n}`)];

const choices = (...words: readonly (readonly [string, string])[]) => words.map(([value, label]) => ({ value, label }));

/** An id that another record of the room has already. */
const taken = (kit: KitState, room: 'boards' | 'options' | 'testPoints' | 'stages' | 'claims' | 'needs', id: string, before: { readonly id: string } | null) =>
  before?.id !== id && kit.rooms[room].has(id) ? { id: `${id} exists already. Choose another name.` } : {};

export const BOARDS: RoomSpec<'boards'> = {
  room: 'boards',
  title: 'Boards',
  one: 'Board',
  empty: 'Single board. Where two boards use the same designators, write them A:R1 and B:R1.',
  make: (kit) => ({ id: String.fromCharCode(65 + kit.sheet.boards.length), name: '' }),
  name: (b) => b.name || b.id,
  words: (b) => said(b.name || b.id, [`designators ${b.id}:…`, b.revision].filter(Boolean).join(' · ')),
  fields: () => [
    { key: 'id', label: 'Letter before its designators', type: 'text', required: 'A board needs a letter.' },
    { key: 'name', label: 'Name', type: 'text', required: 'Give it a name.' },
    { key: 'revision', label: 'Revision printed on it', type: 'text' },
  ],
  refuse: (b, kit, before) =>
    before && before.id !== b.id && [...kit.board.fitted].some((r) => r.startsWith(`${before.id}:`))
      ? { id: `Parts of board ${before.id} are fitted already under this letter. It stays; the name may change.` }
      : taken(kit, 'boards', b.id, before),
};

export const OPTIONS: RoomSpec<'options'> = {
  room: 'options',
  title: 'Editions, options and straps',
  one: 'Option',
  empty: 'None. An option decides which lines are fitted (with or without case, A or B position), or which nets a jumper connects.',
  make: () => ({ id: short('option'), text: '', choices: ['yes', 'no'] }),
  name: (o) => o.text || o.id,
  words: (o) =>
    said(o.text, `${o.choices.join(' / ')}${o.links?.length ? ` · connects ${o.links.map((l) => `${l.nets.join('–')} when ${l.choice}`).join(', ')}` : ''}`),
  fields: (kit) => [
    { key: 'text', label: 'What is to be chosen', type: 'text', required: 'Say what is chosen, such as: edition.' },
    { key: 'choices', label: 'Choices, one a line', type: 'lines', required: 'Name at least two choices.' },
    {
      key: 'links',
      label: 'Nets that a choice connects',
      type: 'rows',
      add: 'Connect two nets',
      of: [
        { key: 'choice', label: 'When it is', type: 'text', required: 'Which choice?' },
        { key: 'nets', label: 'Nets', type: 'pair', options: netsOfKit(kit), required: 'Name both nets.' },
      ],
    },
  ],
  refuse: (o) =>
    o.choices.length < 2
      ? { choices: 'Name at least two choices, one a line.' }
      : (o.links ?? []).some((l) => !o.choices.includes(l.choice))
        ? { text: 'A connection names a choice that is not in the list.' }
        : {},
};

const NEED_KINDS = choices(
  ['supply', 'supply'],
  ['battery', 'battery'],
  ['load', 'load or loudspeaker'],
  ['firmware', 'firmware'],
  ['lead', 'lead or cable'],
  ['tool', 'tool or programmer'],
  ['other', 'something else'],
);

export const NEEDS: RoomSpec<'needs'> = {
  room: 'needs',
  title: 'Needed, not supplied',
  one: 'Need',
  empty: 'Nothing is noted. Supplies, loads, batteries, firmware that the bag does not hold belong here.',
  make: () => ({ id: short('need'), kind: 'supply', text: '' }),
  name: (n) => n.text || n.kind,
  words: (n) =>
    said(
      n.text,
      [n.volts === undefined ? '' : printNominal(n.volts, 'V'), n.amperes === undefined ? '' : printNominal(n.amperes, 'A')].filter(Boolean).join(' · '),
    ),
  fields: () => [
    { key: 'kind', label: 'What', type: 'choice', options: NEED_KINDS, required: 'What kind of thing?' },
    { key: 'text', label: 'In words', type: 'text', required: 'Say what is needed.' },
    { key: 'volts', label: 'Volts', type: 'quantity', unit: 'V' },
    { key: 'amperes', label: 'At least', type: 'quantity', unit: 'A' },
    { key: 'ohms', label: 'Ohms', type: 'quantity', unit: 'ohm' },
    { key: 'watts', label: 'Watts', type: 'quantity', unit: 'W' },
    { key: 'plug', label: 'Plug', type: 'text', hint: '5.5/2.1' },
    { key: 'polarity', label: 'Polarity', type: 'choice', options: choices(['centre-plus', 'centre plus'], ['centre-minus', 'centre minus']) },
  ],
};

export const TEST_POINTS: RoomSpec<'testPoints'> = {
  room: 'testPoints',
  title: 'Test points',
  one: 'Test point',
  empty: 'No place to probe is named yet. A test point is a net with words that say where to find it.',
  make: (kit) => ({ id: nextPoint(kit), net: '', where: '' }),
  name: (t) => t.id,
  words: (t) => said(`${t.id} on ${t.net}`, t.where),
  fields: (kit) => [
    { key: 'id', label: 'Name', type: 'text', required: 'A test point needs a name.' },
    { key: 'net', label: 'Net', type: 'name', options: netsOfKit(kit), required: 'Which net is it on?' },
    { key: 'where', label: 'Where to find it', type: 'text', required: 'Say where, such as: lead of R11 next to U1.' },
    { key: 'x', label: 'From the left, mm', type: 'number' },
    { key: 'y', label: 'From the top, mm', type: 'number' },
  ],
  refuse: (t, kit, before) => taken(kit, 'testPoints', t.id, before),
};

function nextPoint(kit: KitState): string {
  for (let n = kit.sheet.testPoints.length + 1; ; n++) if (!kit.rooms.testPoints.has(`TP${n}`)) return `TP${n}`;
}

export const PLACEMENT: RoomSpec<'placement'> = {
  room: 'placement',
  title: 'Places on the board',
  one: 'Place',
  empty: 'No part has a place yet: the map shows them in rows. Millimetres from the top left corner of the board.',
  make: (kit) => ({ ref: refsOfKit(kit).find((r) => !kit.rooms.placement.has(r)) ?? '', x: 0, y: 0, rotation: 0 }),
  name: (p) => p.ref,
  words: (p) => said(p.ref, `${p.x} mm, ${p.y} mm${p.rotation ? `, turned ${p.rotation}°` : ''}${p.side === 'bottom' ? ', copper side' : ''}`),
  fields: (kit) => [
    { key: 'ref', label: 'Part', type: 'name', options: refsOfKit(kit), required: 'Which part?' },
    { key: 'x', label: 'From the left, mm', type: 'number', required: 'How far from the left?' },
    { key: 'y', label: 'From the top, mm', type: 'number', required: 'How far from the top?' },
    { key: 'rotation', label: 'Turned, degrees', type: 'number', required: 'Turned by how much? 0 is as drawn.' },
    { key: 'side', label: 'Sits on', type: 'choice', options: choices(['top', 'the component side'], ['bottom', 'the copper side']) },
  ],
};

export const PADS: RoomSpec<'pads'> = {
  room: 'pads',
  title: 'Pads',
  one: 'Pad',
  empty: 'Pads follow from the bodies. Add one only where it differs.',
  make: () => ({ ref: '', pin: '1', x: 0, y: 0 }),
  name: (p) => `${p.ref}.${p.pin}`,
  words: (p) => said(`${p.ref}.${p.pin}`, `${p.x} mm, ${p.y} mm${p.net ? ` on ${p.net}` : ''}`),
  fields: (kit) => [
    { key: 'ref', label: 'Part', type: 'name', options: refsOfKit(kit), required: 'Which part?' },
    { key: 'pin', label: 'Pin', type: 'text', required: 'Which pin?' },
    { key: 'x', label: 'From the left, mm', type: 'number', required: 'How far from the left?' },
    { key: 'y', label: 'From the top, mm', type: 'number', required: 'How far from the top?' },
    { key: 'net', label: 'Net', type: 'name', options: netsOfKit(kit) },
  ],
};

export const NEIGHBOURS: RoomSpec<'neighbours'> = {
  room: 'neighbours',
  title: 'Neighbouring nets',
  one: 'Pair of nets',
  empty: 'None is named. Solder can bridge two nets whose pads are close: the fault finder then considers it.',
  make: () => ({ nets: ['', ''] }),
  name: (n) => n.nets.join(' and '),
  words: (n) => said(n.nets.join(' – '), ''),
  fields: (kit) => [{ key: 'nets', label: 'Nets', type: 'pair', options: netsOfKit(kit), required: 'Name both nets.' }],
};

export const CLAIMS: RoomSpec<'claims'> = {
  room: 'claims',
  title: 'Claims of the kit',
  one: 'Claim',
  empty:
    'No claim is noted, such as “output 1.25 to 15 V”. A check behind it decides whether it holds. “Load, heat, waveforms, claims” in Power up calculates whether it can be true.',
  make: () => ({ id: short('claim'), text: '' }),
  name: (c) => c.text || c.id,
  words: (c, kit) =>
    said(
      c.text,
      [c.means ? possibleWords(c.means) : '', c.check ? `checked by “${checkTitle(kit, c.check)}”` : 'no check behind it'].filter(Boolean).join(' · '),
    ),
  fields: (kit) => [
    { key: 'text', label: 'The claim', type: 'text', required: 'What does the kit promise?' },
    {
      key: 'check',
      label: 'Check behind it',
      type: 'choice',
      options: kit.sheet.stages.flatMap((s) => s.checks.map((c) => ({ value: `${s.id}/${c.id}`, label: `${s.title}: ${c.title}` }))),
    },
  ],
};

function possibleWords(means: Parameters<typeof judgeClaim>[0]): string {
  const { possible, text } = judgeClaim(means);
  return `${possible ? 'possible' : 'impossible'}: ${text}`;
}

const checkTitle = (kit: KitState, id: string) => {
  const held = kit.rooms.checks.get(id);
  return held ? held.value.title : id;
};

export const CONSTRAINTS: RoomSpec<'constraints'> = {
  room: 'constraints',
  title: 'What must be fitted first',
  one: 'Rule',
  empty: 'No rule. Where a part closes the way to another, say which goes in first.',
  make: () => ({ id: short('order'), ref: '', before: '', why: '' }),
  name: (c) => `${c.ref} before ${c.before}`,
  words: (c) => said(`${c.ref} before ${c.before}`, c.why),
  fields: (kit) => [
    { key: 'ref', label: 'Goes in first', type: 'name', options: refsOfKit(kit), required: 'Which part?' },
    { key: 'before', label: 'Before', type: 'name', options: refsOfKit(kit), required: 'Before which part?' },
    { key: 'why', label: 'Why', type: 'text', required: 'Say why, in a few words.' },
  ],
  refuse: (c) => (c.ref === c.before ? { before: 'A part cannot go in before itself.' } : {}),
};

const SOURCE_FIELDS = [
  ['list', 'The list says'],
  ['print', 'The print on the board says'],
  ['diagram', 'The diagram says'],
  ['board', 'The board itself, traced or measured, says'],
] as const;

export const TYPE_CARDS: RoomSpec<'typeCards'> = {
  room: 'typeCards',
  title: 'Cards kept with this kit',
  one: 'Type card',
  empty: 'None. A card that you keep below goes with the kit when a line of it is of that type.',
  make: () => ({ type: '', pins: {}, figures: [] }),
  name: (c) => c.type,
  words: (c) =>
    said(
      c.type,
      [...Object.entries(c.pins).map(([body, pins]) => `${body} ${pins.join(' ')}`), c.figures.length === 1 ? '1 figure' : `${c.figures.length} figures`].join(
        ' · ',
      ),
    ),
  fields: () => [
    { key: 'type', label: 'Type', type: 'text', required: 'A card needs a type number.' },
    { key: 'pins', label: 'Pins by body, a line each (TO-92: C B E)', type: 'pins' },
    {
      key: 'figures',
      label: 'Figures',
      type: 'rows',
      add: 'Add a figure',
      of: [
        { key: 'name', label: 'Figure', type: 'text', required: 'Which figure?', hint: 'collector voltage' },
        { key: 'value', label: 'Value in the unit', type: 'number', required: 'How much?' },
        { key: 'unit', label: 'Unit', type: 'text', required: 'In which unit?', hint: 'V' },
        { key: 'source', label: 'From', type: 'text', required: 'Where is it from?', hint: 'data sheet' },
      ],
    },
  ],
};

export const DIFFERENCES: RoomSpec<'differences'> = {
  room: 'differences',
  title: 'Sources that differ',
  one: 'Difference',
  empty: 'None is noted. Where list, print, diagram and board do not say the same, write down what each says: nothing is decided silently.',
  make: () => ({ id: short('differs'), about: '' }),
  name: (d) => d.about,
  words: (d) =>
    said(
      d.about,
      [
        ...SOURCE_FIELDS.flatMap(([key]) => (d[key] === undefined ? [] : [`${key}: ${d[key]}`])),
        d.right === undefined ? 'not settled' : `settled: the ${d.right} is right, by ${d.by ?? 'looking'}${d.why === undefined ? '' : ` (${d.why})`}`,
      ].join(' · '),
    ),
  fields: (kit) => [
    {
      key: 'about',
      label: 'About',
      type: 'name',
      options: [...refsOfKit(kit), ...pinsOfKit(kit), ...netsOfKit(kit)],
      required: 'Which part, pin or net?',
      hint: 'R7, D3.K, vcc',
    },
    ...SOURCE_FIELDS.map(([key, label]): Field => ({ key, label, type: 'text' })),
  ],
  refuse: (d): Readonly<Record<string, string>> =>
    SOURCE_FIELDS.filter(([key]) => d[key] !== undefined).length < 2 ? { list: 'Write what at least two of them say.' } : {},
};

const setting = (kit: KitState): Field => ({
  key: 'settings',
  label: 'Set for it',
  type: 'rows',
  add: 'Set something',
  of: [
    { key: 'ref', label: 'Part', type: 'name', options: refsOfKit(kit), required: 'Which part is set?' },
    { key: 'value', label: 'To (0..1 for a control, ohms for a sensor or switch)', type: 'quantity', unit: null, required: 'To what?' },
    { key: 'text', label: 'In words', type: 'text', required: 'Say it, such as: sensor warm.' },
  ],
});

const STAGE_KINDS = choices(
  ['look', 'look'],
  ['cold', 'cold, no power'],
  ['power', 'power'],
  ['adjust', 'adjust'],
  ['run', 'signals'],
  ['load', 'load and long run'],
);

export const STAGE_FIELDS = (kit: KitState): readonly Field[] => [
  { key: 'title', label: 'Title', type: 'text', required: 'A stage needs a title.' },
  { key: 'kind', label: 'Kind', type: 'choice', options: STAGE_KINDS, required: 'What kind of stage?' },
  { key: 'note', label: 'What to know before it', type: 'area' },
  { key: 'fits', label: 'Fitted before it', type: 'names', options: refsOfKit(kit) },
  { key: 'without', label: 'Taken out or unplugged for it only', type: 'names', options: refsOfKit(kit), mayBeAbsent: true },
  {
    key: 'supplies',
    label: 'Fed by',
    type: 'rows',
    add: 'Add a supply',
    required: '',
    initial: { feed: 'dc' },
    of: [
      { key: 'source', label: 'Source', type: 'name', options: sourcesOfKit(kit), required: 'Which source of the circuit?' },
      { key: 'volts', label: 'Volts, AC: RMS', type: 'quantity', unit: 'V', required: 'How many volts?' },
      { key: 'limit', label: 'Current limit', type: 'quantity', unit: 'A', required: 'At which limit?' },
      {
        key: 'feed',
        label: 'From',
        type: 'choice',
        options: choices(['dc', 'bench supply or adapter'], ['winding', 'winding of a transformer'], ['battery', 'battery']),
      },
      { key: 'ohms', label: 'Inner resistance', type: 'quantity', unit: 'ohm' },
      { key: 'hertz', label: 'Frequency', type: 'quantity', unit: 'Hz' },
    ],
  },
  { key: 'power', label: 'Without a supply it is', type: 'choice', options: choices(['unplugged', 'unplugged'], ['off', 'connected and switched off']) },
  setting(kit),
  {
    key: 'needs',
    label: 'Needs',
    type: 'several',
    options: kit.sheet.needs.map((n) => ({ value: n.id, label: n.text })),
    none: 'No need is noted. A programmer or a battery that the bag lacks is noted beside the list.',
  },
  { key: 'cautions', label: 'Cautions, one a line', type: 'lines' },
];

export const stageOf = (kit: KitState): RecordOf<'stages'> => ({
  id: short('stage'),
  title: '',
  kind: 'power',
  fits: [],
  supplies: lastSupplies(kit.sheet.stages),
});
const lastSupplies = (stages: readonly Stage[]) => [...stages].reverse().find((s) => s.supplies.length > 0)?.supplies ?? [];

/** What is wrong with a stage beyond a single field. */
export function refuseStage(stage: RecordOf<'stages'>, kit: KitState): Readonly<Record<string, string>> {
  const elsewhere = kit.sheet.stages.filter((s) => s.id !== stage.id);
  const twice = stage.fits.find((r, i) => stage.fits.indexOf(r) !== i);
  const other = stage.fits.flatMap((r) => elsewhere.filter((s) => s.fits.includes(r)).map((s) => [r, s.title] as const))[0];
  if (twice) return { fits: `${twice} is there twice. Once is enough.` };
  if (other) return { fits: `${other[0]} is fitted by “${other[1]}” already. Take it out of one of the two.` };
  const sources = stage.supplies.map((s) => s.source);
  const doubled = sources.find((s, i) => sources.indexOf(s) !== i);
  return doubled ? { title: `${doubled} is fed twice in this stage. Keep one of the two.` } : {};
}

export const MEASURE_FIELDS = (kit: KitState): readonly Field[] => [
  { key: 'title', label: 'Title', type: 'text', required: 'A check needs a title.' },
  { key: 'mode', label: 'Meter on', type: 'choice', options: CHECK_MODES.map((m) => ({ value: m, label: MODES[m].words })), required: 'What is measured?' },
  { key: 'red', label: 'Red probe', type: 'place', places: placesOfKit(kit), required: 'Where does the red probe go?', hint: 'TP4, net vcc, R5.2' },
  { key: 'black', label: 'Black probe', type: 'place', places: placesOfKit(kit), required: 'Where does the black probe go?', hint: 'ground' },
  { key: 'source', label: 'Supply whose display is read', type: 'name', options: sourcesOfKit(kit) },
  {
    key: 'window',
    label: 'Limits from the instructions',
    type: 'limits',
    unit: null,
    open: true,
    hint: 'Left empty it is computed from the circuit. No upper limit: over-range passes.',
  },
  { key: 'adjust', label: 'Turned until it is so', type: 'name', options: refsOfKit(kit), hint: 'RV1' },
  {
    key: 'aim',
    label: 'Turned to',
    type: 'choice',
    options: choices(['window', 'its window'], ['least', 'the least that it reads'], ['most', 'the most that it reads']),
  },
  { key: 'note', label: 'Condition or note', type: 'text' },
  setting(kit),
];

export const OBSERVE_FIELDS = (kit: KitState): readonly Field[] => [
  { key: 'title', label: 'Title', type: 'text', required: 'A check needs a title.' },
  { key: 'action', label: 'Do this', type: 'area', required: 'What is to be done?' },
  { key: 'expect', label: 'Expect that', type: 'area', required: 'What should happen?' },
  { key: 'channels', label: 'Tried one by one, one a line (K1-K8, or A, B × left, right)', type: 'lines' },
  { key: 'adjust', label: 'Turned until it happens', type: 'name', options: refsOfKit(kit), hint: 'RV1' },
  { key: 'signRef', label: 'Seen in the circuit at', type: 'name', options: refsOfKit(kit) },
  { key: 'signAmperes', label: 'Which then carries at least', type: 'quantity', unit: 'A' },
  { key: 'note', label: 'Condition or note', type: 'text' },
  setting(kit),
];

type CheckRecord = RecordOf<'checks'>;

/** What is wrong with a check beyond a single field. */
export function refuseCheck(check: CheckRecord): Readonly<Record<string, string>> {
  if (check.what !== 'measure' || check.mode === 'dca') return {};
  return JSON.stringify(check.red) === JSON.stringify(check.black) ? { black: 'Both probes are in one place. A check needs two.' } : {};
}

/** The form asks for a sign in two fields. */
export function checkToForm(check: CheckRecord): FormValues {
  return check.what === 'observe' ? { ...check, signRef: check.sign?.ref, signAmperes: check.sign?.amperes } : { ...check };
}

export function checkFromForm({ signRef, signAmperes, ...values }: FormValues): CheckRecord {
  const sign = values['what'] === 'observe' ? (signRef && typeof signAmperes === 'number' ? { ref: signRef, amperes: signAmperes } : undefined) : undefined;
  return Object.fromEntries(
    Object.entries({ ...values, ...(values['what'] === 'observe' ? { sign } : {}) }).filter(([, v]) => v !== undefined),
  ) as unknown as CheckRecord;
}
export const newMeasure = (stage: string): CheckRecord => ({
  stage,
  id: short('check'),
  what: 'measure',
  title: '',
  mode: 'dcv',
  red: { net: '' },
  black: { net: '0' },
});
export const newObserve = (stage: string): CheckRecord => ({ stage, id: short('look'), what: 'observe', title: '', action: '', expect: '' });
